import { Checkbox as Parts } from "@chakra-ui/react";
import type { ReactNode } from "react";

interface CheckProps {
	/** What is ticked; with `bare` its name for readers alone. */
	label: ReactNode;
	bare?: boolean;
	on?: boolean;
	/** In a form that is sent as one: its name there. */
	name?: string;
	set?: (on: boolean) => void;
}

/** A box to tick. */
export function Check({ label, bare, on, name, set }: CheckProps) {
	return (
		<Parts.Root checked={on} name={name} onCheckedChange={(d) => set?.(d.checked === true)} className="check">
			<Parts.HiddenInput aria-label={bare && typeof label === "string" ? label : undefined} />
			<Parts.Control>
				<Parts.Indicator />
			</Parts.Control>
			{!bare && <Parts.Label>{label}</Parts.Label>}
		</Parts.Root>
	);
}
