import { Box } from "@chakra-ui/react";
import { stepKey, useBench } from "../../api/card";
import type { Act, S } from "../../api/client";
import { Button } from "../../ui/button";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { Making } from "./making";
import { Picture } from "./picture";
import { OfCopies } from "./run";
import { Standing } from "./standing";
import { WaitButton } from "./waits";

interface NowProps {
	at: Act;
	/** All of them, in their order. */
	steps: Act[];
	slot?: S["Slot"];
	/** The next two that are not done. */
	after: Act[];
	onTick: (a: Act, on: boolean) => void;
}

const colours = { slate: "{colors.slate}", ochre: "{colors.ochre}", madder: "{colors.madder}" };

/** A sentence that is not to be overlooked, with a word before it. */
function Mind({ what, colour, children }: { what: string; colour: keyof typeof colours; children: React.ReactNode }) {
	return (
		<Box fontSize="sub" borderLeft={`6px solid ${colours[colour]}`} pl="6">
			<b>{what}.</b> {children}
		</Box>
	);
}

/** Numbers in their order, those that follow each other as from and to: 3, 5 to 8. */
function runs(numbers: number[]) {
	const out: number[][] = [];
	for (const n of numbers) {
		const last = out.at(-1);
		if (last && n === (last[1] as number) + 1) last[1] = n;
		else out.push([n, n]);
	}
	return out.map(([a, b]) => (a === b ? `${a}` : `${a} to ${b}`)).join(", ");
}

/** The step at hand, readable from a metre and a half, with what can be done about it. */
export function Now({ at, steps, slot, after, onTick }: NowProps) {
	const b = useBench();
	const cards = at.cards || b.card.copies || 1;
	const done = b.done(at);
	const left = b.view.run.left.some((st) => stepKey(st) === stepKey(at.id));
	return (
		<>
			<Box color="quiet" fontSize="sub">
				Step {at.number} of {steps.length}, {at.kind}
				{at.for && (
					<>
						, on {cards} {cards === 1 ? "card" : "cards"}: <b>{at.for}</b>
					</>
				)}
			</Box>
			<Picture at={at} steps={steps} />
			<Making at={at} steps={steps} />
			<h1 style={{ fontSize: size.act, lineHeight: 1.12 }}>{at.title}</h1>
			<Box fontSize="step" lineHeight={1.35}>
				{at.detail} {at.alike}
			</Box>
			{slot && slot.dry.length > 0 && (
				<Box fontSize="sub" color="quiet">
					Not dry yet on it: {slot.dry.length === 1 ? "step" : "steps"} {runs(slot.dry)}. Handle it by the edges.
				</Box>
			)}
			{left && (
				<Mind what="Left out" colour="madder">
					It stands so beside what was planned; <i>Not done after all</i> takes that back.
				</Mind>
			)}
			{slot?.wash && (
				<Mind what="First" colour="slate">
					Wash the stamp: the ink on it would show in this one.
				</Mind>
			)}
			{!!slot?.batch && (
				<Mind what={`${slot.batch} at a time`} colour="slate">
					There is no room for more to dry: lay them down, and go on when the first are dry.
				</Mind>
			)}
			{at.mind.map((m) => (
				<Mind key={m} what="Mind" colour="slate">
					{m}
				</Mind>
			))}
			{at.keep && (
				<Mind what="Keep" colour="slate">
					{at.keep}
				</Mind>
			)}
			{at.final && (
				<Mind what="No way back" colour="ochre">
					{at.final}
				</Mind>
			)}
			{at.cautions.map((c) => (
				<Mind key={c} what="Care" colour="madder">
					{c}
				</Mind>
			))}
			<Box display="flex" gap="7" flexWrap="wrap" alignItems="center">
				<Button variant="main" size="big" onClick={() => onTick(at, !done)}>
					{done ? "Not done after all" : cards > 1 ? `Done on all ${cards}` : "Done"}
				</Button>
				{cards > 1 && !done && <OfCopies at={at} copies={cards} />}
				{!done && (
					<Button
						onClick={() => {
							b.pick({ step: "" });
							b.leave(at);
						}}
					>
						Leave it out
					</Button>
				)}
				{at.minutes > 0 && <WaitButton at={at} />}
				{at.ink && <Otherwise at={at} />}
			</Box>
			<Standing at={at} />
			<Box color="quiet" fontSize="sub" display="flex" flexWrap="wrap" gap="7">
				{after.map((s) => (
					<Box key={s.key} display="flex" gap="4" alignItems="center" flex="1 1 220px">
						<Picture at={s} steps={steps} small />
						<span>
							Then {s.number}: {s.title}
							{s.for && `, ${s.for}`}
						</span>
					</Box>
				))}
			</Box>
		</>
	);
}

/** The ink that was really used; the rest may be planned with it. */
function Otherwise({ at }: { at: Act }) {
	const b = useBench();
	const used = b.view.run.used.find((u) => stepKey(u.step) === stepKey(at.id))?.ink;
	const { motif = "", colourway = "", part = "" } = at.id;
	return (
		<span className="beside" style={{ fontSize: size.sub }}>
			used
			<Select label="Ink really used" bare value={used ?? ""} onChange={(v) => b.use(at.id, v)}>
				<option value="">as planned</option>
				{b.state.kit.inks
					.filter((i) => i.id === used || i.id !== at.ink)
					.map((i) => (
						<option key={i.id} value={i.id}>
							{i.name}
						</option>
					))}
			</Select>
			{used && motif && colourway && part && !at.id.card && (
				<Button
					onClick={async () => {
						const now = b.card.motifs.find((m) => m.id === motif)?.colourways.find((w) => w.id === colourway)?.layers[part];
						if (!now) return;
						await b.edit({ finish: { motif, colourway, layers: { [part]: { ...now, ink: used } } } });
						b.renew();
					}}
				>
					Plan the rest with it
				</Button>
			)}
		</span>
	);
}
