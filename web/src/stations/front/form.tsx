import { Box } from "@chakra-ui/react";
import { lazy, Suspense } from "react";
import { useBench } from "../../api/card";
import { type Card, type Element, isMat, turnedOf, wordsOf } from "../../api/client";
import { HeldField } from "../../parts/station";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { TextField } from "../../ui/field";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";

const Many = lazy(() => import("./many"));

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
				<NumberField saved label="Turn" unit="°" step={1} v={Math.round(e.place.turn * 10) / 10} set={(n) => put({ turn: n })} width="72px" />
				<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
				{m && m.colourways.length > 1 && (
					<Select label="Colourway" value={e.image?.colourway} onChange={(v) => b.edit({ recolour: { elements: { [e.id]: v } } })}>
						{m.colourways.map((w) => (
							<option key={w.id} value={w.id}>
								{w.name}
							</option>
						))}
					</Select>
				)}
				{words && (
					<TextField
						label="Words"
						key={e.id + words.text}
						defaultValue={words.text}
						maxLength={80}
						onBlur={(ev) => ev.target.value !== words.text && say({ text: ev.target.value })}
						width="180px"
					/>
				)}
				{e.sheet && (
					<>
						<LengthField label="Width" mm={e.sheet.w ?? 0} onSet={(w) => sheet({ w, h: turnedOf(e) ? w : e.sheet?.h })} width="72px" />
						{!turnedOf(e) && <LengthField label="Height" mm={e.sheet.h ?? 0} onSet={(h) => sheet({ h })} width="72px" />}
						{words && <LengthField label="Letters" mm={words.letter} onSet={(letter) => say({ letter })} width="72px" />}
						<PaperField value={e.sheet.paper} onChange={(paper) => sheet({ paper })} />
					</>
				)}
				{words && <Check label="Heat embossed" on={words.emboss ?? false} set={(on) => say({ emboss: on })} />}
				{e.gems && (
					<>
						<NumberField
							saved
							label="How many"
							min={1}
							max={200}
							v={e.gems.places.length}
							set={(n) => n >= 1 && b.edit({ gems: { element: e.id, count: Math.min(200, Math.round(n)) } })}
							width="64px"
						/>
						<LengthField label="Across" mm={e.gems.size} onSet={(size) => b.edit({ gems: { element: e.id, size } })} width="72px" />
						<LengthField label="High" mm={e.gems.height} onSet={(height) => b.edit({ gems: { element: e.id, height } })} width="72px" />
						<TextField
							label="Colour"
							type="color"
							value={e.gems.colour}
							onChange={(ev) => b.edit({ gems: { element: e.id, colour: ev.target.value } }, `colour ${e.id}`)}
						/>
					</>
				)}
				<Button onClick={() => put({ x: c.base.w / 2 })}>Centre across</Button>
				{e.face === "beside" && (
					<Button onClick={() => b.edit([{ sheet: { element: e.id, face: "front" } }, { put: { element: e.id, x: c.base.w / 2, y: c.base.h / 2 } }])}>
						Lay it on the front
					</Button>
				)}
				<Button onClick={() => b.edit({ repeat: { element: e.id } })}>Another</Button>
				{e.face === "front" && (
					<Popover label="Several" title="Several in a ring, a row or a grid">
						<Suspense fallback="Opening…">
							<Many e={e} />
						</Suspense>
					</Popover>
				)}
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
			<Select label="Size" value={c.base.format} onChange={(v) => b.edit({ format: { format: v } })}>
				{state.formats.map((f) => (
					<option key={f.id} value={f.id}>
						{f.name}
					</option>
				))}
			</Select>
			<Button onClick={() => b.edit({ base: { turned: true } })}>Turn the card</Button>
			<Select label="Fold" value={c.base.fold} onChange={(v) => b.edit({ base: { fold: v as Card["base"]["fold"] } })}>
				<option value="side">at the side</option>
				<option value="top">at the top</option>
			</Select>
			<PaperField label="Base" value={c.base.paper} onChange={(paper) => b.edit({ base: { paper } })} />
			<Select label="Envelope" value={c.base.envelope} onChange={(v) => b.edit({ base: { envelope: v } })} width="160px">
				<option value="">none chosen</option>
				{state.kit.envelopes.map((x) => (
					<option key={x.id} value={x.id}>
						{x.name}
					</option>
				))}
			</Select>
			<Button onClick={() => b.edit({ addMat: {} })}>Add a mat</Button>
		</Box>
	);
}

function PaperField({ value, onChange, label = "Paper" }: { value: string; onChange: (id: string) => void; label?: string }) {
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
