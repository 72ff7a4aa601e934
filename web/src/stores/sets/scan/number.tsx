import { useEffect, useState } from "react";
import { TextField } from "../../../ui/field";

/** A number to type, set when left or by Enter. */
export function NumberField({ label, value, onSet }: { label: string; value: number; onSet: (v: number) => void }) {
	const shown = value.toFixed(1);
	const [text, setText] = useState(shown);
	useEffect(() => setText(shown), [shown]);
	const commit = () => {
		const v = Number(text.replace(",", "."));
		if (Number.isFinite(v) && text !== shown) onSet(v);
		else setText(shown);
	};
	return (
		<TextField
			label={label}
			value={text}
			inputMode="decimal"
			width="78px"
			onChange={(e) => setText(e.target.value)}
			onBlur={commit}
			onKeyDown={(e) => {
				if (e.key === "Enter") commit();
				e.stopPropagation();
			}}
		/>
	);
}
