import { type ComponentProps, useEffect, useState } from "react";
import { TextField } from "./field";
import { useTyped } from "./typed";

interface KeptProps extends Omit<ComponentProps<typeof TextField>, "value" | "defaultValue" | "onChange" | "onBlur" | "onKeyDown"> {
	value: string;
	onSet: (text: string) => void;
	/** Nothing is taken for an answer. */
	empty?: boolean;
}

/** A line of text that is kept with a thing: taken by Enter, Tab, leaving it or choosing something
 * else; Escape gives back what was there. */
export function KeptField({ value, onSet, empty, ...p }: KeptProps) {
	const [text, setText] = useState(value);
	useEffect(() => setText(value), [value]);
	const { typed, drop, done } = useTyped((t) => {
		if (t !== value && (empty || t.trim())) onSet(t);
		else setText(value);
	});
	return (
		<TextField
			{...p}
			value={text}
			onChange={(e) => {
				setText(e.target.value);
				typed(e.target.value);
			}}
			onBlur={done}
			onKeyDown={(e) => {
				if (e.key === "Enter") {
					e.preventDefault();
					done();
				}
				if (e.key === "Escape") {
					drop();
					setText(value);
				}
				e.stopPropagation();
			}}
		/>
	);
}
