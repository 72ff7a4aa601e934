import { useState } from "react";
import { useBench } from "../../api/card";
import { type Element, isMat } from "../../api/client";
import { type LayoutKind, useLayout } from "../../api/queries";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Select } from "../../ui/select";

const kinds: [LayoutKind, string][] = [
	["ring", "a ring"],
	["two rings", "two rings"],
	["row", "a row"],
	["grid", "a grid"],
	["frame", "a frame along the edges"],
	["scatter", "scattered"],
	["field", "a field that fills the panel"],
	["twin", "a twin across the middle"],
	["middle", "one, in the middle by its box"],
	["weight", "one, in the middle by weight"],
];

/** Several of an element in a layout: how many it takes is said before one is laid. */
export default function Many({ e }: { e: Element }) {
	const b = useBench();
	const { base } = b.card;
	const [kind, setKind] = useState<LayoutKind>("ring");
	const [n, setN] = useState(0);
	const [cols, setCols] = useState(3);
	const [rows, setRows] = useState(3);
	const [radius, setRadius] = useState(Math.min(base.w, base.h) / 3);
	const [gap, setGap] = useState(0);
	const [inside, setInside] = useState(0);
	const [seed, setSeed] = useState(0);
	const [others, setOthers] = useState<string[]>([]);
	const [keep, setKeep] = useState("");
	const [alternate, setAlternate] = useState(true);
	const motif = b.card.motifs.find((m) => m.id === e.image?.motif);
	const many = (motif?.colourways.length ?? 0) > 1;
	const round = kind === "ring" || kind === "two rings";
	const rest = b.card.elements.filter((x) => x.id !== e.id && x.face === "front" && !isMat(x));
	const name = (id: string) => b.view.plan.front.elements.find((p) => p.id === id)?.label ?? id;
	const got = useLayout(b.view.id, b.view.version, b.state.settings.unit, {
		element: e.id,
		kind,
		n: round ? n : cols,
		rows,
		radius,
		gap,
		inside,
		with: kind === "field" ? others : [],
		keep: kind === "field" ? keep : "",
		seed,
		alternate: many && alternate,
	});
	const laid = got.data;
	const moved = kind === "middle" || kind === "weight";
	return (
		<div style={{ display: "grid", gap: 10, width: 330, maxHeight: "56vh", overflowY: "auto" }}>
			<div style={{ display: "flex", gap: 10, flexWrap: "wrap" }}>
				<Select label="Lay several in" value={kind} onChange={(v) => setKind(v as LayoutKind)}>
					{kinds.map(([id, text]) => (
						<option key={id} value={id}>
							{text}
						</option>
					))}
				</Select>
				{round && (
					<>
						<LengthField label="Radius" mm={radius} onSet={setRadius} min={1} max={300} width="76px" />
						<NumberField label="How many, 0 to close" v={n} set={setN} min={0} max={60} />
					</>
				)}
				{((round && n === 0) || kind === "frame" || kind === "field") && (
					<LengthField label="Gap, below 0 an overlap" mm={gap} onSet={setGap} min={-100} max={100} width="76px" />
				)}
				{kind === "frame" && <LengthField label="Middles inside the edge" mm={inside} onSet={setInside} min={-100} max={100} width="76px" />}
				{(kind === "row" || kind === "grid" || kind === "scatter") && (
					<NumberField label={kind === "grid" ? "Across" : "How many"} v={cols} set={setCols} min={1} max={60} />
				)}
				{kind === "grid" && <NumberField label="Down" v={rows} set={setRows} min={1} max={30} />}
				{kind === "scatter" && <Button onClick={() => setSeed((seed + 1) % 10000)}>Throw again</Button>}
			</div>
			{kind === "field" && rest.length > 0 && (
				<>
					<fieldset style={{ border: 0, padding: 0, margin: 0, display: "grid", gap: 2 }}>
						<legend style={{ padding: 0 }}>Filled with these too</legend>
						{rest.slice(0, 12).map((x) => (
							<Check
								key={x.id}
								label={name(x.id)}
								on={others.includes(x.id)}
								set={(on) => setOthers(on ? [...others, x.id] : others.filter((o) => o !== x.id))}
							/>
						))}
					</fieldset>
					<Select label="Left thin beneath" value={keep} onChange={setKeep}>
						<option value="">nothing</option>
						{rest.map((x) => (
							<option key={x.id} value={x.id}>
								{name(x.id)}
							</option>
						))}
					</Select>
				</>
			)}
			{many && !moved && kind !== "twin" && <Check label="take turns in the colourways" on={alternate} set={setAlternate} />}
			<div role="status">
				{got.error ? <span style={{ color: hue.madder }}>{got.error.message}</span> : laid ? laid.say : "Working it out…"}
				{laid && !got.error && laid.notes.map((x) => <div key={x}>{x}</div>)}
			</div>
			<Button variant="main" disabled={!laid || !!got.error} onClick={() => laid && b.edit(laid.edits)}>
				{moved ? "Move it" : laid && !got.error ? `Lay ${laid.count}` : "Lay them"}
			</Button>
		</div>
	);
}
