import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import type { Act, S } from "../../api/client";
import { useBenchAt, useSitting } from "../../api/queries";
import { hours } from "../../ui/units";

/** What to have at hand before the work begins. */
function AtHand() {
	const b = useBench();
	const hand = useSitting(b.view.id, b.view.version).data?.atHand ?? [];
	if (hand.length === 0) return null;
	return (
		<details className="standing">
			<summary>Before you begin, have at hand</summary>
			<Box as="ul" m="0" pl="6" fontSize="small" maxH="190px" overflow="auto">
				{hand.map((s) => (
					<li key={s.kind}>
						<b>{s.kind}.</b> {s.names.join("; ")}
					</li>
				))}
			</Box>
		</details>
	);
}

/** How the bench stands when a step begins: what is in place, what is on the tools, what lies drying. */
export function Standing({ at }: { at?: Act }) {
	const b = useBench();
	// What is ticked changes it, so that it is asked for anew with every run.
	const state = useBenchAt(b.view.id, b.view.version, at?.key ?? "");
	if (state && at?.number === 1 && state.tools.length === 0) return <AtHand />;
	if (!state || (state.tools.length === 0 && state.lying.length === 0)) return null;
	const ink = (id: string) => b.state.kit.inks.find((i) => i.id === id)?.name ?? id;
	const said = (t: S["Tool"]) => {
		const what = t.kind === "brush" ? `Brush with ${ink(t.ink)}` : `${t.name || "Stamp"}, ${ink(t.ink)} on it`;
		if (t.again === 0) return `${what}: clean it and put it away`;
		if (t.set) return `${what}: in place, leave it there${t.wash ? " and wash it" : ""}, step ${t.again}`;
		return `${what}: again in step ${t.again}${t.wash ? ", wash it first" : ""}`;
	};
	return (
		<details className="standing">
			<summary>
				On the bench:{state.tools.length > 0 && ` ${state.tools.length} ${state.tools.length === 1 ? "tool" : "tools"}`}
				{state.places > 0 && `${state.tools.length > 0 ? "," : ""} ${state.places} ${state.places === 1 ? "piece" : "pieces"} drying`}
				{state.room > 0 && ` in ${state.room} places`}
			</summary>
			<Box as="ul" m="0" pl="6" fontSize="small" maxH="150px" overflow="auto">
				{state.tools.map((t, i) => (
					<li key={i} style={{ fontWeight: t.set ? 700 : 400 }}>
						{said(t)}
					</li>
				))}
				{state.lying.map((w) => (
					<li key={w.step}>
						Drying: step {w.step}, {w.title}, {hours(w.minutes)} more
					</li>
				))}
			</Box>
		</details>
	);
}
