import { expect, test } from "vitest";
import { shapes } from "./shapes";

const square = (x: number, y: number, s: number) => `M${x} ${y}L${x + s} ${y}L${x + s} ${y + s}L${x} ${y + s}Z`;
const area = (r: { x: number; y: number }[]) => Math.abs(r.reduce((a, p, i) => a + p.x * r[(i + 1) % r.length].y - p.y * r[(i + 1) % r.length].x, 0)) / 2;

test("an island in a hole in a leaf beside another leaf", () => {
	const got = shapes(square(0, 0, 20) + square(2, 2, 16) + square(5, 5, 6) + square(30, 0, 5));
	expect(got.map((g) => [area(g.outer), g.holes.map(area)])).toEqual([
		[400, [256]],
		[36, []],
		[25, []],
	]);
});
