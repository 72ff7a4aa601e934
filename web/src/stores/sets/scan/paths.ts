/** The rings of path data with straight sides. */
export function rings(d: string): [number, number][][] {
	return d
		.split("Z")
		.filter(Boolean)
		.map((r) => [...r.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]));
}

const middles = new Map<string, { x: number; y: number }>();

/** The centre of area of path data with straight sides. */
export function middle(d: string): { x: number; y: number } {
	const known = middles.get(d);
	if (known) return known;
	let [a, x, y] = [0, 0, 0];
	for (const r of rings(d)) {
		for (let i = 0; i < r.length; i++) {
			const [p, q] = [r[i], r[(i + 1) % r.length]];
			const c = p[0] * q[1] - q[0] * p[1];
			a += c;
			x += (p[0] + q[0]) * c;
			y += (p[1] + q[1]) * c;
		}
	}
	const out = a === 0 ? { x: 0, y: 0 } : { x: x / (3 * a), y: y / (3 * a) };
	if (middles.size > 2000) middles.clear();
	middles.set(d, out);
	return out;
}

/** Turns a point clockwise about the origin, by degrees. */
export function turned(p: { x: number; y: number }, deg: number) {
	const [s, c] = [Math.sin((deg * Math.PI) / 180), Math.cos((deg * Math.PI) / 180)];
	return { x: p.x * c - p.y * s, y: p.x * s + p.y * c };
}
