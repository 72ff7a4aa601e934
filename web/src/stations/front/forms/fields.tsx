import type { ReactNode } from "react";
import { useBench } from "../../../api/card";
import { hue } from "../../../ui/colours";
import { Select } from "../../../ui/select";

/** A row of fields beneath the table. */
export function Row({ children }: { children: ReactNode }) {
	return (
		<div
			className="front-form"
			style={{ display: "flex", gap: 12, flexWrap: "wrap", alignItems: "end", padding: "8px 20px", background: hue.sheet, borderTop: `1px solid ${hue.line}` }}
		>
			{children}
		</div>
	);
}

/** Fields side by side in a small sheet. */
export const Fields = ({ children }: { children: ReactNode }) => (
	<div style={{ display: "flex", gap: 10, flexWrap: "wrap", alignItems: "end" }}>{children}</div>
);

export function PaperField({ value, onChange, label = "Paper" }: { value: string; onChange: (id: string) => void; label?: string }) {
	const b = useBench();
	return (
		<Select label={label} value={value} onChange={(v) => onChange(v)} width="150px">
			{!b.state.kit.papers.some((p) => p.id === value) && <option value={value}>none chosen</option>}
			{b.state.kit.papers.map((p) => (
				<option key={p.id} value={p.id}>
					{p.name}
				</option>
			))}
		</Select>
	);
}

/** An ink of the drawer, with how it dries. */
export function InkField({ value, onChange, label = "Ink", none }: { value: string; onChange: (id: string) => void; label?: string; none?: string }) {
	const b = useBench();
	const ink = b.state.inks.find((i) => i.id === value);
	return (
		<div style={{ display: "flex", gap: 6, alignItems: "end" }}>
			<Select label={label} value={value} onChange={(v) => onChange(v)} width="150px">
				{none !== undefined && <option value="">{none}</option>}
				{value !== "" && !ink && <option value={value}>not in the stores</option>}
				{b.state.kit.inks.map((i) => (
					<option key={i.id} value={i.id}>
						{i.name}
					</option>
				))}
			</Select>
			<span aria-hidden="true" style={{ width: 20, height: 28, background: ink?.dry, border: `1px solid ${hue.edge}` }} />
		</div>
	);
}

/** The first part of a kind of set in the stores, to begin with: a die, where there is one. */
export function useFirstPart(): { set: string; part: string } | undefined {
	const { sets } = useBench().state.kit;
	const s = sets.find((x) => x.kind === "die" && x.parts.length > 0) ?? sets.find((x) => x.parts.length > 0);
	return s && { set: s.id, part: s.parts[0].id };
}

/** A part of a set of the stores. */
export function PartField({ set, part, kind, onChange }: { set: string; part: string; kind?: string; onChange: (set: string, part: string) => void }) {
	const b = useBench();
	const sets = b.state.kit.sets.filter((s) => !kind || s.kind === kind);
	const value = `${set}\n${part}`;
	return (
		<Select
			label="Part"
			value={value}
			onChange={(v) => {
				const [s, p] = v.split("\n");
				onChange(s, p);
			}}
			width="200px"
		>
			{!sets.some((s) => s.id === set && s.parts.some((p) => p.id === part)) && <option value={value}>{part ? "not in the stores" : "choose one"}</option>}
			{sets.map((s) => (
				<optgroup key={s.id} label={s.name}>
					{s.parts.map((p) => (
						<option key={p.id} value={`${s.id}\n${p.id}`}>
							{p.label}
							{p.missing ? ", missing" : ""}
						</option>
					))}
				</optgroup>
			))}
		</Select>
	);
}
