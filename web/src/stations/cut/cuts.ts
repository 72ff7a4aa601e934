import type { S } from "../../api/client";

/** Straight cuts one after the other that take off the same, told as one: from which number to which. */
export interface Told {
	from: number;
	to: number;
	cut: S["CutSlice"];
}

export function told(cuts: S["CutSlice"][]): Told[] {
	const out: Told[] = [];
	cuts.forEach((c, i) => {
		const last = out.at(-1);
		if (last) {
			const before = cuts[i - 1];
			const alike = before.down === c.down && Math.abs(before.at - c.at) < 0.01 && Math.abs(c.down ? before.h - c.h : before.w - c.w) < 0.01;
			// What is cut next is what was left of the piece before.
			const next = c.down
				? Math.abs(c.x - before.x - before.at) < 0.01 && Math.abs(c.y - before.y) < 0.01
				: Math.abs(c.y - before.y - before.at) < 0.01 && Math.abs(c.x - before.x) < 0.01;
			if (alike && next) {
				last.to = i + 1;
				return;
			}
		}
		out.push({ from: i + 1, to: i + 1, cut: c });
	});
	return out;
}
