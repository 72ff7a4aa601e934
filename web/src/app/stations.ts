import { type ComponentType, type LazyExoticComponent, lazy } from "react";
import type { Document } from "../api/card";
import { isMat } from "../api/client";

/** How far a station is: untouched until the person decided something there. */
export type Mood = "untouched" | "in hand" | "settled";

/** A station of the path: a new one is an entry here and a folder in `stations/`. */
export interface Station {
	id: string;
	title: string;
	Page: LazyExoticComponent<ComponentType>;
	/** Fetches its part of the page ahead of its being shown, and keeps it in `ready`. */
	load: () => Promise<void>;
	ready?: ComponentType;
	mood: (b: Document) => Mood;
}

type Load = () => Promise<{ default: ComponentType }>;
function station(id: string, title: string, get: Load, mood: (b: Document) => Mood): Station {
	const s: Station = {
		id,
		title,
		mood,
		Page: lazy(get),
		load: async () => {
			s.ready = (await get()).default;
		},
	};
	return s;
}

const images = (b: Document) => b.card.elements.filter((e) => e.image);

/** Stations that another screen may open. */
export const forGuests = ["cut", "work", "log"];

/** The path, in the order of the work. */
export const stations: Station[] = [
	station(
		"pieces",
		"Pieces",
		() => import("../stations/pieces/page"),
		(b) => (b.card.motifs.length > 0 ? "settled" : "untouched"),
	),
	station(
		"inks",
		"Inks",
		() => import("../stations/inks/page"),
		(b) => {
			const chosen = b.card.motifs.some((m) => m.colourways.some((w) => Object.values(w.layers).some((f) => f.ink)));
			if (!chosen) return "untouched";
			const wants = images(b).some((e) => {
				const w = b.view.plan.motifs.find((m) => m.id === e.image?.motif)?.colourways.find((x) => x.id === e.image?.colourway);
				return !w || w.layers.some((l) => l.missing);
			});
			return wants ? "in hand" : "settled";
		},
	),
	station(
		"register",
		"Register",
		() => import("../stations/register/page"),
		(b) => {
			const judged = b.view.plan.motifs.flatMap((m) => m.layers.filter((l) => l.play.judged).map((l) => ({ m, l })));
			const set = judged.filter(({ m, l }) => b.card.motifs.find((x) => x.id === m.id)?.layers.find((x) => x.id === l.id)?.forgive);
			if (set.length === 0) return "untouched";
			return set.length === judged.length ? "settled" : "in hand";
		},
	),
	station(
		"front",
		"Front",
		() => import("../stations/front/page"),
		(b) => (images(b).length > 0 ? "settled" : b.card.elements.some((e) => !isMat(e)) ? "in hand" : "untouched"),
	),
	station(
		"depth",
		"Depth",
		() => import("../stations/depth/page"),
		(b) => {
			if (b.card.elements.every(isMat)) return "untouched";
			return b.view.plan.depth.post.envelope ? "settled" : "in hand";
		},
	),
	station(
		"cut",
		"Cut",
		() => import("../stations/cut/page"),
		(b) => (b.card.copies ? "settled" : "untouched"),
	),
	station(
		"work",
		"Work",
		() => import("../stations/work/page"),
		(b) => {
			const done = b.view.plan.steps.filter(b.done).length;
			return done === 0 ? "untouched" : done === b.view.plan.steps.length ? "settled" : "in hand";
		},
	),
	station(
		"log",
		"Log",
		() => import("../stations/log/page"),
		(b) => (b.view.run.before > 0 ? "settled" : b.view.run.done.length > 0 ? "in hand" : "untouched"),
	),
];
