import { Box } from "@chakra-ui/react";
import { Link, useLocation } from "react-router";
import { openNotes, useDocument } from "../api/card";
import { useGuest } from "../api/queries";
import { hue } from "../ui/colours";
import { size } from "../ui/sizes";
import { forGuests, stations } from "./stations";

/** The path of stones: its shape says how far a station is and whether it has notes. */
export function Stones({ station }: { station: string }) {
	const b = useDocument();
	const guest = useGuest();
	const open = guest ? stations.filter((s) => forGuests.includes(s.id)) : stations;
	const at = useLocation().pathname;
	return (
		<Box
			as="nav"
			aria-label="Stations"
			className="paths"
			bg="sheet"
			borderBottom="1px solid {colors.line}"
			display="flex"
			alignItems="center"
			px="10"
			minH="52px"
			gap="2"
			overflowX="auto"
		>
			{open.map(({ id: s, title, mood: how }, i) => {
				const notes = openNotes(b.view.plan.findings).filter((f) => f.station === s && f.severity !== "tip").length;
				const here = station === s;
				const mood = how(b);
				return (
					<Box key={s} display="flex" alignItems="center" flex={i + 1 < open.length ? "1" : "none"} minW="fit-content">
						<Link
							to={at.replace(/[^/]+$/, s)}
							aria-current={here ? "page" : undefined}
							style={{
								display: "flex",
								alignItems: "center",
								gap: 8,
								color: here ? hue.text : hue.quiet,
								fontWeight: 600,
								fontFamily: "Bricolage Grotesque",
								fontSize: size.lead,
								padding: "8px 4px",
							}}
						>
							<svg width="45" height="33" viewBox="0 -1 45 33" role="img" aria-label={`${mood}${notes ? `, ${notes} ${notes === 1 ? "note" : "notes"}` : ""}`}>
								<path
									className="stone"
									d="M6 14L14 6l13 1 8 7-4 11-16 2-8-5z"
									fill={here ? hue.fill : mood === "settled" ? hue.slate : hue.white}
									stroke={here ? hue.ochre : hue.slate}
									strokeWidth="2"
									strokeLinejoin="round"
								/>
								{mood === "in hand" && !here && <path d="M5.6 17 L33.6 17 L31 25 L15 27 L7 22Z" fill={hue.rule} />}
								{notes > 0 && (
									<>
										<path d="M34 0l10 17H24z" fill={hue.white} stroke={hue.madder} strokeWidth="1.6" strokeLinejoin="round" />
										<text x="34" y="14.5" fontSize="11" fontWeight="700" textAnchor="middle" fill={hue.madder}>
											{notes}
										</text>
									</>
								)}
							</svg>
							<span className="stone-title">{title}</span>
						</Link>
						{i + 1 < open.length && <Box className="way" flex="1" h="1px" bg={hue.rule} minW="12px" mx="5" />}
					</Box>
				);
			})}
		</Box>
	);
}
