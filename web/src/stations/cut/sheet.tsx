import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { hue } from "../../ui/colours";
import { length } from "../../ui/units";

/** A sheet with what is cut from it; its straight cuts numbered in their order. */
export function OnSheet({ s, sheet }: { s: S["CutStock"]; sheet: S["CutSheet"] }) {
	const b = useBench();
	const u = b.state.settings;
	const k = Math.min(240 / sheet.w, 300 / sheet.h);
	const px = 1 / k;
	return (
		<svg
			viewBox={`${-px} ${-px} ${sheet.w + 2 * px} ${sheet.h + 2 * px}`}
			width={sheet.w * k + 2}
			height={sheet.h * k + 2}
			role="img"
			aria-label={`${s.name}, ${length(sheet.w, u)} × ${length(sheet.h, u)}: ${sheet.placed.length} pieces on it`}
			style={{ flex: "none" }}
		>
			<rect width={sheet.w} height={sheet.h} fill={s.colour} stroke={hue.text} strokeWidth={px} />
			{sheet.left.map((a, i) => (
				<rect key={i} x={a.x} y={a.y} width={a.w} height={a.h} fill="none" stroke={hue.rule} strokeDasharray={`${4 * px} ${3 * px}`} strokeWidth={px} />
			))}
			{sheet.placed.map((p, i) => {
				const w = s.wants[p.want];
				const on = !!b.element && w.element === b.element;
				return (
					// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
					<path
						key={i}
						data-piece={w.name}
						d={p.path}
						fillRule="evenodd"
						fill={on ? hue.glow : hue.veil}
						stroke={on ? hue.ochre : hue.text}
						strokeWidth={(on ? 2 : 0.8) * px}
						onClick={() => w.element && b.pick({ element: w.element })}
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
