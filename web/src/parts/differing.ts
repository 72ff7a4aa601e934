import type { Card } from "../api/client";

/** The colourways on a card, each with its image, where there are others to take. */
export function ways(card: Card): { motif: string; way: string }[] {
	const out: { motif: string; way: string }[] = [];
	const add = (motif: string, all: string[]) => {
		for (const way of all) if (!out.some((o) => o.motif === motif && o.way === way)) out.push({ motif, way });
	};
	for (const e of card.elements) {
		if (e.image) add(e.image.motif, [e.image.colourway]);
		for (const t of e.sheet?.treatments ?? []) {
			if (t.turned) add(t.turned.motif, t.turned.colourways ?? []);
			if (t.print) add(t.print.motif, t.print.colourways ?? []);
		}
	}
	return out.filter((o) => (card.motifs.find((m) => m.id === o.motif)?.colourways.length ?? 0) > 1);
}

/** The words on a card. */
export function words(card: Card): { element: string; text: string }[] {
	const out: { element: string; text: string }[] = [];
	for (const t of card.base.treatments ?? []) if (t.words) out.push({ element: "", text: t.words.text });
	for (const e of card.elements) {
		if (e.letters) out.push({ element: e.id, text: e.letters.text });
		for (const t of e.sheet?.treatments ?? []) if (t.words) out.push({ element: e.id, text: t.words.text });
	}
	return out;
}
