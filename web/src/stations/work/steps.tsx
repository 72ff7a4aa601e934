import { memo, useState } from "react";
import { useDocument } from "../../api/card";
import type { Act } from "../../api/client";
import { usePick } from "../../api/selection";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { size } from "../../ui/sizes";

interface StepsProps {
	steps: Act[];
	/** The one that is looked at. */
	at?: Act;
	onTick: (a: Act, on: boolean) => void;
	onMove: (key: string, by: number) => void;
}

/** All steps in groups as people work; a group that is done is shut. */
export function Steps({ steps, ...rest }: StepsProps) {
	const groups = new Map<string, Act[]>();
	for (const s of steps) groups.set(s.group, [...(groups.get(s.group) ?? []), s]);
	return [...groups].map(([name, g]) => <Group key={name} steps={g} {...rest} />);
}

function Group({ steps, at, onTick, onMove }: StepsProps) {
	const b = useDocument();
	const pick = usePick();
	const done = steps.filter(b.done).length;
	const [pulled, setPulled] = useState<boolean>();
	const open = pulled ?? (done < steps.length || steps.some((s) => s.key === at?.key));
	const name = steps[0].group;
	return (
		<section style={{ marginTop: 8 }}>
			<h3 style={{ fontSize: size.lead }}>
				<button type="button" className="group" aria-expanded={open} onClick={() => setPulled(!open)}>
					<span>{name[0].toUpperCase() + name.slice(1)}</span>
					<span style={{ fontWeight: 400 }}>
						{done === steps.length ? "done" : `${done} of ${steps.length}`} <span aria-hidden="true">{open ? "▾" : "▸"}</span>
					</span>
				</button>
			</h3>
			{open && (
				<ol style={{ listStyle: "none", margin: 0, padding: 0 }}>
					{steps.map((s) => (
						<Step key={s.key} s={s} done={b.done(s)} here={s.key === at?.key} onTick={onTick} onMove={onMove} onPick={pick} />
					))}
				</ol>
			)}
		</section>
	);
}

interface StepProps {
	s: Act;
	done: boolean;
	here: boolean;
	onTick: (a: Act, on: boolean) => void;
	onMove: (key: string, by: number) => void;
	onPick: (what: { step: string }) => void;
}

/** One step in the list, drawn again only when it is done, or looked at. */
const Step = memo(function Step({ s, done, here, onTick, onMove, onPick }: StepProps) {
	return (
		<li style={{ display: "flex", gap: 8, alignItems: "center", background: here ? hue.white : undefined, padding: "1px 4px" }}>
			<Check bare label={`Step ${s.number} done: ${s.title}`} on={done} set={(on) => onTick(s, on)} />
			<button type="button" className="step" data-done={done} data-here={here} onClick={() => onPick({ step: s.key })}>
				{s.number} {s.title}
				{s.for && <span style={{ color: hue.quiet }}>, {s.for}</span>}
			</button>
			{here && (
				<span style={{ display: "flex", gap: 2 }}>
					<Button onClick={() => onMove(s.key, -1)} px="3" aria-label="Do this step earlier">
						↑
					</Button>
					<Button onClick={() => onMove(s.key, 1)} px="3" aria-label="Do this step later">
						↓
					</Button>
				</span>
			)}
		</li>
	);
});
