import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { typing } from "../app";
import { useBench } from "../card";
import { Frame } from "../picture";
import { Table } from "../table";
import { Button } from "../ui";
import { TurningJig } from "./jig";
import { ImageStrata, MotifPicker, NoImage, StationFrame } from "./parts";
import { Placing, Sights, usePlacing } from "./placing";
import { Proof, type Proofed } from "./proof";

const steps = 72;

/** Register: one layer over its host, magnified, with the play drawn round it. */
export default function Register() {
	const b = useBench();
	const [off, setOff] = useState({ x: 0, y: 0 });
	const drag = useRef<{ x: number; y: number; ox: number; oy: number } | null>(null);
	const { look, motif } = b;
	const i = Math.max(0, look?.layers.findIndex((l) => l.id === b.layer) ?? 0);
	const first = look?.layers.findIndex((l) => l.play.judged) ?? -1;
	const at = b.layer ? i : Math.max(0, first);
	// biome-ignore lint/correctness/useExhaustiveDependencies: another layer begins in its place
	useEffect(() => {
		setOff({ x: 0, y: 0 });
		setBlind(false);
		setTries([]);
	}, [b.layer, motif?.id]);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || e.altKey || (e.target as HTMLElement).closest?.(".stratum")) return;
			const by = { ArrowLeft: [-0.1, 0], ArrowRight: [0.1, 0], ArrowUp: [0, -0.1], ArrowDown: [0, 0.1] }[e.key];
			if (by) {
				e.preventDefault();
				setOff((o) => ({ x: o.x + by[0], y: o.y + by[1] }));
			}
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	}, []);
	const [run, setRun] = useState(12);
	const [panel, setPanel] = useState<"" | "jig" | "proof">("");
	const [proofed, setProofed] = useState<Proofed>();
	const [tries, setTries] = useState<Try[]>([]);
	const [blind, setBlind] = useState(false);
	const placing = usePlacing(look?.layers[at]?.id ?? "", run);
	/** Lays a measured layer where the proof has it. */
	const show = (layer: string) => {
		const m = proofed?.layers.find((x) => x.layer === layer);
		b.pick({ layer });
		// The change of layer puts it in place first.
		if (m) setTimeout(() => setOff({ x: m.x, y: m.y }), 60);
	};
	const value = (k: number) => {
		const p = placing?.layers[k] ?? look?.layers[k].play;
		if (!p?.judged) return "free";
		return p.outside > 0 ? "over" : `${p.tight.toFixed(1)} mm`;
	};
	if (!look || !motif || look.layers.length === 0)
		return <StationFrame station="register" table={<NoImage />} strata={<ImageStrata what="play" value={() => ""} />} />;
	const l = look.layers[at];
	const host = look.layers.find((x) => x.id === l.host);
	const w = b.way?.layers;
	const hostLook = w?.[look.layers.findIndex((x) => x.id === l.host)];
	const told = placing?.layer === l.id ? placing : undefined;
	const p = told?.play ?? l.play;
	const pad = 4;
	const box = boxOf(host?.outline ?? l.outline, pad);
	const d = Math.hypot(off.x, off.y);
	const angle = ((Math.atan2(off.y, off.x) * 180) / Math.PI + 360) % 360;
	const allowed = p.judged && p.reach.length === steps ? reachAt(p.reach, angle) : Number.POSITIVE_INFINITY;
	const inside = d <= allowed;
	const mag = magnify(p.loose, box);
	const s = b.state.settings;
	return (
		<StationFrame
			station="register"
			table={
				<>
					<Frame
						title={`${l.label} on ${host?.label ?? "the panel"}`}
						sub={words(p, host?.label)}
						tools={
							<>
								<MotifPicker />
								{p.judged && p.outside === 0 && (
									<Button
										aria-pressed={blind}
										onClick={() => {
											setBlind(!blind);
											setOff(blind ? { x: 0, y: 0 } : astray());
										}}
									>
										{blind ? "End the practice" : "Practise"}
									</Button>
								)}
								{motif.layers.filter((x) => x.make === "printed").length > 1 && (
									<Button aria-pressed={panel === "proof"} onClick={() => setPanel(panel === "proof" ? "" : "proof")}>
										Measure a print
									</Button>
								)}
								<Button aria-pressed={panel === "jig"} onClick={() => setPanel(panel === "jig" ? "" : "jig")}>
									Turning jig
								</Button>
								<Button onClick={() => setOff({ x: 0, y: 0 })} disabled={d === 0 || blind}>
									Back in place
								</Button>
							</>
						}
					/>
					<Box display="flex" flex="1" minH={0}>
						<Box flex="1" minW={0} display="flex" flexDirection="column">
							<Table box={box} settings={s} label="The layer over its host" origin={{ x: box.x + pad, y: box.y + pad }}>
								{(scale) => (
									<g
										onPointerDown={(e) => {
											(e.target as Element).setPointerCapture(e.pointerId);
											drag.current = { x: e.clientX, y: e.clientY, ox: off.x, oy: off.y };
										}}
										onPointerMove={(e) => {
											const g = drag.current;
											if (g) setOff({ x: g.ox + (e.clientX - g.x) / scale, y: g.oy + (e.clientY - g.y) / scale });
										}}
										onPointerUp={() => {
											drag.current = null;
										}}
									>
										{host && <path d={host.outline} fill={hostLook?.dry ?? "#ddd"} fillRule="evenodd" stroke="#1d2327" strokeWidth={0.6 / scale} />}
										{p.bound && !blind && (
											<path d={p.bound} fill="none" stroke="#824a00" strokeWidth={1.2 / scale} strokeDasharray={`${5 / scale} ${4 / scale}`} />
										)}
										<path
											d={l.outline}
											fill={w?.[at].dry ?? "#bbb"}
											fillOpacity={0.85}
											fillRule="evenodd"
											transform={`translate(${off.x} ${off.y})`}
											stroke={inside || blind ? "#1d2327" : "#9a2f2b"}
											strokeWidth={(inside || blind ? 0.8 : 2.4) / scale}
											style={{ cursor: "move" }}
										/>
										{p.judged && !blind && p.reach.length === steps && (
											<g transform={`translate(${p.centreX} ${p.centreY})`} pointerEvents="none">
												<path d={reachPath(p.reach, mag)} fill="#f3f3f1cc" stroke="#824a00" strokeWidth={1.8 / scale} />
												<line
													x1={0}
													y1={0}
													x2={Math.cos((p.tightAt * Math.PI) / 180) * p.tight * mag}
													y2={Math.sin((p.tightAt * Math.PI) / 180) * p.tight * mag}
													stroke="#9a2f2b"
													strokeWidth={2 / scale}
												/>
												<circle
													cx={off.x * mag}
													cy={off.y * mag}
													r={4.5 / scale}
													fill={inside ? "#4d6b3b" : "#9a2f2b"}
													stroke="#fff"
													strokeWidth={1.2 / scale}
												/>
											</g>
										)}
										<Sights p={told} scale={scale} />
									</g>
								)}
							</Table>
							<Box p="8px 20px" bg="sheet" borderTop="1px solid {colors.line}" fontSize="13px" minH="62px">
								{blind ? (
									<Practice
										tries={tries}
										onThere={() => {
											setTries([...tries, { x: off.x, y: off.y, allowed }]);
											setOff(astray());
										}}
									/>
								) : p.judged ? (
									<>
										<Box>
											The shape in the middle is the play, drawn {mag.toFixed(0)} times true: as long as the dot is inside, nothing shows. The dashed line is
											the limit:{" "}
											{p.boundGap > 0.005
												? `${p.boundGap.toFixed(2)} mm outside its host`
												: p.boundGap < -0.005
													? `${(-p.boundGap).toFixed(2)} mm inside its host, half the rim`
													: "its host's own edge"}
											{told && told.contrast > 0 && `, set by how far apart the two dry (${told.contrast.toFixed(0)})`}.
										</Box>
										<b style={{ color: inside ? "#1d2327" : "#9a2f2b" }}>
											{d < 0.005
												? "In its place. Drag it, or use the arrow keys, to see how far it may drift."
												: `Off by ${d.toFixed(2)} mm ${compass(angle)}: ${inside ? "it does not show" : "it shows"} (${Number.isFinite(allowed) ? `${allowed.toFixed(2)} mm allowed that way` : "free"}).`}
										</b>
									</>
								) : (
									<>Its fit is free: it may lie anywhere that looks well. Set the fit to within or even rim in Pieces to have its play worked out.</>
								)}
							</Box>
							{panel === "jig" && <TurningJig key={motif.id} w={look.w} />}
						</Box>
						{panel === "proof" ? (
							<Proof key={`${motif.id} ${b.way?.id}`} done={proofed} onDone={setProofed} onShow={show} />
						) : (
							<Placing p={told} run={run} onRun={setRun} />
						)}
					</Box>
				</>
			}
			strata={<ImageStrata what="play" value={value} sub={(k) => playSub(look.layers[k], placing?.layers[k])} />}
		/>
	);
}

interface Try {
	x: number;
	y: number;
	allowed: number;
}

/** Somewhere up to 3 mm off, at least 1. */
function astray() {
	const [r, a] = [1 + 2 * Math.random(), 2 * Math.PI * Math.random()];
	return { x: r * Math.cos(a), y: r * Math.sin(a) };
}

/** The layer lies astray and nothing is drawn to help: how near does the hand bring it? */
function Practice({ tries, onThere }: { tries: Try[]; onThere: () => void }) {
	const last = tries.at(-1);
	const off = (t: Try) => Math.hypot(t.x, t.y);
	const n = tries.length;
	const good = tries.filter((t) => off(t) <= t.allowed).length;
	const mean = { x: tries.reduce((s, t) => s + t.x, 0) / n, y: tries.reduce((s, t) => s + t.y, 0) / n };
	const spread = n > 1 ? Math.sqrt(tries.reduce((s, t) => s + (t.x - mean.x) ** 2 + (t.y - mean.y) ** 2, 0) / (2 * (n - 1))) : 0;
	const lean = Math.hypot(mean.x, mean.y);
	// A mean off by more than twice its own error is a habit, not chance.
	const habit = n >= 5 && lean > (2 * spread) / Math.sqrt(n);
	return (
		<Box display="flex" gap="16px" alignItems="center">
			<Button variant="main" onClick={onThere}>
				There
			</Button>
			<Box>
				<b>Bring the layer into its place by eye, with the keys or by dragging.</b>
				{last && (
					<Box>
						Off by {off(last).toFixed(2)} mm {compass(((Math.atan2(last.y, last.x) * 180) / Math.PI + 360) % 360)}:{" "}
						{off(last) <= last.allowed ? "it does not show" : "it shows"} ({last.allowed.toFixed(2)} mm allowed that way). {good} of {n} came out
						{n > 1 && `; your spread here is ±${spread.toFixed(2)} mm (from ${n} tries)`}.
						{habit &&
							` You err ${lean.toFixed(2)} mm ${compass(((Math.atan2(mean.y, mean.x) * 180) / Math.PI + 360) % 360)} on the mean: aim that much the other way.`}
					</Box>
				)}
			</Box>
		</Box>
	);
}

type L = NonNullable<ReturnType<typeof useBench>["look"]>["layers"][0];

function playSub(l: L, told?: { judged: boolean; outside: number; turn: number }): string {
	const p = { ...l.play, ...(told && { judged: told.judged, outside: told.outside, clock: told.turn, anti: told.turn }) };
	if (!p.judged) return "place it freely";
	if (p.outside > 0) return `${p.outside.toFixed(1)} mm² lie past the limit`;
	return `${p.fit}; turn ${turnWords(p)}`;
}

const turnWords = (p: L["play"]) => {
	const t = Math.min(p.clock, p.anti);
	return t > 90 ? "freely" : `${t.toFixed(1)}°`;
};

function words(p: L["play"], host?: string): string {
	if (!p.judged) return "Nothing has to meet here.";
	if (p.outside > 0) return `As designed it already runs over ${host ?? "its host"}.`;
	return `May drift ${p.tight.toFixed(2)} mm at the tightest (${compass(p.tightAt)}), ${p.loose.toFixed(2)} mm at the loosest; turn ${turnWords(p)}. Rim ${p.rim.toFixed(2)} mm at its narrowest.`;
}

/** A direction in words. */
function compass(deg: number): string {
	return ["right", "down and right", "down", "down and left", "left", "up and left", "up", "up and right"][Math.round(deg / 45) % 8];
}

/** The play between two of the directions it was computed in. */
function reachAt(reach: number[], deg: number): number {
	const k = (deg / 360) * steps;
	const [i, t] = [Math.floor(k) % steps, k - Math.floor(k)];
	return reach[i] * (1 - t) + reach[(i + 1) % steps] * t;
}

function reachPath(reach: number[], mag: number): string {
	return `M${reach.map((r, i) => `${(Math.cos((i * 2 * Math.PI) / steps) * r * mag).toFixed(3)} ${(Math.sin((i * 2 * Math.PI) / steps) * r * mag).toFixed(3)}`).join("L")}Z`;
}

/** How many times true the play is drawn, so that it can be seen. */
function magnify(loose: number, box: { w: number; h: number }): number {
	const room = Math.min(box.w, box.h) * 0.2;
	return loose > 0 ? Math.max(1, Math.min(20, Math.floor(room / loose))) : 1;
}

function boxOf(d: string, pad: number) {
	let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
	for (const m of d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)) [x0, y0, x1, y1] = [Math.min(x0, +m[1]), Math.min(y0, +m[2]), Math.max(x1, +m[1]), Math.max(y1, +m[2])];
	return { x: x0 - pad, y: y0 - pad, w: x1 - x0 + 2 * pad, h: y1 - y0 + 2 * pad };
}
