import { Box } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { api, ok, type S, type State, sendBytes } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { TextField } from "../../ui/field";
import { FileField } from "../../ui/file";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { Add, NoLonger, Panel, Remove, slug } from "../shelf";
import { SwatchSheets } from "./swatches";

const inkKinds = ["dye", "pigment", "hybrid", "waterproof", "embossing", "alcohol", "watercolour", "pencil"] as const;

export function Inks({ state }: { state: State }) {
	const [on, setOn] = useState("");
	const asked = useSearchParams()[0].get("find") ?? "";
	const [find, setFind] = useState(asked);
	useEffect(() => setFind(asked), [asked]);
	const [kind, setKind] = useState("");
	const looks = new Map(state.inks.map((i) => [i.id, i]));
	const chosen = state.kit.inks.find((i) => i.id === on);
	const words = find.toLowerCase().split(/\s+/).filter(Boolean);
	const hit = (i: S["Ink"]) => {
		const text = [i.name, i.family, i.depth, i.where, i.low ? "low" : "", i.gone ? "empty" : "", i.measured ? "measured" : ""].join(" ").toLowerCase();
		return (!kind || i.kind === kind) && words.every((w) => text.includes(w));
	};
	const n = state.kit.inks.filter(hit).length;
	const families = [...new Set(state.kit.inks.map((i) => i.family || i.name))];
	return (
		<>
			<Panel title={n === state.kit.inks.length ? `The ink drawer: ${n} inks` : `The ink drawer: ${n} of ${state.kit.inks.length} inks`}>
				<Box display="flex" gap="6" alignItems="end" flexWrap="wrap" mb="4">
					<TextField label="Find by name, family, place, low, empty, measured" value={find} onChange={(e) => setFind(e.target.value)} width="280px" />
					<Select label="Kind" value={kind} onChange={(v) => setKind(v)}>
						<option value="">all</option>
						{inkKinds.map((k) => (
							<option key={k}>{k}</option>
						))}
					</Select>
					<Box flex="1" />
					<Box fontSize="small">
						Take out: <a href="/api/inks.csv">table (CSV)</a>, <a href="/api/inks.gpl">palette (GPL)</a>
					</Box>
				</Box>
				<Box fontSize="small" mb="5">
					Each ink stands at the lightness it dries to on its paper, white at the top, by family from left to right. Tap one to see it.
				</Box>
				<Box bg={hue.bed} overflowX="auto" tabIndex={0} role="region" aria-label="Inks by family and lightness">
					{/* biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset; the group is named */}
					<svg
						viewBox={`0 0 ${Math.max(900, families.length * 92 + 60)} 360`}
						width="100%"
						style={{ minWidth: 700, display: "block" }}
						role="group"
						aria-label="The drawer"
					>
						{[100, 80, 60, 40, 20, 0].map((l) => (
							<g key={l}>
								<line x1={44} x2={Math.max(900, families.length * 92 + 60)} y1={20 + (100 - l) * 3.1} y2={20 + (100 - l) * 3.1} stroke={hue.bed} />
								<text x={36} y={24 + (100 - l) * 3.1} fontSize={12} textAnchor="end" fill={hue.text}>
									{l}
								</text>
							</g>
						))}
						{families.map((f, c) => (
							<g key={f}>
								<text x={56 + c * 92} y={352} fontSize={13} fontWeight={700} fill={hue.text}>
									{f.length > 12 ? `${f.slice(0, 11)}…` : f}
								</text>
								{state.kit.inks
									.filter((i) => (i.family || i.name) === f)
									.map((i) => {
										const l = looks.get(i.id);
										if (!l) return null;
										const y = 20 + (100 - l.l) * 3.1;
										return (
											// biome-ignore lint/a11y/useSemanticElements: a drawing has no button; it takes the focus and its keys
											<g
												key={i.id}
												role="button"
												tabIndex={0}
												aria-label={`${i.name}, lightness ${Math.round(l.l)}`}
												onClick={() => setOn(i.id)}
												onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && setOn(i.id)}
												style={{ cursor: "pointer" }}
												opacity={!hit(i) ? 0.12 : i.gone ? 0.45 : 1}
											>
												<rect
													x={54 + c * 92}
													y={y - 14}
													width={72}
													height={28}
													rx={3}
													fill={l.dry}
													stroke={on === i.id ? hue.text : hue.edge}
													strokeWidth={on === i.id ? 3 : 0.8}
												/>
												{i.low && <circle cx={54 + c * 92 + 8} cy={y - 6} r={3.5} fill={hue.white} stroke={hue.madder} strokeWidth={1.5} />}
												{i.measured && <path d={`M${54 + c * 92 + 4} ${y + 10}h10`} stroke={looks.get(i.id)!.l > 55 ? hue.text : hue.white} strokeWidth={2} />}
												<path d={`M${54 + c * 92 + 52} ${y + 14} h20 v-28 z`} fill={l.wet} />
											</g>
										);
									})}
							</g>
						))}
					</svg>
				</Box>
				<Box fontSize="note" color="quiet" mt="2">
					The corner shows the wet colour. A bar marks a colour measured from a swatch, a ring an ink that runs low.
				</Box>
				{chosen && <Detail key={chosen.id} ink={chosen} look={looks.get(chosen.id)} state={state} onGone={() => setOn("")} />}
			</Panel>
			<Panel title="Add an ink">
				<Add
					label="Add the ink"
					save={(f) => {
						const id = slug(String(f.get("name")));
						return ok(
							api.PUT("/api/kit/inks/{id}", {
								params: { path: { id } },
								body: {
									id,
									name: String(f.get("name")),
									family: String(f.get("family")),
									depth: String(f.get("depth")),
									kind: f.get("kind") as S["Ink"]["kind"],
									dry: String(f.get("dry")),
									wet: "",
								},
							}),
						);
					}}
				>
					<TextField label="Name" name="name" required />
					<TextField label="Family" name="family" />
					<Select label="Depth" name="depth">
						<option>pale</option>
						<option>soft</option>
						<option>full</option>
						<option>deep</option>
					</Select>
					<Select label="Kind" name="kind">
						{inkKinds.map((k) => (
							<option key={k}>{k}</option>
						))}
					</Select>
					<TextField label="Dried colour on white" name="dry" type="color" defaultValue="#93713f" />
				</Add>
			</Panel>
			<TakeIn />
			<NoLonger kind="inks" things={state.away.inks} />
			<SwatchSheets state={state} />
		</>
	);
}

/** One ink: what is known of it, to change. */
function Detail({ ink, look, state, onGone }: { ink: S["Ink"]; look?: S["InkLook"]; state: State; onGone: () => void }) {
	const refresh = useRefresh();
	const [wrong, setWrong] = useState("");
	const save = async (next: Partial<S["Ink"]>) => {
		try {
			await ok(api.PUT("/api/kit/inks/{id}", { params: { path: { id: ink.id } }, body: { ...ink, ...next } }));
			setWrong("");
			await refresh("state", "card", "cards");
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const swatches = state.kit.swatches.filter((s) => s.ink === ink.id);
	const tick = (k: "low" | "gone" | "water" | "bleeds", label: string) => <Check label={label} on={!!ink[k]} set={(on) => save({ [k]: on })} />;
	return (
		<Box borderTop="1px solid {colors.line}" mt="5" pt="5" fontSize="small">
			<Box display="flex" gap="8" alignItems="center" flexWrap="wrap">
				<b style={{ fontSize: size.lead }}>{ink.name}</b> {ink.kind} ink, dries at lightness {Math.round(look?.l ?? 0)} ({look?.source}).
				{tick("low", "running low")}
				{tick("gone", "empty")}
				{tick("water", "reacts with water")}
				{tick("bleeds", "bleeds through")}
				<Remove kind="inks" id={ink.id} name={ink.name} onTaken={onGone} />
			</Box>
			<Box display="flex" gap="5" alignItems="end" flexWrap="wrap" mt="4">
				<TextField
					label="Dried colour"
					type="color"
					defaultValue={look?.dry}
					onBlur={(e) => e.target.value !== look?.dry && save({ dry: e.target.value, measured: false })}
				/>
				<TextField label="Wet colour" type="color" defaultValue={look?.wet} onBlur={(e) => e.target.value !== look?.wet && save({ wet: e.target.value })} />
				<TextField label="Where it is kept" defaultValue={ink.where} onBlur={(e) => e.target.value !== (ink.where ?? "") && save({ where: e.target.value })} />
				{swatches.map((s) => (
					<Box key={`${s.paper}${s.impressions}`} display="flex" gap="3" alignItems="center">
						<span style={{ width: 34, height: 26, background: s.dry, border: `1px solid ${hue.edge}` }} />
						{state.kit.papers.find((p) => p.id === s.paper)?.name ?? "a paper that is gone"}
						{s.impressions > 1 && ` × ${s.impressions}`}
					</Box>
				))}
			</Box>
			{wrong && (
				<Box role="alert" color="madder" mt="3">
					{wrong}
				</Box>
			)}
		</Box>
	);
}

/** Inks from a table or a palette. */
function TakeIn() {
	const refresh = useRefresh();
	const [file, setFile] = useState<File>();
	const [got, setGot] = useState<S["InksRead"]>();
	const [wrong, setWrong] = useState("");
	const read = async () => {
		if (!file) return;
		try {
			const as = /\.gpl$/i.test(file.name) ? "gpl" : "csv";
			setGot(await sendBytes<S["InksRead"]>(`/api/inks/import?as=${as}`, await file.text(), "text/plain"));
			setWrong("");
			await refresh("state");
		} catch (e) {
			setGot(undefined);
			setWrong((e as Error).message);
		}
	};
	return (
		<Panel title="Take inks in from a file">
			<Box display="flex" gap="5" alignItems="end" flexWrap="wrap">
				<FileField label="Table (CSV) or palette (GPL)" accept={[".csv", ".gpl", ".txt"]} onFile={setFile} />
				<Button disabled={!file} onClick={read}>
					Take them in
				</Button>
				<Box fontSize="small" color="quiet">
					A table names its columns in the first line: name, family, depth, kind, dry, wet.
				</Box>
			</Box>
			{wrong && (
				<Box role="alert" color="madder" mt="4">
					{wrong}
				</Box>
			)}
			{got && (
				<Box mt="4" fontSize="small" role="status">
					<b>
						{got.added} {got.added === 1 ? "ink" : "inks"} taken in.
					</b>
					{got.notes.slice(0, 8).map((n) => (
						<Box key={n}>{n}.</Box>
					))}
					{got.notes.length > 8 && <Box>And {got.notes.length - 8} more like these.</Box>}
				</Box>
			)}
		</Panel>
	);
}
