import { Box, Input } from "@chakra-ui/react";
import { type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { api, ok, type Problem, type S } from "../../../api/client";
import { useRefresh } from "../../../api/queries";
import { Table } from "../../../parts/table";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { TextField } from "../../../ui/field";
import { LengthField } from "../../../ui/length";
import { Select } from "../../../ui/select";
import { size } from "../../../ui/sizes";
import { length, type Settings } from "../../../ui/units";
import type { Found } from "./found";
import { NumberField } from "./number";
import { middle, rings, turned } from "./paths";
import { carried, liesOn, movedLines, put, type Seated, transform } from "./seats";
import { FinishedPicture } from "./shown";

interface Layer {
	key: number;
	label: string;
	fit: S["Seat"]["fit"];
}

const fits = ["free", "within", "even rim", "fills", "offset"] as const;
const sureness = (v: number) => (v >= 0.75 ? "sure" : v >= 0.4 ? "likely" : "a guess");

interface Props {
	found: Found;
	seats: Seated[];
	settings: Settings;
	onSeats: (s: Seated[]) => void;
	/** What a picture of the finished image showed. */
	shown?: S["Shown"];
	demo: boolean;
	busy: boolean;
	onPicture: (file: Blob) => void;
}

/** The proposed stack: look, nudge, turn, name, accept. */
export function Stack({ found, seats, settings, onSeats, shown, demo, busy, onPicture }: Props) {
	const [through, setThrough] = useState(false);
	const go = useNavigate();
	const refresh = useRefresh();
	const stamps = found.as === "stamps";
	const [layers, setLayers] = useState<Layer[]>(() =>
		[...new Set(seats.map((s) => s.layer))]
			.sort((a, b) => a - b)
			.map((key, i) => {
				const first = seats.find((s) => s.layer === key);
				const n = seats.filter((s) => s.layer === key).length;
				return {
					key,
					fit: first?.fit ?? "free",
					label: found.as === "stencil" ? `Opening ${i + 1}` : i === 0 && !stamps ? "Base" : `${stamps ? "Step" : n > 1 ? "Pair, layer" : "Layer"} ${i + 1}`,
				};
			}),
	);
	const [on, setOn] = useState(-1);
	const [name, setName] = useState(found.name);
	const [where, setWhere] = useState("");
	const [tags, setTags] = useState("");
	const [wrong, setWrong] = useState("");
	const svg = useRef<SVGGElement>(null);
	const drag = useRef<{ x: number; y: number; seats: Seated[] }>(undefined);
	const chosen = seats.find((s) => s.piece === on);
	const pieces = found.pieces;
	// A stencil keeps its openings as they lie, and the lines etched beside them.
	const base = seats[0];
	const guides = found.as === "stencil" && found.traced.lines && base ? movedLines(found.traced.lines, base, pieces[base.piece].outline) : undefined;

	const box = useMemo(() => {
		let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
		for (const s of seats) {
			const d = pieces[s.piece].outline;
			for (const r of rings(d)) {
				for (const [x, y] of r) {
					const p = put(s, d, { x, y });
					[x0, y0, x1, y1] = [Math.min(x0, p.x), Math.min(y0, p.y), Math.max(x1, p.x), Math.max(y1, p.y)];
				}
			}
		}
		return { x: x0 - 6, y: y0 - 6, w: x1 - x0 + 12, h: y1 - y0 + 12 };
	}, [seats, pieces]);
	const frame = useRef(box);
	if (!drag.current) frame.current = box;

	// Keys held down come quicker than the page is drawn: each builds on the last.
	const latest = useRef(seats);
	latest.current = seats;
	const change = (piece: number, f: (s: Seated) => Partial<Seated>) => {
		const s = latest.current.find((q) => q.piece === piece);
		if (s) latest.current = carried(latest.current, piece, { ...f(s), sure: 1, why: "put by hand" });
		onSeats(latest.current);
	};
	const move = (dx: number, dy: number) => change(on, (s) => ({ x: s.x + dx, y: s.y + dy }));
	/** Turns a piece about its own middle. */
	const turn = (deg: number) =>
		change(on, (s) => {
			const d = pieces[s.piece].outline;
			const c = put(s, d, middle(d));
			const m = turned(middle(d), s.turn + deg);
			return { turn: s.turn + deg, x: c.x - m.x, y: c.y - m.y };
		});
	const mirror = () => change(on, (s) => ({ mirror: !s.mirror }));
	/** Asks where the chosen piece goes: to the edge, hole or axis near it, near a tap, or across from its twin. */
	const ask = async (more: { tap?: { x: number; y: number }; twin?: Seated }) => {
		if (!chosen) return;
		const sent = (s: Seated) => ({ outline: pieces[s.piece].outline, turn: s.turn, x: s.x, y: s.y, mirror: s.mirror });
		const below = layers
			.slice(0, layerOf(on))
			.flatMap((l) => seats.filter((s) => s.layer === l.key))
			.filter((s) => !liesOn(seats, s.piece, on));
		const body = { piece: sent(chosen), beneath: below.map(sent), tap: more.tap, twin: more.twin && sent(more.twin) };
		const got = await ok(api.POST("/api/scan/snap", { body }));
		const first = got.why.match(/piece (\d+)/);
		const host = first ? below[Number(first[1]) - 1].piece : more.twin ? more.twin.host : undefined;
		const why = got.why.replace(/piece (\d+)/, (_, n) => `piece ${below[Number(n) - 1].piece + 1}`);
		const how = more.tap ? "tapped" : more.twin ? "as its twin" : "snapped";
		if (!got.found) onSeats(seats.map((s) => (s.piece === on ? { ...s, why } : s)));
		else onSeats(carried(seats, on, { turn: got.turn, x: got.x, y: got.y, sure: 1, why: `${how}: ${why}`, ...(host === undefined ? {} : { host }) }));
	};
	const snap = () => ask({});
	const twin = chosen && seats.find((s) => s.layer === chosen.layer && s.piece !== on);
	const across = () => (twin ? ask({ twin }) : undefined);
	const [tapping, setTapping] = useState(false);
	const tap = (p: { x: number; y: number }) => {
		setTapping(false);
		ask({ tap: { x: p.x, y: p.y } });
	};

	const keys = (k: string, by: number) => {
		switch (k) {
			case "ArrowLeft":
				return () => move(-by, 0);
			case "ArrowRight":
				return () => move(by, 0);
			case "ArrowUp":
				return () => move(0, -by);
			case "ArrowDown":
				return () => move(0, by);
			case "[":
				return () => turn(-0.5);
			case "]":
				return () => turn(0.5);
			case "m":
				return mirror;
			case "s":
				return snap;
			case "t":
				return () => setTapping(true);
			case "a":
				return across;
		}
	};
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (on < 0 || (e.target as HTMLElement).closest("input, select, textarea")) return;
			const by = e.shiftKey ? 1 : 0.1;
			const f = keys(e.key, by);
			if (f) {
				e.preventDefault();
				f();
			}
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});

	const place = (e: PointerEvent) => {
		const m = svg.current?.getScreenCTM()?.inverse();
		return m ? new DOMPoint(e.clientX, e.clientY).matrixTransform(m) : { x: 0, y: 0 };
	};
	const layerOf = (piece: number) => layers.findIndex((l) => l.key === seats.find((s) => s.piece === piece)?.layer);
	const shift = (i: number, by: number) => {
		const next = [...layers];
		const [l] = next.splice(i, 1);
		next.splice(i + by, 0, l);
		setLayers(next);
	};
	const keep = async () => {
		setWrong("");
		try {
			const body = {
				name,
				kind: stamps ? ("stamp" as const) : found.as === "stencil" ? ("stencil" as const) : ("die" as const),
				where,
				lines: guides,
				tags: tags
					.split(",")
					.map((t) => t.trim())
					.filter(Boolean),
				layers: layers.map((l, i) => {
					const mine = seats.filter((s) => s.layer === l.key);
					const host = mine[0].host < 0 ? -1 : layerOf(mine[0].host);
					return {
						label: l.label,
						fit: l.fit,
						host: host < i ? host : -1,
						colour: stamps ? pieces[mine[0].piece].colour : (mine[0].shown ?? ""),
						pieces: mine.map((s) => ({ outline: pieces[s.piece].outline, turn: s.turn, x: s.x, y: s.y, mirror: s.mirror, sure: pieces[s.piece].sure })),
					};
				}),
			};
			await ok(api.POST("/api/scan/keep", { body }));
			await refresh("state", "cards");
			go("/stores/sets");
		} catch (e) {
			setWrong([(e as Error).message, ...((e as Problem).places ?? [])].join(" "));
		}
	};
	const at = layers.findIndex((l) => l.key === chosen?.layer);
	const middleOf = chosen && put(chosen, pieces[chosen.piece].outline, middle(pieces[chosen.piece].outline));
	return (
		<div className="station scan">
			<div className="place" style={{ display: "flex", flexDirection: "column", minHeight: 0 }}>
				<Table box={frame.current} settings={settings} label="The stacked pieces" origin={{ x: box.x, y: box.y }}>
					{(scale) => (
						<g ref={svg}>
							{tapping && (
								<rect
									x={frame.current.x - 2000}
									y={frame.current.y - 2000}
									width={4000 + frame.current.w}
									height={4000 + frame.current.h}
									fill="transparent"
									style={{ cursor: "crosshair" }}
									onPointerDown={(e) => tap(place(e))}
								/>
							)}
							{shown && (
								<image
									href={shown.picture}
									x={shown.left}
									y={shown.top}
									width={shown.w}
									height={shown.h}
									transform={`translate(${shown.x} ${shown.y}) rotate(${shown.turn})`}
									opacity={through ? 1 : 0.25}
									pointerEvents="none"
								/>
							)}
							{guides && <path d={guides} fill="none" stroke={hue.text} strokeWidth={1.5 / scale} />}
							{layers.map((l, i) =>
								seats
									.filter((s) => s.layer === l.key)
									.map((s) => (
										<path
											key={s.piece}
											d={pieces[s.piece].outline}
											transform={transform(s, pieces[s.piece].outline)}
											fillRule="evenodd"
											fill={found.as === "stencil" ? `rgb(${90 + i * 20} ${90 + i * 20} ${88 + i * 20})` : (s.shown ?? pieces[s.piece].colour)}
											fillOpacity={through ? 0.12 : stamps ? 0.75 : 1}
											stroke={s.piece === on ? hue.ochre : s.sure < 0.4 ? hue.madder : hue.outline}
											strokeDasharray={s.sure < 0.4 ? `${5 / scale} ${3 / scale}` : undefined}
											strokeWidth={(s.piece === on ? 3 : 1.2) / scale}
											style={{ cursor: "grab", touchAction: "none" }}
											onPointerDown={(e) => {
												if (tapping) return tap(place(e));
												setOn(s.piece);
												e.currentTarget.setPointerCapture(e.pointerId);
												const p = place(e);
												drag.current = { x: p.x, y: p.y, seats };
											}}
											onPointerMove={(e) => {
												if (!drag.current) return;
												const p = place(e);
												const { x, y, seats: was } = drag.current;
												if (Math.hypot(p.x - x, p.y - y) * scale < 3) return;
												const q = was.find((w) => w.piece === s.piece);
												if (q) onSeats(carried(was, s.piece, { x: q.x + p.x - x, y: q.y + p.y - y, sure: 1, why: "put by hand" }));
											}}
											onPointerUp={() => {
												drag.current = undefined;
											}}
										/>
									)),
							)}
						</g>
					)}
				</Table>
				<Box bg="sheet" px="8" py="5" minH="96px" borderTop="1px solid {colors.line}">
					{chosen && middleOf ? (
						<>
							<Box mb="3">
								<b>
									Piece {chosen.piece + 1}, {layers[at]?.label}
								</b>
								: {sureness(chosen.sure)}; {chosen.why}.
							</Box>
							<Box display="flex" gap="4" flexWrap="wrap" alignItems="end">
								<LengthField label="Across" mm={middleOf.x - box.x} onSet={(v) => move(v - (middleOf.x - box.x), 0)} />
								<LengthField label="Down" mm={middleOf.y - box.y} onSet={(v) => move(0, v - (middleOf.y - box.y))} />
								<NumberField label="Turn (degrees)" value={chosen.turn} onSet={(v) => turn(v - chosen.turn)} />
								<Button onClick={() => turn(90)}>Quarter turn</Button>
								<Button onClick={mirror}>Mirror</Button>
								{at > 0 && <Button onClick={snap}>Snap</Button>}
								{at > 0 && (
									<Button aria-pressed={tapping} onClick={() => setTapping(!tapping)}>
										{tapping ? "Tap where it goes" : "Put by a tap"}
									</Button>
								)}
								{at > 0 && twin && <Button onClick={across}>Across from its twin</Button>}
								{at > 0 && seats.filter((s) => s.layer === chosen.layer).length === 1 && (
									<Button
										onClick={() => {
											onSeats(seats.map((s) => (s.layer === chosen.layer ? { ...s, layer: layers[at - 1].key } : s)));
											setLayers(layers.filter((l) => l.key !== chosen.layer));
										}}
									>
										One layer with {layers[at - 1].label}
									</Button>
								)}
								{seats.filter((s) => s.layer === chosen.layer).length > 1 && (
									<Button
										onClick={() => {
											const key = Math.max(...layers.map((l) => l.key)) + 1;
											onSeats(seats.map((s) => (s.piece === on ? { ...s, layer: key } : s)));
											setLayers([...layers.slice(0, at + 1), { key, fit: "free", label: `Layer ${layers.length + 1}` }, ...layers.slice(at + 1)]);
										}}
									>
										A layer of its own
									</Button>
								)}
							</Box>
						</>
					) : (
						<Box color="quiet">
							Tap a piece to move it: drag, or the arrow keys by 0.1 mm (with Shift 1 mm), the square brackets turn it, M mirrors it, S snaps it to the edge,
							hole or axis beneath that it goes by. T, then a tap, brings it there, turned as it fits; A puts it across the axis from its twin. What lies on it
							comes along. A dashed red edge is a guess.
						</Box>
					)}
				</Box>
			</div>
			<Box bg="sheet" borderLeft="1px solid {colors.line}" py="7" px="9" overflowY="auto" minH={0} display="flex" flexDirection="column" gap="5">
				<h2 style={{ fontSize: size.sub }}>The stack, top first</h2>
				<Box as="ol" listStyleType="none" p="0" m="0" fontSize="small" aria-label="Layers, top first">
					{[...layers].reverse().map((l) => {
						const i = layers.indexOf(l);
						const mine = seats.filter((s) => s.layer === l.key);
						const least = Math.min(...mine.map((s) => s.sure));
						return (
							<li key={l.key} style={{ display: "flex", gap: 6, alignItems: "center", padding: "3px 0", background: i === at ? hue.wash : undefined }}>
								<button
									type="button"
									onClick={() => setOn(mine[0].piece)}
									aria-label={`Choose ${l.label}`}
									style={{
										width: 64 - 3 * Math.min(8, i),
										height: 18,
										flex: "none",
										border: `1px solid ${hue.outline}`,
										borderTop: `5px solid ${mine[0].shown ?? pieces[mine[0].piece].colour}`,
										background: hue.sheet,
										cursor: "pointer",
									}}
								/>
								<Input
									value={l.label}
									aria-label={`Label of layer ${i + 1}`}
									style={{ flex: 1, minWidth: 60 }}
									onChange={(e) => setLayers(layers.map((x) => (x === l ? { ...x, label: e.target.value } : x)))}
								/>
								<Select
									label={`Fit of ${l.label}`}
									bare
									value={l.fit}
									onChange={(v) => setLayers(layers.map((x) => (x === l ? { ...x, fit: v as Layer["fit"] } : x)))}
									width="86px"
								>
									{fits.map((f) => (
										<option key={f}>{f}</option>
									))}
								</Select>
								<span style={{ width: 48, color: least < 0.4 ? hue.madder : hue.quiet }}>{i === 0 ? "" : sureness(least)}</span>
								<Button size="text" px="2" aria-label={`Move ${l.label} up`} disabled={i === layers.length - 1} onClick={() => shift(i, 1)}>
									↑
								</Button>
								<Button size="text" px="2" aria-label={`Move ${l.label} down`} disabled={i === 0} onClick={() => shift(i, -1)}>
									↓
								</Button>
							</li>
						);
					})}
				</Box>
				<Box borderTop="1px solid {colors.line}" pt="5" display="grid" gap="4" gridTemplateColumns="1fr 1fr">
					<div style={{ gridColumn: "1 / -1" }}>
						<TextField label="Name of the set" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
					</div>
					<TextField label="Where it is kept" value={where} onChange={(e) => setWhere(e.target.value)} />
					<TextField label="Words to find it by" value={tags} placeholder="moth, night" onChange={(e) => setTags(e.target.value)} />
				</Box>
				<Box fontSize="small">
					The image is {length(box.w - 12, settings)} × {length(box.h - 12, settings)}, {layers.length} {layers.length === 1 ? "layer" : "layers"} of{" "}
					{seats.length} {seats.length === 1 ? "piece" : "pieces"}.
				</Box>
				{(found.as === "pieces" || found.as === "mat") && (
					<FinishedPicture
						shown={shown}
						pieces={seats.length}
						name={found.name}
						demo={demo}
						busy={busy}
						settings={settings}
						through={through}
						onThrough={setThrough}
						onPicture={onPicture}
					/>
				)}
				{wrong && (
					<Box role="alert" color="madder">
						{wrong}
					</Box>
				)}
				<Button variant="main" disabled={!name.trim()} onClick={keep}>
					Keep the set
				</Button>
			</Box>
		</div>
	);
}
