import { useState } from "react";
import { openNotes, useBench } from "../api/card";
import type { Finding } from "../api/client";
import { Button } from "../ui/button";
import { hue } from "../ui/colours";
import { size } from "../ui/sizes";
import { Shape } from "./notes";

/** The notes of a station about what is selected, gravest first. */
export function useNotesAbout(station: string): Finding[] {
	const b = useBench();
	const about = (f: Finding) =>
		f.station === station && ((f.layer && f.layer === b.layer && (!f.motif || f.motif === b.motif?.id)) || (f.element && f.element === b.element));
	const rank = { spoils: 0, shows: 1, wastes: 2, tip: 3 };
	return openNotes(b.view.plan.findings)
		.filter(about)
		.sort((x, y) => rank[x.severity] - rank[y.severity]);
}

/** A note about the selected thing, beside it on the table: what is wrong and the way to mend it. The shelf beneath says why. */
export function Beside({ notes }: { notes: Finding[] }) {
	const b = useBench();
	const [shut, setShut] = useState("");
	const f = notes[0];
	if (!f || shut === f.id) return null;
	return (
		<aside
			aria-label="Note about what is selected"
			style={{ background: hue.sheet, border: `1px solid ${hue.rule}`, borderRadius: 4, padding: "8px 10px", fontSize: size.small, display: "flex", gap: 8 }}
		>
			<div style={{ paddingTop: 2 }}>
				<Shape kind={f.severity} />
			</div>
			<div style={{ minWidth: 0 }}>
				<b>{f.what}</b>
				<div>{f.do}</div>
				<div style={{ display: "flex", gap: 12, flexWrap: "wrap" }}>
					{f.mend && (
						<Button variant="link" size="text" onClick={() => f.mend && b.edit(f.mend.edits)}>
							{f.mend.label}
						</Button>
					)}
					<Button variant="link" size="text" onClick={() => setShut(f.id)}>
						Shut
					</Button>
				</div>
				{notes.length > 1 && <div style={{ color: hue.quiet }}>And {notes.length - 1} more on the shelf below.</div>}
			</div>
		</aside>
	);
}
