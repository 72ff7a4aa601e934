import { useEffect, useState } from "react";

/** The time, twice a second, while something waits. */
export function useNow(on: boolean): number {
	const [now, setNow] = useState(Date.now());
	useEffect(() => {
		if (!on) return;
		setNow(Date.now());
		const t = setInterval(() => setNow(Date.now()), 500);
		return () => clearInterval(t);
	}, [on]);
	return now;
}

/** What is left of a wait: 9:41, 1:02:00. */
export const clock = (ms: number) => {
	const s = Math.max(0, Math.round(ms / 1000));
	const h = Math.floor(s / 3600);
	return `${h > 0 ? `${h}:` : ""}${String(Math.floor((s % 3600) / 60)).padStart(h > 0 ? 2 : 1, "0")}:${String(s % 60).padStart(2, "0")}`;
};
