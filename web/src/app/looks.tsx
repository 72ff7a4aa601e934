import { Box } from "@chakra-ui/react";
import type { S } from "../api/client";
import { useKit, useRules } from "../api/queries";
import { Shape } from "../parts/notes";
import { size } from "../ui/sizes";
import { length, type Settings } from "../ui/units";

const stations: Record<string, string> = {
	pieces: "Pieces",
	inks: "Inks",
	register: "Register",
	front: "Front",
	depth: "Depth",
	cut: "Cut",
	work: "Work",
	stores: "Stores",
};

/** Everything the program looks for, by station, with the reason and the numbers it goes by. */
export default function Looks() {
	const rules = useRules();
	const s = useKit().data?.settings;
	if (!rules || !s) return null;
	return (
		<Box maxW="1100px">
			<h1 style={{ fontSize: size.place }}>What Ochrestone looks for</h1>
			<Box mt="3" mb="7" maxW="760px">
				{rules.length} things, on every card, after every change. What it finds stands in the margin notes of its station; a note can be set aside with a
				reason, and comes back only when its cause changes. Numbers are our own defaults unless a source is named.
			</Box>
			{Object.entries(stations).map(([id, name]) => (
				<section key={id} aria-label={name} style={{ marginBottom: 22 }}>
					<h2 style={{ fontSize: size.sub, borderBottom: "1px solid var(--chakra-colors-line)", paddingBottom: 4 }}>{name}</h2>
					{rules
						.filter((r) => r.station === id)
						.map((r) => (
							<Box key={r.id} display="grid" gridTemplateColumns="24px minmax(0, 1fr) 300px" gap="5" py="4" borderBottom="1px solid {colors.line}">
								<Box pt="1">
									<Shape kind={r.severity} />
								</Box>
								<Box>
									<b>{r.title}</b>
									<Box fontSize="text">{r.explain}</Box>
									<Box fontSize="small" color="quiet">
										{r.source.charAt(0).toUpperCase() + r.source.slice(1)}.
									</Box>
								</Box>
								<Box fontSize="small">
									{r.limits?.map((l) => (
										<Box key={l.name}>
											{l.name}: <b>{written(l, s)}</b>
											{l.set ? <Box color="quiet">Yours to set: {l.set}.</Box> : <span>, fixed</span>}
										</Box>
									))}
								</Box>
							</Box>
						))}
				</section>
			))}
		</Box>
	);
}

function written(l: S["Limit"], s: Settings): string {
	switch (l.unit) {
		case "mm":
			return s.unit === "mm" || l.value < 1.5 ? `${Math.round(l.value * 100) / 100} mm` : length(l.value, s);
		case "share":
			return `${Math.round(l.value * 100)} %`;
		case "L*":
			return `${l.value} of lightness`;
		case "none":
			return `${l.value} times`;
	}
	return `${l.value} apart (${l.unit})`;
}
