import { Box } from "@chakra-ui/react";
import { useSyncExternalStore } from "react";
import { Link, useLocation } from "react-router";
import { type Document, openNotes } from "../api/card";
import type { S, View } from "../api/client";
import { useCardView, useGuest, useKit, useLastCard } from "../api/queries";
import { Button } from "../ui/button";
import { stations } from "./stations";

/** Whether the guide was shut or called on this screen; empty: nobody said. */
type Said = "" | "shut" | "called" | "printed";

const where = "guide";
const heard = new Set<() => void>();
let said: Said = read();

function read(): Said {
	try {
		return (localStorage.getItem(where) ?? "") as Said;
	} catch {
		return "";
	}
}

export function sayGuide(to: Said) {
	said = to;
	try {
		localStorage.setItem(where, to);
	} catch {
		// a browser that keeps nothing shows it again next time
	}
	for (const f of heard) f();
}

const useSaid = () =>
	useSyncExternalStore(
		(f) => {
			heard.add(f);
			return () => heard.delete(f);
		},
		() => said,
	);

interface Step {
	title: string;
	how: string;
	to: string;
	/** What the link says. */
	go: string;
	done: boolean;
	/** A page that opens beside this one. */
	beside?: boolean;
}

/** The steps to a first card, by what is there already. */
export function steps(kit: S["Kit"], last: string, card: View | undefined): Step[] {
	const at = `/card/${last}`;
	const settled = (id: string) => !!card && stations.find((s) => s.id === id)?.mood({ card: card.card, view: card } as Document) === "settled";
	return [
		{
			title: "What you cut from",
			how: "On the bench, begin with a starter shelf of usual values, or type in a paper of yours.",
			to: "/stores/cardstock",
			go: "Cardstock",
			done: kit.papers.length > 0,
		},
		{
			title: "Your inks",
			how: "Three will do: a pale, a middle and a deep one. Type the colour each dries to; a swatch makes it sure later.",
			to: "/stores/inks",
			go: "Inks",
			done: kit.inks.length >= 3,
		},
		{
			title: "A set",
			how: "The drawing (SVG) of a layered die or stamp set, or a scan of its pieces.",
			to: "/stores/sets",
			go: "Sets",
			done: kit.sets.length > 0,
		},
		{ title: "A card", how: "Give it a name, a size, and the set to begin with.", to: "/", go: "The bench", done: last !== "" },
		{
			title: "Its inks",
			how: "Suggest inks ranks what you own by how clearly the layers part. Take one.",
			to: `${at}/inks`,
			go: "Inks of the card",
			done: settled("inks"),
		},
		{
			title: "What would go wrong",
			how: "Open the notes at the foot: each says why, and many mend it at a press.",
			to: `${at}/front`,
			go: "Front",
			done: !!card && !openNotes(card.plan.findings).some((f) => f.severity === "spoils"),
		},
		{
			title: "Its envelope",
			how: "Choose one at Front; Depth says whether the card goes in and what it costs to send.",
			to: `${at}/front`,
			go: "Front",
			done: settled("depth"),
		},
		{
			title: "The sheet for the bench",
			how: "Layers, order, steps and strata on paper. Then tick the steps at Work.",
			to: `/api/cards/${last}/sheet.pdf`,
			go: "Print it",
			done: false, // what is printed is known to who pressed it: the guide ends there
			beside: true,
		},
	];
}

/** Leads through a first card on the person's own things, one step at a time; shut at once and for good. */
export function Guide() {
	const how = useSaid();
	const guest = useGuest();
	const kit = useKit().data;
	const cards = useLastCard();
	// Shown by itself to who begins: no demo, and not yet a second card.
	const on = !guest && !!kit && !!cards && (how === "called" || (how === "" && !kit.demo && cards.all < 2));
	return on ? <Led kit={kit.kit} last={cards.last} /> : null;
}

function Led({ kit, last }: { kit: S["Kit"]; last: string }) {
	const card = useCardView(last).data;
	const here = useLocation().pathname;
	const all = steps(kit, last, last ? card : undefined);
	const n = all.findIndex((s) => !s.done);
	const s = all[n];
	if (!s) return null;
	return (
		<Box
			as="aside"
			aria-label="A first card"
			bg="wash"
			borderBottom="1px solid {colors.line}"
			py="3"
			px="10"
			display="flex"
			gap="6"
			alignItems="center"
			flexWrap="wrap"
		>
			<Box flex="1" minW="260px">
				<b>
					A first card, {n + 1} of {all.length}: {s.title}.
				</b>{" "}
				{s.how}
			</Box>
			{s.beside ? (
				<a href={s.to} target="_blank" rel="noreferrer" onClick={() => sayGuide("printed")}>
					{s.go}
				</a>
			) : (
				here !== s.to && <Link to={s.to}>{s.go}</Link>
			)}
			<Button onClick={() => sayGuide("shut")}>Shut the guide</Button>
		</Box>
	);
}
