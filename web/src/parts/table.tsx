import { type ReactNode, useLayoutEffect, useRef, useState } from "react";
import { bare, onLight } from "../ui/colours";
import type { Settings } from "../ui/units";
import type { Box } from "./box";
import { grounds } from "./picture";

/** The part of the table that can be drawn on, px. */
type Room = { w: number; h: number };

/** The table: a drawing surface on a neutral ground with rulers along two edges in the chosen unit. */
export function Table({
	box: shown,
	settings,
	ground = grounds.grey,
	children,
	label,
	origin,
	beside,
}: {
	/** What is shown, mm; what fills the room may ask for its size, px. */
	box: Box | ((room: Room) => Box);
	settings: Settings;
	ground?: string;
	label: string;
	origin?: { x: number; y: number };
	/** What is said beside a thing that lies in a box, mm. */
	beside?: { box: Box; node: ReactNode };
	children: (scale: number, room: Room) => ReactNode;
}) {
	const ref = useRef<HTMLDivElement>(null);
	const [size, setSize] = useState({ w: 640, h: 420 });
	useLayoutEffect(() => {
		const el = ref.current;
		if (!el) return;
		const watch = new ResizeObserver(() => setSize({ w: el.clientWidth, h: el.clientHeight }));
		watch.observe(el);
		return () => watch.disconnect();
	}, []);
	const edge = 24;
	const room = { w: Math.max(1, size.w - edge - 24), h: Math.max(1, size.h - edge - 24) };
	const box = typeof shown === "function" ? shown(room) : shown;
	const scale = Math.max(0.1, Math.min(room.w / box.w, room.h / box.h));
	const w = Math.max(1, size.w - edge) / scale;
	const h = Math.max(1, size.h - edge) / scale;
	const left = box.x - (w - box.w) / 2;
	const top = box.y - (h - box.h) / 2;
	const o = origin ?? { x: box.x, y: box.y };
	const dark = ground === grounds.dark;
	const ink = dark ? bare : onLight;
	return (
		<div ref={ref} className="table-room" style={{ position: "relative", flex: 1, background: ground, overflow: "hidden" }}>
			<svg width={size.w} height={size.h} style={{ position: "absolute", inset: 0 }} aria-hidden="true">
				<Ruler from={left - o.x} length={w} scale={scale} settings={settings} along="x" ink={ink} edge={edge} />
				<Ruler from={top - o.y} length={h} scale={scale} settings={settings} along="y" ink={ink} edge={edge} />
			</svg>
			{/* biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset; the group is named */}
			<svg
				width={Math.max(1, size.w - edge)}
				height={Math.max(1, size.h - edge)}
				style={{ position: "absolute", left: edge, top: edge, color: ink }}
				viewBox={`${left} ${top} ${w} ${h}`}
				role="group"
				aria-label={label}
			>
				{children(scale, room)}
			</svg>
			{beside && (
				<div style={{ position: "absolute", width: aside, ...nextTo(beside.box, { left, top, scale, edge, w: size.w, h: size.h }) }}>{beside.node}</div>
			)}
		</div>
	);
}

/** The width of what is said beside a thing, px. */
const aside = 236;

/** Right of a box, or left of it where there is more room; never off the table. */
function nextTo(b: Box, t: { left: number; top: number; scale: number; edge: number; w: number; h: number }) {
	const right = t.edge + (b.x + b.w - t.left) * t.scale + 12;
	const left = t.edge + (b.x - t.left) * t.scale - 12 - aside;
	const y = t.edge + (b.y - t.top) * t.scale;
	const top = Math.max(t.edge + 8, Math.min(y, t.h - 130));
	if (right + aside <= t.w - 8) return { left: right, top };
	if (left >= t.edge + 8) return { left, top };
	// No room at either side: in the corner, where the fewest things lie.
	return { right: 8, bottom: 8 };
}

function Ruler({
	from,
	length,
	scale,
	settings,
	along,
	ink,
	edge,
}: {
	from: number;
	length: number;
	scale: number;
	settings: Settings;
	along: "x" | "y";
	ink: string;
	edge: number;
}) {
	const inch = settings.unit === "in";
	const unit = inch ? 25.4 : 10;
	const parts = inch ? (scale * 25.4 > 90 ? 8 : 4) : 2;
	const skip = scale * unit < 34 ? (inch ? 1 : 5) : 1;
	const ticks: ReactNode[] = [];
	for (let i = Math.ceil((from / unit) * parts); i <= ((from + length) / unit) * parts; i++) {
		const at = edge + ((i / parts) * unit - from) * scale;
		const whole = i % parts === 0;
		const named = whole && (i / parts) % skip === 0;
		const len = whole ? 10 : i % (parts / 2) === 0 ? 6 : 4;
		ticks.push(
			along === "x" ? (
				<line key={i} x1={at} x2={at} y1={0} y2={len} stroke={ink} strokeWidth={1} />
			) : (
				<line key={i} y1={at} y2={at} x1={0} x2={len} stroke={ink} strokeWidth={1} />
			),
		);
		if (named) {
			const n = inch ? i / parts : (i / parts) * 10;
			ticks.push(
				<text key={`t${i}`} x={along === "x" ? at + 3 : 2} y={along === "x" ? 18 : at + 12} fontSize={11} fill={ink}>
					{String(n).replace("-", "−")}
					{along === "x" && n === 0 ? ` ${settings.unit}` : ""}
				</text>,
			);
		}
	}
	return <>{ticks}</>;
}
