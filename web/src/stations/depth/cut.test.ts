import { expect, test } from "vitest";
import type { S } from "../../api/client";
import { across, far, height, places, slices, through, under } from "./cut";

const frame = "M0 0L40 0L40 30L0 30ZM10 10L10 20L30 20L30 10Z";

test("a line passes through a frame and not through its window", () => {
	const got = through(frame, { a: { x: -5, y: 15 }, b: { x: 60, y: 15 } });
	expect(got).toHaveLength(2);
	expect(got[0][0]).toBeCloseTo(5);
	expect(got[0][1]).toBeCloseTo(15);
	expect(got[1][0]).toBeCloseTo(35);
	expect(got[1][1]).toBeCloseTo(45);
});

test("aslant it is longer by the angle", () => {
	const [[from, to]] = through("M0 0L40 0L40 30L0 30Z", { a: { x: 0, y: 0 }, b: { x: 40, y: 30 } });
	expect(to - from).toBeCloseTo(50); // 3, 4, 5
});

test("a cut goes from edge to edge in any direction", () => {
	expect(far(across(100, 140, { x: 50, y: 70 }, 0))).toBeCloseTo(100);
	expect(far(across(100, 140, { x: 50, y: 70 }, 90))).toBeCloseTo(140);
	expect(far(across(100, 140, { x: 50, y: 70 }, 45))).toBeCloseTo(100 * Math.SQRT2);
});

test("a leaf that leans is higher at one end, and its pad is seen where it stands", () => {
	const piece = {
		path: "M0 0L60 0L60 16L0 16Z",
		x: 30,
		y: 8,
		z: 2,
		sx: -0.05,
		sy: 0,
		thick: 0.3,
		supports: [{ bond: 0, path: "M4 5L10 5L10 11L4 11Z", height: 2, foam: true, raised: true, own: false }],
	} as unknown as S["StandingPiece"];
	expect(under(piece, { x: 0, y: 0 })).toBeCloseTo(3.5);
	const [s] = slices([piece], { a: { x: 0, y: 8 }, b: { x: 60, y: 8 } });
	expect(s.zs).toEqual([expect.closeTo(3.5), expect.closeTo(0.5)]);
	expect(height(s, 30)).toBeCloseTo(2);
	expect(s.held).toEqual([{ t0: 4, t1: 10, height: 2, foam: true, raised: true }]);
	expect(slices([piece], { a: { x: 0, y: 14 }, b: { x: 60, y: 14 } })[0].held).toEqual([]);
});

test("a bent leaf is as high as its grid, and its slice is drawn as often as it bends", () => {
	const piece = {
		path: "M0 0L20 0L20 10L0 10Z",
		x: 10,
		y: 5,
		z: 9,
		sx: 0,
		sy: 0,
		thick: 0.3,
		bent: { x: 0, y: 0, cell: 10, nx: 3, z: [1, 2, 0, 1, 4, 0] },
		supports: [],
	} as unknown as S["StandingPiece"];
	expect(under(piece, { x: 5, y: 0 })).toBeCloseTo(1.5);
	expect(under(piece, { x: 10, y: 5 })).toBeCloseTo(3);
	expect(under(piece, { x: 99, y: 99 })).toBeCloseTo(0);
	const [s] = slices([piece], { a: { x: 0, y: 5 }, b: { x: 20, y: 5 } });
	expect(s.zs.map((z) => +z.toFixed(6))).toEqual([1, 2, 3, 1.5, 0]);
	expect(height(s, 7.5)).toBeCloseTo(2.5);
	expect(places(s, 4, 12)).toEqual([4, 5, 10, 12]);
});
