import type { S } from "../../api/client";
import { corners, type P } from "../../ui/outline";

/** A line across the front along which it is looked at from the side. */
export interface Cut {
	a: P;
	b: P;
}

/** A piece where the cut goes through it: mm along the cut, heights at both ends. */
export interface Slice {
	piece: S["StandingPiece"];
	t0: number;
	t1: number;
	/** Its underside from end to end, at places as far apart as each other. */
	zs: number[];
	/** The areas by which it is held, along the same line. */
	held: { t0: number; t1: number; height: number; foam: boolean; raised: boolean }[];
}

const boxes = new Map<string, [P, P]>();

/** The box round an outline; remembered. */
function box(path: string): [P, P] {
	let got = boxes.get(path);
	if (!got) {
		if (boxes.size > 4000) boxes.clear();
		got = [
			{ x: Number.POSITIVE_INFINITY, y: Number.POSITIVE_INFINITY },
			{ x: Number.NEGATIVE_INFINITY, y: Number.NEGATIVE_INFINITY },
		];
		for (const r of corners(path)) {
			for (const p of r) {
				got[0] = { x: Math.min(got[0].x, p.x), y: Math.min(got[0].y, p.y) };
				got[1] = { x: Math.max(got[1].x, p.x), y: Math.max(got[1].y, p.y) };
			}
		}
		boxes.set(path, got);
	}
	return got;
}

export const far = (c: Cut) => Math.hypot(c.b.x - c.a.x, c.b.y - c.a.y);

/** Where a line passes through an outline: from and to, mm from the beginning of the line. */
export function through(path: string, c: Cut): [number, number][] {
	const long = far(c);
	if (long < 1e-9) return [];
	const ux = (c.b.x - c.a.x) / long;
	const uy = (c.b.y - c.a.y) / long;
	const side = (p: P) => ux * (p.y - c.a.y) - uy * (p.x - c.a.x);
	const along = (p: P) => ux * (p.x - c.a.x) + uy * (p.y - c.a.y);
	// Most outlines lie wholly on one side of the line.
	const [lo, hi] = box(path);
	const ends = [side(lo), side(hi), side({ x: lo.x, y: hi.y }), side({ x: hi.x, y: lo.y })];
	if (ends.every((d) => d > 0) || ends.every((d) => d < 0)) return [];
	const at: number[] = [];
	for (const r of corners(path)) {
		for (let i = 0; i < r.length; i++) {
			const p = r[i];
			const q = r[(i + 1) % r.length];
			const sp = side(p);
			const sq = side(q);
			if (sp >= 0 !== sq >= 0) at.push(along(p) + ((along(q) - along(p)) * sp) / (sp - sq));
		}
	}
	at.sort((x, y) => x - y);
	const out: [number, number][] = [];
	for (let i = 0; i + 1 < at.length; i += 2) {
		const from = Math.max(0, at[i]);
		const to = Math.min(long, at[i + 1]);
		if (to - from > 1e-6) out.push([from, to]);
	}
	return out;
}

/** The underside of a piece at a point, mm above the table. */
export function under(p: S["StandingPiece"], q: P): number {
	const b = p.bent;
	if (!b) return p.z + p.sx * (q.x - p.x) + p.sy * (q.y - p.y);
	const ny = b.z.length / b.nx;
	const x = Math.min(Math.max((q.x - b.x) / b.cell, 0), b.nx - 1);
	const y = Math.min(Math.max((q.y - b.y) / b.cell, 0), ny - 1);
	const i = Math.min(Math.floor(x), b.nx - 2);
	const j = Math.min(Math.floor(y), ny - 2);
	const at = (i: number, j: number) => b.z[j * b.nx + i];
	const along = (j: number) => at(i, j) + (x - i) * (at(i + 1, j) - at(i, j));
	return along(j) + (y - j) * (along(j + 1) - along(j));
}

/** The underside of a slice at a place along the cut. */
export function height(c: Slice, t: number): number {
	const n = c.zs.length - 1;
	const u = Math.min(Math.max((t - c.t0) / Math.max(c.t1 - c.t0, 1e-9), 0), 1) * n;
	const i = Math.min(Math.floor(u), n - 1);
	return c.zs[i] + (u - i) * (c.zs[i + 1] - c.zs[i]);
}

/** Places from one along a slice to another, near enough that it is straight between them. */
export function places(c: Slice, from: number, to: number): number[] {
	const step = (c.t1 - c.t0) / (c.zs.length - 1);
	const out = [from];
	for (let i = 1; i < c.zs.length - 1; i++) {
		const t = c.t0 + i * step;
		if (t > from && t < to) out.push(t);
	}
	out.push(to);
	return out;
}

/** How far along a slice its height is looked at, from 0 to 1: at its ends, of a bent one more often. */
function seen(p: S["StandingPiece"], long: number): number[] {
	const n = p.bent ? Math.max(1, Math.ceil((2 * long) / p.bent.cell)) : 1;
	return Array.from({ length: n + 1 }, (_, i) => i / n);
}

/** Everything a cut goes through, as it is laid. */
export function slices(pieces: S["StandingPiece"][], c: Cut): Slice[] {
	const long = far(c);
	const at = (t: number) => ({ x: c.a.x + ((c.b.x - c.a.x) * t) / long, y: c.a.y + ((c.b.y - c.a.y) * t) / long });
	return pieces.flatMap((piece) =>
		through(piece.path, c).map(([t0, t1]) => ({
			piece,
			t0,
			t1,
			zs: seen(piece, t1 - t0).map((u) => under(piece, at(t0 + u * (t1 - t0)))),
			held: piece.supports.flatMap((s) =>
				through(s.path, c)
					.filter(([f, g]) => g > t0 && f < t1)
					.map(([f, g]) => ({ t0: Math.max(f, t0), t1: Math.min(g, t1), height: s.height, foam: s.foam, raised: s.raised })),
			),
		})),
	);
}

/** A cut across a card of that size, through a point, in a direction (0: across). */
export function across(w: number, h: number, p: P, degrees: number): Cut {
	const r = (degrees * Math.PI) / 180;
	const d = { x: Math.cos(r), y: Math.sin(r) };
	// From edge to edge.
	let lo = -1e9;
	let hi = 1e9;
	for (const [at, dir, size] of [
		[p.x, d.x, w],
		[p.y, d.y, h],
	]) {
		if (Math.abs(dir) < 1e-9) continue;
		const ends = [-at / dir, (size - at) / dir].sort((x, y) => x - y);
		lo = Math.max(lo, ends[0]);
		hi = Math.min(hi, ends[1]);
	}
	return { a: { x: p.x + d.x * lo, y: p.y + d.y * lo }, b: { x: p.x + d.x * hi, y: p.y + d.y * hi } };
}
