import { Box } from "@chakra-ui/react";
import { lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { Link } from "react-router";
import { api, ok } from "../api/client";
import { useGuest, useKit, useRefresh } from "../api/queries";
import { Button } from "../ui/button";
import { hue } from "../ui/colours";
import { typing } from "../ui/keys";
import { Mark } from "../ui/mark";
import { Quiet } from "./boundary";

const Help = lazy(() => import("./help"));
const Find = lazy(() => import("./find"));

function useUnit() {
	const kit = useKit();
	const refresh = useRefresh();
	const s = kit.data?.settings;
	const toggle = async () => {
		if (!s) return;
		await ok(api.PUT("/api/settings", { body: { ...s, unit: s.unit === "in" ? "mm" : "in" } }));
		await refresh("state", "card");
	};
	return { unit: s?.unit === "mm" ? "millimetres" : "inches", toggle };
}

/** The strip on top of every view: where home is, what the view adds, the unit, help. */
export function Header({ children, right }: { children?: ReactNode; right?: ReactNode }) {
	const { unit, toggle } = useUnit();
	const guest = useGuest();
	const [help, setHelp] = useState(false);
	const [find, setFind] = useState(false);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e)) return;
			if (e.key === "?") setHelp((h) => !h);
			if (e.key === "/" && !guest) {
				e.preventDefault(); // the stroke is no part of the words
				setFind(true);
			}
			if (e.key === "u" && !guest && !e.ctrlKey && !e.metaKey) toggle();
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
	return (
		<Box as="header" bg="sheet" borderBottom="1px solid {colors.line}" display="flex" alignItems="center" gap="7" px="9" minH="50px" flexWrap="wrap">
			<Link to="/" style={{ display: "flex", gap: 10, alignItems: "center", textDecoration: "none", color: hue.text }}>
				<Mark />
				<span className="wordmark" style={{ font: '700 21px "Bricolage Grotesque"' }}>
					Ochrestone
				</span>
			</Link>
			{children}
			<Box flex="1" />
			{right}
			{!guest && (
				<Button onClick={toggle} title="Switch between inches and millimetres (U)">
					{unit}
				</Button>
			)}
			{!guest && (
				<Button onClick={() => setFind(true)} title="Find a card, an ink, a set (/)">
					Find
				</Button>
			)}
			<Button onClick={() => setHelp(true)} aria-label="Keys and words">
				?
			</Button>
			{find && (
				<Quiet>
					<Suspense>
						<Find onClose={() => setFind(false)} />
					</Suspense>
				</Quiet>
			)}
			{help && (
				<Quiet>
					<Suspense>
						<Help onClose={() => setHelp(false)} />
					</Suspense>
				</Quiet>
			)}
		</Box>
	);
}
