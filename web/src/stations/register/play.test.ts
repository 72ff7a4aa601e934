import { describe, expect, it } from "vitest";
import page from "../../../../core/register/testdata/page.json";
import type { S } from "../../api/client";
import { compass, holds, offWords, turned } from "./play";

interface Table {
	name: string;
	play: S["Play"];
	lies: { x: number; y: number; t: number; good: boolean }[];
}

// What the core says of many places; the page's own look-up while dragging is held to it.
const tables = page as unknown as Table[];

describe("the play looked up while dragging", () => {
	for (const t of tables)
		it(`says of ${t.name} what the core says`, () => {
			expect(t.lies.some((l) => l.good) && t.lies.some((l) => !l.good)).toBe(true);
			for (const l of t.lies) expect(holds(t.play, l), JSON.stringify(l)).toBe(l.good);
		});
});

describe("a place in words", () => {
	it("names the way, with its unit", () => {
		expect([0, 45, 90, 180, 270].map((d) => compass({ x: Math.cos((d * Math.PI) / 180), y: Math.sin((d * Math.PI) / 180) }))).toEqual([
			"right",
			"down and right",
			"down",
			"left",
			"up",
		]);
		expect(offWords({ unit: "mm", den: 16 }, { x: 0.3, y: 0, t: -2 })).toBe("0.30 mm right, turned 2.0° anticlockwise");
		expect(offWords({ unit: "in", den: 16 }, { x: 0, y: 0.254, t: 0 })).toBe("0.010 in down");
		expect(turned(1)).toBe("1.0° clockwise");
	});
});
