import { useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { hue } from "../../ui/colours";
import { under } from "./cut";

/** The card turned in the hand where the browser draws no solids: every leaf at its height, its core at its edges, its shadow beneath. */
export function Aslant({ standing, w, h }: { standing: S["StandingCard"]; w: number; h: number }) {
	const b = useBench();
	const [turn, setTurn] = useState({ a: -28, e: 52 });
	const from = useRef<{ x: number; y: number; a: number; e: number }>(null);
	const c = b.card.base;
	// Turned about the middle of the card, looked at from above at an angle; heights twice true.
	const r = (turn.a * Math.PI) / 180;
	const sin = Math.sin((turn.e * Math.PI) / 180);
	const rise = 2 * Math.cos((turn.e * Math.PI) / 180);
	const ca = Math.cos(r);
	const sa = Math.sin(r);
	const plane = (z: number) => `matrix(${ca} ${sa * sin} ${-sa} ${ca * sin} 0 ${-z * rise}) translate(${-c.w / 2} ${-c.h / 2})`;
	const half = Math.hypot(c.w, c.h) / 2 + 4;
	return (
		<svg
			viewBox={`${-half} ${-half * 0.95} ${2 * half} ${1.9 * half}`}
			width={w}
			height={h}
			style={{ touchAction: "none", cursor: "grab", flexShrink: 0 }}
			role="img"
			aria-label="The card turned in the hand"
			onPointerDown={(e) => {
				e.currentTarget.setPointerCapture(e.pointerId);
				from.current = { x: e.clientX, y: e.clientY, ...turn };
			}}
			onPointerMove={(e) => {
				const f = from.current;
				if (f) setTurn({ a: f.a + (e.clientX - f.x) / 3, e: Math.min(88, Math.max(20, f.e + (e.clientY - f.y) / 4)) });
			}}
			onPointerUp={() => {
				from.current = null;
			}}
		>
			<rect width={c.w} height={c.h} transform={plane(0)} fill={hue.rule} opacity={0.5} />
			{[0, 0.33, 0.66, 1].map((z) => (
				<rect
					key={z}
					width={c.w}
					height={c.h}
					transform={plane(z * standing.base)}
					fill={z === 1 ? hue.white : hue.bed}
					stroke={hue.outline}
					strokeWidth={0.1}
				/>
			))}
			{standing.pieces.map((p, i) => {
				const z = under(p, p);
				return (
					<g key={i}>
						{p.thick > 0 && <path d={p.path} fillRule="evenodd" transform={plane(Math.max(standing.base, z - 0.6))} fill="#000" opacity={0.16} />}
						{p.thick > 0 &&
							[0, 0.4, 0.8].map((f) => (
								<path key={f} d={p.path} fillRule="evenodd" transform={plane(z + f * p.thick)} fill={p.body} stroke={hue.edge} strokeWidth={0.08} />
							))}
						<path d={p.path} fillRule="evenodd" transform={plane(z + p.thick)} fill={p.top} stroke={hue.edge} strokeWidth={0.08} />
					</g>
				);
			})}
		</svg>
	);
}
