import { useMemo } from "react";
import { useBench } from "../api/card";
import type { Card, Plan, State } from "../api/client";
import { useSettings } from "../api/queries";
import { bare } from "../ui/colours";
import { thin } from "../ui/units";
import { Strata, type Stratum } from "./strata";

/** The strata of the whole card: base, sheets, elements. */
export function CardStrata({ what, value }: { what: string; value: (id: string) => string }) {
	const s = useSettings();
	const b = useBench();
	const { plan } = b.view;
	const { card, state } = b;
	const rows = useMemo(() => rowsOf(card, plan, state, value), [card, plan, state, value]);
	const { pick, edit } = b;
	return (
		<Strata
			rows={rows}
			what={what}
			selected={b.element}
			onPick={(id) => pick({ element: id, layer: "" })}
			onMove={(id, by) => edit({ shift: { element: id, by } })}
			foot={`Closed card ${thin(plan.depth.total, s)} at its highest.`}
		/>
	);
}

function rowsOf(card: Card, plan: Plan, state: State, value: (id: string) => string): Stratum[] {
	const { papers } = state.kit;
	const base = papers.find((p) => p.id === card.base.paper);
	const one = card.base.make === "flat";
	const leaf = plan.depth.base / (one ? 1 : 2);
	const half = (id: string, name: string, z: number): Stratum => {
		const colour = base?.colour ?? bare;
		return { id, name, sub: base?.name ?? "no paper chosen", value: value(id), thick: leaf, lift: 0, body: colour, top: colour, at: { z, w: card.base.w } };
	};
	const sheets = plan.front.sheets.map(
		(s, i): Stratum => ({
			id: s.id,
			name: s.panel ? "Panel" : `Mat ${i + 1}`,
			sub: s.held,
			value: value(s.id),
			thick: s.z1 - s.z0,
			lift: s.lift,
			foam: s.foam,
			body: s.colour,
			top: s.top,
			at: { z: s.z0, w: s.w },
		}),
	);
	const things = plan.front.elements.map((p): Stratum => {
		const e = card.elements.find((x) => x.id === p.id);
		const w = plan.motifs.find((x) => x.id === e?.image?.motif)?.colourways.find((x) => x.id === e?.image?.colourway);
		const body = p.body || (w?.layers[0]?.dry ?? bare);
		const flat = p.printed && p.z1 - p.z0 < 0.005;
		return {
			id: p.id,
			name: p.label,
			sub: p.held,
			value: value(p.id),
			thick: flat ? 0 : p.z1 - p.z0,
			lift: flat ? 0 : p.lift,
			foam: p.foam,
			body,
			top: p.top || (w?.layers.at(-1)?.dry ?? body),
			parts:
				flat || (!w && p.parts.length === 0)
					? undefined
					: !w
						? p.parts
						: w.layers.filter((x) => x.thick > 0).map((x) => ({ thick: x.thick, z: x.z1 - x.thick, lift: x.lift, foam: x.foam, body: x.paper, top: x.dry })),
			at: { z: p.z0, w: p.w, box: { x: e?.place.x ?? 0, y: e?.place.y ?? 0, w: p.w, h: p.h } },
		};
	});
	const under = one ? [half("base", "Base", 0)] : [half("back", "Base, back leaf", 0), half("base", "Base, front leaf", leaf)];
	return [...under, ...sheets, ...things];
}
