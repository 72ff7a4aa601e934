import type { S } from "../../../api/client";
import { middle, turned } from "./paths";

export type Seated = S["Seat"] & { mirror: boolean };

/** Where a seat puts a point of its piece. */
export function put(s: Seated, outline: string, p: { x: number; y: number }) {
	const q = s.mirror ? { x: 2 * middle(outline).x - p.x, y: p.y } : p;
	const t = turned(q, s.turn);
	return { x: t.x + s.x, y: t.y + s.y };
}

export const transform = (s: Seated, outline: string) =>
	`translate(${s.x} ${s.y}) rotate(${s.turn})${s.mirror ? ` translate(${2 * middle(outline).x} 0) scale(-1 1)` : ""}`;

/** Lines in the frame of a seat. */
export const movedLines = (d: string, s: Seated, outline: string) =>
	d.replace(/([ML])(-?[\d.]+) (-?[\d.]+)/g, (_, c, x, y) => {
		const p = put(s, outline, { x: Number(x), y: Number(y) });
		return `${c}${p.x.toFixed(2)} ${p.y.toFixed(2)}`;
	});

/** Whether piece k is piece n or lies on it, however high. */
export function liesOn(seats: Seated[], k: number, n: number) {
	for (let s = seats.find((q) => q.piece === k), i = 0; s && i <= seats.length; i++) {
		if (s.piece === n) return true;
		const host = s.host;
		s = seats.find((q) => q.piece === host);
	}
	return false;
}

/** The seats once a piece has come to another place, and with it what lies on it. */
export function carried(seats: Seated[], piece: number, to: Partial<Seated>): Seated[] {
	const was = seats.find((s) => s.piece === piece);
	if (!was) return seats;
	const now = { ...was, ...to };
	const by = now.turn - was.turn;
	const c = turned(was, by);
	return seats.map((s) => {
		if (s.piece === piece) return now;
		if (!liesOn(seats, s.piece, piece)) return s;
		const t = turned(s, by);
		return { ...s, turn: s.turn + by, x: t.x + now.x - c.x, y: t.y + now.y - c.y };
	});
}
