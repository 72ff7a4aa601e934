import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { useBench } from "../../api/card";
import { api, ok, type Problem, type S } from "../../api/client";
import { useAccount, useEntries, useGuest, useRefresh } from "../../api/queries";
import { CardStrata } from "../../parts/card-strata";
import { Frame } from "../../parts/picture";
import { StationFrame } from "../../parts/station";
import { Button } from "../../ui/button";
import { say } from "../../ui/said";
import { size } from "../../ui/sizes";
import { day } from "../../ui/units";
import { Entry } from "./entry";
import { LearnedOverTime } from "./learned";

/** Log: what was made of the card, how it went beside the plan, and what hand and drawer have learned. */
export default function Log() {
	const b = useBench();
	const guest = useGuest();
	const refresh = useRefresh();
	const { id, version } = b.view;
	const entries = useEntries(id, b.view.run);
	const [asked] = useSearchParams();
	const [picked, pick] = useState<number | undefined>(Number(asked.get("run")) || undefined);
	const [learned, setLearned] = useState(false);
	const all = entries.data ?? [];
	const entry = all.find((e) => e.id === picked) ?? all[0];
	const account = useAccount(id, entry?.id, version, b.view.run);
	const note = async () => {
		try {
			await ok(api.POST("/api/cards/{id}/entries", { params: { path: { id } } }));
			await refresh("entries", "card", "cards");
		} catch (e) {
			say((e as Problem).message);
		}
	};
	const shown = account.data;
	return (
		<StationFrame
			station="log"
			table={
				<>
					<Frame
						title={learned ? "What was learned" : made(all)}
						sub={learned ? "From all cards: what was measured and ticked." : "How each run went, beside what was planned."}
					>
						<Button aria-pressed={learned} onClick={() => setLearned(!learned)}>
							{learned ? "What was made" : "What was learned"}
						</Button>
						{!guest && !learned && b.view.run.done.length === 0 && <Button onClick={note}>Note one that was made</Button>}
					</Frame>
					<Box className="log" flex="1" minH={0} bg="sheet">
						{learned ? (
							<Box p="9" overflow="auto" tabIndex={0} role="region" aria-label="What was learned">
								<LearnedOverTime />
							</Box>
						) : (
							<>
								<Box as="ul" aria-label="Runs" listStyleType="none" m="0" p="5" overflow="auto" bg="ground">
									{all.map((e) => (
										<li key={e.id}>
											<RunLine e={e} here={e.id === entry?.id} onPick={() => pick(e.id)} />
										</li>
									))}
									{entries.data && all.length === 0 && <li style={{ fontSize: size.small }}>No run yet.</li>}
								</Box>
								<Box p="9" overflow="auto" tabIndex={0} role="region" aria-label="The run">
									{entry && shown?.entry.id === entry.id && <Entry key={entry.id} a={shown} />}
									{entry && !shown && <Box color="quiet">Reading the log…</Box>}
									{entries.data && !entry && (
										<Box maxW="52ch">
											<h1 style={{ fontSize: size.title }}>Nothing made yet</h1>
											<Box mt="4">
												What you tick at Work comes here by itself: when, with which inks, how long it took. When a card is finished, say how many came out, and
												keep a photograph.
											</Box>
											<Box mt="4">Made without ticking its steps? Note one that was made.</Box>
										</Box>
									)}
								</Box>
							</>
						)}
					</Box>
				</>
			}
			strata={<CardStrata what="" value={() => ""} />}
		/>
	);
}

const made = (all: S["Entry"][]) => (all.length === 0 ? "The log" : all.length === 1 ? "One run" : `${all.length} runs`);

/** A run in the list: when, how far, and how it looks. */
function RunLine({ e, here, onPick }: { e: S["Entry"]; here: boolean; onPick: () => void }) {
	const p = e.photographs.at(-1);
	return (
		<button type="button" className="run-line" aria-current={here || undefined} onClick={onPick}>
			{p ? <img src={`/api/photographs/${p.id}.jpg?small=1`} alt="" /> : <span className="no-picture" />}
			<span>
				<b>{day(e.first || e.begun)}</b>
				<br />
				{e.ended ? (e.well >= 0 ? `${e.well} came out` : e.done > 0 ? `${e.done} steps done` : "noted") : "under way"}
			</span>
		</button>
	);
}
