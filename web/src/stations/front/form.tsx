import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import { type Card, type Element, isMat, turnedOf, wordsOf } from "../../api/client";
import { HeldField } from "../../parts/station";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { LengthField } from "../../ui/length";

/** Numbers for what is in hand: the card, a sheet, or an element. */
export function Form() {
	const b = useBench();
	const { card: c, state } = b;
	const e = c.elements.find((x) => x.id === b.element);
	const row = {
		display: "flex",
		gap: 12,
		flexWrap: "wrap",
		alignItems: "end",
		padding: "8px 20px",
		background: hue.sheet,
		borderTop: `1px solid ${hue.line}`,
	} as const;
	if (e && !isMat(e)) {
		const put = (f: { x?: number; y?: number; turn?: number }) => b.edit({ put: { element: e.id, ...f } });
		const m = c.motifs.find((x) => x.id === e.image?.motif);
		const words = wordsOf(e);
		const sheet = (f: Partial<NonNullable<Element["sheet"]>>) => e.sheet && b.edit({ sheet: { element: e.id, sheet: { ...e.sheet, ...f } } });
		const say = (f: Partial<NonNullable<typeof words>>) =>
			sheet({ treatments: e.sheet?.treatments?.map((t) => (t.words ? { ...t, words: { ...t.words, ...f } } : t)) });
		return (
			<Box style={row}>
				<LengthField label="Centre, across" mm={e.place.x} onSet={(x) => put({ x })} />
				<LengthField label="Centre, down" mm={e.place.y} onSet={(y) => put({ y })} />
				<label className="field">
					Turn (degrees)
					<input
						type="number"
						step={1}
						value={Math.round(e.place.turn * 10) / 10}
						onChange={(ev) => put({ turn: Number(ev.target.value) })}
						style={{ width: 72 }}
					/>
				</label>
				<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
				{m && m.colourways.length > 1 && (
					<label className="field">
						Colourway
						<select value={e.image?.colourway} onChange={(ev) => b.edit({ recolour: { elements: { [e.id]: ev.target.value } } })}>
							{m.colourways.map((w) => (
								<option key={w.id} value={w.id}>
									{w.name}
								</option>
							))}
						</select>
					</label>
				)}
				{words && (
					<label className="field">
						Words
						<input
							key={e.id + words.text}
							defaultValue={words.text}
							maxLength={80}
							onBlur={(ev) => ev.target.value !== words.text && say({ text: ev.target.value })}
							style={{ width: 180 }}
						/>
					</label>
				)}
				{e.sheet && (
					<>
						<LengthField label="Width" mm={e.sheet.w ?? 0} onSet={(w) => sheet({ w, h: turnedOf(e) ? w : e.sheet?.h })} width="72px" />
						{!turnedOf(e) && <LengthField label="Height" mm={e.sheet.h ?? 0} onSet={(h) => sheet({ h })} width="72px" />}
						{words && <LengthField label="Letters" mm={words.letter} onSet={(letter) => say({ letter })} width="72px" />}
						<PaperField value={e.sheet.paper} onChange={(paper) => sheet({ paper })} />
					</>
				)}
				{words && (
					<label className="field">
						Heat embossed
						<input type="checkbox" checked={words.emboss ?? false} onChange={(ev) => say({ emboss: ev.target.checked })} style={{ width: 18 }} />
					</label>
				)}
				{e.gems && (
					<>
						<label className="field">
							How many
							<input
								type="number"
								min={1}
								max={200}
								value={e.gems.places.length}
								onChange={(ev) =>
									Number(ev.target.value) >= 1 && b.edit({ gems: { element: e.id, count: Math.min(200, Math.round(Number(ev.target.value))) } })
								}
								style={{ width: 64 }}
							/>
						</label>
						<LengthField label="Across" mm={e.gems.size} onSet={(size) => b.edit({ gems: { element: e.id, size } })} width="72px" />
						<LengthField label="High" mm={e.gems.height} onSet={(height) => b.edit({ gems: { element: e.id, height } })} width="72px" />
						<label className="field">
							Colour
							<input type="color" value={e.gems.colour} onChange={(ev) => b.edit({ gems: { element: e.id, colour: ev.target.value } }, `colour ${e.id}`)} />
						</label>
					</>
				)}
				<Button onClick={() => put({ x: c.base.w / 2 })}>Centre across</Button>
				{e.face === "beside" && (
					<Button onClick={() => b.edit([{ sheet: { element: e.id, face: "front" } }, { put: { element: e.id, x: c.base.w / 2, y: c.base.h / 2 } }])}>
						Lay it on the front
					</Button>
				)}
				<Button onClick={() => b.edit({ repeat: { element: e.id } })}>Another</Button>
				<Button onClick={() => b.edit({ remove: { element: e.id } })}>Take off</Button>
			</Box>
		);
	}
	if (e?.sheet && e.inset) {
		const { sheet, inset } = e;
		const border = (f: Partial<typeof inset>) => b.edit({ sheet: { element: e.id, inset: { ...inset, ...f } } });
		const even = inset.left === inset.right && inset.left === inset.top && inset.left === inset.bottom;
		return (
			<Box style={row}>
				{even ? (
					<LengthField label="Border of the sheet beneath" mm={inset.left} onSet={(mm) => border({ left: mm, right: mm, top: mm, bottom: mm })} />
				) : (
					(["left", "right", "top", "bottom"] as const).map((side) => (
						<LengthField key={side} label={`Border, ${side}`} mm={inset[side]} onSet={(mm) => border({ [side]: mm })} width="72px" />
					))
				)}
				<PaperField value={sheet.paper} onChange={(paper) => b.edit({ sheet: { element: e.id, sheet: { ...sheet, paper } } })} />
				<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
				{c.elements.filter(isMat).length > 1 && <Button onClick={() => b.edit({ remove: { element: e.id } })}>Take off</Button>}
			</Box>
		);
	}
	return (
		<Box style={row}>
			<label className="field">
				Size
				<select value={c.base.format} onChange={(e) => b.edit({ format: { format: e.target.value } })}>
					{state.formats.map((f) => (
						<option key={f.id} value={f.id}>
							{f.name}
						</option>
					))}
				</select>
			</label>
			<Button onClick={() => b.edit({ base: { turned: true } })}>Turn the card</Button>
			<label className="field">
				Fold
				<select value={c.base.fold} onChange={(e) => b.edit({ base: { fold: e.target.value as Card["base"]["fold"] } })}>
					<option value="side">at the side</option>
					<option value="top">at the top</option>
				</select>
			</label>
			<PaperField label="Base" value={c.base.paper} onChange={(paper) => b.edit({ base: { paper } })} />
			<label className="field">
				Envelope
				<select value={c.base.envelope} onChange={(e) => b.edit({ base: { envelope: e.target.value } })} style={{ width: 160 }}>
					<option value="">none chosen</option>
					{state.kit.envelopes.map((x) => (
						<option key={x.id} value={x.id}>
							{x.name}
						</option>
					))}
				</select>
			</label>
			<Button onClick={() => b.edit({ addMat: {} })}>Add a mat</Button>
		</Box>
	);
}

function PaperField({ value, onChange, label = "Paper" }: { value: string; onChange: (id: string) => void; label?: string }) {
	const b = useBench();
	return (
		<label className="field">
			{label}
			<select value={value} onChange={(e) => onChange(e.target.value)} style={{ width: 150 }}>
				{!b.state.kit.papers.some((p) => p.id === value) && <option value={value}>none chosen</option>}
				{b.state.kit.papers.map((p) => (
					<option key={p.id} value={p.id}>
						{p.name}
					</option>
				))}
			</select>
		</label>
	);
}
