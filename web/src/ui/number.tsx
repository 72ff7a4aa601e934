import { NumberInput as Parts } from "@chakra-ui/react";
import { type ReactNode, useEffect, useState } from "react";
import { Field } from "./field";
import { useTyped } from "./typed";

interface NumberProps {
	/** Its name; shown over it unless it is bare. */
	label: string;
	bare?: boolean;
	unit?: ReactNode;
	v: number;
	set: (n: number) => void;
	min?: number;
	max?: number;
	step?: number;
	/** Whether it is kept with the card: then it counts once the field is left, or by Enter and the arrow keys. */
	saved?: boolean;
	width?: string;
}

/** A number with bounds, typed or stepped with the arrow keys. What is typed counts at once
 * where it is in bounds; what is out of them comes back to the nearest bound when the field is left. */
export function NumberField({ label, bare, unit, v, set, min = -1e6, max = 1e6, step = 1, saved, width = "76px" }: NumberProps) {
	const [text, setText] = useState(`${v}`);
	useEffect(() => setText(`${v}`), [v]);
	// What is kept with a thing is kept with the one it was typed for.
	const { typed, done } = useTyped((t) => {
		const n = Number(t);
		if (saved && t.trim() && Number.isFinite(n) && n !== v) set(Math.min(max, Math.max(min, n)));
	});
	const take = (n: number) => {
		if (Number.isFinite(n) && n >= min && n <= max && n !== v) set(n);
	};
	const inner = (
		<Parts.Root
			value={text}
			min={min}
			max={max}
			step={step}
			formatOptions={{ maximumFractionDigits: 3, useGrouping: false }}
			onValueChange={(d) => {
				setText(d.value);
				if (!saved) take(d.valueAsNumber);
				else typed(d.value);
			}}
			onValueCommit={(d) => (Number.isFinite(d.valueAsNumber) ? saved && done() : setText(`${v}`))}
			className="number"
			style={{ width }}
		>
			<Parts.Input
				aria-label={bare ? label : undefined}
				// Each press of an arrow counts at once, also of what is kept.
				onKeyUp={(e) => saved && (e.key === "ArrowUp" || e.key === "ArrowDown") && done()}
			/>
		</Parts.Root>
	);
	if (bare)
		return (
			<span className="bare-number">
				{inner}
				{unit && <span>{unit}</span>}
			</span>
		);
	return <Field label={unit ? `${label} (${unit})` : label}>{inner}</Field>;
}

interface EntryProps {
	label: string;
	unit?: string;
	name: string;
	begin: number;
	min: number;
	max: number;
	help?: string;
}

/** A number in a form that is sent as one. */
export const NumberEntry = ({ label, unit, name, begin, min, max, help }: EntryProps) => (
	<Field label={unit ? `${label} (${unit})` : label} help={help} width="84px">
		<Parts.Root name={name} defaultValue={`${begin}`} min={min} max={max} className="number">
			<Parts.Input />
		</Parts.Root>
	</Field>
);
