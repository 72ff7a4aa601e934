import { Box } from "@chakra-ui/react";
import { lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { Link, Navigate, NavLink, Route, Routes, useLocation, useNavigate, useParams } from "react-router";
import { api, isMat, ok, useKit, useRefresh } from "./api";
import { BenchPage } from "./bench";
import { CardProvider, openNotes, useBench } from "./card";
import { Help } from "./help";
import { Button } from "./ui";

const Stores = lazy(() => import("./stores"));
const Looks = lazy(() => import("./looks"));
const Scan = lazy(() => import("./scan/page"));
const pages = {
	pieces: lazy(() => import("./stations/pieces")),
	inks: lazy(() => import("./stations/inks")),
	register: lazy(() => import("./stations/register")),
	front: lazy(() => import("./stations/front")),
	depth: lazy(() => import("./stations/depth")),
	work: lazy(() => import("./stations/work")),
};
export type Station = keyof typeof pages;
export const stations = Object.keys(pages) as Station[];

export function App() {
	return (
		<Suspense fallback={<Waiting>Laying things out…</Waiting>}>
			<Routes>
				<Route path="/" element={<Shell at="bench">{<BenchPage />}</Shell>} />
				<Route path="/stores" element={<Navigate to="/stores/inks" replace />} />
				<Route path="/stores/sets/scan" element={<Shell at="stores">{<Scan />}</Shell>} />
				<Route path="/stores/:shelf" element={<Shell at="stores">{<Stores />}</Shell>} />
				<Route path="/looks-for" element={<Shell at="looks">{<Looks />}</Shell>} />
				<Route path="/card/:id" element={<Navigate to="pieces" replace />} />
				<Route path="/card/:id/:station" element={<CardPage />} />
				<Route path="*" element={<Navigate to="/" replace />} />
			</Routes>
		</Suspense>
	);
}

export function Waiting({ children }: { children: ReactNode }) {
	return (
		<Box p="40px" color="quiet" fontSize="16px" role="status">
			{children}
		</Box>
	);
}

export const Mark = () => (
	<svg width="26" height="26" viewBox="0 0 32 32" aria-hidden="true">
		<path d="M3 26l2-4 22 1 2 4-2 2H5z" fill="#3a2e26" />
		<path d="M5 20l3-4 18 1 3 4-3 1H7z" fill="#a65f00" />
		<path d="M4 14l3-4 21 1 1 4-4 1H7z" fill="#d9b98a" />
		<path d="M8 9l2-5 16 1 2 4-3 1H10z" fill="#e0a040" />
	</svg>
);

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

export function Header({ children, right }: { children?: ReactNode; right?: ReactNode }) {
	const { unit, toggle } = useUnit();
	const [help, setHelp] = useState(false);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e)) return;
			if (e.key === "?") setHelp((h) => !h);
			if (e.key === "Escape") setHelp(false);
			if (e.key === "u" && !e.ctrlKey && !e.metaKey) toggle();
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
	return (
		<Box as="header" bg="sheet" borderBottom="1px solid {colors.line}" display="flex" alignItems="center" gap="14px" px="20px" minH="50px" flexWrap="wrap">
			<Link to="/" style={{ display: "flex", gap: 10, alignItems: "center", textDecoration: "none", color: "#1d2327" }}>
				<Mark />
				<span style={{ font: '700 21px "Bricolage Grotesque"' }}>Ochrestone</span>
			</Link>
			{children}
			<Box flex="1" />
			{right}
			<Button onClick={toggle} title="Switch between inches and millimetres (U)">
				{unit}
			</Button>
			<Button onClick={() => setHelp(true)} aria-label="Keys and words">
				?
			</Button>
			{help && <Help onClose={() => setHelp(false)} />}
		</Box>
	);
}

export const typing = (e: KeyboardEvent) => {
	const t = e.target as HTMLElement;
	return t.matches?.("input:not([type=range]):not([type=checkbox]), select, textarea") ?? false;
};

function Shell({ at, children }: { at: "bench" | "stores" | "looks"; children: ReactNode }) {
	useEffect(() => {
		document.title = `${{ bench: "The bench", stores: "The stores", looks: "What Ochrestone looks for" }[at]}, Ochrestone`;
	}, [at]);
	const kit = useKit();
	return (
		<Box minH="100vh" display="flex" flexDirection="column">
			<Header>
				<Box as="nav" aria-label="Places" display="flex" gap="18px" ml="12px">
					<NavLink to="/" end style={tab}>
						The bench
					</NavLink>
					<NavLink to="/stores" style={tab}>
						The stores
					</NavLink>
				</Box>
				{kit.data?.demo && (
					<Box fontSize="13px" color="quiet">
						Demo: the Quillmarsh Moth Night
					</Box>
				)}
			</Header>
			<Box as="main" flex="1" p="18px 24px">
				{children}
			</Box>
		</Box>
	);
}

const tab = ({ isActive }: { isActive: boolean }) => ({
	color: "#1d2327",
	textDecoration: "none",
	padding: "6px 2px",
	borderBottom: isActive ? "3px solid #824a00" : "3px solid transparent",
});

function CardPage() {
	const { id = "", station = "" } = useParams();
	if (!stations.includes(station as Station)) return <Navigate to={`/card/${id}/pieces`} replace />;
	return (
		<CardProvider
			key={id}
			id={id}
			empty={(what, p) => (
				<>
					<Header />
					<Waiting>
						{what === "loading" ? "Laying the card out…" : p?.message} {what === "failed" && <Link to="/">Back to the bench</Link>}
					</Waiting>
				</>
			)}
		>
			<CardShell station={station as Station} />
		</CardProvider>
	);
}

function CardShell({ station }: { station: Station }) {
	const b = useBench();
	const go = useNavigate();
	const Page = pages[station];
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e)) return;
			if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z") {
				e.preventDefault();
				if (e.shiftKey) b.redo();
				else b.undo();
			} else if ((e.ctrlKey || e.metaKey) && e.key === "y") b.redo();
			else if (!e.altKey && !e.ctrlKey && !e.metaKey && Number(e.key) >= 1 && Number(e.key) <= stations.length)
				go(`/card/${b.view.id}/${stations[Number(e.key) - 1]}`);
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	}, [b, go]);
	return (
		<div className="card-page">
			<Header
				right={
					<>
						<Button onClick={b.undo} disabled={!b.view.canUndo} title="Ctrl+Z">
							Undo
						</Button>
						<Button onClick={b.redo} disabled={!b.view.canRedo} title="Ctrl+Shift+Z">
							Redo
						</Button>
						<SaveMenu />
					</>
				}
			>
				<TitleField />
				<SaveState />
			</Header>
			<Stones station={station} />
			{b.problem && <Trouble />}
			<Box as="main" flex="1" minH={0} display="flex" flexDirection="column">
				<Suspense fallback={<Waiting>Opening the station…</Waiting>}>
					<Page />
				</Suspense>
			</Box>
		</div>
	);
}

function TitleField() {
	const b = useBench();
	const [text, setText] = useState(b.card.title);
	useEffect(() => setText(b.card.title), [b.card.title]);
	const commit = () => text.trim() && text !== b.card.title && b.edit({ rename: { title: text.trim() } });
	return (
		<input
			aria-label="Name of the card"
			value={text}
			onChange={(e) => setText(e.target.value)}
			onBlur={commit}
			onKeyDown={(e) => e.key === "Enter" && commit()}
			style={{
				font: '600 17px "Bricolage Grotesque"',
				border: "1px solid transparent",
				background: "transparent",
				width: `${Math.max(12, text.length + 1)}ch`,
			}}
		/>
	);
}

function SaveState() {
	const b = useBench();
	const words = { saved: `Saved, change ${b.view.version}`, saving: "Saving…", failed: "Not saved" }[b.saving];
	return (
		<Box fontSize="13px" color={b.saving === "failed" ? "madder" : "quiet"} role="status">
			{words}
		</Box>
	);
}

function SaveMenu() {
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

function Trouble() {
	const b = useBench();
	const p = b.problem!;
	return (
		<Box role="alert" bg="white" borderBottom="3px solid {colors.madder}" p="8px 20px" display="flex" gap="14px" alignItems="center" fontSize="14px">
			<Box flex="1">
				<b>Not saved.</b> {p.message} {p.places.join("; ")}
			</Box>
			<Button onClick={b.reload}>{p.type.endsWith("changed") ? "Read it again" : "Carry on from what is saved"}</Button>
		</Box>
	);
}

type Mood = "untouched" | "in hand" | "settled";

function useMoods(): Record<Station, Mood> {
	const b = useBench();
	const { card: c, view } = b;
	const used = c.elements.filter((e) => e.image);
	let inked = 0;
	let wanted = 0;
	for (const e of used) {
		const m = c.motifs.find((x) => x.id === e.image?.motif);
		const w = m?.colourways.find((x) => x.id === e.image?.colourway);
		for (const l of m?.layers ?? []) {
			wanted++;
			if (w?.layers[l.id]?.ink) inked++;
		}
	}
	const done = view.plan.steps.filter(b.done).length;
	const any = c.motifs.length > 0;
	const judged = view.plan.motifs.some((m) => m.layers.some((l) => l.play.judged));
	return {
		pieces: any ? "settled" : "untouched",
		inks: wanted === 0 || inked === 0 ? "untouched" : inked * 3 >= wanted * 2 ? "settled" : "in hand",
		register: judged ? "settled" : any ? "in hand" : "untouched",
		front: used.length > 0 ? "settled" : c.elements.some((e) => !isMat(e)) ? "in hand" : "untouched",
		depth: view.plan.depth.post.class ? "settled" : "in hand",
		work: done === 0 ? "untouched" : done === view.plan.steps.length ? "settled" : "in hand",
	};
}

function Stones({ station }: { station: Station }) {
	const b = useBench();
	const moods = useMoods();
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
			px="22px"
			minH="52px"
			gap="4px"
			overflowX="auto"
		>
			{stations.map((s, i) => {
				const notes = openNotes(b.view.plan.findings).filter((f) => f.station === s && f.severity !== "tip").length;
				const here = station === s;
				const mood = moods[s];
				return (
					<Box key={s} display="flex" alignItems="center" flex={i + 1 < stations.length ? "1" : "none"} minW="fit-content">
						<Link
							to={at.replace(/[^/]+$/, s)}
							aria-current={here ? "page" : undefined}
							style={{
								display: "flex",
								alignItems: "center",
								gap: 8,
								color: here ? "#1d2327" : "#4f5962",
								fontWeight: 600,
								fontFamily: "Bricolage Grotesque",
								fontSize: 15,
								padding: "8px 4px",
							}}
						>
							<svg width="42" height="32" viewBox="0 0 42 32" role="img" aria-label={`${mood}${notes ? `, ${notes} notes` : ""}`}>
								<path
									className="stone"
									d="M6 14L14 6l13 1 8 7-4 11-16 2-8-5z"
									fill={here ? "#e0a040" : mood === "settled" ? "#5c6a75" : "#fff"}
									stroke={here ? "#824a00" : "#5c6a75"}
									strokeWidth="2"
									strokeLinejoin="round"
								/>
								{mood === "in hand" && !here && <path d="M5.6 17 L33.6 17 L31 25 L15 27 L7 22Z" fill="#9aa5ad" />}
								{notes > 0 && <path d="M33 1.5l7 12H26z" fill="#fff" stroke="#9a2f2b" strokeWidth="1.8" strokeLinejoin="round" />}
							</svg>
							{s[0].toUpperCase() + s.slice(1)}
						</Link>
						{i + 1 < stations.length && <Box flex="1" h="1px" bg="#9aa5ad" minW="12px" mx="10px" />}
					</Box>
				);
			})}
		</Box>
	);
}
