import { expect, test } from "vitest";
import type { Card, Plan, PlanMotif } from "../api/client";
import { spokenFront, spokenImage } from "./spoken";

const moth = {
	id: "m",
	name: "Moth",
	layers: [{ label: "Silhouette" }, { label: "Fore wings" }],
	colourways: [{ id: "w", layers: [{ inkName: "" }, { inkName: "Bracken, soft" }] }],
} as unknown as PlanMotif;

test("an image is said from the top, each layer with its ink", () => {
	expect(spokenImage(moth, moth.colourways[0])).toBe("Moth, 2 layers, from the top: Fore wings Bracken, soft, Silhouette plain");
	expect(spokenImage(moth)).toContain("Fore wings plain");
});

test("a front is said from the top down to the base", () => {
	const card = { elements: [{ id: "e", image: { motif: "m", colourway: "w" } }, { id: "s" }] } as unknown as Card;
	const plan = {
		motifs: [moth],
		front: {
			sheets: [{ panel: true }],
			elements: [
				{ id: "e", label: "Moth" },
				{ id: "s", label: "Strip “thanks”" },
			],
		},
	} as unknown as Plan;
	expect(spokenFront(card, plan)).toBe("Strip “thanks”; Moth, 2 layers, from the top: Fore wings Bracken, soft, Silhouette plain; the panel; the base");
});
