import { memo, type ReactNode } from "react";
import type { Colourway, PlanMotif } from "../api/client";

import { bare, hue } from "../ui/colours";
import { size } from "../ui/sizes";
import type { Apart } from "./apart";
import { Shades } from "./shades";

interface LayerProps {
	l: PlanMotif["layers"][0];
	c?: Colourway["layers"][0];
	wet?: boolean;
	x: number;
	y: number;
	on: boolean;
	onPick?: (id: string) => void;
}

/** One layer, drawn again only when something of its own changes. */
const One = memo(function One({ l, c, wet, x, y, on, onPick }: LayerProps) {
	return (
		// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
		<g transform={`translate(${x} ${y})`} className="settle" onClick={onPick && (() => onPick(l.id))} style={onPick && { cursor: "pointer" }}>
			{c?.bare ? (
				// Not printed: what lies beneath is seen as it is; only what is chosen is outlined.
				<path d={l.outline} fill="transparent" stroke={on ? hue.ochre : x || y ? hue.edge : "none"} strokeWidth={on ? 0.7 : 0.2} strokeDasharray="1.4 1" />
			) : (
				<path d={l.outline} fill={c ? (wet ? c.wet : c.dry) : bare} fillRule="evenodd" stroke={on ? hue.ochre : hue.edge} strokeWidth={on ? 0.7 : 0.08} />
			)}
			{!wet && c?.tints?.map((t) => <path key={t.path} d={t.path} fill={t.dry} fillRule="evenodd" pointerEvents="none" />)}
			{c && c.blends.length > 0 && <Shades layer={l} blends={c.blends} wet={wet} />}
		</g>
	);
});

/** A layered image at true proportion in its own frame, stacked or laid apart, then with labels. */
export const Layers = memo(function Layers({
	look,
	colourway,
	wet,
	apart,
	labels,
	layer,
	parts,
	onPick,
}: {
	look: PlanMotif;
	colourway?: Colourway;
	wet?: boolean;
	apart?: Apart;
	/** What stands beneath each layer that lies apart. */
	labels?: string[];
	layer?: string;
	/** Only these layers; none: all. */
	parts?: string[];
	onPick?: (id: string) => void;
}) {
	return (
		<>
			{look.layers.map((l, i) => {
				if (parts && !parts.includes(l.id)) return null;
				const at = apart?.moved[i];
				return <One key={l.id} l={l} c={colourway?.layers[i]} wet={wet} x={at?.x ?? 0} y={at?.y ?? 0} on={layer === l.id} onPick={onPick} />;
			})}
			{apart && labels && (
				<g className="labels">
					{labels.map((text, i) => (
						<text
							key={look.layers[i].id}
							x={apart.label[i].x + apart.moved[i].x}
							y={apart.label[i].y + apart.moved[i].y}
							fontSize={apart.font}
							fontWeight={700}
							textAnchor="middle"
							fill="currentColor"
							pointerEvents="none"
						>
							{text}
						</text>
					))}
				</g>
			)}
		</>
	);
});

export function Picture({ look, colourway, wet, pad = 2, title }: { look: PlanMotif; colourway?: Colourway; wet?: boolean; pad?: number; title: string }) {
	return (
		<svg viewBox={`${look.minX - pad} ${look.minY - pad} ${look.w + 2 * pad} ${look.h + 2 * pad}`} width="100%" height="100%" role="img" aria-label={title}>
			<Layers look={look} colourway={colourway} wet={wet} />
		</svg>
	);
}

export const grounds = { grey: "#a9aaa9", chalk: "#efeae2", kraft: "#b08c64", dark: "#26282b" } as const;
export type Ground = keyof typeof grounds;

export function Frame({ title, sub, tools, children }: { title: string; sub?: ReactNode; tools?: ReactNode; children?: ReactNode }) {
	return (
		<div style={{ display: "flex", gap: 16, alignItems: "flex-start", flexWrap: "wrap", padding: "10px 20px 6px" }}>
			<div style={{ flex: "1 1 200px" }}>
				<h1 style={{ fontSize: size.title }}>{title}</h1>
				{sub && <div style={{ fontSize: size.small, lineHeight: 1.35 }}>{sub}</div>}
			</div>
			{tools && <div style={{ display: "flex", gap: 8, flexWrap: "wrap", alignItems: "center" }}>{tools}</div>}
			{children}
		</div>
	);
}
