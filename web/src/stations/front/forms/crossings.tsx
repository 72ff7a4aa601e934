import { useBench } from "../../../api/card";
import type { Element } from "../../../api/client";
import { useMeetings } from "../../../api/queries";
import { Button } from "../../../ui/button";
import { Check } from "../../../ui/check";
import { hue } from "../../../ui/colours";
import { crossed } from "../crossed";

/** What an element lies over and beneath, and which parts of it cross the other way. */
export default function Crossings({ e, onPoint }: { e: Element; onPoint?: (withID: string) => void }) {
	const b = useBench();
	const got = useMeetings(b.view.id, b.view.version, e.id);
	if (!got) return <div>Looking…</div>;
	if (got.length === 0) return <div>It lies over nothing but its panel, and nothing lies over it.</div>;
	return (
		<div style={{ display: "grid", gap: 12, width: 320, maxHeight: "52vh", overflowY: "auto" }}>
			{got.map((m) => (
				<fieldset key={m.id} style={{ border: 0, padding: 0, margin: 0, display: "grid", gap: 4 }}>
					<legend style={{ fontWeight: 700, padding: 0 }}>
						Lies {m.above ? "beneath" : "over"} {m.label}
					</legend>
					<div>
						{Math.round(100 * m.shows)} % of {m.above ? "this" : m.label} is left to see.
					</div>
					{m.parts.length > 0 && <div>{m.above ? "These parts go over it:" : "These parts go beneath it:"}</div>}
					{m.parts.map((p) => (
						<div key={p.id}>
							<Check
								label={p.label}
								on={p.other}
								set={(on) =>
									b.edit({
										tucks: { element: e.id, with: m.id, parts: crossed(e, m.id, p.id, on) },
									})
								}
							/>
							{p.impossible && <span style={{ color: hue.madder }}> cannot be: what lies on it would have to lie both over and beneath.</span>}
						</div>
					))}
					{m.parts.length > 1 && onPoint && <Button onClick={() => onPoint(m.id)}>Point at them in the picture</Button>}
				</fieldset>
			))}
		</div>
	);
}
