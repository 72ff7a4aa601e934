import { useEffect, useState } from "react";

/** A number with bounds. What is typed counts at once where it is in bounds, or, when it is saved with the card, once the field is left. */
export function Num({
	label,
	v,
	set,
	min,
	max,
	step = 0.5,
	saved,
}: {
	label: string;
	v: number;
	set: (n: number) => void;
	min: number;
	max: number;
	step?: number;
	saved?: boolean;
}) {
	const [text, setText] = useState(`${v}`);
	useEffect(() => setText(`${v}`), [v]);
	const leave = () => {
		const n = Math.min(max, Math.max(min, Number(text) || 0));
		setText(`${n}`);
		if (n !== v) set(n);
	};
	return (
		<label className="field">
			{label}
			<input
				type="number"
				value={text}
				min={min}
				max={max}
				step={step}
				style={{ width: 92 }}
				onChange={(e) => {
					setText(e.target.value);
					const n = Number(e.target.value);
					if (!saved && e.target.value !== "" && n >= min && n <= max) set(n);
				}}
				onBlur={leave}
				onKeyDown={(e) => e.key === "Enter" && leave()}
			/>
		</label>
	);
}
