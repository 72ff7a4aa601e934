import { Box } from "@chakra-ui/react";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { useBench, withFinish } from "../../api/card";
import type { S } from "../../api/client";
import { boxOf } from "../../parts/apart";
import { Beside, useNotesAbout } from "../../parts/beside";
import { ImageStrata } from "../../parts/image-strata";
import { Frame, grounds, Layers } from "../../parts/picture";
import { spokenImage } from "../../parts/spoken";
import { GroundPicker, MotifPicker, NoImage, StationFrame, useGround } from "../../parts/station";
import { Table } from "../../parts/table";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { KeptField } from "../../ui/kept";
import { typing } from "../../ui/keys";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { Blends } from "./blends";
import { Ranked } from "./ranked";

/** Inks: every layer dried, the lightness rail, ranked colourways from the drawer. */
export default function Inks() {
	const b = useBench();
	const [ground, setGround] = useGround();
	const [wet, setWet] = useState(false);
	const [more, setMore] = useState(false);
	const { look, motif, colourway, pick } = b;
	const take = useCallback((layer: string) => pick({ layer }), [pick]);
	const notes = useNotesAbout("inks");
	const step = useStep();
	const add = useAddWay();
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || !b.layer) return;
			if (e.key === ",") step(-1);
			if (e.key === ".") step(1);
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
	if (!motif || !look || !colourway) return <StationFrame station="inks" table={<NoImage />} strata={<ImageStrata what="lightness" value={() => ""} />} />;
	const sources: Record<string, number> = {};
	const at = look.layers.findIndex((l) => l.id === b.layer);
	const chosen = at >= 0 ? colourway.layers[at] : undefined;
	for (const l of colourway.layers) sources[l.source] = (sources[l.source] ?? 0) + 1;
	return (
		<StationFrame
			station="inks"
			table={
				<>
					<Frame
						title={`${motif.name}, ${wet ? "wet" : "dried"}`}
						sub={
							chosen
								? `${look.layers[at].label}: lightness ${Math.round(chosen.wetL)} wet, ${Math.round(chosen.l)} dried (${chosen.source}${chosen.doubt >= 1 ? `, may be ${chosen.doubt.toFixed(0)} off` : ""}).`
								: `Colours: ${Object.entries(sources)
										.map(([k, n]) => `${n} ${k}`)
										.join(", ")}.${greyOf(colourway)}`
						}
						tools={
							<>
								<MotifPicker />
								{motif.colourways.length > 1 && (
									<Popover label="Its name" title="What this colourway is called">
										<KeptField
											key={`${motif.id} ${colourway.id}`}
											label="This colourway is called"
											value={colourway.name}
											maxLength={80}
											width="220px"
											onSet={(name) => b.edit({ nameColourway: { motif: motif.id, colourway: colourway.id, name } })}
										/>
									</Popover>
								)}
								<Button aria-pressed={wet} onClick={() => setWet(!wet)}>
									{wet ? "Show dried" : "Show wet"}
								</Button>
								<Button onClick={add}>Add a colourway</Button>
								<GroundPicker value={ground} onChange={setGround} />
							</>
						}
					/>
					<Table
						box={{ x: look.minX, y: look.minY, w: look.w, h: look.h }}
						settings={b.state.settings}
						ground={grounds[ground]}
						label={`${spokenImage(look, colourway)}; shown ${wet ? "wet" : "dried"}`}
						beside={at >= 0 ? { box: boxOf(look.layers[at].outline, 0), node: <Beside notes={notes} /> } : undefined}
					>
						{() => <Layers look={look} colourway={colourway} wet={wet} layer={b.layer} onPick={take} />}
					</Table>
					<Chosen more={more} onMore={setMore} />
					{!(more && b.layer) && <Ranked />}
				</>
			}
			middle={<Rail />}
			strata={<ImageStrata what="lightness, dried" value={(i) => Math.round(colourway.layers[i].l).toString()} />}
		/>
	);
}

/** How the weakest pair holds in lightness alone. */
function greyOf(colourway: S["LookColourway"]) {
	const grey = colourway.eyes.find((e) => e.eyes === "grey");
	return grey ? ` In a grey copy the weakest pair is ${grey.weakest.toFixed(1)} apart.` : "";
}

/** Copies the colourway in hand as a new one. */
function useAddWay() {
	const b = useBench();
	const { motif, colourway } = b;
	const ways = motif?.colourways ?? [];
	const before = useRef<string[]>(undefined);
	// The one that was added comes into hand, to be changed.
	useEffect(() => {
		const fresh = before.current && ways.find((w) => !before.current?.includes(w.id));
		if (!fresh) return;
		before.current = undefined;
		b.pick({ colourway: fresh.id });
	}, [ways, b.pick]);
	return () => {
		if (!motif || !colourway) return;
		before.current = ways.map((w) => w.id);
		b.edit({ copyColourway: { motif: motif.id, colourway: colourway.id } });
	};
}

/** Steps the chosen layer to the next lighter or darker ink owned. */
function useStep() {
	const b = useBench();
	return (by: number) => {
		const f = b.motif?.colourways.find((w) => w.id === b.colourway?.id)?.layers[b.layer];
		const inks = b.state.inks; // lightest first
		const i = inks.findIndex((x) => x.id === f?.ink);
		const next = inks[i < 0 ? 0 : Math.min(inks.length - 1, Math.max(0, i + by))];
		if (next && b.motif && b.colourway) b.edit(withFinish(b, { ink: next.id }));
	};
}

/** Stands for a print that is left bare on purpose. No ink has such an id. */
const bare = "-";

/** What the chosen layer is inked with, to change. */
function Chosen({ more, onMore: setMore }: { more: boolean; onMore: (v: boolean) => void }) {
	const b = useBench();
	const step = useStep();
	const i = b.motif?.layers.findIndex((l) => l.id === b.layer) ?? -1;
	if (i < 0 || !b.motif || !b.colourway)
		return (
			<Box px="9" py="4" fontSize="small" color="quiet">
				Tap a layer to choose its ink; the comma and full-stop keys step it lighter and darker.
			</Box>
		);
	const l = b.motif.layers[i];
	const colourway = b.motif.colourways.find((w) => w.id === b.colourway?.id);
	const f = colourway?.layers[l.id] ?? {};
	const look = b.colourway.layers[i];
	const set = (x: Partial<S["Finish"]>) => b.edit(withFinish(b, x, l.id));
	if (look.kept)
		return (
			<Box px="9" py="4" fontSize="small" color="quiet">
				{l.label} takes no ink: it stays as {b.motif.layers.find((x) => x.id === l.on)?.label ?? "what it is printed on"} is without its own. How that is done
				is chosen in Pieces, with Use it again.
			</Box>
		);
	return (
		<Box className="one-line" px="7" py="4" bg="sheet" borderTop="1px solid {colors.line}">
			<b style={{ fontSize: size.text }}>{l.label}</b>
			<span style={{ display: "flex", border: `1px solid ${hue.edge}` }} title="Wet, then dried">
				<span style={{ width: 22, height: 26, background: look.wet }} />
				<span style={{ width: 22, height: 26, background: look.dry }} />
			</span>
			<Select
				label="Ink"
				bare
				value={!f.ink && f.bare ? bare : (f.ink ?? "")}
				onChange={(v) => set(v === bare ? { ink: "", bare: true } : { ink: v, bare: undefined })}
				width="152px"
			>
				<option value="">{l.make === "cut" ? "plain, no ink" : "no ink yet"}</option>
				{l.make !== "cut" && <option value={bare}>left bare on purpose</option>}
				{b.state.inks.map((x) => (
					<option key={x.id} value={x.id}>
						{b.state.kit.inks.find((k) => k.id === x.id)?.name} ({Math.round(x.l)})
					</option>
				))}
			</Select>
			<Button onClick={() => step(-1)} title="The comma key">
				Lighter
			</Button>
			<Button onClick={() => step(1)} title="The full-stop key">
				Darker
			</Button>
			<span className="beside">
				strikes
				<NumberField bare saved label="strikes" min={1} max={6} v={Math.max(1, f.impressions ?? 1)} set={(impressions) => set({ impressions })} width="46px" />
			</span>
			{l.make === "cut" && (
				<span className="beside">
					on
					<Select label="Paper" bare value={f.paper ?? ""} onChange={(v) => set({ paper: v })} width="128px">
						{!f.paper && <option value="">none chosen</option>}
						{b.state.kit.papers.map((p) => (
							<option key={p.id} value={p.id}>
								{p.name}
							</option>
						))}
					</Select>
				</span>
			)}
			<Button aria-expanded={more} onClick={() => setMore(!more)}>
				{f.blends?.length ? `${f.blends.length} ${f.blends.length === 1 ? "blend" : "blends"}` : "Blend"}
			</Button>
			{more && <Blends key={l.id} cut={l.make === "cut"} f={f} look={look} set={set} />}
		</Box>
	);
}

/** The lightness rail: each ink hangs at its dried lightness, a thread runs to its layer. */
function Rail() {
	const b = useBench();
	const ref = useRef<HTMLDivElement>(null);
	const [place, setPlace] = useState<{ w: number; h: number; ends: Record<string, number> }>({ w: 156, h: 500, ends: {} });
	const { motif, look, colourway } = b;
	// Threads end where the strata writes the layer's name.
	useLayoutEffect(() => {
		const el = ref.current;
		if (!el) return;
		const look = () => {
			const box = el.getBoundingClientRect();
			const ends: Record<string, number> = {};
			for (const m of document.querySelectorAll(".stratum")) {
				const r = m.querySelector(".mark")?.getBoundingClientRect();
				if (r) ends[m.id.replace("stratum-", "")] = r.top + r.height / 2 - box.top;
			}
			setPlace((p) => (p.w === box.width && p.h === box.height && JSON.stringify(p.ends) === JSON.stringify(ends) ? p : { w: box.width, h: box.height, ends }));
		};
		const t = setTimeout(look, 60);
		const watch = new ResizeObserver(look);
		watch.observe(el);
		return () => {
			clearTimeout(t);
			watch.disconnect();
		};
	});
	if (!motif || !look || !colourway) return null;
	const { w, h } = place;
	const y = (l: number) => 14 + (100 - l) * ((h - 28) / 100);
	// Tags at almost the same lightness stand side by side.
	const order = colourway.layers.map((l, i) => ({ i, l: l.l })).sort((p, q) => q.l - p.l);
	const shift: number[] = [];
	order.forEach((o, k) => {
		const before = order[k - 1];
		shift[o.i] = before && Math.abs(y(before.l) - y(o.l)) < 17 ? (shift[before.i] + 1) % 3 : 0;
	});
	const wrong = new Set(colourway.crossed);
	return (
		<Box
			as="section"
			aria-label="Lightness rail"
			bg={hue.bed}
			borderLeft="1px solid {colors.line}"
			pt="6"
			pr="0"
			pb="0"
			pl="6"
			minH={0}
			overflow="hidden"
			display="flex"
			flexDirection="column"
		>
			<h2 style={{ fontSize: size.sub }}>Lightness</h2>
			<Box fontSize="note">as it dries, white at the top</Box>
			<div ref={ref} style={{ flex: 1, minHeight: 0, position: "relative" }}>
				<svg
					width={w}
					height={h}
					style={{ position: "absolute", inset: 0 }}
					role="img"
					aria-label="Each ink at its dried lightness, with a thread to its layer"
				>
					<defs>
						<linearGradient id="rail" x1="0" y1="0" x2="0" y2="1">
							{[100, 80, 60, 40, 20, 0].map((l) => (
								<stop key={l} offset={`${100 - l}%`} stopColor={grey(l)} />
							))}
						</linearGradient>
					</defs>
					<rect x={2} y={y(100)} width={11} height={y(0) - y(100)} fill="url(#rail)" stroke={hue.slate} strokeWidth={0.6} />
					{[100, 80, 60, 40, 20, 0].map((l) => (
						<g key={l}>
							<line x1={13} x2={19} y1={y(l)} y2={y(l)} stroke={hue.text} />
							<text x={21} y={y(l) + 4} fontSize={11} fill={hue.text}>
								{l}
							</text>
						</g>
					))}
					{colourway.layers.map((l, i) => {
						const on = l.id === b.layer;
						const x = 44 + shift[i] * 16 + 36;
						const bad = wrong.has(l.id);
						const end = place.ends[l.id] ?? y(l.l);
						return (
							<path
								key={`t${l.id}`}
								d={`M${x} ${y(l.l)} C${x + 30} ${y(l.l)} ${w - 30} ${end} ${w} ${end}`}
								fill="none"
								stroke={on ? hue.ochre : bad ? hue.madder : hue.quiet}
								strokeWidth={on ? 3 : bad ? 1.8 : 1}
								strokeDasharray={bad ? "5 3" : undefined}
							/>
						);
					})}
					{[...order].reverse().map(({ i }) => {
						const l = colourway.layers[i];
						const x = 44 + shift[i] * 16;
						const on = l.id === b.layer;
						return (
							// biome-ignore lint/a11y/noStaticElementInteractions: a short way by pointer; the strata beside it give the same by keys
							<g key={l.id} onClick={() => b.pick({ layer: l.id })} style={{ cursor: "pointer" }}>
								{l.blends
									.filter((s) => s.dry)
									.map((s, n) => (
										<g key={`${s.zone}${n}`}>
											{on && <line x1={x + 18} x2={x + 18} y1={y(l.l) + (s.l < l.l ? 8 : -8)} y2={y(s.l)} stroke={hue.mark} strokeDasharray="2 2" />}
											<circle cx={x + 18} cy={y(s.l)} r={5} fill={s.dry} stroke={hue.mark}>
												<title>{`${look.layers[i].label}, ${s.zone}: lightness ${Math.round(s.l)}`}</title>
											</circle>
										</g>
									))}
								<path d={`M${x} ${y(l.l)}l6 -8h24l6 8l-6 8h-24z`} fill={l.dry} stroke={on ? hue.text : hue.mark} strokeWidth={on ? 2.5 : 1} />
								<title>{`${look.layers[i].label}: lightness ${Math.round(l.l)}`}</title>
							</g>
						);
					})}
				</svg>
			</div>
			<Box fontSize="note" pr="4" pb="3" minH="58px">
				{motif.school === "every piece"
					? "Every piece runs from light to dark in itself; the dots are its blends. Only neighbours must stay apart."
					: motif.school === "local colour"
						? "Local colour: crossing threads are no fault, only neighbours must stay apart."
						: wrong.size > 0
							? "Dashed threads run against the order of this school."
							: "Every thread keeps the order of this school; accents stand apart."}
			</Box>
		</Box>
	);
}

/** The sRGB grey of a CIE lightness, for the scale of the rail. */
function grey(l: number): string {
	const f = (l + 16) / 116;
	const yy = l > 8 ? f ** 3 : l / 903.3;
	const v = yy <= 0.0031308 ? 12.92 * yy : 1.055 * yy ** (1 / 2.4) - 0.055;
	const n = Math.round(v * 255);
	return `rgb(${n} ${n} ${n})`;
}
