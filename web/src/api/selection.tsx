import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import type { Card, Colourway, Motif, Plan, PlanMotif } from "./client";

/** What is picked by its identity; what is left out stays as it is. */
export interface Pick {
	motif?: string;
	colourway?: string;
	layer?: string;
	element?: string;
	step?: string;
}

/** What is in hand on the table: one image in one colourway, a layer of it, an element, a step. */
export interface Selection {
	motif?: Motif;
	look?: PlanMotif;
	colourway?: Colourway;
	layer: string;
	element: string;
	step: string;
	pick: (what: Pick) => void;
}

const Ctx = createContext<Selection | null>(null);

const PickCtx = createContext<Selection["pick"]>(() => {});

/** How things are picked, for what shows no selection itself. */
export const usePick = () => useContext(PickCtx);

/** What is selected. */
export function useSelection(): Selection {
	const s = useContext(Ctx);
	if (!s) throw new Error("no card");
	return s;
}

/** The one element that a card has more than it had; none where several came at once, or it is another card. */
export function added(was: Card, now: Card): string | undefined {
	if (was === now || now.elements.length !== was.elements.length + 1) return undefined;
	const had = new Set(was.elements.map((e) => e.id));
	const fresh = now.elements.filter((e) => !had.has(e.id));
	return fresh.length === 1 ? fresh[0].id : undefined;
}

/** Keeps what is selected apart from the card: a tap draws only what shows a selection. */
export function SelectionProvider({ card, plan, children }: { card: Card; plan: Plan; children: ReactNode }) {
	const [sel, setSel] = useState({ motif: "", colourway: "", layer: "", element: "", step: "" });
	const pick = useCallback((w: Pick) => setSel((s) => ({ ...s, ...w })), []);
	// What was just added is in hand.
	const known = useRef(card);
	useEffect(() => {
		const one = added(known.current, card);
		known.current = card;
		if (one) pick({ element: one });
	}, [card, pick]);
	const value = useMemo<Selection>(() => {
		const motif = card.motifs.find((m) => m.id === sel.motif) ?? card.motifs[0];
		const look = plan.motifs.find((m) => m.id === motif?.id);
		const used = card.elements.find((e) => e.image?.motif === motif?.id)?.image?.colourway;
		const colourway = look?.colourways.find((w) => w.id === sel.colourway) ?? look?.colourways.find((w) => w.id === used) ?? look?.colourways[0];
		const layer = motif?.layers.some((l) => l.id === sel.layer) ? sel.layer : "";
		return { motif, look, colourway, layer, element: sel.element, step: sel.step, pick };
	}, [card, plan, sel, pick]);
	return (
		<PickCtx.Provider value={pick}>
			<Ctx.Provider value={value}>{children}</Ctx.Provider>
		</PickCtx.Provider>
	);
}
