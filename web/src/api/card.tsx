import { useQueryClient } from "@tanstack/react-query";
import { type Context, createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { applied } from "./changes";
import { type Act, api, type Card, type Changed, type Edit, type Finding, type Finish, ok, Problem, type S, type State, type Step, type View } from "./client";
import { dropTick, type KeptTick, keepTick, keptTicks } from "./kept";
import { askAnew, keys, useCardNow, useCardView, useKit } from "./queries";
import { type Selection, SelectionProvider, useSelection } from "./selection";

/** What has become of the changes: kept, on their way, waiting for the program to answer, refused. */
export type Saving = "saved" | "saving" | "waiting" | "failed";

/** The card in hand, its plan, the stores, and how they are changed. */
export interface Document {
	view: View;
	card: Card;
	state: State;
	/** Makes changes, at once in the picture; those of one gesture are one step to undo. */
	edit: (edits: Edit | Edit[], gesture?: string) => Promise<void>;
	/** Whether a step of the work is done. */
	done: (a: Act) => boolean;
	tick: (a: Act, on: boolean) => void;
	use: (step: Step, ink: string) => void;
	/** Notes on how many of the cards a step is done. */
	count: (a: Act, n: number) => void;
	/** Notes that a step is left out. */
	leave: (a: Act) => void;
	/** Begins the wait of a step; with no minutes it is stopped. */
	wait: (step: Step, minutes: number) => void;
	/** Ends the run under way, to begin another. */
	another: () => void;
	/** Lets the run under way go on with the cards as they are now. */
	renew: () => void;
	undo: () => void;
	redo: () => void;
}

/** What has become of the changes, and what went wrong. */
export interface Keeping {
	saving: Saving;
	/** How many gestures are not answered yet. */
	waiting: number;
	problem: Problem | null;
	reload: () => void;
}

const Ctx = createContext<Document | null>(null);
const KeepingCtx = createContext<Keeping | null>(null);

const held = <T,>(c: Context<T | null>) => {
	const v = useContext(c);
	if (!v) throw new Error("no card");
	return v;
};

/** The document alone: what asks for it is drawn again when the card or its plan changes. */
export const useDocument = () => held(Ctx);

/** How the changes fare. */
export const useKeeping = () => held(KeepingCtx);

/** Everything a station needs about the card in hand: the document and what is selected. */
export const useBench = (): Document & Selection => ({ ...useDocument(), ...useSelection() });
export type Bench = Document & Selection;

export const etag = (v: View) => `"${v.version}"`;

/** The view with what a change made of it. */
function merged(v: View, c: Changed): View {
	return { ...v, version: c.version, canUndo: c.canUndo, canRedo: c.canRedo, ...applied({ card: v.card, plan: v.plan }, c.changes) };
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

/** Something to send, and what its answer makes of the view. */
interface Batch {
	edits: Edit[];
	gesture?: string;
	/** Steps ticked, by their keys. */
	ticks?: Record<string, boolean>;
	send: (now: View) => Promise<(v: View) => View>;
	settle: (() => void)[];
	/** What else goes when it is refused. */
	refused?: () => void;
	/** It went out once: it may have been made though no answer came, so nothing is added to it. */
	sent?: boolean;
}

/** What is made and not answered yet. */
interface Waiting {
	edits: Edit[];
	ticks: Record<string, boolean>;
	batches: number;
}

const none: Waiting = { edits: [], ticks: {}, batches: 0 };

/** How long what was not answered waits before it is sent again, ms. */
const again = 2000;

export function CardProvider({ id, children, empty }: { id: string; children: ReactNode; empty: (what: "loading" | "failed", p?: Problem) => ReactNode }) {
	const queries = useQueryClient();
	const kit = useKit();
	const read = useCardView(id);
	const [saving, setSaving] = useState<Saving>("saved");
	const [problem, setProblem] = useState<Problem | null>(null);
	// Edits that were made and are not answered yet, for the picture.
	const [waiting, setWaiting] = useState(none);
	const batches = useRef<Batch[]>([]);
	const busy = useRef(false);
	const later = useRef<ReturnType<typeof setTimeout>>(undefined);
	const count = useCallback(() => {
		const all = batches.current;
		setWaiting(all.length === 0 ? none : { edits: all.flatMap((b) => b.edits), ticks: Object.assign({}, ...all.map((b) => b.ticks)), batches: all.length });
	}, []);

	/** Sends what is waiting, one batch after another, each on the version the one before made. */
	const send = useCallback(async () => {
		if (busy.current) return;
		busy.current = true;
		clearTimeout(later.current);
		setSaving((s) => (s === "waiting" ? s : "saving"));
		try {
			let refused: Problem | undefined;
			for (let batch = batches.current[0]; batch; batch = batches.current[0]) {
				const now = queries.getQueryData<View>(keys.card(id));
				if (!now) break;
				batch.sent = true;
				let made = (v: View) => v;
				try {
					made = await batch.send(now);
				} catch (e) {
					const p = e as Problem;
					if (p.type === "offline") throw p;
					// Nothing to undo is no failure.
					if (!p.type.endsWith("nothing")) refused = p;
					// What was refused goes alone: what was done after it is sent all the same. Only
					// changes made on a card that is not there as it was shown go with it.
					batch.refused?.();
					if (p.type.endsWith("changed")) {
						const gone = batches.current.slice(1).filter((b) => b.edits.length > 0);
						for (const b of gone) for (const f of b.settle) f();
						batches.current = batches.current.filter((b) => !gone.includes(b));
					}
				}
				queries.setQueryData<View>(keys.card(id), (v) => made(v ?? now));
				batches.current.shift();
				count();
				for (const f of batch.settle) f();
			}
			setSaving(refused ? "failed" : "saved");
			if (refused) setProblem(refused);
		} catch (e) {
			// Nothing is lost: what was done stays in the picture and is sent when the program answers.
			if ((e as Problem).type !== "offline") setProblem(e as Problem);
			setSaving("waiting");
			later.current = setTimeout(() => send(), again);
		} finally {
			busy.current = false;
		}
	}, [id, queries, count]);
	useEffect(() => () => clearTimeout(later.current), []);
	// What another screen ticked or changed comes in while nothing of this one is on its way.
	const now = useCardNow(id);
	useEffect(() => {
		const v = queries.getQueryData<View>(keys.card(id));
		if (!now || !v || batches.current.length > 0) return;
		if (now.version !== v.version) askAnew(queries, keys.card(id));
		else if (JSON.stringify(now.run) !== JSON.stringify(v.run)) queries.setQueryData<View>(keys.card(id), { ...v, run: now.run });
	}, [now, id, queries]);
	// Leaving the page while changes wait would lose them: the browser asks first. What is on
	// its way is sent to its end.
	useEffect(() => {
		if (saving !== "waiting") return;
		const stay = (e: BeforeUnloadEvent) => e.preventDefault();
		window.addEventListener("beforeunload", stay);
		return () => window.removeEventListener("beforeunload", stay);
	}, [saving]);
	const queue = useCallback(
		(b: Batch) => {
			batches.current.push(b);
			count();
			send();
		},
		[count, send],
	);
	/** What an answer to a change makes of the view, and of the words about it. */
	const changed = useCallback((got: Changed) => {
		setProblem(got.notes.length > 0 ? new Problem("note", got.notes.join(" ")) : null);
		return (v: View) => merged(v, got);
	}, []);
	const edit = useCallback(
		(edits: Edit | Edit[], gesture?: string) =>
			new Promise<void>((settle) => {
				const list = Array.isArray(edits) ? edits : [edits];
				// One that has not gone out yet takes more of the same gesture in.
				const last = batches.current.at(-1);
				if (last && gesture && last.gesture === gesture && !last.sent) {
					last.edits.push(...list);
					last.settle.push(settle);
					count();
					send();
					return;
				}
				const name = `${Date.now()} ${Math.random()}`;
				const batch: Batch = {
					edits: [...list],
					gesture,
					settle: [settle],
					send: async (now) =>
						changed(
							await ok(
								api.POST("/api/cards/{id}/edits", {
									params: { path: { id }, header: { "If-Match": etag(now) } },
									body: { edits: batch.edits, gesture, batch: name },
									keepalive: true,
								}),
							),
						),
				};
				queue(batch);
			}),
		[id, count, send, queue, changed],
	);
	const step = useCallback(
		(path: "/api/cards/{id}/undo" | "/api/cards/{id}/redo") => {
			// With nothing to go back to, and nothing on its way, there is nothing to ask.
			const v = queries.getQueryData<View>(keys.card(id));
			if (batches.current.length === 0 && v && !(path.endsWith("undo") ? v.canUndo : v.canRedo)) return;
			queue({
				edits: [],
				settle: [],
				send: async (now) => changed(await ok(api.POST(path, { params: { path: { id }, header: { "If-Match": etag(now) } } }))),
			});
		},
		[id, queries, queue, changed],
	);
	const undo = useCallback(() => step("/api/cards/{id}/undo"), [step]);
	const redo = useCallback(() => step("/api/cards/{id}/redo"), [step]);
	const run = useCallback(
		(call: () => Promise<S["Run"]>, ticks?: Record<string, boolean>, answered?: () => void) =>
			queue({
				edits: [],
				ticks,
				settle: [],
				refused: answered,
				send: async () => {
					const got = await call();
					answered?.();
					askAnew(queries, [...keys.card(id), "sitting"]);
					return (v) => ({ ...v, run: got });
				},
			}),
		[queue, queries, id],
	);
	const sendTick = useCallback(
		(t: KeptTick) =>
			run(
				() => ok(api.POST("/api/cards/{id}/run/done", { params: { path: { id } }, body: { steps: [t.step], done: t.on } })),
				{ [stepKey(t.step)]: t.on },
				() => dropTick(id, t),
			),
		[id, run],
	);
	const tick = useCallback(
		(a: Act, on: boolean) => {
			const t = { run: queries.getQueryData<View>(keys.card(id))?.run.id ?? 0, step: a.id, on, at: Date.now() };
			keepTick(id, t);
			sendTick(t);
		},
		[id, queries, sendTick],
	);
	// Ticks that waited when the page was shut are sent now, if their run still goes on.
	const known = read.data?.run.id;
	const resent = useRef(false);
	useEffect(() => {
		if (known === undefined || resent.current) return;
		resent.current = true;
		for (const t of keptTicks(id)) {
			if (t.run === known || t.run === 0) sendTick(t);
			else dropTick(id, t);
		}
	}, [known, id, sendTick]);
	const use = useCallback(
		(st: Step, ink: string) => run(() => ok(api.POST("/api/cards/{id}/run/used", { params: { path: { id } }, body: { step: st, ink } }))),
		[id, run],
	);
	const onCard = useMemo(() => ({ params: { path: { id } } }), [id]);
	const counted = useCallback(
		(a: Act, n: number) => run(() => ok(api.POST("/api/cards/{id}/run/count", { ...onCard, body: { step: a.id, n } }))),
		[onCard, run],
	);
	const leave = useCallback(
		(a: Act) => run(() => ok(api.POST("/api/cards/{id}/run/left", { ...onCard, body: a.id })), { [stepKey(a.id)]: true }),
		[onCard, run],
	);
	const wait = useCallback(
		(st: Step, minutes: number) => run(() => ok(api.POST("/api/cards/{id}/run/timers", { ...onCard, body: { step: st, minutes } }))),
		[onCard, run],
	);
	const another = useCallback(() => run(() => ok(api.POST("/api/cards/{id}/run/another", onCard))), [onCard, run]);
	const renew = useCallback(() => run(() => ok(api.POST("/api/cards/{id}/run/renew", onCard))), [onCard, run]);
	const reload = useCallback(() => {
		setProblem(null);
		setSaving("saved");
		queries.invalidateQueries({ queryKey: keys.card(id) });
	}, [id, queries]);

	useEffect(() => {
		document.title = read.data ? `${read.data.card.title}, Ochrestone` : "Ochrestone";
	}, [read.data]);

	const value = useMemo<Document | null>(() => {
		if (!read.data || !kit.data) return null;
		const ticked = new Set(read.data.run.done.map(stepKey));
		const card = moved(read.data.card, waiting.edits);
		const done = (a: Act) => waiting.ticks[stepKey(a.id)] ?? ticked.has(stepKey(a.id));
		return { view: read.data, card, state: kit.data, edit, done, tick, use, count: counted, leave, wait, another, renew, undo, redo };
	}, [read.data, kit.data, waiting, edit, tick, use, counted, leave, wait, another, renew, undo, redo]);
	const keeping = useMemo<Keeping>(() => ({ saving, waiting: waiting.batches, problem, reload }), [saving, problem, reload, waiting.batches]);

	if (!value) {
		const err = read.error ?? kit.error;
		return <>{err ? empty("failed", err as Problem) : empty("loading")}</>;
	}
	return (
		<KeepingCtx.Provider value={keeping}>
			<Ctx.Provider value={value}>
				<SelectionProvider card={value.card} plan={value.view.plan}>
					{children}
				</SelectionProvider>
			</Ctx.Provider>
		</KeepingCtx.Provider>
	);
}

/** Notes not set aside. */
export const openNotes = (fs: Finding[]) => fs.filter((f) => !f.aside);

/** The edit that changes the finish of one layer in one colourway. */
export function withFinish(b: Bench, f: Partial<Finish>, layer = b.layer): Edit {
	const [motif, colourway] = [b.motif?.id ?? "", b.colourway?.id ?? ""];
	const now = b.motif?.colourways.find((w) => w.id === colourway)?.layers[layer] ?? {};
	return { finish: { motif, colourway, layers: { [layer]: { ...now, ...f } } } };
}

export const stepKey = (s: Step) =>
	JSON.stringify([s.verb, s.element ?? "", s.motif ?? "", s.colourway ?? "", s.part ?? "", s.n ?? 0, s.card ?? "", s.lot ?? ""]);
