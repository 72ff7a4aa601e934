import { Box } from "@chakra-ui/react";
import { type ReactNode, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useBench } from "../../api/card";
import { api, ok, type Problem, type S } from "../../api/client";
import { useGuest, useRefresh, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { Field } from "../../ui/field";
import { say } from "../../ui/said";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { day, hours, thin } from "../../ui/units";
import { Photographs } from "./photographs";

type Account = S["Account"];

/** One run in full. */
export function Entry({ a }: { a: Account }) {
	const e = a.entry;
	return (
		<Box display="flex" flexDirection="column" gap="7">
			<Head a={a} />
			<Photographs a={a} />
			<Went a={a} />
			{a.inks.length > 0 && <Inks a={a} />}
			{a.placed.length > 0 && <Placed a={a} />}
			<Since a={a} />
			{e.photographs.length === 0 && e.done === 0 && a.placed.length === 0 && (
				<Box color="quiet" fontSize="small">
					Its steps were not ticked, so nothing is known of its times.
				</Box>
			)}
		</Box>
	);
}

function Part({ title, children }: { title: string; children: ReactNode }) {
	return (
		<section aria-label={title}>
			<h2 style={{ fontSize: size.sub, marginBottom: 4 }}>{title}</h2>
			{children}
		</section>
	);
}

/** When it was, how many came out, what to remember, and making it again. */
function Head({ a }: { a: Account }) {
	const b = useBench();
	const go = useNavigate();
	const guest = useGuest();
	const refresh = useRefresh();
	const e = a.entry;
	const [note, setNote] = useState(e.note);
	const path = { id: b.view.id, run: e.id };
	const [well, setWell] = useState(e.well);
	// One after the other, each with all that was said by then: none overtakes another.
	const kept = useRef({ well: e.well, note: e.note });
	const last = useRef(Promise.resolve());
	const keep = (change: { well?: number; note?: string }) => {
		kept.current = { ...kept.current, ...change };
		last.current = last.current.then(async () => {
			try {
				await ok(api.PUT("/api/cards/{id}/entries/{run}", { params: { path }, body: kept.current }));
				await refresh("entries", "cards");
			} catch (err) {
				say((err as Problem).message);
			}
		});
	};
	const again = async () => {
		try {
			await ok(api.POST("/api/cards/{id}/entries/{run}/again", { params: { path } }));
			await refresh("entries", "card", "cards");
			go(`/card/${b.view.id}/work`);
		} catch (err) {
			say((err as Problem).message);
		}
	};
	const copy = async () => {
		try {
			const v = await ok(api.POST("/api/cards/{id}/copy", { params: { path: { id: b.view.id } }, body: { title: `${b.card.title}, again`, run: e.id } }));
			await refresh("cards");
			go(`/card/${v.id}/pieces`);
		} catch (err) {
			say((err as Problem).message);
		}
	};
	return (
		<Box>
			<Box display="flex" gap="6" alignItems="baseline" flexWrap="wrap">
				<h1 style={{ fontSize: size.title }}>{day(e.first || e.begun)}</h1>
				<Box color="quiet" fontSize="small">
					{e.ended ? "" : "Under way. "}
					{a.copies === 1 ? "One card" : `${a.copies} cards`}
					{e.version > 0 && `, as the card was at change ${e.version}`}.
				</Box>
			</Box>
			<Box display="flex" gap="6" alignItems="flex-start" flexWrap="wrap" mt="5">
				<Select
					label="Came out well"
					value={`${well}`}
					onChange={(v) => {
						setWell(Number(v));
						keep({ well: Number(v) });
					}}
					width="120px"
				>
					<option value="-1">not said</option>
					{Array.from({ length: Math.max(a.copies, well) + 1 }, (_, n) => n).map((n) => (
						<option key={n} value={n}>
							{n} of {a.copies}
						</option>
					))}
				</Select>
				<Box flex="1" minW="240px">
					<Field label="For the next time">
						<textarea
							value={note}
							rows={2}
							maxLength={4000}
							placeholder="What went well, what to do otherwise"
							onChange={(x) => setNote(x.target.value)}
							onBlur={() => note.trim() !== kept.current.note && keep({ note: note.trim() })}
						/>
					</Field>
				</Box>
				{!guest && (
					<Box display="flex" gap="4" pt="9" flexWrap="wrap">
						{(e.ended || e.done + e.left >= a.steps) && (
							<Button variant="main" onClick={again} title="A run of the card as it was then">
								Make it again
							</Button>
						)}
						<Button onClick={copy} title="A new card that begins as this one was then">
							A card from it
						</Button>
					</Box>
				)}
			</Box>
		</Box>
	);
}

const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** Planned beside as it went. */
function Went({ a }: { a: Account }) {
	const { went, entry: e } = a;
	if (e.done === 0 && a.papers.length === 0) return null;
	return (
		<Part title="Planned, and as it went">
			<table className="actual log-table">
				<thead>
					<tr>
						<th>What</th>
						<th>Planned</th>
						<th>As it went</th>
					</tr>
				</thead>
				<tbody>
					<tr>
						<th scope="row">From first to last step</th>
						<td>{hours(a.wall)}</td>
						<td>{went.took >= 1 ? hours(went.took) : "ticked together"}</td>
					</tr>
					{went.kinds.map((k) => (
						<tr key={k.kind}>
							<th scope="row">
								{kinds[k.kind]}, {count(k.steps, "step", "steps")}
							</th>
							<td>{hours(k.planned)}</td>
							<td>{hours(k.took)}</td>
						</tr>
					))}
					<tr>
						<th scope="row">Steps</th>
						<td>{a.steps}</td>
						<td>
							{e.done} done{e.left > 0 && `, ${e.left} left out`}
						</td>
					</tr>
					{a.papers.map((p) => (
						<tr key={p.name}>
							<th scope="row">{p.name}</th>
							<td>{count(p.sheets, "sheet", "sheets")}</td>
							<td>cut {day(p.at)}</td>
						</tr>
					))}
				</tbody>
			</table>
			{went.kinds.length > 0 && (
				<Box fontSize="small" color="quiet" mt="2">
					By sort of step, of the {count(went.known, "step", "steps")} whose time is known: not those with a pause in them, nor those ticked together. Planned
					with the times known now.
				</Box>
			)}
			<Levels a={a} />
			{a.left.length > 0 && (
				<Box fontSize="small" mt="2">
					Left out: {a.left.join("; ")}.
				</Box>
			)}
			{went.moved.length > 0 && (
				<Box fontSize="small" mt="2">
					At another turn than planned: {went.moved.slice(0, 4).map(turn).join("; ")}
					{went.moved.length > 4 && ` and ${went.moved.length - 4} more`}.
				</Box>
			)}
		</Part>
	);
}

/** Pads and envelopes it took, to be taken out of the stores once. */
function Levels({ a }: { a: Account }) {
	const b = useBench();
	const guest = useGuest();
	const refresh = useRefresh();
	const counted = a.takes.filter((t) => t.left !== undefined);
	if (a.takes.length === 0) return null;
	const take = async () => {
		try {
			await ok(api.POST("/api/cards/{id}/entries/{run}/levels", { params: { path: { id: b.view.id, run: a.entry.id } } }));
			await refresh("entries", "state", "cards", "card");
		} catch (e) {
			say((e as Problem).message);
		}
	};
	return (
		<Box fontSize="small" mt="3" className="beside">
			<span>
				Besides card it takes {a.takes.map((t) => `${t.n} ${t.name}${t.left === undefined ? "" : ` (${t.left} there)`}`).join(", ")}.
				{a.entry.levels && ` Taken out of the stores ${day(a.entry.levels)}.`}
			</span>
			{counted.length > 0 && !a.entry.levels && !guest && <Button onClick={take}>Take them out of the stores</Button>}
		</Box>
	);
}

const turn = (m: S["OutOfTurn"]) => `${m.step}${m.after ? `, done after ${m.after}` : ", done first"}`;

const kinds: Record<S["TookFor"]["kind"], string> = {
	cut: "Cutting",
	ink: "Inking",
	print: "Printing",
	mask: "Masking",
	heat: "Heating",
	"pop out": "Popping out",
	glue: "Gluing",
	foam: "Foam",
	check: "Looking over",
};

/** Which ink was planned and used on which layer, wet and dried. */
function Inks({ a }: { a: Account }) {
	const chip = (c: string, what: string) => <span className="ink-chip" style={{ background: c }} title={what} />;
	return (
		<Part title="Inks">
			<table className="actual log-table">
				<thead>
					<tr>
						<th>Layer</th>
						<th>Wet, dried</th>
						<th>Ink used</th>
						<th>Planned</th>
					</tr>
				</thead>
				<tbody>
					{a.inks.map((i, n) => (
						<tr key={`${i.image}${i.way}${i.layer}${i.zone}${n}`}>
							<th scope="row">
								{i.image}, {i.layer}
								{i.zone !== "all over" && `, ${i.zone}`}
							</th>
							<td style={{ whiteSpace: "nowrap" }}>
								{chip(i.usedWet || i.wet || i.dry, "wet")} {chip(i.usedDry || i.dry, "dried")}
							</td>
							<td>{i.used || i.ink || "left plain"}</td>
							<td>{i.used ? i.ink || "left plain" : "the same"}</td>
						</tr>
					))}
				</tbody>
			</table>
		</Part>
	);
}

/** Placements measured for it, against their play. */
function Placed({ a }: { a: Account }) {
	const s = useSettings();
	return (
		<Part title="How exactly the layers lie">
			<table className="actual log-table">
				<thead>
					<tr>
						<th>Layer</th>
						<th>Off by</th>
						<th>Turned by</th>
						<th>Play</th>
					</tr>
				</thead>
				<tbody>
					{a.placed.slice(0, 40).map((p) => (
						<tr key={p.id}>
							<th scope="row">{p.label}</th>
							<td>{thin(Math.hypot(p.x, p.y), s)}</td>
							<td>{Math.abs(p.turn).toFixed(1)}°</td>
							<td style={{ color: p.good ? undefined : hue.madder }}>{p.good ? "inside its play" : "past its play"}</td>
						</tr>
					))}
				</tbody>
			</table>
		</Part>
	);
}

/** What was changed of the card since. */
function Since({ a }: { a: Account }) {
	const { new: added, gone, otherwise } = a.differs;
	const n = added.length + gone.length + otherwise.length;
	return (
		<Part title="Changed since">
			{a.since.length === 0 && n === 0 ? (
				<Box>The card is as it was then.</Box>
			) : (
				<>
					<ul style={{ margin: 0, paddingLeft: 18 }}>
						{a.since.map((w) => (
							<li key={w}>{w}</li>
						))}
					</ul>
					{n > 0 && (
						<Box fontSize="small" mt="2">
							Its steps:{" "}
							{[added.length && `${added.length} new`, gone.length && `${gone.length} gone`, otherwise.length && `${otherwise.length} otherwise`]
								.filter(Boolean)
								.join(", ")}
							.
						</Box>
					)}
				</>
			)}
		</Part>
	);
}
