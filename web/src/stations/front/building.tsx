import { useMemo, useState } from "react";
import { useDocument } from "../../api/card";
import { Button } from "../../ui/button";
import { Slider } from "../../ui/slider";

/** Loose first: everything is laid out, top-down, nothing stuck; building shows it going down, bottom-up. */
export function useBuilding() {
	const b = useDocument();
	const [on, setOn] = useState(false);
	const [at, setAt] = useState(0);
	// What is put down, in the order of the steps.
	const downs = useMemo(
		() =>
			b.view.plan.steps
				.filter((a) => a.id.element && ["place", "mount", "gems", "tie"].includes(a.id.verb))
				.map((a) => ({ id: a.id.element ?? "", title: a.title })),
		[b.view.plan.steps],
	);
	const turn = Math.min(at, downs.length);
	const hides = (id: string) => on && downs.findIndex((d) => d.id === id) >= turn;
	return { on, setOn, turn, setAt, downs, hides };
}

/** The two views of one front, and how far it is built. */
export function Building({ on, setOn, turn, setAt, downs }: ReturnType<typeof useBuilding>) {
	return (
		<>
			<fieldset style={{ display: "flex", gap: 0, border: 0, padding: 0, margin: 0 }} aria-label="View of the front">
				<Button aria-pressed={!on} onClick={() => setOn(false)}>
					Lay out
				</Button>
				<Button aria-pressed={on} onClick={() => setOn(true)}>
					Build
				</Button>
			</fieldset>
			{on && (
				<div style={{ width: 230 }}>
					<Slider label="Stuck down so far" v={turn} min={0} max={downs.length} step={1} set={setAt} />
					<div role="status">{turn === 0 ? "Nothing is stuck yet." : `${turn} of ${downs.length}: ${downs[turn - 1]?.title}`}</div>
				</div>
			)}
		</>
	);
}
