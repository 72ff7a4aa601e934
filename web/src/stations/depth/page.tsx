import { Box } from "@chakra-ui/react";
import { useLayoutEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { useSection, useSettings } from "../../api/queries";
import { Beside, useNotesAbout } from "../../parts/beside";
import { CardStrata } from "../../parts/card-strata";
import { Frame } from "../../parts/picture";
import { StationFrame } from "../../parts/station";
import { bare, hue } from "../../ui/colours";
import { Slider } from "../../ui/slider";
import { length, type Settings, thin, weight } from "../../ui/units";

/** Depth: a cut across the front, the side view along it, the thickness against the slot. */
export default function Depth() {
	const b = useBench();
	const { card: c, view } = b;
	const d = view.plan.depth;
	const s = b.state.settings;
	const [cutAt, setCut] = useState<number | null>(null);
	const y = cutAt ?? (d.atY || c.base.h / 2);
	const section = useSection(view.id, view.version, y);
	const notes = useNotesAbout("depth");
	const letter = d.post.limit;
	return (
		<StationFrame
			station="depth"
			table={
				<>
					<Frame
						title={`${thin(d.total, s)} thick`}
						sub={`At its highest: ${d.at || "the card itself"}. Weighs ${weight(d.weight, s)} without its envelope.`}
					/>
					<Box flex="1" minH={0} overflow="auto" tabIndex={0} display="flex" flexDirection="column">
						<Box display="flex" gap="10" py="6" px="9" alignItems="flex-start" bg={hue.bench}>
							<FrontWithCut y={y} onCut={setCut} />
							<Box flex="1" minW={0}>
								<Box fontSize="small" display="flex" gap="5" alignItems="center">
									<span style={{ whiteSpace: "nowrap" }}>Cut at</span>
									<Slider label="Height of the cut" min={0} max={c.base.h} step={0.5} v={y} set={setCut} say={(v) => `${length(v, s)} from the top`} />
									<b style={{ whiteSpace: "nowrap" }}>{length(y, s)} from the top</b>
								</Box>
								{notes.length > 0 && (
									<Box mt="5">
										<Beside notes={notes} />
									</Box>
								)}
								<Slot total={d.post.filled} limit={letter} card={d.total} envelope={d.post.envelope !== ""} cls={d.post.class} />
								<Box bg="sheet" py="4" px="6" mt="5" fontSize="small" lineHeight={1.6}>
									{d.post.envelope ? (
										<>
											<b>{d.post.fits ? "It slides into its envelope" : "It does not go into its envelope"}</b>: wrapped round, it takes up{" "}
											{length(d.post.needsW, s)} × {length(d.post.needsH, s)} of the inside.
											<br />
											As a US letter: <b>{d.post.class}</b>. Filled {thin(d.post.filled, s)}, a letter at most {thin(d.post.limit, s)}. The carrier's current
											rules go first.
										</>
									) : (
										"Choose an envelope in Front to see whether the card goes into it, and how it goes by post."
									)}
								</Box>
							</Box>
						</Box>
						<Box bg="sheet" flex="1" py="5" px="9" minH="220px" display="flex" flexDirection="column">
							<SideView slabs={section?.slabs ?? []} />
						</Box>
					</Box>
				</>
			}
			strata={<CardStrata what="top at" value={(id) => topOf(s, view.plan, id)} />}
		/>
	);
}

function topOf(s: Settings, p: S["Plan"], id: string): string {
	const z =
		id === "back"
			? p.depth.base / 2
			: id === "base"
				? p.depth.base
				: (p.front.sheets.find((x) => x.id === id) ?? p.front.elements.find((x) => x.id === id))?.z1;
	return z === undefined ? "" : thin(z, s);
}

/** The front, small, with the line of the cut to drag. */
function FrontWithCut({ y, onCut }: { y: number; onCut: (y: number) => void }) {
	const b = useBench();
	const ref = useRef<HTMLDivElement>(null);
	const [held, setHeld] = useState(false);
	const c = b.card;
	const k = Math.min(260 / c.base.w, 220 / c.base.h);
	const move = (e: React.PointerEvent) => {
		const r = ref.current?.getBoundingClientRect();
		if (held && r) onCut(Math.min(c.base.h, Math.max(0, (e.clientY - r.top) / k)));
	};
	return (
		<div
			ref={ref}
			style={{ position: "relative", width: c.base.w * k, height: c.base.h * k, flexShrink: 0, touchAction: "none", cursor: "row-resize" }}
			onPointerDown={(e) => {
				setHeld(true);
				e.currentTarget.setPointerCapture(e.pointerId);
			}}
			onPointerMove={move}
			onPointerUp={() => setHeld(false)}
		>
			<img src={`/api/cards/${b.view.id}/front.svg?v=${b.view.version}`} alt="The front" width={c.base.w * k} height={c.base.h * k} draggable={false} />
			<div style={{ position: "absolute", left: -10, right: -10, top: y * k - 1, height: 2, background: hue.ochre }} />
			<div
				style={{
					position: "absolute",
					right: -16,
					top: y * k - 8,
					width: 16,
					height: 16,
					background: hue.fill,
					border: `2px solid ${hue.ochre}`,
					transform: "rotate(45deg)",
				}}
			/>
		</div>
	);
}

/** The side view along the cut, heights magnified. */
function SideView({ slabs }: { slabs: S["Slab"][] }) {
	const s = useSettings();
	const b = useBench();
	const W = b.card.base.w;
	const d = b.view.plan.depth;
	const base = b.state.kit.papers.find((p) => p.id === b.card.base.paper)?.colour ?? bare;
	const ref = useRef<HTMLDivElement>(null);
	const [room, setRoom] = useState(0.24);
	useLayoutEffect(() => {
		const el = ref.current;
		if (!el) return;
		const watch = new ResizeObserver(() => setRoom(Math.max(0.15, Math.min(0.6, (el.clientHeight - 8) / Math.max(1, el.clientWidth)))));
		watch.observe(el);
		return () => watch.disconnect();
	}, []);
	// As high as its room lets it be, by a whole number.
	const mag = Math.max(3, Math.min(40, Math.floor(((W + 20) * room - 8) / Math.max(d.total, 2))));
	const H = Math.max(d.total, 2) * mag + 4;
	const each = s.unit === "in" ? 25.4 / 20 : 1;
	const y = (z: number) => H - z * mag;
	const leaf = d.base / 2;
	const px = (W + 20) / 830; // mm on the drawing to a point on the screen
	return (
		<>
			<Box fontSize="small" mb="2">
				Side view along the cut, heights {mag} times true. Dotted is foam, white gaps are air.
			</Box>
			<div ref={ref} style={{ flex: 1, minHeight: 160 }}>
				<svg viewBox={`-18 -2 ${W + 20} ${H + 4}`} width="100%" role="img" aria-label={`Side view, ${thin(d.total, s)} at its highest`}>
					<defs>
						<pattern id="foam2" width={6 * px} height={6 * px} patternUnits="userSpaceOnUse">
							<rect width={6 * px} height={6 * px} fill={hue.white} />
							<circle cx={2 * px} cy={2 * px} r={0.8 * px} fill={hue.rule} />
						</pattern>
					</defs>
					{Array.from({ length: 40 }, (_, i) => i * each)
						.filter((z) => z * mag < H)
						.map((z) => (
							<g key={z}>
								<line x1={-4} x2={W} y1={y(z)} y2={y(z)} stroke={hue.bed} strokeWidth={0.2} />
								<text x={-5} y={y(z) + 4 * px} fontSize={12.5 * px} textAnchor="end" fill={hue.quiet}>
									{thin(z, s)}
								</text>
							</g>
						))}
					<rect x={0} y={y(leaf)} width={W} height={leaf * mag} fill={base} stroke={hue.outline} strokeWidth={0.15} />
					<rect x={0} y={y(2 * leaf)} width={W} height={leaf * mag} fill={base} stroke={hue.outline} strokeWidth={0.15} />
					{slabs.map((s, i) => {
						const w = s.x1 - s.x0;
						const foam = s.foam && s.lift > 0;
						// Pads stand in from the ends; where they lie is chosen at the bench.
						const inset = Math.min(4, w / 6);
						const on = b.element === s.id;
						return (
							// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
							<g key={`${s.id}-${s.layer}-${i}`} onClick={() => b.pick({ element: s.id })}>
								{foam && (
									<rect
										x={s.x0 + inset}
										y={y(s.z0)}
										width={Math.max(0.2, w - 2 * inset)}
										height={s.lift * mag}
										fill="url(#foam2)"
										stroke={hue.rule}
										strokeWidth={0.15}
									/>
								)}
								{s.z1 > s.z0 ? (
									<>
										<rect
											x={s.x0}
											y={y(s.z1)}
											width={w}
											height={(s.z1 - s.z0) * mag}
											fill={s.body}
											stroke={on ? hue.ochre : hue.outline}
											strokeWidth={on ? 0.5 : 0.15}
										/>
										<rect x={s.x0} y={y(s.z1)} width={w} height={Math.min(0.9, (s.z1 - s.z0) * mag * 0.35)} fill={s.top} />
									</>
								) : (
									<rect x={s.x0} y={y(s.z1) - 0.5} width={w} height={0.6} fill={s.top} />
								)}
							</g>
						);
					})}
				</svg>
			</div>
		</>
	);
}

/** A slot at true size, the thickness of the filled envelope laid against it. */
function Slot({ total, limit, card, envelope, cls }: { total: number; limit: number; card: number; envelope: boolean; cls: string }) {
	const s = useSettings();
	const px = 96 / 25.4;
	const over = total > limit;
	return (
		<Box mt="5" bg="sheet" py="4" px="6">
			<Box fontSize="small">A letter's slot, {thin(limit, s)} high, at true size on a screen of 96 dots to the inch:</Box>
			<svg
				width="100%"
				height={Math.max(limit, total) * px + 12}
				role="img"
				aria-label={`${envelope ? "Filled envelope" : "Card"} ${thin(total, s)} in a slot of ${thin(limit, s)}`}
			>
				<rect x={0.5} y={6} width={220} height={limit * px} fill="#26282b" />
				<rect x={14} y={6 + Math.max(0, (limit - total) * px)} width={192} height={total * px} fill={over ? hue.madder : hue.fill} />
				<text x={232} y={6 + (limit * px) / 2 + 5} fontSize={13} fill={hue.text}>
					{thin(envelope ? total : card, s)} {envelope ? "filled" : "card alone"}
					{cls && `, ${over ? "too thick" : "goes through"}`}
				</text>
			</svg>
		</Box>
	);
}
