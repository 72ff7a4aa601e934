import { describe, expect, it } from "vitest";
import { type Stratum, section } from "./section";

const leaf = (id: string, thick: number, more: Partial<Stratum> = {}): Stratum => ({
	id,
	name: id,
	sub: "",
	thick,
	lift: 0,
	body: "#fff",
	top: "#000",
	...more,
});

describe("a section of one image", () => {
	const rows = [leaf("a", 0.3), leaf("b", 0.6), leaf("film", 0), leaf("c", 0.3, { lift: 2, foam: true })];
	const s = section(rows, 50, 160);
	it("draws every thickness by one factor, bottom up and without a gap", () => {
		for (const [i, r] of rows.entries()) if (r.thick > 0) expect(s.drawn[i].y1 - s.drawn[i].y0).toBeCloseTo(r.thick * s.factor);
		expect(s.drawn[0].y0).toBeCloseTo(s.drawn[1].y1);
		expect(s.drawn[1].y0).toBeCloseTo(s.drawn[2].y1);
		expect(s.drawn[2].y0).toBeCloseTo(s.drawn[3].gap?.y1 ?? 0);
		expect((s.drawn[3].gap?.y1 ?? 0) - (s.drawn[3].gap?.y0 ?? 0)).toBeCloseTo(2 * s.factor);
		expect(s.drawn[3].gap?.y0).toBeCloseTo(s.drawn[3].y1);
	});
	it("gives a print a film that can be seen, and no more", () => {
		expect(s.drawn[2].film).toBe(true);
		expect(s.drawn[2].y1 - s.drawn[2].y0).toBe(s.film);
	});
	it("stays inside its drawing, its labels apart by what was asked", () => {
		expect(Math.min(...s.drawn.map((d) => d.y0))).toBeGreaterThanOrEqual(0);
		expect(Math.max(...s.drawn.map((d) => d.y1))).toBeLessThanOrEqual(s.height);
		expect(s.drawn[0].label - s.drawn[1].label).toBeCloseTo(50);
	});
});

describe("a section of a whole card", () => {
	const at = (z: number, x: number, w = 20) => ({ z, w, box: { x, y: 50, w, h: 20 } });
	const rows = [
		leaf("back", 0.4, { at: { z: 0, w: 100 } }),
		leaf("front", 0.4, { at: { z: 0.4, w: 100 } }),
		leaf("panel", 0.3, { at: { z: 0.9, w: 90 }, lift: 0.1 }),
		leaf("left", 0.3, { at: at(1.2, 20) }),
		leaf("right", 0.3, { at: at(3.2, 80), lift: 2, foam: true }),
		leaf("over left", 0.3, { at: at(1.5, 22) }),
		leaf("image", 2.6, {
			at: at(1.2, 50),
			parts: [
				{ thick: 0.3, z: 0, lift: 0, body: "#111", top: "#222" },
				{ thick: 0.3, z: 0.3, lift: 0, body: "#111", top: "#222" },
				{ thick: 0.3, z: 0.3, lift: 0, body: "#111", top: "#222" },
				{ thick: 0.3, z: 2.3, lift: 1.7, foam: true, body: "#111", top: "#222" },
			],
		}),
	];
	const s = section(rows, 40, 160);
	const of = (id: string) => s.drawn[rows.findIndex((r) => r.id === id)];
	it("draws every thing at its true height", () => {
		const floor = of("back").y1;
		for (const [i, r] of rows.entries()) {
			expect(floor - s.drawn[i].y1).toBeCloseTo((r.at?.z ?? 0) * s.factor);
			expect(s.drawn[i].y1 - s.drawn[i].y0).toBeCloseTo(r.thick * s.factor);
		}
	});
	it("draws sheets as wide as they are, and what stands on them within", () => {
		expect((of("panel").x1 - of("panel").x0) / (of("front").x1 - of("front").x0)).toBeCloseTo(0.9);
		for (const id of ["left", "right", "image"]) {
			expect(of(id).x0).toBeGreaterThan(of("front").x0);
			expect(of(id).x1).toBeLessThan(of("front").x1);
		}
	});
	it("lets nothing run through another", () => {
		for (const [i, a] of s.drawn.entries())
			for (const b of s.drawn.slice(i + 1)) {
				const across = Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0);
				const high = Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0);
				expect(across > 1e-6 && high > 1e-6).toBe(false);
			}
	});
	it("stands what lies on a thing over it", () => {
		expect(of("over left").x0).toBe(of("left").x0);
		expect(of("left").x0).not.toBe(of("right").x0);
	});
	it("shows an image as its own pieces at their heights, narrower upwards, like ones beside each other", () => {
		const [a, b, c, top] = of("image").parts;
		expect(b.y1).toBeCloseTo(a.y0);
		expect(c.y0).toBeCloseTo(b.y0);
		expect(c.x0).toBeGreaterThanOrEqual(b.x1 - 1e-6);
		expect(top.x1 - top.x0).toBeLessThan(a.x1 - a.x0);
		expect(top.y0).toBeCloseTo(of("image").y0);
		expect((top.gap?.y1 ?? 0) - (top.gap?.y0 ?? 0)).toBeCloseTo(1.7 * s.factor);
	});
	it("draws alike things in alike heights once", () => {
		const many = section([...rows.slice(0, 3), ...Array.from({ length: 60 }, (_, i) => leaf(`e${i}`, 0.3, { at: at(1.2, 4 * i) }))], 24, 160);
		expect(many.drawn.at(-1)?.x0).toBe(many.drawn[3].x0);
	});
});
