import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../api/card";
import { Button } from "../ui/button";

/** What can be printed and saved of the card. */
export function SaveMenu() {
	const b = useBench();
	const [open, setOpen] = useState(false);
	const at = `/api/cards/${b.view.id}`;
	return (
		<Box position="relative">
			<Button variant="main" onClick={() => setOpen(!open)} aria-expanded={open}>
				Print and save
			</Button>
			{open && (
				<Box
					position="absolute"
					right="0"
					top="34px"
					bg="white"
					border="1px solid {colors.line}"
					p="8px 14px"
					zIndex={20}
					display="flex"
					flexDirection="column"
					gap="8px"
					w="280px"
					onClick={() => setOpen(false)}
				>
					<a href={`${at}/sheet.pdf`} target="_blank" rel="noreferrer">
						Layering guide and work sheet (PDF)
					</a>
					<a href={`${at}/recipe.csv`} download>
						Ink recipe (CSV)
					</a>
					<a href={`${at}/recipe.gpl`} download>
						Its dried colours (GPL palette)
					</a>
					<a href={`${at}/front.svg`} download>
						The front as a drawing (SVG, mm)
					</a>
					<a href={`${at}/front.png`} download>
						The front as a picture (PNG, 300 dpi)
					</a>
				</Box>
			)}
		</Box>
	);
}
