import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../../api/card";
import { useRing } from "../../api/queries";
import { hue } from "../../ui/colours";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Select } from "../../ui/select";
import { length } from "../../ui/units";

/** A turning jig for the image in hand: the ring it makes, and its sheet to print. */
export function TurningJig({ w }: { w: number }) {
	const b = useBench();
	const [turns, setTurns] = useState(8);
	const [width, setWidth] = useState(Math.min(40, Math.round(w * 2) / 2));
	const [gap, setGap] = useState(2);
	const [inner, setInner] = useState(0);
	const [panel, setPanel] = useState(0);
	const [kind, setKind] = useState<"plate" | "disc">("plate");
	const ring = useRing(b.state.settings.unit, { turns, width, gap, inner, panel, kind });
	const s = b.state.settings;
	const q = new URLSearchParams({ turns: `${turns}`, width: `${width}`, gap: `${gap}`, inner: `${inner}`, panel: `${panel}`, kind });
	return (
		<>
			<Box display="flex" gap="5" flexWrap="wrap" alignItems="end">
				<NumberField label="Turns" v={turns} set={setTurns} min={3} max={16} step={1} />
				<LengthField label="Width of the image" mm={width} onSet={setWidth} min={1} max={200} />
				<LengthField label="Gap" mm={gap} onSet={setGap} min={0} max={50} />
				<Select label="Jig" value={kind} onChange={(v) => setKind(v as typeof kind)}>
					<option value="plate">plate with a side for each turn</option>
					<option value="disc">disc with marks</option>
				</Select>
				<LengthField label="Second ring, width" mm={inner} onSet={setInner} min={0} max={200} />
				<LengthField label="Square panel" mm={panel} onSet={setPanel} min={0} max={300} />
			</Box>
			{ring && (
				<Box display="flex" gap="6" alignItems="center">
					<Ring turns={turns} radius={ring.radius} width={width} second={ring.second} inner={inner} panel={panel} />
					<Box>
						Turn {ring.step.toFixed(ring.step % 1 ? 1 : 0)}° each time. The middles lie {length(ring.radius, s)} from the centre; neighbours would touch at{" "}
						{length(ring.touch, s)}. The ring is {length(ring.across, s)} across.
						{ring.largest > 0 && ` On this panel the largest image that clears its neighbours is ${length(ring.largest, s)} wide.`}
						{inner > 0 &&
							(ring.second > 0
								? ` The second ring stands ${length(ring.second, s)} from the centre, half a step on.`
								: " The second ring does not fit between: make its images smaller.")}
						{!ring.fits && " Its jig does not fit on a page: take fewer turns or a smaller image."}
					</Box>
				</Box>
			)}
			{ring?.fits && !(inner > 0 && ring.second === 0) && (
				<Box>
					<a className="main-link" href={`/api/jig.pdf?${q}`} target="_blank" rel="noreferrer">
						Print the jig
					</a>
				</Box>
			)}
		</>
	);
}

/** The ring as it will stand. */
function Ring({ turns, radius, width, second, inner, panel }: { turns: number; radius: number; width: number; second: number; inner: number; panel: number }) {
	const reach = Math.max(radius + width / 2, panel / 2) * 1.04;
	const line = reach / 70;
	const at = (k: number, r: number) => [r * Math.cos((k * 2 * Math.PI) / turns + Math.PI / 2), r * Math.sin((k * 2 * Math.PI) / turns + Math.PI / 2)];
	return (
		<svg
			viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`}
			width={132}
			height={132}
			style={{ flex: "none" }}
			role="img"
			aria-label={`A ring of ${turns}`}
		>
			{panel > 0 && <rect x={-panel / 2} y={-panel / 2} width={panel} height={panel} fill="#fbfbfa" stroke={hue.rule} strokeWidth={line} />}
			{Array.from({ length: turns }, (_, k) => {
				const [x, y] = at(k, radius);
				const [u, v] = at(k + 0.5, second);
				return (
					<g key={k}>
						<circle cx={x} cy={y} r={width / 2} fill={k === 0 ? hue.fill : hue.ground} stroke={hue.text} strokeWidth={line} />
						{second > 0 && <circle cx={u} cy={v} r={inner / 2} fill="none" stroke={hue.text} strokeWidth={line} />}
					</g>
				);
			})}
			<path d={`M${-3 * line} 0H${3 * line}M0 ${-3 * line}V${3 * line}`} stroke={hue.text} strokeWidth={line} />
		</svg>
	);
}
