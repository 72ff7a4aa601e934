import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { api, ok, sendBytes } from "../api/client";
import { useData, useRefresh } from "../api/queries";
import { Button } from "../ui/button";
import { FileField } from "../ui/file";
import { size } from "../ui/sizes";
import { Panel } from "./shelf";

/** The data file: copied out, brought back, looked through, and what of it cannot
 * be read. */
export function YourData() {
	const data = useData();
	const refresh = useRefresh();
	const [taken, setTaken] = useState(0);
	const [said, setSaid] = useState("");
	const [wrong, setWrong] = useState("");
	const [busy, setBusy] = useState("");
	const [chosen, setChosen] = useState<File>();
	const run = async (what: string, work: () => Promise<string>) => {
		setBusy(what);
		setSaid("");
		setWrong("");
		try {
			setSaid(await work());
		} catch (e) {
			setWrong((e as Error).message);
		}
		setBusy("");
	};
	const check = () => run("Reading everything…", async () => (await ok(api.GET("/api/data/check"))).say);
	const restore = () =>
		run("Bringing it back…", async () => {
			const r = await sendBytes<{ before: string }>("/api/data/restore", chosen ?? new Blob());
			setChosen(undefined);
			setTaken((n) => n + 1);
			await refresh("all");
			return `Everything is as it was in the backup. What was here before is kept in ${r.before}.`;
		});
	const remove = (kind: string, id: string) =>
		run("Removing…", async () => {
			await ok(api.DELETE("/api/data/apart/{kind}/{id}", { params: { path: { kind: kind as "sets", id } } }));
			await refresh("all");
			return "Removed.";
		});
	return (
		<>
			<Panel title="Your data">
				<Box mb="5">
					All cards, stores and the log lie in one file: <code>{data.data?.path}</code>
				</Box>
				<Box display="flex" gap="5" flexWrap="wrap" alignItems="center">
					<a href="/api/data/backup.db" download>
						Save a backup
					</a>
					<a href="/api/data/everything.zip" download>
						Save everything as open files (zip)
					</a>
					<Button onClick={check} disabled={busy !== ""}>
						Check the file
					</Button>
				</Box>
				<Box fontSize="small" mt="3">
					A backup is the whole file, made while you go on working. The zip has drawings, tables and documents that other programs read.
				</Box>
				{busy && <Box role="status">{busy}</Box>}
				{said && <Box role="status">{said}</Box>}
				{wrong && (
					<Box role="alert" color="madder">
						{wrong}
					</Box>
				)}
			</Panel>
			<Panel title="Bring back a backup">
				<FileField key={taken} label="Backup file" accept={[".db"]} onFile={setChosen} />
				{chosen && (
					<Box mt="4">
						<Box mb="3">
							{chosen.name}, {(chosen.size / 1e6).toFixed(1)} MB, takes the place of everything here. What is here now is backed up beside the data file first.
						</Box>
						<Button variant="main" onClick={restore} disabled={busy !== ""}>
							Bring it back
						</Button>
					</Box>
				)}
			</Panel>
			{(data.data?.apart.length ?? 0) > 0 && (
				<Panel title={`Set apart: ${data.data?.apart.length}`}>
					<Box mb="4">These cannot be read. Everything else works. Save them to look into, or remove them.</Box>
					<table>
						<tbody>
							{data.data?.apart.map((a) => (
								<tr key={a.kind + a.id}>
									<td>{a.kind}</td>
									<td>{a.name || a.id}</td>
									<td style={{ fontSize: size.small }}>{a.why}</td>
									<td>
										<a href={`/api/data/apart/${a.kind}/${encodeURIComponent(a.id)}`} download>
											Save
										</a>
									</td>
									<td>
										<Button onClick={() => remove(a.kind, a.id)}>Remove</Button>
									</td>
								</tr>
							))}
						</tbody>
					</table>
				</Panel>
			)}
		</>
	);
}
