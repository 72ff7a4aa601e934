import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { S } from "../../api/client";
import { useCards, useData, useGuest, useKit, useScreens } from "../../api/queries";
import { Button } from "../../ui/button";
import { clock, useNow } from "../../ui/clock";
import { size } from "../../ui/sizes";
import { Skeleton } from "../../ui/skeleton";
import { Waiting } from "../../ui/waiting";
import { Begin } from "./begin";
import { NewCard } from "./new";
import { Tile } from "./tile";

/** How cards stand, in the order in which they want looking at. */
const standing: S["Tile"]["stands"][] = ["waiting", "begun", "planned", "finished", "put away"];

/** The bench: all cards, what is next on each. */
export function BenchPage() {
	const cards = useCards();
	const kit = useKit();
	const guest = useGuest();
	const asOwner = useScreens().data?.guest === false;
	const data = useData(asOwner);
	const [only, setOnly] = useState<{ stands?: S["Tile"]["stands"]; tag?: string }>({});
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
	const all = cards.data;
	const tags = [...new Set(all.flatMap((t) => t.lying.tags))].sort((a, b) => a.localeCompare(b));
	const shown = all.filter((t) => (only.stands ? t.stands === only.stands : t.stands !== "put away") && (!only.tag || t.lying.tags.includes(only.tag)));
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
			<UnderWay tiles={all} />
			{(tags.length > 0 || new Set(all.map((t) => t.stands)).size > 1) && (
				<Box role="group" aria-label="Which cards" className="which" display="flex" gap="4" flexWrap="wrap" mb="7">
					<Button aria-pressed={!only.stands} onClick={() => setOnly({ ...only, stands: undefined })}>
						On the bench, {all.filter((t) => t.stands !== "put away").length}
					</Button>
					{standing.map((k) => {
						const n = all.filter((t) => t.stands === k).length;
						return (
							n > 0 && (
								<Button key={k} aria-pressed={only.stands === k} onClick={() => setOnly({ ...only, stands: only.stands === k ? undefined : k })}>
									{k}, {n}
								</Button>
							)
						);
					})}
					{tags.length > 0 && <Box w="1px" bg="rule" mx="3" />}
					{tags.map((tag) => (
						<Button key={tag} aria-pressed={only.tag === tag} onClick={() => setOnly({ ...only, tag: only.tag === tag ? undefined : tag })}>
							{tag}
						</Button>
					))}
				</Box>
			)}
			<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(min(380px, 100%), 1fr))" gap="9">
				{shown.map((t) => (
					<Tile key={t.id} t={t} />
				))}
				{shown.length === 0 && all.length > 0 && <Box color="quiet">No card is so.</Box>}
				{!guest && <NewCard models={all.filter((t) => t.lying.model)} />}
			</Box>
		</Box>
	);
}

/** The runs under way with what they wait for, the soonest over first. */
function UnderWay({ tiles }: { tiles: S["Tile"][] }) {
	const waits = tiles.flatMap((t) => t.waits.map((w) => ({ t, w }))).sort((a, b) => a.w.until.localeCompare(b.w.until));
	const now = useNow(waits.length > 0);
	if (waits.length === 0) return null;
	return (
		<Box role="group" aria-label="Waits under way" display="flex" gap="4" flexWrap="wrap" mb="7">
			{waits.map(({ t, w }) => {
				const left = Date.parse(w.until) - now;
				return (
					<Link key={t.id + w.for} to={`/card/${t.id}/work`} className="wait-line">
						<b>{left > 0 ? clock(left) : "Over"}</b> {w.for}, {t.title}
					</Link>
				);
			})}
		</Box>
	);
}
