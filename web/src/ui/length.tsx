import { Box } from "@chakra-ui/react";
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { api, ok, type State } from "../api/client";
import { useKit } from "../api/queries";

export type Settings = State["settings"];

/** Small heights in inches, to a sixty-fourth. */
export const fine: Settings = { unit: "in", den: 64 };

/** A length in the chosen unit, rounded as chosen. Reading lengths is the core's work; this only writes them. */
export function length(mm: number, s: Settings, unit = true): string {
	if (s.unit === "mm") return `${mm < -0.05 ? "−" : ""}${Math.abs(Math.round(mm * 10) / 10)}${unit ? " mm" : ""}`;
	const n = Math.round((Math.abs(mm) / 25.4) * s.den);
	let num = n % s.den;
	let den: number = s.den;
	while (num > 0 && num % 2 === 0) [num, den] = [num / 2, den / 2];
	const whole = Math.floor(n / s.den);
	const body = num === 0 ? `${whole}` : whole === 0 ? `${num}⁄${den}` : `${whole} ${num}⁄${den}`;
	return `${mm < 0 && n > 0 ? "−" : ""}${body}${unit ? " in" : ""}`;
}

/** An area in the square of the person's unit. */
export const area = (mm2: number, s: Settings) => (s.unit === "mm" ? `${Math.round(mm2)} mm²` : `${(mm2 / 25.4 ** 2).toFixed(2)} in²`);

/** Heights are small: millimetres to a hundredth whatever the unit. */
export const height = (mm: number) => `${mm.toFixed(2)} mm`;

/** One press of an arrow key: a sixteenth of an inch, or half a millimetre. */
const pace = (s: Settings) => (s.unit === "mm" ? 0.5 : 25.4 / 16);

/** What a field shows: the chosen fraction, or a finer one where only that is true. */
function written(mm: number, s: Settings): string {
	const den = s.unit === "mm" ? s.den : ([s.den, 32, 64] as const).find((d) => d >= s.den && Math.abs(mm - (Math.round((mm / 25.4) * d) / d) * 25.4) < 0.02);
	return length(mm, { ...s, den: den ?? s.den }, false);
}

/** A field for a length in the person's unit: what was typed is read by the core, sums
 * too; a mistake is named and nothing is lost. The arrow keys go on by a sixteenth of an
 * inch or half a millimetre. */
export function LengthField(p: {
	label: ReactNode;
	mm: number;
	onSet: (mm: number) => void;
	/** The least and most it may be, mm. */
	min?: number;
	max?: number;
	width?: string;
}) {
	const { label, mm, onSet, min = -Infinity, max = Infinity, width = "96px" } = p;
	const settings = useKit().data?.settings ?? fine;
	const shown = written(mm, settings);
	const [text, setText] = useState(shown);
	const [wrong, setWrong] = useState("");
	const [read, setRead] = useState("");
	const id = useId();
	// What was handed on and has not come back yet: leaving the field does not send it again.
	const sent = useRef("");
	useEffect(() => {
		setText(shown);
		setWrong("");
		sent.current = "";
	}, [shown]);
	const take = (v: number) => {
		if (v < min - 1e-6 || v > max + 1e-6) {
			const least = length(min, settings);
			setWrong(
				max === Infinity ? `At least ${least}.` : min === -Infinity ? `At most ${length(max, settings)}.` : `Between ${least} and ${length(max, settings)}.`,
			);
			return false;
		}
		setWrong("");
		onSet(v);
		return true;
	};
	const commit = async () => {
		if (text === shown) return setWrong("");
		if (text === sent.current) return;
		try {
			const r = await ok(api.GET("/api/length", { params: { query: { text } } }));
			if (!take(r.mm)) return;
			const now = written(r.mm, settings);
			setText(now);
			sent.current = now;
			setRead(now === text.trim() ? "" : `${text.trim()} is ${now} ${settings.unit}`);
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const step = (by: number) => {
		const grid = pace(settings);
		const next = (Math.round(mm / grid) + by) * grid;
		if (text === shown && next >= min && next <= max) take(next);
	};
	return (
		<label className="field">
			{label} ({settings.unit})
			<input
				style={{ width }}
				value={text}
				aria-invalid={wrong !== ""}
				aria-describedby={wrong || read ? id : undefined}
				onChange={(e) => {
					setText(e.target.value);
					setRead("");
				}}
				onBlur={commit}
				onKeyDown={(e) => {
					if (e.key === "Enter") commit();
					if (e.key === "ArrowUp" || e.key === "ArrowDown") {
						e.preventDefault();
						step(e.key === "ArrowUp" ? 1 : -1);
					}
					e.stopPropagation();
				}}
			/>
			{wrong && (
				<Box id={id} role="alert" color="madder" fontSize="12px" maxW="220px">
					{wrong}
				</Box>
			)}
			{!wrong && read && (
				<Box id={id} role="status" color="quiet" fontSize="12px" maxW="220px">
					{read}
				</Box>
			)}
		</label>
	);
}
