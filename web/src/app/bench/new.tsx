import { Box } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { api, ok, type S } from "../../api/client";
import { useKit, useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { TextField } from "../../ui/field";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { BringCard } from "./bring";

/** A card begun: from a size and a set, or as one that others are begun from. */
export function NewCard({ models }: { models: S["Titled"][] }) {
	const kit = useKit().data!;
	const go = useNavigate();
	const refresh = useRefresh();
	const [wrong, setWrong] = useState("");
	const [from, setFrom] = useState(kit.kit.sets[0]?.id ?? "");
	const model = models.find((m) => from === `as ${m.id}`);
	const submit = async (e: FormEvent<HTMLFormElement>) => {
		e.preventDefault();
		const f = new FormData(e.currentTarget);
		try {
			const title = String(f.get("title"));
			const v = await ok(
				model
					? api.POST("/api/cards/{id}/copy", { params: { path: { id: model.id } }, body: { title } })
					: api.POST("/api/cards", {
							body: { title, format: String(f.get("format")), fold: f.get("fold") === "top" ? "top" : "side", set: from },
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
				<Select label="Size" name="format" disabled={!!model}>
					{kit.formats.map((f) => (
						<option key={f.id} value={f.id}>
							{f.name}
						</option>
					))}
				</Select>
				<Select label="Fold" name="fold" disabled={!!model}>
					<option value="side">at the side</option>
					<option value="top">at the top</option>
				</Select>
				<div style={{ gridColumn: "1 / -1" }}>
					<Select label="Begin with" value={from} onChange={setFrom}>
						{models.length > 0 && (
							<optgroup label="As a card of yours">
								{models.map((m) => (
									<option key={m.id} value={`as ${m.id}`}>
										{m.title}
									</option>
								))}
							</optgroup>
						)}
						<optgroup label="A set">
							{kit.kit.sets.map((s) => (
								<option key={s.id} value={s.id}>
									{s.name}
								</option>
							))}
						</optgroup>
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
