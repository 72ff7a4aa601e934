import { useBench } from "../../../api/card";
import type { Element, S } from "../../../api/client";
import { Button } from "../../../ui/button";
import { Check } from "../../../ui/check";
import { KeptField } from "../../../ui/kept";
import { LengthField } from "../../../ui/length";
import { NumberField } from "../../../ui/number";
import { Select } from "../../../ui/select";
import { Fields } from "./fields";
import { OutlineFields } from "./outline";

type Sheet = NonNullable<Element["sheet"]>;

/** The outline of a sheet, its openings and its flap. */
export default function Shape({ e }: { e: Element & { sheet: Sheet } }) {
	const b = useBench();
	const s = e.sheet;
	const set = (f: Partial<Sheet>) => b.edit({ sheet: { element: e.id, sheet: { ...s, ...f } } });
	const opening = (i: number, f: Partial<S["Opening"]>) => set({ openings: s.openings?.map((o, k) => (k === i ? { ...o, ...f } : o)) });
	const problem = b.view.plan.front.elements.find((p) => p.id === e.id)?.problem;
	return (
		<div style={{ display: "grid", gap: 12, width: 340, maxHeight: "56vh", overflowY: "auto" }}>
			{problem && <div role="alert">{problem}</div>}
			<OutlineFields label="Outline" o={s.shape} onSet={(shape) => set({ shape: shape.kind === "rectangle" && !shape.pitch ? undefined : shape })} />
			<Fields>
				<LengthField label="Trimmed later, each side" mm={s.trim ?? 0} min={0} max={60} onSet={(trim) => set({ trim })} width="76px" />
				<Select
					label="Flap"
					value={s.flap?.side ?? ""}
					onChange={(v) => set({ flap: v ? { side: v as "top", depth: s.flap?.depth ?? 12.7 } : undefined })}
					width="110px"
				>
					<option value="">none</option>
					<option value="top">at the top</option>
					<option value="left">at the left</option>
				</Select>
				{s.flap && (
					<LengthField
						label="Flap, deep"
						mm={s.flap.depth}
						min={1}
						max={100}
						onSet={(depth) => set({ flap: { side: s.flap?.side ?? "top", depth } })}
						width="76px"
					/>
				)}
			</Fields>
			{s.openings?.map((o, i) => (
				<fieldset key={i} style={{ border: 0, padding: 0, margin: 0, display: "grid", gap: 6 }}>
					<legend style={{ fontWeight: 700, padding: 0 }}>Opening {i + 1}</legend>
					{o.text ? (
						<Fields>
							<KeptField label="Letters cut out" value={o.text} maxLength={40} onSet={(text) => opening(i, { text })} width="150px" />
							<Check label="islands kept and glued back" on={o.islands ?? false} set={(islands) => opening(i, { islands })} />
						</Fields>
					) : (
						<OutlineFields
							label="Shape"
							o={o}
							onSet={(shape) => opening(i, { pitch: undefined, depth: undefined, sides: undefined, set: undefined, part: undefined, ...shape })}
						/>
					)}
					<Fields>
						{!o.text && <LengthField label="Width" mm={o.w ?? 0} min={0.5} max={400} onSet={(w) => opening(i, { w })} width="70px" />}
						<LengthField label="Height" mm={o.h ?? 0} min={0.5} max={400} onSet={(h) => opening(i, { h })} width="70px" />
						<LengthField label="Right of middle" mm={o.x ?? 0} min={-400} max={400} onSet={(x) => opening(i, { x })} width="70px" />
						<LengthField label="Below middle" mm={o.y ?? 0} min={-400} max={400} onSet={(y) => opening(i, { y })} width="70px" />
						<NumberField saved label="Turn" unit="°" v={o.turn ?? 0} set={(turn) => opening(i, { turn })} min={-360} max={360} width="60px" />
						<Button onClick={() => set({ openings: s.openings?.filter((_, k) => k !== i) })}>Close it</Button>
					</Fields>
				</fieldset>
			))}
			<div style={{ display: "flex", gap: 8 }}>
				<Button onClick={() => b.edit({ addOpening: { element: e.id, kind: "rectangle" } })}>Cut an opening</Button>
				<Button onClick={() => b.edit({ addOpening: { element: e.id, text: "hello" } })}>Cut letters out</Button>
			</div>
		</div>
	);
}
