import { useBench } from "../../../api/card";
import type { S } from "../../../api/client";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { Select } from "../../../ui/select";
import { Treated } from "./treated";

type Kind = NonNullable<NonNullable<S["Edit"]["treat"]>["add"]>;

const kinds: [Kind, string][] = [
	["words", "Words, stamped or embossed"],
	["print", "An image, printed"],
	["turned", "An image in turns"],
	["fade", "Ink, blended"],
	["bands", "Masked bands"],
	["stencil", "A stencil"],
	["splash", "Drops thrown on"],
	["stroke", "A painted stroke"],
	["pressed", "Dry embossing"],
	["edged", "An inked edge"],
	["glaze", "A clear coat"],
];

/** What is done to a sheet, in order. */
export default function Done({ e }: { e: { id: string; sheet?: { treatments?: S["Treatment"][] | null } } }) {
	const b = useBench();
	const all = e.sheet?.treatments ?? [];
	const problems = b.view.plan.front.treated.filter((t) => t.id === e.id);
	return (
		<div style={{ display: "grid", gap: 12, width: 352, maxHeight: "58vh", overflowY: "auto" }}>
			{all.map((t, i) => {
				const kind = kinds.find(([k]) => t[k]);
				const told = problems.find((p) => p.at === i);
				return (
					<fieldset
						key={`${i} ${kind?.[0]}`}
						style={{ border: 0, padding: "0 0 10px", margin: 0, display: "grid", gap: 6, borderBottom: `1px solid ${hue.line}` }}
					>
						<legend style={{ fontWeight: 700, padding: 0 }}>
							{i + 1}. {kind?.[1] ?? "Made by a later version"}
						</legend>
						<Treated t={t} onSet={(treatment) => b.edit({ treat: { element: e.id, at: i, treatment } })} />
						{told && <div role={told.problem ? "alert" : undefined}>{told.problem || told.say}</div>}
						<div style={{ display: "flex", gap: 6 }}>
							{i > 0 && <Button onClick={() => b.edit({ treat: { element: e.id, at: i, by: -1 } })}>Earlier</Button>}
							{i < all.length - 1 && <Button onClick={() => b.edit({ treat: { element: e.id, at: i, by: 1 } })}>Later</Button>}
							<Button onClick={() => b.edit({ treat: { element: e.id, at: i, drop: true } })}>Leave it out</Button>
						</div>
					</fieldset>
				);
			})}
			{all.length === 0 && <div>Plain card so far.</div>}
			<Select label="Do more to it" value="" onChange={(v) => v && b.edit({ treat: { element: e.id, add: v as Kind } })} width="240px">
				<option value="">choose what</option>
				{kinds.map(([k, name]) => (
					<option key={k} value={k}>
						{name}
					</option>
				))}
			</Select>
		</div>
	);
}
