import { memo, useCallback, useEffect, useRef } from "react";
import { useBench } from "../../api/card";
import { type Card, type Element, isMat, type S } from "../../api/client";
import { Beside, useNotesAbout } from "../../parts/beside";
import { CardStrata } from "../../parts/card-strata";
import { Frame, grounds } from "../../parts/picture";
import { GroundPicker, MotifPicker, StationFrame, useGround } from "../../parts/station";
import { Table } from "../../parts/table";
import { Button } from "../../ui/button";
import { bare, hue } from "../../ui/colours";
import { typing } from "../../ui/keys";
import { type Live, useLive, useNewLive } from "../../ui/live";
import { length, type Settings } from "../../ui/units";
import { Distances } from "./distances";
import { Form } from "./form";
import { Thing } from "./things";

/** Where an element is held to while it is dragged. */
type Held = { id: string; x: number; y: number } | null;

/** Front: the card at true proportion; mats, images and the strip, placed by drag, keys and numbers. */
export default function Front() {
	const b = useBench();
	const [ground, setGround] = useGround();
	const { card: c, view, pick } = b;
	const s = b.state.settings;
	const moving = useNewLive<Held>(null);
	const el = c.elements.find((e) => e.id === b.element);
	useKeys(el);
	const laid = c.elements.filter((e) => e.face === "front" && !isMat(e));
	const placed = view.plan.front.elements;
	const base = b.state.kit.papers.find((p) => p.id === c.base.paper)?.colour ?? bare;
	const panel = view.plan.front.sheets.at(-1) ?? { x: 0, y: 0, w: c.base.w, h: c.base.h };
	const notes = useNotesAbout("front");
	const lies = el && placed.find((p) => p.id === el.id);
	const note = lies && { box: { x: el.place.x - lies.w / 2, y: el.place.y - lies.h / 2, w: lies.w, h: lies.h }, node: <Beside notes={notes} /> };
	const take = useCallback((e: Element) => pick({ element: e.id, motif: e.image?.motif, colourway: e.image?.colourway }), [pick]);
	const { edit } = b;
	const drop = useCallback((h: NonNullable<Held>) => edit({ put: { element: h.id, x: h.x, y: h.y } }), [edit]);
	return (
		<StationFrame
			station="front"
			table={
				<>
					<Frame
						title="The front"
						sub={`${length(c.base.w, s)} × ${length(c.base.h, s)}, fold at the ${c.base.fold}.`}
						tools={
							<>
								<MotifPicker more />
								<Button onClick={() => b.edit({ addStrip: {} })}>Add a text strip</Button>
								<Button onClick={() => b.edit({ addGems: {} })}>Add gems</Button>
								<GroundPicker value={ground} onChange={setGround} />
							</>
						}
					/>
					<Table box={{ x: 0, y: 0, w: c.base.w, h: c.base.h }} settings={s} ground={grounds[ground]} label="The front of the card" beside={note}>
						{(scale) => (
							<>
								<defs>
									<pattern id="over" width={3} height={3} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
										<rect width={3} height={3} fill="#fff6" />
										<line x1={0} x2={0} y1={0} y2={3} stroke={hue.madder} strokeWidth={1} />
									</pattern>
								</defs>
								<rect x={0.8} y={1.6} width={c.base.w} height={c.base.h} fill={hue.edge} rx={0.6} />
								<rect x={0} y={0} width={c.base.w} height={c.base.h} fill={base} onPointerDown={() => b.pick({ element: "" })} />
								<FoldMark c={c} />
								{view.plan.front.sheets.map((sh) => (
									<rect
										key={sh.id}
										x={sh.x}
										y={sh.y}
										width={sh.w}
										height={sh.h}
										fill={sh.colour}
										stroke={b.element === sh.id ? hue.ochre : hue.edge}
										strokeWidth={b.element === sh.id ? 0.8 : 0.1}
										onPointerDown={() => b.pick({ element: sh.id })}
									/>
								))}
								{laid.map((e) => (
									<Placed
										key={e.id}
										e={e}
										here={placed.find((p) => p.id === e.id)}
										on={b.element === e.id}
										scale={scale}
										moving={moving}
										onTake={take}
										onDrop={drop}
									/>
								))}
								{el && !isMat(el) && <Reach e={el} box={placed.find((p) => p.id === el.id)} panel={panel} s={s} scale={scale} moving={moving} />}
							</>
						)}
					</Table>
					<Form />
				</>
			}
			strata={<CardStrata what="margin" value={(id) => marginOf(placed, id, s)} />}
		/>
	);
}

/** The arrow keys move what is in hand, the brackets turn it, Delete takes it off. */
function useKeys(el?: Element) {
	const b = useBench();
	const s = b.state.settings;
	const held = useRef({ id: "", at: 0, gesture: "" });
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || !el || e.altKey || e.ctrlKey || (e.target as HTMLElement).closest?.(".stratum, [role=slider], [role=menu], [role=dialog]")) return;
			const by = s.unit === "in" ? 25.4 / 16 : 0.5;
			const mv = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
			const turn = { "[": -1, "]": 1 }[e.key];
			if (!isMat(el) && (mv || turn)) {
				e.preventDefault();
				// Presses that follow each other at once are one change.
				if (performance.now() - held.current.at > 700 || held.current.id !== el.id) held.current = { id: el.id, at: 0, gesture: `keys ${el.id} ${Date.now()}` };
				held.current.at = performance.now();
				b.edit({ move: { element: el.id, dx: mv?.[0], dy: mv?.[1], turn } }, held.current.gesture);
			}
			if (e.key === "Delete") b.edit({ remove: { element: el.id } });
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
}

interface PlacedProps {
	e: Element;
	here?: S["PlanPlaced"];
	on: boolean;
	scale: number;
	moving: Live<Held>;
	onTake: (e: Element) => void;
	onDrop: (h: NonNullable<Held>) => void;
}

/** One element where it lies, or where it is held to; while it is dragged only this is drawn. */
const Placed = memo(function Placed({ e, here, on, scale, moving, onTake, onDrop }: PlacedProps) {
	const held = useLive(moving, (h) => (h?.id === e.id ? h : null));
	const from = useRef<{ cx: number; cy: number } | null>(null);
	const at = held ?? e.place;
	return (
		<g
			// As a style, so that the browser moves its picture of the thing and paints nothing anew.
			style={{ cursor: "move", transform: `translate(${at.x}px, ${at.y}px) rotate(${e.place.turn}deg)`, willChange: on ? "transform" : undefined }}
			onPointerDown={(ev) => {
				(ev.currentTarget as unknown as { setPointerCapture: (id: number) => void }).setPointerCapture(ev.pointerId);
				onTake(e);
				from.current = { cx: ev.clientX, cy: ev.clientY };
			}}
			onPointerMove={(ev) => {
				const f = from.current;
				if (f) moving.set({ id: e.id, x: e.place.x + (ev.clientX - f.cx) / scale, y: e.place.y + (ev.clientY - f.cy) / scale });
			}}
			onPointerUp={() => {
				from.current = null;
				const h = moving.get();
				moving.set(null);
				if (h) onDrop(h);
			}}
			onPointerCancel={() => {
				from.current = null;
				moving.set(null);
			}}
		>
			<Body e={e} over={here?.over ?? false} lift={here?.foam ? here.lift : 0} on={on} scale={scale} />
		</g>
	);
});

const Body = memo(Thing);

/** The distances of what is in hand, while it moves too. */
function Reach({
	e,
	box,
	panel,
	s,
	scale,
	moving,
}: {
	e: Element;
	box?: S["PlanPlaced"];
	panel: { x: number; y: number; w: number; h: number };
	s: Settings;
	scale: number;
	moving: Live<Held>;
}) {
	const held = useLive(moving, (h) => (h?.id === e.id ? h : null));
	return <Distances e={held ?? e.place} box={box} panel={panel} s={s} scale={scale} />;
}

function marginOf(es: S["PlanPlaced"][], id: string, s: Settings): string {
	const m = es.find((e) => e.id === id)?.margins;
	return m ? length(Math.min(m.left, m.right, m.top, m.bottom), s) : "";
}

function FoldMark({ c }: { c: Card }) {
	return c.base.fold === "top" ? (
		<line x1={0} x2={c.base.w} y1={0} y2={0} stroke={hue.text} strokeWidth={1.2} strokeDasharray="3 2" />
	) : (
		<line x1={0} x2={0} y1={0} y2={c.base.h} stroke={hue.text} strokeWidth={1.2} strokeDasharray="3 2" />
	);
}
