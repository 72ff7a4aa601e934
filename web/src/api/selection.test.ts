import { expect, test } from "vitest";
import type { Card } from "./client";
import { added } from "./selection";

test("what was just added is one element more than there was", () => {
	const card = (...ids: string[]) => ({ elements: ids.map((id) => ({ id })) }) as Card;
	const was = card("panel", "moth");
	expect(added(was, was)).toBeUndefined();
	expect(added(was, card("panel", "strip", "moth"))).toBe("strip");
	expect(added(was, card("panel"))).toBeUndefined();
	expect(added(was, card("panel", "a", "b", "c"))).toBeUndefined();
	expect(added(was, card("moth", "a", "b"))).toBeUndefined();
});
