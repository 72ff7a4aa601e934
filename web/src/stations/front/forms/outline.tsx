import type { S } from "../../../api/client";
import { LengthField } from "../../../ui/length";
import { Select } from "../../../ui/select";
import { Fields, PartField, useFirstPart } from "./fields";

type Outline = S["Outline"];

const names: [Outline["kind"], string][] = [
	["rectangle", "rectangle"],
	["oval", "circle, oval"],
	["arch", "arch"],
	["scalloped", "scalloped edge"],
	["wavy", "wavy edge"],
	["fishtail", "banner, two fishtails"],
	["notched", "banner, one notch"],
	["pointed", "banner, one point"],
	["slanted", "one end cut off"],
	["tag", "tag"],
	["fringe", "fringe"],
	["die part", "a die of the stores"],
];

const ends = ["fishtail", "notched", "pointed", "slanted"];

/** The outline of a sheet, an opening or the front leaf. */
export function OutlineFields({ label, o, onSet }: { label: string; o?: Outline; onSet: (o: Outline) => void }) {
	const kind = o?.kind ?? "rectangle";
	const now: Outline = o ?? { kind: "rectangle" };
	const first = useFirstPart();
	const edgy = kind === "scalloped" || kind === "wavy";
	return (
		<Fields>
			<Select label={label} value={kind} onChange={(v) => onSet({ kind: v as Outline["kind"], ...(v === "die part" && first) })} width="170px">
				{names.map(([id, name]) => (
					<option key={id} value={id} disabled={id === "die part" && !first}>
						{name}
					</option>
				))}
			</Select>
			{kind === "rectangle" && (
				<LengthField label="Corners, radius" mm={o?.pitch ?? 0} min={0} max={200} onSet={(pitch) => onSet({ ...now, pitch })} width="76px" />
			)}
			{(edgy || kind === "fringe") && (
				<LengthField
					label={kind === "fringe" ? "Strips, wide (0: usual)" : "Each, wide (0: usual)"}
					mm={o?.pitch ?? 0}
					min={0}
					max={200}
					onSet={(pitch) => onSet({ ...now, pitch })}
					width="76px"
				/>
			)}
			{(edgy || kind === "fringe" || ends.includes(kind)) && (
				<LengthField label="Deep (0: usual)" mm={o?.depth ?? 0} min={0} max={200} onSet={(depth) => onSet({ ...now, depth })} width="76px" />
			)}
			{(edgy || kind === "fringe") && (
				<Select
					label="Sides"
					value={o?.sides?.join(" ") ?? ""}
					onChange={(v) => onSet({ ...now, sides: v ? (v.split(" ") as NonNullable<Outline["sides"]>) : undefined })}
					width="130px"
				>
					<option value="">{kind === "fringe" ? "the foot" : "all"}</option>
					<option value="bottom">the foot</option>
					<option value="top">the top</option>
					<option value="left">the left</option>
					<option value="right">the right</option>
					<option value="top bottom">top and foot</option>
					<option value="left right">left and right</option>
				</Select>
			)}
			{kind === "die part" && <PartField set={o?.set ?? ""} part={o?.part ?? ""} onChange={(set, part) => onSet({ ...now, set, part })} />}
		</Fields>
	);
}
