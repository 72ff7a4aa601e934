import { expect, test } from "vitest";
import { told } from "./cuts";

const cut = (x: number, y: number, w: number, h: number, down: boolean, at: number) => ({ x, y, w, h, down, at });

test("strips off the same piece are told once", () => {
	const got = told([
		cut(0, 0, 216, 279, false, 100),
		cut(0, 100, 216, 179, true, 11),
		cut(11, 100, 205, 179, true, 11),
		cut(22, 100, 194, 179, true, 11),
		cut(33, 100, 183, 179, true, 20),
	]);
	expect(got.map((t) => [t.from, t.to])).toEqual([
		[1, 1],
		[2, 4],
		[5, 5],
	]);
});
