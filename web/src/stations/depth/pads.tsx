import { useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { Bond, S } from "../../api/client";
import { hue } from "../../ui/colours";
import type { P } from "../../ui/outline";
import { under } from "./cut";

type Pad = S["Pad"];

/** What holds a leaf: the bonds, and the edit that changes them. */
export function useBonds(p: S["StandingPiece"] | undefined): { bonds: Bond[]; hold: (bonds: Bond[]) => void } | undefined {
	const b = useBench();
	if (!p) return undefined;
	if (p.motif) {
		const m = b.card.motifs.find((x) => x.id === p.motif);
		const bonds = m?.layers.find((l) => l.id === p.part)?.bonds ?? [];
		return { bonds, hold: (to) => b.edit({ hold: { motif: p.motif, layer: p.part, bonds: to } }) };
	}
	const e = b.card.elements.find((x) => x.id === p.element);
	if (!e) return undefined;
	return { bonds: e.bonds ?? [], hold: (to) => b.edit({ hold: { element: e.id, bonds: to } }) };
}

/** A pad's own frame on the front. */
const framed = (f: S["Place"]) => `translate(${f.x} ${f.y}) rotate(${f.turn}) scale(${f.mirror ? -1 : 1} 1)`;

/** A point of the front in the frame of a leaf. */
function within(f: S["Place"], p: P): P {
	const r = (-f.turn * Math.PI) / 180;
	const x = p.x - f.x;
	const y = p.y - f.y;
	const q = { x: x * Math.cos(r) - y * Math.sin(r), y: x * Math.sin(r) + y * Math.cos(r) };
	return f.mirror ? { x: -q.x, y: q.y } : q;
}

/** What holds everything up, seen from the back; the pads of what is in hand are dragged, turned, cut and taken off. */
export function Pads({ standing, part, px }: { standing: S["StandingCard"]; part: string; px: number }) {
	const b = useBench();
	const c = b.card.base;
	const group = useRef<SVGGElement>(null);
	const mine = standing.pieces.filter((p) => p.element === b.element && p.thick > 0 && (part ? p.motif && p.part === part : !p.motif));
	// The lowest first: what is seen from the back.
	const all = [...standing.pieces].filter((p) => p.thick > 0).sort((p, q) => under(q, q) - under(p, p));
	return (
		<g ref={group} transform={`translate(${c.w} 0) scale(-1 1)`}>
			<rect width={c.w} height={c.h} fill={hue.sheet} stroke={hue.outline} strokeWidth={0.3} />
			{all.map((p, i) => (
				// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
				<path
					key={i}
					d={p.path}
					fillRule="evenodd"
					fill={mine.includes(p) ? hue.wash : "transparent"}
					stroke={mine.includes(p) ? hue.ochre : hue.rule}
					strokeWidth={mine.includes(p) ? 0.7 : 0.2}
					style={{ cursor: "pointer" }}
					onClick={() => b.pick({ element: p.element })}
				/>
			))}
			{all
				.filter((p) => !mine.includes(p))
				.flatMap((p) =>
					p.supports
						.filter((s) => s.raised)
						.map((s, i) => <path key={`${p.element}${p.part}${i}`} d={s.path} fill={hue.bed} stroke={hue.rule} strokeWidth={0.2} pointerEvents="none" />),
				)}
			{mine.map((p) => (
				<OfLeaf key={`${p.part}`} p={p} px={px} group={group} />
			))}
		</g>
	);
}

/** The pads and glue of one leaf. */
function OfLeaf({ p, px, group }: { p: S["StandingPiece"]; px: number; group: React.RefObject<SVGGElement | null> }) {
	const held = useBonds(p);
	const [drag, setDrag] = useState<{ at: number; from: P; by: P }>();
	const [on, setOn] = useState<number>();
	if (!held) return null;
	// Pads of the person's own are drawn as the card has them now; what is proposed, as it was last worked out.
	const pads: { bond: number; pad: Pad }[] = [
		...held.bonds.flatMap((x, bond) => (x.pads ?? []).map((pad) => ({ bond, pad }))),
		...p.supports.flatMap((s) => (s.pad && !held.bonds[s.bond]?.pads?.length ? [{ bond: s.bond, pad: s.pad }] : [])),
	];
	/** The pads of a bond as the person's own. */
	const keep = (bond: number, pads: Pad[]) => held.hold(held.bonds.map((x, i) => (i === bond ? { ...x, open: undefined, pads } : x)));
	const change = (i: number, to: Pad | undefined) => {
		const { bond } = pads[i];
		keep(
			bond,
			pads.flatMap((o, n) => (o.bond !== bond ? [] : n !== i ? [o.pad] : to ? [to] : [])),
		);
	};
	const place = (ev: React.PointerEvent): P | undefined => {
		const m = group.current?.getScreenCTM()?.inverse();
		if (!m) return undefined;
		return within(p.frame, new DOMPoint(ev.clientX, ev.clientY).matrixTransform(m));
	};
	return (
		<>
			{p.supports
				.filter((s) => !s.pad)
				.map((s, i) => (
					<path
						key={i}
						d={s.path}
						fillRule="evenodd"
						fill={s.raised ? hue.fill : hue.slate}
						fillOpacity={s.raised ? 0.8 : 0.25}
						pointerEvents="none"
						data-area={s.raised ? "cut to shape" : "glue"}
					/>
				))}
			<g transform={framed(p.frame)}>
				{pads.map(({ pad }, i) => {
					const by = drag?.at === i ? drag.by : { x: 0, y: 0 };
					return (
						// biome-ignore lint/a11y/useSemanticElements: a button cannot stand in a drawing
						<rect
							key={i}
							data-pad={i + 1}
							tabIndex={0}
							role="button"
							aria-label={`Pad ${i + 1}, arrows move it, T turns it, X cuts it in two, Delete takes it off`}
							aria-pressed={on === i}
							x={-pad.w / 2}
							y={-pad.h / 2}
							width={pad.w}
							height={pad.h}
							transform={`translate(${pad.x + by.x} ${pad.y + by.y}) rotate(${pad.turn ?? 0})`}
							fill={hue.fill}
							stroke={on === i ? hue.text : hue.ochre}
							strokeWidth={(on === i ? 2.5 : 1.2) * px}
							style={{ cursor: "grab" }}
							onPointerDown={(ev) => {
								const q = place(ev);
								if (!q) return;
								ev.stopPropagation();
								ev.currentTarget.setPointerCapture(ev.pointerId);
								setOn(i);
								setDrag({ at: i, from: q, by: { x: 0, y: 0 } });
							}}
							onPointerMove={(ev) => {
								const q = drag?.at === i && place(ev);
								if (q) setDrag({ ...drag, by: { x: q.x - drag.from.x, y: q.y - drag.from.y } });
							}}
							onPointerUp={() => {
								if (drag && Math.hypot(drag.by.x, drag.by.y) > 0.3) change(i, { ...pad, x: round(pad.x + drag.by.x), y: round(pad.y + drag.by.y) });
								setDrag(undefined);
							}}
							onPointerCancel={() => setDrag(undefined)}
							onKeyDown={(ev) => {
								const step = ev.shiftKey ? 5 : 0.5;
								// As it is seen: mirrored.
								const moves: Record<string, P> = {
									ArrowLeft: { x: step, y: 0 },
									ArrowRight: { x: -step, y: 0 },
									ArrowUp: { x: 0, y: -step },
									ArrowDown: { x: 0, y: step },
								};
								const m = moves[ev.key];
								if (m) change(i, { ...pad, x: round(pad.x + m.x), y: round(pad.y + m.y) });
								else if (ev.key === "t") change(i, turned(pad));
								else if (ev.key === "x") change(i, halved(pad));
								else if (ev.key === "Delete" || ev.key === "Backspace") change(i, undefined);
								else return;
								setOn(i);
								ev.preventDefault();
								ev.stopPropagation();
							}}
						/>
					);
				})}
			</g>
		</>
	);
}

const round = (v: number) => Math.round(v * 100) / 100;
export const turned = (p: Pad): Pad => ({ ...p, turn: ((p.turn ?? 0) + 15) % 180 });
/** Cut across its longer side. */
export const halved = (p: Pad): Pad => (p.w >= p.h ? { ...p, w: round(p.w / 2) } : { ...p, h: round(p.h / 2) });
