import { useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { hue } from "../../ui/colours";
import { between } from "./again";

type P = S["Offset"];

/** The line that parts a piece in two colours: its points are dragged, and between two of them a third is pulled out. */
export function PartingLine({ layer, scale }: { layer: S["Layer"]; scale: number }) {
	const b = useBench();
	const group = useRef<SVGGElement>(null);
	const [held, setHeld] = useState<{ at: number; line: P[] }>();
	const region = layer.region;
	const saved = region?.line;
	if (!region || region.part || !saved || saved.length < 2) return null;
	const line = held?.line ?? saved;
	const place = (ev: React.PointerEvent): P | undefined => {
		const m = group.current?.getScreenCTM()?.inverse();
		if (!m) return undefined;
		const p = new DOMPoint(ev.clientX, ev.clientY).matrixTransform(m);
		return { x: p.x, y: p.y };
	};
	const drop = () => {
		if (held && b.motif) b.edit({ layer: { motif: b.motif.id, layer: { ...layer, region: { ...region, line: held.line.map(rounded) } } } });
		setHeld(undefined);
	};
	const take = (at: number, from: P[]) => (ev: React.PointerEvent) => {
		ev.stopPropagation();
		group.current?.setPointerCapture(ev.pointerId);
		setHeld({ at, line: from });
	};
	const drag = (ev: React.PointerEvent) => {
		const p = held && place(ev);
		if (p) setHeld({ at: held.at, line: held.line.map((q, i) => (i === held.at ? p : q)) });
	};
	const d = `M${line.map((p) => `${p.x} ${p.y}`).join("L")}`;
	const hands = { onPointerMove: drag, onPointerUp: drop, onPointerCancel: () => setHeld(undefined) };
	return (
		<g ref={group} {...hands}>
			<path d={d} fill="none" stroke={hue.sheet} strokeWidth={4 / scale} />
			<path d={d} fill="none" stroke={hue.madder} strokeWidth={1.8 / scale} strokeDasharray={`${7 / scale} ${4 / scale}`} />
			{line.map(
				(p, i) =>
					i > 0 &&
					!held && (
						<circle
							key={`between ${i}`}
							{...at(between(line[i - 1], p))}
							r={7 / scale}
							fill={hue.sheet}
							stroke={hue.madder}
							strokeWidth={1 / scale}
							strokeDasharray={`${2 / scale}`}
							style={{ cursor: "copy", touchAction: "none" }}
							onPointerDown={take(i, [...line.slice(0, i), between(line[i - 1], p), ...line.slice(i)])}
						/>
					),
			)}
			{line.map((p, i) => (
				<circle
					key={i}
					data-point={i + 1}
					{...at(p)}
					r={12 / scale}
					fill={hue.madder}
					fillOpacity={held?.at === i ? 0.35 : 0.9}
					stroke={hue.sheet}
					strokeWidth={1.5 / scale}
					style={{ cursor: "grab", touchAction: "none" }}
					onPointerDown={take(i, saved)}
				/>
			))}
		</g>
	);
}

const at = (p: P) => ({ cx: p.x, cy: p.y });
const rounded = (p: P) => ({ x: Math.round(p.x * 100) / 100, y: Math.round(p.y * 100) / 100 });
