import { useState } from "react";
import { useBench } from "../../api/card";
import type { Element } from "../../api/client";
import { type LayoutKind, useLayout } from "../../api/queries";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Select } from "../../ui/select";

/** Several of an element in a ring, a row or a grid: how many it takes is said before one is laid. */
export default function Many({ e }: { e: Element }) {
	const b = useBench();
	const { base } = b.card;
	const [kind, setKind] = useState<LayoutKind>("ring");
	const [n, setN] = useState(0);
	const [cols, setCols] = useState(3);
	const [rows, setRows] = useState(3);
	const [radius, setRadius] = useState(Math.min(base.w, base.h) / 3);
	const [gap, setGap] = useState(0);
	const [alternate, setAlternate] = useState(true);
	const motif = b.card.motifs.find((m) => m.id === e.image?.motif);
	const many = (motif?.colourways.length ?? 0) > 1;
	const got = useLayout(b.view.id, b.view.version, b.state.settings.unit, {
		element: e.id,
		kind,
		n: kind === "ring" ? n : cols,
		rows,
		radius,
		gap,
		alternate: many && alternate,
	});
	const laid = got.data;
	return (
		<div style={{ display: "grid", gap: 10, width: 320 }}>
			<div style={{ display: "flex", gap: 10, flexWrap: "wrap" }}>
				<Select label="Lay several in" value={kind} onChange={(v) => setKind(v as LayoutKind)}>
					<option value="ring">a ring</option>
					<option value="row">a row</option>
					<option value="grid">a grid</option>
				</Select>
				{kind === "ring" && (
					<>
						<LengthField label="Radius" mm={radius} onSet={setRadius} min={1} max={300} width="76px" />
						<NumberField label="How many, 0 to close" v={n} set={setN} min={0} max={60} />
						{n === 0 && <LengthField label="Gap, below 0 an overlap" mm={gap} onSet={setGap} min={-100} max={100} width="76px" />}
					</>
				)}
				{kind !== "ring" && <NumberField label={kind === "row" ? "How many" : "Across"} v={cols} set={setCols} min={1} max={60} />}
				{kind === "grid" && <NumberField label="Down" v={rows} set={setRows} min={1} max={30} />}
			</div>
			{many && <Check label="take turns in the colourways" on={alternate} set={setAlternate} />}
			<div role="status">
				{got.error ? <span style={{ color: hue.madder }}>{got.error.message}</span> : laid ? laid.say : "Working it out…"}
				{laid && !got.error && laid.notes.map((x) => <div key={x}>{x}</div>)}
			</div>
			<Button variant="main" disabled={!laid || !!got.error} onClick={() => laid && b.edit(laid.edit)}>
				{laid && !got.error ? `Lay ${laid.count}` : "Lay them"}
			</Button>
		</div>
	);
}
