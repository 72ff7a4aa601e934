import { expect, test } from "vitest";
import type { S } from "../../api/client";
import { drawn, view } from "./picture";

test("what is lit is looked at with what is round it, within the card", () => {
	const piece = (path: string) => ({ path }) as S["StandingPiece"];
	expect(view(100, 140, [])).toEqual([0, 0, 100, 140]);
	expect(view(100, 140, [piece("M10 10L90 10L90 130L10 130Z")])).toEqual([0, 0, 100, 140]);
	const [x, y, w, h] = view(100, 140, [piece("M0 0L10 0L10 10L0 10Z")]);
	expect([x, y]).toEqual([0, 0]);
	expect(w / h).toBeCloseTo(100 / 140);
	expect(w).toBeCloseTo(40);
});

test("what is lit is drawn over what is to come, and beneath what lies on it", () => {
	expect(drawn("dlb.")).toEqual([0, 2, 3, 1]);
	expect(drawn("lob")).toEqual([2, 0, 1]);
	expect(drawn("b.")).toEqual([0, 1]);
});
