import { useRef } from "react";
import type { Bench } from "../../api/card";
import type { S } from "../../api/client";
import { boxOf } from "../../parts/apart";
import { bare, hue } from "../../ui/colours";
import { type Live, useLive } from "../../ui/live";
import { Sights } from "./place";
import { holds, magnify, type Off, reachPath } from "./play";

const pad = 4;
export const whole = (o: Off) => o;

/** One layer where it lies on its host, as the picture of it needs. Nothing comes back without a layer. */
export function lieOf(b: Bench, at: number, placing: S["Placing"] | undefined) {
	const { look, motif } = b;
	const l = look?.layers[at];
	if (!look || !motif || !l) return;
	const doc = motif.layers.find((x) => x.id === l.id);
	const told = placing?.layer === l.id ? placing : undefined;
	const p = told?.play ?? l.play;
	// A piece that is cut out after it was printed on: the die moves over its prints.
	const round = doc?.make === "cut" && doc.after === true;
	const prints = look.layers.map((x, k) => ({ x, k })).filter(({ x }) => round && x.host === l.id);
	const host = round ? undefined : look.layers.find((x) => x.id === l.host);
	const w = b.colourway?.layers;
	const hostLook = w?.[look.layers.findIndex((x) => x.id === l.host)];
	const tight = boxOf(host?.outline ?? l.outline, pad);
	return {
		l,
		at,
		p,
		told,
		round,
		prints,
		host,
		w,
		hostLook,
		tight,
		origin: { x: tight.x + pad, y: tight.y + pad },
		own: !!doc?.forgive,
		mag: magnify(Math.min(p.loose, 8), tight),
		on: round ? "its print" : (host?.label ?? "the panel"),
	};
}

export type Lie = NonNullable<ReturnType<typeof lieOf>>;

/** The layer over its host, dragged, with the play drawn in its middle. */
export function Lay({ lie, lies, blind, scale }: { lie: Lie; lies: Live<Off>; blind: boolean; scale: number }) {
	const off = useLive(lies, whole);
	const drag = useRef<{ x: number; y: number; from: Off } | null>(null);
	const { l, at, p, told, round, prints, host, w, hostLook, tight, mag } = lie;
	const inside = holds(p, off);
	return (
		<g
			style={{ touchAction: "none" }}
			onPointerDown={(e) => {
				(e.target as Element).setPointerCapture(e.pointerId);
				drag.current = { x: e.clientX, y: e.clientY, from: off };
			}}
			onPointerMove={(e) => {
				const g = drag.current;
				if (g) lies.set({ ...g.from, x: g.from.x + (e.clientX - g.x) / scale, y: g.from.y + (e.clientY - g.y) / scale });
			}}
			onPointerUp={() => {
				drag.current = null;
			}}
			onPointerCancel={() => {
				drag.current = null;
			}}
		>
			{host && <path d={host.outline} fill={hostLook?.dry ?? bare} fillRule="evenodd" stroke={hue.text} strokeWidth={0.6 / scale} />}
			{round && <rect x={tight.x} y={tight.y} width={tight.w} height={tight.h} fill={w?.[at].dry ?? bare} />}
			{prints.map(({ x, k }) => (
				<path key={x.id} d={x.outline} fill={w?.[k].dry ?? bare} fillRule="evenodd" />
			))}
			{p.bound && !blind && !round && (
				<path d={p.bound} fill="none" stroke={hue.ochre} strokeWidth={1.2 / scale} strokeDasharray={`${5 / scale} ${4 / scale}`} />
			)}
			<path
				d={l.outline}
				fill={round ? "#f3f3f111" : (w?.[at].dry ?? bare)}
				fillOpacity={0.85}
				fillRule="evenodd"
				transform={`translate(${off.x} ${off.y}) rotate(${off.t} ${p.centreX} ${p.centreY})`}
				stroke={inside || blind ? hue.text : hue.madder}
				strokeWidth={((inside || blind ? 0.8 : 2.4) + (round ? 1 : 0)) / scale}
				style={{ cursor: "move" }}
			/>
			{p.judged && !blind && p.reach.length > 0 && (
				<g transform={`translate(${p.centreX} ${p.centreY})`} pointerEvents="none">
					<path d={reachPath(p.reach, mag)} fill={hue.veil} stroke={hue.ochre} strokeWidth={1.8 / scale} />
					<line
						x1={0}
						y1={0}
						x2={Math.cos((p.tightAt * Math.PI) / 180) * p.tight * mag}
						y2={Math.sin((p.tightAt * Math.PI) / 180) * p.tight * mag}
						stroke={hue.madder}
						strokeWidth={2 / scale}
					/>
					<circle cx={off.x * mag} cy={off.y * mag} r={4.5 / scale} fill={inside ? hue.lichen : hue.madder} stroke={hue.white} strokeWidth={1.2 / scale} />
				</g>
			)}
			{!round && (
				<g transform={blind ? `translate(${off.x} ${off.y}) rotate(${off.t} ${p.centreX} ${p.centreY})` : undefined}>
					<Sights p={told} scale={scale} />
				</g>
			)}
		</g>
	);
}
