import { Popover as Parts } from "@chakra-ui/react";
import type { CSSProperties, ReactNode } from "react";
import { Button } from "./button";

interface PopoverProps {
	label: ReactNode;
	title: string;
	/** It opens over the strata, so that the table stays seen. */
	aside?: boolean;
	/** What is in it; it may be shut from within. */
	children: ReactNode | ((shut: () => void) => ReactNode);
}

/** Where a small sheet stands that leaves the table free. */
const overStrata: CSSProperties = { position: "fixed", transform: "none", left: "auto", right: 12, top: 108, bottom: "auto" };

/** A button that opens a small sheet beside it. */
export function Popover({ label, title, aside, children }: PopoverProps) {
	return (
		<Parts.Root positioning={{ placement: "bottom-start" }} lazyMount unmountOnExit>
			<Parts.Trigger asChild>
				<Button>{label}</Button>
			</Parts.Trigger>
			<Parts.Positioner style={aside ? overStrata : undefined}>
				<Parts.Content className="popover" aria-label={title}>
					{typeof children === "function" ? <Parts.Context>{(p) => children(() => p.setOpen(false))}</Parts.Context> : children}
				</Parts.Content>
			</Parts.Positioner>
		</Parts.Root>
	);
}
