import type { Card, Colourway, Plan, PlanMotif } from "../api/client";

/** What is seen of a layered image, for who does not see it: its layers from the top, each with its ink. */
export function spokenImage(look: PlanMotif, colourway?: Colourway): string {
	const n = look.layers.length;
	const inks = look.layers.map((l, i) => `${l.label} ${colourway?.layers[i]?.inkName || "plain"}`).reverse();
	return `${look.name}, ${n} ${n === 1 ? "layer" : "layers"}, from the top: ${inks.join(", ")}`;
}

/** What is seen of a card's front: what lies on it from the top, images with their inks. */
export function spokenFront(card: Card, plan: Plan): string {
	const things = plan.front.elements
		.map((p) => {
			const image = card.elements.find((e) => e.id === p.id)?.image;
			const look = plan.motifs.find((m) => m.id === image?.motif);
			return look
				? spokenImage(
						look,
						look.colourways.find((w) => w.id === image?.colourway),
					)
				: p.label;
		})
		.reverse();
	const sheets = plan.front.sheets.map((s, i) => (s.panel ? "the panel" : `mat ${i + 1}`)).reverse();
	return [...things, ...sheets, "the base"].join("; ");
}
