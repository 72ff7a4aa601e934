import { useBench } from "../../api/card";
import { bare, hue } from "../../ui/colours";
import type { Measured } from "./measure";

/** A measured print over the design: the design as it should be, every measured layer's edge where it lies. */
export function MeasuredView({ done, at, scale }: { done: Measured; at: number; scale: number }) {
	const b = useBench();
	const { look, colourway } = b;
	const print = done.prints[Math.min(at, done.prints.length - 1)];
	if (!look || !print) return null;
	return (
		<g>
			{look.layers.map((l, i) => (
				<path key={l.id} d={l.outline} fill={colourway?.layers[i]?.dry ?? bare} fillOpacity={0.55} fillRule="evenodd" />
			))}
			{print.layers.map((v) => {
				const l = look.layers.find((x) => x.id === v.layer);
				if (!l || v.lost) return null;
				const [cx, cy] = [l.play.centreX, l.play.centreY];
				return (
					<g key={v.layer}>
						<path
							d={l.outline}
							fill="none"
							stroke={v.good ? hue.lichen : hue.madder}
							strokeWidth={1.6 / scale}
							strokeDasharray={v.good ? undefined : `${7 / scale} ${3 / scale}`}
							transform={`translate(${v.x} ${v.y}) rotate(${v.turn} ${cx} ${cy})`}
						/>
						<line x1={cx} y1={cy} x2={cx + v.x * 10} y2={cy + v.y * 10} stroke={v.good ? hue.lichen : hue.madder} strokeWidth={2 / scale} />
						<circle cx={cx + v.x * 10} cy={cy + v.y * 10} r={3.5 / scale} fill={v.good ? hue.lichen : hue.madder} />
					</g>
				);
			})}
		</g>
	);
}
