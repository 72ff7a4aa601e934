import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type Card, ok, type Problem, type S } from "../../api/client";
import { useCardView, useRefresh } from "../../api/queries";
import { ways, words } from "../../parts/differing";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import Dialog from "../../ui/dialog";
import { TextField } from "../../ui/field";
import { Select } from "../../ui/select";

interface Props {
	t: S["Tile"];
	onClose: () => void;
}

/** A card begun as another is, but for its name, its words and its colours. */
export function AsThisOne({ t, onClose }: Props) {
	const view = useCardView(t.id);
	return (
		<Dialog title={`As ${t.title}, but for…`} onClose={onClose}>
			{view.data ? <ButFor t={t} card={view.data.card} onClose={onClose} /> : <Box color="quiet">{view.error ? view.error.message : "Reading the card…"}</Box>}
		</Dialog>
	);
}

function ButFor({ t, card, onClose }: Props & { card: Card }) {
	const go = useNavigate();
	const refresh = useRefresh();
	const [title, setTitle] = useState("");
	const [said, setSaid] = useState<Record<string, string>>({});
	const [taken, setTaken] = useState<Record<string, string>>({});
	const [wrong, setWrong] = useState("");
	const says = words(card);
	const shown = ways(card);
	const make = async () => {
		try {
			const v = await ok(
				api.POST("/api/cards/{id}/copy", {
					params: { path: { id: t.id } },
					body: {
						title,
						words: says.flatMap(({ element, text }) => {
							const is = (said[element + text] ?? text).trim();
							return is && is !== text ? [{ element, was: text, is }] : [];
						}),
						swaps: shown.flatMap(({ motif, way }) => {
							const to = taken[motif + way] ?? way;
							return to !== way ? [{ motif, from: way, to }] : [];
						}),
					},
				}),
			);
			await refresh("cards");
			onClose();
			go(`/card/${v.id}/pieces`);
		} catch (e) {
			setWrong((e as Problem).message);
		}
	};
	return (
		<form
			onSubmit={(e) => {
				e.preventDefault();
				make();
			}}
			style={{ display: "grid", gap: 12, minWidth: "min(440px, 80vw)" }}
		>
			<TextField
				label="Its name"
				required
				maxLength={120}
				value={title}
				placeholder="What it is for"
				onChange={(e) => setTitle(e.target.value)}
				data-autofocus=""
			/>
			{says.map(({ element, text }) => (
				<TextField
					key={element + text}
					label={`Says, for “${text}”`}
					maxLength={80}
					value={said[element + text] ?? text}
					onChange={(e) => setSaid({ ...said, [element + text]: e.target.value })}
				/>
			))}
			{shown.map(({ motif, way }) => {
				const m = card.motifs.find((o) => o.id === motif);
				return (
					<Select
						key={motif + way}
						label={`Colours of ${m?.name}`}
						value={taken[motif + way] ?? way}
						onChange={(v) => setTaken({ ...taken, [motif + way]: v })}
					>
						{m?.colourways.map((w) => (
							<option key={w.id} value={w.id}>
								{w.id === way ? `${w.name}, as on that one` : w.name}
							</option>
						))}
					</Select>
				);
			})}
			{wrong && (
				<Box role="alert" color="madder">
					{wrong}
				</Box>
			)}
			<Box>
				<Button type="submit" variant="main">
					Begin it
				</Button>
			</Box>
		</form>
	);
}

/** Where a card is kept: put away, under which words, as a beginning of others, or no longer. */
export function Lay({ t, onClose }: Props) {
	const refresh = useRefresh();
	const [tags, setTags] = useState(t.lying.tags.join(", "));
	const [sure, setSure] = useState(false);
	const [wrong, setWrong] = useState("");
	const did = async (f: () => Promise<unknown>) => {
		try {
			await f();
			await refresh("cards");
			onClose();
		} catch (e) {
			setWrong((e as Problem).message);
		}
	};
	const lay = (change: { away?: boolean; model?: boolean }) =>
		did(() =>
			ok(
				api.PUT("/api/cards/{id}/lying", {
					params: { path: { id: t.id } },
					body: { away: !!t.lying.away, model: !!t.lying.model, tags: tags.split(","), ...change },
				}),
			),
		);
	return (
		<Dialog title={`Keep ${t.title}`} onClose={onClose}>
			<Box display="grid" gap="7" minW="min(440px, 80vw)">
				<form
					onSubmit={(e) => {
						e.preventDefault();
						lay({});
					}}
					className="beside"
				>
					<TextField
						label="Under these words"
						help="Between commas: winter, for Ada. The bench shows the cards of a word together."
						value={tags}
						maxLength={300}
						width="280px"
						onChange={(e) => setTags(e.target.value)}
					/>
					<Button type="submit">Keep it so</Button>
				</form>
				<Check label="Others are begun from it: it stands first under Begin with" on={!!t.lying.model} set={(on) => lay({ model: on })} />
				<Box display="flex" gap="5" flexWrap="wrap">
					<Button onClick={() => lay({ away: !t.lying.away })}>{t.lying.away ? "Back onto the bench" : "Put it away"}</Button>
					{!sure && <Button onClick={() => setSure(true)}>Throw it out…</Button>}
				</Box>
				{sure && (
					<Box role="alert" bg="glow" p="5">
						The card goes with its changes, its log and its photographs. Only a backup or a copy of an earlier day still has it.{" "}
						<Button onClick={() => did(() => ok(api.DELETE("/api/cards/{id}", { params: { path: { id: t.id } } })))}>Throw {t.title} out</Button>
					</Box>
				)}
				{wrong && (
					<Box role="alert" color="madder">
						{wrong}
					</Box>
				)}
			</Box>
		</Dialog>
	);
}
