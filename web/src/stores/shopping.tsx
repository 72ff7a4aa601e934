import { Box } from "@chakra-ui/react";
import type { S } from "../api/client";
import { useShopping } from "../api/queries";
import { Button } from "../ui/button";
import { Panel } from "./shelf";

const kinds: Record<S["ToBuy"]["kind"], string> = {
	inks: "Inks",
	papers: "Cardstock",
	spacers: "Spacers",
	adhesives: "Adhesives",
	envelopes: "Envelopes",
	gems: "Gems",
};

/** What to buy for the cards on the bench. */
export function Shopping() {
	const list = useShopping();
	if (list.error) return <Panel title="To buy">{list.error.message}</Panel>;
	if (!list.data) return <Panel title="To buy">Counting…</Panel>;
	const { buys, cards, stale } = list.data;
	const named = cards.length > 6 ? `${cards.slice(0, 6).join(", ")} and ${cards.length - 6} more` : cards.join(", ");
	const of = (Object.keys(kinds) as S["ToBuy"]["kind"][]).filter((k) => buys.some((b) => b.kind === k));
	return (
		<Panel title={buys.length === 0 ? "Nothing to buy" : `To buy: ${buys.length}`}>
			<Box fontSize="small" color="quiet" mb="4" maxW="80ch">
				{cards.length > 0 ? `For ${named}: what is planned or begun.` : "No card is planned or begun."} Inks and adhesives marked as running low; pads and
				envelopes that are counted; cardstock as it is laid out for all of them together.
			</Box>
			{stale && (
				<Box role="status" mb="4">
					As it was before the last change; being worked out anew.
				</Box>
			)}
			{of.map((k) => (
				<section key={k} aria-label={kinds[k]}>
					<h3>{kinds[k]}</h3>
					<ul style={{ margin: "2px 0 12px 0", paddingLeft: 18 }}>
						{buys
							.filter((b) => b.kind === k)
							.map((b) => (
								<li key={b.id}>
									<b>{b.n ? `${b.n}${b.kind === "papers" ? (b.n === 1 ? " sheet of " : " sheets of ") : " "}${b.name}` : b.name}</b>: {b.why}
									{b.where && `; kept: ${b.where}`}
								</li>
							))}
					</ul>
				</section>
			))}
			{buys.length > 0 && <Button onClick={() => window.print()}>Print the list</Button>}
		</Panel>
	);
}
