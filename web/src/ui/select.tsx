import { NativeSelect as Parts } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Field } from "./field";

interface SelectProps {
	/** Its name; shown over it unless it is bare. */
	label: string;
	bare?: boolean;
	/** In a form that is sent as one: its name there, and what it begins with. */
	name?: string;
	begin?: string;
	value?: string;
	onChange?: (value: string) => void;
	width?: string;
	disabled?: boolean;
	children: ReactNode;
}

/** One out of a few, chosen with the browser's own list. */
export function Select({ label, bare, name, begin, value, onChange, width, disabled, children }: SelectProps) {
	const inner = (
		<Parts.Root disabled={disabled} style={{ width: bare ? width : undefined }}>
			<Parts.Field name={name} value={value} defaultValue={begin} onChange={(e) => onChange?.(e.target.value)} aria-label={bare ? label : undefined}>
				{children}
			</Parts.Field>
		</Parts.Root>
	);
	return bare ? (
		inner
	) : (
		<Field label={label} width={width}>
			{inner}
		</Field>
	);
}
