import { useEffect, useState } from "react";
import { useBench } from "../../api/card";
import { useHarmOf } from "../../api/queries";
import type { Off } from "./play";

/** What shows when a layer lies so, asked of the program once the hand rests. */
export function useHarm(layer: string, off: Off, blind: boolean) {
	const b = useBench();
	const [rest, setRest] = useState(off);
	useEffect(() => {
		const t = setTimeout(() => setRest(off), 120);
		return () => clearTimeout(t);
	}, [off]);
	const still = rest.x === off.x && rest.y === off.y && rest.t === off.t;
	const of = { id: b.view.id, version: b.view.version, motif: b.motif?.id ?? "", colourway: b.colourway?.id ?? "" };
	const got = useHarmOf(of, layer, rest, !blind && still && (rest.x !== 0 || rest.y !== 0 || rest.t !== 0));
	return still ? got : undefined;
}
