import { Box } from "@chakra-ui/react";
import { useEffect } from "react";
import { useBench } from "../../api/card";
import type { Act } from "../../api/client";
import { Button } from "../../ui/button";
import { typing } from "../../ui/keys";
import { Slider } from "../../ui/slider";

/** Runs through the whole making, forwards and back, without ticking anything: by a slider, or by the keys
 * to the left and right. */
export function Making({ at, steps }: { at: Act; steps: Act[] }) {
	const b = useBench();
	const i = steps.indexOf(at);
	const next = steps.find((s) => !b.done(s));
	const { pick } = b;
	useEffect(() => {
		const key = (e: KeyboardEvent) => {
			const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
			if (
				!by ||
				typing(e) ||
				e.altKey ||
				e.ctrlKey ||
				e.metaKey ||
				(e.target as HTMLElement).matches("[type=range], [role=slider], [role=separator], [role=option]")
			)
				return;
			const to = steps[i + by];
			if (!to) return;
			e.preventDefault();
			pick({ step: to.key });
		};
		window.addEventListener("keydown", key);
		return () => window.removeEventListener("keydown", key);
	}, [steps, i, pick]);
	if (steps.length < 2 || i < 0) return null;
	return (
		<Box display="flex" gap="5" alignItems="center" color="quiet" fontSize="small">
			<div style={{ flex: "1 1 140px" }}>
				<Slider
					label="Through the making"
					v={i + 1}
					set={(n) => pick({ step: steps[n - 1].key })}
					min={1}
					max={steps.length}
					step={1}
					say={(n) => `Step ${steps[n - 1].number}: ${steps[n - 1].title}`}
				/>
			</div>
			{next && next !== at ? <Button onClick={() => pick({ step: "" })}>To step {next.number}, the next to do</Button> : <span>through the making</span>}
		</Box>
	);
}
