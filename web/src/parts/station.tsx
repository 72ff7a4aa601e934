import { Box } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { useBench } from "../api/card";
import type { Bond } from "../api/client";
import { Button } from "../ui/button";
import { hue } from "../ui/colours";
import { Select } from "../ui/select";
import { size } from "../ui/sizes";
import { Splitter } from "../ui/splitter";
import { thin } from "../ui/units";
import { Notes } from "./notes";
import { type Ground, grounds } from "./picture";

/** A station: the table, a rail that belongs to the strata, the strata with what is done
 * beside the table beneath it, the shelf of notes. The bar between is dragged. */
export function StationFrame(p: { station: string; table: ReactNode; middle?: ReactNode; side?: ReactNode; strata: ReactNode }) {
	const { station, table, middle, side, strata } = p;
	const narrow = window.innerWidth <= 1100;
	return (
		<div className="station">
			<Splitter
				id={`${middle ? "rail" : "plain"}${narrow ? " narrow" : ""}`}
				label="How wide the table is"
				begin={middle ? 62 : narrow ? 71 : 69}
				least={50}
				most={80}
				first={
					<Box className="place" display="flex" flexDirection="column" bg="ground">
						{table}
					</Box>
				}
				second={
					<div className={middle ? "core with-rail" : side ? "core with-side" : "core"}>
						{middle}
						{strata}
						{side && (
							<Box className="side" display="flex" flexDirection="column" minH={0} bg="sheet" fontSize="small">
								{side}
							</Box>
						)}
					</div>
				}
			/>
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
				<Select label="Image" bare value={b.motif?.id} onChange={(v) => b.pick({ motif: v, layer: "" })}>
					{b.card.motifs.map((m) => (
						<option key={m.id} value={m.id}>
							{m.name}
						</option>
					))}
				</Select>
			)}
			{(b.look?.colourways.length ?? 0) > 1 && (
				<Select label="Colourway" bare value={b.colourway?.id} onChange={(v) => b.pick({ colourway: v })}>
					{b.look?.colourways.map((w) => (
						<option key={w.id} value={w.id}>
							{w.name}
						</option>
					))}
				</Select>
			)}
			{more && (
				<Select label="Put another set on the card" bare value="" onChange={(v) => add(v)}>
					<option value="">Add an image from…</option>
					{b.state.kit.sets.map((s) => (
						<option key={s.id} value={s.id}>
							{s.name}
						</option>
					))}
				</Select>
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
					aria-label={`${g} ground`}
					w="30px"
					px={0}
					borderColor={value === g ? "text" : "line"}
					borderWidth={value === g ? "2px" : "1px"}
				>
					<span style={{ width: 15, height: 15, background: grounds[g], border: `1px solid ${hue.edge}` }} />
				</Button>
			))}
		</fieldset>
	);
}

export const useGround = () => useState<Ground>("grey");

/** How a part is held. */
export function HeldField({ bonds, onChange }: { bonds?: Bond[] | null; onChange: (bonds: Bond[]) => void }) {
	const b = useBench();
	const held = bonds?.[0];
	const value = !held ? "loose" : held.spacer ? `on:${held.spacer}` : `by:${held.adhesive ?? ""}`;
	return (
		<Select
			label="Held by"
			value={value}
			onChange={(v) => {
				const [how, id] = v.split(":");
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
					{s.name}, {thin(s.thickness, b.state.settings)}
				</option>
			))}
			<option value="loose">laid loose</option>
		</Select>
	);
}

export function NoImage() {
	return (
		<Box p="10">
			<h1 style={{ fontSize: size.title }}>No image on this card yet</h1>
			<Box my="4">Choose a set from the stores to begin with. Sets come into the stores as drawings (SVG).</Box>
			<MotifPicker more />
		</Box>
	);
}
