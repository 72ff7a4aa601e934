import { describe, expect, it } from "vitest";
import { area, bare, grammage, length, nearest, pace, thin, weight, written } from "./units";

const inches = { unit: "in", den: 16 } as const;
const metric = { unit: "mm", den: 16 } as const;

describe("what was typed", () => {
	it("is not told again where it is read as it stands", () => {
		expect(bare(" 2 3/4")).toBe(bare(written(25.4 * 2.75, inches)));
		expect(bare("-1.50")).toBe(bare("−1.5"));
		expect(bare("2 1/4 - 1/16")).not.toBe(bare(written(25.4 * (2 + 3 / 16), inches)));
		expect(bare("57 mm")).not.toBe(bare("57"));
	});
});

describe("lengths", () => {
	// NIST SP 811, appendix B: 1 in = 25.4 mm exactly.
	it("writes fractions in their lowest terms", () => {
		expect(length(25.4 * (4 + 15 / 16), inches)).toBe("4 15⁄16 in");
		expect(length(25.4 / 2, inches)).toBe("1⁄2 in");
		expect(length(25.4 * 5.5, inches)).toBe("5 1⁄2 in");
		expect(length(-25.4 / 8, inches)).toBe("−1⁄8 in");
		expect(length(-0.01, inches)).toBe("0 in");
		expect(length(125.44, metric)).toBe("125.4 mm");
		expect(length(-0.04, metric)).toBe("0 mm");
	});
	// NIST Handbook 44, appendix A, rules for rounding (from memory): just between two goes to the even one.
	it("rounds what lies just between two to the even one", () => {
		expect([0.5, 1.5, 2.5, 3.5, 2.4999, 2.5001].map(nearest)).toEqual([0, 2, 2, 4, 2, 3]);
		expect(length((25.4 * 3) / 32, inches)).toBe("1⁄8 in");
		expect(length((25.4 * 5) / 32, inches)).toBe("1⁄8 in");
	});
	it("shows a finer fraction in a field where only that is true", () => {
		expect(written((25.4 * 3) / 32, inches)).toBe("3⁄32");
		expect(written((25.4 * 63) / 64, inches)).toBe("63⁄64");
		expect(written(10, inches)).toBe("3⁄8");
	});
	it("steps by a sixteenth of an inch or half a millimetre, of a thickness by a thousandth or a hundredth", () => {
		expect(pace(inches, "length")).toBeCloseTo(1.5875);
		expect(pace(metric, "length")).toBe(0.5);
		expect(pace(inches, "thin")).toBeCloseTo(0.0254);
		expect(pace(metric, "thin")).toBe(0.01);
	});
});

describe("thicknesses, areas and weights", () => {
	it("writes a letter's greatest thickness, a quarter of an inch", () => {
		expect(thin(6.35, inches)).toBe("0.250 in");
		expect(thin(6.35, metric)).toBe("6.35 mm");
		expect(thin(0, inches)).toBe("0.000 in");
		expect(thin(0.01, inches)).toBe("less than 0.001 in");
		expect(thin(0.01, inches, false)).toBe("0.000");
		expect(thin(-1, metric)).toBe("−1.00 mm");
	});
	it("writes areas in the square of the unit", () => {
		expect(area(645.16, inches)).toBe("1.00 in²");
		expect(area(10, inches)).toBe("0.0155 in²");
		expect(area(645.16, metric)).toBe("645 mm²");
		expect(area(3.42, metric)).toBe("3.4 mm²");
	});
	// NIST Handbook 44, appendix C: 1 oz avoirdupois = 28.349523125 g exactly. The trade's own
	// pairs of pound and gram, common practice, no source: 80 lb cover is 216 g/m², 110 lb 298.
	it("writes what things weigh", () => {
		expect(weight(28.349523125, inches)).toBe("1.00 oz");
		expect(weight(17.4, metric)).toBe("17 g");
		expect(grammage(216, inches)).toBe("80 lb cover (216 g/m²)");
		expect(grammage(298, inches)).toBe("110 lb cover (298 g/m²)");
		expect(grammage(216, metric)).toBe("216 g/m²");
	});
});
