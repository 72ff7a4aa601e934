import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import { api, ok, type S } from "../../api/client";
import { useFitting, useRefresh, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { thin } from "../../ui/units";

type Limits = S["Limits"];
const fields: { key: keyof Limits; label: string; unit: string; max: number; step: number; of: number }[] = [
	{ key: "spill", label: "Spill over the edge", unit: "mm", max: 5, step: 0.05, of: 1 },
	{ key: "rimShare", label: "Rim that must be left", unit: "%", max: 100, step: 5, of: 100 },
	{ key: "gap", label: "Bare gap", unit: "mm", max: 5, step: 0.05, of: 1 },
	{ key: "overlap", label: "Overlap in a blank", unit: "mm", max: 5, step: 0.05, of: 1 },
];

const step = (v: number) => Math.round(v * 20) / 20;
const round = (l: Limits): Limits => ({ spill: step(l.spill), rimShare: Math.max(0.05, step(l.rimShare)), gap: step(l.gap), overlap: step(l.overlap) });

/** What the eye forgives, for all layers or for this one alone, and where the hinge lies. */
export function Limits({ layer, now }: { layer: string; now?: Limits }) {
	const s = useSettings();
	const b = useBench();
	const refresh = useRefresh();
	const fit = useFitting();
	if (!fit) return null;
	const own = b.motif?.layers.find((l) => l.id === layer)?.forgive;
	const all = async (body: S["Fitting"]) => {
		await ok(api.PUT("/api/fitting", { body }));
		await refresh("fitting", "placing", "card");
	};
	const mine = (forgive?: Limits) => {
		const l = b.motif?.layers.find((x) => x.id === layer);
		if (l && b.motif) b.edit({ layer: { motif: b.motif.id, layer: { ...l, forgive } } });
	};
	const row = (v: Limits, set: (l: Limits) => void, name: string) => (
		<fieldset aria-label={name} className="plain" style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: "6px 12px" }}>
			{fields.map(({ key, label, max }) =>
				key === "rimShare" ? (
					<NumberField
						key={key}
						saved
						label={label}
						unit="%"
						v={Math.round(v.rimShare * 100)}
						min={5}
						max={100}
						step={5}
						set={(n) => set({ ...v, rimShare: n / 100 })}
					/>
				) : (
					<LengthField key={key} kind="thin" label={label} mm={v[key]} min={0} max={max} onSet={(mm) => set({ ...v, [key]: mm })} />
				),
			)}
		</fieldset>
	);
	return (
		<Box display="flex" flexDirection="column" gap="6">
			<Box>
				<h2 style={{ fontSize: size.lead }}>What the eye forgives</h2>
				<Box mb="2">
					Between colours a plain step apart. Where two dry further apart an error shows sooner, and the limits are drawn in; where they dry nearer, let out.
				</Box>
				{row(fit.limits, (limits) => all({ ...fit, limits }), "all layers")}
			</Box>
			<Box borderTop="1px solid {colors.line}" pt="4">
				<h2 style={{ fontSize: size.lead }}>This layer alone</h2>
				{own ? (
					<>
						{row(own, mine, "this layer")}
						<Button mt="3" onClick={() => mine(undefined)}>
							Go by the general limits again
						</Button>
					</>
				) : (
					<>
						{now && (
							<Box mb="2">
								Now {thin(now.spill, s)} spill, {Math.round(100 * now.rimShare)} % of the rim, {thin(now.gap, s)} gap, {thin(now.overlap, s)}
								overlap.
							</Box>
						)}
						<Button onClick={() => mine(round(now ?? fit.limits))}>Set its own limits</Button>
					</>
				)}
			</Box>
			<Box borderTop="1px solid {colors.line}" pt="4">
				<h2 style={{ fontSize: size.lead }}>The hinge</h2>
				<Box display="flex" gap="5">
					<Select label="Side" value={fit.hinge.side} onChange={(v) => all({ ...fit, hinge: { ...fit.hinge, side: v as S["Hinge"]["side"] } })}>
						{["left", "right", "top", "bottom"].map((s) => (
							<option key={s}>{s}</option>
						))}
					</Select>
					<LengthField label="From the layer's edge" mm={fit.hinge.far} min={0} max={400} onSet={(far) => all({ ...fit, hinge: { ...fit.hinge, far } })} />
				</Box>
				<Box display="flex" gap="5" mt="3">
					<LengthField
						label="The door, wide (0: not said)"
						mm={fit.hinge.doorW ?? 0}
						min={0}
						max={1000}
						onSet={(doorW) => all({ ...fit, hinge: { ...fit.hinge, doorW } })}
					/>
					<LengthField label="The door, high" mm={fit.hinge.doorH ?? 0} min={0} max={1000} onSet={(doorH) => all({ ...fit, hinge: { ...fit.hinge, doorH } })} />
				</Box>
			</Box>
		</Box>
	);
}
