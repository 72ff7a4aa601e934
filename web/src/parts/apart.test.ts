import { describe, expect, it } from "vitest";
import type { PlanMotif } from "../api/client";
import { boxOf, laidApart } from "./apart";

describe("the box of an outline", () => {
	it("holds every corner, with room round it", () => {
		expect(boxOf("M1 2L11 2L11 -7.5Z", 1)).toEqual({ x: 0, y: -8.5, w: 12, h: 11.5 });
		expect(boxOf("M1 2L11 2L11 -7.5Z", 0)).toEqual({ x: 1, y: -7.5, w: 10, h: 9.5 });
	});
});

describe("pieces laid apart", () => {
	const square = (id: string, w: number, h: number) => ({ id, label: id, outline: `M0 0L${w} 0L${w} ${h}L0 ${h}Z` });
	const look = {
		minX: 0,
		minY: 0,
		w: 40,
		h: 40,
		layers: [square("a", 40, 40), square("b", 30, 10), square("c", 8, 20), square("d", 12, 12)],
	} as unknown as PlanMotif;
	it("begins with the stack", () => {
		expect(laidApart(look, ["1", "2", "3", "4"], { w: 600, h: 400 }, 0).moved).toEqual([0, 1, 2, 3].map(() => ({ x: 0, y: 0 })));
	});
	it("ends with nothing over another, inside the box", () => {
		for (const room of [
			{ w: 600, h: 400 },
			{ w: 300, h: 700 },
			{ w: 900, h: 200 },
		]) {
			const a = laidApart(look, ["1 a", "2 b", "3 c", "4 d"], room, 1);
			const boxes = look.layers.map((l, i) => {
				const b = boxOf(l.outline, 0);
				return { x0: b.x + a.moved[i].x, y0: b.y + a.moved[i].y, x1: b.x + b.w + a.moved[i].x, y1: b.y + b.h + a.moved[i].y };
			});
			for (const [i, p] of boxes.entries()) {
				expect(p.x0).toBeGreaterThanOrEqual(a.box.x - 1e-6);
				expect(p.x1).toBeLessThanOrEqual(a.box.x + a.box.w + 1e-6);
				for (const q of boxes.slice(i + 1)) expect(Math.min(p.x1, q.x1) > Math.max(p.x0, q.x0) && Math.min(p.y1, q.y1) > Math.max(p.y0, q.y0)).toBe(false);
			}
		}
	});
});
