import { memo, useState } from "react";
import { useBench } from "../../api/card";
import type { Bond, S } from "../../api/client";
import { useHeights } from "../../api/queries";
import { HeldField } from "../../parts/station";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { thin } from "../../ui/units";
import { useBonds } from "./pads";

const zones = ["all over", "edge", "middle", "foot", "head", "left", "right", "spots", "behind opaque"] as const;
const sides = ["left", "right", "top", "bottom"] as const;

/** How what is in hand is held: its bonds one by one, and other ways to its height. */
export const BondForm = memo(function BondForm({ standing, part, setPart }: { standing: S["StandingCard"]; part: string; setPart: (part: string) => void }) {
	const b = useBench();
	const parts = standing.pieces.filter((p) => p.element === b.element && p.motif && p.thick > 0);
	const leaf = standing.pieces.find((p) => p.element === b.element && p.thick > 0 && (part ? p.part === part : !p.motif));
	const held = useBonds(leaf);
	if (!leaf || !held) return <div>Tap a part, here or in the strata, to see and change what holds it.</div>;
	const set = (i: number, f: Partial<Bond>) => held.hold(held.bonds.map((x, n) => (n === i ? { ...x, ...f } : x)));
	const own = held.bonds.some((x) => x.pads?.length);
	const padded = leaf.supports.some((s) => s.pad);
	return (
		<div style={{ display: "flex", gap: 12, flexWrap: "wrap", alignItems: "flex-end" }}>
			{parts.length > 0 && (
				<Select label="What of it" value={part} onChange={setPart} width="170px">
					<option value="">the whole</option>
					{parts.map((p) => (
						<option key={p.part} value={p.part}>
							{p.name.slice(p.name.indexOf(", ") + 2)}
						</option>
					))}
				</Select>
			)}
			<HeldField bonds={held.bonds} onChange={(to) => held.hold([...to, ...held.bonds.slice(1)])} />
			{held.bonds[0]?.spacer && (
				<NumberField label="On each other" v={Math.max(1, held.bonds[0].level ?? 1)} set={(level) => set(0, { level })} min={1} max={6} step={1} />
			)}
			{held.bonds.length > 0 && (
				<Popover label={held.bonds.length > 1 ? `Bonds: ${held.bonds.length}` : "Where it is held"} title="What holds it, zone by zone" aside>
					<div style={{ display: "grid", gap: 12, width: 320, maxHeight: "60vh", overflowY: "auto" }}>
						{held.bonds.map((x, i) => (
							<OneBond key={i} x={x} n={i} many={held.bonds.length > 1} set={(f) => set(i, f)} drop={() => held.hold(held.bonds.filter((_, n) => n !== i))} />
						))}
						{held.bonds.length < 6 && (
							<Button onClick={() => held.hold([...held.bonds, { adhesive: b.state.kit.adhesives[0]?.id ?? "" }])}>One more bond</Button>
						)}
					</div>
				</Popover>
			)}
			<Heights
				element={leaf.element}
				part={part}
				onTake={(bond, level) => {
					held.hold([{ ...bond, zone: held.bonds[0]?.zone, inset: held.bonds[0]?.inset, open: held.bonds[0]?.open }, ...held.bonds.slice(1)]);
					const e = b.card.elements.find((x) => x.id === leaf.element);
					if (!part && (e?.level ?? "") !== level) b.edit({ levelWith: { element: leaf.element, with: level || undefined } });
				}}
			/>
			{padded && (
				<Button
					onClick={() => {
						const at = held.bonds.findIndex((x) => x.spacer);
						const like = leaf.supports.find((s) => s.bond === at && s.pad)?.pad;
						if (like) set(at, { open: undefined, pads: [...leaf.supports.flatMap((s) => (s.bond === at && s.pad ? [s.pad] : [])), { ...like, x: 0, y: 0 }] });
					}}
				>
					One more pad
				</Button>
			)}
			{leaf.off.length > 0 && (
				<Button onClick={() => b.edit({ snipOff: { element: leaf.element, part: leaf.part, off: "" } })}>Whole again, not cut off</Button>
			)}
			{own && <Button onClick={() => held.hold(held.bonds.map((x) => ({ ...x, pads: undefined })))}>Pads as proposed</Button>}
		</div>
	);
});

function OneBond({ x, n, many, set, drop }: { x: Bond; n: number; many: boolean; set: (f: Partial<Bond>) => void; drop: () => void }) {
	return (
		<fieldset
			style={{
				border: 0,
				borderBottom: `1px solid ${hue.line}`,
				margin: 0,
				padding: "0 0 10px",
				display: "flex",
				flexWrap: "wrap",
				gap: 10,
				alignItems: "flex-end",
			}}
		>
			<legend style={{ fontWeight: 700, padding: 0 }}>Bond {n + 1}</legend>
			<HeldField
				bonds={[x]}
				onChange={([to]) => (to ? set({ spacer: undefined, level: undefined, adhesive: undefined, shims: undefined, pads: undefined, ...to }) : drop())}
			/>
			<Select label="Where" value={x.zone || "all over"} onChange={(v) => set({ zone: v === "all over" ? undefined : (v as Bond["zone"]), pads: undefined })}>
				{zones.map((z) => (
					<option key={z}>{z}</option>
				))}
			</Select>
			<LengthField label="Back from the edge" mm={x.inset ?? 0} min={0} max={60} onSet={(inset) => set({ inset: inset || undefined })} />
			<div style={{ width: "100%", display: "flex", gap: 10, flexWrap: "wrap" }}>
				<span>Left open at:</span>
				{sides.map((s) => (
					<Check
						key={s}
						label={s}
						on={x.open?.includes(s) ?? false}
						set={(on) => set({ pads: undefined, open: on ? [...(x.open ?? []), s] : x.open?.filter((o) => o !== s) })}
					/>
				))}
			</div>
			{(x.open?.length ?? 0) > 0 && (
				<LengthField label="Pocket, deep (0: usual)" mm={x.pocket ?? 0} min={0} max={200} onSet={(pocket) => set({ pocket: pocket || undefined })} />
			)}
			{many && <Button onClick={drop}>Leave it out</Button>}
		</fieldset>
	);
}

/** The same height by other means, or level with something. */
function Heights({ element, part, onTake }: { element: string; part: string; onTake: (bond: Bond, level: string) => void }) {
	return (
		<Popover label="Other ways to its height" title="The same height by other means" aside>
			{(shut) => (
				<Ways
					element={element}
					part={part}
					onTake={(bond, level) => {
						onTake(bond, level);
						shut();
					}}
				/>
			)}
		</Popover>
	);
}

function Ways({ element, part, onTake }: { element: string; part: string; onTake: (bond: Bond, level: string) => void }) {
	const b = useBench();
	const s = b.state.settings;
	const [level, setLevel] = useState(b.card.elements.find((x) => x.id === element)?.level ?? "");
	const got = useHeights(b.view.id, b.view.version, { element, part: part || undefined, with: level || undefined });
	const others = b.view.plan.front.elements.filter((e) => e.id !== element && !e.problem);
	return (
		<div style={{ display: "grid", gap: 8, width: 320 }}>
			<Select label="Level with" value={level} onChange={setLevel}>
				<option value="">nothing: as high as it is</option>
				{others.map((e) => (
					<option key={e.id} value={e.id}>
						{e.label}
					</option>
				))}
			</Select>
			{got && <div>{got.why || `Held up ${thin(got.height, s)}, within ${thin(got.within, s)}:`}</div>}
			{got?.ways.map((w) => (
				<Button key={w.said} onClick={() => onTake(w.bond, level)} justifyContent="flex-start" whiteSpace="normal" h="auto" py="2" textAlign="left">
					{w.said} ({w.pieces === 1 ? "one piece" : `${w.pieces} pieces`}){w.short.map((x) => `; takes ${x.needs} of ${x.name}, ${x.left} left`)}
				</Button>
			))}
		</div>
	);
}
