import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { stepKey, useBench } from "../../api/card";
import type { Act } from "../../api/client";
import { Button } from "../../ui/button";
import { clock, useNow } from "../../ui/clock";

/** A soft double tone. */
function ring() {
	try {
		const a = new AudioContext();
		for (const [at, hz] of [
			[0, 660],
			[0.35, 880],
		]) {
			const o = a.createOscillator();
			const g = a.createGain();
			o.frequency.value = hz;
			g.gain.setValueAtTime(0.0001, a.currentTime + at);
			g.gain.exponentialRampToValueAtTime(0.08, a.currentTime + at + 0.05);
			g.gain.exponentialRampToValueAtTime(0.0001, a.currentTime + at + 0.6);
			o.connect(g).connect(a.destination);
			o.start(a.currentTime + at);
			o.stop(a.currentTime + at + 0.7);
		}
		setTimeout(() => a.close(), 1500);
	} catch {
		// without sound the words are still there
	}
}

/** Begins the wait of a step; it runs on wherever one looks, also when the program is ended and begun again. */
export function WaitButton({ at }: { at: Act }) {
	const b = useBench();
	const on = b.view.run.timers.some((t) => stepKey(t.step) === stepKey(at.id));
	return (
		<Button size="big" onClick={() => b.wait(at.id, on ? 0 : at.minutes)}>
			{on ? "Stop the wait" : `Wait ${at.minutes} min`}
		</Button>
	);
}

/** All waits under way. */
export function Waits({ steps }: { steps: Act[] }) {
	const b = useBench();
	const timers = b.view.run.timers;
	const now = useNow(timers.length > 0);
	const rung = useRef(new Set<string>());
	useEffect(() => {
		for (const t of timers) {
			const key = `${stepKey(t.step)} ${t.until}`;
			const over = now - Date.parse(t.until);
			if (over < 0 || rung.current.has(key)) continue;
			rung.current.add(key);
			// What was over long before one looked does not ring.
			if (over < 5000) ring();
		}
	}, [timers, now]);
	if (timers.length === 0) return null;
	return (
		<Box display="flex" gap="4" flexWrap="wrap" role="group" aria-label="Waits under way">
			{timers.map((t) => {
				const s = steps.find((x) => stepKey(x.id) === stepKey(t.step));
				const left = Date.parse(t.until) - now;
				return (
					<Box key={stepKey(t.step)} bg={left > 0 ? "wash" : "glow"} py="2" px="5" display="flex" gap="4" alignItems="center">
						<b>{left > 0 ? clock(left) : "Over"}</b>
						<span>{s ? `${s.number} ${s.title}` : "A step of another order"}</span>
						<Button onClick={() => b.wait(t.step, 0)}>{left > 0 ? "Stop" : "Seen"}</Button>
					</Box>
				);
			})}
			{timers.some((t) => Date.parse(t.until) - now > 3600_000) && (
				<a href={`/api/cards/${b.view.id}/waits.ics`} download>
					To a calendar
				</a>
			)}
		</Box>
	);
}
