import type { S } from "./client";

export type Change = S["Change"];

/** What an item of a list is called: its id, or its key where its id is no word. */
function called(v: unknown): string {
	const { id, key } = v as { id?: unknown; key?: unknown };
	return typeof id === "string" ? id : `${key}`;
}

/**
 * A document with what a change made of it. Nothing of what was there is changed: whatever did
 * not change is the very same object, and need not be drawn anew.
 */
export function applied<T>(doc: T, changes: Change[]): T {
	return changes.reduce((d, c) => put(d, c.at, c), doc as unknown) as T;
}

function put(from: unknown, at: string[], c: Change): unknown {
	const [to, ...rest] = at;
	if (to === undefined) {
		if (!c.order) return c.is ?? null;
		const old = new Map((from as unknown[]).map((v) => [called(v), v]));
		// Of what is new in a list no more than its id is there until its own change comes.
		return c.order.map((id) => old.get(id) ?? { id });
	}
	if (Array.isArray(from)) return from.map((v) => (called(v) === to ? put(v, rest, c) : v));
	const o = from as Record<string, unknown>;
	return { ...o, [to]: put(o[to], rest, c) };
}
