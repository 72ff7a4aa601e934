import { memo, useId, useLayoutEffect, useMemo, useState } from "react";
import { useBench } from "../../api/card";
import type { Act, S } from "../../api/client";
import { useStanding } from "../../api/queries";
import { bare, hue } from "../../ui/colours";
import { corners } from "../../ui/outline";
import { length } from "../../ui/units";

type Piece = S["StandingPiece"];

/** How far a piece is at a step. */
type State = "to come" | "begun" | "in place" | "lit";

/** How strongly a piece is drawn. */
const strength: Record<State, number> = { "to come": 0.1, begun: 0.45, "in place": 1, lit: 1 };

/** What is lit at a step, and how far each piece is, of the steps in the order in which they are done here. */
export function states(pieces: number, pictures: S["SceneStep"][], before: string[], at: string): State[] {
	const of = new Map(pictures.map((p) => [p.key, p]));
	const out: State[] = Array.from({ length: pieces }, () => "to come");
	for (const key of before) {
		const p = of.get(key);
		for (const i of p?.lit ?? []) if (p?.puts) out[i] = "in place";
		for (const i of p?.lit ?? []) if (out[i] === "to come") out[i] = "begun";
	}
	for (const i of of.get(at)?.lit ?? []) out[i] = "lit";
	return out;
}

/** The pieces in the order they are drawn: what is lit over what is to come above it, and beneath what
 * lies above it already. */
export function drawn(now: State[]): number[] {
	const first = now.indexOf("lit");
	const over = (i: number) => now[i] === "lit" || (now[i] === "in place" && first >= 0 && i > first);
	const all = now.map((_, i) => i);
	return [...all.filter((i) => !over(i)), ...all.filter(over)];
}

/** What of the card is looked at in a frame so much wider than high: all of it, or what is lit with some of
 * what is round it, as much as the frame has room for. */
export function view(w: number, h: number, frame: number, lit: { path: string }[]): [number, number, number, number] {
	const points = lit.flatMap((p) => corners(p.path).flat());
	if (points.length === 0) return [0, 0, w, h];
	const xs = points.map((p) => p.x);
	const ys = points.map((p) => p.y);
	const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const [needsW, needsH] = [Math.max(0.4 * w, 1.6 * (x1 - x0)), Math.max(0.4 * h, 1.6 * (y1 - y0))];
	const wide = Math.min(w, Math.max(needsW, needsH * frame));
	const high = Math.min(h, Math.max(needsH, needsW / frame));
	const at = (lo: number, hi: number, room: number, whole: number) => Math.min(Math.max((lo + hi) / 2 - room / 2, 0), whole - room);
	return [at(x0, x1, wide, w), at(y0, y1, high, h), wide, high];
}

/** How much wider than high a thing on the page is. */
function useFrame(fixed: boolean): [(el: Element | null) => void, number] {
	const [frame, setFrame] = useState(1);
	const [el, setEl] = useState<Element | null>(null);
	useLayoutEffect(() => {
		if (!el || fixed) return;
		const look = () => el.clientHeight > 0 && setFrame(Math.round((10 * el.clientWidth) / el.clientHeight) / 10);
		look();
		const watch = new ResizeObserver(look);
		watch.observe(el);
		return () => watch.disconnect();
	}, [el, fixed]);
	return [setEl, frame];
}

const One = memo(function One({ p, strength, begun = Infinity }: { p: Piece; strength: number /** How many of its treatments are begun. */; begun?: number }) {
	return (
		<g opacity={strength}>
			<path d={p.path} fillRule="evenodd" fill={p.top || p.body} stroke={hue.outline} strokeWidth={0.25} />
			{p.films.map((f, i) => ((f.of ?? 0) >= begun ? null : <path key={i} d={f.path} fillRule="evenodd" fill={f.fill} />))}
		</g>
	);
});

/** How far what is put down lies from an edge, along the line on which that is measured. */
function Way({ m, px }: { m: S["SceneGauge"]; px: number }) {
	const s = useBench().state.settings;
	const across = Math.abs(m.x1 - m.x2) > Math.abs(m.y1 - m.y2);
	const end = (x: number, y: number) => (across ? `M${x} ${y - 4 * px} V${y + 4 * px}` : `M${x - 4 * px} ${y} H${x + 4 * px}`);
	return (
		<g className="way">
			<path d={`M${m.x1} ${m.y1} L${m.x2} ${m.y2} ${end(m.x1, m.y1)} ${end(m.x2, m.y2)}`} fill="none" stroke={hue.text} strokeWidth={1.4 * px} />
			<text
				x={(m.x1 + m.x2) / 2 + (across ? 0 : 5 * px)}
				y={(m.y1 + m.y2) / 2 + (across ? -6 * px : 7 * px)}
				textAnchor={across ? "middle" : "start"}
				fontSize={20 * px}
				fontWeight={700}
				fill={hue.text}
				stroke={hue.sheet}
				strokeWidth={5 * px}
				paintOrder="stroke"
			>
				{length(m.mm, s)}
			</text>
		</g>
	);
}

/** The card as it is at a step: what lies in its place whole, what was worked on half there, what is to
 * come pale, and what the step is about lit; small for the steps that come next. */
export function Picture({ at, steps, small }: { at: Act; steps: Act[]; small?: boolean }) {
	const b = useBench();
	const clip = useId();
	const [framed, frame] = useFrame(small ?? false);
	const standing = useStanding(b.view.id, b.view.version);
	const base = b.card.base;
	const paper = b.state.kit.papers.find((p) => p.id === base.paper)?.colour ?? bare;
	const before = useMemo(() => steps.slice(0, Math.max(0, steps.indexOf(at))).map((s) => s.key), [steps, at]);
	const now = useMemo(() => (standing ? states(standing.pieces.length, standing.steps, before, at.key) : []), [standing, before, at.key]);
	const step = useMemo(() => standing?.steps.find((s) => s.key === at.key), [standing, at.key]);
	if (!standing || at.id.card || !step) return null;
	const lit = step.lit.map((i) => standing.pieces[i]);
	// Ink that goes on only here and there is lit by itself.
	const mark = step.mark;
	const from = (!small && step.from) || [];
	const ways = from.map((m) => ({ path: `M${m.x1} ${m.y1} L${m.x2} ${m.y2}` }));
	const [x, y, w, h] = view(base.w, base.h, frame, mark ? [{ path: mark }] : [...lit, ...ways]);
	const px = Math.max(w, h) / 300;
	const made = now.filter((s) => s === "in place").length;
	return (
		<svg
			ref={framed}
			data-picture={at.key}
			viewBox={`${x - 2 * px} ${y - 2 * px} ${w + 4 * px} ${h + 4 * px}`}
			style={small ? { flex: "0 0 auto", width: 60, height: 60 } : { flex: "1 0 230px", minHeight: 230, maxHeight: "44vh", width: "100%" }}
			role="img"
			aria-label={`The card at step ${at.number}: ${made} of ${standing.pieces.length} parts in place, ${lit.length || "none"} in hand`}
		>
			<rect width={base.w} height={base.h} fill={paper} stroke={hue.rule} strokeWidth={px} />
			{drawn(now).map((i) => (
				<One key={i} p={standing.pieces[i]} strength={strength[now[i]]} begun={step.bare?.find((u) => u.piece === i)?.begun} />
			))}
			{mark && (
				<>
					<clipPath id={clip}>
						<path d={mark} clipRule="evenodd" />
					</clipPath>
					<rect width={base.w} height={base.h} fill={hue.veil} />
					<g clipPath={`url(#${clip})`}>
						{step.lit.map((i) => (
							<One key={i} p={standing.pieces[i]} strength={1} begun={step.bare?.find((u) => u.piece === i)?.begun} />
						))}
					</g>
					<path d={mark} fill="none" stroke={hue.ochre} strokeWidth={1.6 * px} strokeLinejoin="round" />
				</>
			)}
			{!mark && lit.map((p, i) => <path key={i} d={p.path} fill="none" stroke={hue.ochre} strokeWidth={2.4 * px} strokeLinejoin="round" />)}
			{from.map((m, i) => (
				<Way key={i} m={m} px={px} />
			))}
			{lit.length === 0 && <rect width={base.w} height={base.h} fill="none" stroke={hue.ochre} strokeWidth={2.4 * px} />}
		</svg>
	);
}
