import { Box } from "@chakra-ui/react";
import { type PointerEvent, useRef, useState } from "react";
import { api, ok } from "../../../api/client";

import { Table } from "../../../parts/table";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { LengthField } from "../../../ui/length";
import { size } from "../../../ui/sizes";
import { length, type Settings } from "../../../ui/units";
import type { Found, Piece } from "./found";
import { middle } from "./paths";

const many: Record<Found["as"], string> = { pieces: "pieces", mat: "pieces", stamps: "prints", stencil: "openings" };

/** How sure an outline is, without where. */
const shortly = (said = "") => said.split(",")[0];

type Line = { ax: number; ay: number; bx: number; by: number };

/** The sheet as it was laid, with what was found in it: leave out what is nothing, cut apart what touches. */
export function Sheet({
	found,
	settings,
	busy,
	onPieces,
	onStack,
}: {
	found: Found;
	settings: Settings;
	busy: boolean;
	onPieces: (p: Piece[]) => void;
	onStack: () => void;
}) {
	const [on, setOn] = useState(-1);
	const [line, setLine] = useState<Line>();
	const [cutting, setCutting] = useState(false);
	const [wrong, setWrong] = useState("");
	const svg = useRef<SVGGElement>(null);
	const { traced, pieces } = found;
	const kept = pieces.filter((p) => !p.out).length;
	const chosen = pieces[on];

	const place = (e: PointerEvent) => {
		const m = svg.current?.getScreenCTM()?.inverse();
		return m ? new DOMPoint(e.clientX, e.clientY).matrixTransform(m) : { x: 0, y: 0 };
	};
	const cut = async (l: Line) => {
		if (!chosen) return;
		try {
			const parts = await ok(api.POST("/api/scan/split", { body: { outline: chosen.outline, colour: chosen.colour, ...l } }));
			onPieces([...pieces.slice(0, on), ...(parts ?? []), ...pieces.slice(on + 1)]);
			setCutting(false);
			setWrong("");
		} catch (e) {
			setWrong((e as Error).message);
		}
		setLine(undefined);
	};
	return (
		<div className="station scan">
			<div className="place" style={{ display: "flex", flexDirection: "column", minHeight: 0 }}>
				<Table box={{ x: 0, y: 0, w: traced.w, h: traced.h }} settings={settings} label="The sheet and what was found on it" origin={{ x: 0, y: 0 }}>
					{(scale) => (
						<g
							ref={svg}
							style={{ cursor: cutting ? "crosshair" : "default", touchAction: cutting ? "none" : undefined }}
							onPointerDown={(e) => {
								if (!cutting) return;
								const p = place(e);
								e.currentTarget.setPointerCapture(e.pointerId);
								setLine({ ax: p.x, ay: p.y, bx: p.x, by: p.y });
							}}
							onPointerMove={(e) => {
								if (!cutting || !line) return;
								const p = place(e);
								setLine({ ...line, bx: p.x, by: p.y });
							}}
							onPointerUp={() => cutting && line && cut(line)}
						>
							<rect width={traced.w} height={traced.h} fill={hue.bed} />
							{found.picture && <image href={found.picture} width={traced.w} height={traced.h} preserveAspectRatio="none" opacity={0.9} />}
							{pieces.map((p, i) => {
								const c = middle(p.outline);
								return (
									// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the list of pieces beside it gives the same by keys
									<g key={`${i}-${p.area}`} onClick={() => !cutting && setOn(i)} style={{ cursor: cutting ? "crosshair" : "pointer" }}>
										<path
											d={p.outline}
											fillRule="evenodd"
											fill={found.picture ? (i === on ? hue.glow : "#ffffff01") : p.colour}
											stroke={p.out ? hue.rule : p.touches || p.cut ? hue.madder : i === on ? hue.ochre : hue.fill}
											strokeWidth={(i === on ? 3 : 1.6) / scale}
											strokeDasharray={p.out ? `${4 / scale} ${4 / scale}` : undefined}
										/>
										{p.doubt && !p.out && (
											<>
												<path className="doubt" d={p.doubt} fill="none" stroke={hue.white} strokeWidth={3.4 / scale} />
												<path d={p.doubt} fill="none" stroke={hue.madder} strokeWidth={3.4 / scale} strokeDasharray={`${7 / scale} ${6 / scale}`} />
											</>
										)}
										<circle cx={c.x} cy={c.y} r={9 / scale} fill={p.out ? hue.rule : hue.text} opacity={0.85} />
										<text x={c.x} y={c.y + 4 / scale} fontSize={12 / scale} fontWeight={700} textAnchor="middle" fill={hue.white}>
											{i + 1}
										</text>
									</g>
								);
							})}
							{traced.lines && <path d={traced.lines} fill="none" stroke="#7cc0e8" strokeWidth={2 / scale} />}
							{line && <line x1={line.ax} y1={line.ay} x2={line.bx} y2={line.by} stroke={hue.madder} strokeWidth={2 / scale} />}
						</g>
					)}
				</Table>
			</div>
			<Box bg="sheet" borderLeft="1px solid {colors.line}" py="7" px="9" overflowY="auto" minH={0} display="flex" flexDirection="column" gap="5">
				<h2 style={{ fontSize: size.sub }}>
					{pieces.length} {many[found.as]} found
				</h2>
				<Box fontSize="small">{traced.sure}</Box>
				<Box
					as="ul"
					listStyleType="none"
					p="0"
					fontSize="small"
					borderTop="1px solid {colors.line}"
					flex="1 1 120px"
					minH="90px"
					overflowY="auto"
					tabIndex={0}
					aria-label="What was found"
				>
					{pieces.map((p, i) => (
						<li key={`${i}-${p.area}`}>
							<button type="button" className="row" aria-pressed={i === on} onClick={() => setOn(i)}>
								<span style={{ width: 22, fontWeight: 700 }}>{i + 1}</span>
								<span style={{ width: 18, height: 18, background: p.colour, border: `1px solid ${hue.edge}` }} />
								<span style={{ flex: 1, textDecoration: p.out ? "line-through" : undefined }}>
									{length(p.w, settings)} × {length(p.h, settings)}
								</span>
								<span style={{ color: p.touches || p.cut ? hue.madder : hue.quiet }}>
									{p.out ? "left out" : p.cut ? "cut off?" : p.touches ? "two that touch?" : p.doubt ? `${shortly(p.said)} in doubt` : shortly(p.said)}
								</span>
							</button>
						</li>
					))}
				</Box>
				{chosen?.said && (
					<Box fontSize="small" role="status">
						Outline {on + 1} is sure to {chosen.said}.{" "}
						{chosen.doubt
							? "Take it as it is and set its place by hand when it is stacked, or scan it again: flat under a weight, on a dark sheet if it is light, turned so that no shadow falls there."
							: ""}
					</Box>
				)}
				{chosen && (
					<Box display="flex" gap="4" flexWrap="wrap">
						<Button onClick={() => onPieces(pieces.map((p, i) => (i === on ? { ...p, out: !p.out } : p)))}>
							{chosen.out ? `Take ${on + 1} in again` : `Leave ${on + 1} out`}
						</Button>
						<Button aria-pressed={cutting} onClick={() => setCutting(!cutting)}>
							{cutting ? "Do not cut" : `Cut ${on + 1} apart`}
						</Button>
					</Box>
				)}
				{cutting && <CutByNumbers piece={chosen} onCut={cut} />}
				{wrong && (
					<Box role="alert" color="madder">
						{wrong}
					</Box>
				)}
				{traced.notes.map((n) => (
					<Box key={n} fontSize="small" borderLeft="4px solid {colors.fill}" pl="4">
						{n}
					</Box>
				))}
				<Box fontSize="small" color="quiet">
					Check that each outline runs along its edge. Leave out dust and shadows.
				</Box>
				<Button variant="main" disabled={busy || kept === 0} onClick={onStack}>
					Stack {kept === 1 ? "it" : `the ${kept}`}
				</Button>
			</Box>
		</div>
	);
}

/** A cut without a pointer: from one place to another, on the rulers. */
function CutByNumbers({ piece, onCut }: { piece?: Piece; onCut: (l: Line) => void }) {
	const c = piece ? middle(piece.outline) : { x: 0, y: 0 };
	const [v, setV] = useState({ ax: c.x, ay: c.y - (piece?.h ?? 0), bx: c.x, by: c.y + (piece?.h ?? 0) });
	const field = (k: keyof typeof v, label: string) => <LengthField label={label} mm={v[k]} onSet={(mm) => setV({ ...v, [k]: mm })} width="72px" />;
	return (
		<Box>
			<Box fontSize="small" mb="2">
				Draw the cut on the sheet, right across where they touch, or give its ends:
			</Box>
			<Box display="flex" gap="3" alignItems="end" flexWrap="wrap">
				{field("ax", "From across")}
				{field("ay", "down")}
				{field("bx", "To across")}
				{field("by", "down")}
				<Button onClick={() => onCut(v)}>Cut</Button>
			</Box>
		</Box>
	);
}
