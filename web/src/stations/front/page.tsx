import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import { type Card, type Colourway, type Element, isMat, type PlanMotif, turnedOf, wordsOf } from "../../api/client";
import { Frame, grounds, Layers } from "../../parts/picture";
import { CardStrata, GroundPicker, HeldField, MotifPicker, StationFrame, useGround } from "../../parts/station";
import { Table } from "../../parts/table";
import { Button } from "../../ui/button";
import { bare, hue } from "../../ui/colours";
import { typing } from "../../ui/keys";
import { LengthField, length } from "../../ui/length";

/** Front: the card at true proportion; mats, images and the strip, placed by drag, keys and numbers. */
export default function Front() {
	const b = useBench();
	const [ground, setGround] = useGround();
	const { card: c, view } = b;
	const s = b.state.settings;
	const [live, setLive] = useState<{ id: string; x: number; y: number } | null>(null);
	const drag = useRef<{ id: string; cx: number; cy: number; x: number; y: number } | null>(null);
	const held = useRef({ id: "", at: 0, gesture: "" });
	const el = c.elements.find((e) => e.id === b.element);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || !el || e.altKey || e.ctrlKey || (e.target as HTMLElement).closest?.(".stratum")) return;
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
	const laid = c.elements.filter((e) => e.face === "front" && !isMat(e));
	const placed = view.plan.front.elements.find((p) => p.id === b.element);
	const base = b.state.kit.papers.find((p) => p.id === c.base.paper)?.colour ?? bare;
	const panel = view.plan.front.sheets.at(-1) ?? { x: 0, y: 0, w: c.base.w, h: c.base.h };
	const addStrip = () => b.edit({ addStrip: {} });
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
								<Button onClick={addStrip}>Add a text strip</Button>
								<Button onClick={() => b.edit({ addGems: {} })}>Add gems</Button>
								<GroundPicker value={ground} onChange={setGround} />
							</>
						}
					/>
					<Table box={{ x: 0, y: 0, w: c.base.w, h: c.base.h }} settings={s} ground={grounds[ground]} label="The front of the card">
						{(scale) => (
							<g
								onPointerMove={(e) => {
									const g = drag.current;
									if (g) setLive({ id: g.id, x: g.x + (e.clientX - g.cx) / scale, y: g.y + (e.clientY - g.cy) / scale });
								}}
								onPointerUp={() => {
									const g = drag.current;
									drag.current = null;
									if (g && live) b.edit({ put: { element: g.id, x: live.x, y: live.y } });
									setLive(null);
								}}
							>
								<defs>
									<pattern id="over" width={3} height={3} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
										<rect width={3} height={3} fill="#fff6" />
										<line x1={0} x2={0} y1={0} y2={3} stroke={hue.madder} strokeWidth={1} />
									</pattern>
									<filter id="lift" x="-10%" y="-10%" width="120%" height="130%">
										<feDropShadow dx="0.3" dy="0.9" stdDeviation="0.7" floodOpacity="0.35" />
									</filter>
								</defs>
								<rect x={0} y={0} width={c.base.w} height={c.base.h} fill={base} filter="url(#lift)" onPointerDown={() => b.pick({ element: "" })} />
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
								{laid.map((e) => {
									const at = live?.id === e.id ? live : e.place;
									const here = view.plan.front.elements.find((p) => p.id === e.id);
									return (
										<g
											key={e.id}
											transform={`translate(${at.x} ${at.y}) rotate(${e.place.turn})`}
											style={{ cursor: "move" }}
											filter={here?.foam ? "url(#lift)" : undefined}
											onPointerDown={(ev) => {
												(ev.currentTarget as Element2).setPointerCapture(ev.pointerId);
												b.pick({ element: e.id, motif: e.image?.motif, colourway: e.image?.colourway });
												drag.current = { id: e.id, cx: ev.clientX, cy: ev.clientY, x: e.place.x, y: e.place.y };
											}}
										>
											<Thing e={e} over={here?.over ?? false} on={b.element === e.id} scale={scale} />
										</g>
									);
								})}
								{el && !isMat(el) && <Distances e={live?.id === el.id ? live : el.place} box={placed} panel={panel} s={s} scale={scale} />}
							</g>
						)}
					</Table>
					<Form />
				</>
			}
			strata={<CardStrata what="margin" value={(id) => marginOf(view.plan.front.elements, id, s)} />}
		/>
	);
}

type Element2 = globalThis.Element & { setPointerCapture: (id: number) => void };

function marginOf(
	es: { id: string; margins: { left: number; right: number; top: number; bottom: number } }[],
	id: string,
	s: Parameters<typeof length>[1],
): string {
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

/** One element, drawn round its own centre. */
function Thing({ e, over, on, scale }: { e: Element; over: boolean; on: boolean; scale: number }) {
	const b = useBench();
	const st = e.sheet;
	if (st) {
		const words = wordsOf(e);
		const [w, h] = [(st.w ?? 0) - 2 * (st.trim ?? 0), (st.h ?? 0) - 2 * (st.trim ?? 0)];
		const paper = b.state.kit.papers.find((p) => p.id === st.paper)?.colour ?? bare;
		const ink = b.state.inks.find((i) => i.id === words?.ink)?.dry ?? hue.text;
		return (
			<>
				<rect x={-w / 2} y={-h / 2} width={w} height={h} fill={paper} stroke={on ? hue.ochre : hue.edge} strokeWidth={on ? 2 / scale : 0.1} />
				{words && (
					<text textAnchor="middle" y={words.letter / 2} fontSize={words.letter / 0.668} fill={ink} pointerEvents="none">
						{words.text}
					</text>
				)}
				<Turned e={e} />
				{over && <rect x={-w / 2} y={-h / 2} width={w} height={h} fill="url(#over)" pointerEvents="none" />}
			</>
		);
	}
	if (e.gems) {
		const { size, colour, places } = e.gems;
		return (
			<>
				{places.map((p, i) => (
					<circle
						key={i}
						cx={p.x}
						cy={p.y}
						r={size / 2}
						fill={over ? "url(#over)" : colour}
						stroke={on ? hue.ochre : hue.edge}
						strokeWidth={on ? 2 / scale : 0.15}
					/>
				))}
			</>
		);
	}
	const look = b.view.plan.motifs.find((m) => m.id === e.image?.motif);
	if (!look) return null;
	const colourway = look.colourways.find((w) => w.id === e.image?.colourway);
	return <Image look={look} colourway={colourway} on={on} over={over} scale={scale} />;
}

function Image({ look, colourway, on, over, scale }: { look: PlanMotif; colourway?: Colourway; on: boolean; over: boolean; scale: number }) {
	return (
		<g transform={`translate(${-look.minX - look.w / 2} ${-look.minY - look.h / 2})`}>
			<Layers look={look} colourway={colourway} />
			<path d={look.silhouette} fill={over ? "url(#over)" : "#0000"} stroke={on ? hue.ochre : "none"} strokeWidth={2.4 / scale} fillRule="evenodd" />
		</g>
	);
}

/** A pattern turned on a sheet, as far as the trim leaves it. */
function Turned({ e }: { e: Element }) {
	const b = useBench();
	const t = turnedOf(e);
	const plan = b.view.plan.patterns.find((p) => p.id === e.id);
	const look = b.view.plan.motifs.find((m) => m.id === t?.motif);
	if (!t || !plan || !look) return null;
	const half = ((e.sheet?.w ?? 0) - 2 * (e.sheet?.trim ?? 0)) / 2;
	const made = b.card.motifs.find((m) => m.id === t.motif)?.layers;
	return (
		<>
			<clipPath id={`turned ${e.id}`}>
				<rect x={-half} y={-half} width={2 * half} height={2 * half} />
			</clipPath>
			<g clipPath={`url(#${CSS.escape(`turned ${e.id}`)})`} pointerEvents="none">
				{look.layers.map((l, i) =>
					(made?.[i]?.make === "cut" ? [] : plan.strikes).map((k) => (
						<path
							key={`${l.id} ${k.number}`}
							d={l.outline}
							fill={look.colourways.find((w) => w.id === k.colourway)?.layers[i]?.dry}
							fillRule="evenodd"
							style={{ mixBlendMode: "multiply" }}
							transform={`translate(${k.x - plan.midX} ${k.y - plan.midY}) rotate(${k.turn} ${plan.midX} ${plan.midY})`}
						/>
					)),
				)}
			</g>
		</>
	);
}

/** Distances from the box of what is in hand to the panel's edges. */
function Distances({
	e,
	box,
	panel,
	s,
	scale,
}: {
	e: { x: number; y: number };
	box?: { w: number; h: number };
	panel: { x: number; y: number; w: number; h: number };
	s: Parameters<typeof length>[1];
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
			{line(panel.x, e.y, panel.x + l, e.y, l, "l")}
			{line(panel.x + panel.w - r, e.y, panel.x + panel.w, e.y, r, "r")}
			{line(e.x, panel.y, e.x, panel.y + t, t, "t")}
			{line(e.x, panel.y + panel.h - bt, e.x, panel.y + panel.h, bt, "b")}
		</>
	);
}

/** Numbers for what is in hand: the card, a sheet, or an element. */
function Form() {
	const b = useBench();
	const { card: c, state } = b;
	const e = c.elements.find((x) => x.id === b.element);
	const row = {
		display: "flex",
		gap: 12,
		flexWrap: "wrap",
		alignItems: "end",
		padding: "8px 20px",
		background: hue.sheet,
		borderTop: `1px solid ${hue.line}`,
	} as const;
	if (e && !isMat(e)) {
		const put = (f: { x?: number; y?: number; turn?: number }) => b.edit({ put: { element: e.id, ...f } });
		const m = c.motifs.find((x) => x.id === e.image?.motif);
		const words = wordsOf(e);
		const sheet = (f: Partial<NonNullable<Element["sheet"]>>) => e.sheet && b.edit({ sheet: { element: e.id, sheet: { ...e.sheet, ...f } } });
		const say = (f: Partial<NonNullable<typeof words>>) =>
			sheet({ treatments: e.sheet?.treatments?.map((t) => (t.words ? { ...t, words: { ...t.words, ...f } } : t)) });
		return (
			<Box style={row}>
				<LengthField label="Centre, across" mm={e.place.x} onSet={(x) => put({ x })} />
				<LengthField label="Centre, down" mm={e.place.y} onSet={(y) => put({ y })} />
				<label className="field">
					Turn (degrees)
					<input
						type="number"
						step={1}
						value={Math.round(e.place.turn * 10) / 10}
						onChange={(ev) => put({ turn: Number(ev.target.value) })}
						style={{ width: 72 }}
					/>
				</label>
				<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
				{m && m.colourways.length > 1 && (
					<label className="field">
						Colourway
						<select value={e.image?.colourway} onChange={(ev) => b.edit({ recolour: { elements: { [e.id]: ev.target.value } } })}>
							{m.colourways.map((w) => (
								<option key={w.id} value={w.id}>
									{w.name}
								</option>
							))}
						</select>
					</label>
				)}
				{words && (
					<label className="field">
						Words
						<input
							key={e.id + words.text}
							defaultValue={words.text}
							maxLength={80}
							onBlur={(ev) => ev.target.value !== words.text && say({ text: ev.target.value })}
							style={{ width: 180 }}
						/>
					</label>
				)}
				{e.sheet && (
					<>
						<LengthField label="Width" mm={e.sheet.w ?? 0} onSet={(w) => sheet({ w, h: turnedOf(e) ? w : e.sheet?.h })} width="72px" />
						{!turnedOf(e) && <LengthField label="Height" mm={e.sheet.h ?? 0} onSet={(h) => sheet({ h })} width="72px" />}
						{words && <LengthField label="Letters" mm={words.letter} onSet={(letter) => say({ letter })} width="72px" />}
						<PaperField value={e.sheet.paper} onChange={(paper) => sheet({ paper })} />
					</>
				)}
				{words && (
					<label className="field">
						Heat embossed
						<input type="checkbox" checked={words.emboss ?? false} onChange={(ev) => say({ emboss: ev.target.checked })} style={{ width: 18 }} />
					</label>
				)}
				{e.gems && (
					<>
						<label className="field">
							How many
							<input
								type="number"
								min={1}
								max={200}
								value={e.gems.places.length}
								onChange={(ev) =>
									Number(ev.target.value) >= 1 && b.edit({ gems: { element: e.id, count: Math.min(200, Math.round(Number(ev.target.value))) } })
								}
								style={{ width: 64 }}
							/>
						</label>
						<LengthField label="Across" mm={e.gems.size} onSet={(size) => b.edit({ gems: { element: e.id, size } })} width="72px" />
						<LengthField label="High" mm={e.gems.height} onSet={(height) => b.edit({ gems: { element: e.id, height } })} width="72px" />
						<label className="field">
							Colour
							<input type="color" value={e.gems.colour} onChange={(ev) => b.edit({ gems: { element: e.id, colour: ev.target.value } }, `colour ${e.id}`)} />
						</label>
					</>
				)}
				<Button onClick={() => put({ x: c.base.w / 2 })}>Centre across</Button>
				{e.face === "beside" && (
					<Button onClick={() => b.edit([{ sheet: { element: e.id, face: "front" } }, { put: { element: e.id, x: c.base.w / 2, y: c.base.h / 2 } }])}>
						Lay it on the front
					</Button>
				)}
				<Button onClick={() => b.edit({ repeat: { element: e.id } })}>Another</Button>
				<Button onClick={() => b.edit({ remove: { element: e.id } })}>Take off</Button>
			</Box>
		);
	}
	if (e?.sheet && e.inset) {
		const { sheet, inset } = e;
		const border = (f: Partial<typeof inset>) => b.edit({ sheet: { element: e.id, inset: { ...inset, ...f } } });
		const even = inset.left === inset.right && inset.left === inset.top && inset.left === inset.bottom;
		return (
			<Box style={row}>
				{even ? (
					<LengthField label="Border of the sheet beneath" mm={inset.left} onSet={(mm) => border({ left: mm, right: mm, top: mm, bottom: mm })} />
				) : (
					(["left", "right", "top", "bottom"] as const).map((side) => (
						<LengthField key={side} label={`Border, ${side}`} mm={inset[side]} onSet={(mm) => border({ [side]: mm })} width="72px" />
					))
				)}
				<PaperField value={sheet.paper} onChange={(paper) => b.edit({ sheet: { element: e.id, sheet: { ...sheet, paper } } })} />
				<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
				{c.elements.filter(isMat).length > 1 && <Button onClick={() => b.edit({ remove: { element: e.id } })}>Take off</Button>}
			</Box>
		);
	}
	return (
		<Box style={row}>
			<label className="field">
				Size
				<select value={c.base.format} onChange={(e) => b.edit({ format: { format: e.target.value } })}>
					{state.formats.map((f) => (
						<option key={f.id} value={f.id}>
							{f.name}
						</option>
					))}
				</select>
			</label>
			<Button onClick={() => b.edit({ base: { turned: true } })}>Turn the card</Button>
			<label className="field">
				Fold
				<select value={c.base.fold} onChange={(e) => b.edit({ base: { fold: e.target.value as Card["base"]["fold"] } })}>
					<option value="side">at the side</option>
					<option value="top">at the top</option>
				</select>
			</label>
			<PaperField label="Base" value={c.base.paper} onChange={(paper) => b.edit({ base: { paper } })} />
			<label className="field">
				Envelope
				<select value={c.base.envelope} onChange={(e) => b.edit({ base: { envelope: e.target.value } })} style={{ width: 160 }}>
					<option value="">none chosen</option>
					{state.kit.envelopes.map((x) => (
						<option key={x.id} value={x.id}>
							{x.name}
						</option>
					))}
				</select>
			</label>
			<Button onClick={() => b.edit({ addMat: {} })}>Add a mat</Button>
		</Box>
	);
}

function PaperField({ value, onChange, label = "Paper" }: { value: string; onChange: (id: string) => void; label?: string }) {
	const b = useBench();
	return (
		<label className="field">
			{label}
			<select value={value} onChange={(e) => onChange(e.target.value)} style={{ width: 150 }}>
				{!b.state.kit.papers.some((p) => p.id === value) && <option value={value}>none chosen</option>}
				{b.state.kit.papers.map((p) => (
					<option key={p.id} value={p.id}>
						{p.name}
					</option>
				))}
			</select>
		</label>
	);
}
