import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type Problem, type S, sendBytes } from "../../api/client";
import { useGuest, useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";
import Dialog from "../../ui/dialog";
import { TextField } from "../../ui/field";
import { FileButton, pictures } from "../../ui/file";
import { say } from "../../ui/said";
import { size } from "../../ui/sizes";
import { day } from "../../ui/units";

type Photograph = S["Photograph"];

/** Photographs of the finished card: kept shrunk in the data file. */
export function Photographs({ a }: { a: S["Account"] }) {
	const b = useBench();
	const guest = useGuest();
	const refresh = useRefresh();
	const [words, setWords] = useState("");
	const [busy, setBusy] = useState(false);
	const [open, setOpen] = useState<Photograph>();
	const at = `/api/cards/${b.view.id}/entries/${a.entry.id}/photographs`;
	const seen = (p: Photograph) => p.words || `${b.card.title}, finished, ${day(p.at)}`;
	const keep = async (f: File) => {
		setBusy(true);
		try {
			await sendBytes(`${at}?${new URLSearchParams({ words })}`, f);
			setWords("");
			await refresh("entries", "cards");
		} catch (e) {
			say((e as Problem).message);
		} finally {
			setBusy(false);
		}
	};
	const drop = async (p: Photograph) => {
		setOpen(undefined);
		try {
			await ok(
				api.DELETE("/api/cards/{id}/entries/{run}/photographs/{photograph}", { params: { path: { id: b.view.id, run: a.entry.id, photograph: p.id } } }),
			);
			await refresh("entries", "cards");
		} catch (e) {
			say((e as Problem).message);
		}
	};
	return (
		<section aria-label="Photographs">
			<h2 style={{ fontSize: size.sub, marginBottom: 4 }}>Photographs</h2>
			<Box display="flex" gap="5" flexWrap="wrap" alignItems="flex-end">
				{a.entry.photographs.map((p) => (
					<button key={p.id} type="button" className="photograph" onClick={() => setOpen(p)}>
						<img src={`/api/photographs/${p.id}.jpg?small=1`} alt={seen(p)} />
					</button>
				))}
				<Box display="flex" gap="4" alignItems="flex-end" flexWrap="wrap">
					<TextField label="What is seen on the next one" value={words} maxLength={200} width="230px" onChange={(e) => setWords(e.target.value)} />
					<FileButton label={busy ? "Keeping it…" : "Keep a photograph"} accept={pictures} onFile={keep} />
				</Box>
			</Box>
			<Box fontSize="small" color="quiet" mt="2">
				Kept shrunk in your data file, without where and by what it was taken.
			</Box>
			{open && (
				<Dialog title={seen(open)} onClose={() => setOpen(undefined)}>
					<img
						src={`/api/photographs/${open.id}.jpg`}
						alt={seen(open)}
						width={open.w}
						height={open.h}
						style={{ maxWidth: "100%", maxHeight: "70vh", width: "auto", height: "auto" }}
					/>
					<Box display="flex" gap="5" mt="5" alignItems="center">
						<a href={`/api/photographs/${open.id}.jpg`} download={`${b.card.title}.jpg`}>
							Save it
						</a>
						{!guest && <Button onClick={() => drop(open)}>Take it away</Button>}
					</Box>
				</Dialog>
			)}
		</section>
	);
}
