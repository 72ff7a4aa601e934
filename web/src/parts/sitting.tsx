import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../api/card";
import { api, ok, type Problem, type S } from "../api/client";
import { useFoundCards, useRefresh, useSitting } from "../api/queries";
import { Button } from "../ui/button";
import { Check } from "../ui/check";
import Dialog from "../ui/dialog";
import { TextField } from "../ui/field";
import { KeptField } from "../ui/kept";
import { NumberField } from "../ui/number";
import { say } from "../ui/said";
import { Select } from "../ui/select";
import { ways, words } from "./differing";

type Lot = S["Lot"];

/** How many cards are made in one sitting, how they differ, and what else is made with them. */
export function SittingButton() {
	const b = useBench();
	const [open, setOpen] = useState(false);
	const sitting = useSitting(b.view.id, b.view.version);
	const made = sitting.data?.cards.reduce((n, c) => n + c.copies, 0) ?? b.card.copies ?? 1;
	return (
		<>
			<Button onClick={() => setOpen(true)}>Sitting: {made === 1 ? "one card" : `${made} cards`}</Button>
			{open && <SittingDialog onClose={() => setOpen(false)} />}
		</>
	);
}

function SittingDialog({ onClose }: { onClose: () => void }) {
	const b = useBench();
	const s = b.state.settings;
	const refresh = useRefresh();
	const lots = b.card.lots ?? [];
	const set = (next: Lot[]) => b.edit({ lots: { lots: next } });
	const images = b.card.motifs.filter((m) => m.colourways.length > 1 && ways(b.card).some((w) => w.motif === m.id));
	const room = async (n: number) => {
		try {
			await ok(api.PUT("/api/settings", { body: { ...s, room: Math.round(n) } }));
			await refresh("state", "card");
		} catch (err) {
			say((err as Problem).message);
		}
	};
	return (
		<Dialog title="What is made in this sitting" onClose={onClose}>
			<Box display="flex" flexDirection="column" gap="6" minW="min(620px, 80vw)">
				{lots.length === 0 ? (
					<Box display="flex" gap="5" alignItems="flex-end" flexWrap="wrap">
						<NumberField saved label="Cards" min={1} max={200} v={b.card.copies || 1} set={(n) => b.edit({ copies: { n: Math.round(n) } })} />
						<Button onClick={() => set([{ name: "", copies: b.card.copies || 1 }])}>They differ</Button>
						{images.map((m) => (
							<Button key={m.id} onClick={() => b.edit({ lots: { lots: [], each: m.id } })}>
								{images.length > 1 ? `One sort for each colourway of ${m.name}` : "One sort for each colourway"}
							</Button>
						))}
					</Box>
				) : (
					<>
						{lots.map((l, i) => (
							<OneLot key={l.id} l={l} n={i + 1} change={(c) => b.edit({ lot: { id: l.id, ...c } })} />
						))}
						<Box display="flex" gap="4">
							<Button onClick={() => b.edit({ lot: {} })}>Another sort</Button>
							<Button onClick={() => set([])}>All alike again</Button>
						</Box>
					</>
				)}
				<Also />
				<NumberField saved label="Places to lay wet pieces down (0: as many as it takes)" min={0} max={500} v={s.room ?? 0} set={room} />
			</Box>
		</Dialog>
	);
}

/** Cards that are alike: how many, and in what they differ from the one that is shown. */
function OneLot({ l, n, change }: { l: Lot; n: number; change: (l: S["EditLot"]) => void }) {
	const b = useBench();
	const swapped = (motif: string, from: string) => l.swaps?.find((s) => s.motif === motif && s.from === from)?.to ?? from;
	return (
		<fieldset
			className="lot"
			aria-label={l.name || `Sort ${n}`}
			style={{ border: 0, borderTop: "1px solid var(--line, #ccc)", padding: "10px 0 0", margin: 0 }}
		>
			<Box display="flex" gap="4" alignItems="flex-end" flexWrap="wrap">
				<NumberField saved label={`Cards of sort ${n}`} min={1} max={200} v={l.copies} set={(c) => change({ copies: Math.round(c) })} />
				<KeptField label="Called" value={l.name} empty maxLength={60} width="180px" onSet={(name) => change({ name })} />
				{ways(b.card).map(({ motif, way }) => {
					const m = b.card.motifs.find((o) => o.id === motif);
					const was = m?.colourways.find((w) => w.id === way);
					return (
						<Select
							key={motif + way}
							label={`${m?.name}, ${was?.name}`}
							value={swapped(motif, way)}
							onChange={(to) => change({ swap: { motif, from: way, to } })}
						>
							{m?.colourways.map((w) => (
								<option key={w.id} value={w.id}>
									{w.id === way ? `${w.name}, as on the card` : w.name}
								</option>
							))}
						</Select>
					);
				})}
				{words(b.card).map(({ element, text }) => {
					const is = l.words?.find((w) => w.element === element && w.was === text)?.is ?? text;
					return (
						<KeptField
							key={element + text}
							label={`Says, for “${text}”`}
							value={is}
							maxLength={80}
							width="180px"
							onSet={(v) => change({ words: { element, was: text, is: v.trim() } })}
						/>
					);
				})}
				<Button onClick={() => change({ away: true })}>Take sort {n} away</Button>
			</Box>
		</fieldset>
	);
}

/** How many other cards are shown at once. */
const most = 12;

/** Other cards that are made in the same sitting. */
function Also() {
	const b = useBench();
	const refresh = useRefresh();
	const sitting = useSitting(b.view.id, b.view.version);
	const with_ = sitting.data?.company ?? [];
	const [find, setFind] = useState("");
	const cards = useFoundCards(find, most + 1);
	const found = cards?.tiles.filter((c) => c.id !== b.view.id) ?? [];
	const titles = new Map([...(sitting.data?.cards ?? []).map((m) => [m.card ?? "", m.title] as const), ...found.map((c) => [c.id, c.title] as const)]);
	const shown = [...with_, ...found.map((c) => c.id).filter((id) => !with_.includes(id))];
	if (!cards || (shown.length === 0 && find === "")) return null;
	const put = async (id: string, on: boolean) => {
		try {
			await ok(
				api.PUT("/api/cards/{id}/company", {
					params: { path: { id: b.view.id } },
					body: { cards: on ? [...with_, id] : with_.filter((c) => c !== id) },
				}),
			);
			await refresh("card");
		} catch (err) {
			say((err as Problem).message);
		}
	};
	return (
		<fieldset style={{ border: 0, padding: 0, margin: 0 }}>
			<legend style={{ fontWeight: 600, marginBottom: 4 }}>Also made, each as often as it says of itself</legend>
			{(find !== "" || cards.found > most) && (
				<TextField label="Find a card" value={find} maxLength={120} autoComplete="off" onChange={(e) => setFind(e.target.value)} />
			)}
			<Box display="flex" gap="5" flexWrap="wrap">
				{shown.slice(0, with_.length + most).map((id) => (
					<Check key={id} label={titles.get(id) ?? "another card"} on={with_.includes(id)} set={(on) => put(id, on)} />
				))}
				{shown.length === 0 && <Box color="quiet">No other card of that name.</Box>}
			</Box>
		</fieldset>
	);
}
