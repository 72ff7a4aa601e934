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
	const k = Math.min(190 / Math.max(t.w, 1), 180 / Math.max(t.h, 1));
	return (
		<Box bg="sheet" border="1px solid {colors.line}" display="flex" flexDirection="column" p="8">
			<Box display="flex" gap="8" flex="1">
				<Link
					to={`/card/${t.id}/pieces`}
					style={{ flex: "0 0 200px", display: "grid", placeItems: "center", background: hue.bench, minHeight: 200 }}
					aria-label={t.of ? `Open ${t.title}` : `Being worked out… Open ${t.title}`}
				>
					{t.of ? (
						<img
							src={`/api/cards/${t.id}/kept/front.svg?of=${t.of}`}
							alt={`Front of ${t.title}`}
							width={t.w * k}
							height={t.h * k}
							style={{ boxShadow: `0 1px 3px ${hue.edge}` }}
						/>
					) : (
						<span style={{ color: hue.text }}>Being worked out…</span>
					)}
				</Link>
				<Box flex="1" display="flex" flexDirection="column" gap="3" minW={0}>
					<h2 style={{ fontSize: size.sub }}>
						<Link to={`/card/${t.id}/pieces`} style={{ color: hue.text, textDecoration: "none" }}>
							{t.title}
						</Link>
					</h2>
					{t.of && <MiniStrata t={t} />}
					{t.of && <HowItStands t={t} />}
					{t.stale && t.of && (
						<Box fontSize="small" color="quiet" role="status">
							As it was before the last change; being worked out anew
						</Box>
					)}
					{t.next && t.stands !== "finished" && t.stands !== "put away" && (
						<Box fontSize="small">
							Next: <b>{t.next}</b>
						</Box>
					)}
					{t.of && (
						<Box fontSize="small" color={t.spoils || t.problem ? "madder" : "quiet"} fontWeight={t.spoils || t.problem ? 700 : 400}>
							{t.problem
								? `▲ ${t.problem}`
								: t.spoils > 0
									? `▲ ${t.spoils} would spoil it`
									: t.notes > 0
										? `${t.notes} margin ${t.notes === 1 ? "note" : "notes"}`
										: "Nothing to note"}
						</Box>
					)}
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
	return (
		<img
			src={`/api/cards/${t.id}/kept/strata.svg?of=${t.of}`}
			alt={`Section through ${t.title}, ${t.strata} strata`}
			width="100%"
			height={46}
			style={{ height: 46, width: "100%" }}
		/>
	);
}
