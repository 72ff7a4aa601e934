import { Popover as Parts } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Button } from "./button";

/** A button that opens a small sheet beside it. */
export function Popover({ label, title, children }: { label: ReactNode; title: string; children: ReactNode }) {
	return (
		<Parts.Root positioning={{ placement: "bottom-start" }} lazyMount unmountOnExit>
			<Parts.Trigger asChild>
				<Button>{label}</Button>
			</Parts.Trigger>
			<Parts.Positioner>
				<Parts.Content className="popover" aria-label={title}>
					{children}
				</Parts.Content>
			</Parts.Positioner>
		</Parts.Root>
	);
}
