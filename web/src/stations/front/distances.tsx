import { hue } from "../../ui/colours";
import { length, type Settings } from "../../ui/units";

/** Distances from the box of what is in hand to the panel's edges. */
export function Distances({
	e,
	box,
	panel,
	s,
	scale,
}: {
	e: { x: number; y: number };
	box?: { w: number; h: number };
	panel: { x: number; y: number; w: number; h: number };
	s: Settings;
	scale: number;
}) {
	if (!box) return null;
	const [l, r, t, bt] = [e.x - box.w / 2 - panel.x, panel.x + panel.w - e.x - box.w / 2, e.y - box.h / 2 - panel.y, panel.y + panel.h - e.y - box.h / 2];
	const line = (x1: number, y1: number, x2: number, y2: number, v: number, key: string) => (
		<g key={key} pointerEvents="none">
			<line x1={x1} y1={y1} x2={x2} y2={y2} stroke={v < -0.05 ? hue.madder : hue.ochre} strokeWidth={1.4 / scale} />
			<text
				x={(x1 + x2) / 2}
				y={(y1 + y2) / 2 - 4 / scale}
				fontSize={12.5 / scale}
				fontWeight={700}
				textAnchor="middle"
				fill={v < -0.05 ? hue.madder : hue.text}
				stroke={hue.veil}
				strokeWidth={3 / scale}
				paintOrder="stroke"
			>
				{length(v, s)}
			</text>
		</g>
	);
	return (
		<>
			{line(panel.x, e.y, panel.x + l, e.y, l, "l")}
			{line(panel.x + panel.w - r, e.y, panel.x + panel.w, e.y, r, "r")}
			{line(e.x, panel.y, e.x, panel.y + t, t, "t")}
			{line(e.x, panel.y + panel.h - bt, e.x, panel.y + panel.h, bt, "b")}
		</>
	);
}
