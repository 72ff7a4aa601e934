import { Box } from "@chakra-ui/react";
import { type FormEvent, type ReactNode, useState } from "react";
import { api, ok, type Problem } from "../api/client";
import { useRefresh } from "../api/queries";
import { Button } from "../ui/button";
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
	return async (kind: "inks" | "papers" | "spacers" | "adhesives" | "envelopes" | "machines" | "sets", id: string) => {
		const path = { params: { path: { id } } };
		const calls = {
			inks: () => ok(api.DELETE("/api/kit/inks/{id}", path)),
			papers: () => ok(api.DELETE("/api/kit/papers/{id}", path)),
			spacers: () => ok(api.DELETE("/api/kit/spacers/{id}", path)),
			adhesives: () => ok(api.DELETE("/api/kit/adhesives/{id}", path)),
			envelopes: () => ok(api.DELETE("/api/kit/envelopes/{id}", path)),
			machines: () => ok(api.DELETE("/api/kit/machines/{id}", path)),
			sets: () => ok(api.DELETE("/api/kit/sets/{id}", path)),
		};
		await calls[kind]();
		say("Taken out of the stores.");
		await refresh("state", "card", "cards");
	};
}

export const Remove = ({ name, onClick }: { name: string; onClick: () => void }) => (
	<Button size="sm" onClick={onClick} aria-label={`Remove ${name}`}>
		Remove
	</Button>
);
