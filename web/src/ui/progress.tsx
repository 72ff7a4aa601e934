import { Progress as Parts } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** How far long work is, what it is at, and how to stop it. */
export function Progress({ share, what, children }: { share: number; what: string; children?: ReactNode }) {
	return (
		<Parts.Root value={Math.round(100 * share)} className="progress">
			<Parts.Label>{what}</Parts.Label>
			<div style={{ display: "flex", gap: 10, alignItems: "center" }}>
				<Parts.Track>
					<Parts.Range />
				</Parts.Track>
				<Parts.ValueText />
				{children}
			</div>
		</Parts.Root>
	);
}
