import { useId } from "react";
import type { S } from "../api/client";

const rings = 6;
// Strokes of growing width lie on each other so that the cover falls evenly inwards.
const alphas = Array.from({ length: rings }, (_, k) => {
	const cover = (m: number) => (m - 0.5) / rings;
	return k === 0 ? cover(1) : 1 - (1 - cover(k + 1)) / (1 - cover(k));
});

/** The inks worked into the zones of a layer, fading out as far as the plan says. */
export function Shades({ layer, blends, wet }: { layer: S["PlanLayer"]; blends: S["LookBlend"][]; wet?: boolean }) {
	const id = useId();
	return (
		<>
			{blends.map((s, n) => {
				const colour = wet ? s.wet : s.dry;
				if (!colour || s.zone === "all over") return null;
				const key = `${s.zone}${n}`;
				if (s.zone === "rim")
					return (
						<g key={key} clipPath={`url(#${id}c)`} pointerEvents="none">
							{n === blends.findIndex((b) => b.zone === "rim") && (
								<clipPath id={`${id}c`}>
									<path d={layer.outline} clipRule="evenodd" />
								</clipPath>
							)}
							{alphas.map((a, k) => (
								<path key={a} d={layer.outline} fill="none" stroke={colour} strokeOpacity={a} strokeWidth={(2 * s.reach * (rings - k)) / rings} />
							))}
						</g>
					);
				const across = s.reach / Math.max(0.01, layer.w);
				const down = s.reach / Math.max(0.01, layer.h);
				const line = {
					foot: { x1: 0, x2: 0, y1: 1, y2: 1 - down },
					tip: { x1: 0, x2: 0, y1: 0, y2: down },
					"left side": { x1: 0, x2: across, y1: 0, y2: 0 },
					"right side": { x1: 1, x2: 1 - across, y1: 0, y2: 0 },
				}[s.zone];
				return (
					<g key={key} pointerEvents="none">
						<linearGradient id={`${id}${n}`} {...line}>
							<stop offset="0" stopColor={colour} />
							<stop offset="1" stopColor={colour} stopOpacity={0} />
						</linearGradient>
						<path d={layer.outline} fillRule="evenodd" fill={`url(#${id}${n})`} />
					</g>
				);
			})}
		</>
	);
}
