import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { Card, Element, PlanMotif, Colourway } from "../api";
import { typing } from "../app";
import { useBench } from "../card";
import { Frame, grounds, Layers } from "../picture";
import { Table } from "../table";
import { Button } from "../ui";
import { LengthField, length } from "../units";
import { CardStrata, GroundPicker, JointField, MotifPicker, StationFrame, useGround } from "./parts";

/** Front: the card at true proportion; mats, images and the strip, placed by drag, keys and numbers. */
export default function Front() {
	const b = useBench();
	const [ground, setGround] = useGround();
	const { card: c, view } = b;
	const s = b.state.settings;
	const [live, setLive] = useState<{ id: string; x: number; y: number } | null>(null);
	const drag = useRef<{ id: string; cx: number; cy: number; x: number; y: number } | null>(null);
	const el = c.elements.find((e) => e.id === b.element);
	const setEl = (id: string, f: Partial<Element>) =>
		b.change((n) => {
			n.elements = n.elements.map((e) => (e.id === id ? { ...e, ...f } : e));
			return n;
		});
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || !el || e.altKey || e.ctrlKey || (e.target as HTMLElement).closest?.(".stratum")) return;
			const by = s.unit === "in" ? 25.4 / 16 : 0.5;
			const mv = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
			if (mv) {
				e.preventDefault();
				setEl(el.id, { x: el.x + mv[0], y: el.y + mv[1] });
			}
			if (e.key === "[") setEl(el.id, { turn: el.turn - 1 });
			if (e.key === "]") setEl(el.id, { turn: el.turn + 1 });
			if (e.key === "Delete") b.change((n) => ({ ...n, elements: n.elements.filter((x) => x.id !== el.id) }));
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
	const placed = view.plan.front.elements.find((p) => p.id === b.element);
	const base = b.state.kit.papers.find((p) => p.id === c.base.paper)?.colour ?? "#fff";
	const panel = view.plan.front.sheets.at(-1) ?? { x: 0, y: 0, w: c.base.w, h: c.base.h };
	const addStrip = () =>
		b.change((n) => {
			let k = 1;
			while (n.elements.some((e) => e.id === `s${k}`)) k++;
			const ink = [...b.state.inks].reverse()[0]?.id ?? "";
			const paper = b.state.kit.papers[0]?.id ?? "";
			n.elements.push({
				id: `s${k}`,
				kind: "strip",
				x: n.base.w / 2,
				y: n.base.h * 0.82,
				turn: 0,
				joint: { kind: "glue", glue: b.state.kit.adhesives[0]?.id },
				strip: { text: "thank you", paper, ink, w: 50.8, h: 12.7, letter: 4 },
			});
			return n;
		});
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
									if (g && live) setEl(g.id, { x: live.x, y: live.y }).then(() => setLive(null));
									else setLive(null);
								}}
							>
								<defs>
									<pattern id="over" width={3} height={3} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
										<rect width={3} height={3} fill="#fff6" />
										<line x1={0} x2={0} y1={0} y2={3} stroke="#9a2f2b" strokeWidth={1} />
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
										stroke={b.element === sh.id ? "#824a00" : "#0003"}
										strokeWidth={b.element === sh.id ? 0.8 : 0.1}
										onPointerDown={() => b.pick({ element: sh.id })}
									/>
								))}
								{c.elements.map((e, i) => {
									const at = live?.id === e.id ? live : e;
									const over = view.plan.front.elements[i]?.over;
									return (
										<g
											key={e.id}
											transform={`translate(${at.x} ${at.y}) rotate(${e.turn})`}
											style={{ cursor: "move" }}
											filter={e.joint.kind === "foam" ? "url(#lift)" : undefined}
											onPointerDown={(ev) => {
												(ev.currentTarget as Element2).setPointerCapture(ev.pointerId);
												b.pick({ element: e.id, motif: e.motif || undefined, colourway: e.colourway || undefined });
												drag.current = { id: e.id, cx: ev.clientX, cy: ev.clientY, x: e.x, y: e.y };
											}}
										>
											<Thing e={e} over={over} on={b.element === e.id} scale={scale} />
										</g>
									);
								})}
								{el && <Distances e={live?.id === el.id ? { ...el, ...live } : el} box={placed} panel={panel} s={s} scale={scale} />}
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
		<line x1={0} x2={c.base.w} y1={0} y2={0} stroke="#1d2327" strokeWidth={1.2} strokeDasharray="3 2" />
	) : (
		<line x1={0} x2={0} y1={0} y2={c.base.h} stroke="#1d2327" strokeWidth={1.2} strokeDasharray="3 2" />
	);
}

/** One element, drawn round its own centre. */
function Thing({ e, over, on, scale }: { e: Element; over: boolean; on: boolean; scale: number }) {
	const b = useBench();
	const st = e.strip;
	if (st) {
		const paper = b.state.kit.papers.find((p) => p.id === st.paper)?.colour ?? "#fff";
		const ink = b.state.inks.find((i) => i.id === st.ink)?.dry ?? "#222";
		return (
			<>
				<rect x={-st.w / 2} y={-st.h / 2} width={st.w} height={st.h} fill={paper} stroke={on ? "#824a00" : "#0003"} strokeWidth={on ? 2 / scale : 0.1} />
				<text textAnchor="middle" y={st.letter / 2} fontSize={st.letter / 0.668} fill={ink} pointerEvents="none">
					{st.text}
				</text>
				{over && <rect x={-st.w / 2} y={-st.h / 2} width={st.w} height={st.h} fill="url(#over)" pointerEvents="none" />}
			</>
		);
	}
	const look = b.view.plan.motifs.find((m) => m.id === e.motif);
	if (!look) return null;
	const colourway = look.colourways.find((w) => w.id === e.colourway);
	return <Image look={look} colourway={colourway} on={on} over={over} scale={scale} />;
}

function Image({ look, colourway, on, over, scale }: { look: PlanMotif; colourway?: Colourway; on: boolean; over: boolean; scale: number }) {
	return (
		<g transform={`translate(${-look.minX - look.w / 2} ${-look.minY - look.h / 2})`}>
			<Layers look={look} colourway={colourway} />
			<path d={look.silhouette} fill={over ? "url(#over)" : "#0000"} stroke={on ? "#824a00" : "none"} strokeWidth={2.4 / scale} fillRule="evenodd" />
		</g>
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
	e: Element;
	box?: { w: number; h: number };
	panel: { x: number; y: number; w: number; h: number };
	s: Parameters<typeof length>[1];
	scale: number;
}) {
	if (!box) return null;
	const [l, r, t, bt] = [e.x - box.w / 2 - panel.x, panel.x + panel.w - e.x - box.w / 2, e.y - box.h / 2 - panel.y, panel.y + panel.h - e.y - box.h / 2];
	const line = (x1: number, y1: number, x2: number, y2: number, v: number, key: string) => (
		<g key={key} pointerEvents="none">
			<line x1={x1} y1={y1} x2={x2} y2={y2} stroke={v < -0.05 ? "#9a2f2b" : "#824a00"} strokeWidth={1.4 / scale} />
			<text
				x={(x1 + x2) / 2}
				y={(y1 + y2) / 2 - 4 / scale}
				fontSize={12.5 / scale}
				fontWeight={700}
				textAnchor="middle"
				fill={v < -0.05 ? "#9a2f2b" : "#1d2327"}
				stroke="#fffd"
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
	const s = state.settings;
	const e = c.elements.find((x) => x.id === b.element);
	const sheet = c.sheets.find((x) => x.id === b.element);
	const row = {
		display: "flex",
		gap: 12,
		flexWrap: "wrap",
		alignItems: "end",
		padding: "8px 20px",
		background: "#f3f3f1",
		borderTop: "1px solid #bfc2c1",
	} as const;
	if (e) {
		const set = (f: Partial<Element>) =>
			b.change((n) => {
				n.elements = n.elements.map((x) => (x.id === e.id ? { ...x, ...f } : x));
				return n;
			});
		const m = c.motifs.find((x) => x.id === e.motif);
		const again = () =>
			b.change((n) => {
				let k = n.elements.length + 1;
				while (n.elements.some((x) => x.id === `e${k}`)) k++;
				n.elements.push({ ...structuredClone(e), id: `e${k}`, x: e.x + 8, y: e.y + 8 });
				return n;
			});
		return (
			<Box style={row}>
				<LengthField label="Centre, across" mm={e.x} settings={s} onSet={(x) => set({ x })} />
				<LengthField label="Centre, down" mm={e.y} settings={s} onSet={(y) => set({ y })} />
				<label className="field">
					Turn (degrees)
					<input type="number" step={1} value={Math.round(e.turn * 10) / 10} onChange={(ev) => set({ turn: Number(ev.target.value) })} style={{ width: 72 }} />
				</label>
				<JointField joint={e.joint} onChange={(joint) => set({ joint })} />
				{m && m.colourways.length > 1 && (
					<label className="field">
						Colourway
						<select value={e.colourway} onChange={(ev) => set({ colourway: ev.target.value })}>
							{m.colourways.map((w) => (
								<option key={w.id} value={w.id}>
									{w.name}
								</option>
							))}
						</select>
					</label>
				)}
				{e.strip && (
					<>
						<label className="field">
							Words
							<input
								key={e.id + e.strip.text}
								defaultValue={e.strip.text}
								maxLength={80}
								onBlur={(ev) => ev.target.value !== e.strip!.text && set({ strip: { ...e.strip!, text: ev.target.value } })}
								style={{ width: 180 }}
							/>
						</label>
						<LengthField label="Width" mm={e.strip.w} settings={s} onSet={(w) => set({ strip: { ...e.strip!, w } })} width="72px" />
						<LengthField label="Height" mm={e.strip.h} settings={s} onSet={(h) => set({ strip: { ...e.strip!, h } })} width="72px" />
						<LengthField label="Letters" mm={e.strip.letter} settings={s} onSet={(letter) => set({ strip: { ...e.strip!, letter } })} width="72px" />
						<PaperField value={e.strip.paper} onChange={(paper) => set({ strip: { ...e.strip!, paper } })} />
						<label className="field">
							Heat embossed
							<input
								type="checkbox"
								checked={e.strip.emboss ?? false}
								onChange={(ev) => set({ strip: { ...e.strip!, emboss: ev.target.checked } })}
								style={{ width: 18 }}
							/>
						</label>
					</>
				)}
				<Button onClick={() => set({ x: c.base.w / 2 })}>Centre across</Button>
				<Button onClick={again}>Another</Button>
				<Button onClick={() => b.change((n) => ({ ...n, elements: n.elements.filter((x) => x.id !== e.id) }))}>Take off</Button>
			</Box>
		);
	}
	if (sheet) {
		const set = (f: Partial<typeof sheet>) => b.change((n) => ({ ...n, sheets: n.sheets.map((x) => (x.id === sheet.id ? { ...x, ...f } : x)) }));
		return (
			<Box style={row}>
				<LengthField label="Border of the sheet beneath" mm={sheet.border} settings={s} onSet={(border) => set({ border })} />
				<PaperField value={sheet.paper} onChange={(paper) => set({ paper })} />
				<JointField joint={sheet.joint} onChange={(joint) => set({ joint })} />
				{c.sheets.length > 1 && <Button onClick={() => b.change((n) => ({ ...n, sheets: n.sheets.filter((x) => x.id !== sheet.id) }))}>Take off</Button>}
			</Box>
		);
	}
	const size = (id: string) => {
		const f = state.formats.find((x) => x.id === id);
		if (!f) return;
		const side = id === "slimline" || id === "dl";
		b.change((n) => ({ ...n, base: { ...n.base, format: id, w: side ? f.size.h : f.size.w, h: side ? f.size.w : f.size.h } }));
	};
	const base = (f: Partial<Card["base"]>) => b.change((n) => ({ ...n, base: { ...n.base, ...f } }));
	const addMat = () =>
		b.change((n) => {
			let k = 1;
			while (n.sheets.some((x) => x.id === `mat${k}`)) k++;
			const paper = state.kit.papers.find((p) => p.id !== n.sheets.at(-1)?.paper && p.kind === "cardstock")?.id ?? "";
			n.sheets.splice(Math.max(0, n.sheets.length - 1), 0, {
				id: `mat${k}`,
				paper,
				border: 25.4 / 8,
				joint: { kind: "glue", glue: state.kit.adhesives[0]?.id },
			});
			return n;
		});
	return (
		<Box style={row}>
			<label className="field">
				Size
				<select value={c.base.format} onChange={(e) => size(e.target.value)}>
					{state.formats.map((f) => (
						<option key={f.id} value={f.id}>
							{f.name}
						</option>
					))}
				</select>
			</label>
			<Button onClick={() => base({ w: c.base.h, h: c.base.w })}>Turn the card</Button>
			<label className="field">
				Fold
				<select value={c.base.fold} onChange={(e) => base({ fold: e.target.value as Card["base"]["fold"] })}>
					<option value="side">at the side</option>
					<option value="top">at the top</option>
				</select>
			</label>
			<PaperField label="Base" value={c.base.paper} onChange={(paper) => base({ paper })} />
			<label className="field">
				Envelope
				<select value={c.base.envelope} onChange={(e) => base({ envelope: e.target.value })} style={{ width: 160 }}>
					<option value="">none chosen</option>
					{state.kit.envelopes.map((x) => (
						<option key={x.id} value={x.id}>
							{x.name}
						</option>
					))}
				</select>
			</label>
			<Button onClick={addMat}>Add a mat</Button>
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
