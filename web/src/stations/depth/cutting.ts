import { createContext, useContext, useSyncExternalStore } from "react";
import { useBench } from "../../api/card";
import type { P } from "../../ui/outline";
import { across, type Cut } from "./cut";

/** Where the side view is cut. Kept beside React's tree, so that only what shows the cut is
 * drawn again while it is dragged. */
export interface Cutting {
	at: P | null;
	degrees: number;
	/** How far the side view is taken apart, mm. */
	apart: number;
}

export class CuttingStore {
	private now: Cutting = { at: null, degrees: 0, apart: 0 };
	private told = new Set<() => void>();
	get = () => this.now;
	set = (to: Partial<Cutting>) => {
		this.now = { ...this.now, ...to };
		for (const f of this.told) f();
	};
	watch = (f: () => void) => {
		this.told.add(f);
		return () => {
			this.told.delete(f);
		};
	};
}

export const CuttingContext = createContext(new CuttingStore());

/** The cut as it is: its point (through the highest part where nobody moved it), its direction, its line. */
export function useCutting(): { at: P; degrees: number; apart: number; cut: Cut; set: (to: Partial<Cutting>) => void } {
	const store = useContext(CuttingContext);
	const now = useSyncExternalStore(store.watch, store.get);
	const b = useBench();
	const { w, h } = b.card.base;
	const at = now.at ?? { x: w / 2, y: b.view.plan.depth.atY || h / 2 };
	return { at, degrees: now.degrees, apart: now.apart, cut: across(w, h, at, now.degrees), set: store.set };
}
