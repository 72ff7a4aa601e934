import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type S } from "../../api/client";
import { Frame } from "../../parts/picture";
import { ImageStrata, MotifPicker, NoImage, StationFrame } from "../../parts/station";
import { Table } from "../../parts/table";
import { Button } from "../../ui/button";
import { bare, hue } from "../../ui/colours";
import { typing } from "../../ui/keys";
import { Forgive } from "./forgive";
import { Hand } from "./hand";
import { Placing, Sights, usePlacing } from "./placing";
import { astray, boxOf, compass, holds, inPlace, magnify, type Off, offWords, reachAt, reachPath, turnLeft } from "./play";
import { Pointing } from "./pointing";
import { Practice, type Try } from "./practice";
import { type Measured, Proof, type Verdict } from "./proof";
import { ProofView } from "./proofview";
import { Sheets } from "./sheets";
import { PatternView, Turns, usePattern } from "./turns";

type Side = "place" | "proof" | "hand" | "forgive" | "sheets" | "turns";
const sides: [Side, string][] = [
	["place", "Place"],
	["proof", "Measure"],
	["hand", "Hand"],
	["forgive", "Limits"],
	["sheets", "Sheets"],
	["turns", "Turns"],
];

/** Register: one layer over its host, magnified, with the play drawn round it. */
export default function Register() {
	const b = useBench();
	const [off, setOff] = useState<Off>(inPlace);
	const drag = useRef<{ x: number; y: number; from: Off } | null>(null);
	const { look, motif } = b;
	const i = Math.max(0, look?.layers.findIndex((l) => l.id === b.layer) ?? 0);
	const first = look?.layers.findIndex((l) => l.play.judged) ?? -1;
	const at = b.layer ? i : Math.max(0, first);
	const [run, setRun] = useState(12);
	const [side, setSide] = useState<Side>("place");
	const [proofed, setProofed] = useState<Measured>();
	const [tries, setTries] = useState<Try[]>([]);
	const [blind, setBlind] = useState(false);
	const [trueSize, setTrueSize] = useState(false);
	const [printAt, setPrintAt] = useState(0);
	const [over, setOver] = useState(false);
	const [pointing, setPointing] = useState<{ picture: Blob; dpi: number }>();
	const pattern = usePattern();
	const next = useRef<Off>(undefined);
	// biome-ignore lint/correctness/useExhaustiveDependencies: another layer begins in its place, or where a proof has it
	useEffect(() => {
		setOff(next.current ?? inPlace);
		next.current = undefined;
		setBlind(false);
		setTries([]);
		setPointing(undefined);
	}, [b.layer, motif?.id]);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || e.altKey || (e.target as HTMLElement).closest?.(".stratum")) return;
			const by = { ArrowLeft: [-0.1, 0, 0], ArrowRight: [0.1, 0, 0], ArrowUp: [0, -0.1, 0], ArrowDown: [0, 0.1, 0], "[": [0, 0, -0.2], "]": [0, 0, 0.2] }[
				e.key
			];
			if (by) {
				e.preventDefault();
				setOff((o) => ({ x: o.x + by[0], y: o.y + by[1], t: Math.max(-180, Math.min(180, o.t + by[2])) }));
			}
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	}, []);
	const placing = usePlacing(look?.layers[at]?.id ?? "", run);
	const measured = (p?: Measured) => {
		setProofed(p);
		setPrintAt(0);
		setOver(!!p);
	};
	/** Lays a measured layer where the proof has it. */
	const show = (v: Verdict) => {
		const lies = { x: v.x, y: v.y, t: v.turn };
		setOver(false);
		if (look?.layers[at]?.id === v.layer) setOff(lies);
		else {
			next.current = lies;
			b.pick({ layer: v.layer });
		}
	};
	const value = (k: number) => {
		const p = placing?.layers[k] ?? look?.layers[k].play;
		if (!p?.judged) return "free";
		return p.outside > 0 ? "over" : `${p.tight.toFixed(1)} mm`;
	};
	const harm = useHarm(look?.layers[at]?.id ?? "", off, blind);
	if (!look || !motif || look.layers.length === 0)
		return <StationFrame station="register" table={<NoImage />} strata={<ImageStrata what="play" value={() => ""} />} />;
	const l = look.layers[at];
	const doc = motif.layers.find((x) => x.id === l.id);
	const told = placing?.layer === l.id ? placing : undefined;
	const p = told?.play ?? l.play;
	// A piece that is cut out after it was printed on: the die moves over its prints.
	const round = doc?.make === "cut" && doc.after === true;
	const prints = look.layers.map((x, k) => ({ x, k })).filter(({ x }) => round && x.host === l.id);
	const host = round ? undefined : look.layers.find((x) => x.id === l.host);
	const w = b.colourway?.layers;
	const hostLook = w?.[look.layers.findIndex((x) => x.id === l.host)];
	const pad = 4;
	const tight = boxOf(host?.outline ?? l.outline, pad);
	const inside = holds(p, off);
	const moved = off.x !== 0 || off.y !== 0 || off.t !== 0;
	const turning = side === "turns" && !!pattern.p && !!pattern.plan && !blind;
	const overlay = side === "proof" && over && !!proofed && !pointing && !blind;
	const mag = magnify(Math.min(p.loose, 8), tight);
	const s = b.state.settings;
	const on = round ? "its print" : (host?.label ?? "the panel");
	return (
		<StationFrame
			station="register"
			table={
				<>
					<Frame
						title={
							overlay
								? `Print ${printAt + 1}, measured`
								: turning && pattern.p
									? pattern.p.name
									: round
										? `The die of ${l.label} round its print`
										: `${l.label} on ${on}`
						}
						sub={
							overlay
								? "Every layer's edge where it lies, over the design. The strokes from the middles are the shifts, ten times true."
								: turning && pattern.p
									? `${pattern.p.turns} strikes; the grey rim outside the dashed line is trimmed off.`
									: words(p, on)
						}
						tools={
							<>
								<MotifPicker />
								{p.judged && p.outside === 0 && (
									<Button
										aria-pressed={blind}
										onClick={() => {
											setBlind(!blind);
											setTries([]);
											setTrueSize(false);
											setOff(blind ? inPlace : astray(p));
										}}
									>
										{blind ? "End the practice" : "Practise"}
									</Button>
								)}
								<Button onClick={() => setOff(inPlace)} disabled={!moved || blind}>
									Back in place
								</Button>
							</>
						}
					/>
					<Box display="flex" flex="1" minH={0}>
						<Box flex="1" minW={0} display="flex" flexDirection="column">
							{pointing && (
								<Pointing
									picture={pointing.picture}
									dpi={pointing.dpi}
									onClose={() => setPointing(undefined)}
									onDone={(print, against) => {
										setPointing(undefined);
										measured({ against, prints: [print], run: [], notes: [], source: "points" });
									}}
								/>
							)}
							{turning && pattern.p && pattern.plan && (
								<Table
									box={{ x: -pattern.p.side / 2 - 8, y: -pattern.p.side / 2 - 8, w: pattern.p.side + 16, h: pattern.p.side + 16 }}
									settings={s}
									label="The pattern on its panel"
									origin={{ x: -pattern.p.side / 2, y: -pattern.p.side / 2 }}
								>
									{(scale) => pattern.p && pattern.plan && <PatternView p={pattern.p} plan={pattern.plan} scale={scale} />}
								</Table>
							)}
							{overlay && proofed && (
								<Table
									box={{ x: look.minX - 4, y: look.minY - 4, w: look.w + 8, h: look.h + 8 }}
									settings={s}
									label="The measured print over the design"
									origin={{ x: look.minX, y: look.minY }}
								>
									{(scale) => <ProofView done={proofed} at={printAt} scale={scale} />}
								</Table>
							)}
							<Sized box={tight} on={blind && trueSize} hide={!!pointing || turning || overlay}>
								{(box) => (
									<Table box={box} settings={s} label="The layer over its host" origin={{ x: tight.x + pad, y: tight.y + pad }}>
										{(scale) => (
											<g
												style={{ touchAction: "none" }}
												onPointerDown={(e) => {
													(e.target as Element).setPointerCapture(e.pointerId);
													drag.current = { x: e.clientX, y: e.clientY, from: off };
												}}
												onPointerMove={(e) => {
													const g = drag.current;
													if (g) setOff({ ...g.from, x: g.from.x + (e.clientX - g.x) / scale, y: g.from.y + (e.clientY - g.y) / scale });
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
														<circle
															cx={off.x * mag}
															cy={off.y * mag}
															r={4.5 / scale}
															fill={inside ? hue.lichen : hue.madder}
															stroke={hue.white}
															strokeWidth={1.2 / scale}
														/>
													</g>
												)}
												{!round && (
													<g transform={blind ? `translate(${off.x} ${off.y}) rotate(${off.t} ${p.centreX} ${p.centreY})` : undefined}>
														<Sights p={told} scale={scale} />
													</g>
												)}
											</g>
										)}
									</Table>
								)}
							</Sized>
							<Box p="8px 20px" bg="sheet" borderTop="1px solid {colors.line}" fontSize="13px" minH="62px" hidden={!!pointing || turning || overlay}>
								{blind ? (
									<Practice
										layer={l.id}
										play={p}
										off={off}
										tries={tries}
										practised={told?.practised}
										trueSize={trueSize}
										onTrueSize={setTrueSize}
										onTry={(t) => {
											setTries([...tries, t]);
											setOff(astray(p));
										}}
									/>
								) : p.judged ? (
									<Box display="flex" gap="14px">
										<Box flex="1">
											The shape in the middle is the play, drawn {mag.toFixed(0)} times true: as long as the dot is inside, nothing shows.{" "}
											{limitWords(p, told, round, !!doc?.forgive)}
											<br />
											<b style={{ color: inside ? hue.text : hue.madder }}>
												{moved
													? `Off by ${offWords(off) || "less than can be seen"}: ${inside ? "it does not show" : "it shows"} (${allowance(p, off)}).${harmWords(harm, round)}`
													: "In its place. Drag it, or use the arrow keys and [ ] to turn it, to see how far it may drift."}
											</b>
										</Box>
										<Numbers off={off} onChange={setOff} />
									</Box>
								) : (
									<>Its fit is free: it may lie anywhere that looks well. Set the fit in Pieces to have its play worked out.</>
								)}
							</Box>
						</Box>
						<Box w="388px" flex="none" display="flex" flexDirection="column" minH={0} bg="sheet" borderLeft="1px solid {colors.line}" fontSize="13px">
							<Box role="tablist" aria-label="What to do here" display="flex" gap="2px" p="6px 10px 0" flexWrap="wrap" borderBottom="1px solid {colors.line}">
								{sides.map(([id, name]) => (
									<button key={id} type="button" role="tab" aria-selected={side === id} className="side-tab" onClick={() => setSide(id)}>
										{name}
									</button>
								))}
							</Box>
							<Box flex="1" minH={0} overflowY="auto" p="10px 16px" role="tabpanel" tabIndex={0} aria-label={sides.find(([id]) => id === side)?.[1]}>
								{side === "place" && <Placing p={told} run={run} onRun={setRun} />}
								<div hidden={side !== "proof"}>
									{motif.layers.filter((x) => x.make !== "cut").length > 1 ? (
										<Proof
											key={`${motif.id} ${b.colourway?.id}`}
											done={proofed}
											onDone={measured}
											onShow={show}
											onPoint={(picture, dpi) => setPointing({ picture, dpi })}
											at={printAt}
											onAt={(i) => {
												setPrintAt(i);
												setOver(true);
											}}
										/>
									) : (
										"A print is measured by its layers: this image has fewer than two that are printed."
									)}
								</div>
								{side === "hand" && <Hand layer={l.id} play={p} />}
								{side === "forgive" && <Forgive key={l.id} layer={l.id} now={told?.limits} />}
								{side === "sheets" && <Sheets key={motif.id} w={look.w} />}
								{side === "turns" && <Turns {...pattern} />}
							</Box>
						</Box>
					</Box>
				</>
			}
			strata={<ImageStrata what="play" value={value} sub={(k) => playSub(look.layers[k], placing?.layers[k])} />}
		/>
	);
}

/** What shows when a layer lies so, asked of the program once the hand rests. */
function useHarm(layer: string, off: Off, blind: boolean) {
	const b = useBench();
	const [rest, setRest] = useState(off);
	useEffect(() => {
		const t = setTimeout(() => setRest(off), 120);
		return () => clearTimeout(t);
	}, [off]);
	const [motif, colourway] = [b.motif?.id ?? "", b.colourway?.id ?? ""];
	const still = rest.x === off.x && rest.y === off.y && rest.t === off.t;
	const got = useQuery({
		queryKey: ["harm", b.view.id, b.view.version, motif, colourway, layer, rest],
		enabled: !blind && still && layer !== "" && motif !== "" && colourway !== "" && (rest.x !== 0 || rest.y !== 0 || rest.t !== 0),
		queryFn: () =>
			ok(api.GET("/api/cards/{id}/harm", { params: { path: { id: b.view.id }, query: { motif, colourway, layer, x: rest.x, y: rest.y, turn: rest.t } } })),
	}).data;
	return still ? got : undefined;
}

function harmWords(h: S["Harm"] | undefined, round: boolean): string {
	if (!h) return "";
	if (h.white > 0) return ` White shows inside the cut line, ${h.white.toFixed(2)} mm at its widest.`;
	if (h.lies > 0 || h.bare > 0) return ` ${h.bare.toFixed(1)} mm² of the blank stay bare, ${h.lies.toFixed(1)} mm² lie over its edge.`;
	if (h.spill > 0) return ` It runs ${h.spill.toFixed(2)} mm over ${round ? "the cut line" : "the edge"} (${h.spillArea.toFixed(1)} mm²).`;
	if (h.rimLeast > 0) return ` The narrowest ${round ? "white rim" : "rim"} left is ${h.rimLeast.toFixed(2)} mm.`;
	return "";
}

function limitWords(p: S["Play"], told: S["Placing"] | undefined, round: boolean, own: boolean): string {
	const by = own ? ", set for this layer" : told && told.contrast > 0 ? `, set by how far apart the two dry (${told.contrast.toFixed(0)})` : "";
	if (p.fit === "offset") return `It is offset on purpose: the look holds while it stays within half of that, ${p.loose.toFixed(2)} mm, however it is turned.`;
	if (round) return `The die may drift so far before the cut shows it${by}.`;
	const at =
		p.boundGap > 0.005
			? `${p.boundGap.toFixed(2)} mm outside ${p.fit === "fills" ? "the blank's edge" : "its host"}`
			: p.boundGap < -0.005
				? `${(-p.boundGap).toFixed(2)} mm inside its host`
				: "its host's own edge";
	return `The dashed line is the limit: ${at}${by}.`;
}

function allowance(p: S["Play"], off: Off): string {
	const parts = [];
	const reach = reachAt(p, off);
	if (off.x !== 0 || off.y !== 0) parts.push(`${reach.toFixed(2)} mm allowed that way`);
	const limit = off.t < 0 ? p.anti : p.clock;
	if (off.t !== 0) parts.push(limit >= 90 ? "turn it freely" : `${turnLeft(p, off).toFixed(1)}° of turn allowed there`);
	return parts.join("; ");
}

/** The same move in numbers. */
function Numbers({ off, onChange }: { off: Off; onChange: (o: Off) => void }) {
	const field = (label: string, key: keyof Off, unit: string, step: number) => (
		<label style={{ display: "flex", gap: 6, alignItems: "center", justifyContent: "flex-end" }}>
			{label}
			<input
				type="number"
				step={step}
				value={Math.round(off[key] * 100) / 100}
				style={{ width: 70 }}
				onChange={(e) => onChange({ ...off, [key]: Math.max(-50, Math.min(50, Number(e.target.value) || 0)) })}
			/>
			<span style={{ width: 22 }}>{unit}</span>
		</label>
	);
	return (
		<Box flex="none" display="flex" flexDirection="column" gap="2px">
			{field("right", "x", "mm", 0.1)}
			{field("down", "y", "mm", 0.1)}
			{field("turn", "t", "°", 0.2)}
		</Box>
	);
}

type Box2 = { x: number; y: number; w: number; h: number };

/** The box shown: fitted to the table, or grown until it is drawn at true size. */
function Sized({ box, on, hide, children }: { box: Box2; on: boolean; hide: boolean; children: (box: Box2) => React.ReactNode }) {
	const ref = useRef<HTMLDivElement>(null);
	const el = ref.current;
	const perMM = 96 / 25.4;
	const [w, h] = on && el ? [Math.max(box.w, (el.clientWidth - 48) / perMM), Math.max(box.h, (el.clientHeight - 48) / perMM)] : [box.w, box.h];
	return (
		<div ref={ref} style={{ flex: 1, minHeight: 0, display: hide ? "none" : "flex" }}>
			{!hide && children({ x: box.x - (w - box.w) / 2, y: box.y - (h - box.h) / 2, w, h })}
		</div>
	);
}

type L = NonNullable<ReturnType<typeof useBench>["look"]>["layers"][0];

function playSub(l: L, told?: { judged: boolean; outside: number; turn: number }): string {
	const p = { ...l.play, ...(told && { judged: told.judged, outside: told.outside, clock: told.turn, anti: told.turn }) };
	if (!p.judged) return "place it freely";
	if (p.outside > 0) return `${p.outside.toFixed(1)} mm² lie past the limit`;
	return `${p.fit === "offset" ? "offset on purpose" : p.fit}; turn ${turnWords(p)}`;
}

const turnWords = (p: L["play"]) => {
	const t = Math.min(p.clock, p.anti);
	return t > 90 ? "freely" : `${t.toFixed(1)}°`;
};

function words(p: L["play"], on: string): string {
	if (!p.judged) return "Nothing has to meet here.";
	if (p.outside > 0) return `As designed it already runs over ${on}.`;
	const rim = p.rim > 0 ? ` Rim ${p.rim.toFixed(2)} mm at its narrowest.` : "";
	if (p.loose - p.tight < 0.005) return `May drift ${p.tight.toFixed(2)} mm every way; turn ${turnWords(p)}.${rim}`;
	const at = (p.tightAt * Math.PI) / 180;
	return `May drift ${p.tight.toFixed(2)} mm at the tightest (${compass({ x: Math.cos(at), y: Math.sin(at) })}), ${p.loose.toFixed(2)} mm at the loosest; turn ${turnWords(p)}.${rim}`;
}
