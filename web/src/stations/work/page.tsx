import { Box } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo } from "react";
import { stepKey, useBench } from "../../api/card";
import type { Act, Card } from "../../api/client";
import { CardStrata } from "../../parts/card-strata";
import { StationFrame } from "../../parts/station";
import { Button } from "../../ui/button";
import { typing } from "../../ui/keys";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";
import { HowLong, OfCopies } from "./run";
import { Steps } from "./steps";
import { WaitButton, Waits } from "./waits";

/** Work: one step at a time, readable from a metre and a half; ticked steps are remembered. */
export default function Work() {
	const b = useBench();
	const steps = b.view.plan.steps;
	const next = steps.find((s) => !b.done(s));
	const at = steps.find((s) => s.key === b.step) ?? next;
	const after = at ? steps.filter((s) => !b.done(s) && s.number > at.number).slice(0, 2) : [];
	const left = at && b.view.run.left.some((st) => stepKey(st) === stepKey(at.id));
	const slot = at && b.view.plan.time.slots[at.number - 1];
	const done = steps.filter(b.done).length;
	const copies = b.card.copies || 1;
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
			if (typing(e) || e.key !== " " || !at || (e.target as HTMLElement).matches("button, a, [role=option]")) return;
			e.preventDefault();
			tick(at, !b.done(at));
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	});
	const used = at && b.view.run.used.find((u) => JSON.stringify(u.step) === JSON.stringify(at.id))?.ink;
	const numberOf = useMemo(() => numbers(b.card, steps), [b.card, steps]);
	return (
		<StationFrame
			station="work"
			table={
				<div className="work">
					<Box py="9" px="11" overflow="auto" bg="sheet" display="flex" flexDirection="column" gap="7">
						<Waits steps={steps} />
						{at ? (
							<>
								<Box color="quiet" fontSize="sub">
									Step {at.number} of {steps.length}, {at.kind}
								</Box>
								<h1 style={{ fontSize: size.act, lineHeight: 1.12 }}>{at.title}</h1>
								<Box fontSize="step" lineHeight={1.35}>
									{at.detail}
								</Box>
								{slot && slot.dry.length > 0 && (
									<Box fontSize="sub" color="quiet">
										Not dry yet: {slot.dry.length === 1 ? "step" : "steps"} {slot.dry.join(", ")}. Lay that by, and handle it by the edges.
									</Box>
								)}
								{left && (
									<Box fontSize="sub" borderLeft="6px solid {colors.madder}" pl="6">
										<b>Left out.</b> It stands so beside what was planned; <i>Not done after all</i> takes that back.
									</Box>
								)}
								{slot?.wash && (
									<Box fontSize="sub" borderLeft="6px solid {colors.slate}" pl="6">
										<b>First.</b> Wash the stamp: the ink on it would show in this one.
									</Box>
								)}
								{at.keep && (
									<Box fontSize="sub" borderLeft="6px solid {colors.slate}" pl="6">
										<b>Keep.</b> {at.keep}
									</Box>
								)}
								{at.final && (
									<Box fontSize="sub" borderLeft="6px solid {colors.ochre}" pl="6">
										<b>No way back.</b> {at.final}
									</Box>
								)}
								{at.cautions.map((c) => (
									<Box key={c} fontSize="sub" borderLeft="6px solid {colors.madder}" pl="6">
										<b>Care.</b> {c}
									</Box>
								))}
								<Box display="flex" gap="7" flexWrap="wrap" alignItems="center">
									<Button variant="main" size="big" onClick={() => tick(at, !b.done(at))}>
										{b.done(at) ? "Not done after all" : copies > 1 ? `Done on all ${copies}` : "Done"}
									</Button>
									{copies > 1 && !b.done(at) && <OfCopies at={at} copies={copies} />}
									{!b.done(at) && (
										<Button
											onClick={() => {
												pick({ step: "" });
												b.leave(at);
											}}
										>
											Leave it out
										</Button>
									)}
									{at.minutes > 0 && <WaitButton at={at} />}
									{at.ink && (
										<span className="beside" style={{ fontSize: size.sub }}>
											used
											<Select label="Ink really used" bare value={used ?? ""} onChange={(v) => b.use(at.id, v)}>
												<option value="">as planned</option>
												{b.state.kit.inks
													.filter((i) => i.id !== at.ink)
													.map((i) => (
														<option key={i.id} value={i.id}>
															{i.name}
														</option>
													))}
											</Select>
											{used && at.id.motif && at.id.colourway && at.id.part && (
												<Button
													onClick={() => {
														const layers = b.card.motifs.find((m) => m.id === at.id.motif)?.colourways.find((w) => w.id === at.id.colourway)?.layers;
														const now = layers?.[at.id.part ?? ""];
														if (now)
															b.edit({
																finish: { motif: at.id.motif ?? "", colourway: at.id.colourway ?? "", layers: { [at.id.part ?? ""]: { ...now, ink: used } } },
															});
													}}
												>
													Plan the rest with it
												</Button>
											)}
										</span>
									)}
								</Box>
								<Box flex="1" />
								<Box color="quiet" fontSize="sub">
									{after.map((s) => (
										<Box key={s.key}>
											Then {s.number}: {s.title}
										</Box>
									))}
								</Box>
							</>
						) : (
							<>
								<h1 style={{ fontSize: size.act }}>{steps.length > 0 ? "All steps are done" : "Nothing to do yet"}</h1>
								<Box fontSize="title">{steps.length > 0 ? "Write inside it, and post it." : "Put an image on the card first."}</Box>
								{steps.length > 0 && (
									<Box>
										<Button size="big" onClick={b.another}>
											Begin another run
										</Button>
									</Box>
								)}
							</>
						)}
					</Box>
					<Box overflow="auto" bg="ground" borderLeft="1px solid {colors.line}" py="6" px="7" tabIndex={0} aria-label="All steps" role="region">
						<Box display="flex" justifyContent="space-between" alignItems="center">
							<h2 style={{ fontSize: size.sub }}>
								{done} of {steps.length} done
							</h2>
							{(b.card.order?.length ?? 0) > 0 && <Button onClick={() => b.edit({ order: { steps: [] } })}>Proposed order</Button>}
						</Box>
						<HowLong steps={steps} />
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
