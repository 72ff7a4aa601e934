import { useBench } from "../../../api/card";
import type { S } from "../../../api/client";
import { Button } from "../../../ui/button";
import { Check } from "../../../ui/check";
import { KeptField } from "../../../ui/kept";
import { LengthField } from "../../../ui/length";
import { NumberField } from "../../../ui/number";
import { Select } from "../../../ui/select";
import { Fields, InkField, PartField, useFirstPart } from "./fields";

type Treatment = S["Treatment"];

/** Fields of one treatment. */
export function Treated({ t, onSet }: { t: Treatment; onSet: (t: Treatment) => void }) {
	if (t.words) return <Words w={t.words} set={(words) => onSet({ words })} />;
	if (t.print) return <Print p={t.print} set={(print) => onSet({ print })} />;
	if (t.turned) return <Turned p={t.turned} set={(turned) => onSet({ turned })} />;
	if (t.fade) return <Fade f={t.fade} set={(fade) => onSet({ fade })} />;
	if (t.bands) return <Bands b={t.bands} set={(bands) => onSet({ bands })} />;
	if (t.stencil) return <Stencil s={t.stencil} set={(stencil) => onSet({ stencil })} />;
	if (t.splash) return <Splash s={t.splash} set={(splash) => onSet({ splash })} />;
	if (t.stroke) return <Stroke s={t.stroke} set={(stroke) => onSet({ stroke })} />;
	if (t.pressed) return <Pressed p={t.pressed} set={(pressed) => onSet({ pressed })} />;
	const { edged, glaze } = t;
	if (edged)
		return (
			<Fields>
				<InkField value={edged.ink} onChange={(ink) => onSet({ edged: { ...edged, ink } })} />
				<LengthField label="Border" mm={edged.w} min={0.3} max={60} onSet={(w) => onSet({ edged: { ...edged, w } })} width="76px" />
			</Fields>
		);
	if (glaze)
		return (
			<Fields>
				<Select label="Coat" value={glaze.kind} onChange={(v) => onSet({ glaze: { ...glaze, kind: v as typeof glaze.kind } })} width="140px">
					<option value="glaze">glaze</option>
					<option value="shimmer spray">shimmer spray</option>
					<option value="fixative">fixative</option>
				</Select>
				<LengthField
					label="Within (0: all over)"
					mm={glaze.reach ?? 0}
					min={0}
					max={400}
					onSet={(reach) => onSet({ glaze: { ...glaze, reach } })}
					width="76px"
				/>
				<NumberField
					saved
					label="Dry after, 0: as usual"
					unit="min"
					v={glaze.minutes ?? 0}
					set={(minutes) => onSet({ glaze: { ...glaze, minutes: minutes || undefined } })}
					min={0}
					max={2880}
					width="76px"
				/>
				<Spot s={glaze} set={(f) => onSet({ glaze: { ...glaze, ...f } })} />
			</Fields>
		);
	return null;
}

type SpotOf = { x?: number; y?: number; turn?: number };

/** Where on the sheet, from its middle. */
function Spot({ s, set, turn }: { s: SpotOf; set: (f: SpotOf) => void; turn?: boolean }) {
	return (
		<>
			<LengthField label="Right of middle" mm={s.x ?? 0} min={-400} max={400} onSet={(x) => set({ x })} width="70px" />
			<LengthField label="Below middle" mm={s.y ?? 0} min={-400} max={400} onSet={(y) => set({ y })} width="70px" />
			{turn && <NumberField saved label="Turn" unit="°" v={s.turn ?? 0} set={(n) => set({ turn: n })} min={-360} max={360} width="60px" />}
		</>
	);
}

function Words({ w, set }: { w: S["Words"]; set: (w: S["Words"]) => void }) {
	return (
		<Fields>
			<KeptField label="Words" value={w.text} maxLength={80} empty onSet={(text) => set({ ...w, text })} width="180px" />
			<InkField value={w.ink} onChange={(ink) => set({ ...w, ink })} />
			<InkField label="Foot in" none="the same" value={w.shade ?? ""} onChange={(shade) => set({ ...w, shade: shade || undefined })} />
			<KeptField
				label="All the stamp says"
				value={w.stamp ?? ""}
				maxLength={160}
				onSet={(stamp) => set({ ...w, stamp: stamp || undefined })}
				width="180px"
				empty
			/>
			<LengthField label="Letters" mm={w.letter} min={0.5} max={100} onSet={(letter) => set({ ...w, letter })} width="70px" />
			<Check label="Heat embossed" on={w.emboss ?? false} set={(emboss) => set({ ...w, emboss })} />
			<Spot s={w} set={(f) => set({ ...w, ...f })} turn />
			<LengthField label="Arc, radius" mm={w.bend ?? 0} min={-1000} max={1000} onSet={(bend) => set({ ...w, bend })} width="76px" />
		</Fields>
	);
}

/** Which image, and the colourways it takes in turn. */
function Ways({ motif, ways, set }: { motif: string; ways: string[]; set: (motif: string, ways: string[]) => void }) {
	const b = useBench();
	const m = b.card.motifs.find((x) => x.id === motif);
	return (
		<>
			<Select
				label="Image"
				value={motif}
				onChange={(v) =>
					set(
						v,
						b.card.motifs
							.find((x) => x.id === v)
							?.colourways.slice(0, 1)
							.map((w) => w.id) ?? [],
					)
				}
				width="150px"
			>
				{!m && <option value={motif}>not on the card any more</option>}
				{b.card.motifs.map((x) => (
					<option key={x.id} value={x.id}>
						{x.name}
					</option>
				))}
			</Select>
			{m && m.colourways.length > 1 && (
				<div style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
					{m.colourways.map((w) => (
						<Check
							key={w.id}
							label={w.name}
							on={ways.includes(w.id)}
							set={(on) => {
								const next = m.colourways.filter((x) => (x.id === w.id ? on : ways.includes(x.id))).map((x) => x.id);
								if (next.length > 0) set(motif, next);
							}}
						/>
					))}
				</div>
			)}
		</>
	);
}

function Print({ p, set }: { p: S["Print"]; set: (p: S["Print"]) => void }) {
	const r = p.rows;
	const rows = (f: Partial<NonNullable<typeof r>>) => r && set({ ...p, rows: { ...r, ...f } });
	return (
		<Fields>
			<Ways motif={p.motif} ways={p.colourways} set={(motif, colourways) => set({ ...p, motif, colourways })} />
			<Spot s={p} set={(f) => set({ ...p, ...f })} turn />
			<Check label="again and again over the sheet" on={!!r} set={(on) => set({ ...p, rows: on ? { across: 40, down: 40, shift: 0.5 } : undefined })} />
			{r && (
				<>
					<LengthField label="Step across" mm={r.across} min={2} max={400} onSet={(across) => rows({ across })} width="70px" />
					<LengthField label="Step down" mm={r.down} min={2} max={400} onSet={(down) => rows({ down })} width="70px" />
					<NumberField
						saved
						label="Shift each other row"
						unit="%"
						v={Math.round((r.shift ?? 0) * 100)}
						set={(n) => rows({ shift: n / 100 })}
						min={0}
						max={100}
						width="60px"
					/>
					<NumberField saved label="Turn each" unit="°" v={r.turn ?? 0} set={(turn) => rows({ turn })} min={-360} max={360} width="60px" />
					<Check label="whole ones only" on={r.whole ?? false} set={(whole) => rows({ whole })} />
				</>
			)}
		</Fields>
	);
}

function Turned({ p, set }: { p: S["Turned"]; set: (p: S["Turned"]) => void }) {
	return (
		<Fields>
			<Ways motif={p.motif} ways={p.colourways} set={(motif, colourways) => set({ ...p, motif, colourways })} />
			<NumberField saved label="Turns" v={p.turns} set={(turns) => set({ ...p, turns })} min={2} max={16} width="60px" />
			<Check label="anticlockwise" on={p.anti ?? false} set={(anti) => set({ ...p, anti })} />
			<Spot s={p} set={(f) => set({ ...p, ...f })} turn />
		</Fields>
	);
}

const froms: S["Fade"]["from"][] = [
	"all over",
	"foot",
	"top",
	"left",
	"right",
	"top left",
	"top right",
	"bottom left",
	"bottom right",
	"edge",
	"middle",
	"spot",
	"round an image",
];

function Fade({ f, set }: { f: S["Fade"]; set: (f: S["Fade"]) => void }) {
	const { card, view } = useBench();
	const images = card.elements.filter((e) => e.image && e.face === "front");
	const named = (id: string) => view.plan.front.elements.find((p) => p.id === id)?.label ?? "Image";
	return (
		<Fields>
			<Select
				label="From"
				value={f.from}
				onChange={(v) => set({ ...f, from: v as typeof f.from, round: v === "round an image" ? f.round || images[0]?.id : undefined })}
				width="120px"
			>
				{froms.map((x) => (
					<option key={x} value={x} disabled={x === "round an image" && images.length === 0}>
						{x === "spot" ? "a spot of its own" : x}
					</option>
				))}
			</Select>
			{f.from !== "all over" && <LengthField label="Reaches" mm={f.reach} min={1} max={600} onSet={(reach) => set({ ...f, reach })} width="70px" />}
			<NumberField saved label="Gone over" v={Math.max(1, f.strikes ?? 1)} set={(strikes) => set({ ...f, strikes })} min={1} max={6} width="60px" />
			<NumberField
				saved
				label="Tones wanted"
				v={Math.max(1, f.tones ?? 1)}
				set={(tones) => set({ ...f, tones: tones > 1 ? tones : undefined })}
				min={1}
				max={6}
				width="60px"
			/>
			{f.from === "round an image" && (
				<Select label="Round" value={f.round ?? ""} onChange={(round) => set({ ...f, round })} width="160px">
					{!images.some((e) => e.id === f.round) && <option value={f.round ?? ""}>not there any more</option>}
					{images.map((e, i) => (
						<option key={e.id} value={e.id}>
							{named(e.id)}
							{images.length > 1 ? `, no. ${i + 1}` : ""}
						</option>
					))}
				</Select>
			)}
			{f.from === "spot" && <Spot s={f} set={(x) => set({ ...f, ...x })} />}
			{f.inks.map((ink, i) => (
				<div key={i} style={{ display: "flex", gap: 6, alignItems: "end" }}>
					<InkField
						label={f.inks.length > 1 ? `Ink ${i + 1}` : "Ink"}
						value={ink}
						onChange={(v) => set({ ...f, inks: f.inks.map((x, k) => (k === i ? v : x)) })}
					/>
					{f.inks.length > 1 && <Button onClick={() => set({ ...f, inks: f.inks.filter((_, k) => k !== i) })}>Drop</Button>}
				</div>
			))}
			{f.inks.length < 8 && <Button onClick={() => set({ ...f, inks: [...f.inks, f.inks.at(-1) ?? ""] })}>One more ink</Button>}
		</Fields>
	);
}

function Bands({ b, set }: { b: S["Bands"]; set: (b: S["Bands"]) => void }) {
	return (
		<Fields>
			<Check label="upright" on={b.up ?? false} set={(up) => set({ ...b, up })} />
			<LengthField label="Begin at" mm={b.start ?? 0} min={-400} max={400} onSet={(start) => set({ ...b, start })} width="70px" />
			<LengthField label="Bare between" mm={b.gap ?? 0} min={0} max={100} onSet={(gap) => set({ ...b, gap })} width="70px" />
			{b.bands.map((x, i) => (
				<div key={i} style={{ display: "flex", gap: 6, alignItems: "end" }}>
					<InkField label={`Band ${i + 1}`} value={x.ink} onChange={(ink) => set({ ...b, bands: b.bands.map((y, k) => (k === i ? { ...y, ink } : y)) })} />
					<LengthField
						label="Wide"
						mm={x.w}
						min={0.5}
						max={400}
						onSet={(w) => set({ ...b, bands: b.bands.map((y, k) => (k === i ? { ...y, w } : y)) })}
						width="66px"
					/>
					{b.bands.length > 1 && <Button onClick={() => set({ ...b, bands: b.bands.filter((_, k) => k !== i) })}>Drop</Button>}
				</div>
			))}
			{b.bands.length < 30 && <Button onClick={() => set({ ...b, bands: [...b.bands, b.bands[b.bands.length - 1]] })}>One more band</Button>}
		</Fields>
	);
}

function Stencil({ s, set }: { s: S["Stencil"]; set: (s: S["Stencil"]) => void }) {
	const shifts = s.shifts ?? [];
	return (
		<Fields>
			<PartField set={s.set} part={s.part} kind="stencil" onChange={(st, part) => set({ ...s, set: st, part })} />
			<InkField value={s.ink} onChange={(ink) => set({ ...s, ink })} />
			<Check
				label="over the images printed here"
				on={s.over ?? false}
				set={(over) => set({ ...s, over: over || undefined, taped: over ? s.taped : undefined })}
			/>
			{s.over && <Check label="openings with no print beneath are taped" on={s.taped ?? false} set={(taped) => set({ ...s, taped })} />}
			<Check label="paste instead of ink" on={s.paste ?? false} set={(paste) => set({ ...s, paste })} />
			{s.paste && (
				<NumberField
					saved
					label="Dry after, 0: as usual"
					unit="min"
					v={s.minutes ?? 0}
					set={(minutes) => set({ ...s, minutes: minutes || undefined })}
					min={0}
					max={2880}
					width="76px"
				/>
			)}
			<Spot s={s} set={(f) => set({ ...s, ...f })} turn />
			{shifts.map((x, i) => (
				<div key={i} style={{ display: "flex", gap: 6, alignItems: "end" }}>
					<LengthField
						label="Then across"
						mm={x.x}
						min={-400}
						max={400}
						onSet={(v) => set({ ...s, shifts: shifts.map((y, k) => (k === i ? { ...y, x: v } : y)) })}
						width="66px"
					/>
					<LengthField
						label="down"
						mm={x.y}
						min={-400}
						max={400}
						onSet={(v) => set({ ...s, shifts: shifts.map((y, k) => (k === i ? { ...y, y: v } : y)) })}
						width="66px"
					/>
					<Check label="face down" on={x.flip ?? false} set={(flip) => set({ ...s, shifts: shifts.map((y, k) => (k === i ? { ...y, flip } : y)) })} />
					<Button onClick={() => set({ ...s, shifts: shifts.filter((_, k) => k !== i) })}>Drop</Button>
				</div>
			))}
			<Button onClick={() => set({ ...s, shifts: [...shifts, { x: (shifts.at(-1)?.x ?? 0) + 30, y: shifts.at(-1)?.y ?? 0, flip: shifts.length % 2 === 0 }] })}>
				Lay it once more
			</Button>
		</Fields>
	);
}

function Splash({ s, set }: { s: S["Splash"]; set: (s: S["Splash"]) => void }) {
	return (
		<Fields>
			<InkField value={s.ink ?? ""} none="clear water" onChange={(ink) => set({ ...s, ink: ink || undefined })} />
			<NumberField saved label="Drops" v={s.drops} set={(drops) => set({ ...s, drops })} min={1} max={200} width="60px" />
			<LengthField label="Across" mm={s.size} min={0.2} max={20} onSet={(size) => set({ ...s, size })} width="70px" />
			{!s.ink && <NumberField saved label="Waits" unit="s" v={s.dwell ?? 0} set={(dwell) => set({ ...s, dwell })} min={0} max={600} width="60px" />}
			<LengthField label="Within (0: all over)" mm={s.reach ?? 0} min={0} max={400} onSet={(reach) => set({ ...s, reach })} width="76px" />
			{(s.reach ?? 0) > 0 && <Spot s={s} set={(f) => set({ ...s, ...f })} />}
			<Button onClick={() => set({ ...s, seed: ((s.seed ?? 0) + 1) % 10000 })}>Throw again</Button>
		</Fields>
	);
}

function Stroke({ s, set }: { s: S["Stroke"]; set: (s: S["Stroke"]) => void }) {
	return (
		<Fields>
			<InkField value={s.ink} onChange={(ink) => set({ ...s, ink })} />
			<LengthField label="Wide" mm={s.w} min={0.2} max={100} onSet={(w) => set({ ...s, w })} width="70px" />
			{s.points.map((p, i) => (
				<div key={i} style={{ display: "flex", gap: 6, alignItems: "end" }}>
					<LengthField
						label={`Point ${i + 1}, right`}
						mm={p.x}
						min={-400}
						max={400}
						onSet={(x) => set({ ...s, points: s.points.map((q, k) => (k === i ? { ...q, x } : q)) })}
						width="70px"
					/>
					<LengthField
						label="down"
						mm={p.y}
						min={-400}
						max={400}
						onSet={(y) => set({ ...s, points: s.points.map((q, k) => (k === i ? { ...q, y } : q)) })}
						width="70px"
					/>
					{s.points.length > 2 && <Button onClick={() => set({ ...s, points: s.points.filter((_, k) => k !== i) })}>Drop</Button>}
				</div>
			))}
			<Button onClick={() => set({ ...s, points: [...s.points, { x: (s.points.at(-1)?.x ?? 0) + 10, y: (s.points.at(-1)?.y ?? 0) + 6 }] })}>
				One more point
			</Button>
		</Fields>
	);
}

function Pressed({ p, set }: { p: S["Pressed"]; set: (p: S["Pressed"]) => void }) {
	const first = useFirstPart();
	return (
		<Fields>
			<Select
				label="Relief"
				value={p.relief}
				onChange={(v) => set({ ...p, relief: v as typeof p.relief, ...(v === "part" && !p.part && first) })}
				width="150px"
			>
				<option value="ribs">ribs</option>
				<option value="dots">dots</option>
				<option value="weave">weave</option>
				<option value="part">a die of the stores</option>
			</Select>
			{p.relief === "part" ? (
				<>
					<PartField set={p.set ?? ""} part={p.part ?? ""} onChange={(set2, part) => set({ ...p, set: set2, part })} />
					<Spot s={p} set={(f) => set({ ...p, ...f })} turn />
				</>
			) : (
				<>
					<LengthField label="Step (0: usual)" mm={p.pitch ?? 0} min={0} max={50} onSet={(pitch) => set({ ...p, pitch })} width="70px" />
					{p.relief !== "dots" && (
						<NumberField saved label="Turn" unit="°" v={p.turn ?? 0} set={(turn) => set({ ...p, turn })} min={-360} max={360} width="60px" />
					)}
				</>
			)}
		</Fields>
	);
}
