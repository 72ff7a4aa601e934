/** A value at a time, with how sure it is. */
export interface Mark {
	/** Milliseconds. */
	at: number;
	v: number;
	low?: number;
	high?: number;
	say: string;
}

/** How marks are laid out: 0 to 1 across by time, and a round number over the highest. */
export function scale(marks: Mark[], usual = 0): { across: (at: number) => number; top: number; spans: boolean } {
	const times = marks.map((m) => m.at);
	const first = Math.min(...times);
	const last = Math.max(...times);
	const most = Math.max(usual, ...marks.map((m) => Math.max(m.v, Math.min(m.high ?? m.v, 2 * m.v))));
	return { across: (at) => (last > first ? (at - first) / (last - first) : 0.5), top: round(most), spans: last > first };
}

/** The least of 1, 2 and 5 by a power of ten that is not less. */
export function round(v: number): number {
	if (!(v > 0)) return 1;
	const p = 10 ** Math.floor(Math.log10(v));
	return [1, 2, 5, 10].map((m) => m * p).find((m) => m >= v * (1 - 1e-9)) ?? 10 * p;
}
