import { Box } from "@chakra-ui/react";
import { useCallback, useRef, useState } from "react";
import { Link } from "react-router";
import type { S } from "../../api/client";
import { type Asked, useBenchCards, useData, useGuest, useKit, useScreens } from "../../api/queries";
import { Button } from "../../ui/button";
import { clock, useNow } from "../../ui/clock";
import { TextField } from "../../ui/field";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { Skeleton } from "../../ui/skeleton";
import { Waiting } from "../../ui/waiting";
import { Begin } from "./begin";
import { NewCard } from "./new";
import { Tile } from "./tile";

/** How cards stand, in the order in which they want looking at. */
const standing: S["Tile"]["stands"][] = ["waiting", "begun", "planned", "finished", "put away"];

const sorts: [NonNullable<Asked["sort"]>, string][] = [
	["lying", "as they lie"],
	["newest", "newest first"],
	["name", "by name"],
	["notes", "what would be spoilt first"],
];

/** From how many cards on they are found by words and sorted. */
const many = 8;

/** The bench: cards, what is next on each; more of them as one scrolls. */
export function BenchPage() {
	const [only, setOnly] = useState<Asked>({});
	const cards = useBenchCards(only);
	const kit = useKit();
	const guest = useGuest();
	const asOwner = useScreens().data?.guest === false;
	const data = useData(asOwner);
	const foot = useFoot(() => cards.hasNextPage && !cards.isFetchingNextPage && cards.fetchNextPage());
	if (cards.error || kit.error) return <Waiting>{(cards.error ?? kit.error)?.message}</Waiting>;
	if (!cards.data || !kit.data)
		return (
			<Box maxW="1240px" mx="auto" role="status" aria-label="Clearing the bench">
				<h1 style={{ fontSize: size.place }}>The bench</h1>
				<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(min(380px, 100%), 1fr))" gap="9" mt="8">
					{[1, 2, 3].map((n) => (
						<Skeleton key={n} w="100%" h="262px" />
					))}
				</Box>
			</Box>
		);
	const bench = cards.data.pages[0];
	const shown = cards.data.pages.flatMap((b) => b.tiles);
	const stands = standing.filter((k) => (bench.stands[k] ?? 0) > 0);
	const apart = data.data?.apart.length ?? 0;
	const bare = kit.data.kit.papers.length === 0 || kit.data.kit.inks.length === 0 || kit.data.kit.sets.length === 0;
	return (
		<Box maxW="1240px" mx="auto">
			<h1 style={{ fontSize: size.place }}>The bench</h1>
			<Box color="quiet" mb="7">
				Cards in hand, and what is next on each.
			</Box>
			{apart > 0 && (
				<Box role="status" bg="sheet" border="1px solid {colors.madder}" py="5" px="8" mb="7">
					{apart === 1 ? "One thing in the data file cannot be read and is set apart" : `${apart} things in the data file cannot be read and are set apart`}:
					all the rest works. <Link to="/stores/data">Look at your data</Link>
				</Box>
			)}
			{bare && !guest && <Begin shelf={kit.data.kit.papers.length === 0} />}
			<UnderWay waits={bench.waits} />
			{(bench.tags.length > 0 || stands.length > 1) && (
				<Box role="group" aria-label="Which cards" className="which" display="flex" gap="4" flexWrap="wrap" mb="7">
					<Button aria-pressed={!only.stands} onClick={() => setOnly({ ...only, stands: undefined })}>
						On the bench, {bench.all - (bench.stands["put away"] ?? 0)}
					</Button>
					{stands.map((k) => (
						<Button key={k} aria-pressed={only.stands === k} onClick={() => setOnly({ ...only, stands: only.stands === k ? undefined : k })}>
							{k}, {bench.stands[k]}
						</Button>
					))}
					{bench.tags.length > 0 && <Box w="1px" bg="rule" mx="3" />}
					{bench.tags.map((tag) => (
						<Button key={tag} aria-pressed={only.tag === tag} onClick={() => setOnly({ ...only, tag: only.tag === tag ? undefined : tag })}>
							{tag}
						</Button>
					))}
				</Box>
			)}
			{bench.all > many && (
				<Box role="search" display="flex" gap="7" flexWrap="wrap" alignItems="flex-end" mb="7">
					<TextField
						label="Find by name, words on it, or what it is made of"
						value={only.find ?? ""}
						maxLength={120}
						autoComplete="off"
						width="320px"
						onChange={(e) => setOnly({ ...only, find: e.target.value || undefined })}
					/>
					<Select label="In order" value={only.sort ?? "lying"} onChange={(v) => setOnly({ ...only, sort: v as Asked["sort"] })}>
						{sorts.map(([id, name]) => (
							<option key={id} value={id}>
								{name}
							</option>
						))}
					</Select>
					<Box role="status" color="quiet" fontSize="small" pb="3">
						{bench.found === 1 ? "One card" : `${bench.found} cards`}
						{bench.stale > 0 && `; ${bench.stale} being worked out anew`}
					</Box>
				</Box>
			)}
			<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(min(380px, 100%), 1fr))" gap="9">
				{!guest && bench.all > many && <NewCard models={bench.models} />}
				{shown.map((t) => (
					<Tile key={t.id} t={t} />
				))}
				{shown.length === 0 && bench.all > 0 && <Box color="quiet">No card is so.</Box>}
				{!guest && bench.all <= many && <NewCard models={bench.models} />}
			</Box>
			<div ref={foot} style={{ height: 1 }} />
			{cards.isFetchingNextPage && <Box color="quiet">More cards…</Box>}
		</Box>
	);
}

/** Does something whenever the foot of a list is nearly seen. */
function useFoot(more: () => void) {
	const now = useRef(more);
	now.current = more;
	return useCallback((foot: HTMLDivElement | null) => {
		if (!foot) return;
		const seen = new IntersectionObserver((all) => all.some((e) => e.isIntersecting) && now.current(), { rootMargin: "600px" });
		seen.observe(foot);
		return () => seen.disconnect();
	}, []);
}

/** The runs under way with what they wait for, the soonest over first. */
function UnderWay({ waits }: { waits: S["BenchWait"][] }) {
	const now = useNow(waits.length > 0);
	if (waits.length === 0) return null;
	return (
		<Box role="group" aria-label="Waits under way" display="flex" gap="4" flexWrap="wrap" mb="7">
			{waits.map((w) => {
				const left = Date.parse(w.until) - now;
				return (
					<Link key={w.id + w.for} to={`/card/${w.id}/work`} className="wait-line">
						<b>{left > 0 ? clock(left) : "Over"}</b> {w.for}, {w.title}
					</Link>
				);
			})}
		</Box>
	);
}
