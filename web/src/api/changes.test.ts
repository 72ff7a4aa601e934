import { expect, test } from "vitest";
import { applied } from "./changes";

const view = {
	card: {
		title: "Old",
		elements: [
			{ id: "a", x: 1 },
			{ id: "b", x: 2 },
		],
	},
	plan: { steps: [{ id: { kind: "glue" }, key: "glue a", number: 1 }], front: { leaf: "M0 0" } },
};

test("what a change tells is put in its place, and what it does not tell stays the same object", () => {
	const got = applied(view, [
		{ at: ["card", "title"], is: "New" },
		{ at: ["card", "elements", "b", "x"], is: 3 },
		{ at: ["plan", "steps", "glue a", "number"], is: 4 },
	]);
	expect(got.card.title).toBe("New");
	expect(got.card.elements).toEqual([
		{ id: "a", x: 1 },
		{ id: "b", x: 3 },
	]);
	expect(got.plan.steps[0]?.number).toBe(4);
	expect(got.card.elements[0]).toBe(view.card.elements[0]);
	expect(got.plan.front).toBe(view.plan.front);
	expect(view.card.title).toBe("Old");
});

test("a list is told by the order of its items, and what is new in it by a change of its own", () => {
	const got = applied(view, [
		{ at: ["card", "elements"], order: ["c", "b"] },
		{ at: ["card", "elements", "c"], is: { id: "c", x: 9 } },
	]);
	expect(got.card.elements).toEqual([
		{ id: "c", x: 9 },
		{ id: "b", x: 2 },
	]);
	expect(got.card.elements[1]).toBe(view.card.elements[1]);
});

test("nothing can be what is there now, and a whole document too", () => {
	expect(applied(view, [{ at: ["plan", "front"], is: null }]).plan.front).toBeNull();
	expect(applied(view, [{ at: [], is: { card: 1 } }])).toEqual({ card: 1 });
});
