import { corners, type P } from "../../ui/outline";

/** A ring with the holes directly in it. */
export interface Ringed {
	outer: P[];
	holes: P[][];
}

function inside(p: P, r: P[]): boolean {
	let odd = false;
	for (let i = 0, j = r.length - 1; i < r.length; j = i++) {
		if (r[i].y > p.y !== r[j].y > p.y && p.x < r[i].x + ((r[j].x - r[i].x) * (p.y - r[i].y)) / (r[j].y - r[i].y)) odd = !odd;
	}
	return odd;
}

/** An outline, filled even-odd, as rings with their holes: every second ring from the outside
 * in is an edge of card, those between are holes of the ring round them. */
export function shapes(path: string): Ringed[] {
	const all = corners(path);
	const around = all.map((r) => all.filter((o) => o !== r && inside(r[0], o)));
	const out = new Map<P[], Ringed>();
	all.forEach((r, i) => {
		if (around[i].length % 2 === 0) out.set(r, { outer: r, holes: [] });
	});
	all.forEach((r, i) => {
		if (around[i].length % 2 === 0) return;
		const host = around[i].reduce((a, o) => (around[all.indexOf(o)].length > around[all.indexOf(a)].length ? o : a));
		out.get(host)?.holes.push(r);
	});
	return [...out.values()];
}
