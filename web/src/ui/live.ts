import { useState, useSyncExternalStore } from "react";

/** What moves under the hand: kept outside of what is drawn, so that only what shows it is
 * drawn again while it moves. */
export interface Live<T> {
	get: () => T;
	set: (v: T) => void;
	watch: (f: () => void) => () => void;
}

export function live<T>(first: T): Live<T> {
	let now = first;
	const watchers = new Set<() => void>();
	return {
		get: () => now,
		set: (v) => {
			if (Object.is(v, now)) return;
			now = v;
			for (const f of watchers) f();
		},
		watch: (f) => {
			watchers.add(f);
			return () => watchers.delete(f);
		},
	};
}

/** One such thing that lasts as long as what shows it. */
export const useNewLive = <T>(first: T) => useState(() => live(first))[0];

/** What is picked out of it: drawn again only when that changes. */
export const useLive = <T, U>(l: Live<T>, pick: (v: T) => U): U => useSyncExternalStore(l.watch, () => pick(l.get()));
