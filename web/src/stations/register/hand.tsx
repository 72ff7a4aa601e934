import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import { api, ok, type S } from "../../api/client";
import { useLog, useRefresh, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { size } from "../../ui/sizes";
import { day, thin } from "../../ui/units";
import { compass, reachPath, turned } from "./play";
import { Spreads } from "./spreads";

/** What the log tells: where placements of this layer came out against its play, and how each way of placing repeats. */
export function Hand({ layer, play }: { layer: string; play: S["Play"] }) {
	const s = useSettings();
	const b = useBench();
	const refresh = useRefresh();
	const log = useLog();
	if (!log) return null;
	const take = async (batch: string) => {
		await ok(api.DELETE("/api/log/{batch}", { params: { path: { batch } } }));
		await refresh("log", "placing");
	};
	const known = log.hands.filter((h) => h.habit.n > 0);
	const here = log.placements.filter((p) => p.card === b.view.id && p.motif === b.motif?.id && p.layer === layer && p.source !== "practice");
	const batches = [...new Map(log.placements.map((p) => [p.batch, p])).values()].slice(0, 8);
	const mine = (batch: string) => log.placements.filter((p) => p.batch === batch);
	return (
		<Box display="flex" flexDirection="column" gap="6">
			<Box>
				<h2 style={{ fontSize: size.lead }}>Your hand</h2>
				{known.length === 0 && (
					<Box>
						Nothing is logged yet. Measure a print and keep it: from {log.fewest} placements of one way on, its spread is your own and no longer the program's
						guess.
					</Box>
				)}
				{known.map((h) => (
					<Box key={h.way} borderTop="1px solid {colors.line}" py="2">
						<b>{h.name}</b>, {h.habit.n} {h.habit.n === 1 ? "placement" : "placements"}: ±{thin(h.habit.spread.shift, s)}, ±{h.habit.spread.turn.toFixed(2)}°
						{h.own
							? ` (9 in 10 sure: ${thin(h.habit.low, s, false)} to ${thin(h.habit.high, s)}). Your own; our guess was ±${thin(h.defaults.shift, s)}.`
							: `. ${log.fewest - h.habit.n} more, and it is taken for your own; until then ±${thin(h.defaults.shift, s)}.`}
						{h.habit.leans && ` You lean ${thin(Math.hypot(h.habit.leanX, h.habit.leanY), s)} ${compass({ x: h.habit.leanX, y: h.habit.leanY })}.`}
					</Box>
				))}
				{log.practice.n > 0 && (
					<Box borderTop="1px solid {colors.line}" py="2">
						<b>In practice</b>, {log.practice.n} tries: ±{thin(log.practice.spread.shift, s)}, ±{log.practice.spread.turn.toFixed(2)}°.
						{log.practice.leans &&
							` You lean ${thin(Math.hypot(log.practice.leanX, log.practice.leanY), s)} ${compass({ x: log.practice.leanX, y: log.practice.leanY })}, ${turned(log.practice.leanTurn)}.`}
					</Box>
				)}
			</Box>
			{here.length > 0 && play.judged && (
				<Box>
					<h2 style={{ fontSize: size.lead }}>This layer, against its play</h2>
					<Scatter ps={here} play={play} />
				</Box>
			)}
			<Spreads hands={log.hands} />
			{batches.length > 0 && (
				<Box>
					<h2 style={{ fontSize: size.lead }}>Logged</h2>
					{batches.map((p) => {
						const ps = mine(p.batch);
						return (
							<Box key={p.batch} display="flex" gap="4" alignItems="center" borderTop="1px solid {colors.line}" py="2">
								<Box flex="1">
									{day(p.at)} {ps.length} {ps.length === 1 ? "placement" : "placements"},{" "}
									{p.source === "practice" ? "practice" : (log.hands.find((h) => h.way === p.way)?.name ?? p.way)}: {ps.filter((x) => x.good).length} inside the
									play
								</Box>
								<Button fontSize="small" px="4" minH="30px" onClick={() => take(p.batch)}>
									Take back
								</Button>
							</Box>
						);
					})}
				</Box>
			)}
		</Box>
	);
}

function Scatter({ ps, play }: { ps: S["Placement"][]; play: S["Play"] }) {
	const s = useSettings();
	const most = 1.15 * Math.max(0.3, play.loose, ...ps.map((p) => Math.max(Math.abs(p.x), Math.abs(p.y))));
	const px = most / 110;
	const inside = ps.filter((p) => p.good).length;
	return (
		<>
			<svg
				viewBox={`${-most} ${-most} ${2 * most} ${2 * most}`}
				width={190}
				height={190}
				role="img"
				aria-label={`${inside} of ${ps.length} placements inside the play`}
			>
				<path d={`M${-most} 0H${most}M0 ${-most}V${most}`} stroke={hue.line} strokeWidth={px} />
				<path d={reachPath(play.reach, 1)} fill={hue.wash} stroke={hue.ochre} strokeWidth={1.5 * px} />
				{ps.map((p) => (
					<circle key={p.id} cx={p.x} cy={p.y} r={4 * px} fill={p.good ? hue.lichen : hue.madder} fillOpacity={0.8} />
				))}
			</svg>
			<Box>
				{inside} of {ps.length} lay inside; the frame is {thin(2 * most, s)} across.
			</Box>
		</>
	);
}
