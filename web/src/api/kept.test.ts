import { beforeEach, expect, test } from "vitest";
import { dropTick, type KeptTick, keepTick, keptTicks } from "./kept";

const kept = new Map<string, string>();
beforeEach(() => {
	kept.clear();
	Object.assign(globalThis, {
		localStorage: { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => kept.set(k, v), removeItem: (k: string) => kept.delete(k) },
	});
});

const t = (verb: string, on: boolean, at = Date.now()): KeptTick => ({ run: 1, step: { verb }, on, at });

test("ticks are kept in order, the last of a step counts, and go when they are answered", () => {
	keepTick("c", t("cut", true));
	keepTick("c", t("ink", true));
	keepTick("c", t("cut", false));
	expect(keptTicks("c").map((k) => [k.step.verb, k.on])).toEqual([
		["ink", true],
		["cut", false],
	]);
	dropTick("c", t("cut", true)); // answered late: what overtook it stays
	expect(keptTicks("c")).toHaveLength(2);
	dropTick("c", t("cut", false));
	dropTick("c", t("ink", true));
	expect(kept.size).toBe(0);
	expect(keptTicks("d")).toEqual([]);
});

test("old ones and what is no list are passed over", () => {
	keepTick("c", t("cut", true, Date.now() - 25 * 3600_000));
	expect(keptTicks("c")).toEqual([]);
	kept.set("ticks c", "{broken");
	expect(keptTicks("c")).toEqual([]);
	kept.set("ticks c", '{"a":1}');
	expect(keptTicks("c")).toEqual([]);
});
