import { Box } from "@chakra-ui/react";
import { useRef, useState } from "react";
import type { Problem, S } from "../api";
import { useBench } from "../card";
import { stream } from "../stream";
import { Button } from "../ui";

export type Proofed = S["Proofed"];

/** A printed proof, scanned and measured: how far every layer is off, and what to do. */
export function Proof({ done, onDone, onShow }: { done?: Proofed; onDone: (p?: Proofed) => void; onShow: (layer: string) => void }) {
	const b = useBench();
	const [file, setFile] = useState<File>();
	const [dpi, setDpi] = useState("");
	const [busy, setBusy] = useState<{ share: number; what: string }>();
	const [wrong, setWrong] = useState("");
	const stop = useRef<AbortController>(undefined);
	const tries = useRef(0);
	const [motif, colourway] = [b.motif?.id ?? "", b.way?.id ?? ""];
	const measure = async (picture: Blob, at: number) => {
		setWrong("");
		onDone(undefined);
		setBusy({ share: 0, what: "Sending the picture" });
		stop.current = new AbortController();
		try {
			const q = new URLSearchParams({ motif, colourway, dpi: `${at}` });
			const init = { body: picture, headers: { "Content-Type": "application/octet-stream" }, signal: stop.current.signal };
			onDone(await stream<Proofed>(`/api/cards/${b.view.id}/proof?${q}`, init, "measured", (share, what) => setBusy({ share, what })));
		} catch (e) {
			setWrong((e as Problem).message);
		}
		setBusy(undefined);
	};
	// The next print has the same errors, less what the paper was moved by as said.
	const moved = useRef<Record<string, [number, number, number]>>({});
	const simulate = async (corrected: boolean) => {
		if (corrected) {
			for (const l of done?.layers ?? []) {
				const [x, y, t] = moved.current[l.layer] ?? [0, 0, 0];
				moved.current[l.layer] = [x + l.moveX, y + l.moveY, t + l.turnBy];
			}
		} else {
			tries.current++;
			moved.current = {};
		}
		const q = new URLSearchParams({ card: b.view.id, motif, colourway, seed: `${tries.current}` });
		for (const [id, by] of Object.entries(moved.current)) q.append("moved", `${id} ${by.join(" ")}`);
		const got = await fetch(`/api/device/proof?${q}`);
		if (got.ok) await measure(await got.blob(), 0);
		else setWrong(((await got.json()) as { detail?: string }).detail ?? "The simulated scanner gave no picture.");
	};
	return (
		<Box w="372px" flex="none" overflowY="auto" fontSize="13px" p="10px 16px" bg="sheet" borderLeft="1px solid {colors.line}">
			<h2 style={{ fontSize: 15, marginBottom: 6 }}>A print, measured</h2>
			<Box display="flex" gap="10px" alignItems="end" flexWrap="wrap">
				<label className="field">
					Scan of a proof
					<input type="file" style={{ width: 336 }} accept="image/png,image/jpeg,image/tiff" onChange={(e) => setFile(e.target.files?.[0])} />
				</label>
				<label className="field">
					Dots to the inch
					<input inputMode="numeric" placeholder="as the file says" value={dpi} onChange={(e) => setDpi(e.target.value)} style={{ width: 120 }} />
				</label>
				<Button variant="main" disabled={!file || !!busy} onClick={() => file && measure(file, Number(dpi) || 0)}>
					Measure it
				</Button>
				{b.state.demo && (
					<>
						<Button disabled={!!busy} onClick={() => simulate(false)}>
							Simulated scan
						</Button>
						{done && (
							<Button disabled={!!busy} onClick={() => simulate(true)}>
								Simulated scan, the paper moved so
							</Button>
						)}
					</>
				)}
			</Box>
			{busy && (
				<Box display="flex" gap="10px" alignItems="center" mt="6px" role="status">
					<progress value={busy.share} max={1} aria-label={busy.what} />
					{busy.what}
					<Button onClick={() => stop.current?.abort()}>Stop</Button>
				</Box>
			)}
			{wrong && (
				<Box role="alert" color="madder" mt="6px">
					{wrong}
				</Box>
			)}
			{done && (
				<Box mt="6px">
					<Box as="ul" listStyleType="none" p="0" m="0">
						{done.layers.map((l) => (
							<li key={l.layer} style={{ padding: "4px 0", borderTop: "1px solid #bfc2c1" }}>
								<b>
									{l.label}: {l.lost ? "not made out" : l.judged ? (l.good ? "inside its play" : "it shows") : "nothing has to meet"}
								</b>{" "}
								{l.lost ? (
									l.say
								) : (
									<>
										<Button variant="link" size="text" onClick={() => onShow(l.layer)}>
											Show it
										</Button>
										<br />
										Off {Math.abs(l.x).toFixed(2)} mm {l.x < 0 ? "left" : "right"} and {Math.abs(l.y).toFixed(2)} mm {l.y < 0 ? "up" : "down"} (each ±
										{(2 * l.sureShift).toFixed(2)} mm), turned {Math.abs(l.turn).toFixed(2)}° {l.turn < 0 ? "anticlockwise" : "clockwise"} (±
										{(2 * l.sureTurn).toFixed(2)}°). {l.say}
									</>
								)}
							</li>
						))}
					</Box>
					<Box color="quiet">
						Against {done.against}. {done.sure} {done.notes.join(" ")}
					</Box>
				</Box>
			)}
		</Box>
	);
}
