import { expect, test } from "vitest";
import { drawnTo, pull } from "./snap";

const snaps = {
	x: [
		{ at: 50, say: "middle" },
		{ at: 51, say: "edge" },
	],
	y: [{ at: 20, say: "foot" }],
};

test("a drag is drawn to the nearest place, and only when it is near", () => {
	const near = drawnTo({ x: 10, y: 10 }, 40.3, 2, snaps, ["a"]);
	expect(near).toMatchObject({ ids: ["a"], dx: 40, dy: 2, snapX: "middle" });
	expect(drawnTo({ x: 10, y: 10 }, 40.7, 10 + pull - 0.01, snaps, ["a"])).toMatchObject({ dx: 41, dy: 10, snapX: "edge", snapY: "foot" });
	const far = drawnTo({ x: 10, y: 10 }, 40 - pull - 0.01, 0, snaps, ["a"]);
	expect(far.dx).toBeCloseTo(40 - pull - 0.01);
	expect(far.snapX).toBeUndefined();
	expect(drawnTo({ x: 1, y: 2 }, 3, 4, undefined, [])).toMatchObject({ dx: 3, dy: 4 });
});
