import { useBench } from "../../api/card";
import type { Element } from "../../api/client";
import { useMeetings } from "../../api/queries";
import { hue } from "../../ui/colours";
import { crossed } from "./crossed";

/** Where what is in hand crosses another thing: the bar that is unbroken goes over. A tap lets that part cross the other way. */
export function Marks({ e, scale }: { e: Element; scale: number }) {
	const b = useBench();
	const got = useMeetings(b.view.id, b.view.version, e.id) ?? [];
	const r = 10 / scale;
	const bar = 3.4 / scale;
	const put: { x: number; y: number }[] = [];
	return (
		<>
			{got.flatMap((m) =>
				m.parts.map((p) => {
					const { over } = p;
					// Two at one spot cannot be told apart: the list has both.
					if (put.some((q) => Math.hypot(q.x - p.x, q.y - p.y) < 2 * r)) return null;
					put.push(p);
					const turn = () => b.edit({ tucks: { element: e.id, with: m.id, parts: crossed(e, m.id, p.id) } });
					return (
						// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; Over and under gives the same by keys
						<g key={`${m.id} ${p.id}`} className="crossing" transform={`translate(${p.x} ${p.y})`} style={{ cursor: "pointer" }} onClick={turn}>
							<title>{`${p.label} goes ${over ? "over" : "beneath"} ${m.label}`}</title>
							<circle r={r} fill={hue.white} stroke={p.impossible ? hue.madder : hue.text} strokeWidth={1.2 / scale} />
							{/* Upright: the part in hand. Across: the other. */}
							{over ? (
								<path d={`M${-r} 0H${-r * 0.34}M${r * 0.34} 0H${r}`} stroke={hue.slate} strokeWidth={bar} />
							) : (
								<path d={`M0 ${-r}V${-r * 0.34}M0 ${r * 0.34}V${r}`} stroke={hue.ochre} strokeWidth={bar} />
							)}
							{over ? <path d={`M0 ${-r}V${r}`} stroke={hue.ochre} strokeWidth={bar} /> : <path d={`M${-r} 0H${r}`} stroke={hue.slate} strokeWidth={bar} />}
						</g>
					);
				}),
			)}
		</>
	);
}
