import { Box } from "@chakra-ui/react";
import { type FormEvent, type ReactNode, useState } from "react";
import { api, ok, type Problem } from "../api/client";
import { useRefresh } from "../api/queries";
import { Button } from "../ui/button";
import Dialog from "../ui/dialog";
import { say } from "../ui/said";
import { size } from "../ui/sizes";

export const slug = (s: string) =>
	`${s
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, "-")
		.replace(/^-|-$/g, "")
		.slice(0, 40)}-${Math.random().toString(36).slice(2, 6)}`;
export const Panel = ({ title, children }: { title: string; children: ReactNode }) => (
	<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9" mb="8">
		<h2 style={{ fontSize: size.sub, marginBottom: 8 }}>{title}</h2>
		{children}
	</Box>
);

/** A form that stores one item and says what is wrong with it. */
export function Add({ label, children, save }: { label: string; children: ReactNode; save: (f: FormData) => Promise<unknown> }) {
	const refresh = useRefresh();
	const [wrong, setWrong] = useState<Problem | null>(null);
	// What is filled in begins anew after each thing stored.
	const [round, setRound] = useState(0);
	const submit = async (e: FormEvent<HTMLFormElement>) => {
		e.preventDefault();
		const form = e.currentTarget;
		try {
			await save(new FormData(form));
			form.reset();
			setRound((n) => n + 1);
			say("Put into the stores.");
			setWrong(null);
			await refresh("state", "card", "cards");
		} catch (err) {
			setWrong(err as Problem);
		}
	};
	return (
		<form onSubmit={submit} style={{ display: "flex", gap: 10, flexWrap: "wrap", alignItems: "end" }}>
			<div key={round} style={{ display: "contents" }}>
				{children}
			</div>
			<Button type="submit" variant="main">
				{label}
			</Button>
			{wrong && (
				<Box role="alert" color="madder" flexBasis="100%">
					{wrong.message} {wrong.places.filter((p) => !wrong.message.includes(p.slice(p.indexOf(": ") + 2))).join("; ")}
				</Box>
			)}
		</form>
	);
}

/** How many of a thing there are: counted anew on the spot, or left uncounted. */
export function Counted({ label, n, save }: { label: string; n: number | undefined; save: (n: number | undefined) => Promise<unknown> }) {
	const refresh = useRefresh();
	const begin = n === undefined ? "" : String(n);
	const take = async (text: string) => {
		if (text === begin) return;
		const to = text.trim() === "" ? undefined : Number(text);
		if (to !== undefined && !(Number.isInteger(to) && to >= 0)) return say("Count whole ones, or leave it empty.");
		try {
			await save(to);
			await refresh("state", "card", "cards");
		} catch (err) {
			say((err as Problem).message);
		}
	};
	return (
		<input
			key={begin}
			aria-label={label}
			placeholder="not counted"
			inputMode="numeric"
			defaultValue={begin}
			style={{ width: 96 }}
			onBlur={(e) => take(e.currentTarget.value)}
			onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
		/>
	);
}

export function useTake() {
	const refresh = useRefresh();
	return async (kind: Shelf, id: string) => {
		const path = { params: { path: { id } } };
		const calls = {
			inks: () => ok(api.DELETE("/api/kit/inks/{id}", path)),
			papers: () => ok(api.DELETE("/api/kit/papers/{id}", path)),
			spacers: () => ok(api.DELETE("/api/kit/spacers/{id}", path)),
			adhesives: () => ok(api.DELETE("/api/kit/adhesives/{id}", path)),
			envelopes: () => ok(api.DELETE("/api/kit/envelopes/{id}", path)),
			gems: () => ok(api.DELETE("/api/kit/gems/{id}", path)),
			machines: () => ok(api.DELETE("/api/kit/machines/{id}", path)),
			sets: () => ok(api.DELETE("/api/kit/sets/{id}", path)),
		};
		const took = await calls[kind]();
		const name = (took.item as { name: string }).name;
		say(
			took.kept
				? `${name} is no longer in the stores; ${listed(took.cards)} ${took.cards.length > 1 ? "keep" : "keeps"} it.`
				: `${name} is taken out of the stores.`,
			() => putBack(kind, id, took.item).then(() => refresh("state", "card", "cards")),
		);
		await refresh("state", "card", "cards");
	};
}

export type Shelf = "inks" | "papers" | "spacers" | "adhesives" | "envelopes" | "gems" | "machines" | "sets";

/** Puts a thing into the stores as it was, or again. */
export function putBack(kind: Shelf, id: string, item: unknown) {
	const { away: _, ...body } = item as { away?: boolean };
	const to = { params: { path: { id } }, body: body as never };
	const calls = {
		inks: () => ok(api.PUT("/api/kit/inks/{id}", to)),
		papers: () => ok(api.PUT("/api/kit/papers/{id}", to)),
		spacers: () => ok(api.PUT("/api/kit/spacers/{id}", to)),
		adhesives: () => ok(api.PUT("/api/kit/adhesives/{id}", to)),
		envelopes: () => ok(api.PUT("/api/kit/envelopes/{id}", to)),
		gems: () => ok(api.PUT("/api/kit/gems/{id}", to)),
		machines: () => ok(api.PUT("/api/kit/machines/{id}", to)),
		sets: () => ok(api.PUT("/api/kit/sets/{id}", to)),
	};
	return calls[kind]();
}

const usesOf = (kind: Shelf, id: string) => {
	const path = { params: { path: { id } } };
	const calls = {
		inks: () => ok(api.GET("/api/kit/inks/{id}/uses", path)),
		papers: () => ok(api.GET("/api/kit/papers/{id}/uses", path)),
		spacers: () => ok(api.GET("/api/kit/spacers/{id}/uses", path)),
		adhesives: () => ok(api.GET("/api/kit/adhesives/{id}/uses", path)),
		envelopes: () => ok(api.GET("/api/kit/envelopes/{id}/uses", path)),
		gems: () => ok(api.GET("/api/kit/gems/{id}/uses", path)),
		machines: () => ok(api.GET("/api/kit/machines/{id}/uses", path)),
		sets: () => ok(api.GET("/api/kit/sets/{id}/uses", path)),
	};
	return calls[kind]();
};

const listed = (names: string[]) => (names.length > 4 ? `${names.slice(0, 3).join(", ")} and ${names.length - 3} more cards` : names.join(", "));

/** Takes a thing out of the stores: what cards use is asked for first, and all of it can be undone. */
export function Remove({ kind, id, name, onTaken }: { kind: Shelf; id: string; name: string; onTaken?: () => void }) {
	const take = useTake();
	const [cards, ask] = useState<string[]>();
	const press = async () => {
		const used = await usesOf(kind, id);
		if (used.cards.length > 0) ask(used.cards);
		else {
			onTaken?.();
			await take(kind, id);
		}
	};
	return (
		<>
			<Button size="sm" onClick={press} aria-label={`Remove ${name}`}>
				Remove
			</Button>
			{cards && (
				<Dialog title={`Take ${name} out of the stores?`} onClose={() => ask(undefined)}>
					<Box display="grid" gap="5" maxW="460px">
						<Box>
							{cards.length === 1 ? "One card uses it" : `${cards.length} cards use it`}: <b>{listed(cards)}</b>.
						</Box>
						<Box color="quiet">They keep it as it is, marked as no longer in the stores, and a note says so. It is offered for nothing new.</Box>
						<Box display="flex" gap="4">
							<Button
								variant="main"
								onClick={async () => {
									ask(undefined);
									onTaken?.();
									await take(kind, id);
								}}
							>
								Take it out
							</Button>
							<Button onClick={() => ask(undefined)}>Leave it</Button>
						</Box>
					</Box>
				</Dialog>
			)}
		</>
	);
}

/** What is no longer there, and is kept for the cards that use it. */
export function NoLonger({ kind, things }: { kind: Shelf; things: { id: string; name: string }[] }) {
	const refresh = useRefresh();
	if (things.length === 0) return null;
	return (
		<Panel title="No longer in the stores">
			<Box mb="4" color="quiet">
				Kept for the cards that use them.
			</Box>
			{things.map((t) => (
				<Box key={t.id} display="flex" gap="5" alignItems="center" py="1">
					<Box flex="1">{t.name}</Box>
					<Button
						size="sm"
						aria-label={`Put ${t.name} back`}
						onClick={async () => {
							await putBack(kind, t.id, t);
							say(`${t.name} is in the stores again.`);
							await refresh("state", "card", "cards");
						}}
					>
						Put it back
					</Button>
				</Box>
			))}
		</Panel>
	);
}
