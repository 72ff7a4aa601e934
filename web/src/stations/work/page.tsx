import { Box } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo } from "react";
import { useBench } from "../../api/card";
import type { Act, Card } from "../../api/client";
import { useGuest, useSitting } from "../../api/queries";
import { CardStrata } from "../../parts/card-strata";
import { ScreensButton } from "../../parts/screens";
import { SittingButton } from "../../parts/sitting";
import { StationFrame } from "../../parts/station";
import { Button } from "../../ui/button";
import { typing } from "../../ui/keys";
import { size } from "../../ui/sizes";
import { Now } from "./now";
import { AllDone, HowLong, Told } from "./run";
import { Steps } from "./steps";
import { Waits } from "./waits";

/** Work: one step at a time, readable from a metre and a half; ticked steps are remembered. */
export default function Work() {
	const b = useBench();
	const guest = useGuest();
	const sitting = useSitting(b.view.id, b.view.version).data;
	// Until it is known, and while the program does not answer, the card by itself.
	const alone = b.card.lots?.length ? undefined : b.view.plan;
	const steps = useMemo(() => sitting?.steps ?? alone?.steps ?? [], [sitting, alone]);
	const slots = sitting?.time.slots ?? alone?.time.slots;
	const next = steps.find((s) => !b.done(s));
	const at = steps.find((s) => s.key === b.step) ?? next;
	const i = at ? steps.indexOf(at) : -1;
	const after = at ? steps.filter((s, k) => !b.done(s) && k > i).slice(0, 2) : [];
	const done = steps.filter(b.done).length;
	const { pick, tick: note, edit } = b;
	const tick = useCallback(
		(a: Act, on: boolean) => {
			pick({ step: "" });
			note(a, on);
		},
		[pick, note],
	);
	const move = useCallback(
		(key: string, by: number) => {
			const order = [...steps];
			const i = order.findIndex((s) => s.key === key);
			const j = i + by;
			if (j < 0 || j >= order.length) return;
			[order[i], order[j]] = [order[j], order[i]];
			edit({ order: { steps: order.map((s) => s.id) } });
		},
		[steps, edit],
	);
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			if (typing(e) || e.key !== " " || !at || (e.target as HTMLElement).matches("button, a, summary, [role=option]")) return;
			e.preventDefault();
			tick(at, !b.done(at));
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
	const numberOf = useMemo(() => numbers(b.card, steps), [b.card, steps]);
	return (
		<StationFrame
			station="work"
			table={
				<div className="work">
					<Box py="9" px="11" overflow="auto" bg="sheet" display="flex" flexDirection="column" gap="7">
						<Waits steps={steps} />
						{sitting && <Told sitting={sitting} />}
						{!sitting && !alone && <Box color="quiet">Putting the steps in order…</Box>}
						{at && <Now at={at} steps={steps} slot={slots?.[i]} after={after} onTick={tick} />}
						{(sitting || alone) && !at && (
							<>
								<h1 style={{ fontSize: size.act }}>{steps.length > 0 ? "All steps are done" : "Nothing to do yet"}</h1>
								<Box fontSize="title">{steps.length > 0 ? "Write inside it, and post it." : "Put an image on the card first."}</Box>
								{steps.length > 0 && sitting && <AllDone sitting={sitting} />}
							</>
						)}
					</Box>
					<Box overflow="auto" bg="ground" borderLeft="1px solid {colors.line}" py="6" px="7" tabIndex={0} aria-label="All steps" role="region">
						<Box display="flex" justifyContent="space-between" alignItems="center" gap="3" flexWrap="wrap">
							<h2 style={{ fontSize: size.sub }}>
								{done} of {steps.length} done
							</h2>
							{(b.card.order?.length ?? 0) > 0 && <Button onClick={() => b.edit({ order: { steps: [] } })}>Proposed order</Button>}
						</Box>
						{!guest && (
							<Box display="flex" gap="4" flexWrap="wrap" alignItems="center" my="4">
								<SittingButton />
								<ScreensButton />
							</Box>
						)}
						{sitting && <HowLong sitting={sitting} />}
						<Steps steps={steps} at={at} onTick={tick} onMove={move} />
					</Box>
				</div>
			}
			strata={<CardStrata what="goes on at" value={numberOf} />}
		/>
	);
}

/** At which step each thing of the strata goes on. */
function numbers(card: Card, steps: Act[]): (id: string) => string {
	const first = new Map<string, number>();
	const last = new Map<string, number>();
	for (const s of steps) {
		if (s.id.card) continue;
		const k = `${s.id.verb} ${s.id.element ?? ""}`;
		if (!first.has(k)) first.set(k, s.number);
		if (s.id.verb === "print") last.set(`${s.id.motif} ${s.id.colourway} ${s.id.element ?? ""}`, s.number);
	}
	const of = new Map<string, number | undefined>([
		["base", first.get("fold ")],
		["back", first.get("fold ")],
	]);
	for (const e of card.elements) {
		const print = e.image && `${e.image.motif} ${e.image.colourway}`;
		of.set(e.id, first.get(`mount ${e.id}`) ?? first.get(`place ${e.id}`) ?? (print ? (last.get(`${print} ${e.id}`) ?? last.get(`${print} `)) : undefined));
	}
	return (id) => (of.get(id) ? `step ${of.get(id)}` : "");
}
