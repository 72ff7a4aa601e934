import { api, ok, type S, type State } from "../api/client";
import { grammage, length, type Settings, thin, weight } from "../ui/units";

/** A thing on a shelf, whatever its kind. */
export type Thing = { id: string; name: string; where?: string; kind?: string } & Record<string, unknown>;

/** What can be said of a thing, and how it is filled in. */
export interface FieldOf {
	key: string;
	label: string;
	is: "text" | "colour" | "choice" | "length" | "thin" | "number" | "count" | "tick";
	of?: readonly string[];
	begin?: string | number | boolean;
	min?: number;
	max?: number;
	unit?: string;
	/** What a choice or a text is where nothing is said. */
	none?: string;
	help?: (s: Settings) => string | undefined;
}

/** A kind of thing: how it is told in a line, and what can be said of it. */
export interface KindOf {
	kind: "papers" | "spacers" | "adhesives" | "envelopes" | "gems" | "machines";
	title: string;
	one: string;
	things: (s: State) => Thing[];
	put: (t: Thing) => Promise<unknown>;
	tell: (t: Thing, s: Settings) => string[];
	/** Its colour, where it has one. */
	colour?: (t: Thing) => string;
	/** What of it is counted. */
	count?: { key: string; said: string; none: number | undefined };
	fields: FieldOf[];
	caution?: string;
}

const path = (id: string) => ({ path: { id } });
const where: FieldOf = { key: "where", label: "Where it is kept", is: "text" };
const name: FieldOf = { key: "name", label: "Name", is: "text" };
const num = (v: unknown) => Number(v ?? 0);

export const kinds: Record<string, KindOf> = {
	cardstock: {
		kind: "papers",
		title: "Cardstock",
		one: "paper",
		things: (s) => s.kit.papers as unknown as Thing[],
		put: (t) => ok(api.PUT("/api/kit/papers/{id}", { params: path(t.id), body: t as unknown as S["Cardstock"] })),
		colour: (t) => String(t.colour),
		tell: (t, s) => [
			`${t.kind}${t.finish ? `, ${t.finish}` : ""}`,
			grammage(num(t.gsm), s),
			thin(num(t.caliper), s),
			`${length(num(t.w), s)} × ${length(num(t.h), s)}${t.grain ? `, grain ${t.grain}` : ""}`,
		],
		count: { key: "sheets", said: "sheets", none: 0 },
		fields: [
			name,
			{ key: "kind", label: "Kind", is: "choice", of: ["cardstock", "patterned", "vellum", "acetate", "foil", "glitter", "foam", "watercolour"] },
			{ key: "colour", label: "Colour", is: "colour", begin: "#f6f5f1" },
			{
				key: "gsm",
				label: "Weight",
				is: "number",
				unit: "g/m²",
				begin: 216,
				min: 20,
				max: 2000,
				help: (s) => (s.unit === "in" ? "80 lb cover is 216" : undefined),
			},
			{ key: "caliper", label: "Thickness", is: "thin", begin: 0.28, min: 0.02, max: 10 },
			{ key: "sheets", label: "Sheets", is: "number", begin: 10, min: 0, max: 10000 },
			{ key: "w", label: "Sheet, wide", is: "length", begin: 215.9, min: 20, max: 2000 },
			{ key: "h", label: "Sheet, long", is: "length", begin: 279.4, min: 20, max: 2000 },
			{ key: "grain", label: "Grain", is: "choice", of: ["across", "down"], none: "nobody looked" },
			{ key: "finish", label: "Finish", is: "text" },
			where,
		],
	},
	spacers: {
		kind: "spacers",
		title: "Foam and board",
		one: "spacer",
		things: (s) => s.kit.spacers as unknown as Thing[],
		put: (t) => ok(api.PUT("/api/kit/spacers/{id}", { params: path(t.id), body: t as unknown as S["Spacer"] })),
		tell: (t, s) => [`${t.kind}`, `${thin(num(t.thickness), s)} high`, `${length(num(t.w), s)} × ${length(num(t.h), s)}`],
		count: { key: "left", said: "left", none: undefined },
		fields: [
			name,
			{ key: "kind", label: "Kind", is: "choice", of: ["square", "mini", "tape", "sheet", "board"] },
			{ key: "thickness", label: "Height", is: "thin", begin: 2, min: 0.1, max: 20 },
			{ key: "w", label: "One is wide", is: "length", begin: 12, min: 1, max: 1000 },
			{ key: "h", label: "One is long", is: "length", begin: 12, min: 1, max: 20000 },
			{ key: "left", label: "Left (empty: not counted)", is: "count" },
			where,
		],
	},
	adhesives: {
		kind: "adhesives",
		title: "Adhesives",
		one: "adhesive",
		things: (s) => s.kit.adhesives as unknown as Thing[],
		put: (t) => ok(api.PUT("/api/kit/adhesives/{id}", { params: path(t.id), body: t as unknown as S["Adhesive"] })),
		tell: (t, s) => [
			`${t.kind}`,
			`adds ${thin(num(t.thickness), s)}`,
			t.wiggle ? "time to move it" : "grabs at once",
			t.setMinutes ? `sets in ${t.setMinutes} min` : "",
			t.low ? "nearly empty" : "",
		],
		fields: [
			name,
			{ key: "kind", label: "Kind", is: "choice", of: ["liquid", "tape runner", "double-sided", "spray", "dots", "repositionable"] },
			{ key: "thickness", label: "Adds", is: "thin", begin: 0.02, min: 0, max: 2 },
			{ key: "setMinutes", label: "Sets in", is: "number", unit: "min", begin: 10, min: 0, max: 10000 },
			{ key: "wiggle", label: "Time to move", is: "tick" },
			{ key: "shows", label: "Shows through vellum", is: "tick", begin: true },
			{ key: "low", label: "Nearly empty", is: "tick" },
			where,
		],
		caution: "Solvents and sprays: air the room, no flame. The product's label goes first.",
	},
	envelopes: {
		kind: "envelopes",
		title: "Envelopes",
		one: "envelope",
		things: (s) => s.kit.envelopes as unknown as Thing[],
		put: (t) => ok(api.PUT("/api/kit/envelopes/{id}", { params: path(t.id), body: t as unknown as S["Envelope"] })),
		tell: (t, s) => [
			`${length(num(t.w), s)} × ${length(num(t.h), s)} inside${t.depth ? `, ${thin(num(t.depth), s)} high` : ""}`,
			`walls ${thin(num(t.caliper), s)}${t.padding ? `, padded ${thin(num(t.padding), s)}` : ""}${t.grams ? `, ${weight(num(t.grams), s)}` : ""}`,
		],
		count: { key: "left", said: "left", none: undefined },
		fields: [
			name,
			{ key: "w", label: "Inside width", is: "length", begin: 111.125, min: 20, max: 1000 },
			{ key: "h", label: "Inside height", is: "length", begin: 146.05, min: 20, max: 1000 },
			{ key: "caliper", label: "Wall", is: "thin", begin: 0.11, min: 0, max: 5 },
			{ key: "padding", label: "Padding on each wall", is: "thin", begin: 0, min: 0, max: 30 },
			{ key: "depth", label: "A box: high inside (0: none)", is: "length", begin: 0, min: 0, max: 200 },
			{ key: "grams", label: "Weighs (0: reckoned)", is: "number", unit: "g", begin: 0, min: 0, max: 2000 },
			{ key: "left", label: "Left (empty: not counted)", is: "count" },
			where,
		],
	},
	gems: {
		kind: "gems",
		title: "Gems",
		one: "sort of gem",
		things: (s) => s.kit.gems as unknown as Thing[],
		put: (t) => ok(api.PUT("/api/kit/gems/{id}", { params: path(t.id), body: t as unknown as S["Gem"] })),
		colour: (t) => String(t.colour),
		tell: (t, s) => [`${thin(num(t.size), s)} across, ${thin(num(t.height), s)} high`],
		count: { key: "left", said: "left", none: undefined },
		fields: [
			name,
			{ key: "colour", label: "Colour", is: "colour", begin: "#e8e2d4" },
			{ key: "size", label: "Across", is: "thin", begin: 4, min: 0.5, max: 30 },
			{ key: "height", label: "High", is: "thin", begin: 1.5, min: 0.1, max: 15 },
			{ key: "left", label: "Left (empty: not counted)", is: "count" },
			where,
		],
		caution: "Gems, pearls and sequins are small parts: not for children under three.",
	},
	machines: {
		kind: "machines",
		title: "Die machines",
		one: "machine",
		things: (s) => s.kit.machines as unknown as Thing[],
		put: (t) => ok(api.PUT("/api/kit/machines/{id}", { params: path(t.id), body: t as unknown as S["Machine"] })),
		tell: (t, s) => [`plate ${length(num(t.w), s)} × ${length(num(t.h), s)}`, `cuts ${thin(num(t.most), s)} in one run`, String(t.shim ?? "")],
		fields: [
			name,
			{ key: "w", label: "Plate, wide", is: "length", begin: 150, min: 30, max: 1000 },
			{ key: "h", label: "Plate, long", is: "length", begin: 320, min: 30, max: 1000 },
			{ key: "most", label: "Cuts in one run", is: "thin", begin: 0.6, min: 0.1, max: 10 },
			{ key: "shim", label: "Shims you lay under", is: "text" },
			where,
		],
		caution: "Rollers pinch: keep fingers, hair and sleeves clear. The machine's own label goes first.",
	},
};

/** A thing as a form says it is; what the form does not know of stays as it was. */
export function filled(k: KindOf, form: FormData, was: Partial<Thing> & { id: string }): Thing {
	const out: Record<string, unknown> = { ...was };
	for (const f of k.fields) {
		const said = form.get(f.key);
		const text = String(said ?? "").trim();
		switch (f.is) {
			case "length":
			case "thin":
			case "number":
				out[f.key] = Number(text);
				break;
			case "count":
				out[f.key] = text === "" ? undefined : Number(text);
				break;
			case "tick":
				out[f.key] = said === "on";
				break;
			default:
				out[f.key] = text === "" && f.key !== "name" ? undefined : text;
		}
	}
	return out as Thing;
}
