import { Box } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, ok, type S } from "../api/client";
import { useCards, useData, useGuest, useKit, useRefresh, useScreens, useSettings } from "../api/queries";
import { Button } from "../ui/button";
import { hue } from "../ui/colours";
import { TextField } from "../ui/field";
import { Select } from "../ui/select";
import { size } from "../ui/sizes";
import { Skeleton } from "../ui/skeleton";
import { thin } from "../ui/units";
import { Waiting } from "../ui/waiting";
import { BringCard } from "./bring";

/** The bench: all cards, what is next on each. */
export function BenchPage() {
	const cards = useCards();
	const kit = useKit();
	const guest = useGuest();
	const asOwner = useScreens().data?.guest === false;
	const data = useData(asOwner);
	if (cards.error || kit.error) return <Waiting>{(cards.error ?? kit.error)?.message}</Waiting>;
	if (!cards.data || !kit.data)
		return (
			<Box maxW="1240px" mx="auto" role="status" aria-label="Clearing the bench">
				<h1 style={{ fontSize: size.place }}>The bench</h1>
				<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(380px, 1fr))" gap="9" mt="8">
					{[1, 2, 3].map((n) => (
						<Skeleton key={n} w="100%" h="262px" />
					))}
				</Box>
			</Box>
		);
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
			<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(380px, 1fr))" gap="9">
				{cards.data.map((t) => (
					<Tile key={t.id} t={t} />
				))}
				{!guest && <NewCard />}
			</Box>
		</Box>
	);
}

function Begin({ shelf }: { shelf: boolean }) {
	const refresh = useRefresh();
	const [wrong, setWrong] = useState("");
	const starter = async () => {
		try {
			await ok(api.POST("/api/starter"));
			await refresh("state", "cards");
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	return (
		<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9" mb="9" maxW="760px">
			<h2 style={{ fontSize: size.sub }}>First, tell Ochrestone what you own</h2>
			<ol style={{ margin: "8px 0 0 20px", lineHeight: 1.7 }}>
				<li>
					<Link to="/stores/cardstock">Cardstock</Link>: colour and thickness of the sheets you cut from.
				</li>
				<li>
					<Link to="/stores/inks">Inks</Link>: the colour each dries to, typed from a swatch.
				</li>
				<li>
					<Link to="/stores/sets">Sets</Link>: import the drawing (SVG) of a layered die or stamp set.
				</li>
				<li>Then make a card here.</li>
			</ol>
			{shelf && (
				<Box mt="5" display="flex" gap="5" alignItems="center" flexWrap="wrap">
					<Button onClick={starter}>Begin with a starter shelf</Button>
					<Box flex="1" minW="300px" fontSize="small" color="quiet">
						Usual cardstock, foam, glue and envelopes with usual values, each named as such until you measure yours. Your inks and sets are your own.
					</Box>
				</Box>
			)}
			{wrong && (
				<Box role="alert" color="madder" mt="3">
					{wrong}
				</Box>
			)}
		</Box>
	);
}

function Tile({ t }: { t: S["Tile"] }) {
	const s = useSettings();
	const k = Math.min(190 / t.w, 180 / t.h);
	return (
		<Box bg="sheet" border="1px solid {colors.line}" display="flex" gap="8" p="8">
			<Link
				to={`/card/${t.id}/pieces`}
				style={{ flex: "0 0 200px", display: "grid", placeItems: "center", background: hue.bench, minHeight: 200 }}
				aria-label={`Open ${t.title}`}
			>
				<img
					src={`/api/cards/${t.id}/front.svg?v=${t.version}`}
					alt={`Front of ${t.title}`}
					width={t.w * k}
					height={t.h * k}
					style={{ boxShadow: `0 1px 3px ${hue.edge}` }}
				/>
			</Link>
			<Box flex="1" display="flex" flexDirection="column" gap="3" minW={0}>
				<h2 style={{ fontSize: size.sub }}>
					<Link to={`/card/${t.id}/pieces`} style={{ color: hue.text, textDecoration: "none" }}>
						{t.title}
					</Link>
				</h2>
				<MiniStrata t={t} />
				<Box fontSize="small">
					{t.done} of {t.steps} steps done, {thin(t.total, s)} thick
				</Box>
				{t.next && (
					<Box fontSize="small">
						Next: <b>{t.next}</b>
					</Box>
				)}
				<Box fontSize="small" color={t.spoils ? "madder" : "quiet"} fontWeight={t.spoils ? 700 : 400}>
					{t.spoils > 0 ? `▲ ${t.spoils} would spoil it` : t.notes > 0 ? `${t.notes} margin ${t.notes === 1 ? "note" : "notes"}` : "Nothing to note"}
				</Box>
			</Box>
		</Box>
	);
}

/** The strata of a whole card, through its highest place. */
function MiniStrata({ t }: { t: S["Tile"] }) {
	const h = 44;
	const k = h / Math.max(t.total, 1);
	return (
		<svg viewBox={`0 0 ${t.w} ${h + 2}`} width="100%" height={h + 2} preserveAspectRatio="none" role="img" aria-label="Section through the card">
			<rect x={0} y={h - 0.78 * k} width={t.w} height={0.78 * k} fill="#d9c9ac" />
			{t.sections.map((s, i) => (
				<g key={`${s.id}${s.layer}${i}`}>
					{s.foam && <rect x={s.x0} y={h - s.z0 * k} width={s.x1 - s.x0} height={s.lift * k} fill="#f7f7f5" stroke="#a9b0b4" strokeWidth={0.3} />}
					<rect
						x={s.x0}
						y={h - s.z1 * k - (s.z1 === s.z0 ? 1.5 : 0)}
						width={s.x1 - s.x0}
						height={Math.max(1.5, (s.z1 - s.z0) * k)}
						fill={s.layer ? s.top : s.body}
					/>
				</g>
			))}
		</svg>
	);
}

function NewCard() {
	const kit = useKit().data!;
	const go = useNavigate();
	const refresh = useRefresh();
	const [wrong, setWrong] = useState("");
	const submit = async (e: FormEvent<HTMLFormElement>) => {
		e.preventDefault();
		const f = new FormData(e.currentTarget);
		try {
			const v = await ok(
				api.POST("/api/cards", {
					body: { title: String(f.get("title")), format: String(f.get("format")), fold: f.get("fold") === "top" ? "top" : "side", set: String(f.get("set")) },
				}),
			);
			await refresh("cards");
			go(`/card/${v.id}/pieces`);
		} catch (err) {
			setWrong((err as Error).message);
		}
	};
	return (
		<Box bg="sheet" border={`1px dashed ${hue.rule}`} p="8">
			<h2 style={{ fontSize: size.sub }}>A new card</h2>
			<form onSubmit={submit} style={{ display: "grid", gap: 8, gridTemplateColumns: "1fr 1fr", marginTop: 8 }}>
				<div style={{ gridColumn: "1 / -1" }}>
					<TextField label="Name" name="title" required maxLength={120} placeholder="What it is for" />
				</div>
				<Select label="Size" name="format">
					{kit.formats.map((f) => (
						<option key={f.id} value={f.id}>
							{f.name}
						</option>
					))}
				</Select>
				<Select label="Fold" name="fold">
					<option value="side">at the side</option>
					<option value="top">at the top</option>
				</Select>
				<div style={{ gridColumn: "1 / -1" }}>
					<Select label="Begin with" name="set" begin={kit.kit.sets[0]?.id ?? ""}>
						{kit.kit.sets.map((s) => (
							<option key={s.id} value={s.id}>
								{s.name}
							</option>
						))}
						<option value="">nothing yet</option>
					</Select>
				</div>
				{wrong && (
					<Box role="alert" color="madder" gridColumn="1 / -1">
						{wrong}
					</Box>
				)}
				<Button type="submit" variant="main">
					Make the card
				</Button>
			</form>
			<BringCard />
		</Box>
	);
}
