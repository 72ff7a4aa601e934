import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import { api, ok } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";
import { size } from "../../ui/sizes";

/** What to do first, in three steps, while something of it is missing. */
export function Begin({ shelf }: { shelf: boolean }) {
	const refresh = useRefresh();
	const [wrong, setWrong] = useState("");
	const starter = async () => {
		try {
			await ok(api.POST("/api/starter"));
			await refresh("state", "cards");
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	return (
		<Box bg="sheet" border="1px solid {colors.line}" py="8" px="9" mb="9" maxW="760px">
			<h2 style={{ fontSize: size.sub }}>First, tell Ochrestone what you own</h2>
			<ol style={{ margin: "8px 0 0 20px", lineHeight: 1.7 }}>
				<li>
					<Link to="/stores/cardstock">Cardstock</Link>: colour and thickness of the sheets you cut from.
				</li>
				<li>
					<Link to="/stores/inks">Inks</Link>: the colour each dries to, typed from a swatch.
				</li>
				<li>
					<Link to="/stores/sets">Sets</Link>: import the drawing (SVG) of a layered die or stamp set.
				</li>
			</ol>
			<Box mt="2">Then make a card here.</Box>
			{shelf && (
				<Box mt="5" display="flex" gap="5" alignItems="center" flexWrap="wrap">
					<Button onClick={starter}>Begin with a starter shelf</Button>
					<Box flex="1" minW="300px" fontSize="small" color="quiet">
						Usual cardstock, foam, glue and envelopes with usual values, each named as such until you measure yours. Your inks and sets are your own.
					</Box>
				</Box>
			)}
			{wrong && (
				<Box role="alert" color="madder" mt="3">
					{wrong}
				</Box>
			)}
		</Box>
	);
}
