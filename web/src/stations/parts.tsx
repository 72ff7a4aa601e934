import { Box } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { api, type Card, ok } from "../api";
import { useBench } from "../card";
import { Notes } from "../notes";
import { type Ground, grounds } from "../picture";
import { Strata, type Stratum } from "../strata";
import { Button } from "../ui";
import { fine, length } from "../units";

/** A station: the table, what stands beside it, the strata, the margin notes. */
export function StationFrame({ station, table, middle, strata }: { station: string; table: ReactNode; middle?: ReactNode; strata: ReactNode }) {
	return (
		<div className={middle ? "station with-rail" : "station"}>
			<Box className="place" minW={0} display="flex" flexDirection="column" bg="ground">
				{table}
			</Box>
			{middle}
			{strata}
			<Notes station={station} />
		</div>
	);
}

/** Which image and colourway is on the table. */
export function MotifPicker({ more }: { more?: boolean }) {
	const b = useBench();
	const add = (set: string) =>
		set && b.replace((v) => ok(api.POST("/api/cards/{id}/motifs", { params: { path: { id: b.view.id }, header: { "If-Match": v } }, body: { set } })));
	return (
		<>
			{b.card.motifs.length > 1 && (
				<select aria-label="Image" value={b.motif?.id} onChange={(e) => b.pick({ motif: e.target.value, layer: "" })}>
					{b.card.motifs.map((m) => (
						<option key={m.id} value={m.id}>
							{m.name}
						</option>
					))}
				</select>
			)}
			{(b.look?.colourways.length ?? 0) > 1 && (
				<select aria-label="Colourway" value={b.colourway?.id} onChange={(e) => b.pick({ colourway: e.target.value })}>
					{b.look?.colourways.map((w) => (
						<option key={w.id} value={w.id}>
							{w.name}
						</option>
					))}
				</select>
			)}
			{more && (
				<select aria-label="Put another set on the card" value="" onChange={(e) => add(e.target.value)}>
					<option value="">Add an image from…</option>
					{b.state.kit.sets.map((s) => (
						<option key={s.id} value={s.id}>
							{s.name}
						</option>
					))}
				</select>
			)}
		</>
	);
}

export function GroundPicker({ value, onChange }: { value: Ground; onChange: (g: Ground) => void }) {
	return (
		<fieldset style={{ display: "flex", gap: 4, border: 0, padding: 0, margin: 0 }} aria-label="Ground of the table">
			{(Object.keys(grounds) as Ground[]).map((g) => (
				<Button
					key={g}
					onClick={() => onChange(g)}
					aria-pressed={value === g}
					title={`${g} ground`}
					px="6px"
					borderColor={value === g ? "text" : "line"}
					borderWidth={value === g ? "2px" : "1px"}
				>
					<span style={{ width: 15, height: 15, background: grounds[g], border: "1px solid #0006" }} />
					{g}
				</Button>
			))}
		</fieldset>
	);
}

export const useGround = () => useState<Ground>("grey");

/** The strata of the image in hand, with what the station is about beside each. */
export function ImageStrata({ what, value, sub }: { what: string; value: (i: number) => string; sub?: (i: number) => string }) {
	const b = useBench();
	const rows: Stratum[] = (b.look?.layers ?? []).map((l, i) => {
		const w = b.colourway?.layers[i];
		const m = b.motif?.layers[i];
		return {
			id: l.id,
			name: l.label,
			sub: sub?.(i) ?? inkWords(b.colourway?.layers[i], m?.make !== "cut"),
			value: value(i),
			thick: w?.thick ?? 0,
			lift: w?.lift ?? 0,
			foam: m?.joint.kind === "foam",
			body: w?.paper ?? "#eee",
			top: w?.dry ?? "#ddd",
		};
	});
	const foot =
		b.colourway &&
		`${b.colourway.cards} cut ${b.colourway.cards === 1 ? "piece" : "pieces"} and ${b.colourway.prints} ${b.colourway.prints === 1 ? "print" : "prints"}: ${b.colourway.height.toFixed(2)} mm (${length(b.colourway.height, fine)}) high.`;
	return (
		<Strata
			rows={rows}
			what={what}
			selected={b.layer}
			onPick={(id) => b.pick({ layer: id })}
			onMove={(id, by) => b.change((c) => moveLayer(c, b.motif?.id ?? "", id, by))}
			foot={foot}
		/>
	);
}

export function inkWords(w: { inkName: string; paperName: string; missing?: string } | undefined, printed: boolean) {
	if (!w) return "";
	if (w.missing) return `no ${w.missing} chosen`;
	const ink = w.inkName || "plain";
	return printed ? `${ink}, printed` : `${ink} on ${w.paperName}`;
}

/** Moves a layer up or down the stack; what sits on what is left to the outlines where it would no longer hold. */
export function moveLayer(c: Card, motif: string, layer: string, by: number): Card {
	const m = c.motifs.find((x) => x.id === motif);
	if (!m) return c;
	const i = m.layers.findIndex((l) => l.id === layer);
	const j = i + by;
	if (i < 0 || j < 0 || j >= m.layers.length) return c;
	[m.layers[i], m.layers[j]] = [m.layers[j], m.layers[i]];
	m.layers.forEach((l, k) => {
		if (l.on && m.layers.findIndex((x) => x.id === l.on) >= k) l.on = "";
	});
	return c;
}

/** The strata of the whole card: base, sheets, elements. */
export function CardStrata({ what, value }: { what: string; value: (id: string) => string }) {
	const b = useBench();
	const { plan } = b.view;
	const base = b.state.kit.papers.find((p) => p.id === b.card.base.paper);
	const leaf = plan.depth.base / 2;
	const rows: Stratum[] = [
		{
			id: "back",
			name: "Base, back leaf",
			sub: base?.name ?? "no paper chosen",
			value: value("back"),
			thick: leaf,
			lift: 0,
			body: base?.colour ?? "#eee",
			top: base?.colour ?? "#eee",
		},
		{
			id: "base",
			name: "Base, front leaf",
			sub: base?.name ?? "no paper chosen",
			value: value("base"),
			thick: leaf,
			lift: 0,
			body: base?.colour ?? "#eee",
			top: base?.colour ?? "#eee",
		},
		...plan.front.sheets.map((s, i) => {
			const joint = b.card.sheets[i].joint;
			return {
				id: s.id,
				name: s.panel ? "Panel" : `Mat ${i + 1}`,
				sub: jointWords(b, joint),
				value: value(s.id),
				thick: s.z1 - s.z0,
				lift: foamLift(b, joint),
				foam: joint.kind === "foam",
				body: s.colour,
				top: s.colour,
			};
		}),
		...plan.front.elements.map((p, i) => {
			const e = b.card.elements[i];
			const m = b.card.motifs.find((x) => x.id === e.motif);
			const w = plan.motifs.find((x) => x.id === e.motif)?.colourways.find((x) => x.id === e.colourway);
			const printed = m?.layers[0] && m.layers[0].make !== "cut";
			const body = e.strip ? (b.state.kit.papers.find((x) => x.id === e.strip?.paper)?.colour ?? "#eee") : (w?.layers[0]?.dry ?? "#ddd");
			const k = Math.max(0, (w?.layers.length ?? 1) - 1);
			return {
				id: p.id,
				name: p.label,
				sub: printed ? "printed on the panel" : jointWords(b, e.joint),
				value: value(p.id),
				thick: printed ? 0 : p.z1 - p.z0,
				lift: printed ? 0 : foamLift(b, e.joint),
				foam: e.joint.kind === "foam",
				body,
				top: e.strip ? body : (w?.layers[k]?.dry ?? body),
				parts:
					e.strip || printed
						? undefined
						: w?.layers.filter((x) => x.thick > 0).map((x, n) => ({ thick: x.thick, lift: n > 0 ? x.lift : 0, body: x.paper, top: x.dry })),
			};
		}),
	];
	return (
		<Strata
			rows={rows}
			what={what}
			selected={b.element}
			onPick={(id) => b.pick({ element: id })}
			onMove={(id, by) => b.change((c) => moveElement(c, id, by))}
			foot={`Closed card ${plan.depth.total.toFixed(2)} mm (${length(plan.depth.total, fine)}) at its highest.`}
		/>
	);
}

type B = ReturnType<typeof useBench>;

export function jointWords(b: B, j: Card["sheets"][0]["joint"]): string {
	if (j.kind === "foam") {
		const s = b.state.kit.spacers.find((x) => x.id === j.spacer);
		return s ? `on ${s.name.toLowerCase()}, ${(s.thickness * Math.max(1, j.levels ?? 1)).toFixed(1)} mm` : "on foam: none chosen";
	}
	if (j.kind === "loose") return "laid loose";
	return b.state.kit.adhesives.find((x) => x.id === j.glue)?.name ?? "glued";
}

export function foamLift(b: B, j: Card["sheets"][0]["joint"]): number {
	const s = j.kind === "foam" ? b.state.kit.spacers.find((x) => x.id === j.spacer) : undefined;
	return s ? s.thickness * Math.max(1, j.levels ?? 1) : 0;
}

/** Moves an element up or down the pile on the panel. */
export function moveElement(c: Card, id: string, by: number): Card {
	const i = c.elements.findIndex((e) => e.id === id);
	const j = i + by;
	if (i < 0 || j < 0 || j >= c.elements.length) return c;
	[c.elements[i], c.elements[j]] = [c.elements[j], c.elements[i]];
	return c;
}

/** How a part is held. */
export function JointField({ joint, onChange }: { joint: Card["sheets"][0]["joint"]; onChange: (j: Card["sheets"][0]["joint"]) => void }) {
	const b = useBench();
	const value = joint.kind === "foam" ? `foam:${joint.spacer}` : joint.kind === "loose" ? "loose" : `glue:${joint.glue ?? ""}`;
	return (
		<label className="field">
			Held by
			<select
				value={value}
				onChange={(e) => {
					const [kind, id] = e.target.value.split(":");
					onChange(
						kind === "foam"
							? { kind: "foam", spacer: id, levels: Math.max(1, joint.levels ?? 1) }
							: kind === "loose"
								? { kind: "loose" }
								: { kind: "glue", glue: id },
					);
				}}
			>
				{!b.state.kit.adhesives.some((a) => a.id === joint.glue) && <option value={`glue:${joint.glue ?? ""}`}>glue</option>}
				{b.state.kit.adhesives.map((a) => (
					<option key={a.id} value={`glue:${a.id}`}>
						{a.name}
					</option>
				))}
				{b.state.kit.spacers.map((s) => (
					<option key={s.id} value={`foam:${s.id}`}>
						{s.name}, {s.thickness} mm
					</option>
				))}
				<option value="loose">laid loose</option>
			</select>
		</label>
	);
}

export function NoImage() {
	return (
		<Box p="24px">
			<h1 style={{ fontSize: 20 }}>No image on this card yet</h1>
			<Box my="8px">Choose a set from the stores to begin with. Sets come into the stores as drawings (SVG).</Box>
			<MotifPicker more />
		</Box>
	);
}
