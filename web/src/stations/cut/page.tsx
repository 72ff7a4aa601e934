import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type Problem, type S } from "../../api/client";
import { useCutting, useRefresh } from "../../api/queries";
import { Beside, useNotesAbout } from "../../parts/beside";
import { CardStrata } from "../../parts/card-strata";
import { Frame } from "../../parts/picture";
import { SittingButton } from "../../parts/sitting";
import { StationFrame } from "../../parts/station";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { say } from "../../ui/said";
import { day, length } from "../../ui/units";
import { told } from "./cuts";
import { OnSheet } from "./sheet";

/** Cut: every piece by cardstock, laid out on the sheets there are, for as many cards as are made in one sitting. */
export default function Cut() {
	const b = useBench();
	const got = useCutting(b.view.id, b.view.version);
	const plan = got.data;
	const copies = b.card.copies || 1;
	const sheets = plan?.stocks.reduce((n, s) => n + s.needs, 0) ?? 0;
	const notes = useNotesAbout("cut");
	const made = plan?.copies ?? copies;
	const saved = [
		plan && plan.one > sheets && `${plan.one} sheets`,
		plan && plan.oneRuns > plan.runs && `${plan.oneRuns} runs of the machine and not ${plan.runs}`,
	].filter(Boolean);
	const by = made > 1 && saved.length > 0 ? `; card by card, each from fresh sheets, it would be ${saved.join(" and ")}` : "";
	return (
		<StationFrame
			station="cut"
			table={
				<>
					<Frame
						title={plan ? `${sheets} ${sheets === 1 ? "sheet" : "sheets"}` : "Laying out…"}
						sub={plan ? `Whole sheets for ${made === 1 ? "one card" : `${made} cards`}${by}. Offcuts are used first.` : "At most a second."}
					>
						{!b.card.lots?.length && (
							<NumberField saved label="Cards in one sitting" min={1} max={200} v={copies} set={(n) => b.edit({ copies: { n: Math.round(n) } })} />
						)}
						<SittingButton />
						<a className="main-link" href={`/api/cards/${b.view.id}/cutting.pdf`} target="_blank" rel="noreferrer">
							Cut list, sheets
						</a>
						<a className="main-link" href={`/api/cards/${b.view.id}/cutting.csv`} download>
							As a table
						</a>
					</Frame>
					<Box flex="1" minH={0} overflow="auto" tabIndex={0} py="5" px="9" bg={hue.bench} opacity={got.isFetching ? 0.7 : 1} aria-busy={got.isFetching}>
						{notes.length > 0 && (
							<Box mb="5">
								<Beside notes={notes} />
							</Box>
						)}
						{plan?.stocks.map((s) => (
							<OfStock key={s.stock} s={s} id={b.view.id} />
						))}
						{plan && plan.passes.length > 0 && <Passes plan={plan} />}
						{plan && plan.counts.length > 0 && <Counts counts={plan.counts} />}
						<Box bg="sheet" py="3" px="6" mt="5" fontSize="small">
							Keep fingers clear of blades and of the machine's rollers; cut away from your hands. The tool's own label goes first.
						</Box>
					</Box>
				</>
			}
			strata={
				<CardStrata
					what="to cut"
					value={(id) => {
						const motif = b.card.elements.find((e) => e.id === id)?.image?.motif;
						const n = plan?.stocks.flatMap((s) => s.wants.filter((w) => w.element === id || (motif && w.motif === motif))).reduce((x, w) => x + w.n, 0);
						return n ? `${n}` : "";
					}}
				/>
			}
		/>
	);
}

/** One cardstock: what is cut from it, and its sheets. */
function OfStock({ s, id }: { s: S["CutStock"]; id: string }) {
	const b = useBench();
	const u = b.state.settings;
	const refresh = useRefresh();
	const [at, setAt] = useState(0);
	const sheet = s.sheets[Math.min(at, s.sheets.length - 1)];
	const left = s.sheets.reduce((n, x) => n + x.left.length, 0);
	// Pieces that are cut straight and others are counted on sheets of their own.
	const straight = (x: S["CutSheet"]) => x.placed.some((p) => s.wants[p.want].by === "trimmer");
	const fresh = s.sheets.filter((x) => x.kind === "sheet");
	const loose = fresh.filter((x) => !straight(x));
	const byHand = b.card.locks?.some((l) => l.stock === s.stock);
	const short = s.owned && !s.taken && s.needs > s.has;
	const taken = async () => {
		try {
			const p = await ok(api.POST("/api/cards/{id}/cutting/taken", { params: { path: { id } }, body: { stock: s.stock } }));
			say(`${s.name}: ${p.sheets} left, ${p.offcuts?.length ?? 0} sorts of offcuts kept.`);
			await refresh("state", "card");
		} catch (err) {
			say((err as Problem).message);
		}
	};
	return (
		<Box as="section" bg="sheet" mb="5" py="4" px="6" aria-label={s.name}>
			<Box display="flex" gap="5" alignItems="center" flexWrap="wrap">
				<Box w="26px" h="26px" bg={s.colour} border={`1px solid ${hue.edge}`} />
				<h2 style={{ margin: 0 }}>{s.name}</h2>
				<Box color={short ? "madder" : "quiet"} fontWeight={short ? 700 : 400}>
					{s.needs} {s.needs === 1 ? "sheet" : "sheets"}
					{s.owned ? `, ${s.has} in the stores` : ", not in the stores"}
					{s.needs > 0 && `, ${Math.round(100 * s.used)} % of them used`}
				</Box>
				{byHand && (
					<Button onClick={() => b.edit({ layByHand: { piece: { stock: s.stock, copy: 0, sheet: 0, x: 0, y: 0 }, free: true, all: true } })}>
						Lay all as they come
					</Button>
				)}
				{s.taken && <Box color="quiet">Cut, and taken out of the stores on {day(s.taken)}.</Box>}
				{s.owned && !s.taken && s.sheets.length > 0 && (
					<Popover label="I cut these" title="Take them out of the stores?">
						{(shut) => (
							<Box w="300px">
								{s.needs} of {s.has} sheets and the offcuts used are taken out, {left === 0 ? "nothing" : left === 1 ? "one offcut" : `${left} offcuts`} worth
								keeping put there.
								<Box mt="3">
									<Button
										variant="main"
										onClick={() => {
											shut();
											taken();
										}}
									>
										Take them out
									</Button>
								</Box>
							</Box>
						)}
					</Popover>
				)}
			</Box>
			{short && (
				<Box mt="2">
					{s.standIn ? (
						<>
							<b>{s.standIn.name}</b> comes nearest of what there is enough of ({s.standIn.has} sheets, {s.standIn.diff.toFixed(1)} apart in colour).
						</>
					) : (
						"Nothing in the stores comes near enough to stand in."
					)}
				</Box>
			)}
			{s.lacks.map((l) => (
				<Box key={`${l.want}${l.why}`} mt="2" color="madder">
					{l.n} × {s.wants[l.want].name} not laid. {l.why} {l.do}
				</Box>
			))}
			<Box display="flex" gap="8" mt="3" flexWrap="wrap" alignItems="flex-start">
				{sheet && <OnSheet s={s} sheet={sheet} straight={straight(sheet)} number={straight(sheet) ? fresh.indexOf(sheet) : loose.indexOf(sheet)} />}
				<Box flex="1" minW="240px">
					{s.sheets.length > 1 && (
						<Box display="flex" gap="2" flexWrap="wrap" mb="3">
							{s.sheets.map((x, i) => (
								<Button key={i} aria-pressed={x === sheet} onClick={() => setAt(i)}>
									{x.kind === "sheet"
										? `Sheet ${s.sheets.slice(0, i + 1).filter((y) => y.kind === "sheet").length}`
										: x.kind === "offcut"
											? "Offcut"
											: "Middle"}
								</Button>
							))}
						</Box>
					)}
					<table>
						<tbody>
							{s.wants.map((w, i) => (
								<tr key={i} style={{ background: b.element && w.element === b.element ? hue.glow : undefined }}>
									<td style={{ textAlign: "right" }}>
										<b>{w.n}</b>
									</td>
									<td>
										{w.name}
										{w.spares > 0 && `, ${w.spares} to spare`}
									</td>
									<td>
										{length(w.w, u)} × {length(w.h, u)}
									</td>
									<td>{w.by}</td>
								</tr>
							))}
						</tbody>
					</table>
					{sheet && sheet.cuts.length > 0 && (
						<ul style={{ margin: "8px 0 0", padding: 0, listStyle: "none" }}>
							{told(sheet.cuts).map(({ from, to, cut: c }) => (
								<li key={from}>
									<b>{from === to ? from : `${from} to ${to}`}</b> {length(c.w, u)} × {length(c.h, u)}: cut {c.down ? "down" : "across"}, {length(c.at, u)} from
									its {c.down ? "left" : "top"}
									{to > from && `, ${to - from + 1} times`}
								</li>
							))}
						</ul>
					)}
					{sheet && (
						<Box mt="2" fontSize="small" color="quiet">
							{sheet.kind === "middle" && `Cut out of the middle of ${sheet.of}, which is covered. `}
							{sheet.left.length > 0 && `Left to keep: ${sheet.left.map((a) => `${length(a.w, u)} × ${length(a.h, u)}`).join("; ")}. `}
							{fresh.includes(sheet) && !s.taken && "Drag a piece, or move it with the arrow keys and turn it with T: the others are laid round it. "}
							<a href={`/api/cards/${id}/cutting/${s.stock}/${s.sheets.indexOf(sheet) + 1}`} download>
								Its lines for an electronic cutter
							</a>
						</Box>
					)}
				</Box>
			</Box>
		</Box>
	);
}

/** The runs through the machine. */
function Passes({ plan }: { plan: S["CutPlan"] }) {
	return (
		<Box as="section" bg="sheet" mb="5" py="4" px="6" aria-label="Through the machine">
			<h2 style={{ margin: 0 }}>
				{plan.by}: {plan.runs} {plan.runs === 1 ? "run" : "runs"}
			</h2>
			<table>
				<tbody>
					{plan.passes.map((p) => (
						<tr key={p.dies.join()}>
							<td style={{ textAlign: "right", whiteSpace: "nowrap" }}>
								<b>{p.times} ×</b>
							</td>
							<td>
								{p.dies.join("; ")}
								{p.over && <b> larger than its plate: cut it in a larger machine, or by hand</b>}
								{p.back && ", there and back: the card is thicker than it cuts at once"}
								{p.small.length > 0 && `. Tape down and lift with tweezers: ${p.small.join(", ")}`}
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</Box>
	);
}

/** What a run takes beside paper. */
function Counts({ counts }: { counts: S["CutCount"][] }) {
	return (
		<Box as="section" bg="sheet" py="4" px="6" aria-label="Beside paper">
			<h2 style={{ margin: 0 }}>Beside paper</h2>
			<table>
				<tbody>
					{counts.map((c) => (
						<tr key={c.name}>
							<td style={{ textAlign: "right" }}>
								<b>{c.n}</b>
							</td>
							<td>{c.name}</td>
							<td style={{ color: c.short ? hue.madder : hue.quiet }}>
								{c.has >= 0 ? `${c.has} left${c.short ? ": too few" : ""}` : ""} {c.said}
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</Box>
	);
}
