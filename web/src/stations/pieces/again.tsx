import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { LengthField } from "../../ui/length";
import { Select } from "../../ui/select";

type Layer = S["Layer"];
type Region = S["Region"];

const row = { display: "flex", gap: 10, flexWrap: "wrap", alignItems: "end" } as const;

/** What more can be made of the part of a layer, and how a layer takes only some of its part. */
export function Again({ l, set }: { l: Layer; set: (f: Partial<Layer>) => void }) {
	const b = useBench();
	const motif = b.motif?.id ?? "";
	const again = (f: Omit<S["Again"], "motif" | "layer">) => b.edit({ again: { motif, layer: l.id, ...f } });
	const cut = l.make === "cut";
	return (
		<div style={{ display: "grid", gap: 12, width: 352, maxHeight: "56vh", overflowY: "auto" }}>
			{l.traced !== undefined && l.traced !== 0 && (
				<LengthField label="Traced larger by (below 0: smaller)" mm={l.traced} min={-20} max={20} onSet={(traced) => set({ traced })} />
			)}
			{l.shifted !== undefined && l.shifted !== 0 && (
				<LengthField label="Put on offset by" mm={l.shifted} min={-200} max={200} onSet={(shifted) => set({ shifted })} />
			)}
			{l.region?.by === "enclosed" && <div>What a closed line of the print holds, coloured by hand within it.</div>}
			{l.region && l.region.by !== "enclosed" && (
				<RegionFields of={b.motif?.layers.find((x) => x.id === l.on)} r={l.region} set={(region) => set({ region })} />
			)}
			{!l.region && (
				<>
					<div>One region of it in another colour, parted along a line:</div>
					<div style={row}>
						<Button onClick={() => again({ region: { by: "masked" } })}>Mask the rest</Button>
						{!cut && <Button onClick={() => again({ within: true })}>What its lines hold, to colour</Button>}
						{cut && <Button onClick={() => again({ region: { by: "cut twice" } })}>Cut it twice</Button>}
						{cut && <Button onClick={() => again({ region: { by: "swapped" } })}>Swap the halves</Button>}
					</div>
					<div>One region of it that takes no ink:</div>
					<div style={row}>
						<Button onClick={() => again({ region: { by: "kept" } })}>Keep it as it is</Button>
					</div>
					{cut && (
						<>
							<div>The same part once more:</div>
							<div style={row}>
								<Button onClick={() => again({ traced: 1.5 })}>Trace a back</Button>
								<Button onClick={() => again({ shifted: 4 })}>Another, put on offset</Button>
							</div>
						</>
					)}
				</>
			)}
		</div>
	);
}

/** How a region is parted from the rest, and along what. */
function RegionFields({ of, r, set }: { of?: Layer; r: Region; set: (r: Region) => void }) {
	const b = useBench();
	const part = b.motif?.layers.find((x) => x.id === b.layer)?.part;
	const parts = b.state.kit.sets.find((s) => s.id === b.motif?.set)?.parts.filter((p) => p.id !== part) ?? [];
	const line = r.line ?? [];
	const move = (i: number, f: Partial<S["Offset"]>) => set({ ...r, line: line.map((p, k) => (k === i ? { ...p, ...f } : p)) });
	return (
		<>
			<div style={row}>
				<Select label="Parted by" value={r.by} onChange={(v) => set({ ...r, by: v as Region["by"] })} width="220px">
					<option value="kept">nothing yet: it stays as it is</option>
					<option value="covered">a mask over it: it stays as it is</option>
					<option value="masked">masking the rest</option>
					{(r.by === "cut twice" || r.by === "swapped" || of?.make === "cut") && (
						<>
							<option value="cut twice">cutting it twice</option>
							<option value="swapped">swapping the halves</option>
						</>
					)}
				</Select>
				<Select
					label="Bounded by"
					value={r.part ?? ""}
					onChange={(v) => set({ ...r, part: v || undefined, line: v || line.length > 1 ? r.line : undefined })}
					width="150px"
				>
					<option value="">the line drawn</option>
					{parts.map((p) => (
						<option key={p.id} value={p.id}>
							{p.label}
						</option>
					))}
				</Select>
				<Check label="the other side" on={r.other ?? false} set={(other) => set({ ...r, other })} />
			</div>
			{!r.part && (
				<>
					<div>Draw the line by its points, in the picture or here; between two points a third can be pulled out.</div>
					{line.map((p, i) => (
						<div key={i} style={row}>
							<LengthField label={`Point ${i + 1}, across`} mm={p.x} onSet={(x) => move(i, { x })} width="76px" />
							<LengthField label="down" mm={p.y} onSet={(y) => move(i, { y })} width="76px" />
							{line.length > 2 && <Button onClick={() => set({ ...r, line: line.filter((_, k) => k !== i) })}>Drop</Button>}
							{i < line.length - 1 && (
								<Button onClick={() => set({ ...r, line: [...line.slice(0, i + 1), between(p, line[i + 1]), ...line.slice(i + 1)] })}>One more after it</Button>
							)}
						</div>
					))}
				</>
			)}
		</>
	);
}

export const between = (a: S["Offset"], b: S["Offset"]) => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
