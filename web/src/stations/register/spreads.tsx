import { Box } from "@chakra-ui/react";
import { api, ok, type S } from "../../api/client";
import { useFitting, useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { size } from "../../ui/sizes";

/** How a person's ways of placing repeat, typed: their word goes before what is guessed or learned. */
export function Spreads({ hands }: { hands: S["Hand"][] }) {
	const fit = useFitting();
	const refresh = useRefresh();
	if (!fit) return null;
	const typed = fit.hands ?? {};
	const save = async (next: Record<string, S["Spread"]>) => {
		await ok(api.PUT("/api/fitting", { body: { ...fit, hands: next } }));
		await refresh("fitting", "placing", "card");
	};
	const set = (key: string, spread: S["Spread"]) => save({ ...typed, [key]: spread });
	const drop = (key: string) => save(Object.fromEntries(Object.entries(typed).filter(([k]) => k !== key)));
	const eye = hands.find((h) => h.way === "eye");
	const rows = [
		...hands.map((h) => ({ key: h.way, name: h.name, now: h.own ? h.habit.spread : h.defaults })),
		...(eye ? [{ key: "eye round", name: "a die round a print, by eye", now: typed.eye ?? eye.defaults }] : []),
	];
	return (
		<Box borderTop="1px solid {colors.line}" pt="4">
			<h2 style={{ fontSize: size.lead }}>Your own numbers</h2>
			<Box mb="2">
				How far off you usually land, either way: about two placements in three lie within it. What you type goes before what is guessed or learned.
			</Box>
			{rows.map(({ key, name, now }) => {
				const s = typed[key] ?? now;
				return (
					<fieldset key={key} aria-label={name} className="plain" style={{ display: "flex", gap: 10, alignItems: "end", flexWrap: "wrap", padding: "6px 0" }}>
						<LengthField
							kind="thin"
							label={`${name[0].toUpperCase()}${name.slice(1)}, ±`}
							mm={s.shift}
							min={0.01}
							max={10}
							onSet={(shift) => set(key, { ...s, shift })}
							width="150px"
						/>
						<NumberField
							saved
							label="Turn, ±"
							unit="°"
							step={0.1}
							v={Math.round(s.turn * 100) / 100}
							min={0}
							max={45}
							set={(turn) => set(key, { ...s, turn })}
							width="76px"
						/>
						{typed[key] && <Button onClick={() => drop(key)}>Take back</Button>}
					</fieldset>
				);
			})}
		</Box>
	);
}
