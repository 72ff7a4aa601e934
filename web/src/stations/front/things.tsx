import { useDocument } from "../../api/card";
import { type Colourway, type Element, type PlanMotif, turnedOf, wordsOf } from "../../api/client";
import { Layers } from "../../parts/picture";
import { bare, hue } from "../../ui/colours";

/** One element, drawn round its own centre. */
export function Thing({ e, over, lift, on, scale }: { e: Element; over: boolean; lift: number; on: boolean; scale: number }) {
	const b = useDocument();
	const st = e.sheet;
	if (st) {
		const words = wordsOf(e);
		const [w, h] = [(st.w ?? 0) - 2 * (st.trim ?? 0), (st.h ?? 0) - 2 * (st.trim ?? 0)];
		const paper = b.state.kit.papers.find((p) => p.id === st.paper)?.colour ?? bare;
		const ink = b.state.inks.find((i) => i.id === words?.ink)?.dry ?? hue.text;
		return (
			<>
				<Shadow d={`M${-w / 2} ${-h / 2}h${w}v${h}h${-w}Z`} lift={lift} turn={e.place.turn} />
				<rect x={-w / 2} y={-h / 2} width={w} height={h} fill={paper} stroke={on ? hue.ochre : hue.edge} strokeWidth={on ? 2 / scale : 0.1} />
				{words && (
					<text textAnchor="middle" y={words.letter / 2} fontSize={words.letter / 0.668} fill={ink} pointerEvents="none">
						{words.text}
					</text>
				)}
				<Turned e={e} />
				{over && <rect x={-w / 2} y={-h / 2} width={w} height={h} fill="url(#over)" pointerEvents="none" />}
			</>
		);
	}
	if (e.gems) {
		const { size, colour, places } = e.gems;
		return (
			<>
				{places.map((p, i) => (
					<circle
						key={i}
						cx={p.x}
						cy={p.y}
						r={size / 2}
						fill={over ? "url(#over)" : colour}
						stroke={on ? hue.ochre : hue.edge}
						strokeWidth={on ? 2 / scale : 0.15}
					/>
				))}
			</>
		);
	}
	const look = b.view.plan.motifs.find((m) => m.id === e.image?.motif);
	if (!look) return null;
	const colourway = look.colourways.find((w) => w.id === e.image?.colourway);
	return <Image look={look} colourway={colourway} on={on} over={over} lift={lift} turn={e.place.turn} scale={scale} />;
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
	scale: number;
}

function Image({ look, colourway, on, over, lift, turn, scale }: ImageProps) {
	return (
		<g transform={`translate(${-look.minX - look.w / 2} ${-look.minY - look.h / 2})`}>
			<Shadow d={look.silhouette} lift={lift} turn={turn} />
			<Layers look={look} colourway={colourway} />
			<path d={look.silhouette} fill={over ? "url(#over)" : "#0000"} stroke={on ? hue.ochre : "none"} strokeWidth={2.4 / scale} fillRule="evenodd" />
		</g>
	);
}

/** A pattern turned on a sheet, as far as the trim leaves it. */
function Turned({ e }: { e: Element }) {
	const b = useDocument();
	const t = turnedOf(e);
	const plan = b.view.plan.patterns.find((p) => p.id === e.id);
	const look = b.view.plan.motifs.find((m) => m.id === t?.motif);
	if (!t || !plan || !look) return null;
	const half = ((e.sheet?.w ?? 0) - 2 * (e.sheet?.trim ?? 0)) / 2;
	const made = b.card.motifs.find((m) => m.id === t.motif)?.layers;
	return (
		<>
			<clipPath id={`turned ${e.id}`}>
				<rect x={-half} y={-half} width={2 * half} height={2 * half} />
			</clipPath>
			<g clipPath={`url(#${CSS.escape(`turned ${e.id}`)})`} pointerEvents="none">
				{look.layers.map((l, i) =>
					(made?.[i]?.make === "cut" ? [] : plan.strikes).map((k) => (
						<path
							key={`${l.id} ${k.number}`}
							d={l.outline}
							fill={look.colourways.find((w) => w.id === k.colourway)?.layers[i]?.dry}
							fillRule="evenodd"
							style={{ mixBlendMode: "multiply" }}
							transform={`translate(${k.x - plan.midX} ${k.y - plan.midY}) rotate(${k.turn} ${plan.midX} ${plan.midY})`}
						/>
					)),
				)}
			</g>
		</>
	);
}
