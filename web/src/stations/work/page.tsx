import { Box } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useBench } from "../../api/card";
import type { Act } from "../../api/client";
import { CardStrata } from "../../parts/card-strata";
import { StationFrame } from "../../parts/station";
import { Button } from "../../ui/button";
import { typing } from "../../ui/keys";
import { Select } from "../../ui/select";
import { Steps } from "./steps";

/** Work: one step at a time, readable from a metre and a half; ticked steps are remembered. */
export default function Work() {
	const b = useBench();
	const steps = b.view.plan.steps;
	const next = steps.find((s) => !b.done(s));
	const at = steps.find((s) => s.key === b.step) ?? next;
	const after = at ? steps.filter((s) => !b.done(s) && s.number > at.number).slice(0, 2) : [];
	const done = steps.filter(b.done).length;
	const tick = (a: Act, on: boolean) => {
		b.pick({ step: "" });
		b.tick(a, on);
	};
	const move = (key: string, by: number) => {
		const order = [...steps];
		const i = order.findIndex((s) => s.key === key);
		const j = i + by;
		if (j < 0 || j >= order.length) return;
		[order[i], order[j]] = [order[j], order[i]];
		b.edit({ order: { steps: order.map((s) => s.id) } });
	};
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
	/** At which step a thing of the strata goes on. */
	const numberOf = (id: string) => {
		const of = (verb: string, element = id) => steps.find((x) => x.id.verb === verb && (x.id.element ?? "") === element);
		const img = b.card.elements.find((e) => e.id === id)?.image;
		const s =
			id === "base" || id === "back"
				? of("fold", "")
				: (of("mount") ??
					of("place") ??
					steps.findLast((x) => x.id.verb === "print" && img && x.id.motif === img.motif && x.id.colourway === img.colourway && (x.id.element ?? id) === id));
		return s ? `step ${s.number}` : "";
	};
	return (
		<StationFrame
			station="work"
			table={
				<div className="work">
					<Box p="20px 28px" overflow="auto" bg="sheet" display="flex" flexDirection="column" gap="14px">
						{at ? (
							<>
								<Box color="quiet" fontSize="18px">
									Step {at.number} of {steps.length}, {at.kind}
								</Box>
								<h1 style={{ fontSize: 38, lineHeight: 1.12 }}>{at.title}</h1>
								<Box fontSize="23px" lineHeight={1.35}>
									{at.detail}
								</Box>
								{at.cautions.map((c) => (
									<Box key={c} fontSize="17px" borderLeft="6px solid {colors.madder}" pl="12px">
										<b>Care.</b> {c}
									</Box>
								))}
								<Box display="flex" gap="14px" flexWrap="wrap" alignItems="center">
									<Button variant="main" size="big" onClick={() => tick(at, !b.done(at))}>
										{b.done(at) ? "Not done after all" : "Done"}
									</Button>
									{at.minutes > 0 && <Timer key={at.key} minutes={at.minutes} />}
									{at.ink && (
										<span className="beside" style={{ fontSize: 17 }}>
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
										</span>
									)}
								</Box>
								<Box flex="1" />
								<Box color="quiet" fontSize="17px">
									{after.map((s) => (
										<Box key={s.key}>
											Then {s.number}: {s.title}
										</Box>
									))}
								</Box>
							</>
						) : (
							<>
								<h1 style={{ fontSize: 38 }}>{steps.length > 0 ? "All steps are done" : "Nothing to do yet"}</h1>
								<Box fontSize="20px">{steps.length > 0 ? "Write inside it, and post it." : "Put an image on the card first."}</Box>
							</>
						)}
					</Box>
					<Box overflow="auto" bg="ground" borderLeft="1px solid {colors.line}" p="12px 14px" tabIndex={0} aria-label="All steps" role="region">
						<Box display="flex" justifyContent="space-between" alignItems="center">
							<h2 style={{ fontSize: 16 }}>
								{done} of {steps.length} done
							</h2>
							{(b.card.order?.length ?? 0) > 0 && <Button onClick={() => b.edit({ order: { steps: [] } })}>Proposed order</Button>}
						</Box>
						<Steps steps={steps} at={at} onTick={tick} onMove={move} />
					</Box>
				</div>
			}
			strata={<CardStrata what="goes on at" value={numberOf} />}
		/>
	);
}

/** Counts the drying time down. */
function Timer({ minutes }: { minutes: number }) {
	const [until, setUntil] = useState<number | null>(null);
	const [now, setNow] = useState(Date.now());
	useEffect(() => {
		if (!until) return;
		const t = setInterval(() => setNow(Date.now()), 500);
		return () => clearInterval(t);
	}, [until]);
	const left = until ? Math.max(0, until - now) / 1000 : minutes * 60;
	const words = `${Math.floor(left / 60)}:${String(Math.floor(left % 60)).padStart(2, "0")}`;
	return (
		<Button
			size="big"
			onClick={() => {
				setNow(Date.now());
				setUntil(until ? null : Date.now() + minutes * 60_000);
			}}
		>
			{until ? (left > 0 ? `Drying, ${words} left` : "Dry") : `Start ${minutes} min drying`}
		</Button>
	);
}
