import { Input, Field as Parts } from "@chakra-ui/react";
import type { ComponentProps, ReactNode } from "react";

interface FieldProps {
	label: ReactNode;
	/** What was understood, or what to know. */
	help?: ReactNode;
	/** What is wrong, and how to mend it. */
	wrong?: ReactNode;
	/** Width of what is filled in. */
	width?: string;
	required?: boolean;
	children: ReactNode;
}

/** A label over what is filled in, and what is said of it beneath. */
export function Field({ label, help, wrong, width, required, children }: FieldProps) {
	return (
		<Parts.Root invalid={!!wrong} required={required} className="field" style={{ minWidth: width }}>
			<Parts.Label>{label}</Parts.Label>
			{children}
			{wrong && (
				<Parts.ErrorText role="alert" className="field-wrong">
					{wrong}
				</Parts.ErrorText>
			)}
			{!wrong && help && <Parts.HelperText className="field-help">{help}</Parts.HelperText>}
		</Parts.Root>
	);
}

/** A line of text. */
export function TextField({ label, help, wrong, width, ...p }: Omit<FieldProps, "children"> & Omit<ComponentProps<typeof Input>, "width">) {
	return (
		<Field label={label} help={help} wrong={wrong} width={width} required={p.required}>
			<Input {...p} />
		</Field>
	);
}
