import { Tooltip as Parts } from "@chakra-ui/react";
import type { ReactElement, ReactNode } from "react";

/** What a thing means, said when the pointer rests on it or the focus comes to it. */
export function Tip({ say, children }: { say: ReactNode; children: ReactElement }) {
	return (
		<Parts.Root openDelay={350} closeDelay={80} positioning={{ placement: "top" }}>
			<Parts.Trigger asChild>{children}</Parts.Trigger>
			<Parts.Positioner>
				<Parts.Content className="tip">{say}</Parts.Content>
			</Parts.Positioner>
		</Parts.Root>
	);
}
