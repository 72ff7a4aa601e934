import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../../api/card";
import { TextField } from "../../ui/field";
import { LengthField } from "../../ui/length";
import { Select } from "../../ui/select";
import { length } from "../../ui/units";
import { TurningJig } from "./jig";

type Kind = "jig" | "corner" | "die" | "words" | "masks";

/** Sheets to print at true size for placing: jigs, guides, templates and masks. */
export function Sheets({ w }: { w: number }) {
	const b = useBench();
	const [kind, setKind] = useState<Kind>("jig");
	return (
		<Box display="flex" flexDirection="column" gap="5">
			<Select label="Sheet to print at true size" value={kind} onChange={(v) => setKind(v as Kind)} width="260px">
				<option value="jig">turning jig</option>
				<option value="corner">corner jig</option>
				<option value="die">die as a guide</option>
				<option value="words">window template for words</option>
				<option value="masks">masks in printing order</option>
			</Select>
			{kind === "jig" && <TurningJig w={w} />}
			{kind === "corner" && <CornerJig />}
			{kind === "die" && (
				<>
					<Box>The die's outline with every stamp in its place inside it: the die is laid round, each stamp laid in it, and the lid takes it up.</Box>
					<Print href={`/api/cards/${b.view.id}/die-guide.pdf?${new URLSearchParams({ motif: b.motif?.id ?? "" })}`}>Print the die guide</Print>
				</>
			)}
			{kind === "words" && <WordTemplate />}
			{kind === "masks" && <Masks />}
			<Box color="quiet">Every sheet carries a bar of 100 mm and of 4 in: measure it before you trust the rest.</Box>
		</Box>
	);
}

function Print({ href, children }: { href: string; children: string }) {
	return (
		<Box>
			<a className="main-link" href={href} target="_blank" rel="noreferrer">
				{children}
			</a>
		</Box>
	);
}

const row = { display: "flex", gap: "10px", flexWrap: "wrap", alignItems: "end" } as const;

function CornerJig() {
	const b = useBench();
	const panel = b.view.plan.front.sheets.find((x) => x.panel);
	const [w, setW] = useState(Math.round((panel?.w ?? 101.6) * 10) / 10);
	const [h, setH] = useState(Math.round((panel?.h ?? 133.4) * 10) / 10);
	const [x, setX] = useState(Math.round((panel?.w ?? 101.6) * 5) / 10);
	const [y, setY] = useState(Math.round((panel?.h ?? 133.4) * 5) / 10);
	const q = new URLSearchParams({ motif: b.motif?.id ?? "", w: `${w}`, h: `${h}`, x: `${x}`, y: `${y}` });
	return (
		<>
			<Box>Two rails to push the paper against, and the image where it comes to stand on it.</Box>
			<Box {...row}>
				<LengthField label="Paper, wide" mm={w} onSet={setW} min={10} max={260} />
				<LengthField label="high" mm={h} onSet={setH} min={10} max={260} />
			</Box>
			<Box {...row}>
				<LengthField label="Middle from left" mm={x} onSet={setX} min={0} max={260} />
				<LengthField label="from top" mm={y} onSet={setY} min={0} max={260} />
			</Box>
			<Box>
				The paper is {length(w, b.state.settings)} × {length(h, b.state.settings)}.
			</Box>
			<Print href={`/api/cards/${b.view.id}/corner.pdf?${q}`}>Print the corner jig</Print>
		</>
	);
}

function WordTemplate() {
	const b = useBench();
	const alphabets = b.state.kit.sets.filter((s) => s.parts.filter((p) => [...p.label].length === 1).length >= 2);
	const [text, setText] = useState("thank you");
	const [set, setSet] = useState("");
	const [height, setHeight] = useState(14);
	const [gap, setGap] = useState(1.5);
	const [bounce, setBounce] = useState(0);
	const q = new URLSearchParams({ text, set, height: `${height}`, gap: `${gap}`, bounce: `${bounce}` });
	return (
		<>
			<Box>Windows for the cut letters to drop into: spaced by their outlines, on the line or bouncing off it.</Box>
			<Box {...row}>
				<TextField label="Words" value={text} maxLength={40} onChange={(e) => setText(e.target.value)} width="180px" />
				<Select label="Letter dies" value={set} onChange={(v) => setSet(v)}>
					<option value="">plain, drawn here</option>
					{alphabets.map((s) => (
						<option key={s.id} value={s.id}>
							{s.name}
						</option>
					))}
				</Select>
			</Box>
			<Box {...row}>
				{set === "" && <LengthField label="Capital" mm={height} onSet={setHeight} min={4} max={120} />}
				<LengthField label="Between" mm={gap} onSet={setGap} min={0} max={40} />
				<LengthField label="Bounce" mm={bounce} onSet={setBounce} min={0} max={40} />
			</Box>
			{text.trim() ? <Print href={`/api/words.pdf?${q}`}>Print the template</Print> : <Box>Type a word first.</Box>}
		</>
	);
}

function Masks() {
	const b = useBench();
	const [inset, setInset] = useState(0.4);
	return (
		<>
			<Box>For images printed straight on the panel that overlap: what stands in front is printed first and masked, then what is behind.</Box>
			<LengthField kind="thin" label="Smaller than the print by" mm={inset} onSet={setInset} min={0} max={5} />
			<Print href={`/api/cards/${b.view.id}/masks.pdf?${new URLSearchParams({ inset: `${inset}` })}`}>Print the masks</Print>
		</>
	);
}
