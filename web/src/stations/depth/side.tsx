import { Box } from "@chakra-ui/react";
import { useLayoutEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { bare, hue } from "../../ui/colours";
import { thin } from "../../ui/units";
import { type Cut, far, slices } from "./cut";

/** The side view along the cut, heights magnified; taken apart, each thing stands clear of what is beneath. */
export function SideView({ standing, cut, apart }: { standing: S["StandingCard"]; cut: Cut; apart: number }) {
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
					{cuts.map((c, i) => {
						const p = c.piece;
						const up = lift(p.element);
						const on = b.element === p.element;
						const z = (t: number) => c.z0 + ((c.z1 - c.z0) * (t - c.t0)) / Math.max(c.t1 - c.t0, 1e-9) + up;
						const band = (t0: number, t1: number, from: number, to: number) =>
							`M${t0} ${y(z(t0) + from)}L${t1} ${y(z(t1) + from)}L${t1} ${y(z(t1) + to)}L${t0} ${y(z(t0) + to)}Z`;
						return (
							// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
							<g key={i} data-slice={p.element} data-part={p.part} onClick={() => b.pick({ element: p.element })}>
								{c.held.map((h) => (
									<path
										key={h.t0}
										data-pad={h.raised || undefined}
										d={band(h.t0, h.t1, -h.height, 0)}
										fill={h.raised ? (h.foam ? "url(#foam2)" : "url(#board2)") : hue.rule}
										stroke={h.raised ? hue.rule : "none"}
										strokeWidth={0.15}
									/>
								))}
								{p.thick > 0 ? (
									<>
										<path d={band(c.t0, c.t1, 0, p.thick)} fill={p.body} stroke={on ? hue.ochre : hue.outline} strokeWidth={(on ? 2 : 0.6) * px} />
										<path d={band(c.t0, c.t1, p.thick * 0.7, p.thick)} fill={p.top} />
									</>
								) : (
									<path d={band(c.t0, c.t1, 0, 2.5 / mag / scale)} fill={p.top} />
								)}
							</g>
						);
					})}
				</svg>
			</div>
		</>
	);
}
