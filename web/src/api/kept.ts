import type { Step } from "./client";

/** A tick that is not answered yet, kept by the browser so that it outlives the page. */
export interface KeptTick {
	/** The run it belongs to. */
	run: number;
	step: Step;
	on: boolean;
	/** Milliseconds. */
	at: number;
}

const name = (card: string) => `ticks ${card}`;
/** What is older was overtaken by what was done since, ms. */
const longest = 24 * 3600_000;

function write(card: string, all: KeptTick[]) {
	try {
		if (all.length > 0) localStorage.setItem(name(card), JSON.stringify(all));
		else localStorage.removeItem(name(card));
	} catch {
		// a browser that keeps nothing: the page says what waits while it is open
	}
}

/** The ticks of a card that are not answered, the earliest first. */
export function keptTicks(card: string, now = Date.now()): KeptTick[] {
	try {
		const all = JSON.parse(localStorage.getItem(name(card)) ?? "[]") as KeptTick[];
		return Array.isArray(all) ? all.filter((t) => t?.step?.verb && now - t.at < longest) : [];
	} catch {
		return [];
	}
}

const same = (a: Step, b: Step) => JSON.stringify(a) === JSON.stringify(b);

/** Keeps a tick; an earlier one of the same step is overtaken. */
export const keepTick = (card: string, t: KeptTick) => write(card, [...keptTicks(card).filter((o) => !same(o.step, t.step)), t]);

/** Drops a tick that was answered, unless it was overtaken meanwhile. */
export const dropTick = (card: string, t: KeptTick) =>
	write(
		card,
		keptTicks(card).filter((o) => !(same(o.step, t.step) && o.on === t.on)),
	);
