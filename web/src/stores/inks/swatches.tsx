import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { api, ok, type S, type State, sendBytes, takePicture } from "../../api/client";
import { useDrawer, useRefresh, useSwatchSheets } from "../../api/queries";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { FileField, pictures } from "../../ui/file";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { Panel } from "../shelf";

/** Colours measured: print a sheet, fill its cells, scan it wet and dry. */
export function SwatchSheets({ state }: { state: State }) {
	const refresh = useRefresh();
	const drawer = useDrawer();
	const sheets = useSwatchSheets();
	const [paper, setPaper] = useState("");
	const [strikes, setStrikes] = useState("1");
	const [number, setNumber] = useState(0);
	const [wet, setWet] = useState(false);
	const [file, setFile] = useState<File>();
	const [busy, setBusy] = useState("");
	const [wrong, setWrong] = useState("");
	const [read, setRead] = useState<{ cells: S["CellRead"][]; sure: string; notes: string[]; number: number; wet: boolean }>();
	const papers = state.kit.papers.filter((p) => p.kind !== "foam" && p.kind !== "acetate");
	const all = sheets.data ?? [];
	const chosen = all.find((s) => s.number === number) ?? all.at(-1);

	const guard = async (what: string, f: () => Promise<void>) => {
		setBusy(what);
		setWrong("");
		try {
			await f();
		} catch (e) {
			setWrong((e as Error).message);
		} finally {
			setBusy("");
		}
	};
	const layOut = () =>
		guard("Laying out the sheet…", async () => {
			const made = await ok(api.POST("/api/swatches/sheets", { body: { paper: paper || papers[0]?.id || "", strikes: Number(strikes) } }));
			await refresh("swatch-sheets");
			setNumber(made?.[0].number ?? 0);
		});
	const send = (blob: Blob) =>
		guard("Reading the cells…", async () => {
			if (!chosen) return;
			const body = await sendBytes<{ cells: S["CellRead"][]; sure: string; notes: string[] }>(`/api/swatches/sheets/${chosen.number}/read`, blob);
			setRead({ ...body, number: chosen.number, wet });
		});
	const device = () =>
		guard("Taking the picture…", async () => {
			if (!chosen) return;
			await send(await takePicture(`/api/device-swatches/${chosen.number}?state=${wet ? "wet" : "dry"}`));
		});
	const keep = () =>
		guard("Keeping them…", async () => {
			if (!read) return;
			const cells = read.cells.filter((c) => c.usable).map((c) => ({ ink: c.ink, impressions: c.impressions, colour: c.colour }));
			await ok(api.POST("/api/swatches/sheets/{number}/keep", { params: { path: { number: read.number } }, body: { wet: read.wet, cells } }));
			setRead(undefined);
			await refresh("state", "card", "cards");
		});
	/** A person says that a cell is right as it is. */
	const accept = (at: number) => read && setRead({ ...read, cells: read.cells.map((c, i) => (i === at ? { ...c, usable: true, trouble: "" } : c)) });
	/** A person says that two cells hold each other's ink. */
	const exchange = (at: number, other: number) =>
		read &&
		setRead({
			...read,
			cells: read.cells.map((c, i) => {
				const from = i === at ? read.cells[other] : i === other ? read.cells[at] : undefined;
				return from ? { ...c, colour: from.colour, l: from.l, sure: from.sure, apart: 0, usable: true, trouble: "", with: -1 } : c;
			}),
		});
	const d = drawer.data;
	const good = read?.cells.filter((c) => c.usable) ?? [];
	const bad = read?.cells.filter((c) => c.trouble) ?? [];
	return (
		<Panel title="Measure your inks">
			<Box fontSize="small" mb="4">
				{d && d.measured > 0
					? `${d.measured} of ${d.inks} inks measured, ${d.swatches} swatches.${d.heldBack > 0 ? ` Your drawer: ${d.error.toFixed(1)} apart on average on papers you have not swatched (${d.default.toFixed(1)} from typed colours alone).` : " Swatch them on a second paper to learn how well other papers are foretold."}`
					: "A typed colour is a guess. Print a sheet on your card, fill each cell with its ink, and scan or photograph it: the drawer then knows what each ink dries to."}
			</Box>
			<Box display="flex" gap="5" alignItems="end" flexWrap="wrap">
				<Select label="Paper of the sheet" value={paper || papers[0]?.id} onChange={(v) => setPaper(v)}>
					{papers.map((p) => (
						<option key={p.id} value={p.id}>
							{p.name}
						</option>
					))}
				</Select>
				<Select label="Cells for" value={strikes} onChange={(v) => setStrikes(v)}>
					<option value="1">one impression</option>
					<option value="2">one and two impressions</option>
					<option value="3">one, two and three</option>
				</Select>
				<Button disabled={!!busy || papers.length === 0 || state.kit.inks.length === 0} onClick={layOut}>
					Lay out a sheet
				</Button>
				{all.length > 0 && (
					<>
						<Select label="Sheet" value={`${chosen?.number ?? ""}`} onChange={(v) => setNumber(Number(v))}>
							{all.map((s) => (
								<option key={s.number} value={s.number}>
									{s.number}, {s.name}, {s.cells.length} cells
								</option>
							))}
						</Select>
						<a href={`/api/swatches/sheets/${chosen?.number}/sheet.pdf`}>Print sheet {chosen?.number}</a>
					</>
				)}
			</Box>
			{chosen && (
				<Box display="flex" gap="5" alignItems="end" flexWrap="wrap" mt="5">
					<FileField label={`Sheet ${chosen.number}, filled`} accept={pictures} onFile={setFile} />
					<Select label="It is" value={wet ? "wet" : "dry"} onChange={(v) => setWet(v === "wet")}>
						<option value="dry">dry</option>
						<option value="wet">wet</option>
					</Select>
					<Button variant="main" disabled={!file || !!busy} onClick={() => file && send(file)}>
						Read the sheet
					</Button>
					{state.demo && (
						<Button disabled={!!busy} onClick={device}>
							Fill and scan it with the simulated scanner
						</Button>
					)}
					{busy && <span role="status">{busy}</span>}
				</Box>
			)}
			{wrong && (
				<Box role="alert" color="madder" mt="4">
					{wrong}
				</Box>
			)}
			{read && (
				<Box mt="6">
					<b>
						{good.length} of {read.cells.length} cells read, {read.wet ? "wet" : "dry"}.
					</b>{" "}
					<span style={{ fontSize: size.small }}>{read.sure}</span>
					<Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(132px, 1fr))" gap="4" mt="4" fontSize="note" bg={hue.bed} p="5">
						{read.cells.map((c, at) => (
							<Box key={c.ink + c.impressions}>
								<Box display="flex" border={`1px solid ${hue.edge}`} opacity={c.usable ? 1 : 0.45} title="What was known, then what was read">
									<span style={{ flex: 1, height: 30, background: c.known || "transparent" }} />
									<span style={{ flex: 2, height: 30, background: c.colour }} />
								</Box>
								{c.name}
								{c.impressions > 1 && ` × ${c.impressions}`}
								<Box color={c.trouble ? "madder" : "text"} fontWeight={c.trouble ? 700 : 400}>
									{c.trouble || `lightness ${Math.round(c.l)}, sure to ${c.sure.toFixed(1)}${c.apart > 0 ? `, ${c.apart.toFixed(1)} off` : ""}`}
								</Box>
								{!c.usable && c.trouble !== "it is empty" && (
									<Box display="flex" gap="2" flexWrap="wrap" mt="1">
										{c.with >= 0 && (
											<Button onClick={() => exchange(at, c.with)} aria-label={`They were: ${c.name} and ${read.cells[c.with].name}`}>
												They were
											</Button>
										)}
										<Button onClick={() => accept(at)} aria-label={`Use it as it is: ${c.name}`}>
											Use it as it is
										</Button>
									</Box>
								)}
							</Box>
						))}
					</Box>
					{read.notes.map((n) => (
						<Box key={n} fontSize="small" mt="3" borderLeft="4px solid {colors.fill}" pl="4">
							{n}
						</Box>
					))}
					{bad.length > 0 && (
						<Box fontSize="small" mt="3">
							Cells that are pale here are left out until you say otherwise: fill them again and read the sheet once more, or take them as they are.
						</Box>
					)}
					<Box mt="4" display="flex" gap="4">
						<Button variant="main" disabled={!!busy || good.length === 0} onClick={keep}>
							Keep the {good.length} colours
						</Button>
						<Button onClick={() => setRead(undefined)}>Do not keep them</Button>
					</Box>
				</Box>
			)}
		</Panel>
	);
}
