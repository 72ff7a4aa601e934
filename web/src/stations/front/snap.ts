import type { S } from "../../api/client";
import type { Held } from "./placed";

/** How near, mm, what is dragged has to come to a place to be drawn to it. */
export const pull = 1.1;

/** Draws a drag to the nearest place the core has named, across and down each by itself. */
export function drawnTo(at: { x: number; y: number }, dx: number, dy: number, snaps: S["Snaps"] | undefined, ids: readonly string[]): NonNullable<Held> {
	const x = nearest(snaps?.x, at.x + dx);
	const y = nearest(snaps?.y, at.y + dy);
	return { ids, dx: x ? x.at - at.x : dx, dy: y ? y.at - at.y : dy, snapX: x?.say, snapY: y?.say };
}

function nearest(all: S["Snap"][] | undefined, v: number): S["Snap"] | undefined {
	let best: S["Snap"] | undefined;
	for (const s of all ?? []) {
		const d = Math.abs(s.at - v);
		if (d <= pull && (!best || d < Math.abs(best.at - v))) best = s;
	}
	return best;
}
