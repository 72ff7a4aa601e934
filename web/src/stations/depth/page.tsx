import { Box } from "@chakra-ui/react";
import { memo, useCallback, useDeferredValue, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { useStanding } from "../../api/queries";
import { Beside, useNotesAbout } from "../../parts/beside";
import { CardStrata } from "../../parts/card-strata";
import { Frame } from "../../parts/picture";
import { StationFrame } from "../../parts/station";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { Slider } from "../../ui/slider";
import { length, type Settings, thin, weight } from "../../ui/units";
import { BondForm } from "./bond";
import { CuttingContext, CuttingStore, useCutting } from "./cutting";
import { FrontWithCut, type Look, useCutSaid } from "./front";
import { SideView } from "./side";

const looks: Record<Look, string> = { picture: "The front", heights: "Heights as shades", back: "Pads, from the back", aslant: "Turned in the hand" };

/** Depth: what holds everything up, a cut across the front with the side view along it, the thickness against the slot. */
export default function Depth() {
	const b = useBench();
	const { view } = b;
	const d = view.plan.depth;
	const s = b.state.settings;
	const standing = useStanding(view.id, view.version);
	const [look, setLook] = useState<Look>("picture");
	const [cutting] = useState(() => new CuttingStore());
	const [of, setOf] = useState({ element: "", part: "" });
	const part = of.element === b.element ? of.part : "";
	const setPart = useCallback((to: string) => setOf({ element: b.element ?? "", part: to }), [b.element]);
	return (
		<CuttingContext value={cutting}>
			<StationFrame
				station="depth"
				table={
					<>
						<Frame
							title={`${thin(d.total, s)} thick`}
							sub={`At its highest: ${d.at || "the card itself"}. Weighs ${weight(d.weight, s)} without its envelope.`}
						>
							<Select label="Look at" bare value={look} onChange={(v) => setLook(v as Look)}>
								{(Object.keys(looks) as Look[]).map((l) => (
									<option key={l} value={l}>
										{looks[l]}
									</option>
								))}
							</Select>
						</Frame>
						<Box flex="1" minH={0} overflow="auto" tabIndex={0} display="flex" flexDirection="column">
							<Box display="flex" gap="9" py="4" px="9" alignItems="flex-start" bg={hue.bench} flex="none">
								{standing && <FrontWithCut standing={standing} look={look} w={look === "aslant" ? 420 : 300} h={268} part={part} />}
								<Box flex="1" minW={0} maxH="278px" overflowY="auto" tabIndex={0}>
									{look === "back" ? (
										<Box bg="sheet" py="3" px="6" fontSize="small">
											Seen from the back, left and right swapped. Amber holds what is in hand: drag a pad, or with it chosen move it with the arrow keys, turn
											it with T, cut it in two with X, take it off with Delete.
										</Box>
									) : look === "aslant" ? (
										<Box bg="sheet" py="3" px="6" fontSize="small">
											At its true heights, with its shadows. Drag it, or turn it with the arrow keys.
										</Box>
									) : (
										<CutForm />
									)}
									<NotesBeside />
									{standing && <About standing={standing} />}
									<Posted standing={standing} />
								</Box>
							</Box>
							{standing && (
								<Box bg="sheet" py="2" px="9" flex="none" borderBottom="1px solid {colors.line}">
									<BondForm key={`${b.element} ${part}`} standing={standing} part={part} setPart={setPart} />
								</Box>
							)}
							<Box bg="sheet" flex="1" py="3" px="9" minH="200px" display="flex" flexDirection="column">
								{standing && <SideView standing={standing} />}
							</Box>
						</Box>
					</>
				}
				strata={<Strata />}
			/>
		</CuttingContext>
	);
}

/** Where the cut lies, which way it goes, and how far the side view is taken apart. */
function CutForm() {
	// While the cut is dragged its sliders may come after the side view.
	return <CutSliders now={useDeferredValue(useCutting())} />;
}

const CutSliders = memo(function CutSliders({ now }: { now: ReturnType<typeof useCutting> }) {
	const b = useBench();
	const s = b.state.settings;
	const { w, h } = b.card.base;
	const { at, degrees, apart, set } = now;
	const said = useCutSaid(at, degrees);
	return (
		<Box display="grid" gridTemplateColumns="auto 1fr auto" rowGap="1" columnGap="20px" fontSize="small" alignItems="center">
			<span>Cut at</span>
			<Slider
				label={degrees === 90 ? "Place of the cut across" : "Height of the cut"}
				min={0}
				max={degrees === 90 ? w : h}
				step={0.5}
				v={degrees === 90 ? at.x : at.y}
				set={(v) => set({ at: degrees === 90 ? { ...at, x: v } : { ...at, y: v } })}
				say={(v) => `${length(v, s)} from the ${degrees === 90 ? "left" : "top"}`}
			/>
			<b>{said}</b>
			<span>Turned</span>
			<Slider label="Direction of the cut" min={0} max={175} step={5} v={degrees} set={(degrees) => set({ degrees })} say={(v) => `${v}°`} />
			<b>{degrees}°</b>
			<span>Apart</span>
			<Slider label="How far the side view is taken apart" min={0} max={6} step={0.25} v={apart} set={(apart) => set({ apart })} say={(v) => thin(v, s)} />
			<b>{apart === 0 ? "as it stands" : `${thin(apart, s)} each`}</b>
		</Box>
	);
});

/** Every thing with how high its top stands. */
const Strata = memo(function Strata() {
	const b = useBench();
	return <CardStrata what="top at" value={(id) => topOf(b.state.settings, b.view.plan, id)} />;
});

/** What is noted of this station, beside the picture. */
const NotesBeside = memo(function NotesBeside() {
	const notes = useNotesAbout("depth");
	return (
		notes.length > 0 && (
			<Box mt="4">
				<Beside notes={notes} />
			</Box>
		)
	);
});

/** What the thing in hand stands on, what stands on it, and what it must let pass. */
const About = memo(function About({ standing }: { standing: S["StandingCard"] }) {
	const b = useBench();
	const t = standing.things.find((x) => x.element === b.element);
	if (!t) return null;
	const list = (names: string[]) => names.join(", ");
	return (
		<Box bg="sheet" py="3" px="6" mt="4" fontSize="small" lineHeight={1.5}>
			Held: <b>{t.said}</b>
			{t.pads > 0 && `, ${t.pads} ${t.pads === 1 ? "pad" : "pads"}`}. Stands on {list(t.on)}.{t.bears.length > 0 && ` Bears ${list(t.bears)}.`}
			{t.passes.length > 0 && ` Must let pass: ${list(t.passes)}.`}
			{t.undo.length > 0 && ` To undo: ${t.undo.join("; ")}.`}
		</Box>
	);
});

function topOf(s: Settings, p: S["Plan"], id: string): string {
	const z =
		id === "back"
			? p.depth.base / 2
			: id === "base"
				? p.depth.base
				: (p.front.sheets.find((x) => x.id === id) ?? p.front.elements.find((x) => x.id === id))?.z1;
	return z === undefined ? "" : thin(z, s);
}

/** How it goes by post: a slot at true size, the thickness of the filled envelope laid against it. */
const Posted = memo(function Posted({ standing }: { standing?: S["StandingCard"] }) {
	const b = useBench();
	const s = b.state.settings;
	const { post: d, total } = b.view.plan.depth;
	const px = 96 / 25.4;
	const thick = d.envelope ? d.filled : total;
	const over = thick > d.limit;
	const high = Math.max(d.limit, thick) * px + 4;
	return (
		<Box bg="sheet" py="3" px="6" mt="3" fontSize="small" lineHeight={1.45} display="flex" gap="6" alignItems="flex-start">
			<svg
				width={120}
				height={high}
				style={{ flex: "none", marginTop: 4 }}
				role="img"
				aria-label={`${thin(thick, s)} in a slot of ${thin(d.limit, s)}, at true size on a screen of 96 dots to the inch`}
			>
				<rect y={2} width={120} height={d.limit * px} fill="#26282b" />
				<rect x={10} y={2 + Math.max(0, (d.limit - thick) * px)} width={100} height={thick * px} fill={over ? hue.madder : hue.fill} />
			</svg>
			<div>
				{d.envelope ? (
					<>
						<b>
							{thin(d.filled, s)} filled, {over ? "too thick for" : "goes through"}
						</b>{" "}
						a letter's slot of {thin(d.limit, s)}.{" "}
						{d.box
							? `${d.fits ? "It goes into its box" : "It does not go into its box"}, ${thin(Math.abs(d.room ?? 0), s)} ${(d.room ?? 0) < 0 ? "too high" : "left over it"}.`
							: `${d.fits ? "It slides into its envelope" : "It does not go into its envelope"}: wrapped round, it takes up ${length(d.needsW, s)} × ${length(d.needsH, s)} of the inside.`}{" "}
						As a US letter: <b>{d.class}</b>. The carrier's current rules go first.
						<div style={{ marginTop: 4 }}>
							<Popover label="By post" title="How carriers take it" aside>
								<ByPost standing={standing} />
							</Popover>
						</div>
					</>
				) : (
					<>
						<b>{thin(total, s)}, card alone.</b> Choose an envelope in Front to see whether it goes in, and how it goes by post.
					</>
				)}
			</div>
		</Box>
	);
});

/** How carriers take it, with the source of their figures, and what one level less would change. */
function ByPost({ standing }: { standing?: S["StandingCard"] }) {
	const b = useBench();
	const s = b.state.settings;
	const d = b.view.plan.depth;
	return (
		<div style={{ display: "grid", gap: 10, width: 330, maxHeight: "60vh", overflowY: "auto" }}>
			<div>
				{thin(d.post.filled, s)} thick and {weight(d.filled, s)} in its envelope.
			</div>
			{d.mailed.map((m) => (
				<div key={m.carrier}>
					{m.carrier}: <b>{m.class}</b>
					{m.not && `. ${m.not}`}
					<div style={{ color: hue.quiet }}>
						{m.source}, {m.date}. Check the carrier's current rules.
					</div>
				</div>
			))}
			{standing && standing.less.length > 0 && <b>One level less</b>}
			{standing?.less.map((l) => (
				<div key={l.element}>
					Beneath {l.name}: {thin(l.total, s)} thick{changed(d.mailed, l.mailed)}. <Button onClick={() => b.edit(l.edits)}>Take it so</Button>
				</div>
			))}
			<div style={{ color: hue.quiet }}>The figures are in carriers.json beside the data file: mend them there.</div>
		</div>
	);
}

/** Which classes change. */
function changed(was: S["Mailed"][], now: S["Mailed"][]): string {
	const other = now.filter((m, i) => m.class !== was[i]?.class).map((m) => `${m.carrier}: ${m.class}`);
	return other.length > 0 ? `, ${other.join(", ")}` : ", the same classes";
}
