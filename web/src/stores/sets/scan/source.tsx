import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { takePicture } from "../../../api/client";
import { useDeviceSets, useScanners } from "../../../api/queries";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { TextField } from "../../../ui/field";
import { FileField, pictures } from "../../../ui/file";
import { LengthField } from "../../../ui/length";
import { Select } from "../../../ui/select";
import { size } from "../../../ui/sizes";
import type { As } from "./found";
import { Scanners } from "./scanners";

const kinds: { as: As; name: string; how: string }[] = [
	{
		as: "pieces",
		name: "Flatbed scan of cut pieces",
		how: "Light pieces on a dark sheet, or dark ones on a light sheet, a little apart, none over the edge. 300 dpi is plenty.",
	},
	{
		as: "mat",
		name: "Phone picture on the measuring mat",
		how: "Print the mat at 100 %, lay the pieces in its field and take the whole page from straight above.",
	},
	{
		as: "stamps",
		name: "Stamped sheet",
		how: "Every step of a layering stamp printed apart on white, one ink each, a thumb's breadth between them, all the same way up.",
	},
	{ as: "stencil", name: "Stencil", how: "The whole plate on white or black paper that shows through its openings." },
];

/** A picture to be read: what it shows, and what is known of how it was taken. */
export type OnPicture = (file: Blob, name: string, as: As, known: { dpi: number; ground: string; scanner: string; thick: number }) => void;

/** Where the picture comes from. */
export function Source({ demo, busy, onPicture }: { demo: boolean; busy: boolean; onPicture: OnPicture }) {
	const [as, setAs] = useState<As>("pieces");
	const [file, setFile] = useState<File>();
	const [dpi, setDpi] = useState("");
	const [ground, setGround] = useState("any");
	const [scanner, setScanner] = useState("");
	const [thick, setThick] = useState(0.3);
	const scanners = useScanners();
	const known = {
		dpi: as === "mat" ? 0 : Number(dpi) || 0,
		ground: as === "pieces" ? ground : "any",
		scanner: as === "mat" ? "" : scanner,
		thick: as === "mat" ? thick : 0,
	};
	return (
		<Box px="9" display="grid" gridTemplateColumns="repeat(auto-fit, minmax(420px, 1fr))" gap="9" alignItems="start">
			<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9">
				<fieldset style={{ border: 0, padding: 0, margin: 0 }}>
					<legend style={{ fontWeight: 700, fontSize: size.sub, marginBottom: 6 }}>What does the picture show?</legend>
					{kinds.map((k) => (
						<label key={k.as} style={{ display: "flex", gap: 10, padding: "7px 0", cursor: "pointer" }}>
							<input type="radio" name="as" value={k.as} checked={as === k.as} onChange={() => setAs(k.as)} style={{ accentColor: hue.ochre, minHeight: 18 }} />
							<span>
								<b>{k.name}</b>
								<br />
								<span style={{ fontSize: size.small, color: hue.quiet }}>{k.how}</span>
							</span>
						</label>
					))}
				</fieldset>
				{as === "mat" && (
					<Box fontSize="small" mt="3">
						Print the mat: <a href="/api/mat.pdf?page=letter&field=dark">letter, dark field</a>, <a href="/api/mat.pdf?page=letter">letter, white field</a>,{" "}
						<a href="/api/mat.pdf?page=a4&field=dark">A4, dark field</a>, <a href="/api/mat.pdf?page=a4">A4, white field</a>. Light pieces want the dark field.
					</Box>
				)}
			</Box>
			<Box display="grid" gap="9">
				<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9">
					<h2 style={{ fontSize: size.sub, marginBottom: 8 }}>Your picture</h2>
					<Box display="flex" gap="5" flexWrap="wrap" alignItems="end">
						<FileField label="PNG, JPEG or TIFF" accept={pictures} onFile={setFile} />
						{as !== "mat" && (
							<TextField
								label="Dots to the inch"
								inputMode="numeric"
								placeholder="as the file says"
								value={dpi}
								onChange={(e) => setDpi(e.target.value)}
								width="140px"
							/>
						)}
						{as === "pieces" && (
							<Select label="They lie on" value={ground} onChange={(v) => setGround(v)}>
								<option value="any">whatever it is</option>
								<option value="dark">a dark sheet</option>
								<option value="light">a light sheet</option>
							</Select>
						)}
						{as !== "mat" && (scanners.data?.length ?? 0) > 0 && (
							<Select label="Scanned on" value={scanner} onChange={setScanner}>
								<option value="">one that was not measured</option>
								{scanners.data?.map((d) => (
									<option key={d.name} value={d.name}>
										{d.name}
									</option>
								))}
							</Select>
						)}
						{as === "mat" && <LengthField label="How thick the card is" kind="thin" min={0} mm={thick} onSet={setThick} width="120px" />}
						<Button variant="main" disabled={!file || busy} onClick={() => file && onPicture(file, file.name.replace(/\.[^.]+$/, ""), as, known)}>
							Find the pieces
						</Button>
					</Box>
					<Box fontSize="small" color="quiet" mt="4">
						The picture stays on this machine.
					</Box>
				</Box>
				{demo && <Device as={as} busy={busy} onPicture={(file, name, as) => onPicture(file, name, as, { ...known, dpi: 0, ground: "any", thick: 0 })} />}
				{as !== "mat" && <Scanners demo={demo} chosen={scanner} onChosen={setScanner} />}
			</Box>
		</Box>
	);
}

const devices: Record<As, string> = {
	pieces: "simulated scanner",
	mat: "simulated phone camera",
	stamps: "simulated scanner, stamped sheet",
	stencil: "simulated scanner, stencil",
};

/** The simulated device of the demo, named as such. */
function Device({ as, busy, onPicture }: { as: As; busy: boolean; onPicture: (file: Blob, name: string, as: As) => void }) {
	const sets = useDeviceSets();
	const [set, setSet] = useState("");
	const [seed, setSeed] = useState(1);
	const [wrong, setWrong] = useState("");
	const [taking, setTaking] = useState(false);
	const chosen = sets.data?.find((s) => s.id === set) ?? sets.data?.[0];
	const take = async () => {
		if (!chosen) return;
		setTaking(true);
		setWrong("");
		try {
			const blob = await takePicture(`/api/device/${as}?${new URLSearchParams({ set: chosen.id, seed: String(seed) })}`);
			setSeed(seed + 1);
			onPicture(blob, chosen.name, as);
		} catch (e) {
			setWrong((e as Error).message);
		} finally {
			setTaking(false);
		}
	};
	return (
		<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9">
			<h2 style={{ fontSize: size.sub, marginBottom: 4 }}>No device at hand?</h2>
			<Box fontSize="small" mb="4">
				The {devices[as]} lays a set down and takes a picture of it, with noise, shadow and uneven light.
			</Box>
			<Box display="flex" gap="5" alignItems="end" flexWrap="wrap">
				<Select label="Set to lay down" value={chosen?.id ?? ""} onChange={(v) => setSet(v)}>
					{(sets.data ?? []).map((s) => (
						<option key={s.id} value={s.id}>
							{s.name}
						</option>
					))}
				</Select>
				<Button disabled={busy || taking || !chosen} onClick={take}>
					{taking ? "Taking the picture…" : "Use the simulated device"}
				</Button>
			</Box>
			{wrong && (
				<Box role="alert" color="madder" mt="3">
					{wrong}
				</Box>
			)}
		</Box>
	);
}
