import { lazy, Suspense } from "react";
import { useBench } from "../../api/card";
import { type Edit, type Element, isMat, turnedOf, wordsOf } from "../../api/client";
import { HeldField } from "../../parts/station";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { TextField } from "../../ui/field";
import { KeptField } from "../../ui/kept";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { BaseForm } from "./forms/base";
import { PaperField, Row } from "./forms/fields";
import { PlaceButtons, PlaceFields } from "./forms/place";

const Shape = lazy(() => import("./forms/sheet"));
const Done = lazy(() => import("./forms/done"));
const Seats = lazy(() => import("./forms/seats"));
const ShakerForm = lazy(() => import("./forms/shaker"));
const LettersForm = lazy(() => import("./forms/letters"));

type Sheeted = Element & { sheet: NonNullable<Element["sheet"]> };

/** Numbers for what is in hand: the card, one thing on it, or several. */
export function Form({ several, onPoint }: { several: Element[]; onPoint: (withID: string) => void }) {
	const b = useBench();
	const e = b.card.elements.find((x) => x.id === b.element);
	if (several.length > 1) return <Several all={several} />;
	if (!e) return <BaseForm />;
	// Each thing has fields of its own: what is typed for one is never another's.
	if (isMat(e)) return <MatForm key={e.id} e={e as Sheeted} />;
	return (
		<Row key={e.id}>
			<PlaceFields e={e} />
			{e.image && <ImageFields e={e} />}
			{e.sheet && <SheetFields e={e as Sheeted} />}
			{e.letters && (
				<>
					<KeptField
						label="Words"
						value={e.letters.text}
						maxLength={60}
						onSet={(text) => e.letters && b.edit({ letters: { element: e.id, letters: { ...e.letters, text } } })}
						width="180px"
					/>
					{!e.letters.from && (
						<PaperField value={e.letters.paper} onChange={(paper) => e.letters && b.edit({ letters: { element: e.id, letters: { ...e.letters, paper } } })} />
					)}
					<Popover label="How they are cut" title="How the letters are set, stacked and backed" aside>
						<Suspense fallback="Opening…">
							<LettersForm e={{ ...e, letters: e.letters }} />
						</Suspense>
					</Popover>
				</>
			)}
			{e.gems && <GemFields e={e} />}
			{e.ribbon && <RibbonFields e={e} r={e.ribbon} />}
			{e.shaker && (
				<>
					<PaperField value={e.shaker.paper} onChange={(paper) => e.shaker && b.edit({ shaker: { element: e.id, shaker: { ...e.shaker, paper } } })} />
					<Popover label="Window and filling" title="The window, the wall, what is in it" aside>
						<Suspense fallback="Opening…">
							<ShakerForm e={{ ...e, shaker: e.shaker }} />
						</Suspense>
					</Popover>
				</>
			)}
			<PlaceButtons e={e} onPoint={onPoint} />
		</Row>
	);
}

function ImageFields({ e }: { e: Element }) {
	const b = useBench();
	const m = b.card.motifs.find((x) => x.id === e.image?.motif);
	const shaded = b.view.plan.front.elements.find((p) => p.id === e.id)?.shaded;
	if (!m) return null;
	return (
		<>
			{m.colourways.length > 1 && (
				<Select label="Colourway" value={e.image?.colourway} onChange={(v) => b.edit({ recolour: { elements: { [e.id]: v } } })}>
					{m.colourways.map((w) => (
						<option key={w.id} value={w.id}>
							{w.name}
						</option>
					))}
				</Select>
			)}
			{shaded && <Button onClick={() => b.edit({ shadeOther: { element: e.id } })}>Shaded on its {shaded}: shade the other side</Button>}
		</>
	);
}

function SheetFields({ e }: { e: Sheeted }) {
	const b = useBench();
	const words = wordsOf(e);
	const sheet = (f: Partial<Sheeted["sheet"]>) => b.edit({ sheet: { element: e.id, sheet: { ...e.sheet, ...f } } });
	const at = e.sheet.treatments?.findIndex((t) => t.words) ?? -1;
	const say = (f: Partial<NonNullable<typeof words>>) => words && b.edit({ treat: { element: e.id, at, treatment: { words: { ...words, ...f } } } });
	return (
		<>
			{words && <KeptField label="Words" value={words.text} maxLength={80} empty onSet={(text) => say({ text })} width="180px" />}
			<LengthField label="Width" mm={e.sheet.w ?? 0} onSet={(w) => sheet({ w, h: turnedOf(e) && e.sheet.w === e.sheet.h ? w : e.sheet.h })} width="72px" />
			<LengthField label="Height" mm={e.sheet.h ?? 0} onSet={(h) => sheet({ h })} width="72px" />
			{words && <LengthField label="Letters" mm={words.letter} onSet={(letter) => say({ letter })} width="72px" />}
			<PaperField value={e.sheet.paper} onChange={(paper) => sheet({ paper })} />
			{words && <Check label="Heat embossed" on={words.emboss ?? false} set={(on) => say({ emboss: on })} />}
			<SheetButtons e={e} />
		</>
	);
}

function SheetButtons({ e }: { e: Sheeted }) {
	const b = useBench();
	const n = e.sheet.treatments?.length ?? 0;
	return (
		<>
			<Popover label="Outline and openings" title="Its outline and openings" aside>
				<Suspense fallback="Opening…">
					<Shape e={e} />
				</Suspense>
			</Popover>
			{(b.view.plan.front.seats ?? []).includes(e.id) && (
				<Popover label="Seats and windows" title="What goes into its seats, and what is seen through its windows" aside>
					<Suspense fallback="Opening…">
						<Seats e={e} />
					</Suspense>
				</Popover>
			)}
			<Popover label={n > 0 ? `Done to it: ${n}` : "Done to it"} title="What is done to it, in order" aside>
				<Suspense fallback="Opening…">
					<Done e={e} />
				</Suspense>
			</Popover>
		</>
	);
}

function GemFields({ e }: { e: Element }) {
	const b = useBench();
	const g = e.gems;
	if (!g) return null;
	return (
		<>
			<NumberField
				saved
				label="How many"
				min={1}
				max={200}
				v={g.places.length}
				set={(n) => n >= 1 && b.edit({ gems: { element: e.id, count: Math.min(200, Math.round(n)) } })}
				width="64px"
			/>
			<LengthField label="Across" mm={g.size} onSet={(size) => b.edit({ gems: { element: e.id, size } })} width="72px" />
			<LengthField label="High" mm={g.height} onSet={(height) => b.edit({ gems: { element: e.id, height } })} width="72px" />
			<TextField
				label="Colour"
				type="color"
				value={g.colour}
				onChange={(ev) => b.edit({ gems: { element: e.id, colour: ev.target.value } }, `colour ${e.id}`)}
			/>
			{(b.state.kit.gems.length > 0 || g.gem) && (
				<Select label="Of the stores" value={g.gem ?? ""} onChange={(gem) => b.edit({ gems: { element: e.id, gem } })} width="150px">
					<option value="">none of these</option>
					{g.gem && !b.state.kit.gems.some((x) => x.id === g.gem) && <option value={g.gem}>no longer there</option>}
					{b.state.kit.gems.map((x) => (
						<option key={x.id} value={x.id}>
							{x.name}
							{x.left !== undefined ? `, ${x.left} left` : ""}
						</option>
					))}
				</Select>
			)}
		</>
	);
}

function RibbonFields({ e, r }: { e: Element; r: NonNullable<Element["ribbon"]> }) {
	const b = useBench();
	const set = (f: Partial<typeof r>) => b.edit({ ribbon: { element: e.id, ribbon: { ...r, ...f } } });
	return (
		<>
			<LengthField label="Wide" mm={r.w} min={0.3} max={60} onSet={(w) => set({ w })} width="72px" />
			<LengthField label="Thick" kind="thin" mm={r.thick} min={0.05} max={5} onSet={(thick) => set({ thick })} width="72px" />
			<TextField label="Colour" type="color" value={r.colour} onChange={(ev) => set({ colour: ev.target.value })} />
			<Select label="Tied" value={r.tied || "plain"} onChange={(v) => set({ tied: v as typeof r.tied })}>
				<option value="plain">plain</option>
				<option value="knot">with a knot</option>
				<option value="bow">with a bow</option>
			</Select>
			<Check label="wrapped round" on={r.wrapped ?? false} set={(wrapped) => set({ wrapped })} />
		</>
	);
}

/** A mat or the panel: its borders, its card, what is done to it. */
function MatForm({ e }: { e: Sheeted }) {
	const b = useBench();
	const { sheet } = e;
	const inset = e.inset ?? { left: 0, right: 0, top: 0, bottom: 0 };
	const border = (f: Partial<typeof inset>) => b.edit({ sheet: { element: e.id, inset: { ...inset, ...f } } });
	const even = inset.left === inset.right && inset.left === inset.top && inset.left === inset.bottom;
	return (
		<Row>
			{even && <LengthField label="Border of the sheet beneath" mm={inset.left} onSet={(mm) => border({ left: mm, right: mm, top: mm, bottom: mm })} />}
			{even && (
				<Popover label="Uneven" title="A border of its own on each side">
					<div style={{ display: "flex", gap: 10, flexWrap: "wrap", width: 260 }}>
						<Borders inset={inset} border={border} />
					</div>
				</Popover>
			)}
			{!even && <Borders inset={inset} border={border} />}
			<PaperField value={sheet.paper} onChange={(paper) => b.edit({ sheet: { element: e.id, sheet: { ...sheet, paper } } })} />
			<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
			<SheetButtons e={e} />
			<Button onClick={() => b.edit({ remove: { element: e.id } })}>Take off</Button>
		</Row>
	);
}

function Borders({ inset, border }: { inset: NonNullable<Element["inset"]>; border: (f: Partial<NonNullable<Element["inset"]>>) => void }) {
	return (["left", "right", "top", "bottom"] as const).map((side) => (
		<LengthField key={side} label={`Border, ${side}`} mm={inset[side]} onSet={(mm) => border({ [side]: mm })} width="72px" />
	));
}

/** Several things in hand at once. */
function Several({ all }: { all: Element[] }) {
	const b = useBench();
	const ids = all.map((x) => x.id);
	const grouped = all.every((x) => x.group && x.group === all[0].group);
	const each = (f: (e: Element) => Edit) => b.edit(all.map(f));
	return (
		<Row>
			<b>{all.length} things in hand</b>
			<Button onClick={() => b.edit({ together: { elements: ids, apart: grouped } })}>{grouped ? "Take the group apart" : "Make a group"}</Button>
			<Button onClick={() => each((e) => ({ repeat: { element: e.id } }))}>Another of each</Button>
			<Button onClick={() => each((e) => ({ put: { element: e.id, mirror: !e.place.mirror } }))}>Mirror each</Button>
			<Button onClick={() => each((e) => ({ remove: { element: e.id } }))}>Take them off</Button>
		</Row>
	);
}
