import { expect, test } from "vitest";
import type { S } from "../../api/client";
import { drawn, states, view } from "./picture";

test("a piece is to come, begun, in place, or lit", () => {
	const pictures = [
		{ key: "cut", lit: [0, 1] },
		{ key: "ink", lit: [1] },
		{ key: "place", lit: [0], puts: true },
		{ key: "glue", lit: [1], puts: true },
	] as S["SceneStep"][];
	expect(states(3, pictures, [], "cut")).toEqual(["lit", "lit", "to come"]);
	expect(states(3, pictures, ["cut"], "ink")).toEqual(["begun", "lit", "to come"]);
	expect(states(3, pictures, ["cut", "ink"], "place")).toEqual(["lit", "begun", "to come"]);
	expect(states(3, pictures, ["cut", "ink", "place"], "glue")).toEqual(["in place", "lit", "to come"]);
	expect(states(3, pictures, ["cut", "ink", "place", "glue"], "nothing known")).toEqual(["in place", "in place", "to come"]);
});

test("what is lit is looked at with what is round it, within the card and as wide as the frame", () => {
	const piece = (path: string) => ({ path }) as S["StandingPiece"];
	expect(view(100, 140, 1, [])).toEqual([0, 0, 100, 140]);
	expect(view(100, 140, 1, [piece("M10 10L90 10L90 130L10 130Z")])).toEqual([0, 0, 100, 140]);
	const [x, y, w, h] = view(100, 140, 1.5, [piece("M0 0L10 0L10 10L0 10Z")]);
	expect([x, y]).toEqual([0, 0]);
	expect(h).toBeCloseTo(56);
	expect(w).toBeCloseTo(84);
	const far = view(100, 140, 2, [piece("M90 130L100 130L100 140L90 140Z")]);
	expect(far[0] + far[2]).toBeCloseTo(100);
	expect(far[1] + far[3]).toBeCloseTo(140);
});

test("what is lit is drawn over what is to come, and beneath what lies on it", () => {
	expect(drawn(["in place", "lit", "begun", "to come"])).toEqual([0, 2, 3, 1]);
	expect(drawn(["lit", "in place", "begun"])).toEqual([2, 0, 1]);
	expect(drawn(["begun", "to come"])).toEqual([0, 1]);
});
