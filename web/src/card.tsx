import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { api, type Card, type Finding, type Motif, ok, type PlanMotif, type Problem, type State, useKit, type View, type Colourway } from "./api";

export type Saving = "saved" | "saving" | "failed";

/** Everything a station needs about the card in hand. */
export interface Bench {
	view: View;
	card: Card;
	state: State;
	saving: Saving;
	problem: Problem | null;
	motif?: Motif;
	look?: PlanMotif;
	colourway?: Colourway;
	layer: string;
	element: string;
	step: string;
	pick: (what: { motif?: string; colourway?: string; layer?: string; element?: string; step?: string }) => void;
	change: (f: (c: Card) => Card) => Promise<void>;
	replace: (call: (version: string) => Promise<View>) => Promise<void>;
	undo: () => void;
	redo: () => void;
	reload: () => void;
}

const Ctx = createContext<Bench | null>(null);

export function useBench(): Bench {
	const b = useContext(Ctx);
	if (!b) throw new Error("no card");
	return b;
}

export const etag = (v: View) => `"${v.version}"`;

export function CardProvider({ id, children, empty }: { id: string; children: ReactNode; empty: (what: "loading" | "failed", p?: Problem) => ReactNode }) {
	const queries = useQueryClient();
	const kit = useKit();
	const read = useQuery({ queryKey: ["card", id], queryFn: () => ok(api.GET("/api/cards/{id}", { params: { path: { id } } })) });
	const [saving, setSaving] = useState<Saving>("saved");
	const [problem, setProblem] = useState<Problem | null>(null);
	const [sel, setSel] = useState({ motif: "", colourway: "", layer: "", element: "", step: "" });
	// Changes go one after another, each on the version the one before made.
	const queue = useRef<Promise<unknown>>(Promise.resolve());
	const latest = useRef<View | undefined>(undefined);
	latest.current = read.data;

	const replace = useCallback(
		(call: (version: string) => Promise<View>) => {
			const run = queue.current.then(async () => {
				const now = queries.getQueryData<View>(["card", id]) ?? latest.current;
				if (!now) return;
				setSaving("saving");
				try {
					const next = await call(etag(now));
					queries.setQueryData(["card", id], next);
					setSaving("saved");
					setProblem(null);
				} catch (e) {
					setSaving("failed");
					setProblem(e as Problem);
				}
			});
			queue.current = run;
			return run;
		},
		[id, queries],
	);
	const change = useCallback(
		(f: (c: Card) => Card) =>
			replace((version) => {
				const now = queries.getQueryData<View>(["card", id]) as View;
				return ok(api.PUT("/api/cards/{id}", { params: { path: { id }, header: { "If-Match": version } }, body: f(structuredClone(now.card)) }));
			}),
		[id, queries, replace],
	);
	const undo = useCallback(
		() => void replace((v) => ok(api.POST("/api/cards/{id}/undo", { params: { path: { id }, header: { "If-Match": v } } }))),
		[id, replace],
	);
	const redo = useCallback(
		() => void replace((v) => ok(api.POST("/api/cards/{id}/redo", { params: { path: { id }, header: { "If-Match": v } } }))),
		[id, replace],
	);
	const reload = useCallback(() => {
		setProblem(null);
		setSaving("saved");
		queries.invalidateQueries({ queryKey: ["card", id] });
	}, [id, queries]);
	const pick = useCallback((w: Partial<typeof sel>) => setSel((s) => ({ ...s, ...w })), []);

	useEffect(() => {
		document.title = read.data ? `${read.data.card.title}, Ochrestone` : "Ochrestone";
	}, [read.data]);

	const value = useMemo<Bench | null>(() => {
		if (!read.data || !kit.data) return null;
		const { card, plan } = read.data;
		const motif = card.motifs.find((m) => m.id === sel.motif) ?? card.motifs[0];
		const look = plan.motifs.find((m) => m.id === motif?.id);
		const used = card.elements.find((e) => e.motif === motif?.id)?.colourway;
		const colourway = look?.colourways.find((w) => w.id === sel.colourway) ?? look?.colourways.find((w) => w.id === used) ?? look?.colourways[0];
		const layer = motif?.layers.some((l) => l.id === sel.layer) ? sel.layer : "";
		return {
			view: read.data,
			card,
			state: kit.data,
			saving,
			problem,
			motif,
			look,
			colourway,
			layer,
			element: sel.element,
			step: sel.step,
			pick,
			change,
			replace,
			undo,
			redo,
			reload,
		};
	}, [read.data, kit.data, sel, saving, problem, pick, change, replace, undo, redo, reload]);

	if (!value) {
		const err = read.error ?? kit.error;
		return <>{err ? empty("failed", err as Problem) : empty("loading")}</>;
	}
	return <Ctx.Provider value={value}>{children}</Ctx.Provider>;
}

/** Notes not set aside. */
export const openNotes = (fs: Finding[]) => fs.filter((f) => !f.aside);

/** Changes the finish of one layer in one colourway. */
export function withFinish(c: Card, motif: string, colourway: string, layer: string, f: Partial<Card["motifs"][0]["colourways"][0]["layers"][string]>): Card {
	const w = c.motifs.find((m) => m.id === motif)?.colourways.find((x) => x.id === colourway);
	if (w) w.layers[layer] = { ...w.layers[layer], ...f };
	return c;
}
