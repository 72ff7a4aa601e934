/** A piece that a composite thing is built of. */
export interface Part {
	thick: number; // mm
	/** Over the underside of the whole, mm. */
	z: number;
	lift: number; // mm beneath
	foam?: boolean;
	body: string;
	top: string;
}

/** One stratum: a piece of card, a print, or a composite thing of several pieces. */
export interface Stratum {
	id: string;
	name: string;
	sub: string;
	value?: string;
	thick: number; // mm, 0 for a film
	lift: number; // mm beneath
	foam?: boolean;
	body: string;
	top: string;
	/** The pieces it is built of, lowest first. */
	parts?: Part[];
	/** Where it lies on a whole card, mm: the height of its underside over the table, its
	 * width, and, where it stands on the sheets, its box round its middle on the front. The
	 * strata of one image need none: each lies on the one before. */
	at?: { z: number; w: number; box?: { x: number; y: number; w: number; h: number } };
}

/** A drawn rectangle: from x0 to x1, from y0 (its top) to y1. */
export interface Slab {
	x0: number;
	x1: number;
	y0: number;
	y1: number;
}

/** A stratum as it is drawn. */
export interface Drawn extends Slab {
	film: boolean;
	/** The foam or air beneath it. */
	gap?: Slab;
	parts: (Slab & { body: string; top: string; gap?: Slab })[];
	/** The line its label stands on. */
	label: number;
}

export interface Section {
	drawn: Drawn[];
	height: number;
	/** Drawn height for a millimetre of thickness. */
	factor: number;
	/** Where a print has no height: how high a film is drawn. */
	film: number;
}

const film = 5;
const foot = 6;

/** Lays the strata out as one continuous section so wide, bottom up, every thickness by one
 * factor; labels stand so far apart. All in px. */
export function section(rows: Stratum[], pitch: number, wide: number): Section {
	const height = Math.max(rows.length * pitch + 8, 120);
	const s = rows.some((r) => r.at) ? card(rows, height, wide) : core(rows, height, wide);
	s.drawn.forEach((d, i) => {
		d.label = height - (i + 0.5) * pitch - 2;
	});
	return s;
}

/** A sample drilled through one image: each layer lies on the one before, and a print takes
 * a film's height in the drawing so that it can be seen. */
function core(rows: Stratum[], height: number, wide: number): Section {
	const total = rows.reduce((s, r) => s + r.thick + (r.foam ? r.lift : 0), 0) || 1;
	const films = rows.filter((r) => r.thick === 0).length;
	const factor = (height - films * film - foot - 8) / total;
	let y = height - foot;
	const drawn = rows.map((r): Drawn => {
		const lift = r.foam ? r.lift * factor : 0;
		const gap = lift > 0 ? { x0: wide * 0.13, x1: wide * 0.87, y0: y - lift, y1: y } : undefined;
		y -= lift;
		const tall = r.thick > 0 ? r.thick * factor : film;
		const inset = r.thick > 0 ? 1 : 6;
		const slab = { x0: inset, x1: wide - inset, y0: y - tall, y1: y };
		y -= tall;
		return { ...slab, film: r.thick === 0, gap, parts: [], label: 0 };
	});
	return { drawn, height, factor, film };
}

/** Where what stands on the sheets is drawn: one column for what lies on each other. */
function columns(rows: Stratum[]): number[] {
	const taken: { from: number; to: number; r: Stratum }[][] = [];
	const span = (r: Stratum) => ({ from: (r.at?.z ?? 0) - (r.foam ? r.lift : 0), to: (r.at?.z ?? 0) + Math.max(r.thick, 0.01) });
	return rows.map((r) => {
		const at = r.at?.box;
		if (!at) return -1;
		const me = span(r);
		const free = (c: (typeof taken)[0]) => c.every((o) => o.to <= me.from + 1e-6 || o.from >= me.to - 1e-6);
		const over = (c: (typeof taken)[0]) =>
			c.some(({ r: { at: o } }) => o?.box && Math.abs(at.x - o.box.x) * 2 < at.w + o.box.w && Math.abs(at.y - o.box.y) * 2 < at.h + o.box.h);
		// What lies on something stands over it; what is like another in every height is drawn with it.
		let k = taken.findIndex((c) => free(c) && over(c));
		if (k < 0) k = taken.findIndex((c) => c.some((o) => o.from === me.from && o.to === me.to && o.r.body === r.body && o.r.top === r.top));
		if (k < 0) k = taken.push([]) - 1;
		taken[k].push({ ...me, r });
		return k;
	});
}

/** A section of a whole card: sheets at their width, what stands on them at its own height,
 * side by side where it does not lie on each other. */
function card(rows: Stratum[], height: number, wide: number): Section {
	const top = Math.max(...rows.map((r) => (r.at?.z ?? 0) + r.thick), 0.1);
	const factor = (height - foot - 12) / top;
	const full = Math.max(...rows.map((r) => r.at?.w ?? 0), 1);
	const col = columns(rows);
	const n = Math.max(1, ...col.map((c) => c + 1));
	const side = wide * 0.07;
	const room = (wide - 2 * side) / n;
	const y = (z: number) => height - foot - z * factor;
	const drawn = rows.map((r, i): Drawn => {
		const z = r.at?.z ?? 0;
		const half = (wide / 2 - 1) * ((r.at?.w ?? full) / full);
		const [x0, x1] = col[i] < 0 ? [wide / 2 - half, wide / 2 + half] : [side + col[i] * room + 1, side + (col[i] + 1) * room - 1];
		const inset = (x1 - x0) * 0.14;
		const flat = r.thick < 0.005;
		// Foam stands in from the edge; glue and tape are seen as the thin film they are.
		const in0 = r.foam ? inset : 2;
		const gap = r.lift > 0 ? { x0: x0 + in0, x1: x1 - in0, y0: y(z), y1: y(z - r.lift) } : undefined;
		const slab = { x0, x1, y0: flat ? y(z) - 3 : y(z + r.thick), y1: y(z) };
		return { ...slab, film: flat, gap, parts: flat ? [] : pile(slab, r.parts ?? [], factor), label: 0 };
	});
	return { drawn, height, factor, film: 3 };
}

/** The pieces of a composite inside its slab at their true heights: those at one height stand
 * beside each other, and what lies higher is a little narrower than what lies lower. */
function pile(s: Slab, parts: Part[], factor: number): Drawn["parts"] {
	const meet = (a: Part, b: Part) => a.z < b.z + b.thick - 1e-6 && b.z < a.z + a.thick - 1e-6;
	const wide = s.x1 - s.x0;
	return parts.map((p, i) => {
		const with_ = parts.filter((o) => meet(p, o));
		const at = parts.slice(0, i).filter((o) => meet(p, o)).length;
		const inset = Math.min(0.24, 0.035 * parts.filter((o) => !meet(p, o) && o.z < p.z).length) * wide;
		const each = (wide - 2 * inset) / with_.length;
		const x0 = s.x0 + inset + at * each;
		const x1 = x0 + each;
		const y1 = s.y1 - p.z * factor;
		const side = Math.min(6, each * 0.16);
		const gap = p.foam && p.lift > 0 ? { x0: x0 + side, x1: x1 - side, y0: y1, y1: y1 + p.lift * factor } : undefined;
		return { x0, x1, y0: y1 - p.thick * factor, y1, body: p.body, top: p.top, gap };
	});
}
