import { Box } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { useBench } from "../api/card";
import type { Bond } from "../api/client";
import { Button } from "../ui/button";
import { bare, hue } from "../ui/colours";
import { fine, length } from "../ui/length";
import { Notes } from "./notes";
import { type Ground, grounds } from "./picture";
import { Strata, type Stratum } from "./strata";

/** A station: the table, a rail that belongs to the strata, what is done beside the table,
 * the strata, the margin notes. On a tablet what is done stands under the strata. */
export function StationFrame(p: { station: string; table: ReactNode; middle?: ReactNode; side?: ReactNode; strata: ReactNode }) {
	const { station, table, middle, side, strata } = p;
	return (
		<div className={middle ? "station with-rail" : side ? "station with-side" : "station"}>
			<Box className="place" minW={0} display="flex" flexDirection="column" bg="ground">
				{table}
			</Box>
			{middle}
			{side && (
				<Box className="side" display="flex" flexDirection="column" minH={0} bg="sheet" borderLeft="1px solid {colors.line}" fontSize="13px">
					{side}
				</Box>
			)}
			{strata}
			<Notes station={station} />
		</div>
	);
}

/** Which image and colourway is on the table. */
export function MotifPicker({ more }: { more?: boolean }) {
	const b = useBench();
	const add = (set: string) => set && b.edit({ addImage: { set } });
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
					<span style={{ width: 15, height: 15, background: grounds[g], border: `1px solid ${hue.edge}` }} />
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
			foam: w?.foam,
			body: w?.paper ?? bare,
			top: w?.dry ?? bare,
		};
	});
	const w = b.colourway;
	const prints = w && `${w.prints} ${w.prints === 1 ? "print" : "prints"}`;
	const foot =
		w &&
		(w.cards === 0
			? `${prints}: no height of their own.`
			: `${w.cards} cut ${w.cards === 1 ? "piece" : "pieces"} and ${prints}: ${w.height.toFixed(2)} mm (${length(w.height, fine)}) high.`);
	return (
		<Strata
			rows={rows}
			what={what}
			selected={b.layer}
			onPick={(id) => b.pick({ layer: id })}
			onMove={(id, by) => b.motif && b.edit({ shiftLayer: { motif: b.motif.id, layer: id, by } })}
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

/** The strata of the whole card: base, sheets, elements. */
export function CardStrata({ what, value }: { what: string; value: (id: string) => string }) {
	const b = useBench();
	const { plan } = b.view;
	const base = b.state.kit.papers.find((p) => p.id === b.card.base.paper);
	const half = (id: string, name: string): Stratum => {
		const colour = base?.colour ?? bare;
		return { id, name, sub: base?.name ?? "no paper chosen", value: value(id), thick: plan.depth.base / 2, lift: 0, body: colour, top: colour };
	};
	const rows: Stratum[] = [
		half("back", "Base, back leaf"),
		half("base", "Base, front leaf"),
		...plan.front.sheets.map((s, i) => ({
			id: s.id,
			name: s.panel ? "Panel" : `Mat ${i + 1}`,
			sub: s.held,
			value: value(s.id),
			thick: s.z1 - s.z0,
			lift: s.foam ? s.lift : 0,
			foam: s.foam,
			body: s.colour,
			top: s.colour,
		})),
		...plan.front.elements.map((p) => {
			const e = b.card.elements.find((x) => x.id === p.id);
			const w = plan.motifs.find((x) => x.id === e?.image?.motif)?.colourways.find((x) => x.id === e?.image?.colourway);
			const body = e?.gems ? e.gems.colour : e?.sheet ? (b.state.kit.papers.find((x) => x.id === e.sheet?.paper)?.colour ?? bare) : (w?.layers[0]?.dry ?? bare);
			const k = Math.max(0, (w?.layers.length ?? 1) - 1);
			const flat = p.printed && p.z1 - p.z0 < 0.005;
			return {
				id: p.id,
				name: p.label,
				sub: p.held,
				value: value(p.id),
				thick: flat ? 0 : p.z1 - p.z0,
				lift: p.foam ? p.lift : 0,
				foam: p.foam,
				body,
				top: e?.sheet || e?.gems ? body : (w?.layers[k]?.dry ?? body),
				parts:
					e?.sheet || flat
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
			onMove={(id, by) => b.edit({ shift: { element: id, by } })}
			foot={`Closed card ${plan.depth.total.toFixed(2)} mm (${length(plan.depth.total, fine)}) at its highest.`}
		/>
	);
}

/** How a part is held. */
export function HeldField({ bonds, onChange }: { bonds?: Bond[] | null; onChange: (bonds: Bond[]) => void }) {
	const b = useBench();
	const held = bonds?.[0];
	const value = !held ? "loose" : held.spacer ? `on:${held.spacer}` : `by:${held.adhesive ?? ""}`;
	return (
		<label className="field">
			Held by
			<select
				value={value}
				onChange={(e) => {
					const [how, id] = e.target.value.split(":");
					onChange(how === "on" ? [{ spacer: id, level: Math.max(1, held?.level ?? 1) }] : how === "by" ? [{ adhesive: id }] : []);
				}}
			>
				{held && !held.spacer && !b.state.kit.adhesives.some((a) => a.id === held.adhesive) && <option value={value}>glue</option>}
				{b.state.kit.adhesives.map((a) => (
					<option key={a.id} value={`by:${a.id}`}>
						{a.name}
					</option>
				))}
				{b.state.kit.spacers.map((s) => (
					<option key={s.id} value={`on:${s.id}`}>
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
