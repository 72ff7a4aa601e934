import { useBench } from "../../../api/card";
import type { Element, S } from "../../../api/client";
import { Button } from "../../../ui/button";
import { Check } from "../../../ui/check";
import { TextField } from "../../../ui/field";
import { KeptField } from "../../../ui/kept";
import { LengthField } from "../../../ui/length";
import { NumberField } from "../../../ui/number";
import { Select } from "../../../ui/select";
import { Fields, PaperField } from "./fields";

const windows = ["oval", "rectangle", "arch", "scalloped", "pointed", "tag"] as const;

/** The window of a shaker, its wall, what is in it, its backing. */
export default function ShakerForm({ e }: { e: Element & { shaker: S["Shaker"] } }) {
	const b = useBench();
	const s = e.shaker;
	const { kit } = b.state;
	const set = (f: Partial<S["Shaker"]>) => b.edit({ shaker: { element: e.id, shaker: { ...s, ...f } } });
	const o = s.openings[0];
	const open = (f: Partial<S["Opening"]>) => set({ openings: [{ ...o, ...f }, ...s.openings.slice(1)] });
	const fill = (i: number, f: Partial<S["Filling"]>) => set({ filling: s.filling.map((x, k) => (k === i ? { ...x, ...f } : x)) });
	return (
		<div style={{ display: "grid", gap: 12, width: 344, maxHeight: "60vh", overflowY: "auto" }}>
			<Fields>
				<Select
					label="Window"
					value={o.text ? "letters" : o.kind}
					onChange={(v) => open(v === "letters" ? { text: "hi", h: o.h } : { text: undefined, kind: v as S["Opening"]["kind"], w: o.w || o.h })}
				>
					{windows.map((k) => (
						<option key={k}>{k}</option>
					))}
					<option value="letters">letters cut out</option>
				</Select>
				{o.text !== undefined && o.text !== "" ? (
					<>
						<KeptField label="Letters" value={o.text} maxLength={40} width="90px" onSet={(text) => open({ text })} />
						<LengthField label="Capitals, high" mm={o.h ?? 0} min={2} max={200} onSet={(h) => open({ h })} />
					</>
				) : (
					<>
						<LengthField label="Wide" mm={o.w ?? 0} min={1} max={390} onSet={(w) => open({ w })} width="80px" />
						<LengthField label="High" mm={o.h ?? 0} min={1} max={390} onSet={(h) => open({ h })} width="80px" />
					</>
				)}
			</Fields>
			<Fields>
				<LengthField label="Front, wide" mm={s.w} min={5} max={400} onSet={(w) => set({ w })} width="80px" />
				<LengthField label="Front, high" mm={s.h} min={5} max={400} onSet={(h) => set({ h })} width="80px" />
				<PaperField label="Backing" value={s.backing} onChange={(backing) => set({ backing })} />
				<LengthField label="Smaller by, below 0 larger" mm={s.back ?? 0} min={-20} max={30} onSet={(back) => set({ back })} width="80px" />
			</Fields>
			<Fields>
				<Select label="Film" value={s.film ?? ""} onChange={(film) => set({ film: film || undefined })}>
					<option value="">none yet</option>
					{kit.papers
						.filter((p) => p.kind === "acetate" || p.kind === "vellum")
						.map((p) => (
							<option key={p.id} value={p.id}>
								{p.name}
							</option>
						))}
				</Select>
				<Check label="in a pouch of its own" on={s.pouch ?? false} set={(pouch) => set({ pouch })} />
			</Fields>
			<Fields>
				<Select label="Wall of" value={s.wall} onChange={(wall) => set({ wall })} width="150px">
					{kit.spacers.map((x) => (
						<option key={x.id} value={x.id}>
							{x.name}
						</option>
					))}
				</Select>
				<NumberField saved label="On each other" v={Math.max(1, s.level ?? 1)} set={(level) => set({ level })} min={1} max={6} width="60px" />
				<LengthField label="Wide (0: as fits)" mm={s.wide ?? 0} min={0} max={40} onSet={(wide) => set({ wide: wide || undefined })} width="80px" />
				<Check label="baffles across" on={s.baffles ?? false} set={(baffles) => set({ baffles })} />
			</Fields>
			<b>What is in it</b>
			{s.filling.map((f, i) => (
				<Fields key={i}>
					<KeptField label="Name" value={f.name} maxLength={60} width="110px" onSet={(name) => fill(i, { name })} />
					<LengthField label="High" kind="thin" mm={f.high} min={0.1} max={30} onSet={(high) => fill(i, { high })} width="76px" />
					<NumberField saved label="About" v={f.n} set={(n) => fill(i, { n })} min={1} max={500} width="60px" />
					<TextField label="Colour" type="color" value={f.colour} onChange={(ev) => fill(i, { colour: ev.target.value })} />
					<Button onClick={() => set({ filling: s.filling.filter((_, k) => k !== i) })}>Leave it out</Button>
				</Fields>
			))}
			{s.filling.length < 12 && (
				<Button onClick={() => set({ filling: [...s.filling, { name: "Beads", high: 1.5, colour: "#9a5b6e", n: 20 }] })}>Put more in</Button>
			)}
			<div>Small parts: not for children under three.</div>
		</div>
	);
}
