import { Box } from "@chakra-ui/react";
import { type ReactNode, useEffect, useId, useState } from "react";
import { api, ok, type State } from "../api/client";

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

/** Heights are small: millimetres to a hundredth whatever the unit. */
export const height = (mm: number) => `${mm.toFixed(2)} mm`;

/** A field for a length: what was typed is read by the core, a mistake is named and nothing is lost. */
export function LengthField({
	label,
	mm,
	settings,
	onSet,
	width = "96px",
}: {
	label: ReactNode;
	mm: number;
	settings: Settings;
	onSet: (mm: number) => void;
	width?: string;
}) {
	const [text, setText] = useState(length(mm, settings, false));
	const [wrong, setWrong] = useState("");
	const id = useId();
	useEffect(() => {
		setText(length(mm, settings, false));
		setWrong("");
	}, [mm, settings]);
	const commit = async () => {
		if (text === length(mm, settings, false)) return setWrong("");
		try {
			const r = await ok(api.GET("/api/length", { params: { query: { text } } }));
			setWrong("");
			onSet(r.mm);
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	return (
		<label className="field">
			{label} ({settings.unit})
			<input
				style={{ width }}
				value={text}
				aria-invalid={wrong !== ""}
				aria-describedby={wrong ? id : undefined}
				onChange={(e) => setText(e.target.value)}
				onBlur={commit}
				onKeyDown={(e) => {
					if (e.key === "Enter") commit();
					e.stopPropagation();
				}}
			/>
			{wrong && (
				<Box id={id} role="alert" color="madder" fontSize="12px" maxW="220px">
					{wrong}
				</Box>
			)}
		</label>
	);
}
