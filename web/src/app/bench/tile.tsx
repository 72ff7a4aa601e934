import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { S } from "../../api/client";
import { useGuest, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import { clock, useNow } from "../../ui/clock";
import { hue } from "../../ui/colours";
import { size } from "../../ui/sizes";
import { day, thin } from "../../ui/units";
import { AsThisOne, Lay } from "./lay";

/** A card: its front, its section, how it stands and what is next. */
export function Tile({ t }: { t: S["Tile"] }) {
	const guest = useGuest();
	const [open, setOpen] = useState<"" | "as" | "lay">("");
	const k = Math.min(190 / t.w, 180 / t.h);
	return (
		<Box bg="sheet" border="1px solid {colors.line}" display="flex" flexDirection="column" p="8">
			<Box display="flex" gap="8" flex="1">
				<Link
					to={`/card/${t.id}/pieces`}
					style={{ flex: "0 0 200px", display: "grid", placeItems: "center", background: hue.bench, minHeight: 200 }}
					aria-label={`Open ${t.title}`}
				>
					<img
						src={`/api/cards/${t.id}/front.svg?v=${t.version}`}
						alt={`Front of ${t.title}`}
						width={t.w * k}
						height={t.h * k}
						style={{ boxShadow: `0 1px 3px ${hue.edge}` }}
					/>
				</Link>
				<Box flex="1" display="flex" flexDirection="column" gap="3" minW={0}>
					<h2 style={{ fontSize: size.sub }}>
						<Link to={`/card/${t.id}/pieces`} style={{ color: hue.text, textDecoration: "none" }}>
							{t.title}
						</Link>
					</h2>
					<MiniStrata t={t} />
					<HowItStands t={t} />
					{t.next && t.stands !== "finished" && t.stands !== "put away" && (
						<Box fontSize="small">
							Next: <b>{t.next}</b>
						</Box>
					)}
					<Box fontSize="small" color={t.spoils || t.problem ? "madder" : "quiet"} fontWeight={t.spoils || t.problem ? 700 : 400}>
						{t.problem
							? `▲ ${t.problem}`
							: t.spoils > 0
								? `▲ ${t.spoils} would spoil it`
								: t.notes > 0
									? `${t.notes} margin ${t.notes === 1 ? "note" : "notes"}`
									: "Nothing to note"}
					</Box>
					{t.lying.tags.length > 0 && (
						<Box fontSize="small" color="quiet">
							Kept under {t.lying.tags.join(", ")}
						</Box>
					)}
				</Box>
			</Box>
			{!guest && (
				<Box display="flex" gap="4" flexWrap="wrap" pt="6">
					<Button onClick={() => setOpen("as")} aria-label={`As this one, but for…: ${t.title}`}>
						As this one, but for…
					</Button>
					<Button onClick={() => setOpen("lay")} aria-label={`Keep…: ${t.title}`}>
						Keep…
					</Button>
				</Box>
			)}
			{open === "as" && <AsThisOne t={t} onClose={() => setOpen("")} />}
			{open === "lay" && <Lay t={t} onClose={() => setOpen("")} />}
		</Box>
	);
}

/** How far it is: begun, waiting and for what, finished and how often, put away and since when. */
function HowItStands({ t }: { t: S["Tile"] }) {
	const s = useSettings();
	const now = useNow(t.waits.length > 0);
	const so = {
		planned: "Planned",
		begun: `Begun, ${t.done} of ${t.steps} steps done`,
		waiting: `Waiting, ${t.done} of ${t.steps} steps done`,
		finished: t.made > 1 ? `Finished, made ${t.made} times` : "Finished",
		"put away": t.lying.away ? `Put away ${day(t.lying.away)}` : "Put away",
	}[t.stands];
	return (
		<Box fontSize="small" display="flex" gap="4" alignItems="flex-start">
			{t.shown ? <img src={`/api/photographs/${t.shown}.jpg?small=1`} alt={`${t.title}, finished`} style={{ height: 52, width: "auto" }} /> : null}
			<div>
				<b>{so}</b>, {thin(t.total, s)} thick
				{t.waits.map((w) => (
					<div key={w.for + w.until}>
						{clock(Date.parse(w.until) - now)} for {w.for}
					</div>
				))}
			</div>
		</Box>
	);
}

/** The strata of a whole card, through its highest place. */
function MiniStrata({ t }: { t: S["Tile"] }) {
	const h = 44;
	const k = h / Math.max(t.total, 1);
	return (
		<svg
			viewBox={`0 0 ${t.w} ${h + 2}`}
			width="100%"
			height={h + 2}
			preserveAspectRatio="none"
			role="img"
			aria-label={`Section through ${t.title}, ${t.sections.length} strata`}
		>
			<rect x={0} y={h - 0.78 * k} width={t.w} height={0.78 * k} fill="#d9c9ac" />
			{t.sections.map((s, i) => (
				<g key={`${s.id}${s.layer}${i}`}>
					{s.foam && <rect x={s.x0} y={h - s.z0 * k} width={s.x1 - s.x0} height={s.lift * k} fill="#f7f7f5" stroke="#a9b0b4" strokeWidth={0.3} />}
					<rect
						x={s.x0}
						y={h - s.z1 * k - (s.z1 === s.z0 ? 1.5 : 0)}
						width={s.x1 - s.x0}
						height={Math.max(1.5, (s.z1 - s.z0) * k)}
						fill={s.layer ? s.top : s.body}
					/>
				</g>
			))}
		</svg>
	);
}
