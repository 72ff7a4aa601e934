/** A point on the front, mm. */
export interface P {
	x: number;
	y: number;
}

const rings = new Map<string, P[][]>();

/** The corners of an outline; remembered, since a cut is dragged. */
export function corners(path: string): P[][] {
	let got = rings.get(path);
	if (!got) {
		if (rings.size > 4000) rings.clear();
		got = path
			.split("Z")
			.map((ring) =>
				ring
					.split(/[ML]/)
					.map((at) => at.trim().split(/[ ,]+/).map(Number))
					.filter((n) => n.length === 2 && n.every(Number.isFinite))
					.map(([x, y]) => ({ x, y })),
			)
			.filter((r) => r.length > 2);
		rings.set(path, got);
	}
	return got;
}
