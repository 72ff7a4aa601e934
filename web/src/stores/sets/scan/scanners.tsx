import { Box } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type S, sendBytes, takePicture } from "../../../api/client";
import { scannersKey, useScanners } from "../../../api/queries";
import { Button } from "../../../ui/button";
import { TextField } from "../../../ui/field";
import { FileField, pictures } from "../../../ui/file";
import { LengthField } from "../../../ui/length";
import { Select } from "../../../ui/select";
import { size } from "../../../ui/sizes";

/** Scanners as they were measured, and measuring one: what it makes of a millimetre across and down. */
export function Scanners({ demo, chosen, onChosen }: { demo: boolean; chosen: string; onChosen: (name: string) => void }) {
	const all = useScanners();
	const client = useQueryClient();
	const [name, setName] = useState("");
	const [from, setFrom] = useState<"card" | "mat">("card");
	const [file, setFile] = useState<Blob>();
	const [dpi, setDpi] = useState("");
	const [measured, setMeasured] = useState(0);
	const [busy, setBusy] = useState(false);
	const [wrong, setWrong] = useState("");
	const read = async (page: Blob) => {
		setBusy(true);
		setWrong("");
		try {
			const q = new URLSearchParams({ name, from, dpi: String(Number(dpi) || 0), measured: String(measured) });
			client.setQueryData(scannersKey, await sendBytes<S["Scanner"][]>(`/api/scanners?${q}`, page));
			onChosen(name.trim());
		} catch (e) {
			setWrong((e as Error).message);
		} finally {
			setBusy(false);
		}
	};
	const simulated = async () => {
		try {
			await read(await takePicture("/api/device/card"));
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const forget = async (gone: string) => {
		setWrong("");
		try {
			client.setQueryData(scannersKey, await ok(api.DELETE("/api/scanners/{name}", { params: { path: { name: gone } } })));
			if (chosen === gone) onChosen("");
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const one = all.data?.find((d) => d.name === chosen);
	return (
		<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9">
			<h2 style={{ fontSize: size.sub, marginBottom: 4 }}>Measure your scanner</h2>
			<Box fontSize="small" mb="4">
				Once for each scanner. Lay a bank card by itself on the glass, under a dark sheet if it is light, and scan it as you scan pieces. Its size is known;
				what is drawn too long or too short is taken off every scan after that. The picture is not kept.
			</Box>
			<Box display="flex" gap="5" flexWrap="wrap" alignItems="end">
				<TextField label="Name of the scanner" value={name} onChange={(e) => setName(e.target.value)} width="180px" />
				<Select label="Measured by" value={from} onChange={(v) => setFrom(v === "mat" ? "mat" : "card")}>
					<option value="card">a bank card</option>
					<option value="mat">the printed mat</option>
				</Select>
				{from === "mat" && <LengthField label="Middle to middle of the upper corner marks, by ruler" mm={measured} onSet={setMeasured} width="120px" />}
				<FileField label="Scan of it" accept={pictures} onFile={setFile} />
				<TextField
					label="Its dots to the inch"
					inputMode="numeric"
					placeholder="as the file says"
					value={dpi}
					onChange={(e) => setDpi(e.target.value)}
					width="140px"
				/>
				<Button disabled={busy || !file || !name.trim()} onClick={() => file && read(file)}>
					{busy ? "Measuring…" : "Measure it"}
				</Button>
				{demo && from === "card" && (
					<Button disabled={busy || !name.trim()} onClick={simulated}>
						Measure the simulated one
					</Button>
				)}
			</Box>
			{wrong && (
				<Box role="alert" color="madder" mt="3">
					{wrong}
				</Box>
			)}
			{all.data?.map((d) => (
				<Box key={d.name} mt="4" fontSize="small" display="flex" gap="4" alignItems="baseline" role="status">
					<b>{d.name}</b>
					<span style={{ flex: 1 }}>
						{d.said} {d.on}
					</span>
					<Button onClick={() => forget(d.name)}>Forget {d.name}</Button>
				</Box>
			))}
			{one && (
				<Box fontSize="small" mt="3">
					Scans are corrected for {one.name}.
				</Box>
			)}
		</Box>
	);
}
