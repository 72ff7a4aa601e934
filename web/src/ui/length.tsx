import { Input } from "@chakra-ui/react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { api, ok } from "../api/client";
import { useKit } from "../api/queries";
import { Field } from "./field";
import { useTyped } from "./typed";
import { bare, type Kind, length, pace, type Settings, thin, written } from "./units";

const inches: Settings = { unit: "in", den: 16 };

interface LengthProps {
	label: ReactNode;
	mm: number;
	onSet?: (mm: number) => void;
	/** In a form that is sent as one: its name there; it is sent in mm. */
	name?: string;
	/** The least and most it may be, mm. */
	min?: number;
	max?: number;
	kind?: Kind;
	width?: string;
}

/** A field for a length in the person's unit: what was typed is read by the core, sums
 * too; a mistake is named and nothing is lost. The arrow keys go on by a sixteenth of an
 * inch or half a millimetre, of a thickness by a thousandth or a hundredth. */
export function LengthField({ label, mm: given, onSet, name, min = -Infinity, max = Infinity, kind = "length", width = "92px" }: LengthProps) {
	const settings = useKit().data?.settings ?? inches;
	const [own, setOwn] = useState(given);
	const mm = onSet ? given : own;
	const show = (v: number) => (kind === "thin" ? thin(v, settings, false) : written(v, settings));
	const say = (v: number) => (kind === "thin" ? thin(v, settings) : length(v, settings));
	const shown = show(mm);
	const [text, setText] = useState(shown);
	const [wrong, setWrong] = useState("");
	const [read, setRead] = useState("");
	// What was handed on and has not come back yet: leaving the field does not send it again.
	const sent = useRef("");
	useEffect(() => {
		setText(shown);
		setWrong("");
		sent.current = "";
	}, [shown]);
	const take = (v: number, to = onSet) => {
		if (v < min - 1e-6 || v > max + 1e-6) {
			setWrong(max === Infinity ? `At least ${say(min)}.` : min === -Infinity ? `At most ${say(max)}.` : `Between ${say(min)} and ${say(max)}.`);
			return false;
		}
		setWrong("");
		setOwn(v);
		to?.(v);
		return true;
	};
	const commit = async (text: string) => {
		if (text === shown) return setWrong("");
		if (text === sent.current) return;
		const to = onSet; // of the thing it was typed for
		try {
			const r = await ok(api.GET("/api/length", { params: { query: { text } } }));
			if (!take(r.mm, to)) return;
			const now = show(r.mm);
			setText(now);
			sent.current = now;
			setRead(bare(now) === bare(text) ? "" : `${text.trim()} is ${now} ${settings.unit}`);
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const { typed, done } = useTyped(commit);
	const step = (by: number) => {
		const grid = pace(settings, kind);
		const next = (Math.round(mm / grid) + by) * grid;
		if (text === shown && next >= min - 1e-9 && next <= max + 1e-9) take(next);
	};
	return (
		<Field
			label={
				<>
					{label} ({settings.unit})
				</>
			}
			wrong={wrong}
			help={read && <span role="status">{read}</span>}
		>
			<Input
				style={{ width }}
				value={text}
				onChange={(e) => {
					setText(e.target.value);
					typed(e.target.value);
					setRead("");
				}}
				onBlur={done}
				onKeyDown={(e) => {
					if (e.key === "Enter") {
						if (!onSet && text !== shown) e.preventDefault();
						done();
					}
					if (e.key === "ArrowUp" || e.key === "ArrowDown") {
						e.preventDefault();
						step(e.key === "ArrowUp" ? 1 : -1);
					}
					e.stopPropagation();
				}}
			/>
			{name && <input type="hidden" name={name} value={mm} data-begin={given} />}
		</Field>
	);
}
