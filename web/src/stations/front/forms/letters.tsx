import { useBench } from "../../../api/card";
import type { Element, S } from "../../../api/client";
import { Check } from "../../../ui/check";
import { LengthField } from "../../../ui/length";
import { NumberField } from "../../../ui/number";
import { Select } from "../../../ui/select";
import { Fields, PaperField } from "./fields";

/** How words cut from card are set, stacked and backed. */
export default function LettersForm({ e }: { e: Element & { letters: S["Letters"] } }) {
	const b = useBench();
	const l = e.letters;
	const { kit } = b.state;
	const set = (f: Partial<S["Letters"]>) => b.edit({ letters: { element: e.id, letters: { ...l, ...f } } });
	const said = b.view.plan.front.letters.find((x) => x.id === e.id);
	return (
		<div style={{ display: "grid", gap: 12, width: 340, maxHeight: "56vh", overflowY: "auto" }}>
			{said && <div role="status">{said.say}</div>}
			<Fields>
				<Select label="Alphabet" value={l.set ?? ""} onChange={(v) => set({ set: v || undefined })} width="170px">
					<option value="">drawn letters</option>
					{kit.sets
						.filter((s) => s.kind === "word" || s.parts.every((p) => [...p.label].length === 1))
						.map((s) => (
							<option key={s.id} value={s.id}>
								{s.name}
							</option>
						))}
				</Select>
				{!l.set && <LengthField label="Fill a width (0: none)" mm={l.fit ?? 0} min={0} max={400} onSet={(fit) => set({ fit })} width="80px" />}
				{!l.set && !l.fit && <LengthField label="Capitals, high" mm={l.size} min={2} max={150} onSet={(size) => set({ size })} width="80px" />}
			</Fields>
			<Fields>
				<LengthField label="Gap" mm={l.gap ?? 0} min={-20} max={50} onSet={(gap) => set({ gap })} width="70px" />
				<LengthField label="Between words" mm={l.space ?? 0} min={0} max={100} onSet={(space) => set({ space })} width="70px" />
				<LengthField label="Bounce" mm={l.bounce ?? 0} min={0} max={50} onSet={(bounce) => set({ bounce })} width="70px" />
				<LengthField label="Arc, radius" mm={l.bend ?? 0} min={-1000} max={1000} onSet={(bend) => set({ bend })} width="80px" />
			</Fields>
			<Fields>
				<NumberField saved label="Stacked" v={Math.max(1, l.plies ?? 1)} set={(plies) => set({ plies })} min={1} max={6} width="60px" />
				<Select label="Backing" value={l.backing ?? ""} onChange={(v) => set({ backing: v || undefined })} width="190px">
					<option value="">none</option>
					{[...kit.spacers, ...kit.adhesives]
						.filter((s) => b.state.backings.includes(s.id) || s.id === l.backing)
						.map((s) => (
							<option key={s.id} value={s.id}>
								{s.name}
							</option>
						))}
				</Select>
			</Fields>
			<CutFrom l={l} set={set} />
			<Fields>
				<Check label="on a shadow" on={!!l.shadow} set={(on) => set({ shadow: on ? { paper: b.card.base.paper, by: 1.5 } : undefined })} />
				{l.shadow && (
					<>
						<LengthField label="Larger by" mm={l.shadow.by} min={0.3} max={20} onSet={(by) => l.shadow && set({ shadow: { ...l.shadow, by } })} width="70px" />
						<PaperField label="Shadow" value={l.shadow.paper} onChange={(paper) => l.shadow && set({ shadow: { ...l.shadow, paper } })} />
					</>
				)}
				<Check label="islands are not needed" on={l.bare ?? false} set={(bare) => set({ bare })} />
			</Fields>
		</div>
	);
}

/** The sheet beside the card that the letters are cut out of, so that what is on it runs on through the word. */
function CutFrom({ l, set }: { l: S["Letters"]; set: (f: Partial<S["Letters"]>) => void }) {
	const { card, view } = useBench();
	const sheets = card.elements.filter((x) => x.sheet && x.face === "beside");
	const from = l.from;
	if (sheets.length === 0 && !from)
		return <div>Lay a treated sheet beside the card, and the letters can be cut out of it: its bands then run on through the word.</div>;
	const name = (id: string) => view.plan.front.others.find((o) => o.id === id)?.label ?? "Sheet";
	return (
		<Fields>
			<Select label="Cut out of" value={from?.sheet ?? ""} onChange={(sheet) => set({ from: sheet ? { ...from, sheet } : undefined })} width="170px">
				<option value="">plain card</option>
				{from && !sheets.some((x) => x.id === from.sheet) && <option value={from.sheet}>a sheet that is gone</option>}
				{sheets.map((x) => (
					<option key={x.id} value={x.id}>
						{name(x.id)}
					</option>
				))}
			</Select>
			{from && (
				<>
					<LengthField label="Right of its middle" mm={from.x ?? 0} min={-400} max={400} onSet={(x) => set({ from: { ...from, x } })} width="80px" />
					<LengthField label="Below its middle" mm={from.y ?? 0} min={-400} max={400} onSet={(y) => set({ from: { ...from, y } })} width="80px" />
				</>
			)}
		</Fields>
	);
}
