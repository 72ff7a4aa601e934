import { useDocument } from "../../api/card";
import type { Colourway, Element, PlanMotif, S } from "../../api/client";
import { Layers } from "../../parts/picture";
import { hue } from "../../ui/colours";

/** A colourway with the colours that its layers have where they are printed. */
function where(w?: Colourway, tinted?: S["PlanTinted"][] | null): Colourway | undefined {
	if (!w || !tinted?.length) return w;
	return { ...w, layers: w.layers.map((l) => ({ ...l, tints: tinted.find((t) => t.layer === l.id)?.tints ?? l.tints })) };
}

/** One element, drawn round its own centre. */
export function Thing({
	e,
	drawn,
	over,
	lift,
	on,
	scale,
	parts,
	onPart,
}: {
	e: Element;
	/** The leaves of what is no image. */
	drawn: S["PlanDrawn"][];
	over: boolean;
	lift: number;
	on: boolean;
	scale: number;
	/** Only these of its parts; none: all. */
	parts?: string[];
	/** Its parts are pointed at. */
	onPart?: (part: string) => void;
}) {
	const b = useDocument();
	if (e.image) {
		const look = b.view.plan.motifs.find((m) => m.id === e.image?.motif);
		if (!look) return null;
		const colourway = where(
			look.colourways.find((w) => w.id === e.image?.colourway),
			b.view.plan.front.elements.find((p) => p.id === e.id)?.tinted,
		);
		const card = drawn.find((d) => d.part !== "stencilled");
		const ink = drawn.find((d) => d.part === "stencilled");
		return (
			<>
				{card && (!parts || parts.includes(card.part ?? "")) && (
					<g transform={e.place.mirror ? "scale(-1 1)" : undefined}>
						<Shadow d={card.path} lift={lift} turn={e.place.turn} />
						<Leaf d={card} on={on} scale={scale} />
					</g>
				)}
				<Image
					look={look}
					colourway={colourway}
					on={on && !card}
					over={over}
					lift={card ? 0 : lift}
					turn={e.place.turn}
					mirror={e.place.mirror}
					scale={scale}
					parts={parts}
					onPart={onPart}
				/>
				{ink && !parts && (
					<g transform={e.place.mirror ? "scale(-1 1)" : undefined} pointerEvents="none">
						{ink.films.map((f, i) => (
							<path key={i} d={f.path} fill={f.fill} fillRule="evenodd" />
						))}
					</g>
				)}
			</>
		);
	}
	const shown = parts ? drawn.filter((d) => parts.includes(d.part ?? "")) : drawn;
	return (
		<g transform={e.place.mirror ? "scale(-1 1)" : undefined}>
			{shown.map((d) => (
				<Shadow key={`s${d.part}`} d={d.path} lift={lift} turn={e.place.turn} />
			))}
			{shown.map((d) => (
				<Leaf key={d.part ?? ""} d={d} on={on} over={over} scale={scale} onPart={onPart} />
			))}
		</g>
	);
}

/** A leaf of card with the ink on it. */
export function Leaf({ d, on, over, scale, onPart }: { d: S["PlanDrawn"]; on: boolean; over?: boolean; scale: number; onPart?: (part: string) => void }) {
	return (
		// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the list of parts beneath the table gives the same by keys
		<g onClick={onPart && (() => onPart(d.part ?? ""))}>
			<path d={d.path} fill={d.fill} fillOpacity={d.hides} fillRule="evenodd" />
			{d.films.map((f, i) => (
				<path key={i} d={f.path} fill={f.fill} fillRule="evenodd" pointerEvents="none" />
			))}
			<path
				d={d.path}
				fill={over ? "url(#over)" : "none"}
				fillRule="evenodd"
				stroke={on ? hue.ochre : hue.edge}
				strokeWidth={on ? 2 / scale : 0.12}
				pointerEvents="none"
			/>
		</g>
	);
}

/** The shadow of what stands on foam, as wide as it stands high; light comes from the top left, however the thing is turned. */
function Shadow({ d, lift, turn }: { d: string; lift: number; turn: number }) {
	if (lift <= 0) return null;
	const t = (-turn * Math.PI) / 180;
	const [x, y] = [0.22 * lift, 0.5 * lift];
	const at = (k: number) => `translate(${k * (x * Math.cos(t) - y * Math.sin(t))} ${k * (x * Math.sin(t) + y * Math.cos(t))})`;
	return (
		<g pointerEvents="none" fill={hue.edge} fillRule="evenodd">
			<path d={d} transform={at(1)} stroke={hue.edge} strokeWidth={0.5} strokeOpacity={0.5} />
			<path d={d} transform={at(0.5)} />
		</g>
	);
}

interface ImageProps {
	look: PlanMotif;
	colourway?: Colourway;
	on: boolean;
	over: boolean;
	lift: number;
	turn: number;
	mirror?: boolean;
	scale: number;
	parts?: string[];
	onPart?: (part: string) => void;
}

function Image({ look, colourway, on, over, lift, turn, mirror, scale, parts, onPart }: ImageProps) {
	return (
		<g transform={`${mirror ? "scale(-1 1) " : ""}translate(${-look.minX - look.w / 2} ${-look.minY - look.h / 2})`}>
			{!parts && <Shadow d={look.silhouette} lift={lift} turn={turn} />}
			<Layers look={look} colourway={colourway} parts={parts} onPick={onPart} />
			<path
				d={look.silhouette}
				fill={over ? "url(#over)" : "#0000"}
				pointerEvents={onPart ? "none" : undefined}
				stroke={on ? hue.ochre : "none"}
				strokeWidth={2.4 / scale}
				fillRule="evenodd"
			/>
		</g>
	);
}
