import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { usePlacingOf, useSettings } from "../../api/queries";
import { hue } from "../../ui/colours";
import { NumberField } from "../../ui/number";
import { size } from "../../ui/sizes";
import { thin } from "../../ui/units";

/** How to place a layer: asked of the program whenever the card or the run changes. */
export function usePlacing(layer: string, run: number) {
	const b = useBench();
	return usePlacingOf({ id: b.view.id, version: b.view.version, motif: b.motif?.id ?? "", colourway: b.colourway?.id ?? "" }, layer, run);
}

const share = (v: number) => `${Math.round(100 * v)} of 100`;

/** Where to look, and which way of placing does it. */
export function Place({ p, run, onRun }: { p?: S["Placing"]; run: number; onRun: (n: number) => void }) {
	const s = useSettings();
	if (!p) return null;
	const pick = p.ways[p.pick];
	const turn = (v: { clock: number; anti: number }) => `${Math.min(v.clock, v.anti).toFixed(1)}°`;
	return (
		<Box display="flex" flexDirection="column" gap="6">
			<Box>
				<h2 style={{ fontSize: size.lead }}>Where to look</h2>
				<Box>
					{p.each && "For each of its pieces: "}
					{p.sighting.say}
				</Box>
				{p.sighting.points.length > 1 && (
					<Box>
						Sighted so it comes within ±{thin(p.sighting.shift, s)} and ±{p.sighting.turn.toFixed(1)}° (estimated).
						{p.sighting.eye > 0 && ` For 95 of 100 to come out the eye must be good to ${thin(p.sighting.eye, s)} at each point.`}
					</Box>
				)}
				{p.chain.map((c) => (
					<Box key={c.layer}>
						Against {c.label}: {thin(c.tight, s)}, {thin(c.left, s)} when all between have drifted.
					</Box>
				))}
				{p.left.length > 0 && p.left[0].clock < 90 && <Box>Turn left: {p.left.map((l) => `${turn(l)} at ${thin(l.shift, s)} off`).join(", ")}.</Box>}
				{p.pivots.length > 0 && <Box>It may turn {p.pivots.map((v) => `${turn(v)} about ${v.name}`).join(", ")}.</Box>}
			</Box>
			<Box>
				<Box display="flex" gap="5" alignItems="center">
					<h2 style={{ fontSize: size.lead, flex: 1 }}>Which way to place it</h2>
					<span className="beside">
						for a run of
						<NumberField bare label="Wanted in the run" v={run} set={onRun} min={1} max={200} width="58px" />
					</span>
				</Box>
				{p.ways.length > 0 && (
					<table style={{ fontSize: size.small }}>
						<thead>
							<tr>
								<th>Way</th>
								<th>spread</th>
								<th>of 100</th>
								<th>blanks</th>
							</tr>
						</thead>
						<tbody>
							{[...p.ways, ...(p.practised ? [p.practised] : [])].map((w, i) => (
								<tr key={w.id} style={{ background: i === p.pick ? hue.wash : undefined }} title={w.prepare}>
									<td>{w.name}</td>
									<td style={{ whiteSpace: "nowrap" }}>
										±{thin(+w.spread.shift, s)}, ±{+w.spread.turn.toFixed(2)}° {w.own ? "own" : "est."}
									</td>
									<td>{Math.round(100 * w.chance)}</td>
									<td>{w.blanks || "over 1000"}</td>
								</tr>
							))}
						</tbody>
					</table>
				)}
				<Box>{p.why}</Box>
				{p.plain && <Plainly p={p.plain} />}
				{pick && (
					<Box color="quiet">
						{pick.prepare} The whole image comes out in {share(p.stack)}: begin {p.spare || "more than 1000"} for {run} at 95 %.
					</Box>
				)}
			</Box>
			{p.printing.strikes.length > 1 && (
				<Box>
					<h2 style={{ fontSize: size.lead }}>In which order to print</h2>
					<ol style={{ margin: "2px 0", paddingLeft: 20 }}>
						{p.printing.strikes.map((s) => (
							<li key={s.label}>
								{s.label}: {s.prints} strikes, {s.inks.join(", then ")}
								{s.washed && " (wash between those two alike in lightness)"}
							</li>
						))}
					</ol>
					<Box>{p.printing.say}</Box>
				</Box>
			)}
		</Box>
	);
}

/** How it would do with nothing forgiven: by every way, and with how many blanks. */
function Plainly({ p }: { p: S["Plain"] }) {
	const s = useSettings();
	const ways = p.ways.map((w) => `${w.name} ${Math.round(100 * w.chance)} of 100, ${w.blanks || "over 1000"} blanks`).join("; ");
	return (
		<Box>
			{p.rim ? `That some rim is left all round (${thin(p.tight, s)} of it): ` : `With nothing forgiven its play is ${thin(p.tight, s)}: `}
			{ways}.
		</Box>
	);
}

/** The sighting points, numbered on the picture. */
export function Sights({ p, scale }: { p?: S["Placing"]; scale: number }) {
	return (
		<g pointerEvents="none">
			{p?.sighting.points.map((f, i) => (
				<g key={`${f.x} ${f.y}`} transform={`translate(${f.x} ${f.y})`}>
					<path d={`M0 0h${16 / scale}`} stroke={hue.text} strokeWidth={1.2 / scale} />
					<circle r={3 / scale} fill="none" stroke={hue.text} strokeWidth={1.6 / scale} />
					<circle cx={24 / scale} r={9 / scale} fill={hue.sheet} stroke={hue.text} strokeWidth={1.2 / scale} />
					<text x={24 / scale} y={4.5 / scale} fontSize={12 / scale} fontWeight={700} textAnchor="middle" fill={hue.text}>
						{i + 1}
					</text>
				</g>
			))}
		</g>
	);
}
