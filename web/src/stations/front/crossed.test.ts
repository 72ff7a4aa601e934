import { expect, test } from "vitest";
import type { Element } from "../../api/client";
import { crossed } from "./crossed";

test("what was ticked just before is kept", () => {
	const e = {
		tucks: [
			{ part: "a", with: "x" },
			{ part: "b", with: "y" },
		],
	} as unknown as Element;
	expect(crossed(e, "x", "c", true)).toEqual(["a", "c"]);
	expect(crossed(e, "x", "a", true)).toEqual(["a"]);
	expect(crossed(e, "x", "a")).toEqual([]);
	expect(crossed(e, "y", "b", false)).toEqual([]);
	expect(crossed({} as Element, "y", "b")).toEqual(["b"]);
});
