import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useBench } from "../../api/card";
import { type Card, type Element, isMat, type S } from "../../api/client";
import { useSnaps } from "../../api/queries";
import { Beside, useNotesAbout } from "../../parts/beside";
import type { Box } from "../../parts/box";
import { CardStrata } from "../../parts/card-strata";
import { Frame, grounds } from "../../parts/picture";
import { spokenFront } from "../../parts/spoken";
import { GroundPicker, MotifPicker, StationFrame, useGround } from "../../parts/station";
import { Table } from "../../parts/table";
import { Button } from "../../ui/button";
import { bare, hue } from "../../ui/colours";
import { type Live, useLive, useNewLive } from "../../ui/live";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { length, type Settings } from "../../ui/units";
import Add from "./add";
import { Building, useBuilding } from "./building";
import { crossed } from "./crossed";
import { Distances } from "./distances";
import { Form } from "./form";
import { useKeys } from "./keys";
import { Marks } from "./marks";
import { type Held, Placed } from "./placed";
import { drawnTo } from "./snap";
import { Leaf } from "./things";

const faces: [Element["face"], string][] = [
	["front", "The front"],
	["inside left", "Inside, left"],
	["inside right", "Inside, right"],
	["envelope", "The envelope"],
	["beside", "Beside the card"],
];

/** Front: the card at true proportion; everything on it, placed by drag, keys and numbers. */
export default function Front() {
	const b = useBench();
	const [ground, setGround] = useGround();
	const [face, setFace] = useState<Element["face"]>("front");
	const [also, setAlso] = useState<string[]>([]);
	const [pointing, setPointing] = useState<{ element: string; with: string } | null>(null);
	const { card: c, view, pick, edit } = b;
	const s = b.state.settings;
	const moving = useNewLive<Held>(null);
	const el = c.elements.find((e) => e.id === b.element);
	const inHand = useMemo(() => c.elements.filter((e) => e.id === b.element || also.includes(e.id)), [c, b.element, also]);
	useKeys(inHand);
	const building = useBuilding();
	const { front } = view.plan;
	const placed = front.elements;
	const base = b.state.kit.papers.find((p) => p.id === c.base.paper)?.colour ?? bare;
	const panel = front.sheets.at(-1) ?? { x: 0, y: 0, w: c.base.w, h: c.base.h };
	const notes = useNotesAbout("front");
	const lies = el && placed.find((p) => p.id === el.id);
	const note = el &&
		lies &&
		face === "front" && { box: { x: el.place.x - lies.w / 2, y: el.place.y - lies.h / 2, w: lies.w, h: lies.h }, node: <Beside notes={notes} /> };
	// What is in hand goes together: those chosen with it, and its group.
	const snaps = useSnaps(view.id, view.version, el && !isMat(el) && el.face === "front" ? el.id : "");
	const near = useRef(snaps);
	near.current = snaps;
	const held = useRef<string[]>([]);
	const all = useRef(c.elements);
	all.current = c.elements;
	const take = useCallback(
		(e: Element, more: boolean) => {
			const group = e.group ? all.current.filter((x) => x.group === e.group).map((x) => x.id) : [e.id];
			setAlso((old) => {
				const next = more ? [...new Set([...old, ...held.current, ...group])] : old.includes(e.id) && old.length > 1 ? old : group.length > 1 ? group : [];
				held.current = next.length > 0 ? next : [e.id];
				return next;
			});
			pick({ element: e.id, motif: e.image?.motif, colourway: e.image?.colourway });
		},
		[pick],
	);
	const drag = useCallback((e: Element, dx: number, dy: number): NonNullable<Held> => {
		const ids = held.current.includes(e.id) ? held.current : [e.id];
		return ids.length > 1 ? { ids, dx, dy } : drawnTo(e.place, dx, dy, near.current, ids);
	}, []);
	const drop = useCallback(
		(h: NonNullable<Held>) =>
			edit(
				h.ids.map((id) => {
					const at = all.current.find((x) => x.id === id)?.place ?? { x: 0, y: 0 };
					return { put: { element: id, x: at.x + h.dx, y: at.y + h.dy } };
				}),
			),
		[edit],
	);
	const clear = () => {
		setAlso([]);
		pick({ element: "" });
	};
	useEffect(() => {
		if (pointing && pointing.element !== b.element) setPointing(null);
	}, [pointing, b.element]);
	const point = (part: string) => {
		if (!pointing || !el) return;
		edit({ tucks: { element: el.id, with: pointing.with, parts: crossed(el, pointing.with, part) } });
	};
	// The front leaf begins at the fold.
	const short = c.base.short ?? 0;
	const leafSize = { w: c.base.w - (c.base.fold === "side" ? short : 0), h: c.base.h - (c.base.fold === "top" ? short : 0) };
	const boxes = useMemo(
		() =>
			c.elements.flatMap((e) => {
				const p = placed.find((x) => x.id === e.id);
				return p && e.id !== b.element && !also.includes(e.id) ? [{ x: e.place.x - p.w / 2, y: e.place.y - p.h / 2, w: p.w, h: p.h }] : [];
			}),
		[c, placed, b.element, also],
	);
	const shown = face === "front" ? layers(c, front) : c.elements.filter((e) => e.face === face).map((e) => ({ e, parts: undefined }));
	const drawnOf = (e: Element) => placed.find((p) => p.id === e.id)?.drawn ?? front.others.find((o) => o.id === e.id)?.drawn ?? none;
	const size = face === "envelope" ? envelopeSize(b.state.kit.envelopes, c) : { w: c.base.w, h: c.base.h };
	return (
		<StationFrame
			station="front"
			table={
				<>
					<Frame
						title={faces.find(([f]) => f === face)?.[1] ?? ""}
						sub={`${length(size.w, s)} × ${length(size.h, s)}${face === "front" ? `, fold at the ${c.base.fold}; ${Math.round(100 * front.bare)} % bare` : ""}.`}
						tools={
							<>
								<Select label="Face of the card" bare value={face} onChange={(v) => setFace(v as Element["face"])}>
									{faces.map(([id, name]) => (
										<option key={id} value={id}>
											{name}
										</option>
									))}
								</Select>
								<MotifPicker />
								<Popover label="Add" title="Put something on the card">
									{(shut) => <Add onAdd={shut} />}
								</Popover>
								{face === "front" && <Building {...building} />}
								<GroundPicker value={ground} onChange={setGround} />
							</>
						}
					/>
					{pointing && (
						<div role="status" style={{ padding: "4px 20px", background: hue.wash, display: "flex", gap: 12, alignItems: "center" }}>
							Point at the parts that cross {placed.find((p) => p.id === pointing.with)?.label} the other way.
							<Button onClick={() => setPointing(null)}>Done</Button>
						</div>
					)}
					<Table
						box={{ x: 0, y: 0, ...size }}
						settings={s}
						ground={grounds[ground]}
						label={
							face === "front"
								? `The front of the card, from the top: ${spokenFront(b.card, b.view.plan)}`
								: `${faces.find(([f]) => f === face)?.[1]} of the card`
						}
						beside={note || undefined}
					>
						{(scale) => (
							<>
								<defs>
									<clipPath id="panel-edge">
										<rect x={panel.x} y={panel.y} width={panel.w} height={panel.h} />
									</clipPath>
									<pattern id="over" width={3} height={3} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
										<rect width={3} height={3} fill="#fff6" />
										<line x1={0} x2={0} y1={0} y2={3} stroke={hue.madder} strokeWidth={1} />
									</pattern>
								</defs>
								<rect x={0.8} y={1.6} width={size.w} height={size.h} fill={hue.edge} rx={0.6} />
								<rect x={0} y={0} width={size.w} height={size.h} fill={face === "envelope" ? bare : base} onPointerDown={clear} />
								{face === "front" && (
									<>
										{front.base.map((d) => (
											<g key="base" transform={`translate(${leafSize.w / 2} ${leafSize.h / 2})`} pointerEvents="none">
												<Leaf d={d} on={false} scale={scale} />
											</g>
										))}
										{front.leaf && front.base.length === 0 && (
											<g pointerEvents="none">
												<rect x={0} y={0} width={size.w} height={size.h} fill={hue.edge} />
												<path d={front.leaf} fill={base} stroke={hue.edge} strokeWidth={0.15} />
											</g>
										)}
										<FoldMark c={c} />
										{front.sheets.map((sh) => (
											<g
												key={sh.id}
												transform={`translate(${sh.x + sh.w / 2} ${sh.y + sh.h / 2})`}
												opacity={building.hides(sh.id) ? 0.2 : undefined}
												onPointerDown={() => {
													setAlso([]);
													pick({ element: sh.id });
												}}
											>
												{sh.drawn.map((d) => (
													<Leaf key={d.part ?? ""} d={d} on={b.element === sh.id} scale={scale} />
												))}
											</g>
										))}
									</>
								)}
								{face === "envelope" && front.address && (
									<g pointerEvents="none">
										<rect
											{...{ x: front.address.x, y: front.address.y, width: front.address.w, height: front.address.h }}
											fill="none"
											stroke={hue.slate}
											strokeWidth={1.2 / scale}
											strokeDasharray={`${5 / scale} ${4 / scale}`}
										/>
										<text x={front.address.x + 2} y={front.address.y + 5} fontSize={12 / scale} fill={hue.slate}>
											the address is read here
										</text>
									</g>
								)}
								{shown.map(({ e, parts }, i) => (
									<Placed
										key={parts ? `${e.id} ${i}` : e.id}
										e={e}
										drawn={drawnOf(e)}
										parts={parts}
										here={placed.find((p) => p.id === e.id)}
										on={b.element === e.id || also.includes(e.id)}
										pale={building.hides(e.id)}
										scale={scale}
										moving={moving}
										onTake={take}
										onDrag={drag}
										onDrop={drop}
										onPart={pointing?.element === e.id ? point : undefined}
									/>
								))}
								{el && !isMat(el) && face === "front" && <Reach e={el} box={lies} panel={panel} others={boxes} s={s} scale={scale} moving={moving} />}
								{el && !isMat(el) && face === "front" && <Marks e={el} scale={scale} />}
							</>
						)}
					</Table>
					<Form several={inHand.filter((e) => !isMat(e))} onPoint={(w) => el && setPointing({ element: el.id, with: w })} />
				</>
			}
			strata={<CardStrata what="margin" value={(id) => marginOf(placed, id, s)} />}
		/>
	);
}

const none: S["PlanDrawn"][] = [];

/** What is drawn on the front from the lowest up: each thing, or some parts of it where others cross the other way. */
function layers(c: Card, front: S["PlanFront"]): { e: Element; parts?: string[] }[] {
	const laid = c.elements.filter((e) => e.face === "front" && !isMat(e));
	if (front.upward.length === 0) return laid.map((e) => ({ e }));
	const woven = front.upward.flatMap((u) => {
		const e = laid.find((x) => x.id === u.element);
		return e ? [{ e, parts: u.parts }] : [];
	});
	return [...woven, ...laid.filter((e) => !woven.some((w) => w.e.id === e.id)).map((e) => ({ e }))];
}

function envelopeSize(all: S["Envelope"][], c: Card) {
	const e = all.find((x) => x.id === c.base.envelope);
	return e ? { w: e.w, h: e.h } : { w: c.base.w + 3, h: c.base.h + 6 };
}

/** The distances of what is in hand, while it moves too. */
function Reach({
	e,
	box,
	panel,
	others,
	s,
	scale,
	moving,
}: {
	e: Element;
	box?: S["PlanPlaced"];
	panel: { x: number; y: number; w: number; h: number };
	others: Box[];
	s: Settings;
	scale: number;
	moving: Live<Held>;
}) {
	const held = useLive(moving, (h) => (h?.ids.includes(e.id) ? h : null));
	const at = { x: e.place.x + (held?.dx ?? 0), y: e.place.y + (held?.dy ?? 0) };
	return (
		<>
			{held?.snapX && <Guide x={at.x} say={held.snapX} panel={panel} scale={scale} />}
			{held?.snapY && <Guide y={at.y} say={held.snapY} panel={panel} scale={scale} />}
			<Distances e={at} box={box} panel={panel} others={others} s={s} scale={scale} />
		</>
	);
}

/** A line that what is dragged was drawn to, and what it is. */
function Guide({ x, y, say, panel, scale }: { x?: number; y?: number; say: string; panel: { x: number; y: number; w: number; h: number }; scale: number }) {
	return (
		<g pointerEvents="none">
			{x !== undefined ? (
				<line
					x1={x}
					x2={x}
					y1={panel.y - 4}
					y2={panel.y + panel.h + 4}
					stroke={hue.lichen}
					strokeWidth={1.4 / scale}
					strokeDasharray={`${4 / scale} ${3 / scale}`}
				/>
			) : (
				<line
					y1={y}
					y2={y}
					x1={panel.x - 4}
					x2={panel.x + panel.w + 4}
					stroke={hue.lichen}
					strokeWidth={1.4 / scale}
					strokeDasharray={`${4 / scale} ${3 / scale}`}
				/>
			)}
			<text
				x={x !== undefined ? x + 4 / scale : panel.x + 4 / scale}
				y={x !== undefined ? panel.y - 6 / scale : (y ?? 0) - 4 / scale}
				fontSize={12 / scale}
				fill={hue.lichen}
				stroke={hue.veil}
				strokeWidth={3 / scale}
				paintOrder="stroke"
			>
				{say}
			</text>
		</g>
	);
}

function marginOf(es: S["PlanPlaced"][], id: string, s: Settings): string {
	const m = es.find((e) => e.id === id)?.margins;
	return m ? length(Math.min(m.left, m.right, m.top, m.bottom), s) : "";
}

function FoldMark({ c }: { c: Card }) {
	if (c.base.make === "flat") return null;
	return c.base.fold === "top" ? (
		<line x1={0} x2={c.base.w} y1={0} y2={0} stroke={hue.text} strokeWidth={1.2} strokeDasharray="3 2" />
	) : (
		<line x1={0} x2={0} y1={0} y2={c.base.h} stroke={hue.text} strokeWidth={1.2} strokeDasharray="3 2" />
	);
}
