import { Box } from "@chakra-ui/react";
import { stepKey, useBench } from "../../api/card";
import type { Act } from "../../api/client";
import { Button } from "../../ui/button";
import { hours } from "../../ui/units";

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

/** How long the work takes, when it may be done, and what doing all cards together saves. */
export function HowLong({ steps }: { steps: Act[] }) {
	const b = useBench();
	const { one, run, least, slots } = b.view.plan.time;
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
			{run.setups > 0 && `${run.setups} ${run.setups === 1 ? "stamp" : "stamps"} set in place, ${run.washes} ${run.washes === 1 ? "wash" : "washes"}. `}
			{run.idle > 1 && `${hours(run.idle)} of it is waiting. `}
			{run.copies > 1 && (
				<>
					Card by card it would be {hours(one.wall * run.copies)}, {one.setups * run.copies} settings, {one.washes * run.copies} washes.{" "}
				</>
			)}
			{over > 5 && `No order is shorter than ${hours(least)}. `}
			Usual times, not yet your own.
		</Box>
	);
}
