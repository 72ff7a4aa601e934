import { Box } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type Problem, type S, takePicture } from "../../api/client";
import { useRefresh, useSettings } from "../../api/queries";
import { stream } from "../../api/stream";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { TextField } from "../../ui/field";
import { FileField, pictures } from "../../ui/file";
import { Progress } from "../../ui/progress";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { type Settings, thin } from "../../ui/units";

export type Proofed = S["Proofed"];
export type Verdict = S["Verdict"];

/** What was measured, and from what: a picture understood, or points set by hand. */
export interface Measured extends Proofed {
	source: "print" | "points";
}

/** Prints scanned or photographed, and measured: how far every layer is off, and what to do. */
export function Measure({
	done,
	onDone,
	onShow,
	onPoint,
	at,
	onAt,
}: {
	at: number;
	onAt: (i: number) => void;
	done?: Measured;
	onDone: (p?: Measured) => void;
	onShow: (v: Verdict) => void;
	onPoint: (picture: Blob, dpi: number) => void;
}) {
	const b = useBench();
	const [file, setFile] = useState<File>();
	const [as, setAs] = useState<"scan" | "mat">("scan");
	const [dpi, setDpi] = useState("");
	const [busy, setBusy] = useState<{ share: number; what: string }>();
	const [wrong, setWrong] = useState("");
	const stop = useRef<AbortController>(undefined);
	const tries = useRef(0);
	const [motif, colourway] = [b.motif?.id ?? "", b.colourway?.id ?? ""];
	const measure = async (picture: Blob, at: number, kind: "scan" | "mat") => {
		setWrong("");
		onDone(undefined);
		setBusy({ share: 0, what: "Sending the picture" });
		stop.current = new AbortController();
		try {
			const q = new URLSearchParams({ motif, colourway, dpi: `${at}`, as: kind });
			const init = { body: picture, headers: { "Content-Type": "application/octet-stream" }, signal: stop.current.signal };
			const got = await stream<Proofed>(`/api/cards/${b.view.id}/proof?${q}`, init, "measured", (share, what) => setBusy({ share, what }));
			onDone({ ...got, source: "print" });
		} catch (e) {
			setWrong((e as Problem).message);
		}
		setBusy(undefined);
	};
	// The next print has the same errors, less what the paper was moved by as said.
	const moved = useRef<Record<string, [number, number, number]>>({});
	const simulate = async (kind: "scan" | "mat" | "run", corrected = false) => {
		if (corrected) {
			for (const l of done?.prints[0]?.layers ?? []) {
				const [x, y, t] = moved.current[l.layer] ?? [0, 0, 0];
				moved.current[l.layer] = [x + l.moveX, y + l.moveY, t + l.turnBy];
			}
		} else {
			tries.current++;
			moved.current = {};
		}
		setBusy({ share: 0, what: "The simulated device takes the picture" });
		const q = new URLSearchParams({ card: b.view.id, motif, colourway, seed: `${tries.current}`, as: kind });
		for (const [id, by] of Object.entries(moved.current)) q.append("moved", `${id} ${by.join(" ")}`);
		try {
			const got = await takePicture(`/api/device/proof?${q}`);
			setShot(got);
			await measure(got, 0, kind === "mat" ? "mat" : "scan");
		} catch (e) {
			setBusy(undefined);
			setWrong((e as Error).message);
		}
	};
	const [shot, setShot] = useState<Blob>();
	const picture = file ?? shot;
	return (
		<Box display="flex" flexDirection="column" gap="4">
			{done && <Results done={done} onShow={onShow} at={at} onAt={onAt} />}
			<Box display="flex" gap="5" alignItems="end" flexWrap="wrap">
				<FileField label="Picture of one print, or of several apart" accept={pictures} onFile={setFile} />
				<Select label="It is" value={as} onChange={(v) => setAs(v as typeof as)}>
					<option value="scan">a scan</option>
					<option value="mat">a photo on the measuring mat</option>
				</Select>
				{as === "scan" && (
					<TextField
						label="Dots to the inch"
						inputMode="numeric"
						placeholder="as the file says"
						value={dpi}
						onChange={(e) => setDpi(e.target.value)}
						width="112px"
					/>
				)}
				<Button variant="main" disabled={!file || !!busy} onClick={() => file && measure(file, Number(dpi) || 0, as)}>
					Measure it
				</Button>
				<Button disabled={!picture || !!busy} onClick={() => picture && onPoint(picture, file ? Number(dpi) || 0 : 300)}>
					Point by hand
				</Button>
			</Box>
			{b.state.demo && (
				<Box display="flex" gap="3" flexWrap="wrap">
					<Button fontSize="small" px="4" minH="30px" disabled={!!busy} onClick={() => simulate("scan")}>
						Simulated scan
					</Button>
					<Button fontSize="small" px="4" minH="30px" disabled={!!busy} onClick={() => simulate("mat")}>
						Simulated photo
					</Button>
					<Button fontSize="small" px="4" minH="30px" disabled={!!busy} onClick={() => simulate("run")}>
						Simulated run of six
					</Button>
					{done?.prints.length === 1 && done.source === "print" && (
						<Button fontSize="small" px="4" minH="30px" disabled={!!busy} onClick={() => simulate("scan", true)}>
							Simulated scan, the paper moved so
						</Button>
					)}
				</Box>
			)}
			{busy && (
				<Box role="status">
					<Progress share={busy.share} what={busy.what}>
						<Button onClick={() => stop.current?.abort()}>Stop</Button>
					</Progress>
				</Box>
			)}
			{wrong && (
				<Box role="alert" color="madder">
					{wrong}
				</Box>
			)}
		</Box>
	);
}

const off = (s: Settings, v: Verdict) =>
	`Off ${thin(Math.abs(v.x), s)} ${v.x < 0 ? "left" : "right"} and ${thin(Math.abs(v.y), s)} ${v.y < 0 ? "up" : "down"} (each ±${thin(2 * v.sureShift, s)}), turned ${Math.abs(v.turn).toFixed(2)}° ${v.turn < 0 ? "anticlockwise" : "clockwise"} (±${(2 * v.sureTurn).toFixed(2)}°).`;

/** What was measured: one print in full; a run by layer, then print by print. */
function Results({ done, onShow, at, onAt }: { done: Measured; onShow: (v: Verdict) => void; at: number; onAt: (i: number) => void }) {
	const s = useSettings();
	const print = done.prints[Math.min(at, done.prints.length - 1)];
	const verdict = (v: Verdict) => (v.lost ? "not made out" : v.judged ? (v.good ? "inside its play" : "it shows") : "nothing has to meet");
	return (
		<Box>
			{done.run.length > 0 && (
				<Box mb="4">
					<h3 style={{ fontSize: size.text }}>The run of {done.prints.length}</h3>
					{done.run.map((r) => (
						<Box key={r.layer} borderTop="1px solid {colors.line}" py="2">
							<b>{r.label}:</b> {r.say}
							<Runner prints={done.prints} layer={r.layer} />
						</Box>
					))}
				</Box>
			)}
			{done.prints.length > 1 && (
				<Box display="flex" gap="2" flexWrap="wrap" mb="2" role="group" aria-label="Print">
					{done.prints.map((p, i) => (
						<Button key={i} fontSize="small" px="5" minH="30px" aria-pressed={i === at} onClick={() => onAt(i)}>
							{i + 1}
							{p.wrong || p.layers.some((v) => !v.good) ? " !" : ""}
						</Button>
					))}
				</Box>
			)}
			{print.wrong && <Box color="madder">{print.wrong}</Box>}
			<Box as="ul" listStyleType="none" p="0" m="0">
				{print.layers.map((l) => (
					<li key={l.layer} style={{ padding: "4px 0", borderTop: `1px solid ${hue.line}` }}>
						<b>
							{l.label}: {verdict(l)}
						</b>{" "}
						{l.lost ? (
							l.say
						) : (
							<>
								<Button variant="link" size="text" onClick={() => onShow(l)}>
									Show it
								</Button>
								<br />
								{off(s, l)} {l.say}
							</>
						)}
					</li>
				))}
			</Box>
			<Box color="quiet">
				Against {done.against}. {print.sure} {[...print.notes, ...done.notes].join(" ")}
			</Box>
			<Keep done={done} />
		</Box>
	);
}

/** How far right, and how far down, each print of a run is off, in order. */
function Runner({ prints, layer }: { prints: S["ProofedPrint"][]; layer: string }) {
	const s = useSettings();
	const vs = prints.map((p) => p.layers.find((l) => l.layer === layer && !l.lost));
	const most = Math.max(0.2, ...vs.map((v) => (v ? Math.max(Math.abs(v.x), Math.abs(v.y)) : 0)));
	const [w, h] = [336, 70];
	const x = (i: number) => 16 + (i * (w - 136)) / Math.max(1, vs.length - 1);
	const y = (v: number) => h / 2 - (v / most) * (h / 2 - 8);
	return (
		<svg width={w} height={h} role="img" aria-label={`Off within ${thin(most, s)}: circles to the right, squares down`}>
			<line x1={0} x2={w - 92} y1={h / 2} y2={h / 2} stroke={hue.rule} />
			<g fontSize={11} fill={hue.quiet} transform={`translate(${w - 84} 0)`}>
				<text y={12}>within {thin(most, s)}</text>
				<circle cx={4} cy={30} r={4.5} fill={hue.lichen} />
				<text x={14} y={34}>
					to the right
				</text>
				<rect x={0} y={48} width={8} height={8} fill="none" stroke={hue.text} strokeWidth={1.4} />
				<text x={14} y={56}>
					down
				</text>
			</g>
			{vs.map((v, i) =>
				v ? (
					<g key={i}>
						<circle cx={x(i)} cy={y(v.x)} r={4.5} fill={v.good ? hue.lichen : hue.madder} />
						<rect x={x(i) - 4} y={y(v.y) - 4} width={8} height={8} fill="none" stroke={hue.text} strokeWidth={1.4} />
					</g>
				) : null,
			)}
		</svg>
	);
}

/** Keeps what was measured in the log, so that the spread of that way becomes the person's own. */
function Keep({ done }: { done: Measured }) {
	const b = useBench();
	const refresh = useRefresh();
	const [way, setWay] = useState("corner");
	const [kept, setKept] = useState("");
	const placements = done.prints.flatMap((p) =>
		p.layers.filter((l) => !l.lost).map((l) => ({ layer: l.layer, x: l.x, y: l.y, turn: l.turn, sureShift: l.sureShift, sureTurn: l.sureTurn, good: l.good })),
	);
	if (placements.length === 0) return null;
	const keep = async () => {
		try {
			await ok(api.POST("/api/log", { body: { card: b.view.id, motif: b.motif?.id ?? "", way, source: done.source, placements } }));
			await refresh("log", "placing");
			setKept(`${placements.length} ${placements.length === 1 ? "placement" : "placements"} kept; they teach your hand.`);
		} catch (e) {
			setKept((e as Error).message);
		}
	};
	return kept ? (
		<Box role="status" mt="3">
			{kept}
		</Box>
	) : (
		<Box display="flex" gap="4" alignItems="end" mt="3">
			<Select label="They were placed" value={way} onChange={(v) => setWay(v)}>
				<option value="corner">in the corner of the positioner</option>
				<option value="die">with the die as a guide</option>
				<option value="hole">back in their own hole</option>
				<option value="template">with a template</option>
				<option value="jig">with a turning jig</option>
				<option value="etched">by etched lines</option>
				<option value="eye">by eye</option>
			</Select>
			<Button onClick={keep}>Keep in the log</Button>
		</Box>
	);
}
