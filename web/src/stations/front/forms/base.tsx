import { lazy, Suspense, useState } from "react";
import { useBench } from "../../../api/card";
import type { Card } from "../../../api/client";
import { Button } from "../../../ui/button";
import { LengthField } from "../../../ui/length";
import { Popover } from "../../../ui/popover";
import { Select } from "../../../ui/select";
import { Fields, PaperField, Row } from "./fields";
import { OutlineFields } from "./outline";

const Done = lazy(() => import("./done"));

/** Begins the value of a thing on the card that the light comes from. */
const lampOf = "lamp ";

/** Numbers of the card itself. */
export function BaseForm() {
	const b = useBench();
	const { card: c, state } = b;
	const treated = c.base.treatments?.length ?? 0;
	return (
		<Row>
			<Select label="Size" value={c.base.format} onChange={(v) => b.edit({ format: { format: v } })}>
				{state.formats.map((f) => (
					<option key={f.id} value={f.id}>
						{f.name}
					</option>
				))}
				{!state.formats.some((f) => f.id === c.base.format) && <option value={c.base.format}>a size of its own</option>}
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
			<Select
				label="Light from"
				value={c.lamp ? lampOf + c.lamp : (c.light ?? "")}
				onChange={(v) => b.edit({ light: v.startsWith(lampOf) ? { lamp: v.slice(lampOf.length) } : { side: v ? (v as "left") : undefined } })}
				width="130px"
			>
				<option value="">nobody minds</option>
				<option value="left">the left</option>
				<option value="right">the right</option>
				{b.view.plan.front.elements
					.filter((p) => c.elements.some((e) => e.id === p.id && e.image))
					.map((p) => (
						<option key={p.id} value={lampOf + p.id}>
							{p.label}
						</option>
					))}
			</Select>
			<Popover label="Make of it" title="What the base is made into">
				<Made />
			</Popover>
			<Popover label="Fit a panel" title="Make the base fit a panel that is cut">
				<Around />
			</Popover>
			<Popover label={treated > 0 ? `Done to it: ${treated}` : "Done to it"} title="What is done to the card front, in order" aside>
				<Suspense fallback="Opening…">
					<Done e={{ id: "", sheet: c.base }} />
				</Suspense>
			</Popover>
			<Button onClick={() => b.edit({ addMat: {} })}>Add a mat</Button>
		</Row>
	);
}

/** What the base is made into, and the outline of its front leaf. */
function Made() {
	const b = useBench();
	const { base } = b.card;
	return (
		<div style={{ display: "grid", gap: 10, width: 330 }}>
			<Fields>
				<Select label="Made into" value={base.make || "folded"} onChange={(v) => b.edit({ base: { make: v as "folded" } })} width="170px">
					<option value="folded">a folded card</option>
					<option value="flat">a flat tag</option>
					<option value="holder">a holder with a pocket</option>
				</Select>
				{base.make === "holder" && (
					<>
						<LengthField label="Pocket, deep" mm={base.pocket ?? 0} min={0} max={base.h} onSet={(pocket) => b.edit({ base: { pocket } })} />
						<LengthField label="Flap, deep" mm={base.flap ?? 0} min={0} max={base.h} onSet={(flap) => b.edit({ base: { flap } })} />
					</>
				)}
				{(base.make || "folded") === "folded" && (
					<LengthField label="Front leaf shorter by" mm={base.short ?? 0} min={0} max={300} onSet={(short) => b.edit({ base: { short } })} />
				)}
			</Fields>
			<OutlineFields label="Front leaf" o={base.leaf} onSet={(leaf) => b.edit({ base: { leaf } })} />
		</div>
	);
}

/** The base worked out from a panel that is already cut. */
function Around() {
	const b = useBench();
	const panel = b.view.plan.front.sheets.at(-1);
	const [w, setW] = useState(panel?.w ?? 100);
	const [h, setH] = useState(panel?.h ?? 130);
	const [border, setBorder] = useState(3.175);
	return (
		<div style={{ display: "grid", gap: 10, width: 300 }}>
			<div>The panel is cut already: how large is it, and how much of the base is to show?</div>
			<Fields>
				<LengthField label="Panel, wide" mm={w} min={10} max={390} onSet={setW} />
				<LengthField label="Panel, high" mm={h} min={10} max={390} onSet={setH} />
				<LengthField label="Border" mm={border} min={0} max={60} onSet={setBorder} />
			</Fields>
			<Button variant="main" onClick={() => b.edit({ around: { w, h, border } })}>
				Size the base to it
			</Button>
		</div>
	);
}
