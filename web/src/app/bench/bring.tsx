import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { type S, sendBytes } from "../../api/client";
import { useRefresh, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import Dialog from "../../ui/dialog";
import { FileButton } from "../../ui/file";
import { Select } from "../../ui/select";
import { type Settings, thin } from "../../ui/units";

/** In what a thing differs, with both values where they are short. */
function differs(u: S["Unlike"], s: Settings) {
	const value = (v: string) => (v === "" ? "nothing" : u.unit === "mm" ? thin(Number(v), s) : `${v}${u.unit ? ` ${u.unit}` : ""}`);
	return u.mine || u.their ? `${u.word} ${value(u.mine)} here, ${value(u.their)} there` : `another ${u.word}`;
}

type Choice = "mine" | "theirs" | "both";

/** Takes in a card that was saved elsewhere, with what it is made of. */
export function BringCard() {
	const go = useNavigate();
	const refresh = useRefresh();
	const s = useSettings();
	const [file, setFile] = useState<File>();
	const [looked, setLooked] = useState<S["LookedAt"]>();
	const [choices, setChoices] = useState<Record<string, Choice>>({});
	const [wrong, setWrong] = useState("");
	const look = async (f: File) => {
		setWrong("");
		setChoices({});
		try {
			setLooked(await sendBytes<S["LookedAt"]>("/api/bundles/look", f));
			setFile(f);
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const shut = () => setLooked(undefined);
	const take = async () => {
		try {
			const got = await sendBytes<S["TakenIn"]>(`/api/bundles?${new URLSearchParams({ choices: JSON.stringify(choices) })}`, file ?? new Blob());
			shut();
			await refresh("state", "cards");
			go(`/card/${got.id}/pieces`);
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const of = (state: string) => looked?.items.filter((i) => i.state === state) ?? [];
	const names = (state: string) =>
		of(state)
			.map((i) => i.name)
			.join("; ");
	return (
		<Box mt="5">
			<FileButton label="Bring in a card (.ochre)" accept={[".ochre"]} onFile={look} />
			{wrong && (
				<Box role="alert" color="madder" mt="3">
					{wrong}
				</Box>
			)}
			{looked && (
				<Dialog title={`Bring in “${looked.title}”`} onClose={shut}>
					<Box display="grid" gap="5">
						{of("same").length > 0 && <Box color="quiet">You have already, just the same: {names("same")}.</Box>}
						{of("new").length > 0 && <Box>New in your stores: {names("new")}.</Box>}
						{of("differs").length > 0 && (
							<Box display="grid" gap="4">
								<Box>These are not as yours. Say for each which the card takes:</Box>
								{of("differs").map((i) => (
									<Select
										key={i.kind + i.id}
										label={`${i.here}: ${i.unlike.map((u) => differs(u, s)).join("; ")}`}
										value={choices[`${i.kind} ${i.id}`] ?? "mine"}
										onChange={(v) => setChoices({ ...choices, [`${i.kind} ${i.id}`]: v as Choice })}
									>
										<option value="mine">mine, as it is here</option>
										<option value="theirs">theirs, in the place of mine on all cards</option>
										<option value="both">both: keep theirs beside mine</option>
									</Select>
								))}
							</Box>
						)}
						<Box>
							<Button variant="main" onClick={take}>
								Put it on the bench
							</Button>
						</Box>
					</Box>
				</Dialog>
			)}
		</Box>
	);
}
