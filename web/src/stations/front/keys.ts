import { useEffect, useRef } from "react";
import { useBench } from "../../api/card";
import { type Edit, type Element, isMat } from "../../api/client";
import { typing } from "../../ui/keys";

/** The arrow keys move what is in hand, the brackets turn it, D lays another, M mirrors it, G makes a group, Delete takes it off. */
export function useKeys(all: Element[]) {
	const b = useBench();
	const s = b.state.settings;
	const held = useRef({ ids: "", at: 0, gesture: "" });
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			const els = all.filter((x) => !isMat(x));
			if (typing(e) || els.length === 0 || e.altKey || e.ctrlKey || (e.target as HTMLElement).closest?.(".stratum, [role=slider], [role=menu], [role=dialog]"))
				return;
			const by = s.unit === "in" ? 25.4 / 16 : 0.5;
			const mv = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
			const turn = { "[": -1, "]": 1 }[e.key];
			const ids = els.map((x) => x.id).join(" ");
			if (mv || turn) {
				e.preventDefault();
				// Presses that follow each other at once are one change.
				if (performance.now() - held.current.at > 700 || held.current.ids !== ids) held.current = { ids, at: 0, gesture: `keys ${els[0].id} ${Date.now()}` };
				held.current.at = performance.now();
				b.edit(
					els.map((el): Edit => ({ move: { element: el.id, dx: mv?.[0], dy: mv?.[1], turn } })),
					held.current.gesture,
				);
			}
			if (e.key === "Delete") b.edit(els.map((el): Edit => ({ remove: { element: el.id } })));
			if (e.key === "d") b.edit(els.map((el): Edit => ({ repeat: { element: el.id } })));
			if (e.key === "m") b.edit(els.map((el): Edit => ({ put: { element: el.id, mirror: !el.place.mirror } })));
			if (e.key === "g" && els.length > 1) b.edit({ together: { elements: els.map((x) => x.id) } });
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
}
