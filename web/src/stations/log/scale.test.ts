import { expect, test } from "vitest";
import { round, scale } from "./scale";

test("a scale ends at a round number that is not less than what it holds", () => {
	for (const [v, want] of [
		[0.03, 0.05],
		[0.05, 0.05],
		[1, 1],
		[1.01, 2],
		[7, 10],
		[120, 200],
		[0, 1],
	])
		expect(round(v)).toBeCloseTo(want, 12);
});

test("marks lie by time, one alone in the middle", () => {
	const m = (at: number, v: number, high?: number) => ({ at, v, high, say: "" });
	const sc = scale([m(100, 0.3), m(200, 0.1), m(500, 0.2, 9)]);
	expect([100, 200, 500].map(sc.across)).toEqual([0, 0.25, 1]);
	expect(sc.top).toBe(0.5);
	const one = scale([m(100, 0.3)], 1);
	expect(one.across(100)).toBe(0.5);
	expect(one.top).toBe(1);
	expect(one.spans).toBe(false);
});
