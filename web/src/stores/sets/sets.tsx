import { Box, Input } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, ok, type S, type State, sendBytes } from "../../api/client";
import { useRefresh, useUses } from "../../api/queries";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { TextField } from "../../ui/field";
import { FileField } from "../../ui/file";
import { LengthField } from "../../ui/length";
import { NumberEntry } from "../../ui/number";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { length } from "../../ui/units";
import { Add, NoLonger, Panel, Remove } from "../shelf";
import { HowLarge } from "./howlarge";
import { ManyDrawings } from "./many";

/** The sets a person owns: found by name, word or place; out as drawings; new ones from pictures, drawings or measures. */
export function Sets({ state }: { state: State }) {
	const wanted = useSearchParams()[0].get("find") ?? "";
	const [find, setFind] = useState(wanted);
	useEffect(() => setFind(wanted), [wanted]);
	const [kind, setKind] = useState("");
	const [asked, setAsked] = useState<S["Imported"]>();
	const uses = useUses();
	const words = find.toLowerCase().split(/\s+/).filter(Boolean);
	const all = state.kit.sets;
	const shown = all.filter((s) => {
		const text = [s.name, s.where, ...(s.tags ?? []), ...s.parts.map((p) => p.label)].join(" ").toLowerCase();
		return (!kind || s.kind === kind) && words.every((w) => text.includes(w));
	});
	return (
		<>
			{asked && <HowLarge set={asked} onDone={() => setAsked(undefined)} />}
			<NoLonger kind="sets" things={state.away.sets} />
			<Panel title={shown.length === all.length ? `${all.length} ${all.length === 1 ? "set" : "sets"}` : `${shown.length} of ${all.length} sets`}>
				<Box display="flex" gap="6" alignItems="end" flexWrap="wrap" mb="6">
					<TextField label="Find by name, part, word or place" value={find} onChange={(e) => setFind(e.target.value)} width="260px" />
					<Select label="Kind" value={kind} onChange={(v) => setKind(v)}>
						<option value="">all</option>
						<option value="die">die sets</option>
						<option value="stamp">stamp sets</option>
						<option value="stencil">stencil sets</option>
						<option value="word">word sets</option>
					</Select>
					<Box flex="1" />
					<Link to="/stores/sets/scan" className="main-link">
						Bring in a set from a picture
					</Link>
				</Box>
				<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(340px, 1fr))" gap="8" alignItems="start">
					{shown.map((s) => (
						<Tile key={s.id} set={s} state={state} cards={uses.data?.find((u) => u.set === s.id)?.cards ?? []} />
					))}
				</Box>
				{all.length === 0 && <Box color="quiet">No sets yet. Bring one in from a picture, or import a drawing below.</Box>}
				{all.length > 0 && shown.length === 0 && <Box color="quiet">No set matches. Try fewer words.</Box>}
			</Panel>
			<Panel title="Import a drawn set">
				<Box fontSize="small" mb="4">
					An SVG drawing in which each group or path is one layer. Names are kept. Lengths in mm, in or px (96 to the inch) are honoured.
				</Box>
				<Add
					label="Import the drawing"
					save={async (f) => {
						const file = f.get("file") as File;
						const q = new URLSearchParams({ name: String(f.get("name") || file.name.replace(/\.svg$/i, "")), kind: String(f.get("kind")) });
						const set = await sendBytes<S["Imported"]>(`/api/import/set?${q}`, await file.text(), "image/svg+xml");
						setAsked(set.sizes.length > 1 ? set : undefined);
						if (set.sizes.length > 1) window.scrollTo({ top: 0 });
						return set;
					}}
				>
					<FileField label="Drawing" name="file" accept={[".svg", "image/svg+xml"]} required />
					<TextField label="Name" name="name" />
					<Select label="Kind" name="kind">
						<option value="die">die set</option>
						<option value="stamp">stamp set</option>
						<option value="stencil">stencil set</option>
					</Select>
				</Add>
				<ManyDrawings has={state.kit.sets.map((s) => s.name)} />
			</Panel>
			<Basics />
		</>
	);
}

function Tile({ set, state, cards }: { set: S["Set"]; state: State; cards: string[] }) {
	const refresh = useRefresh();
	const [open, setOpen] = useState(false);
	const [wrong, setWrong] = useState("");
	const lost = set.parts.filter((p) => p.missing).length;
	const save = async (next: S["Set"]) => {
		try {
			await ok(api.PUT("/api/kit/sets/{id}", { params: { path: { id: set.id } }, body: next }));
			setWrong("");
			await refresh("state", "card");
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const box = sizeOf(set.parts);
	return (
		<Box bg="white" border="1px solid {colors.line}" p="6" gridColumn={open ? "span 2" : undefined}>
			<Box display="flex" gap="7">
				<Box w="130px" h="120px" bg="bench" flexShrink={0} p="3">
					<SetPicture set={set} />
				</Box>
				<Box minW={0} fontSize="small" flex="1">
					<b style={{ fontSize: size.lead }}>{set.name}</b>
					<Box>
						{set.kind} set, {set.parts.length} {set.parts.length === 1 ? "part" : "parts"}
						{set.where && `; ${set.where}`}
					</Box>
					<Box color="quiet">
						{length(box.w, state.settings)} × {length(box.h, state.settings)}
						{(set.tags ?? []).length > 0 && `; ${set.tags?.join(", ")}`}
					</Box>
					{cards.length > 0 && <Box color="quiet">In {cards.join(", ")}</Box>}
					{lost > 0 && (
						<Box color="madder" fontWeight={700}>
							{lost} {lost === 1 ? "part" : "parts"} missing
						</Box>
					)}
					{(set.notes ?? []).map((n) => (
						<Box key={n} color="quiet">
							{n}
						</Box>
					))}
					<Box mt="3" display="flex" gap="4" flexWrap="wrap">
						<Button size="sm" aria-expanded={open} onClick={() => setOpen(!open)}>
							{open ? "Close" : "Open"}
						</Button>
						<Remove kind="sets" id={set.id} name={set.name} />
					</Box>
				</Box>
			</Box>
			{open && (
				<Box mt="5" fontSize="small">
					<Box display="grid" gridTemplateColumns="1fr 1fr" gap="4">
						<TextField
							label="Where it is kept"
							defaultValue={set.where}
							onBlur={(e) => e.target.value !== (set.where ?? "") && save({ ...set, where: e.target.value })}
						/>
						<TextField
							label="Words to find it by"
							defaultValue={(set.tags ?? []).join(", ")}
							onBlur={(e) =>
								save({
									...set,
									tags: e.target.value
										.split(",")
										.map((t) => t.trim())
										.filter(Boolean),
								})
							}
						/>
						{set.kind === "stamp" && (
							<Check label="new: none of its stamps was inked yet" on={set.fresh ?? false} set={(fresh) => save({ ...set, fresh: fresh || undefined })} />
						)}
					</Box>
					<Box as="ul" listStyleType="none" p="0" my="4" aria-label={`Parts of ${set.name}`}>
						{set.parts.map((p) => (
							<li key={p.id} style={{ display: "flex", gap: 8, alignItems: "center", padding: "2px 0" }}>
								<svg viewBox={view([p])} width={30} height={22} aria-hidden="true">
									<path d={p.outline} fill={hue.quiet} fillRule="evenodd" />
								</svg>
								<span style={{ flex: 1 }}>
									{p.label}
									{p.copies > 1 && `, ${p.copies} of it`}
								</span>
								<Marks part={p} stamp={set.kind === "stamp"} onSave={(next) => save({ ...set, parts: set.parts.map((q) => (q.id === p.id ? next : q)) })} />
								<a href={`/api/sets/${set.id}/set.svg?part=${p.id}`} download>
									SVG
								</a>
							</li>
						))}
					</Box>
					<Box display="flex" gap="4" alignItems="end" mb="4">
						<LengthField
							label="True width of the set"
							mm={box.w}
							onSet={async (width) => {
								try {
									await ok(api.POST("/api/sets/{id}/scale", { params: { path: { id: set.id } }, body: { width } }));
									setWrong("");
									await refresh("state", "card");
								} catch (e) {
									setWrong((e as Error).message);
								}
							}}
						/>
						<span style={{ color: hue.quiet }}>Measure a cut piece; the whole set is scaled.</span>
					</Box>
					Whole set: <a href={`/api/sets/${set.id}/set.svg`}>SVG</a>, <a href={`/api/sets/${set.id}/set.svg?as=cut`}>cut lines for an electronic cutter</a>
					{wrong && (
						<Box role="alert" color="madder">
							{wrong}
						</Box>
					)}
				</Box>
			)}
		</Box>
	);
}

/** What is marked on a part: the stamp it shares, its version, two colours, missing. */
function Marks({ part, stamp, onSave }: { part: S["Part"]; stamp: boolean; onSave: (p: S["Part"]) => void }) {
	const word = (k: "stamp" | "variant", label: string) => (
		<Input
			aria-label={`${label} of ${part.label}`}
			placeholder={label.toLowerCase()}
			defaultValue={part[k] ?? ""}
			maxLength={40}
			style={{ width: 74, minHeight: 24, padding: "1px 5px" }}
			onBlur={(e) => e.target.value !== (part[k] ?? "") && onSave({ ...part, [k]: e.target.value })}
		/>
	);
	const tick = (k: "twice" | "missing", label: string) => <Check label={label} on={!!part[k]} set={(on) => onSave({ ...part, [k]: on })} />;
	return (
		<>
			{stamp ? word("stamp", "Stamp") : null}
			{word("variant", "Version")}
			{tick("twice", "two colours")}
			{tick("missing", "missing")}
		</>
	);
}

const basicKinds = ["circle", "rectangle", "scalloped", "stitched", "fishtail banner", "notched banner", "ring", "tag"] as const;

/** Plain nested dies and words, drawn from their measures. */
function Basics() {
	const num = (f: FormData, k: string) => Number(String(f.get(k) || "0").replace(",", "."));
	return (
		<>
			<Panel title="Draw basic dies">
				<Add
					label="Draw them"
					save={(f) =>
						ok(
							api.POST("/api/sets/basic", {
								body: {
									name: String(f.get("name")),
									kind: f.get("kind") as S["BasicIn"]["kind"],
									w: num(f, "w"),
									h: num(f, "h"),
									corner: num(f, "corner"),
									count: num(f, "count"),
									step: num(f, "step"),
								},
							}),
						)
					}
				>
					<TextField label="Name" name="name" placeholder="Nested circles" />
					<Select label="Shape" name="kind">
						{basicKinds.map((k) => (
							<option key={k}>{k}</option>
						))}
					</Select>
					<LengthField label="Width" name="w" mm={101.6} min={3} max={400} />
					<LengthField label="Height, 0 as wide" name="h" mm={0} min={0} max={400} />
					<LengthField label="Corner, scallop, notch" name="corner" mm={0} min={0} max={100} />
					<NumberEntry label="Sizes" name="count" begin={4} min={1} max={12} />
					<LengthField label="Step a side" name="step" mm={3.175} min={0} max={50} />
				</Add>
			</Panel>
			<Panel title="Draw a word die">
				<Add
					label="Draw the words"
					save={(f) => ok(api.POST("/api/sets/words", { body: { text: String(f.get("text")), height: num(f, "height"), shadow: num(f, "shadow") } }))}
				>
					<TextField label="Words" name="text" maxLength={40} required />
					<LengthField label="Height of a capital" name="height" mm={12.7} min={4} max={120} />
					<LengthField kind="thin" label="Shadow beneath" name="shadow" mm={1.2} min={0} max={6} />
				</Add>
				<Box fontSize="small" color="quiet" mt="3">
					Closed letters leave loose islands; they come as a part of their own.
				</Box>
			</Panel>
		</>
	);
}

function boxOf(parts: S["Part"][]) {
	let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
	for (const p of parts) {
		for (const m of p.outline.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)) {
			[x0, y0, x1, y1] = [Math.min(x0, +m[1]), Math.min(y0, +m[2]), Math.max(x1, +m[1]), Math.max(y1, +m[2])];
		}
	}
	return { x: x0, y: y0, w: x1 - x0, h: y1 - y0 };
}

const sizeOf = (parts: S["Part"][]) => boxOf(parts);
const view = (parts: S["Part"][]) => {
	const b = boxOf(parts);
	return `${b.x} ${b.y} ${b.w} ${b.h}`;
};

/** The parts of a set over each other: in the colours they were seen in, or lowest darkest. */
function SetPicture({ set }: { set: S["Set"] }) {
	return (
		<svg viewBox={view(set.parts)} width="100%" height="100%" role="img" aria-label={`Parts of ${set.name}`}>
			{set.parts.map((p, i) => {
				const v = Math.round(70 + (170 * i) / Math.max(1, set.parts.length - 1));
				return (
					<g key={p.id} opacity={p.missing ? 0.25 : 1}>
						<path d={p.outline} fill={p.colour || `rgb(${v} ${v} ${v})`} fillRule="evenodd" stroke={hue.outline} strokeWidth={0.15} />
						{p.lines && <path d={p.lines} fill="none" stroke={hue.text} strokeWidth={0.4} />}
					</g>
				);
			})}
		</svg>
	);
}
