import { memo, useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { hue } from "../../ui/colours";
import type { P } from "../../ui/outline";
import { length, thin } from "../../ui/units";
import { under } from "./cut";
import { useCutting } from "./cutting";
import { InHand } from "./hand";
import { Pads } from "./pads";

/** How the front is looked at. */
export type Look = "picture" | "heights" | "back" | "aslant";

interface Props {
	standing: S["StandingCard"];
	look: Look;
	w: number;
	h: number;
	/** The layer in hand; empty: the whole of what is in hand. */
	part: string;
}

/** The front, with the line of the cut to drag: its stone moves it, its end turns it. */
export function FrontWithCut({ standing, look, w, h, part }: Props) {
	const { at, cut, set } = useCutting();
	const b = useBench();
	const c = b.card;
	const k = Math.min(w / c.base.w, h / c.base.h);
	const svg = useRef<SVGSVGElement>(null);
	const [held, setHeld] = useState<"move" | "turn" | null>(null);
	const place = (e: React.PointerEvent): P | undefined => {
		const m = svg.current?.getScreenCTM()?.inverse();
		if (!m) return undefined;
		const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
		return { x: Math.min(c.base.w, Math.max(0, p.x)), y: Math.min(c.base.h, Math.max(0, p.y)) };
	};
	const drag = (e: React.PointerEvent) => {
		const p = held && place(e);
		if (!p) return;
		if (held === "move") set({ at: p });
		else if (Math.hypot(p.x - at.x, p.y - at.y) > 4) set({ at, degrees: (Math.round((Math.atan2(p.y - at.y, p.x - at.x) * 180) / Math.PI) + 360) % 180 });
	};
	const take = (what: "move" | "turn") => (e: React.PointerEvent) => {
		e.stopPropagation();
		svg.current?.setPointerCapture(e.pointerId);
		setHeld(what);
	};
	if (look === "aslant") return <InHand standing={standing} w={w} h={h} />;
	const px = 1 / k;
	const end = Math.hypot(cut.b.x - at.x, cut.b.y - at.y) > Math.hypot(cut.a.x - at.x, cut.a.y - at.y) ? cut.b : cut.a;
	// The picture lies beneath in a layer of its own, so that it is not drawn again while the cut is dragged.
	return (
		<div style={{ position: "relative", flexShrink: 0, width: c.base.w * k, height: c.base.h * k }}>
			{look === "picture" && (
				<img
					src={`/api/cards/${b.view.id}/front.svg?v=${b.view.version}`}
					alt=""
					width={c.base.w * k}
					height={c.base.h * k}
					style={{ position: "absolute", inset: 0, willChange: "transform" }}
				/>
			)}
			<svg
				ref={svg}
				viewBox={`0 0 ${c.base.w} ${c.base.h}`}
				width={c.base.w * k}
				height={c.base.h * k}
				style={{ position: "relative", touchAction: "none", overflow: "visible", display: "block" }}
				onPointerMove={drag}
				onPointerUp={() => setHeld(null)}
				onPointerCancel={() => setHeld(null)}
				role={look === "back" ? "group" : "img"}
				aria-label={look === "back" ? "Seen from the back, left and right swapped" : look === "heights" ? "Heights of the front as shades" : "The front"}
			>
				{look === "heights" && <Heights standing={standing} />}
				{look === "back" && <Pads standing={standing} part={part} px={px} />}
				{look !== "back" && (
					<>
						<Troubles standing={standing} px={px} /> <CutOff standing={standing} px={px} />
						<line x1={cut.a.x} y1={cut.a.y} x2={cut.b.x} y2={cut.b.y} stroke={hue.sheet} strokeWidth={4 * px} />
						<line x1={cut.a.x} y1={cut.a.y} x2={cut.b.x} y2={cut.b.y} stroke={hue.ochre} strokeWidth={2 * px} />
						<rect
							data-cut="move"
							x={at.x - 11 * px}
							y={at.y - 11 * px}
							width={22 * px}
							height={22 * px}
							transform={`rotate(45 ${at.x} ${at.y})`}
							fill={hue.fill}
							stroke={hue.ochre}
							strokeWidth={2 * px}
							style={{ cursor: "move" }}
							onPointerDown={take("move")}
						/>
						<circle
							data-cut="turn"
							cx={end.x}
							cy={end.y}
							r={11 * px}
							fill={hue.sheet}
							stroke={hue.ochre}
							strokeWidth={2 * px}
							style={{ cursor: "grab" }}
							onPointerDown={take("turn")}
						/>
					</>
				)}
			</svg>
		</div>
	);
}

/** Where parts do not lie as they should. */
const Troubles = memo(function Troubles({ standing, px }: { standing: S["StandingCard"]; px: number }) {
	return (
		<g pointerEvents="none">
			{standing.pieces
				.filter((p) => p.trouble)
				.map((p, i) => (
					<g key={i} transform={`translate(${p.troubleX ?? p.x} ${p.troubleY ?? p.y})`} data-trouble={p.trouble}>
						<path d={`M0 ${-12 * px}L${11 * px} ${8 * px}L${-11 * px} ${8 * px}Z`} fill={hue.madder} stroke={hue.white} strokeWidth={1.5 * px} />
						<path d={`M0 ${-5 * px}V${2 * px}M0 ${4 * px}V${5.5 * px}`} stroke={hue.white} strokeWidth={2 * px} />
					</g>
				))}
		</g>
	);
});

/** What is cut off parts so that they clear a pad. */
const CutOff = memo(function CutOff({ standing, px }: { standing: S["StandingCard"]; px: number }) {
	return (
		<g pointerEvents="none">
			{standing.pieces.flatMap((p) =>
				p.off.map((d) => (
					<path key={d} d={d} data-off={p.element} fill="none" stroke={hue.madder} strokeWidth={1.5 * px} strokeDasharray={`${4 * px} ${2 * px}`} />
				)),
			)}
		</g>
	);
});

/** The front as shades: what stands higher is lighter. */
const Heights = memo(function Heights({ standing }: { standing: S["StandingCard"] }) {
	const b = useBench();
	const s = b.state.settings;
	const c = b.card.base;
	const span = Math.max(standing.total - standing.base, 0.01);
	const shade = (z: number) => `hsl(40 12% ${22 + 72 * Math.min(1, Math.max(0, (z - standing.base) / span))}%)`;
	return (
		<g>
			<rect width={c.w} height={c.h} fill={shade(standing.base)} />
			{standing.pieces
				.filter((p) => p.thick > 0)
				.map((p, i) => (
					// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
					<path
						key={i}
						d={p.path}
						fillRule="evenodd"
						fill={shade(under(p, p) + p.thick)}
						stroke={b.element === p.element ? hue.ochre : hue.outline}
						strokeWidth={b.element === p.element ? 0.7 : 0.15}
						style={{ cursor: "pointer" }}
						onClick={() => b.pick({ element: p.element })}
					>
						<title>{`${p.name}: top at ${thin(p.z + p.thick, s)}`}</title>
					</path>
				))}
		</g>
	);
});

/** Where the cut lies, in words. */
export function useCutSaid(at: P, degrees: number): string {
	const s = useBench().state.settings;
	if (degrees === 0) return `across, ${length(at.y, s)} from the top`;
	if (degrees === 90) return `down, ${length(at.x, s)} from the left`;
	return `at ${degrees}°, through ${length(at.x, s)} from the left, ${length(at.y, s)} from the top`;
}
