import { lazy, Suspense } from "react";
import { useBench } from "../../../api/card";
import type { Edit, Element } from "../../../api/client";
import { HeldField } from "../../../parts/station";
import { Button } from "../../../ui/button";
import { Check } from "../../../ui/check";
import { KeptField } from "../../../ui/kept";
import { LengthField } from "../../../ui/length";
import { NumberField } from "../../../ui/number";
import { Popover } from "../../../ui/popover";
import { Select } from "../../../ui/select";
import { PaperField } from "./fields";

const Many = lazy(() => import("../many"));
const MeantFields = lazy(() => import("./meant"));
const Crossings = lazy(() => import("./crossings"));

/** Where an element lies, and what holds it. */
export function PlaceFields({ e }: { e: Element }) {
	const b = useBench();
	const put = (f: { x?: number; y?: number; turn?: number }) => b.edit({ put: { element: e.id, ...f } });
	return (
		<>
			<LengthField label="Centre, across" mm={e.place.x} onSet={(x) => put({ x })} />
			<LengthField label="Centre, down" mm={e.place.y} onSet={(y) => put({ y })} />
			<NumberField saved label="Turn" unit="°" step={1} v={Math.round(e.place.turn * 10) / 10} set={(n) => put({ turn: n })} width="72px" />
			<HeldField bonds={e.bonds} onChange={(bonds) => b.edit({ hold: { element: e.id, bonds } })} />
		</>
	);
}

const faces: [Element["face"], string][] = [
	["front", "on the front"],
	["inside left", "inside, left"],
	["inside right", "inside, right"],
	["envelope", "on the envelope"],
	["beside", "beside the card"],
];

/** What can be done with any element. */
/** Stands for: found from the outlines. No element has such an id. */
const found = "?";

export function PlaceButtons({ e, onPoint }: { e: Element; onPoint?: (withID: string) => void }) {
	const b = useBench();
	const { base } = b.card;
	const { sheet } = e;
	const cut = e.image?.cutout;
	const prints = b.card.motifs.find((m) => m.id === e.image?.motif)?.layers.some((l) => l.make !== "cut");
	const panel = b.card.elements.findLast((x) => x.sheet && x.inset);
	const placed = b.view.plan.front.elements.find((p) => p.id === e.id);
	const over = placed?.over || e.flush;
	const beneath =
		e.face === "front" && !e.inset ? b.card.elements.slice(0, Math.max(0, b.card.elements.indexOf(e))).filter((x) => x.sheet && x.face === "front") : [];
	const called = (id?: string) => {
		const { front } = b.view.plan;
		const mat = front.sheets.find((s) => s.id === id);
		return !id ? "the card front" : mat ? (mat.panel ? "the panel" : "a mat") : (front.elements.find((p) => p.id === id)?.label ?? "a sheet");
	};
	const face = (to: Element["face"]): Edit[] =>
		to === "front"
			? [{ face: { element: e.id, face: to } }, { put: { element: e.id, x: base.w / 2, y: base.h / 2 } }]
			: [{ face: { element: e.id, face: to } }];
	return (
		<>
			{e.face === "beside" && <Button onClick={() => b.edit(face("front"))}>Lay it on the front</Button>}
			{e.face === "front" && (
				<>
					<Popover label="Several" title="Several in a ring, a row or a grid" aside>
						<Suspense fallback="Opening…">
							<Many e={e} />
						</Suspense>
					</Popover>
					<Popover label="Over and under" title="What it lies over and beneath" aside>
						<Suspense fallback="Opening…">
							<Crossings e={e} onPoint={onPoint} />
						</Suspense>
					</Popover>
				</>
			)}
			<Popover label="More" title="More to do with it">
				<div style={{ display: "flex", gap: 8, flexWrap: "wrap", width: 300, alignItems: "end" }}>
					{sheet && (
						<KeptField
							key={e.id}
							label="Called"
							value={e.name ?? ""}
							maxLength={80}
							width="130px"
							onSet={(name) => b.edit({ sheet: { element: e.id, name, sheet } })}
						/>
					)}
					<Select label="Lies" value={e.face} onChange={(v) => b.edit(face(v as Element["face"]))} width="130px">
						{faces.map(([id, name]) => (
							<option key={id} value={id}>
								{name}
							</option>
						))}
					</Select>
					{beneath.length > 0 && (
						<Select
							label="Carried by"
							value={e.carried ?? found}
							onChange={(v) => b.edit({ carry: { element: e.id, by: v === found ? undefined : v } })}
							width="190px"
						>
							<option value={found}>what bears most of it{e.carried === undefined ? ` (${called(placed?.on)})` : ""}</option>
							{beneath.map((x) => (
								<option key={x.id} value={x.id}>
									{called(x.id)}
								</option>
							))}
							<option value="">the card front</option>
						</Select>
					)}
					<Button onClick={() => b.edit({ put: { element: e.id, x: base.w / 2 } })}>Centre across</Button>
					<Button onClick={() => b.edit({ put: { element: e.id, mirror: !e.place.mirror } })} aria-pressed={!!e.place.mirror}>
						Mirror
					</Button>
					<Button onClick={() => b.edit({ repeat: { element: e.id } })}>Another</Button>
					{prints && (
						<>
							<Button onClick={() => b.edit({ twin: { element: e.id } })}>Raise a twin over it</Button>
							{!cut && (
								<Check label="masked while its ground is inked" on={!!e.image?.masked} set={(masked) => b.edit({ masked: { element: e.id, masked } })} />
							)}
							<Check
								label="printed on card of its own and cut out"
								on={!!cut}
								set={(on) => b.edit({ cutout: { element: e.id, cutout: on ? { paper: panel?.sheet?.paper ?? base.paper, margin: 1.5875 } : undefined } })}
							/>
							{cut && (
								<>
									<LengthField
										label="Margin round it"
										mm={cut.margin ?? 0}
										min={0}
										max={20}
										onSet={(margin) => b.edit({ cutout: { element: e.id, cutout: { ...cut, margin } } })}
										width="76px"
									/>
									<PaperField value={cut.paper} onChange={(paper) => b.edit({ cutout: { element: e.id, cutout: { ...cut, paper } } })} />
								</>
							)}
						</>
					)}
					{over && <Button onClick={() => b.edit({ flush: { elements: [e.id], on: !e.flush } })}>{e.flush ? "Leave the overhang" : "Trim flush"}</Button>}
					{e.face === "front" && !e.inset && (sheet || e.image || e.letters) && (
						<Check label="lifted with tacky film, with the others that are" on={!!e.film} set={(on) => b.edit({ lift: { elements: [e.id], on } })} />
					)}
					{e.face === "front" && (
						<Suspense fallback="Opening…">
							<MeantFields e={e} />
						</Suspense>
					)}
				</div>
			</Popover>
			<Button onClick={() => b.edit({ remove: { element: e.id } })}>Take off</Button>
		</>
	);
}
