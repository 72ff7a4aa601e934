import { Box } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { api, ok, type S } from "../api/client";
import { useAllEntries, useFoundCards, useKit } from "../api/queries";
import { kinds } from "../stores/kinds";
import { Button } from "../ui/button";
import Dialog from "../ui/dialog";
import { TextField } from "../ui/field";
import { day } from "../ui/units";

interface Thing {
	kind: string;
	name: string;
	/** What else it is found by. */
	more: string;
	to: string;
	card?: string;
}

const places: Thing[] = [
	{ kind: "Place", name: "The bench", more: "cards", to: "/" },
	{ kind: "Place", name: "Inks", more: "drawer swatches", to: "/stores/inks" },
	...Object.entries(kinds).map(([shelf, k]) => ({
		kind: "Place",
		name: shelf[0].toUpperCase() + shelf.slice(1),
		more: `${k.title} ${k.one}`,
		to: `/stores/${shelf}`,
	})),
	{ kind: "Place", name: "To buy", more: "shopping list low empty", to: "/stores/to-buy" },
	{ kind: "Place", name: "Sets", more: "dies stamps stencils drawing", to: "/stores/sets" },
	{ kind: "Place", name: "Bring in a set from a picture", more: "scan photograph scanner", to: "/stores/sets/scan" },
	{ kind: "Place", name: "Your data", more: "backup restore copies export check zip", to: "/stores/data" },
	{ kind: "Place", name: "What Ochrestone looks for", more: "rules notes", to: "/looks-for" },
];

/** How many are shown at once. */
const most = 12;

/** Finds cards, what is owned, and places, by any words of their names. */
export default function Find({ onClose }: { onClose: () => void }) {
	const go = useNavigate();
	const state = useKit().data;
	const log = useAllEntries();
	const [text, setText] = useState("");
	const looking = text.trim() !== "";
	const cards = useFoundCards(text.trim().toLowerCase(), most, looking);
	/** Which ink was on which layer of a card. */
	const [inks, setInks] = useState<{ card: string; rows: S["InkWas"][] }>();
	const ask = async (card: string) =>
		setInks(inks?.card === card ? undefined : { card, rows: (await ok(api.GET("/api/cards/{id}/inks", { params: { path: { id: card } } }))) ?? [] });
	const all = useMemo(() => {
		const out: Thing[] = [];
		const at = (shelf: string, name: string) => `/stores/${shelf}?${new URLSearchParams({ find: name })}`;
		if (state) {
			const { kit } = state;
			for (const i of kit.inks) out.push({ kind: "Ink", name: i.name, more: `${i.family} ${i.where ?? ""}`, to: at("inks", i.name) });
			for (const s of kit.sets)
				out.push({ kind: "Set", name: s.name, more: [s.where, ...(s.tags ?? []), ...s.parts.map((p) => p.label)].join(" "), to: at("sets", s.name) });
			for (const [shelf, k] of Object.entries(kinds))
				for (const t of k.things(state))
					out.push({ kind: k.one[0].toUpperCase() + k.one.slice(1), name: t.name, more: `${t.kind ?? ""} ${t.where ?? ""}`, to: at(shelf, t.name) });
		}
		for (const e of log ?? [])
			out.push({
				kind: "Log",
				name: `${e.title}, ${day(e.first || e.begun)}`,
				more: [e.note, ...e.photographs.map((p) => p.words)].join(" "),
				to: `/card/${e.card}/log?run=${e.id}`,
			});
		return [...out, ...places];
	}, [state, log]);
	const words = text.toLowerCase().split(/\s+/).filter(Boolean);
	const hit = (s: string) => words.every((w) => s.toLowerCase().includes(w));
	// Cards are found by the program, which knows what they are made of.
	const ofCards: Thing[] = looking ? (cards?.tiles ?? []).map((c) => ({ kind: "Card", name: c.title, more: "", to: `/card/${c.id}/pieces`, card: c.id })) : [];
	const named = [...ofCards, ...all].filter((t) => hit(t.name));
	const rest = [...ofCards, ...all.filter((t) => hit(`${t.kind} ${t.name} ${t.more}`))].filter((t) => !named.includes(t));
	const found = words.length === 0 ? [] : [...named, ...rest];
	const open = (t: Thing) => {
		onClose();
		go(t.to);
	};
	return (
		<Dialog title="Find" onClose={onClose}>
			<form
				onSubmit={(e) => {
					e.preventDefault();
					if (found[0]) open(found[0]);
				}}
			>
				<TextField
					label="A card, ink, set, paper, place, or words of a card or the log"
					value={text}
					onChange={(e) => setText(e.target.value)}
					data-autofocus=""
					autoComplete="off"
				/>
			</form>
			<Box as="ul" listStyleType="none" p="0" mt="5" mb="0" mx="0" display="grid" gap="2" aria-label="Found">
				{found.slice(0, most).map((t) => (
					<li key={t.kind + t.to + t.name}>
						<div style={{ display: "flex", alignItems: "center", gap: 10 }}>
							<button
								type="button"
								onClick={() => open(t)}
								style={{
									display: "flex",
									gap: 14,
									flex: 1,
									textAlign: "left",
									padding: "6px 4px",
									background: "none",
									border: 0,
									cursor: "pointer",
									font: "inherit",
								}}
							>
								<span style={{ width: 90, flex: "none", opacity: 0.75 }}>{t.kind}</span>
								<b>{t.name}</b>
							</button>
							{t.card && (
								<Button aria-expanded={inks?.card === t.card} aria-label={`Its inks: ${t.name}`} onClick={() => t.card && ask(t.card)}>
									Its inks
								</Button>
							)}
						</div>
						{inks && inks.card === t.card && <Inks rows={inks.rows} />}
					</li>
				))}
			</Box>
			<Box role="status" color="quiet" fontSize="small" mt="4">
				{words.length === 0
					? "Any words of its name, of a part, or of where it is kept. Enter opens the first."
					: found.length === 0
						? "Nothing of that name."
						: found.length > most
							? `${found.length} found; more words find fewer.`
							: ""}
			</Box>
		</Dialog>
	);
}

function Inks({ rows }: { rows: S["InkWas"][] }) {
	if (rows.length === 0) return <Box fontSize="small">No image of it has colours yet.</Box>;
	return (
		<table style={{ margin: "2px 0 10px 108px", width: "calc(100% - 108px)" }}>
			<tbody>
				{rows.map((r, i) => (
					<tr key={`${r.image}${r.way}${r.layer}${r.zone}${i}`}>
						<th scope="row" style={{ fontWeight: 400, textAlign: "left", paddingRight: 14 }}>
							{r.image}, {r.layer}
							{r.zone === "all over" ? "" : `, ${r.zone}`}
						</th>
						<td style={{ paddingRight: 8 }}>
							<span style={{ display: "inline-block", width: 26, height: 14, background: r.usedDry || r.dry, border: "1px solid" }} />
						</td>
						<td>
							<b>{r.used || r.ink || "left plain"}</b>
							{r.used && ` (planned: ${r.ink})`}
							{r.paper && ` on ${r.paper}`}
						</td>
					</tr>
				))}
			</tbody>
		</table>
	);
}
