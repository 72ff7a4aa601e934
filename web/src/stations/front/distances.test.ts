import { expect, test } from "vitest";
import { neighbours } from "./distances";

test("the nearest neighbour on each side that stands beside it", () => {
	const b = { x: 40, y: 40, w: 20, h: 20 };
	const got = neighbours(b, [
		{ x: 10, y: 45, w: 20, h: 5 },
		{ x: 0, y: 42, w: 5, h: 5 },
		{ x: 70, y: 100, w: 20, h: 5 },
		{ x: 45, y: 75, w: 5, h: 5 },
		{ x: 50, y: 50, w: 5, h: 5 },
	]);
	expect(got).toEqual([
		{ key: "nl", x1: 30, y1: 50, x2: 40, y2: 50 },
		{ key: "nb", x1: 50, y1: 60, x2: 50, y2: 75 },
	]);
});
