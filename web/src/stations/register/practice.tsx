import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type S } from "../../api/client";
import { useRefresh, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import type { Live } from "../../ui/live";
import { Tip } from "../../ui/tip";
import { thin } from "../../ui/units";
import { compass, holds, type Off, offWords, turned } from "./play";

export interface Try extends Off {
	good: boolean;
}

/** How long a try may take, seconds. */
const limit = 12;

/** The layer lies astray and nothing is drawn to help: how near does the hand bring it? */
export function Practice({
	layer,
	play,
	lies,
	tries,
	onTry,
	trueSize,
	onTrueSize,
	practised,
}: {
	layer: string;
	play: S["Play"];
	lies: Live<Off>;
	tries: Try[];
	onTry: (t: Try) => void;
	trueSize: boolean;
	onTrueSize: (v: boolean) => void;
	practised?: S["Prospect"];
}) {
	const s = useSettings();
	const b = useBench();
	const refresh = useRefresh();
	const [timed, setTimed] = useState(false);
	const [left, setLeft] = useState(limit);
	const [kept, setKept] = useState("");
	const [counted, setCounted] = useState(0);
	const there = () => onTry({ ...lies.get(), good: holds(play, lies.get()) });
	const now = useRef(there);
	now.current = there;
	// biome-ignore lint/correctness/useExhaustiveDependencies: the clock begins anew with every try
	useEffect(() => {
		if (!timed) return;
		setLeft(limit);
		const began = Date.now();
		const tick = setInterval(() => {
			const s = limit - (Date.now() - began) / 1000;
			setLeft(Math.max(0, s));
			if (s <= 0) {
				clearInterval(tick);
				now.current();
			}
		}, 200);
		return () => clearInterval(tick);
	}, [timed, tries.length]);
	const keep = async () => {
		try {
			const placements = tries.slice(counted).map((t) => ({ layer, x: t.x, y: t.y, turn: t.t, sureShift: 0, sureTurn: 0, good: t.good }));
			await ok(api.POST("/api/log", { body: { card: b.view.id, motif: b.motif?.id ?? "", way: "practice", source: "practice", placements } }));
			setKept(`${placements.length} tries kept in the log.`);
			setCounted(tries.length);
			await refresh("log", "placing");
		} catch (e) {
			setKept((e as Error).message);
		}
	};
	const last = tries.at(-1);
	const n = tries.length;
	const good = tries.filter((t) => t.good).length;
	const mean = { x: tries.reduce((s, t) => s + t.x, 0) / n, y: tries.reduce((s, t) => s + t.y, 0) / n, t: tries.reduce((s, t) => s + t.t, 0) / n };
	const spread = n > 1 ? Math.sqrt(tries.reduce((s, t) => s + (t.x - mean.x) ** 2 + (t.y - mean.y) ** 2, 0) / (2 * (n - 1))) : 0;
	const lean = Math.hypot(mean.x, mean.y);
	// A mean off by more than twice its own error is a habit, not chance.
	const habit = n >= 5 && lean > (2 * spread) / Math.sqrt(n);
	return (
		<Box display="flex" gap="8" alignItems="center">
			<Box display="flex" flexDirection="column" gap="2" flex="none">
				<Button variant="main" onClick={there} minH="44px" px="10">
					There
				</Button>
			</Box>
			<Box flex="1">
				<b>Bring the layer into its place by eye: drag it, or use the arrow keys; [ and ] turn it.{timed && ` ${Math.ceil(left)} s left.`}</b>
				{last && (
					<Box>
						Off by {offWords(s, last) || "less than can be seen"}: {last.good ? "it does not show" : "it shows"}. {good} of {n} came out
						{n > 1 && `; your spread here is ±${thin(spread, s)} (from ${n} tries)`}.
						{habit &&
							` You err ${thin(lean, s)} ${compass(mean)} on the mean${Math.abs(mean.t) >= 0.3 ? `, turned ${turned(mean.t)}` : ""}: aim that much the other way.`}
						{practised && ` By all practice kept (${practised.from} tries), ${Math.round(100 * practised.chance)} of 100 would come out.`}
					</Box>
				)}
			</Box>
			<Box display="flex" flexDirection="column" gap="2" flex="none">
				<Check label={`within ${limit} seconds`} on={timed} set={setTimed} />
				<Tip say="By the screen's nominal 96 dots to the inch">
					<span>
						<Check label="at true size" on={trueSize} set={onTrueSize} />
					</span>
				</Tip>
				{n - counted >= 3 && (
					<Button fontSize="small" px="4" minH="30px" onClick={keep}>
						Keep {n - counted} tries
					</Button>
				)}
				{kept && <span role="status">{kept}</span>}
			</Box>
		</Box>
	);
}
