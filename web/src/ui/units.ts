import type { State } from "../api/client";

/** The person's unit, and the finest part of an inch they work to. */
export type Settings = State["settings"];

const inch = 25.4;
/** The nearest whole number; what lies just between two goes to the even one, as in the core. */
export function nearest(x: number): number {
	const low = Math.floor(x);
	return Math.abs(x - low - 0.5) < 1e-6 ? low + (Math.abs(low) % 2) : Math.round(x);
}

const minus = (v: number, least: number) => (v < -least ? "−" : "");

/** A length: fractions of an inch as fine as chosen, or millimetres to a tenth. Reading
 * lengths is the core's work; this only writes them. */
export function length(mm: number, s: Settings, unit = true): string {
	if (s.unit === "mm") return `${minus(mm, 0.05)}${Math.abs(nearest(mm * 10) / 10)}${unit ? " mm" : ""}`;
	const n = nearest((Math.abs(mm) / inch) * s.den);
	let num = n % s.den;
	let den: number = s.den;
	while (num > 0 && num % 2 === 0) [num, den] = [num / 2, den / 2];
	const whole = Math.floor(n / s.den);
	const body = num === 0 ? `${whole}` : whole === 0 ? `${num}⁄${den}` : `${whole} ${num}⁄${den}`;
	return `${mm < 0 && n > 0 ? "−" : ""}${body}${unit ? " in" : ""}`;
}

/** What a field shows: the chosen fraction, or a finer one where only that is true. */
export function written(mm: number, s: Settings): string {
	const den = s.unit === "mm" ? s.den : ([s.den, 32, 64] as const).find((d) => d >= s.den && Math.abs(mm - (Math.round((mm / inch) * d) / d) * inch) < 0.02);
	return length(mm, { ...s, den: den ?? s.den }, false);
}

/** A thickness, a height, a play: hundredths of a millimetre, or thousandths of an inch, as
 * a caliper reads them. What is not nothing never reads as nothing, but in a field. */
export function thin(mm: number, s: Settings, unit = true): string {
	const body = s.unit === "mm" ? Math.abs(mm).toFixed(2) : Math.abs(mm / inch).toFixed(3);
	if (unit && Number(body) === 0 && Math.abs(mm) > 1e-6) return `less than ${s.unit === "mm" ? "0.01 mm" : "0.001 in"}`;
	return `${Number(body) === 0 ? "" : minus(mm, 0)}${body}${unit ? ` ${s.unit}` : ""}`;
}

/** Millimetres that count as one on a scale of thicknesses. */
export const caliper = (s: Settings) => (s.unit === "mm" ? 1 : inch);

/** An area in the square of the person's unit: small ones as fine as they need. */
export function area(mm2: number, s: Settings): string {
	if (s.unit === "mm") return mm2 < 10 ? `${mm2.toFixed(1)} mm²` : `${Math.round(mm2)} mm²`;
	const v = mm2 / inch ** 2;
	return `${v.toFixed(v < 0.1 ? 4 : 2)} in²`;
}

/** What a card weighs: grams, or ounces as the US post counts. An avoirdupois ounce is 28.349523125 g. */
export const weight = (g: number, s: Settings) => (s.unit === "mm" ? `${g.toFixed(0)} g` : `${(g / 28.349523125).toFixed(2)} oz`);

/** Grams a square metre of a sheet whose ream of 500, 20 by 26 in, weighs a pound. */
const poundCover = 453.59237 / (500 * 20 * 26 * 0.0254 ** 2);

/** The weight of a paper: g/m², with pounds cover beside it where people work in inches. */
export const grammage = (gsm: number, s: Settings) =>
	s.unit === "mm" ? `${Math.round(gsm)} g/m²` : `${Math.round(gsm / poundCover)} lb cover (${Math.round(gsm)} g/m²)`;

/** A day as it is written where the person lives. */
export const day = (iso: string, locale?: string) => new Date(iso).toLocaleDateString(locale, { dateStyle: "medium" });

/** One press of an arrow key: a sixteenth of an inch or half a millimetre; of a thickness a thousandth of an inch or a hundredth of a millimetre. */
export const pace = (s: Settings, kind: Kind) => (kind === "thin" ? (s.unit === "mm" ? 0.01 : inch / 1000) : s.unit === "mm" ? 0.5 : inch / 16);

/** What is measured with a ruler, or with a caliper. */
export type Kind = "length" | "thin";

/** Minutes in words: 5 min, 1 h 20. */
export function hours(minutes: number): string {
	const m = Math.max(1, Math.round(minutes));
	return m < 60 ? `${m} min` : `${Math.floor(m / 60)} h${m % 60 ? ` ${String(m % 60).padStart(2, "0")}` : ""}`;
}

/** A number as it was meant: signs, spaces, strokes of fractions and idle noughts do not tell two apart. */
export const bare = (text: string) =>
	text
		.trim()
		.replace("−", "-")
		.replace("⁄", "/")
		.replace(/\s+/g, " ")
		.replace(/(\.\d*?)0+$/, "$1")
		.replace(/\.$/, "");
