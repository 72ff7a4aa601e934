import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import { api, ok, type S } from "../../api/client";
import { useFitting, useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";

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
		<Box display="grid" gridTemplateColumns="1fr auto" gap="4px 10px" alignItems="center">
			{fields.map((f) => (
				<label key={f.key} style={{ display: "contents" }}>
					<span>{f.label}</span>
					<span style={{ whiteSpace: "nowrap" }}>
						<input
							type="number"
							key={v[f.key]}
							defaultValue={Math.round(v[f.key] * f.of * 100) / 100}
							min={f.key === "rimShare" ? 5 : 0}
							max={f.max}
							step={f.step}
							aria-label={`${f.label}, ${name}`}
							style={{ width: 74 }}
							onBlur={(e) => {
								const n = Math.min(f.max, Math.max(f.key === "rimShare" ? 5 : 0, Number(e.target.value) || 0)) / f.of;
								if (n !== v[f.key]) set({ ...v, [f.key]: n });
							}}
						/>{" "}
						{f.unit}
					</span>
				</label>
			))}
		</Box>
	);
	return (
		<Box display="flex" flexDirection="column" gap="12px">
			<Box>
				<h2 style={{ fontSize: 15 }}>What the eye forgives</h2>
				<Box mb="4px">
					Between colours a plain step apart. Where two dry further apart an error shows sooner, and the limits are drawn in; where they dry nearer, let out.
				</Box>
				{row(fit.limits, (limits) => all({ ...fit, limits }), "all layers")}
			</Box>
			<Box borderTop="1px solid {colors.line}" pt="8px">
				<h2 style={{ fontSize: 15 }}>This layer alone</h2>
				{own ? (
					<>
						{row(own, mine, "this layer")}
						<Button mt="6px" onClick={() => mine(undefined)}>
							Go by the general limits again
						</Button>
					</>
				) : (
					<>
						{now && (
							<Box mb="4px">
								Now {now.spill.toFixed(2)} mm spill, {Math.round(100 * now.rimShare)} % of the rim, {now.gap.toFixed(2)} mm gap, {now.overlap.toFixed(2)} mm
								overlap.
							</Box>
						)}
						<Button onClick={() => mine(round(now ?? fit.limits))}>Set its own limits</Button>
					</>
				)}
			</Box>
			<Box borderTop="1px solid {colors.line}" pt="8px">
				<h2 style={{ fontSize: 15 }}>The hinge</h2>
				<Box display="flex" gap="10px">
					<label className="field">
						Side
						<select value={fit.hinge.side} onChange={(e) => all({ ...fit, hinge: { ...fit.hinge, side: e.target.value as S["Hinge"]["side"] } })}>
							{["left", "right", "top", "bottom"].map((s) => (
								<option key={s}>{s}</option>
							))}
						</select>
					</label>
					<label className="field">
						From the layer's edge (mm)
						<input
							type="number"
							key={fit.hinge.far}
							defaultValue={fit.hinge.far}
							min={0}
							max={400}
							style={{ width: 90 }}
							onBlur={(e) => {
								const far = Math.min(400, Math.max(0, Number(e.target.value) || 0));
								if (far !== fit.hinge.far) all({ ...fit, hinge: { ...fit.hinge, far } });
							}}
						/>
					</label>
				</Box>
			</Box>
		</Box>
	);
}
