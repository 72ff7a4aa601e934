import { useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { hue } from "../../ui/colours";
import { length } from "../../ui/units";

/** A sheet with what is cut from it; its straight cuts numbered in their order. On a fresh
 * sheet pieces are dragged, or moved by keys: the others are laid round what lies by hand, and
 * what is cut straight is parted by cuts from edge to edge. number is which of the fresh
 * sheets of its sort it is, below 0 for others. */
export function OnSheet({ s, sheet, number, straight }: { s: S["CutStock"]; sheet: S["CutSheet"]; number: number; straight: boolean }) {
	const b = useBench();
	const u = b.state.settings;
	const k = Math.min(240 / sheet.w, 300 / sheet.h);
	const px = 1 / k;
	const from = useRef<{ i: number; x: number; y: number }>(null);
	const [held, setHeld] = useState<{ i: number; dx: number; dy: number }>();
	const lay = (p: S["CutPlace"], dx: number, dy: number, turn = 0) => {
		const w = s.wants[p.want];
		b.edit({
			layByHand: {
				piece: {
					stock: s.stock,
					element: w.element,
					motif: w.motif,
					way: w.way,
					part: w.part,
					copy: p.copy,
					sheet: number,
					x: Math.max(0, p.x + dx),
					y: Math.max(0, p.y + dy),
					turn: (((p.turn + turn) % 360) + 360) % 360,
				},
			},
		});
	};
	return (
		<svg
			viewBox={`${-px} ${-px} ${sheet.w + 2 * px} ${sheet.h + 2 * px}`}
			width={sheet.w * k + 2}
			height={sheet.h * k + 2}
			role={number >= 0 ? "group" : "img"}
			aria-label={`${s.name}, ${length(sheet.w, u)} × ${length(sheet.h, u)}: ${sheet.placed.length} pieces on it`}
			style={{ flex: "none", touchAction: number >= 0 ? "none" : undefined }}
		>
			<rect width={sheet.w} height={sheet.h} fill={s.colour} stroke={hue.text} strokeWidth={px} />
			{sheet.left.map((a, i) => (
				<rect key={i} x={a.x} y={a.y} width={a.w} height={a.h} fill="none" stroke={hue.rule} strokeDasharray={`${4 * px} ${3 * px}`} strokeWidth={px} />
			))}
			{sheet.placed.map((p, i) => {
				const w = s.wants[p.want];
				const on = (!!b.element && w.element === b.element) || held?.i === i;
				const loose = number >= 0 && !s.taken && !w.card && (!straight || w.by === "trimmer");
				return (
					// biome-ignore lint/a11y/noStaticElementInteractions: where it can be moved it is a button, by keys too
					<path
						key={i}
						data-piece={w.name}
						data-hand={p.hand || undefined}
						d={p.path}
						transform={held?.i === i ? `translate(${held.dx} ${held.dy})` : undefined}
						fillRule="evenodd"
						fill={on ? hue.glow : hue.veil}
						stroke={on || p.hand ? hue.ochre : hue.text}
						strokeWidth={(on || p.hand ? 2 : 0.8) * px}
						style={{ cursor: loose ? "move" : undefined }}
						role={loose ? "button" : undefined}
						tabIndex={loose ? 0 : undefined}
						aria-label={loose ? `${w.name}${p.hand ? ", laid by hand" : ""}` : undefined}
						onClick={() => w.element && b.pick({ element: w.element })}
						onPointerDown={(e) => {
							if (!loose) return;
							e.currentTarget.setPointerCapture(e.pointerId);
							from.current = { i, x: e.clientX, y: e.clientY };
						}}
						onPointerMove={(e) => {
							const f = from.current;
							if (f?.i === i) setHeld({ i, dx: (e.clientX - f.x) / k, dy: (e.clientY - f.y) / k });
						}}
						onPointerUp={() => {
							from.current = null;
							if (held && Math.hypot(held.dx, held.dy) > 1) lay(p, held.dx, held.dy);
							setHeld(undefined);
						}}
						onKeyDown={(e) => {
							if (!loose) return;
							const step = { ArrowLeft: [-1, 0, 0], ArrowRight: [1, 0, 0], ArrowUp: [0, -1, 0], ArrowDown: [0, 1, 0], t: [0, 0, 15] }[e.key];
							if (!step) return;
							e.preventDefault();
							e.stopPropagation();
							lay(p, step[0], step[1], step[2]);
						}}
					>
						<title>{`${w.name}, ${length(w.w, u)} × ${length(w.h, u)}`}</title>
					</path>
				);
			})}
			{sheet.cuts.map((c, i) => {
				const x = c.down ? c.x + c.at : c.x + 9 * px;
				const y = c.down ? c.y + 9 * px : c.y + c.at;
				return (
					<g key={i} pointerEvents="none">
						<line
							x1={c.down ? x : c.x}
							x2={c.down ? x : c.x + c.w}
							y1={c.down ? c.y : y}
							y2={c.down ? c.y + c.h : y}
							stroke={hue.ochre}
							strokeWidth={1.5 * px}
						/>
						<circle cx={x} cy={y} r={7.5 * px} fill={hue.sheet} stroke={hue.ochre} strokeWidth={px} />
						<text x={x} y={y + 4 * px} fontSize={11 * px} textAnchor="middle" fill={hue.text}>
							{i + 1}
						</text>
					</g>
				);
			})}
		</svg>
	);
}
