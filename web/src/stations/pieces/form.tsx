import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import { HeldField } from "../../parts/station";
import { Check } from "../../ui/check";
import { KeptField } from "../../ui/kept";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { area, length } from "../../ui/units";

import { Again } from "./again";

/** What the chosen layer is: its label, how it is made, where it sits, how it is held. */
export default function LayerForm() {
	const b = useBench();
	const i = b.motif?.layers.findIndex((l) => l.id === b.layer) ?? -1;
	if (i < 0 || !b.motif || !b.look) return null;
	const l = b.motif.layers[i];
	const p = b.look.layers[i];
	const set = (f: Partial<typeof l>) => b.motif && b.edit({ layer: { motif: b.motif.id, layer: { ...l, ...f } } });
	return (
		<Box key={`${b.motif?.id} ${l.id}`} py="5" px="9" display="flex" gap="6" flexWrap="wrap" alignItems="end" bg="sheet" borderTop="1px solid {colors.line}">
			<KeptField label="Label" value={l.label} onSet={(label) => set({ label: label.trim() })} width="150px" />
			<Select label="Made by" value={l.make} onChange={(v) => set({ make: v as typeof l.make })}>
				<option value="cut">cutting</option>
				<option value="printed">stamping</option>
				<option value="stencilled">a stencil</option>
			</Select>
			<Select label="Sits on" value={l.on ?? ""} onChange={(v) => set({ on: v })}>
				<option value="">what is beneath ({b.look.layers.find((x) => x.id === p.host)?.label ?? "the panel"})</option>
				{b.motif.layers.slice(0, i).map((x) => (
					<option key={x.id} value={x.id}>
						{x.label}
					</option>
				))}
			</Select>
			<Select label="Fit" value={l.fit} onChange={(v) => set({ fit: v as typeof l.fit })}>
				<option value="free">free</option>
				<option value="within">within</option>
				<option value="even rim">even rim</option>
				<option value="fills">fills a blank</option>
				<option value="offset">offset on purpose</option>
			</Select>
			<NumberField saved label="Tone rank" min={1} max={99} v={l.rank} set={(n) => n >= 1 && set({ rank: n })} width="64px" />
			<Check label="Accent" on={l.accent ?? false} set={(on) => set({ accent: on })} />
			<NumberField saved label="Copies" min={1} max={9} v={l.copies} set={(n) => n >= 1 && set({ copies: n })} width="56px" />
			{l.make === "cut" && <Check label="Stamped, then cut" on={l.after ?? false} set={(on) => set({ after: on })} />}
			{l.make === "cut" && l.after && (
				<LengthField label="Apart in a strip" mm={l.pitch ?? 0} min={0} max={400} onSet={(pitch) => set({ pitch: pitch || undefined })} width="76px" />
			)}
			<Popover label="Use it again" title="More made of the same part" aside>
				<Again l={l} set={set} />
			</Popover>
			{l.make === "cut" && <HeldField bonds={l.bonds} onChange={(bonds) => b.motif && b.edit({ hold: { motif: b.motif.id, layer: l.id, bonds } })} />}
			<Box fontSize="small" flexBasis="100%">
				{length(p.w, b.state.settings)} × {length(p.h, b.state.settings)}; {area(p.visible, b.state.settings)} of {area(p.area, b.state.settings)} show (
				{Math.round(p.share * 100)} %).
			</Box>
		</Box>
	);
}
