import { useState } from "react";
import { useBench } from "../../../api/card";
import type { Element, S } from "../../../api/client";
import { useSettings } from "../../../api/queries";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { LengthField } from "../../../ui/length";
import { NumberField } from "../../../ui/number";
import { Select } from "../../../ui/select";
import { length } from "../../../ui/units";

type Meant = S["Meant"];
type Kept = S["Kept"];

/** Whether a purpose is about another thing, and in what its number is given. */
const purposes: Record<Meant["do"], { with?: boolean; number?: "mm" | "%" | "apart"; least?: string }> = {
	reach: { with: true, number: "mm", least: "by at least" },
	"go in beneath": { with: true, number: "mm", least: "by at least" },
	"stay clear of": { with: true, number: "mm", least: "by at least" },
	"be seen": { number: "%", least: "at least" },
	"be hidden": {},
	match: { with: true, number: "apart", least: "within" },
	"run over": { number: "mm", least: "by at least" },
	"lie over its like": { with: true, number: "mm", least: "within" },
};

/** Purposes that are called otherwise in a list of them. */
const called: Partial<Record<Meant["do"], string>> = { "run over": "run over the edge", match: "match in colour", "lie over its like": "lie right over" };

/** What a purpose says, in words. */
const says = (m: Meant, name: (id?: string) => string) => {
	if (m.do === "run over") return "run over the edge";
	if (m.do === "match") return `match ${name(m.with || m.paper || m.ink)} in colour`;
	if (m.do === "lie over its like") return `lie right over ${name(m.with)}`;
	return m.with ? `${m.do} ${name(m.with)}` : m.do;
};

/** What an element is meant to do, how that stands, and more of it. */
export default function MeantFields({ e }: { e: Element }) {
	const b = useBench();
	const { front } = b.view.plan;
	const [doing, setDoing] = useState<Meant["do"]>("reach");
	const [other, setOther] = useState("");
	const meant = e.meant ?? [];
	const names = new Map<string, string>([
		...front.elements.map((p): [string, string] => [p.id, p.label]),
		...b.state.kit.papers.map((p): [string, string] => [p.id, p.name]),
		...b.state.kit.inks.map((p): [string, string] => [p.id, p.name]),
	]);
	const name = (id?: string) => names.get(id ?? "") ?? "something";
	const others = front.elements.filter((p) => p.id !== e.id);
	const set = (next: Meant[]) => b.edit({ mean: { element: e.id, meant: next } });
	const change = (n: number, m: Partial<Meant>) => set(meant.map((x, i) => (i === n ? { ...x, ...m } : x)));
	const add = () => {
		const p = purposes[doing];
		const [kind, id] = other.includes(":") ? other.split(":", 2) : ["with", other || others[0]?.id];
		set([...meant, { do: doing, ...(p.with ? { [kind]: id } : {}) }]);
	};
	return (
		<div style={{ display: "grid", gap: 12, width: "100%", borderTop: `1px solid ${hue.line}`, paddingTop: 8 }}>
			<div style={{ display: "grid", gap: 12, maxHeight: "26vh", overflowY: "auto" }}>
				{meant.map((m, n) => (
					<One
						key={n}
						m={m}
						says={says(m, name)}
						kept={front.meant?.find((k) => k.element === e.id && k.n === n)}
						set={(by) => change(n, { by })}
						drop={() => set(meant.filter((_, i) => i !== n))}
					/>
				))}
			</div>
			<div style={{ display: "flex", gap: 8, flexWrap: "wrap", alignItems: "end" }}>
				<Select label="It is meant to" value={doing} onChange={(v) => setDoing(v as Meant["do"])} width="128px">
					{(Object.keys(purposes) as Meant["do"][]).map((p) => (
						<option key={p} value={p}>
							{called[p] ?? p}
						</option>
					))}
				</Select>
				{purposes[doing].with && (
					<Select label="What" value={other} onChange={setOther} width="160px">
						{others.map((p) => (
							<option key={p.id} value={p.id}>
								{p.label}
							</option>
						))}
						{doing === "match" && (
							<>
								<optgroup label="Papers">
									{b.state.kit.papers.map((p) => (
										<option key={p.id} value={`paper:${p.id}`}>
											{p.name}
										</option>
									))}
								</optgroup>
								<optgroup label="Inks">
									{b.state.kit.inks.map((p) => (
										<option key={p.id} value={`ink:${p.id}`}>
											{p.name}
										</option>
									))}
								</optgroup>
							</>
						)}
					</Select>
				)}
				<Button onClick={add} disabled={purposes[doing].with && doing !== "match" && others.length === 0}>
					Say so
				</Button>
			</div>
		</div>
	);
}

/** One purpose: what it says, its number, how it stands. */
function One({ m, says, kept, set, drop }: { m: Meant; says: string; kept?: Kept; set: (by: number) => void; drop: () => void }) {
	const s = useSettings();
	const p = purposes[m.do];
	const is = (k: Kept) => {
		if (k.unknown) return "cannot be judged as it lies";
		if (k.unit === "%") return `${Math.round(k.is)} % of it shows`;
		if (k.unit === "CIEDE2000") return `they dry ${k.is.toFixed(1)} apart`;
		if (k.do === "lie over its like") return `${length(k.is, s)} off it`;
		if (k.do === "stay clear of") return k.is < 0 ? `they overlap by ${length(-k.is, s)}` : `${length(k.is, s)} apart`;
		if (k.do === "run over") return k.is < 0 ? `ends ${length(-k.is, s)} from the edge` : `${length(k.is, s)} past the edge`;
		return k.is < 0 ? `${length(-k.is, s)} short of it` : `${length(k.is, s)} in`;
	};
	return (
		<fieldset style={{ border: 0, padding: 0, margin: 0, display: "grid", gap: 4 }}>
			<legend style={{ fontWeight: 700, padding: 0 }}>Meant to {says}</legend>
			{kept && (
				<div style={{ color: kept.kept ? undefined : hue.madder }}>
					{kept.kept ? "It does" : "It does not"}: {is(kept)}.
				</div>
			)}
			<div style={{ display: "flex", gap: 8, alignItems: "end" }}>
				{p.number === "mm" && <LengthField label={p.least ?? ""} mm={m.by || (kept?.wanted ?? 0)} min={0} max={400} onSet={set} width="96px" />}
				{(p.number === "%" || p.number === "apart") && (
					<NumberField saved label={p.least ?? ""} unit={p.number === "%" ? "%" : ""} step={1} v={m.by || (kept?.wanted ?? 0)} set={set} width="80px" />
				)}
				<Button onClick={drop}>Take back</Button>
			</div>
		</fieldset>
	);
}
