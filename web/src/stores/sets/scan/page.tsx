import { Box } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { Problem, type S } from "../../../api/client";
import { useKit } from "../../../api/queries";
import { stream } from "../../../api/stream";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { Progress } from "../../../ui/progress";
import { size } from "../../../ui/sizes";
import { Waiting } from "../../../ui/waiting";
import type { Found } from "./found";
import type { Seated } from "./seats";
import { Sheet } from "./sheet";
import { type OnPicture, Source } from "./source";
import { Stack } from "./stack";

/** Bringing in a set from a picture: the picture, the pieces in it, and how they stack. */
export default function ScanPage() {
	const kit = useKit();
	const [found, setFound] = useState<Found>();
	const [seats, setSeats] = useState<Seated[]>();
	const [shown, setShown] = useState<S["Shown"]>();
	const [busy, setBusy] = useState<{ share: number; what: string }>();
	const [wrong, setWrong] = useState("");
	const stop = useRef<AbortController>(undefined);
	if (kit.error) return <Waiting>{kit.error.message}</Waiting>;
	if (!kit.data) return <Waiting>Opening the drawers…</Waiting>;

	/** Runs long work with its progress shown and a way to stop it. */
	async function work<T>(url: string, init: RequestInit, wanted: string): Promise<T | undefined> {
		stop.current = new AbortController();
		setWrong("");
		setBusy({ share: 0, what: "Beginning" });
		try {
			return await stream<T>(url, { ...init, signal: stop.current.signal }, wanted, (share, what) => setBusy({ share, what }));
		} catch (e) {
			setWrong(e instanceof Problem ? e.message : "Something went wrong. Try again.");
		} finally {
			setBusy(undefined);
		}
	}

	const trace: OnPicture = async (file, name, as, known) => {
		const q = new URLSearchParams({ as, ground: known.ground, dpi: String(known.dpi), scanner: known.scanner, thick: String(known.thick) });
		const init = { headers: { "Content-Type": "application/octet-stream" }, body: file };
		const traced = await work<S["Traced"]>(`/api/scan?${q}`, init, "found");
		if (!traced) return;
		if (found?.picture) URL.revokeObjectURL(found.picture);
		setSeats(undefined);
		setFound({ as, name, traced, pieces: traced.pieces, picture: as === "mat" ? undefined : URL.createObjectURL(file) });
	};

	/** Proposes a stack; with a picture of the finished image, the pieces lie where that shows them. */
	const stack = async (picture?: Blob) => {
		if (!found) return;
		const kept = found.pieces.map((p, i) => ({ p, i })).filter(({ p }) => !p.out);
		if (found.as === "stencil") {
			// The openings of a stencil lie where they belong.
			setSeats(
				kept.map(({ i }) => ({ piece: i, turn: 0, x: 0, y: 0, host: -1, fit: "free", layer: i, sure: 1, why: "as it lies in the plate", mirror: false })),
			);
			return;
		}
		const body = JSON.stringify({ pieces: kept.map(({ p }) => p.outline), stamps: found.as === "stamps", picture: picture && (await base64(picture)) });
		const out = await work<S["Stacked"]>("/api/scan/stack", { headers: { "Content-Type": "application/json" }, body }, "stacked");
		if (!out) return;
		setShown(out.shown);
		const back = (n: number) => (n < 0 ? -1 : kept[n].i);
		const prints = found.as === "stamps";
		// Prints keep the order they were stamped in on the sheet.
		setSeats(out.seats.map((s) => ({ ...s, piece: back(s.piece), host: back(s.host), layer: prints ? back(s.piece) : s.layer, mirror: false })));
	};

	const at = seats ? 2 : found ? 1 : 0;
	return (
		<div className="scan-page">
			<Box px="9" py="5" display="flex" gap="10" alignItems="baseline" flexWrap="wrap">
				<h1 style={{ fontSize: size.place }}>Bring in a set</h1>
				<Box as="ol" display="flex" gap="9" listStyleType="none" p="0" m="0" fontSize="text">
					{["the picture", "its pieces", "how they stack"].map((s, i) => (
						<li key={s} aria-current={i === at ? "step" : undefined} style={{ fontWeight: i === at ? 700 : 400, color: i === at ? hue.text : hue.quiet }}>
							{i + 1} {s}
						</li>
					))}
				</Box>
				<Box flex="1" />
				{found && (
					<Button
						onClick={() => {
							setWrong("");
							if (seats) setSeats(undefined);
							else setFound(undefined);
						}}
					>
						{seats ? "Back to the pieces" : "Another picture"}
					</Button>
				)}
				<Link to="/stores/sets">Back to the sets</Link>
			</Box>
			{busy && (
				<Box px="9" pb="4" maxW="520px" role="status">
					<Progress share={busy.share} what={busy.what}>
						<Button onClick={() => stop.current?.abort()}>Stop</Button>
					</Progress>
				</Box>
			)}
			{wrong && (
				<Box mx="9" mb="4" py="4" px="6" bg="sheet" borderLeft="6px solid {colors.madder}" role="alert">
					{wrong}
				</Box>
			)}
			{at === 0 && <Source demo={kit.data.demo} busy={!!busy} onPicture={trace} />}
			{at === 1 && found && (
				<Sheet found={found} settings={kit.data.settings} busy={!!busy} onPieces={(pieces) => setFound({ ...found, pieces })} onStack={() => stack()} />
			)}
			{at === 2 && found && seats && (
				<Stack
					key={shown?.picture ?? "by edges"}
					found={found}
					seats={seats}
					settings={kit.data.settings}
					onSeats={setSeats}
					shown={shown}
					demo={kit.data.demo}
					busy={!!busy}
					onPicture={stack}
				/>
			)}
		</div>
	);
}

/** A file as text that fits into a message. */
async function base64(file: Blob): Promise<string> {
	const url = await new Promise<string>((done, fail) => {
		const r = new FileReader();
		r.onload = () => done(r.result as string);
		r.onerror = () => fail(new Problem("unreadable", "The picture cannot be read. Choose it again."));
		r.readAsDataURL(file);
	});
	return url.slice(url.indexOf(",") + 1);
}
