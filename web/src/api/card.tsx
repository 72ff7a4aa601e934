import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import {
	type Act,
	api,
	type Card,
	type Changed,
	type Colourway,
	type Edit,
	type Finding,
	type Finish,
	type Motif,
	ok,
	type PlanMotif,
	Problem,
	type S,
	type State,
	type Step,
	useKit,
	type View,
} from "./client";

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
	/** Makes changes, at once in the picture; those of one gesture are one step to undo. */
	edit: (edits: Edit | Edit[], gesture?: string) => Promise<void>;
	/** Whether a step of the work is done. */
	done: (a: Act) => boolean;
	tick: (a: Act, on: boolean) => void;
	use: (step: Step, ink: string) => void;
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

/** The view with what a change made of it. */
function merged(v: View, c: Changed): View {
	const p = v.plan;
	return {
		...v,
		version: c.version,
		canUndo: c.canUndo,
		canRedo: c.canRedo,
		card: c.card,
		plan: {
			...p,
			motifs: c.images.map((id) => c.motifs.find((m) => m.id === id) ?? p.motifs.find((m) => m.id === id)).filter((m) => m !== undefined),
			front: c.front ?? p.front,
			depth: c.depth ?? p.depth,
			patterns: c.parts.includes("patterns") ? (c.patterns ?? []) : p.patterns,
			steps: c.parts.includes("steps") ? (c.steps ?? []) : p.steps,
			findings: c.parts.includes("findings") ? (c.findings ?? []) : p.findings,
		},
	};
}

/** The card with the places that moves on their way will give: what is drawn waits for no answer. */
function moved(card: Card, edits: Edit[]): Card {
	const to = new Map(card.elements.map((e) => [e.id, e.place]));
	let any = false;
	for (const { move: m, put: p } of edits) {
		const at = to.get(m?.element ?? p?.element ?? "");
		if (!at) continue;
		any = true;
		if (m) to.set(m.element, { ...at, x: at.x + (m.dx ?? 0), y: at.y + (m.dy ?? 0), turn: at.turn + (m.turn ?? 0) });
		if (p) to.set(p.element, { ...at, x: p.x ?? at.x, y: p.y ?? at.y, turn: p.turn ?? at.turn });
	}
	return any ? { ...card, elements: card.elements.map((e) => ({ ...e, place: to.get(e.id) ?? e.place })) } : card;
}

/** Something to send: edits of one gesture, or a step back or forth. */
interface Batch {
	edits: Edit[];
	gesture?: string;
	step?: "/api/cards/{id}/undo" | "/api/cards/{id}/redo";
	settle: (() => void)[];
}

export function CardProvider({ id, children, empty }: { id: string; children: ReactNode; empty: (what: "loading" | "failed", p?: Problem) => ReactNode }) {
	const queries = useQueryClient();
	const kit = useKit();
	const read = useQuery({ queryKey: ["card", id], queryFn: () => ok(api.GET("/api/cards/{id}", { params: { path: { id } } })) });
	const [saving, setSaving] = useState<Saving>("saved");
	const [problem, setProblem] = useState<Problem | null>(null);
	const [sel, setSel] = useState({ motif: "", colourway: "", layer: "", element: "", step: "" });
	// Edits that were made and are not answered yet, for the picture.
	const [waiting, setWaiting] = useState<Edit[]>([]);
	const batches = useRef<Batch[]>([]);
	const busy = useRef(false);

	/** Sends what is waiting, one batch after another, each on the version the one before made. */
	const send = useCallback(async () => {
		if (busy.current) return;
		busy.current = true;
		setSaving("saving");
		try {
			for (let batch = batches.current[0]; batch; batch = batches.current[0]) {
				const now = queries.getQueryData<View>(["card", id]);
				if (!now) break;
				const params = { path: { id }, header: { "If-Match": etag(now) } };
				const got = await ok(
					batch.step ? api.POST(batch.step, { params }) : api.POST("/api/cards/{id}/edits", { params, body: { edits: batch.edits, gesture: batch.gesture } }),
				);
				queries.setQueryData<View>(["card", id], merged(queries.getQueryData<View>(["card", id]) ?? now, got));
				batches.current.shift();
				setWaiting(batches.current.flatMap((b) => b.edits));
				for (const f of batch.settle) f();
				setProblem(got.notes.length > 0 ? new Problem("note", got.notes.join(" ")) : null);
			}
			setSaving("saved");
		} catch (e) {
			setSaving("failed");
			setProblem(e as Problem);
			for (const b of batches.current) for (const f of b.settle) f();
			batches.current = [];
			setWaiting([]);
		} finally {
			busy.current = false;
		}
	}, [id, queries]);
	const edit = useCallback(
		(edits: Edit | Edit[], gesture?: string) =>
			new Promise<void>((settle) => {
				const list = Array.isArray(edits) ? edits : [edits];
				// The first batch is on its way; a later one of the same gesture takes more in.
				const last = batches.current.at(-1);
				if (last && gesture && last.gesture === gesture && (batches.current.length > 1 || !busy.current)) {
					last.edits.push(...list);
					last.settle.push(settle);
				} else batches.current.push({ edits: [...list], gesture, settle: [settle] });
				setWaiting(batches.current.flatMap((b) => b.edits));
				send();
			}),
		[send],
	);
	const step = useCallback(
		(path: Batch["step"]) => {
			batches.current.push({ edits: [], step: path, settle: [] });
			send();
		},
		[send],
	);
	const undo = useCallback(() => step("/api/cards/{id}/undo"), [step]);
	const redo = useCallback(() => step("/api/cards/{id}/redo"), [step]);
	const run = useCallback(
		async (call: Promise<S["Run"]>) => {
			try {
				const got = await call;
				const now = queries.getQueryData<View>(["card", id]);
				if (now) queries.setQueryData<View>(["card", id], { ...now, run: got });
			} catch (e) {
				setSaving("failed");
				setProblem(e as Problem);
			}
		},
		[id, queries],
	);
	const tick = useCallback(
		(a: Act, on: boolean) => void run(ok(api.POST("/api/cards/{id}/run/done", { params: { path: { id } }, body: { steps: [a.id], done: on } }))),
		[id, run],
	);
	const use = useCallback(
		(st: Step, ink: string) => void run(ok(api.POST("/api/cards/{id}/run/used", { params: { path: { id } }, body: { step: st, ink } }))),
		[id, run],
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
		const { plan, run } = read.data;
		const card = moved(read.data.card, waiting);
		const ticked = new Set(run.done.map(stepKey));
		const motif = card.motifs.find((m) => m.id === sel.motif) ?? card.motifs[0];
		const look = plan.motifs.find((m) => m.id === motif?.id);
		const used = card.elements.find((e) => e.image?.motif === motif?.id)?.image?.colourway;
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
			edit,
			done: (a) => ticked.has(stepKey(a.id)),
			tick,
			use,
			undo,
			redo,
			reload,
		};
	}, [read.data, kit.data, sel, saving, problem, waiting, pick, edit, tick, use, undo, redo, reload]);

	if (!value) {
		const err = read.error ?? kit.error;
		return <>{err ? empty("failed", err as Problem) : empty("loading")}</>;
	}
	return <Ctx.Provider value={value}>{children}</Ctx.Provider>;
}

/** Notes not set aside. */
export const openNotes = (fs: Finding[]) => fs.filter((f) => !f.aside);

/** The edit that changes the finish of one layer in one colourway. */
export function withFinish(b: Bench, f: Partial<Finish>, layer = b.layer): Edit {
	const [motif, colourway] = [b.motif?.id ?? "", b.colourway?.id ?? ""];
	const now = b.motif?.colourways.find((w) => w.id === colourway)?.layers[layer] ?? {};
	return { finish: { motif, colourway, layers: { [layer]: { ...now, ...f } } } };
}

const stepKey = (s: Step) => JSON.stringify([s.verb, s.element ?? "", s.motif ?? "", s.colourway ?? "", s.part ?? "", s.n ?? 0]);
