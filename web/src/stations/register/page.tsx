import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import { useSettings } from "../../api/queries";
import { boxOf } from "../../parts/apart";
import { Beside, useNotesAbout } from "../../parts/beside";
import { ImageStrata } from "../../parts/image-strata";
import { Frame } from "../../parts/picture";
import { MotifPicker, NoImage, StationFrame } from "../../parts/station";
import { Table } from "../../parts/table";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { typing } from "../../ui/keys";
import { type Live, useLive, useNewLive } from "../../ui/live";
import { Tabs } from "../../ui/tabs";
import { thin } from "../../ui/units";
import { Hand } from "./hand";
import { useHarm } from "./harm";
import { Lay, type Lie, lieOf, whole } from "./lay";
import { Limits } from "./limits";
import { Measure, type Measured, type Verdict } from "./measure";
import { MeasuredView } from "./measured";
import { Numbers } from "./numbers";
import { Place, usePlacing } from "./place";
import { astray, holds, inPlace, type Off, offWords } from "./play";
import { Pointing } from "./pointing";
import { Practice, type Try } from "./practice";
import { Sheets } from "./sheets";
import { Sized } from "./sized";
import { PatternView, Turns, usePattern } from "./turns";
import { allowance, harmWords, limitWords, playSub, words } from "./words";

type Side = "place" | "measure" | "hand" | "limits" | "sheets" | "turns";

/** Register: one layer over its host, magnified, with the play drawn round it. */
export default function Register() {
	const b = useBench();
	const { look, motif } = b;
	const i = Math.max(0, look?.layers.findIndex((l) => l.id === b.layer) ?? 0);
	const first = look?.layers.findIndex((l) => l.play.judged) ?? -1;
	const at = b.layer ? i : Math.max(0, first);
	const layer = look?.layers[at]?.id ?? "";
	const lies = useNewLive<Off>(inPlace);
	const setOff = lies.set;
	const [run, setRun] = useState(12);
	const [side, setSide] = useState<Side>("place");
	const [done, setDone] = useState<Measured>();
	const [tries, setTries] = useState<Try[]>([]);
	const [blind, setBlind] = useState(false);
	const [trueSize, setTrueSize] = useState(false);
	const [printAt, setPrintAt] = useState(0);
	const [over, setOver] = useState(false);
	const [pointing, setPointing] = useState<{ picture: Blob; dpi: number }>();
	const pattern = usePattern();
	const notes = useNotesAbout("register");
	const next = useRef<Off>(undefined);
	// biome-ignore lint/correctness/useExhaustiveDependencies: another layer begins in its place, or where a proof has it
	useEffect(() => {
		setOff(next.current ?? inPlace);
		next.current = undefined;
		setBlind(false);
		setTries((t) => (t.length > 0 ? [] : t));
		setPointing(undefined);
	}, [b.layer, motif?.id]);
	useNudges(lies);
	const placing = usePlacing(layer, run);
	const lie = lieOf(b, at, placing);
	if (!look || !motif || !lie) return <StationFrame station="register" table={<NoImage />} strata={<ImageStrata what="play" value={() => ""} />} />;

	const measured = (p?: Measured) => {
		setDone(p);
		setPrintAt(0);
		setOver(!!p);
	};
	/** Lays a measured layer where the proof has it. */
	const show = (v: Verdict) => {
		const lies = { x: v.x, y: v.y, t: v.turn };
		setOver(false);
		if (layer === v.layer) setOff(lies);
		else {
			next.current = lies;
			b.pick({ layer: v.layer });
		}
	};
	const value = (k: number) => {
		const p = placing?.layers[k] ?? look.layers[k].play;
		if (!p?.judged) return "free";
		return p.outside > 0 ? "over" : `${thin(p.tight, s)}`;
	};
	const { l, p, told, round, tight } = lie;
	const s = b.state.settings;
	const turning = side === "turns" && !blind && pattern.p && pattern.plan ? { p: pattern.p, plan: pattern.plan } : undefined;
	const overlay = side === "measure" && over && !pointing && !blind ? done : undefined;
	const elsewhere = !!pointing || !!turning || !!overlay;
	const printed = motif.layers.filter((x) => x.make !== "cut").length > 1;
	return (
		<StationFrame
			station="register"
			table={
				<>
					<Frame
						{...(overlay
							? {
									title: `Print ${printAt + 1}, measured`,
									sub: "Every layer's edge where it lies, over the design. The strokes from the middles are the shifts, ten times true.",
								}
							: turning
								? { title: turning.p.name, sub: `${turning.p.turns} strikes; the grey rim outside the dashed line is trimmed off.` }
								: { title: round ? `The die of ${l.label} round its print` : `${l.label} on ${lie.on}`, sub: words(s, p, lie.on) })}
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
								<Back lies={lies} blind={blind} />
							</>
						}
					/>
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
					{turning && (
						<Table
							box={{ x: -turning.p.side / 2 - 8, y: -turning.p.side / 2 - 8, w: turning.p.side + 16, h: turning.p.side + 16 }}
							settings={s}
							label="The pattern on its panel"
							origin={{ x: -turning.p.side / 2, y: -turning.p.side / 2 }}
						>
							{(scale) => <PatternView {...turning} scale={scale} />}
						</Table>
					)}
					{overlay && (
						<Table
							box={{ x: look.minX - 4, y: look.minY - 4, w: look.w + 8, h: look.h + 8 }}
							settings={s}
							label="The measured print over the design"
							origin={{ x: look.minX, y: look.minY }}
						>
							{(scale) => <MeasuredView done={overlay} at={printAt} scale={scale} />}
						</Table>
					)}
					<Sized box={tight} on={blind && trueSize} hide={elsewhere}>
						{(box) => (
							<Table
								box={box}
								settings={s}
								label="The layer over its host"
								origin={lie.origin}
								beside={blind ? undefined : { box: boxOf(l.outline, 0), node: <Beside notes={notes} /> }}
							>
								{(scale) => <Lay lie={lie} lies={lies} blind={blind} scale={scale} />}
							</Table>
						)}
					</Sized>
					<Box py="4" px="9" bg="sheet" borderTop="1px solid {colors.line}" fontSize="small" minH="62px" hidden={elsewhere}>
						{blind ? (
							<Practice
								layer={l.id}
								play={p}
								lies={lies}
								tries={tries}
								practised={told?.practised}
								trueSize={trueSize}
								onTrueSize={setTrueSize}
								onTry={(t) => {
									setTries([...tries, t]);
									setOff(astray(p));
								}}
							/>
						) : (
							<Said lie={lie} lies={lies} layer={layer} />
						)}
					</Box>
				</>
			}
			side={
				<Tabs<Side>
					label="What to do here"
					value={side}
					onChange={setSide}
					tabs={[
						{ id: "place", title: "Place", body: <Place p={told} run={run} onRun={setRun} /> },
						{
							id: "measure",
							title: "Measure",
							keep: true,
							body: printed ? (
								<Measure
									key={`${motif.id} ${b.colourway?.id}`}
									done={done}
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
							),
						},
						{ id: "hand", title: "Hand", body: <Hand layer={l.id} play={p} /> },
						{ id: "limits", title: "Limits", body: <Limits key={l.id} layer={l.id} now={told?.limits} /> },
						{ id: "sheets", title: "Sheets", body: <Sheets key={motif.id} w={look.w} /> },
						{ id: "turns", title: "Turns", body: <Turns {...pattern} /> },
					]}
				/>
			}
			strata={<ImageStrata what="play" value={value} sub={(k) => playSub(s, look.layers[k], placing?.layers[k])} />}
		/>
	);
}

/** Lays the layer back in its place. */
function Back({ lies, blind }: { lies: Live<Off>; blind: boolean }) {
	const there = useLive(lies, (o) => o.x === 0 && o.y === 0 && o.t === 0);
	return (
		<Button onClick={() => lies.set(inPlace)} disabled={there || blind}>
			Back in place
		</Button>
	);
}

/** The arrow keys move the layer by a tenth of a millimetre, the brackets turn it by a fifth of a degree. */
function useNudges(lies: Live<Off>) {
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || e.altKey || (e.target as HTMLElement).closest?.(".stratum, [role=tablist], [role=slider], [role=menu], [role=dialog]")) return;
			const by = { ArrowLeft: [-0.1, 0, 0], ArrowRight: [0.1, 0, 0], ArrowUp: [0, -0.1, 0], ArrowDown: [0, 0.1, 0], "[": [0, 0, -0.2], "]": [0, 0, 0.2] }[
				e.key
			];
			if (by) {
				e.preventDefault();
				const o = lies.get();
				lies.set({ x: o.x + by[0], y: o.y + by[1], t: Math.max(-180, Math.min(180, o.t + by[2])) });
			}
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	}, [lies]);
}

/** What the picture means, and whether the layer shows where it lies now. */
function Said({ lie, lies, layer }: { lie: Lie; lies: Live<Off>; layer: string }) {
	const s = useSettings();
	const { p, told, round, own, mag } = lie;
	const off = useLive(lies, whole);
	const inside = holds(p, off);
	const harm = harmWords(s, useHarm(layer, off, false), round);
	if (!p.judged) return <>Its fit is free: it may lie anywhere that looks well. Set the fit in Pieces to have its play worked out.</>;
	const moved = off.x !== 0 || off.y !== 0 || off.t !== 0;
	return (
		<Box display="flex" gap="7">
			<Box flex="1">
				The shape in the middle is the play, drawn {mag.toFixed(0)} times true: as long as the dot is inside, nothing shows.{" "}
				{limitWords(s, p, told, round, own)}
				<br />
				<b style={{ color: inside ? hue.text : hue.madder }}>
					{moved
						? `Off by ${offWords(s, off) || "less than can be seen"}: ${inside ? "it does not show" : "it shows"} (${allowance(s, p, off)}).${harm}`
						: "In its place. Drag it, or use the arrow keys and [ ] to turn it, to see how far it may drift."}
				</b>
			</Box>
			<Numbers off={off} onChange={lies.set} />
		</Box>
	);
}
