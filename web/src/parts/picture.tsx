import type { ReactNode } from "react";
import type { Colourway, PlanMotif } from "../api/client";
import { bare, hue } from "../ui/colours";
import { Shades } from "./shades";

/** A layered image at true proportion in its own frame; spread 1 lays the layers apart, 0 stacks them. */
export function Layers({
	look,
	colourway,
	wet,
	spread = 0,
	layer,
	onPick,
}: {
	look: PlanMotif;
	colourway?: Colourway;
	wet?: boolean;
	spread?: number;
	layer?: string;
	onPick?: (id: string) => void;
}) {
	const n = look.layers.length;
	return (
		<>
			{look.layers.map((l, i) => {
				const c = colourway?.layers[i];
				const at = apart(look, i, n, spread);
				return (
					<g
						key={l.id}
						transform={`translate(${at.x} ${at.y})`}
						className="settle"
						onClick={onPick && (() => onPick(l.id))}
						style={onPick && { cursor: "pointer" }}
					>
						<path
							d={l.outline}
							fill={c ? (wet ? c.wet : c.dry) : bare}
							fillRule="evenodd"
							stroke={layer === l.id ? hue.ochre : hue.edge}
							strokeWidth={layer === l.id ? 0.7 : 0.08}
						/>
						{c && c.blends.length > 0 && <Shades layer={l} blends={c.blends} wet={wet} />}
						{spread > 0.6 && (
							<text x={look.minX} y={look.minY + 6} fontSize={7} fontWeight={700} fill={hue.text}>
								{i + 1}
							</text>
						)}
					</g>
				);
			})}
		</>
	);
}

/** Where layer i lies when laid apart in three columns, lowest first. */
export function apart(look: PlanMotif, i: number, n: number, spread: number) {
	const cols = n > 4 ? 3 : 2;
	const x = (i % cols) * look.w * 1.08;
	const y = Math.floor(i / cols) * look.h * 1.12;
	return { x: x * spread, y: y * spread };
}

export function apartBox(look: PlanMotif, spread: number): Box {
	const n = look.layers.length;
	const cols = n > 4 ? 3 : 2;
	const rows = Math.ceil(n / cols);
	return { x: look.minX, y: look.minY, w: look.w * (1 + (cols - 1) * 1.08 * spread), h: look.h * (1 + (rows - 1) * 1.12 * spread) };
}

export interface Box {
	x: number;
	y: number;
	w: number;
	h: number;
}

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
				<h1 style={{ fontSize: 20 }}>{title}</h1>
				{sub && <div style={{ fontSize: 13, lineHeight: 1.35 }}>{sub}</div>}
			</div>
			{tools && <div style={{ display: "flex", gap: 8, flexWrap: "wrap", alignItems: "center" }}>{tools}</div>}
			{children}
		</div>
	);
}
