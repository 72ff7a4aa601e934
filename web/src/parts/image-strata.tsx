import { useBench } from "../api/card";
import type { S } from "../api/client";
import { useSettings } from "../api/queries";
import { bare } from "../ui/colours";
import { thin } from "../ui/units";
import { Strata, type Stratum } from "./strata";

/** The strata of the image in hand, with what the station is about beside each. */
export function ImageStrata({ what, value, sub }: { what: string; value: (i: number) => string; sub?: (i: number) => string }) {
	const s = useSettings();
	const { look, motif, colourway: w, layer, pick, edit } = useBench();
	const finishes = motif?.colourways.find((x) => x.id === w?.id)?.layers;
	const rows = (look?.layers ?? []).map((l, i): Stratum => {
		const x = w?.layers[i];
		return {
			id: l.id,
			name: l.label,
			sub: sub?.(i) ?? inkWords(x, motif?.layers[i], finishes?.[l.id]?.bare),
			value: value(i),
			thick: x?.thick ?? 0,
			lift: x?.lift ?? 0,
			foam: x?.foam,
			body: x?.paper ?? bare,
			top: x?.dry ?? bare,
		};
	});
	const prints = w && `${w.prints} ${w.prints === 1 ? "print" : "prints"}`;
	const foot =
		w &&
		(w.cards === 0 ? `${prints}: no height of their own.` : `${w.cards} cut ${w.cards === 1 ? "piece" : "pieces"} and ${prints}: ${thin(w.height, s)} high.`);
	return (
		<Strata
			rows={rows}
			what={what}
			selected={layer}
			onPick={(id) => pick({ layer: id })}
			onMove={(id, by) => motif && edit({ shiftLayer: { motif: motif.id, layer: id, by } })}
			foot={foot}
		/>
	);
}

/** What a layer is inked with, in words: a print without ink says whether that is meant. */
function inkWords(w: { inkName: string; paperName: string; missing?: string; kept?: boolean } | undefined, l: S["Layer"] | undefined, bareOnPurpose?: boolean) {
	if (!w) return "";
	if (w.kept) return "kept as it is";
	if (w.missing) return `no ${w.missing} chosen`;
	if (l?.make === "cut") return `${w.inkName || "plain"} on ${w.paperName}`;
	if (!w.inkName) return bareOnPurpose ? "left bare on purpose" : "no ink yet";
	return l?.region?.by === "enclosed" ? `${w.inkName}, by hand` : `${w.inkName}, printed`;
}
