import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { Button } from "../ui/button";
import { hue } from "../ui/colours";
import { stations } from "./stations";

const keys: [string, string][] = [
	[`1 to ${stations.length}`, "go to a station"],
	["↑ ↓", "walk the strata"],
	["Alt + ↑ ↓", "move a stratum up or down"],
	[", and .", "next lighter or darker ink you own (Inks)"],
	["← → ↑ ↓", "move what is selected by a small step (Front, Register)"],
	["[ and ]", "turn what is selected: one degree in Front, a fifth of one in Register"],
	["Space", "step done (Work)"],
	["U", "inches or millimetres"],
	["Ctrl + Z, Ctrl + Shift + Z", "undo, redo"],
	["?", "this page"],
];
const words: [string, string][] = [
	["Strata", "a vertical sample through what is being made, lowest layer at the bottom, thickness to scale"],
	["Stratum, film", "a cut piece is a stratum with a thickness; a print is a film on the one that carries it"],
	["Play", "how far a layer may be off, in each direction and in turn, before it shows"],
	["Station", "one stage of the work; open them in any order"],
	["The table", "where the thing being made lies, at true proportion"],
	["The stores", "what you own: sets, inks, cardstock, foam, adhesives, envelopes"],
	["Margin notes", "what the program foresees on this card: what, why, and what to do; see What Ochrestone looks for"],
	["Colourway", "one choice of papers and inks for all layers of an image"],
];

export function Help({ onClose }: { onClose: () => void }) {
	const ref = useRef<HTMLDialogElement>(null);
	useEffect(() => {
		ref.current?.showModal();
	}, []);
	return (
		<dialog
			ref={ref}
			onClose={onClose}
			aria-label="Keys and words"
			style={{ border: `1px solid ${hue.rule}`, padding: 24, maxWidth: 760, background: hue.sheet, color: hue.text }}
		>
			<Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(280px, 1fr))" gap="28px">
				<Box>
					<h2>Keys</h2>
					<table>
						<tbody>
							{keys.map(([k, v]) => (
								<tr key={k}>
									<th scope="row">{k}</th>
									<td>{v}</td>
								</tr>
							))}
						</tbody>
					</table>
				</Box>
				<Box>
					<h2>Words of our own</h2>
					{words.map(([k, v]) => (
						<Box key={k} mt="8px" fontSize="13px">
							<b>{k}</b>: {v}.
						</Box>
					))}
				</Box>
			</Box>
			<Box mt="18px">
				<Button onClick={() => ref.current?.close()} variant="main">
					Close
				</Button>
			</Box>
		</dialog>
	);
}
