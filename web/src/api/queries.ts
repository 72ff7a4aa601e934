import { keepPreviousData, type QueryClient, queryOptions, useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, asked, ok, type S, type State } from "./client";

/** The names under which answers are kept: what begins alike is forgotten together. */
export const keys = {
	state: ["state"],
	cards: ["cards"],
	data: ["data"],
	log: ["log"],
	fitting: ["fitting"],
	placing: ["placing"],
	swatchSheets: ["swatch-sheets"],
	card: (id: string) => ["card", id],
} as const;

/** Asks anew for all that begins with a name. What was asked before is dropped first: an answer on its way would pass for a new one. */
export async function askAnew(q: QueryClient, queryKey?: readonly unknown[]) {
	await q.cancelQueries({ queryKey });
	await q.invalidateQueries({ queryKey });
}

/** Asks anew for all that begins with one of these names. */
export function useRefresh() {
	const q = useQueryClient();
	return (...names: ("state" | "card" | "cards" | "data" | "log" | "fitting" | "placing" | "swatch-sheets" | "entries" | "all")[]) =>
		Promise.all(names.map((k) => askAnew(q, k === "all" ? undefined : [k])));
}

/** The stores and the settings. */
const kitOf = queryOptions({ queryKey: keys.state, queryFn: () => ok(api.GET("/api/state")) });
export const useKit = () => useQuery(kitOf);

/** What is asked of the bench. */
export interface Asked {
	find?: string;
	stands?: S["Tile"]["stands"];
	tag?: string;
	sort?: "lying" | "name" | "newest" | "notes";
}

/** How many cards of the bench are asked for at a time. */
const some = 24;

/** While cards are worked out anew the bench is asked again: soon for what is looked at, now and then for the rest. */
const again = (shown: S["Tile"][], stale: number) => (shown.some((t) => t.stale) ? 500 : stale > 0 ? 5000 : false);

/** The bench, some cards at a time. */
export const useBenchCards = (asked: Asked) =>
	useInfiniteQuery({
		queryKey: [...keys.cards, "bench", asked],
		queryFn: ({ pageParam, signal }) => ok(api.GET("/api/bench", { params: { query: { ...asked, from: pageParam, n: some } }, signal })),
		initialPageParam: 0,
		getNextPageParam: (last, all) => {
			const had = all.reduce((n, b) => n + b.tiles.length, 0);
			return last.tiles.length > 0 && had < last.found ? had : undefined;
		},
		placeholderData: keepPreviousData,
		refetchOnMount: "always",
		refetchInterval: (q) => again(q.state.data?.pages.flatMap((b) => b.tiles) ?? [], q.state.data?.pages[0]?.stale ?? 0),
	});

/** A few cards that are found by words. */
export const useFoundCards = (find: string, n: number, on = true) =>
	useQuery({
		queryKey: [...keys.cards, "found", find, n],
		queryFn: ({ signal }) => ok(api.GET("/api/bench", { params: { query: { find, n } }, signal })),
		placeholderData: keepPreviousData,
		enabled: on,
	}).data;

/** How many cards there are, and the one begun last. */
export const useLastCard = () => {
	const b = useQuery({ queryKey: [...keys.cards, "last"], queryFn: () => ok(api.GET("/api/bench", { params: { query: { n: 1, sort: "newest" } } })) }).data;
	return b && { all: b.all, last: b.tiles[0]?.id ?? "" };
};

/** Which cards use which set. */
export const useUses = () => useQuery({ queryKey: ["cards", "uses"], queryFn: () => ok(api.GET("/api/sets/uses")) });

const cardOf = (id: string) => queryOptions({ queryKey: keys.card(id), queryFn: () => ok(api.GET("/api/cards/{id}", { params: { path: { id } } })) });

/** A card with its plan and its run. */
export const useCardView = (id: string) => useQuery({ ...cardOf(id), enabled: id !== "" });

/** Asks for the stores, and for a card where one is opened, before the page is drawn. */
export const early = (q: QueryClient, card?: string) => Promise.all([q.prefetchQuery(kitOf), card && q.prefetchQuery(cardOf(card))]);

/** How everything on the front stands, and what holds it. */
export const useStanding = (id: string, version: number) =>
	useQuery({
		queryKey: [...keys.card(id), "standing", version],
		queryFn: () => ok(api.GET("/api/cards/{id}/standing", { params: { path: { id } } })),
		placeholderData: keepPreviousData,
	}).data;

/** What to cut from which sheet. Where it takes long, what was told before stays. */
export const useCutting = (id: string, version: number) =>
	useQuery({
		queryKey: [...keys.card(id), "cutting", version],
		queryFn: ({ signal }) => ok(api.GET("/api/cards/{id}/cutting", { params: { path: { id } }, signal })),
		placeholderData: keepPreviousData,
	});

/** The work on a card and on all that is made with it, going on from what is done. */
export const useSitting = (id: string, version: number) =>
	useQuery({
		queryKey: [...keys.card(id), "sitting", version],
		queryFn: () => ok(api.GET("/api/cards/{id}/sitting", { params: { path: { id } } })),
		placeholderData: keepPreviousData,
	});

/** How the bench stands when a step begins. */
export const useBenchAt = (id: string, version: number, step: string) =>
	useQuery({
		queryKey: [...keys.card(id), "sitting", version, "state", step],
		queryFn: () => ok(api.GET("/api/cards/{id}/sitting/state", { params: { path: { id }, query: { step } } })),
		placeholderData: keepPreviousData,
	}).data;

/** The ways to hold a part as high as it is, or level with another element. */
export const useHeights = (id: string, version: number, query: { element: string; part?: string; with?: string }) =>
	useQuery({
		queryKey: [...keys.card(id), "heights", version, query],
		queryFn: () => ok(api.GET("/api/cards/{id}/heights", { params: { path: { id }, query } })),
		placeholderData: keepPreviousData,
	}).data;

/** An image of a card in one of its colourways. */
interface Of {
	id: string;
	version: number;
	motif: string;
	colourway: string;
}

/** How to place a layer, for a run. */
export const usePlacingOf = ({ id, version, motif, colourway }: Of, layer: string, run: number) =>
	useQuery({
		queryKey: [...keys.placing, id, version, motif, colourway, layer, run],
		enabled: motif !== "" && colourway !== "" && layer !== "",
		placeholderData: keepPreviousData,
		queryFn: () => ok(api.GET("/api/cards/{id}/placing", { params: { path: { id }, query: { motif, colourway, layer, run } } })),
	}).data;

/** What shows when a layer lies off its place. */
export const useHarmOf = ({ id, version, motif, colourway }: Of, layer: string, off: { x: number; y: number; t: number }, enabled: boolean) =>
	useQuery({
		queryKey: ["harm", id, version, motif, colourway, layer, off],
		enabled: enabled && layer !== "" && motif !== "" && colourway !== "",
		queryFn: () => ok(api.GET("/api/cards/{id}/harm", { params: { path: { id }, query: { motif, colourway, layer, x: off.x, y: off.y, turn: off.t } } })),
	}).data;

/** The marks to point at on a picture of a print. */
export const useMarks = ({ id, version, motif, colourway }: Of) =>
	useQuery({
		queryKey: ["marks", id, version, motif, colourway],
		queryFn: () => ok(api.GET("/api/cards/{id}/marks", { params: { path: { id }, query: { motif, colourway } } })),
	}).data;

/** A ring of turns and its jig. */
export const useRing = (unit: string, query: { turns: number; width: number; gap: number; inner: number; panel: number; kind: "plate" | "disc" }) =>
	useQuery({
		queryKey: ["ring", unit, query],
		placeholderData: keepPreviousData,
		queryFn: () => ok(api.GET("/api/ring", { params: { query } })),
	}).data;

export type LayoutKind = "ring" | "two rings" | "row" | "grid" | "frame" | "scatter" | "field" | "twin" | "middle" | "weight";

/** What an element lies over and beneath. */
export const useMeetings = (id: string, version: number, element: string) =>
	useQuery({
		queryKey: ["meetings", id, version, element],
		placeholderData: keepPreviousData,
		queryFn: () => ok(api.GET("/api/cards/{id}/meetings", { params: { path: { id }, query: { element } } })),
	}).data;

/** What the mend of a note would do; nothing until it was tried. */
export const useTried = (id: string, version: number, finding: string, wanted: boolean) =>
	useQuery({
		queryKey: ["mend", id, version, finding],
		enabled: wanted,
		retry: false,
		queryFn: () => ok(api.GET("/api/cards/{id}/mend", { params: { path: { id }, query: { finding } } })),
	}).data;

/** The seats of a sheet, and what fits into them. */
export const useSeats = (id: string, version: number, element: string) =>
	useQuery({
		queryKey: ["seats", id, version, element],
		placeholderData: keepPreviousData,
		queryFn: () => ok(api.GET("/api/cards/{id}/seats", { params: { path: { id }, query: { element } } })),
	}).data;

/** Where an element may be drawn to while it is moved. */
export const useSnaps = (id: string, version: number, element: string) =>
	useQuery({
		queryKey: ["snaps", id, version, element],
		enabled: element !== "",
		retry: false,
		queryFn: () => ok(api.GET("/api/cards/{id}/snaps", { params: { path: { id }, query: { element } } })),
	}).data;

/** How several of an element would be laid, and how many it takes. */
export const useLayout = (
	id: string,
	version: number,
	unit: string,
	query: {
		element: string;
		kind: LayoutKind;
		n: number;
		rows: number;
		radius: number;
		gap: number;
		inside: number;
		with: string[];
		keep: string;
		seed: number;
		alternate: boolean;
	},
) =>
	useQuery({
		queryKey: ["layout", id, version, unit, query],
		placeholderData: keepPreviousData,
		retry: false,
		queryFn: () => ok(api.GET("/api/cards/{id}/layout", { params: { path: { id }, query } })),
	});

/** What the eye forgives, for all layers, and where the hinge lies. */
export const useFitting = () => useQuery({ queryKey: keys.fitting, queryFn: () => ok(api.GET("/api/fitting")) }).data;

/** What was measured so far. */
export const useLog = () => useQuery({ queryKey: keys.log, queryFn: () => ok(api.GET("/api/log")) }).data;

/** What was made of a card, the latest first; all under one name, so that they are asked for anew together. */
export const entriesKey = (id: string) => ["entries", id];
export const useEntries = (id: string, run: S["Run"]) =>
	useQuery({
		queryKey: [...entriesKey(id), "all", told(run)],
		placeholderData: keepPreviousData,
		refetchOnMount: "always",
		queryFn: () => ok(api.GET("/api/cards/{id}/entries", { params: { path: { id } } })),
	});

/** The log of all cards, the latest first. */
export const useAllEntries = () => useQuery({ queryKey: ["entries", "of all"], refetchOnMount: "always", queryFn: () => ok(api.GET("/api/entries")) }).data;

/** What to buy for the cards on the bench. */
export const useShopping = () =>
	useQuery({
		queryKey: ["cards", "shopping"],
		refetchOnMount: "always",
		refetchInterval: (q) => (q.state.data?.stale ? 2000 : false),
		queryFn: () => ok(api.GET("/api/shopping")),
	});

/** What of a run under way changes its entry in the log: what is asked for while a tick is on its way is asked for again when it has come. */
const told = (r: S["Run"]) => [r.id, r.done.length, r.left.length, r.used.length].join();

/** A run as it went, beside what was planned, and what was changed of the card since. */
export const useAccount = (id: string, entry: number | undefined, version: number, run: S["Run"]) =>
	useQuery({
		queryKey: [...entriesKey(id), entry, version, told(run)],
		refetchOnMount: "always",
		enabled: !!entry,
		placeholderData: keepPreviousData,
		queryFn: () => ok(api.GET("/api/cards/{id}/entries/{run}", { params: { path: { id, run: entry ?? 0 } } })),
	});

/** What the hand and the drawer have learned, over time. */
export const useLearned = () => useQuery({ queryKey: ["entries", "learned"], refetchOnMount: "always", queryFn: () => ok(api.GET("/api/learned")) }).data;

/** Everything the program looks for. */
export const useRules = () => useQuery({ queryKey: ["rules"], queryFn: () => ok(api.GET("/api/rules")) }).data;

/** The data file. */
/** Other screens that were let in, and whether this is one. */
export const screensKey = ["screens"];
export const useScreens = (every?: number) =>
	useQuery({ queryKey: screensKey, staleTime: every ?? Number.POSITIVE_INFINITY, refetchInterval: every, queryFn: () => ok(api.GET("/api/screens")) });

/** Whether this is another screen, which ticks steps and writes the log. */
export const useGuest = () => useScreens().data?.guest ?? false;

/** What of a card another screen may have changed, asked for while there is one. */
export const useCardNow = (id: string) => {
	const s = useScreens().data;
	return useQuery({
		queryKey: ["now", id],
		enabled: !!s?.on,
		refetchInterval: 3000,
		staleTime: 0,
		queryFn: () => ok(api.GET("/api/cards/{id}/now", { params: { path: { id } } })),
	}).data;
};

/** Which program this is. */
export const useAbout = () => useQuery({ queryKey: ["about"], staleTime: Number.POSITIVE_INFINITY, queryFn: () => ok(api.GET("/api/about")) });

export const useData = (asked = true) => useQuery({ queryKey: keys.data, enabled: asked, queryFn: () => ok(api.GET("/api/data")) });

/** The drawer of inks, measured. */
export const useDrawer = () => useQuery({ queryKey: [...keys.state, "drawer"], queryFn: () => ok(api.GET("/api/drawer")) });

/** The swatch sheets laid out. */
export const useSwatchSheets = () => useQuery({ queryKey: keys.swatchSheets, queryFn: () => ok(api.GET("/api/swatches/sheets")) });

/** What the simulated device of the demo can take pictures of. */
export const useDeviceSets = (there = true) =>
	useQuery({ queryKey: ["device"], enabled: there, queryFn: () => asked<{ id: string; name: string; kind: string }[]>("/api/device/sets") });

/** Scanners that were measured. */
export const scannersKey = ["scanners"];
export const useScanners = () => useQuery({ queryKey: scannersKey, queryFn: () => ok(api.GET("/api/scanners")) });

/** The person's unit; inches until it is known. */
export const useSettings = (): State["settings"] => useKit().data?.settings ?? { unit: "in", den: 16 };
