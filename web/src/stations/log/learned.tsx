import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { useLearned, useSettings } from "../../api/queries";
import { hue } from "../../ui/colours";
import { size } from "../../ui/sizes";
import { caliper, day, thin } from "../../ui/units";
import { type Mark, scale } from "./scale";

/** What hand and drawer have learned, drawn over time. */
export function LearnedOverTime() {
	const s = useSettings();
	const l = useLearned();
	const k = caliper(s);
	if (!l) return <Box color="quiet">Reading the log…</Box>;
	return (
		<Box display="flex" flexDirection="column" gap="9">
			<Over
				title="How exactly layers are placed"
				none="Measure a print at Register and keep what was measured: each stands here."
				unit={(v) => thin(v * k, s)}
				marks={l.hand.map((h) => ({ at: Date.parse(h.at), v: h.off / k, low: h.low / k, high: h.high / k, say: `${h.way}, ${h.card}: ${h.n} placements` }))}
			>
				Spread of a layer about its place, each time it was measured; the line is 9 in 10 sure. Lower is better.
			</Over>
			<Over
				title="How long steps take"
				none="Tick steps at Work as you do them: each run stands here."
				unit={(v) => `${v.toFixed(2)} ×`}
				marks={l.pace.map((p) => ({ at: Date.parse(p.at), v: p.factor, say: `${p.card}: ${p.n} steps` }))}
				usual={1}
			>
				Each run against usual times: 1 × is as usual, 2 × took twice as long. Lower is quicker.
			</Over>
			<Over
				title="How well the drawer is known"
				none="Read a swatch sheet among the inks: each day on which one was kept stands here."
				unit={(v) => `${v.toFixed(1)} ΔE₀₀`}
				marks={l.drawer.filter((d) => d.error > 0).map((d) => ({ at: Date.parse(d.on), v: d.error, say: `${d.inks} inks measured` }))}
			>
				How far foretold colours are from measured ones, on the mean, each swatch foretold from the others of its ink. Lower is better; below 2 few people see
				it.
				{l.drawer.length > 0 && ` ${l.drawer[l.drawer.length - 1].inks} inks are measured now.`}
			</Over>
		</Box>
	);
}

const wide = 640;
const high = 150;
const left = 76;

/** Values over time, each said in words too. */
function Over(p: { title: string; none: string; unit: (v: number) => string; marks: Mark[]; usual?: number; children: ReactNode }) {
	const { title, none, unit, marks, usual, children } = p;
	const sc = scale(marks, usual);
	const x = (m: Mark) => left + sc.across(m.at) * (wide - left - 20);
	const y = (v: number) => 12 + (1 - v / sc.top) * (high - 40);
	return (
		<section aria-label={title}>
			<h2 style={{ fontSize: size.sub }}>{title}</h2>
			<Box fontSize="small" color="quiet" mb="3" maxW="80ch">
				{marks.length > 0 ? children : none}
			</Box>
			{marks.length > 0 && (
				<svg viewBox={`0 0 ${wide} ${high}`} width="100%" style={{ maxWidth: wide }} role="img" aria-label={`${title}: ${spoken(marks, unit)}`}>
					{[0, sc.top / 2, sc.top].map((v) => (
						<g key={v}>
							<line x1={left} x2={wide - 10} y1={y(v)} y2={y(v)} stroke={hue.line} />
							<text x={left - 8} y={y(v) + 4} fontSize="12" textAnchor="end" fill={hue.quiet}>
								{unit(v)}
							</text>
						</g>
					))}
					{usual !== undefined && <line x1={left} x2={wide - 10} y1={y(usual)} y2={y(usual)} stroke={hue.rule} strokeDasharray="4 4" />}
					<polyline points={marks.map((m) => `${x(m)},${y(m.v)}`).join(" ")} fill="none" stroke={hue.slate} strokeWidth="1.2" />
					{marks.map((m, i) => (
						<g key={`${m.at} ${i}`}>
							<title>{`${day(new Date(m.at).toISOString())}: ${unit(m.v)}. ${m.say}`}</title>
							{m.high !== undefined && m.low !== undefined && (
								<line x1={x(m)} x2={x(m)} y1={y(Math.min(m.high, sc.top))} y2={y(m.low)} stroke={hue.slate} strokeWidth="2" />
							)}
							<rect x={x(m) - 5} y={y(m.v) - 5} width="10" height="10" fill={hue.fill} stroke={hue.ochre} />
						</g>
					))}
					<text x={x(marks[0])} y={high - 6} fontSize="12" textAnchor="start" fill={hue.quiet}>
						{day(new Date(marks[0].at).toISOString())}
					</text>
					{sc.spans && (
						<text x={x(marks[marks.length - 1])} y={high - 6} fontSize="12" textAnchor="end" fill={hue.quiet}>
							{day(new Date(marks[marks.length - 1].at).toISOString())}
						</text>
					)}
				</svg>
			)}
		</section>
	);
}

/** The first and the last, for who does not see the drawing. */
const spoken = (marks: Mark[], unit: (v: number) => string) => {
	const one = (m: Mark) => `${unit(m.v)} on ${day(new Date(m.at).toISOString())}`;
	return marks.length === 1 ? one(marks[0]) : `${marks.length} times, from ${one(marks[0])} to ${one(marks[marks.length - 1])}`;
};
