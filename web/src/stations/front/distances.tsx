import type { Box } from "../../parts/box";
import { hue } from "../../ui/colours";
import { length, type Settings } from "../../ui/units";

/** Distances from the box of what is in hand to the panel's edges, and to the nearest neighbour on each side. */
export function Distances({
	e,
	box,
	panel,
	others,
	s,
	scale,
}: {
	e: { x: number; y: number };
	box?: { w: number; h: number };
	panel: Box;
	/** The boxes of what else lies there. */
	others: Box[];
	s: Settings;
	scale: number;
}) {
	if (!box) return null;
	const [l, r, t, bt] = [e.x - box.w / 2 - panel.x, panel.x + panel.w - e.x - box.w / 2, e.y - box.h / 2 - panel.y, panel.y + panel.h - e.y - box.h / 2];
	const line = (x1: number, y1: number, x2: number, y2: number, v: number, key: string) => (
		<g key={key} pointerEvents="none">
			<line x1={x1} y1={y1} x2={x2} y2={y2} stroke={v < -0.05 ? hue.madder : hue.ochre} strokeWidth={1.4 / scale} />
			<text
				x={(x1 + x2) / 2}
				y={(y1 + y2) / 2 - 4 / scale}
				fontSize={12.5 / scale}
				fontWeight={700}
				textAnchor="middle"
				fill={v < -0.05 ? hue.madder : hue.text}
				stroke={hue.veil}
				strokeWidth={3 / scale}
				paintOrder="stroke"
			>
				{length(v, s)}
			</text>
		</g>
	);
	return (
		<>
			{neighbours({ x: e.x - box.w / 2, y: e.y - box.h / 2, w: box.w, h: box.h }, others).map((n) => (
				<g key={n.key} pointerEvents="none">
					<line x1={n.x1} y1={n.y1} x2={n.x2} y2={n.y2} stroke={hue.lichen} strokeWidth={1.4 / scale} />
					<text
						x={(n.x1 + n.x2) / 2}
						y={(n.y1 + n.y2) / 2 + 13 / scale}
						fontSize={11.5 / scale}
						fontWeight={700}
						textAnchor="middle"
						fill={hue.lichen}
						stroke={hue.veil}
						strokeWidth={3 / scale}
						paintOrder="stroke"
					>
						{length(Math.abs(n.x2 - n.x1) + Math.abs(n.y2 - n.y1), s)}
					</text>
				</g>
			))}
			{line(panel.x, e.y, panel.x + l, e.y, l, "l")}
			{line(panel.x + panel.w - r, e.y, panel.x + panel.w, e.y, r, "r")}
			{line(e.x, panel.y, e.x, panel.y + t, t, "t")}
			{line(e.x, panel.y + panel.h - bt, e.x, panel.y + panel.h, bt, "b")}
		</>
	);
}

/** Lines to the nearest box on each side that stands beside a box and clear of it. */
export function neighbours(b: Box, others: Box[]) {
	const out: { key: string; x1: number; y1: number; x2: number; y2: number }[] = [];
	const best = (key: string, all: { d: number; at: number }[], line: (at: number) => { x1: number; y1: number; x2: number; y2: number }) => {
		const near = all.filter((n) => n.d > 0.05).sort((p, q) => p.d - q.d)[0];
		if (near) out.push({ key, ...line(near.at) });
	};
	const beside = others.filter((o) => o.y < b.y + b.h && o.y + o.h > b.y);
	const above = others.filter((o) => o.x < b.x + b.w && o.x + o.w > b.x);
	const [cx, cy] = [b.x + b.w / 2, b.y + b.h / 2];
	best(
		"nl",
		beside.map((o) => ({ d: b.x - o.x - o.w, at: o.x + o.w })),
		(at) => ({ x1: at, y1: cy, x2: b.x, y2: cy }),
	);
	best(
		"nr",
		beside.map((o) => ({ d: o.x - b.x - b.w, at: o.x })),
		(at) => ({ x1: b.x + b.w, y1: cy, x2: at, y2: cy }),
	);
	best(
		"nt",
		above.map((o) => ({ d: b.y - o.y - o.h, at: o.y + o.h })),
		(at) => ({ x1: cx, y1: at, x2: cx, y2: b.y }),
	);
	best(
		"nb",
		above.map((o) => ({ d: o.y - b.y - b.h, at: o.y })),
		(at) => ({ x1: cx, y1: b.y + b.h, x2: cx, y2: at }),
	);
	return out;
}
