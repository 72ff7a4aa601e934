import { Box } from "@chakra-ui/react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok } from "../api";
import { useBench } from "../card";
import { length } from "../units";

/** A turning jig for the image in hand: the ring it makes, and its sheet to print. */
export function TurningJig({ w }: { w: number }) {
	const b = useBench();
	const [turns, setTurns] = useState(8);
	const [width, setWidth] = useState(Math.min(40, Math.round(w * 2) / 2));
	const [gap, setGap] = useState(2);
	const [kind, setKind] = useState<"plate" | "disc">("plate");
	const ring = useQuery({
		queryKey: ["ring", turns, width, gap, kind, b.state.settings.unit],
		placeholderData: keepPreviousData,
		queryFn: () => ok(api.GET("/api/ring", { params: { query: { turns, width, gap, kind } } })),
	}).data;
	const s = b.state.settings;
	const number = (label: string, v: number, set: (n: number) => void, min: number, max: number, step: number) => (
		<label className="field">
			{label}
			<input
				type="number"
				value={v}
				min={min}
				max={max}
				step={step}
				style={{ width: 86 }}
				onChange={(e) => set(Math.min(max, Math.max(min, Number(e.target.value) || min)))}
			/>
		</label>
	);
	const q = new URLSearchParams({ turns: `${turns}`, width: `${width}`, gap: `${gap}`, kind });
	return (
		<Box fontSize="13px" p="8px 20px" bg="sheet" borderTop="1px solid {colors.line}" display="flex" gap="18px" alignItems="center" flexWrap="wrap">
			{number("Turns", turns, setTurns, 3, 16, 1)}
			{number("Width of the image (mm)", width, setWidth, 1, 200, 0.5)}
			{number("Gap (mm)", gap, setGap, 0, 50, 0.5)}
			<label className="field">
				Jig
				<select value={kind} onChange={(e) => setKind(e.target.value as typeof kind)}>
					<option value="plate">plate with a side for each turn</option>
					<option value="disc">disc with marks</option>
				</select>
			</label>
			{ring && (
				<Box flex="1 1 260px">
					Turn {ring.step.toFixed(ring.step % 1 ? 1 : 0)}° each time. The middles lie {length(ring.radius, s)} from the centre; neighbours would touch at{" "}
					{length(ring.touch, s)}. The ring is {length(ring.across, s)} across.
					{!ring.fits && " Its jig does not fit on a page: take fewer turns or a smaller image."}
				</Box>
			)}
			{ring?.fits && (
				<a className="main-link" href={`/api/jig.pdf?${q}`} target="_blank" rel="noreferrer">
					Print the jig
				</a>
			)}
		</Box>
	);
}
