import type { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { area, type Settings, thin } from "../../ui/units";
import { compass, type Off, reachAt, turnLeft } from "./play";

type L = NonNullable<ReturnType<typeof useBench>["look"]>["layers"][0];

/** What a stratum says of its layer. */
export function playSub(s: Settings, l: L, told?: { judged: boolean; outside: number; turn: number }): string {
	const p = { ...l.play, ...(told && { judged: told.judged, outside: told.outside, clock: told.turn, anti: told.turn }) };
	if (!p.judged) return "place it freely";
	if (p.outside > 0) return `${area(p.outside, s)} lie past the limit`;
	return `${p.fit === "offset" ? "offset on purpose" : p.fit}; turn ${turnWords(p)}`;
}

const turnWords = (p: L["play"]) => {
	const t = Math.min(p.clock, p.anti);
	return t > 90 ? "freely" : `${t.toFixed(1)}°`;
};

/** What is said above the table. */
export function words(s: Settings, p: L["play"], on: string): string {
	if (!p.judged) return "Nothing has to meet here.";
	if (p.outside > 0) return `As designed it already runs over ${on}.`;
	const known = p.unsure ? ` The outlines are sure to ± ${thin(p.unsure, s)}, which is taken off.` : "";
	const rim = (p.rim > 0 ? ` Rim ${thin(p.rim, s)} at its narrowest.` : "") + known;
	if (p.loose - p.tight < 0.005) return `May drift ${thin(p.tight, s)} every way; turn ${turnWords(p)}.${rim}`;
	const at = (p.tightAt * Math.PI) / 180;
	return `May drift ${thin(p.tight, s)} at the tightest (${compass({ x: Math.cos(at), y: Math.sin(at) })}), ${thin(p.loose, s)} at the loosest; turn ${turnWords(p)}.${rim}`;
}

/** Where the limit lies and who set it. */
export function limitWords(s: Settings, p: S["Play"], told: S["Placing"] | undefined, round: boolean, own: boolean): string {
	const by = own ? ", set for this layer" : told && told.contrast > 0 ? `, set by how far apart the two dry (${told.contrast.toFixed(0)})` : "";
	if (p.fit === "offset") return `It is offset on purpose: the look holds while it stays within half of that, ${thin(p.loose, s)}, however it is turned.`;
	if (round) return `The die may drift so far before the cut shows it${by}.`;
	const at =
		p.boundGap > 0.005
			? `${thin(p.boundGap, s)} outside ${p.fit === "fills" ? "the blank's edge" : "its host"}`
			: p.boundGap < -0.005
				? `${thin(-p.boundGap, s)} inside its host`
				: "its host's own edge";
	return `The dashed line is the limit: ${at}${by}.`;
}

/** How much more is allowed the way a layer lies now. */
export function allowance(s: Settings, p: S["Play"], off: Off): string {
	const parts = [];
	const reach = reachAt(p, off);
	if (off.x !== 0 || off.y !== 0) parts.push(`${thin(reach, s)} allowed that way`);
	const limit = off.t < 0 ? p.anti : p.clock;
	if (off.t !== 0) parts.push(limit >= 90 ? "turn it freely" : `${turnLeft(p, off).toFixed(1)}° of turn allowed there`);
	return parts.join("; ");
}

/** What shows when a layer lies so. */
export function harmWords(s: Settings, h: S["Harm"] | undefined, round: boolean): string {
	if (!h) return "";
	if (h.white > 0) return ` White shows inside the cut line, ${thin(h.white, s)} at its widest.`;
	if (h.lies > 0 || h.bare > 0) return ` ${area(h.bare, s)} of the blank stay bare, ${area(h.lies, s)} lie over its edge.`;
	if (h.spill > 0) return ` It runs ${thin(h.spill, s)} over ${round ? "the cut line" : "the edge"} (${area(h.spillArea, s)}).`;
	if (h.rimLeast > 0) return ` The narrowest ${round ? "white rim" : "rim"} left is ${thin(h.rimLeast, s)}.`;
	return "";
}
