import { Box } from "@chakra-ui/react";
import { useLayoutEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { bare, hue } from "../../ui/colours";
import { thin } from "../../ui/units";
import { far, height, places, type Slice, slices } from "./cut";
import { useCutting } from "./cutting";

/** The side view along the cut, heights magnified; taken apart, each thing stands clear of what is beneath. */
export function SideView({ standing }: { standing: S["StandingCard"] }) {
	const { cut, apart } = useCutting();
	const b = useBench();
	const s = b.state.settings;
	const W = far(cut);
	const base = b.state.kit.papers.find((p) => p.id === b.card.base.paper)?.colour ?? bare;
	const ref = useRef<HTMLDivElement>(null);
	const [room, setRoom] = useState({ w: 800, h: 190 });
	useLayoutEffect(() => {
		const el = ref.current;
		if (!el) return;
		const watch = new ResizeObserver(() => setRoom({ w: el.clientWidth, h: el.clientHeight }));
		watch.observe(el);
		return () => watch.disconnect();
	}, []);
	const cuts = slices(standing.pieces, cut);
	const order = [...new Set(cuts.map((c) => c.piece.element))];
	const lift = (element: string) => (1 + order.indexOf(element)) * apart;
	const highest = Math.max(standing.total + order.length * apart, 2);
	const scale = room.w / (W + 24); // points a mm
	// As high as its room lets it be, by a whole number.
	const mag = Math.max(1, Math.min(40, Math.floor((room.h / scale - 9) / highest)));
	const H = highest * mag + 4;
	const each = s.unit === "in" ? 25.4 / 20 : 1;
	const y = (z: number) => H - 2 - z * mag;
	const px = 1 / scale;
	// What holds is drawn by kind, all at once: nothing in a side view lies before anything else.
	const drawn = {
		held: { foam: [] as string[], board: [] as string[], glue: [] as string[] },
		leaves: [] as { piece: Slice["piece"]; body: string; top: string }[],
	};
	for (const c of cuts) {
		const up = lift(c.piece.element);
		const at = (t: number, above: number) => `${t.toFixed(3)} ${y(height(c, t) + up + above).toFixed(3)}`;
		const band = (t0: number, t1: number, from: number, to: number) => {
			const ts = places(c, t0, t1);
			return `M${[...ts.map((t) => at(t, from)), ...ts.reverse().map((t) => at(t, to))].join("L")}Z`;
		};
		for (const h of c.held) drawn.held[h.raised ? (h.foam ? "foam" : "board") : "glue"].push(band(h.t0, h.t1, -h.height, 0));
		const thick = c.piece.thick;
		drawn.leaves.push({
			piece: c.piece,
			body: thick > 0 ? band(c.t0, c.t1, 0, thick) : "",
			top: thick > 0 ? band(c.t0, c.t1, thick * 0.7, thick) : band(c.t0, c.t1, 0, 2.5 / mag / scale),
		});
	}
	const leaf = standing.base / 2;
	return (
		<>
			<Box fontSize="small" mb="2">
				Side view along the cut, heights {mag} times true. Dotted is foam, hatched is board; white gaps are air.
			</Box>
			<div ref={ref} style={{ flex: 1, minHeight: 150, overflow: "hidden" }}>
				<svg
					viewBox={`-18 -2 ${W + 24} ${H + 4}`}
					width="100%"
					height={(H + 4) * scale}
					role="img"
					aria-label={`Side view, ${thin(standing.total, s)} at its highest`}
				>
					<defs>
						<pattern id="foam2" width={6 * px} height={6 * px} patternUnits="userSpaceOnUse">
							<rect width={6 * px} height={6 * px} fill={hue.white} />
							<circle cx={2 * px} cy={2 * px} r={1 * px} fill={hue.rule} />
						</pattern>
						<pattern id="board2" width={6 * px} height={6 * px} patternUnits="userSpaceOnUse">
							<rect width={6 * px} height={6 * px} fill={hue.white} />
							<path d={`M0 ${6 * px}L${6 * px} 0`} stroke={hue.rule} strokeWidth={0.8 * px} />
						</pattern>
					</defs>
					{apart === 0 &&
						Array.from({ length: 40 }, (_, i) => i * each)
							.filter((z) => z <= highest)
							.map((z) => (
								<g key={z}>
									<line x1={-4} x2={W} y1={y(z)} y2={y(z)} stroke={hue.bed} strokeWidth={0.2} />
									<text x={-5} y={y(z) + 4 * px} fontSize={12.5 * px} textAnchor="end" fill={hue.quiet}>
										{thin(z, s)}
									</text>
								</g>
							))}
					<rect x={0} y={y(leaf)} width={W} height={leaf * mag} fill={base} stroke={hue.outline} strokeWidth={0.15} />
					<rect x={0} y={y(2 * leaf)} width={W} height={leaf * mag} fill={base} stroke={hue.outline} strokeWidth={0.15} />
					{(["foam", "board", "glue"] as const).map((kind) => (
						<path
							key={kind}
							data-held={kind}
							d={drawn.held[kind].join("")}
							fill={kind === "foam" ? "url(#foam2)" : kind === "board" ? "url(#board2)" : hue.rule}
							stroke={kind === "glue" ? "none" : hue.rule}
							strokeWidth={0.15}
						/>
					))}
					{drawn.leaves.map((l, i) => {
						const on = b.element === l.piece.element;
						return (
							// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
							<g key={i} data-slice={l.piece.element} data-part={l.piece.part} onClick={() => b.pick({ element: l.piece.element })}>
								{l.body && <path d={l.body} fill={l.piece.body} stroke={on ? hue.ochre : hue.outline} strokeWidth={(on ? 2 : 0.6) * px} />}
								<path d={l.top} fill={l.piece.top} />
							</g>
						);
					})}
				</svg>
			</div>
		</>
	);
}
