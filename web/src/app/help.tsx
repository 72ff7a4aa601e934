import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useLocation } from "react-router";

import { Button } from "../ui/button";
import Dialog from "../ui/dialog";
import { type Look, look, setLook } from "../ui/page";
import { Select } from "../ui/select";
import { sayGuide } from "./guide";
import { stations } from "./stations";

/** A key, what it does, and the stations where it does it; everywhere without. */
const keys: { key: string; does: string; at?: string[] }[] = [
	{ key: "← → ↑ ↓", does: "move what is selected by a small step", at: ["front"] },
	{ key: "[ and ]", does: "turn what is selected by one degree", at: ["front"] },
	{ key: "← → ↑ ↓", does: "move the layer by a tenth of a millimetre", at: ["register"] },
	{ key: "[ and ]", does: "turn the layer by a fifth of a degree", at: ["register"] },
	{ key: ", and .", does: "next lighter or darker ink you own", at: ["inks"] },
	{ key: "Space", does: "step done", at: ["work"] },
	{ key: "← →", does: "look at the step before, or after, without ticking anything", at: ["work"] },
	{ key: `1 to ${stations.length}`, does: "go to a station" },
	{ key: "↑ ↓", does: "walk the strata" },
	{ key: "Alt + ↑ ↓", does: "move a stratum up or down" },
	{ key: "↑ ↓ in a length", does: "a sixteenth of an inch, or half a millimetre, more or less" },
	{ key: "U", does: "inches or millimetres" },
	{ key: "Ctrl + Z, Ctrl + Shift + Z", does: "undo, redo" },
	{ key: "/", does: "find a card, an ink, a set, a place" },
	{ key: "?", does: "this page" },
];
/** A word, what it means, and the stations where it is met; everywhere without. */
const words: [string, string, string[]?][] = [
	["Layer, host", "a piece or print of an image; its host is the layer it lies on", ["pieces", "register"]],
	["Laid apart", "the layers side by side as they come out of the die or off the stamp", ["pieces"]],
	["School", "the order of lightness an image keeps: light ground, dark ground, local colour, each piece shaded", ["inks"]],
	["Weakest pair", "the two layers that touch and are hardest to tell apart; the number is their distance in colour, CIEDE2000", ["inks"]],
	["Wet, dried", "inks dry lighter and duller; what is shown dried is what the card will look like", ["inks", "log"]],
	["Way of placing", "how a layer is put in its place: by eye, with a template, in the corner of the positioner", ["register"]],
	["Blanks", "pieces of card prepared so that enough come out in spite of misses", ["register", "cut"]],
	["Mat, panel", "a mat is a sheet laid by the border it leaves; the panel is the last of them", ["front"]],
	["Crossing", "a part that goes over a thing the rest of its image goes under, or under one it goes over", ["front"]],
	["Pad", "a piece of foam beneath a part; a part may rock on its pads, lean, bow or hang in the air", ["depth"]],
	["Level", "parts whose tops are equally high", ["depth"]],
	["Offcut", "what is left of a sheet and worth keeping: it is cut from first", ["cut"]],
	["Grain", "how the fibres of a sheet run; card folds cleanly along them", ["cut"]],
	["Sitting", "all cards that are made together, in one order", ["cut", "work"]],
	["Wait", "the time something has to dry or set; it runs on though nobody looks", ["work"]],
	["Run", "the work on a card from the first step to the last, of the card as it was when it began", ["work", "log"]],
	["Came out well", "how many of the cards you would send", ["log"]],
	["Strata", "a vertical sample through what is being made, lowest layer at the bottom, thickness to scale"],
	["Stratum, film", "a cut piece is a stratum with a thickness; a print is a film on the one that carries it"],
	["Play", "how far a layer may be off, in each direction and in turn, before it shows"],
	["Station", "one stage of the work; open them in any order"],
	["The table", "where the thing being made lies, at true proportion"],
	["The stores", "what you own: sets, inks, cardstock, foam, adhesives, envelopes, gems"],
	["Margin notes", "what the program foresees on this card: what, why, and what to do; see What Ochrestone looks for"],
	["Colourway", "one choice of papers and inks for all layers of an image"],
];

function Words({ title, of }: { title: string; of: typeof words }) {
	return (
		<Box mb="6">
			<h2>{title}</h2>
			{of.map(([k, v]) => (
				<Box key={k} mt="4" fontSize="small">
					<b>{k}</b>: {v}.
				</Box>
			))}
		</Box>
	);
}

/** How the page looks on this screen. */
function ThisPage({ onClose }: { onClose: () => void }) {
	const [l, set] = useState(look);
	const change = (c: Partial<Look>) => {
		const next = { ...l, ...c };
		set(next);
		setLook(next);
	};
	return (
		<Box display="flex" gap="6" flexWrap="wrap" alignItems="flex-end" mb="7">
			<Select label="The room is" value={l.room} onChange={(v) => change({ room: v as Look["room"] })}>
				<option value="light">light</option>
				<option value="dark">dark</option>
			</Select>
			<Select label="Letters" value={l.letters} onChange={(v) => change({ letters: v as Look["letters"] })}>
				<option value="usual">usual</option>
				<option value="large">large</option>
			</Select>
			<Button
				onClick={() => {
					sayGuide("called");
					onClose();
				}}
			>
				Lead me through a card
			</Button>
			<Box fontSize="small" color="quiet" flex="1" minW="220px">
				On this screen alone. Judge colours in the light: against dark every ink looks paler.
			</Box>
		</Box>
	);
}

export default function Help({ onClose }: { onClose: () => void }) {
	const path = useLocation().pathname;
	const here = stations.find((s) => path.endsWith(`/${s.id}`));
	const title = (id: string) => stations.find((s) => s.id === id)?.title;
	const groups: [string, typeof keys][] = [
		[here ? `Keys at ${here.title}` : "", keys.filter((k) => here && k.at?.includes(here.id))],
		[here ? "Keys everywhere" : "Keys", keys.filter((k) => !k.at)],
		["At other stations", keys.filter((k) => k.at && !(here && k.at.includes(here.id)))],
	];
	return (
		<Dialog title="Keys and words" onClose={onClose}>
			<ThisPage onClose={onClose} />
			<Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(280px, 1fr))" gap="11">
				<Box>
					{groups
						.filter(([, rows]) => rows.length > 0)
						.map(([name, rows]) => (
							<Box key={name} mb="6">
								<h2>{name}</h2>
								<table>
									<tbody>
										{rows.map((k) => (
											<tr key={k.key + k.does}>
												<th scope="row">{k.key}</th>
												<td>
													{k.does}
													{name === "At other stations" && ` (${k.at?.map(title).join(", ")})`}
												</td>
											</tr>
										))}
									</tbody>
								</table>
							</Box>
						))}
				</Box>
				<Box>
					{here && <Words title={`Words at ${here.title}`} of={words.filter(([, , at]) => at?.includes(here.id))} />}
					<Words title={here ? "Words everywhere" : "Words of our own"} of={words.filter(([, , at]) => !at)} />
				</Box>
			</Box>
		</Dialog>
	);
}
