import type { PlanMotif } from "../api/client";
import type { Box } from "./box";

const boxes = new Map<string, [number, number, number, number]>();

/** The box of an outline with room round it, mm. Outlines are long and asked for often: the last ones are remembered. */
export function boxOf(d: string, pad: number): Box {
	let b = boxes.get(d);
	if (!b) {
		let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
		for (const m of d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g))
			[x0, y0, x1, y1] = [Math.min(x0, +m[1]), Math.min(y0, +m[2]), Math.max(x1, +m[1]), Math.max(y1, +m[2])];
		b = [x0, y0, x1, y1];
		if (boxes.size > 400) boxes.clear();
		boxes.set(d, b);
	}
	const [x0, y0, x1, y1] = b;
	return { x: x0 - pad, y: y0 - pad, w: x1 - x0 + 2 * pad, h: y1 - y0 + 2 * pad };
}

/** Where the layers of an image lie, mm: how far each is moved, and where its label stands. */
export interface Apart {
	box: Box;
	moved: { x: number; y: number }[];
	label: { x: number; y: number }[];
	/** Height of the labels' letters, mm. */
	font: number;
}

const px = { letter: 12.5, wide: 6.8, under: 22, gap: 18 };

/** The layers laid out in order, lowest first, in rows that fill the room (px) at one
 * scale, each with its label beneath; a spread below 1 is so far on the way there from
 * the stack. */
export function laidApart(look: PlanMotif, labels: string[], room: { w: number; h: number }, spread: number): Apart {
	const outlines = look.layers.map((l) => boxOf(l.outline, 0));
	// Labels keep their size on the screen, so how much room they take hangs on the scale
	// that the rows come out at: three rounds settle it.
	let scale = 4;
	let best = rows(outlines, labels, scale, Infinity);
	for (let round = 0; round < 3; round++) {
		let most = 0;
		const [least, all] = [best.widest, best.all];
		for (let k = 0; k <= 48; k++) {
			const r = rows(outlines, labels, scale, least + ((all - least) * k) / 48);
			const s = Math.min(room.w / r.w, room.h / r.h);
			if (s > most) [most, best] = [s, r];
		}
		scale = most;
	}
	const to = (a: number, b: number) => a + (b - a) * spread;
	return {
		box: { x: look.minX, y: look.minY, w: to(look.w, best.w), h: to(look.h, best.h) },
		moved: outlines.map((b, i) => ({ x: (look.minX + best.at[i].x - b.x) * spread, y: (look.minY + best.at[i].y - b.y) * spread })),
		label: outlines.map((b) => ({ x: b.x + b.w / 2, y: b.y + b.h + (px.letter + 3) / scale })),
		font: px.letter / scale,
	};
}

/** The boxes in rows no wider than a width, at a scale in px a mm. */
function rows(boxes: Box[], labels: string[], scale: number, width: number) {
	const gap = px.gap / scale;
	const cells = boxes.map((b, i) => ({ w: Math.max(b.w, (labels[i].length * px.wide) / scale), h: b.h }));
	const at: { x: number; y: number }[] = [];
	let [y, w] = [0, 0];
	for (let i = 0; i < cells.length; ) {
		let [end, x] = [i, 0];
		while (end < cells.length && (end === i || x + cells[end].w <= width + 1e-9)) x += cells[end++].w + gap;
		const row = cells.slice(i, end);
		const high = Math.max(...row.map((c) => c.h));
		let left = 0;
		for (const [k, c] of row.entries()) {
			const b = boxes[i + k];
			at.push({ x: left + (c.w - b.w) / 2, y: y + high - b.h });
			left += c.w + gap;
		}
		w = Math.max(w, x - gap);
		y += high + px.under / scale + gap;
		i = end;
	}
	return { at, w, h: y - gap, widest: Math.max(...cells.map((c) => c.w)), all: cells.reduce((sum, c) => sum + c.w + gap, 0) };
}
