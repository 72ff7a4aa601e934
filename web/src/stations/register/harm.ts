import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useBench } from "../../api/card";
import { api, ok } from "../../api/client";
import type { Off } from "./play";

/** What shows when a layer lies so, asked of the program once the hand rests. */
export function useHarm(layer: string, off: Off, blind: boolean) {
	const b = useBench();
	const [rest, setRest] = useState(off);
	useEffect(() => {
		const t = setTimeout(() => setRest(off), 120);
		return () => clearTimeout(t);
	}, [off]);
	const [motif, colourway] = [b.motif?.id ?? "", b.colourway?.id ?? ""];
	const still = rest.x === off.x && rest.y === off.y && rest.t === off.t;
	const got = useQuery({
		queryKey: ["harm", b.view.id, b.view.version, motif, colourway, layer, rest],
		enabled: !blind && still && layer !== "" && motif !== "" && colourway !== "" && (rest.x !== 0 || rest.y !== 0 || rest.t !== 0),
		queryFn: () =>
			ok(api.GET("/api/cards/{id}/harm", { params: { path: { id: b.view.id }, query: { motif, colourway, layer, x: rest.x, y: rest.y, turn: rest.t } } })),
	}).data;
	return still ? got : undefined;
}
