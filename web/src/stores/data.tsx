import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { api, ok, type S, sendBytes } from "../api/client";
import { useAbout, useData, useRefresh } from "../api/queries";
import { Button } from "../ui/button";
import { FileField } from "../ui/file";
import { size } from "../ui/sizes";
import { day } from "../ui/units";
import { Panel } from "./shelf";

/** The data file: copied out, brought back, looked through, and what of it cannot
 * be read. */
export function YourData() {
	const data = useData();
	const about = useAbout();
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
	/** What is in a backup, before anything is changed. */
	const [looked, setLooked] = useState<{ name: string; day?: string } & S["Looked"]>();
	const take = (f: File | undefined) => {
		setChosen(f);
		setLooked(undefined);
		if (!f) return;
		run("Looking into it…", async () => {
			setLooked({ name: f.name, ...(await sendBytes<S["Looked"]>("/api/data/look", f)) });
			return "";
		});
	};
	const open = (d: string) =>
		run("Looking into it…", async () => {
			const l = await ok(api.GET("/api/data/copies/{day}/look", { params: { path: { day: d } } }));
			setChosen(undefined);
			setTaken((n) => n + 1);
			setLooked({ name: `the copy of ${day(`${d}T12:00`)}`, day: d, ...l });
			return "";
		});
	const restore = () =>
		run("Bringing it back…", async () => {
			const r = looked?.day
				? await ok(api.POST("/api/data/copies/{day}/restore", { params: { path: { day: looked.day } } }))
				: await sendBytes<{ before: string }>("/api/data/restore", chosen ?? new Blob());
			setChosen(undefined);
			setLooked(undefined);
			setTaken((n) => n + 1);
			await refresh("all");
			return `Everything is as it was in the backup. What was here before is kept in ${r.before}.`;
		});
	const remove = (kind: string, id: string) =>
		run("Removing…", async () => {
			await ok(api.DELETE("/api/data/apart", { params: { query: { kind, id } } }));
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
					{about.data && ` This is ${about.data.name} ${about.data.version}.`}
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
				<FileField key={taken} label="Backup file" accept={[".db"]} onFile={take} />
				{(data.data?.copies.length ?? 0) > 0 && (
					<Box mt="5">
						<Box mb="3">
							Copies made by themselves, one a day, in <code>{data.data?.beside}</code>. The last seven days are kept, and one of each of four weeks before.
						</Box>
						<Box display="flex" gap="3" flexWrap="wrap">
							{data.data?.copies.map((c) => (
								<Button key={c.day} data-copy={c.day} onClick={() => open(c.day)} disabled={busy !== ""}>
									{day(`${c.day}T12:00`)}
								</Button>
							))}
						</Box>
					</Box>
				)}
				{(data.data?.before.length ?? 0) > 0 && (
					<Box mt="5" fontSize="small">
						What was here before a backup was brought back lies beside the data file; the last three are kept:{" "}
						{data.data?.before.map((b) => `${b.name}, ${Math.max(1, Math.round(b.size / 1e6))} MB`).join("; ")}.
					</Box>
				)}
				{data.data?.trouble && (
					<Box role="alert" color="madder" mt="4">
						Today's copy could not be made: {data.data.trouble} Make room, or save a backup elsewhere; it is tried again within the hour.
					</Box>
				)}
				{looked && (
					<Box mt="5" p="5" border="1px solid {colors.line}">
						<Box mb="3">
							In {looked.name}: {looked.say}
						</Box>
						{looked.cards.length > 0 && <Box mb="3">Cards in it: {looked.cards.join(", ")}.</Box>}
						<Box mb="3">Here now: {looked.here}</Box>
						{looked.gone.length > 0 && (
							<Box mb="3" color="madder">
								Not in it, and gone from here once it is brought back: {looked.gone.join(", ")}.
							</Box>
						)}
						<Box mb="4">It takes the place of everything here. What is here now is backed up beside the data file first.</Box>
						<Box display="flex" gap="4" alignItems="center">
							<Button variant="main" onClick={restore} disabled={busy !== ""}>
								Bring it back
							</Button>
							<Button
								onClick={() => {
									setChosen(undefined);
									setLooked(undefined);
									setTaken((n) => n + 1);
								}}
							>
								Leave it
							</Button>
							{looked.day && (
								<a href={`/api/data/copies/${looked.day}.db`} download>
									Save this copy
								</a>
							)}
						</Box>
					</Box>
				)}
			</Panel>
			{(data.data?.apart.length ?? 0) > 0 && (
				<Panel title={`Set apart: ${data.data?.apart.length}`}>
					<Box mb="4">
						These could not be read as they stood. Everything else works, and what could be put right was. Save them to look into, or remove them.
					</Box>
					<table>
						<tbody>
							{data.data?.apart.map((a) => (
								<tr key={a.kind + a.id}>
									<td>{a.kind === "rows" ? "data" : a.kind}</td>
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
