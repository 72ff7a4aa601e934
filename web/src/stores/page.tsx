import { Box } from "@chakra-ui/react";
import { NavLink, useParams } from "react-router";
import { useKit } from "../api/queries";
import { hue } from "../ui/colours";
import { size } from "../ui/sizes";
import { Waiting } from "../ui/waiting";
import { YourData } from "./data";
import { Inks } from "./inks/drawer";
import { kinds } from "./kinds";
import { Sets } from "./sets/sets";
import { Shopping } from "./shopping";
import { Things } from "./things";

const shelves = ["inks", ...Object.keys(kinds), "sets", "to buy", "data"];

/** The stores: what the person owns. */
export default function Stores() {
	const { shelf = "inks" } = useParams();
	const kit = useKit();
	if (kit.error) return <Waiting>{kit.error.message}</Waiting>;
	if (!kit.data) return <Waiting>Opening the drawers…</Waiting>;
	const of = kinds[shelf];
	return (
		<Box maxW="1240px" mx="auto">
			<h1 style={{ fontSize: size.place }}>The stores</h1>
			<Box as="nav" aria-label="Shelves" display="flex" gap="9" my="4" flexWrap="wrap">
				{shelves.map((s) => (
					<NavLink
						key={s}
						to={`/stores/${s.replace(" ", "-")}`}
						style={({ isActive }) => ({ display: "inline-block", color: isActive ? hue.text : hue.ochre })}
						className="shelf-name"
					>
						{s}
					</NavLink>
				))}
			</Box>
			{shelf === "inks" && <Inks state={kit.data} />}
			{of && <Things key={shelf} state={kit.data} of={of} />}
			{shelf === "sets" && <Sets state={kit.data} />}
			{shelf === "to-buy" && <Shopping />}
			{shelf === "data" && <YourData />}
		</Box>
	);
}
