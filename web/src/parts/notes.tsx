import { Box } from "@chakra-ui/react";
import { memo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { type Bench, openNotes, useBench, useDocument } from "../api/card";
import type { Finding } from "../api/client";
import { useTried } from "../api/queries";
import { usePick } from "../api/selection";
import { Button } from "../ui/button";
import { hue } from "../ui/colours";
import { size } from "../ui/sizes";

/** Whether a note is about what is selected. */
const about = (b: Bench, f: Finding) =>
	(f.layer && f.layer === b.layer && (!f.motif || f.motif === b.motif?.id)) || (f.element && f.element === b.element) ? 1 : 0;

/** The shelf of margin notes: what the program noticed at this station, what, why, what
 * to do. One line high while nothing spoils; opened, a fifth of the height at the most.
 * The notes of other stations are counted on their stones. */
export function Notes({ station }: { station: string }) {
	const b = useBench();
	const [pulled, setPulled] = useState<boolean>();
	const all = b.view.plan.findings.filter((f) => f.station === station || f.station === "stores");
	const here = openNotes(all).sort((x, y) => about(b, y) - about(b, x));
	const aside = all.filter((f) => f.aside);
	const open = pulled ?? here.some((f) => f.severity === "spoils");
	const any = here.length + aside.length > 0;
	const count = here.length === 1 ? "1 note" : `${here.length} notes`;
	return (
		<Box as="section" aria-label="Margin notes" bg="sheet" borderTop="1px solid {colors.line}" gridColumn="1 / -1" minW={0}>
			<Box display="flex" alignItems="center" gap="6" px="8" minH="36px" fontSize="small">
				{here.length > 0 ? <Shape kind={here[0].severity} /> : <Good />}
				{any ? (
					<Button variant="link" size="text" flex="1" minW={0} justifyContent="flex-start" aria-expanded={open} onClick={() => setPulled(!open)}>
						{here.length > 0 ? count : "Nothing to note here"}
						<Box as="span" color="text" fontWeight={400} overflow="hidden" textOverflow="ellipsis">
							{here[0]?.what}
							{aside.length > 0 && ` (${aside.length} set aside)`}
						</Box>
						<span aria-hidden="true">{open ? "▾" : "▴"}</span>
					</Button>
				) : (
					<Box flex="1">Nothing to note here: the plan found nothing at this station that would spoil or show.</Box>
				)}
				<Link to="/looks-for">What Ochrestone looks for</Link>
			</Box>
			{open && any && (
				<Box
					maxH="20vh"
					overflowY="auto"
					tabIndex={0}
					role="region"
					aria-label="Notes of this station"
					display="grid"
					gridTemplateColumns="repeat(auto-fill, minmax(min(380px, 100%), 1fr))"
					borderTop="1px solid {colors.line}"
				>
					{here.map((f) => (
						<Note key={f.id} f={f} />
					))}
					{aside.length > 0 && (
						<NoteFrame icon={<Shape kind="tip" />}>
							<h3 style={{ fontSize: size.lead }}>Set aside</h3>
							{aside.map((f) => (
								<Box key={f.id} fontSize="small">
									{f.what}: “{f.aside}”{" "}
									<Button variant="link" size="text" onClick={() => b.edit({ recall: { finding: f.id } })}>
										Bring back
									</Button>
								</Box>
							))}
						</NoteFrame>
					)}
				</Box>
			)}
		</Box>
	);
}

/** What a note says, within a sentence. */
const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1).replace(/\.$/, "");

function NoteFrame({ icon, children }: { icon: React.ReactNode; children: React.ReactNode }) {
	return (
		<Box display="flex" gap="5" py="5" px="8" minW={0}>
			<Box pt="1">{icon}</Box>
			<Box minW={0}>{children}</Box>
		</Box>
	);
}

const Note = memo(function Note({ f }: { f: Finding }) {
	const b = useDocument();
	const pick = usePick();
	const go = useNavigate();
	const [why, setWhy] = useState<string | null>(null);
	const tried = useTried(b.view.id, b.view.version, f.id, !!f.mend);
	const costs = tried?.costs ?? [];
	const show = () => {
		pick({ motif: f.motif || undefined, colourway: f.colourway || undefined, layer: f.layer ?? "", element: f.element ?? "", step: f.step ?? "" });
		if (f.station && f.station !== "stores") go(`/card/${b.view.id}/${f.station}`);
	};
	return (
		<NoteFrame icon={<Shape kind={f.severity} />}>
			<h3 style={{ fontSize: size.lead }}>{f.what}</h3>
			<Box fontSize="small">
				{f.why} {f.do}
				{f.mend && tried?.gone && costs.length > 0 && (
					<>
						{" "}
						<i>
							{f.mend.label}: then {costs.map((c) => lower(c.what)).join("; ")}.
						</i>
					</>
				)}
			</Box>
			{why === null ? (
				<Box display="flex" gap="8">
					<Button variant="link" size="text" onClick={show}>
						Show me
					</Button>
					{f.mend && tried?.gone !== false && (
						<Button variant="link" size="text" onClick={() => f.mend && b.edit(f.mend.edits)}>
							{f.mend.label}
						</Button>
					)}
					<Button variant="link" size="text" onClick={() => setWhy("")}>
						Set aside
					</Button>
				</Box>
			) : (
				<form
					style={{ display: "flex", gap: 8, marginTop: 4 }}
					onSubmit={(e) => {
						e.preventDefault();
						b.edit({ setAside: { finding: f.id, cause: f.cause, reason: why.trim() } });
					}}
				>
					<input aria-label="Reason" placeholder="Reason, such as: meant so" value={why} onChange={(e) => setWhy(e.target.value)} />
					<Button type="submit">Set aside</Button>
				</form>
			)}
		</NoteFrame>
	);
});

export function Shape({ kind }: { kind: Finding["severity"] }) {
	const name = { spoils: "Spoils the card", shows: "Will show", wastes: "Wastes work", tip: "Tip" }[kind];
	return (
		<svg width="20" height="20" viewBox="0 0 20 20" role="img" aria-label={name}>
			{kind === "spoils" || kind === "shows" ? (
				<>
					<path d="M10 2 L18.5 17.5 L1.5 17.5Z" fill={kind === "spoils" ? hue.madder : "none"} stroke={hue.madder} strokeWidth="2" strokeLinejoin="round" />
					<path d="M10 8v4.5M10 14.4v1" stroke={kind === "spoils" ? hue.white : hue.madder} strokeWidth="1.8" />
				</>
			) : (
				<rect x="3" y="3" width="14" height="14" fill="none" stroke={hue.quiet} strokeWidth="2" strokeDasharray={kind === "wastes" ? "3 2" : undefined} />
			)}
		</svg>
	);
}

function Good() {
	return (
		<svg width="20" height="20" viewBox="0 0 20 20" role="img" aria-label="Settled">
			<circle cx="10" cy="10" r="8" fill="none" stroke={hue.lichen} strokeWidth="2" />
			<path d="M6 10.4l2.7 2.8L14.2 7" fill="none" stroke={hue.lichen} strokeWidth="2" />
		</svg>
	);
}
