import { Box } from "@chakra-ui/react";
import { Link } from "react-router";
import { stepKey, useBench } from "../../api/card";
import type { Act, S } from "../../api/client";
import { Button } from "../../ui/button";
import { day, hours } from "../../ui/units";

type Sitting = S["Sitting"];

/** On how many of the cards a step is done so far. */
export function OfCopies({ at, copies }: { at: Act; copies: number }) {
	const b = useBench();
	const n = b.view.run.counts.find((c) => stepKey(c.step) === stepKey(at.id))?.n ?? 0;
	return (
		<fieldset className="beside" aria-label="Cards it is done on" style={{ border: 0, padding: 0, margin: 0 }}>
			<Button size="big" onClick={() => b.count(at, n + 1)}>
				One more card
			</Button>
			<b>
				{n} of {copies}
			</b>
			{n > 0 && (
				<Button onClick={() => b.count(at, n - 1)} aria-label="One card less">
					−
				</Button>
			)}
		</fieldset>
	);
}

const times = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** How long the work takes, when it may be done, and what doing all cards together saves. */
export function HowLong({ sitting }: { sitting: Sitting }) {
	const b = useBench();
	const { steps, alone, pace } = sitting;
	const { run, least, slots } = sitting.time;
	if (steps.length === 0 || slots.length !== steps.length) return null;
	// From the end of the step before, so that its waits are counted too.
	const left = slots.reduce((n, s, i) => n + (b.done(steps[i]) ? 0 : s.to - (slots[i - 1]?.to ?? 0)), 0);
	const at = new Date(Date.now() + left * 60_000).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
	const over = run.wall > 0 && least > 0 ? Math.round(100 * (run.wall / least - 1)) : 0;
	return (
		<Box fontSize="small" color="quiet" mb="3" lineHeight={1.45}>
			{left > 0 && (
				<>
					About <b>{hours(left)}</b> left, done about {at}.{" "}
				</>
			)}
			{run.setups > 0 && `Stamps are set to a place ${times(run.setups, "time", "times")}; ${times(run.washes, "wash", "washes")}. `}
			{run.idle > 1 && `${hours(run.idle)} of it is waiting. `}
			{run.places > 1 && `Up to ${run.places} pieces lie drying at once. `}
			{run.copies > 1 && (
				<>
					Card by card it would be {hours(alone.wall)} and not {hours(run.wall)}, with {times(alone.setups, "setting", "settings")} and{" "}
					{times(alone.washes, "wash", "washes")}.{" "}
				</>
			)}
			{over > 5 && `No order is shorter than ${hours(least)}. `}
			{pace > 0 ? `By your own times, from ${pace} steps.` : "Usual times, not yet your own."}
		</Box>
	);
}

/** What is to be known of the run before the next step: that its card was changed, that a step is doubtful, what some of the cards have. */
export function Told({ sitting }: { sitting: Sitting }) {
	const b = useBench();
	const { changed, doubts, notes } = sitting;
	const n = changed.new.length + changed.gone.length + changed.otherwise.length;
	return (
		<>
			{n > 0 && (
				<section aria-label="What was changed since" className="told">
					<b>The card was changed since this run began; the run goes on as it was.</b> As it is now
					{changed.new.length > 0 && `, new: ${list(changed.new)}`}
					{changed.gone.length > 0 && `, gone: ${list(changed.gone)}`}
					{changed.otherwise.length > 0 && `, otherwise: ${list(changed.otherwise)}`}. <Button onClick={b.renew}>Go on with it as it is now</Button>
				</section>
			)}
			{doubts.length > 0 && (
				<section aria-label="Doubtful steps" className="told">
					<b>
						Step {doubts[0].step} is ticked and step {doubts[0].needs} is not
					</b>
					, though it comes before: {doubts[0].why}.{doubts.length > 1 && ` So it is with ${times(doubts.length - 1, "more", "more")}.`} Tick it, or look at
					what was done.{" "}
					<Button onClick={() => b.pick({ step: sitting.steps.find((s) => s.number === doubts[0].needs)?.key ?? "" })}>Look at step {doubts[0].needs}</Button>
				</section>
			)}
			{notes.length > 0 && (
				<section aria-label="What some of the cards have" className="told">
					{notes.slice(0, 3).map((x) => (
						<div key={x.name + x.finding.id}>
							<b>
								{x.name}: {x.finding.what}.
							</b>{" "}
							{x.finding.do}
						</div>
					))}
					{notes.length > 3 && `And ${notes.length - 3} more.`}
				</section>
			)}
			{sitting.stuck && (
				<section className="told">
					<b>{sitting.stuck}</b>
				</section>
			)}
		</>
	);
}

const list = (all: string[]) => (all.length > 3 ? `${all.slice(0, 3).join("; ")} and ${all.length - 3} more` : all.join("; "));

/** What was planned beside what was done, when all is. */
export function AllDone({ sitting }: { sitting: Sitting }) {
	const b = useBench();
	const { run } = b.view;
	const ink = (id?: string) => b.state.kit.inks.find((i) => i.id === id)?.name ?? "";
	const step = (s: S["Step"]) => sitting.steps.find((a) => stepKey(a.id) === stepKey(s));
	const before = sitting.past.filter((p) => p.ended);
	return (
		<>
			<table className="actual">
				<thead>
					<tr>
						<th />
						<th>Planned</th>
						<th>As it went</th>
					</tr>
				</thead>
				<tbody>
					<tr>
						<td>Time</td>
						<td>{hours(sitting.time.run.wall)}</td>
						<td>{sitting.minutes >= 1 ? hours(sitting.minutes) : "under a minute"}</td>
					</tr>
					<tr>
						<td>Steps</td>
						<td>{sitting.steps.length}</td>
						<td>{sitting.steps.filter(b.done).length - run.left.length} done</td>
					</tr>
					{run.used.map((u) => (
						<tr key={stepKey(u.step)}>
							<td>{step(u.step)?.title}</td>
							<td />
							<td>{ink(u.ink)}</td>
						</tr>
					))}
					{run.left.map((l) => (
						<tr key={stepKey(l)}>
							<td>{step(l)?.title}</td>
							<td>done</td>
							<td>left out</td>
						</tr>
					))}
				</tbody>
			</table>
			{before.length > 0 && <Before runs={before} />}
			<Box display="flex" gap="7" alignItems="center" flexWrap="wrap">
				<Button size="big" onClick={b.another}>
					Begin another run
				</Button>
				<Link to={`/card/${b.view.id}/log`}>Say how many came out, and keep a photograph</Link>
			</Box>
		</>
	);
}

/** Runs before this one. */
export function Before({ runs }: { runs: S["Past"][] }) {
	const long = (p: S["Past"]) => (Date.parse(p.last || p.begun) - Date.parse(p.first || p.begun)) / 60_000;
	return (
		<Box fontSize="small" color="quiet">
			{runs.slice(0, 3).map((p) => (
				<div key={p.id}>
					{day(p.begun)}: {p.done} steps done in {hours(long(p))}
					{p.other > 0 && `, ${p.other} with another ink`}
					{p.left > 0 && `, ${p.left} left out`}
				</div>
			))}
		</Box>
	);
}
