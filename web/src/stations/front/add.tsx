import { useState } from "react";
import { useBench } from "../../api/card";
import type { Edit, S } from "../../api/client";
import { bare, hue } from "../../ui/colours";
import { TextField } from "../../ui/field";

const sheets: [NonNullable<Edit["addSheet"]>["as"], string][] = [
	["plain sheet", "Plain sheet"],
	["frame", "Frame"],
	["panel with a window", "Panel with a window"],
	["circle", "Circle"],
	["tag", "Tag"],
	["banner", "Banner"],
	["band", "Band"],
	["fringe", "Fringe"],
	["sticker", "Sticker"],
	["vellum leaf", "Vellum leaf in front"],
];

/** What can be put on the front: the sets of the stores with their pictures, sheets by their names, words. */
export default function Add({ onAdd }: { onAdd: () => void }) {
	const b = useBench();
	const add = (edit: Edit) => {
		b.edit(edit);
		onAdd();
	};
	const [find, setFind] = useState("");
	const has = (name: string) => name.toLowerCase().includes(find.trim().toLowerCase());
	const sets = b.state.kit.sets.filter((s) => has(s.name));
	const plain = sheets.filter(([, name]) => has(name));
	const others: [string, Edit][] = (
		[
			["Mat under the panel", { addMat: {} }],
			["Text strip", { addStrip: {} }],
			["Letters cut from card", { addLetters: {} }],
			["Gems", { addGems: {} }],
			["Cord or ribbon", { addRibbon: {} }],
			["Shaker", { addShaker: {} }],
		] as [string, Edit][]
	).filter(([name]) => has(name));
	const item = {
		display: "grid",
		gap: 4,
		justifyItems: "center",
		padding: 6,
		background: "none",
		border: `1px solid ${hue.line}`,
		borderRadius: 4,
		cursor: "pointer",
		font: "inherit",
	} as const;
	return (
		<div style={{ display: "grid", gap: 10, width: 340, maxHeight: "58vh", overflowY: "auto" }}>
			<TextField label="Search" value={find} onChange={(e) => setFind(e.target.value)} />
			<div style={{ display: "flex", gap: 6, flexWrap: "wrap" }}>
				{[...plain.map(([as, name]): [string, Edit] => [name, { addSheet: { as } }]), ...others].map(([name, edit]) => (
					<button key={name} type="button" style={item} onClick={() => add(edit)}>
						{name}
					</button>
				))}
			</div>
			<div style={{ display: "grid", gridTemplateColumns: "repeat(3, 1fr)", gap: 6 }}>
				{sets.map((s) => (
					<button key={s.id} type="button" style={item} onClick={() => add({ addImage: { set: s.id } })} aria-label={`Add an image from ${s.name}`}>
						<SetPicture set={s} />
						<span>{s.name}</span>
					</button>
				))}
			</div>
			{sets.length + plain.length + others.length === 0 && <div>Nothing of that name in the stores.</div>}
		</div>
	);
}

/** The parts of a set as they lie on each other. */
function SetPicture({ set }: { set: S["Set"] }) {
	const paths = set.parts.map((p) => p.outline);
	const nums = paths.flatMap((d) => d.match(/-?\d+(\.\d+)?/g)?.map(Number) ?? []);
	const xs = nums.filter((_, i) => i % 2 === 0);
	const ys = nums.filter((_, i) => i % 2 === 1);
	const [x, y] = [xs.reduce((a, v) => Math.min(a, v), Infinity), ys.reduce((a, v) => Math.min(a, v), Infinity)];
	const [w, h] = [xs.reduce((a, v) => Math.max(a, v), -Infinity) - x, ys.reduce((a, v) => Math.max(a, v), -Infinity) - y];
	if (!Number.isFinite(w + h)) return null;
	return (
		<svg viewBox={`${x - 1} ${y - 1} ${w + 2} ${h + 2}`} width={72} height={56} aria-hidden="true">
			{paths.map((d, i) => (
				<path key={i} d={d} fill={bare} fillRule="evenodd" stroke={hue.mark} strokeWidth={Math.max(w, h) / 90} />
			))}
		</svg>
	);
}
