import { useState } from "react";
import { useBench } from "../../api/card";
import type { Act } from "../../api/client";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";

interface StepsProps {
	steps: Act[];
	/** The one that is looked at. */
	at?: Act;
	onTick: (a: Act, on: boolean) => void;
	onMove: (key: string, by: number) => void;
}

/** All steps in groups as people work; a group that is done is shut. */
export function Steps({ steps, ...rest }: StepsProps) {
	const groups: Act[][] = [];
	for (const s of steps) {
		const last = groups.at(-1);
		if (last && last[0].group === s.group) last.push(s);
		else groups.push([s]);
	}
	return groups.map((g) => <Group key={g[0].key} steps={g} {...rest} />);
}

function Group({ steps, at, onTick, onMove }: StepsProps) {
	const b = useBench();
	const done = steps.filter(b.done).length;
	const [pulled, setPulled] = useState<boolean>();
	const open = pulled ?? (done < steps.length || steps.some((s) => s.key === at?.key));
	const name = steps[0].group;
	return (
		<section style={{ marginTop: 8 }}>
			<h3 style={{ fontSize: 15 }}>
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
						<li
							key={s.key}
							style={{ display: "flex", gap: 8, alignItems: "center", background: s.key === at?.key ? hue.white : undefined, padding: "1px 4px" }}
						>
							<Check bare label={`Step ${s.number} done: ${s.title}`} on={b.done(s)} set={(on) => onTick(s, on)} />
							<button type="button" className="step" data-done={b.done(s)} data-here={s.key === at?.key} onClick={() => b.pick({ step: s.key })}>
								{s.number} {s.title}
							</button>
							{s.key === at?.key && (
								<span style={{ display: "flex", gap: 2 }}>
									<Button onClick={() => onMove(s.key, -1)} px="6px" aria-label="Do this step earlier">
										↑
									</Button>
									<Button onClick={() => onMove(s.key, 1)} px="6px" aria-label="Do this step later">
										↓
									</Button>
								</span>
							)}
						</li>
					))}
				</ol>
			)}
		</section>
	);
}
