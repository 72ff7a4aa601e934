import { Box } from "@chakra-ui/react";
import { type ReactNode, useEffect } from "react";
import { NavLink } from "react-router";
import { useGuest, useKit } from "../api/queries";
import { hue } from "../ui/colours";
import { Boundary } from "./boundary";
import { Guide } from "./guide";
import { Header } from "./header";

const names = { bench: "The bench", stores: "The stores", looks: "What Ochrestone looks for" };

/** Round the bench and the stores. */
export function Shell({ at, children }: { at: keyof typeof names; children: ReactNode }) {
	useEffect(() => {
		document.title = `${names[at]}, Ochrestone`;
	}, [at]);
	const kit = useKit();
	const guest = useGuest();
	return (
		<Box minH="100vh" display="flex" flexDirection="column">
			<Header>
				<Box as="nav" aria-label="Places" display="flex" gap="9" ml="6">
					<NavLink to="/" end style={tab}>
						The bench
					</NavLink>
					{!guest && (
						<NavLink to="/stores" style={tab}>
							The stores
						</NavLink>
					)}
				</Box>
				{kit.data?.demo && (
					<Box fontSize="small" color="quiet">
						Demo: the Quillmarsh Moth Night
					</Box>
				)}
			</Header>
			<Guide />
			<Box as="main" flex="1" py="9" px="10">
				<Boundary key={at} what={names[at]}>
					{children}
				</Boundary>
			</Box>
		</Box>
	);
}

const tab = ({ isActive }: { isActive: boolean }) => ({
	color: hue.text,
	textDecoration: "none",
	padding: "6px 2px",
	borderBottom: isActive ? `3px solid ${hue.ochre}` : "3px solid transparent",
});
