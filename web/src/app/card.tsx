import { Box } from "@chakra-ui/react";
import { type ReactNode, Suspense, useEffect, useMemo, useState } from "react";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import { CardProvider, useDocument, useKeeping } from "../api/card";
import { useGuest } from "../api/queries";
import { Button } from "../ui/button";
import { typing } from "../ui/keys";
import { useLate } from "../ui/late";
import { Skeleton } from "../ui/skeleton";
import { useTyped } from "../ui/typed";
import { Waiting } from "../ui/waiting";
import { Boundary } from "./boundary";
import { Guide } from "./guide";
import { Header } from "./header";
import { SaveMenu } from "./save";
import { forGuests, stations } from "./stations";
import { Stones } from "./stones";

/** A card at one of its stations. */
export function CardPage() {
	const { id = "", station = "" } = useParams();
	const guest = useGuest();
	if (guest && !forGuests.includes(station)) return <Navigate to={`/card/${id}/work`} replace />;
	if (!stations.some((s) => s.id === station)) return <Navigate to={`/card/${id}/pieces`} replace />;
	return (
		<CardProvider
			key={id}
			id={id}
			empty={(what, p) => (
				<>
					<Header />
					{what === "loading" ? (
						<Box role="status" aria-label="Laying the card out" display="grid" gridTemplateColumns="69fr 31fr" gap="9" p="9" flex="1">
							<Skeleton w="100%" h="70vh" />
							<Skeleton w="100%" h="70vh" />
						</Box>
					) : (
						<Waiting>
							{p?.message} <Link to="/">Back to the bench</Link>
						</Waiting>
					)}
				</>
			)}
		>
			<CardShell station={station} />
		</CardProvider>
	);
}

function CardShell({ station }: { station: string }) {
	const b = useDocument();
	const guest = useGuest();
	const go = useNavigate();
	const here = stations.find((s) => s.id === station) ?? stations[0];
	// Chosen once for each visit: another component, though the same, would begin the station anew.
	const Page = useMemo(() => here.ready ?? here.Page, [here]);
	// The other stations come while there is time, so that going there waits for nothing, and
	// works when the program does not answer for a while.
	const late = useLate();
	useEffect(() => {
		if (late) for (const s of stations) s.load().catch(() => {});
	}, [late]);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e)) return;
			if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z") {
				e.preventDefault();
				if (e.shiftKey) b.redo();
				else b.undo();
			} else if ((e.ctrlKey || e.metaKey) && e.key === "y") b.redo();
			else if (!e.altKey && !e.ctrlKey && !e.metaKey && Number(e.key) >= 1 && Number(e.key) <= stations.length)
				go(`/card/${b.view.id}/${stations[Number(e.key) - 1].id}`);
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	}, [b, go]);
	return (
		<div className="card-page">
			<Header
				right={
					guest ? undefined : (
						<>
							<Button onClick={b.undo} disabled={!b.view.canUndo} title="Ctrl+Z">
								Undo
							</Button>
							<Button onClick={b.redo} disabled={!b.view.canRedo} title="Ctrl+Shift+Z">
								Redo
							</Button>
							<SaveMenu />
						</>
					)
				}
			>
				<TitleField />
				<SaveState />
			</Header>
			<Guide />
			<Stones station={station} />
			<Trouble />
			<Box as="main" flex="1" minH={0} display="flex" flexDirection="column">
				<Boundary key={station} what={here.title} onUndo={b.view.canUndo ? b.undo : undefined}>
					<Suspense fallback={<Waiting>Opening the station…</Waiting>}>
						<Page />
					</Suspense>
				</Boundary>
			</Box>
		</div>
	);
}

function TitleField() {
	const b = useDocument();
	const [text, setText] = useState(b.card.title);
	useEffect(() => setText(b.card.title), [b.card.title]);
	const { typed, drop, done } = useTyped((t) => t.trim() && t !== b.card.title && b.edit({ rename: { title: t.trim() } }));
	return (
		<input
			aria-label="Name of the card"
			value={text}
			onChange={(e) => {
				setText(e.target.value);
				typed(e.target.value);
			}}
			onBlur={done}
			onKeyDown={(e) => {
				if (e.key === "Enter") done();
				if (e.key === "Escape") {
					drop();
					setText(b.card.title);
				}
			}}
			style={{
				font: '600 17px "Bricolage Grotesque"',
				border: "1px solid transparent",
				background: "transparent",
				width: `${Math.max(12, text.length + 1)}ch`,
			}}
		/>
	);
}

/** What has become of the changes, in words. */
function SaveState() {
	const { view } = useDocument();
	const { saving, waiting, problem } = useKeeping();
	const words = {
		saved: `Saved, change ${view.version}`,
		saving: "Saving…",
		waiting: `Ochrestone does not answer: ${waiting === 1 ? "1 change waits" : `${waiting} changes wait`} here`,
		failed: problem?.type.endsWith("changed") ? "Changed in another window" : "Not saved",
	}[saving];
	return (
		<Box fontSize="small" color={saving === "failed" || saving === "waiting" ? "madder" : "quiet"} role="status" data-saving={saving}>
			{words}
		</Box>
	);
}

function Trouble() {
	const { saving, problem: p, reload } = useKeeping();
	if (saving === "waiting")
		return (
			<Strip>
				<b>Ochrestone does not answer.</b> Is it still running? Start it again and leave this page open: what you did since waits here and is saved when it
				answers.
			</Strip>
		);
	if (!p) return null;
	const note = p.type === "note";
	return (
		<Strip action={<Button onClick={reload}>{p.type.endsWith("changed") ? "Read it again" : note ? "I have seen it" : "Carry on from what is saved"}</Button>}>
			<b>{note ? "Saved, but look." : p.type.endsWith("changed") ? "Changed in another window." : "Not saved."}</b> {p.message} {p.places.join("; ")}
		</Strip>
	);
}

const Strip = ({ children, action }: { children: ReactNode; action?: ReactNode }) => (
	<Box role="alert" bg="white" borderBottom="3px solid {colors.madder}" py="4" px="9" display="flex" gap="7" alignItems="center" fontSize="text">
		<Box flex="1">{children}</Box>
		{action}
	</Box>
);
