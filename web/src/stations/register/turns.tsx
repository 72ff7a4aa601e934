import { Box } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import { Select } from "../../ui/select";
import { length } from "../../ui/units";

type Pattern = S["Turned"] & { id: string; element: string; at: number; name: string; side: number; trim: number };

/** The pattern that is open, from the card. */
export function usePattern() {
	const b = useBench();
	const [id, setId] = useState("");
	const all = b.card.elements.flatMap((e): Pattern[] => {
		const of = e.sheet?.treatments?.flatMap((t, at) => (t.turned ? [{ ...t.turned, at }] : [])) ?? [];
		return of.map((t, n) => ({
			...t,
			id: `${e.id} ${t.at}`,
			element: e.id,
			name: of.length > 1 ? `${e.name ?? ""}, pattern ${n + 1}` : (e.name ?? ""),
			side: e.sheet?.w ?? 0,
			trim: e.sheet?.trim ?? 0,
		}));
	});
	// A new one is opened as it comes.
	const count = useRef(all.length);
	useEffect(() => {
		if (all.length > count.current) setId(all[all.length - 1].id);
		count.current = all.length;
	});
	const p = all.find((x) => x.id === id) ?? all[0];
	return { all, p: p as Pattern | undefined, plan: b.view.plan.patterns.find((q) => q.id === p?.element && q.at === p.at), pick: setId };
}

/** An image printed again and again on a sheet that is turned: its numbers, its inks in turn, and what the trim takes. */
export function Turns({ all, p, plan, pick }: ReturnType<typeof usePattern>) {
	const b = useBench();
	const m = b.motif;
	const s = b.state.settings;
	const add = () => m && b.edit({ addTurned: { motif: m.id } });
	const set = (f: Partial<Pattern>) => {
		const e = b.card.elements.find((x) => x.id === p?.element);
		if (!e?.sheet || !p) return;
		const { id: _, element: __, name: ___, at, side, trim, ...turned } = { ...p, ...f };
		b.edit({
			sheet: { element: e.id, sheet: { ...e.sheet, w: side, h: side, trim, treatments: e.sheet.treatments?.map((t, i) => (i === at ? { ...t, turned } : t)) } },
		});
	};
	if (!m) return null;
	if (!m.layers.some((l) => l.make !== "cut")) return <Box>A pattern is printed: this image has no layer that is stamped or stencilled.</Box>;
	const motif = b.card.motifs.find((x) => x.id === p?.motif);
	return (
		<Box display="flex" flexDirection="column" gap="5">
			<Box display="flex" gap="4" alignItems="end" flexWrap="wrap">
				{all.length > 0 && (
					<Select label="Pattern" value={p?.id} onChange={(v) => pick(v)}>
						{all.map((x) => (
							<option key={x.id} value={x.id}>
								{x.name}
							</option>
						))}
					</Select>
				)}
				<Button onClick={add}>{all.length > 0 ? "Another" : `Turn ${m.name} on a sheet`}</Button>
				{p && (
					<Button
						onClick={() =>
							b.edit(
								all.some((x) => x.element === p.element && x.at !== p.at)
									? { treat: { element: p.element, at: p.at, drop: true } }
									: { remove: { element: p.element } },
							)
						}
					>
						Take it off
					</Button>
				)}
			</Box>
			{!p && (
				<Box>
					The stamp stays where it is; the sheet is turned by the same step after every strike, always the same way. Four quarter turns in four inks are the
					usual.
				</Box>
			)}
			{p && plan && (
				<>
					<Box display="flex" gap="5" flexWrap="wrap" alignItems="end">
						<NumberField saved label="Strikes" v={p.turns} set={(turns) => set({ turns: Math.max(2, Math.round(turns)) })} min={2} max={16} step={1} />
						<Select label="The sheet is turned" value={p.anti ? "anti" : "clock"} onChange={(v) => set({ anti: v === "anti" })}>
							<option value="clock">clockwise</option>
							<option value="anti">anticlockwise</option>
						</Select>
						<Select label="First at top left" value={`${p.start}`} onChange={(v) => set({ start: Number(v) })}>
							{[1, 2, 3, 4].map((n) => (
								<option key={n} value={n}>
									corner {n}
								</option>
							))}
						</Select>
						<LengthField label="Sheet" mm={p.side} onSet={(side) => set({ side: Math.max(20, side, 2 * p.trim + 1) })} min={20} max={300} />
						<LengthField label="Trim a side" mm={p.trim} onSet={(trim) => set({ trim: Math.min(trim, p.side / 2 - 1) })} min={0} max={60} />
					</Box>
					<Box display="flex" gap="5" flexWrap="wrap" alignItems="end">
						<LengthField label="Right of middle" mm={p.x} onSet={(x) => set({ x })} min={-300} max={300} />
						<LengthField label="Below it" mm={p.y} onSet={(y) => set({ y })} min={-300} max={300} />
						<NumberField saved label="Turned" unit="°" v={p.turn} set={(turn) => set({ turn })} min={-360} max={360} step={5} />
					</Box>
					<Box>
						<b>Colourway of each strike</b>
						<Box display="flex" gap="3" flexWrap="wrap">
							{Array.from({ length: Math.min(p.turns, 16) }, (_, k) => (
								<Select
									key={k}
									label={`Strike ${k + 1}`}
									value={p.colourways[k % p.colourways.length]}
									onChange={(v) => set({ colourways: Array.from({ length: p.turns }, (_, j) => (j === k ? v : p.colourways[j % p.colourways.length])) })}
								>
									{motif?.colourways.map((w) => (
										<option key={w.id} value={w.id}>
											{w.name}
										</option>
									))}
								</Select>
							))}
						</Box>
					</Box>
					<Box as="ul" pl="8" m="0">
						{plan.notes.map((n) => (
							<li key={n}>{n}</li>
						))}
						<li>
							Trimmed it is {length(p.side - 2 * p.trim, s)} square. Its {plan.strikes.length} strikes stand as steps in Work, each with its turn.
						</li>
					</Box>
					{plan.problem && <Box color="madder">{plan.problem}</Box>}
				</>
			)}
		</Box>
	);
}

/** The pattern as it will look, with the trim over it. */
export function PatternView({ p, plan, scale }: { p: Pattern; plan: S["Pattern"]; scale: number }) {
	const b = useBench();
	const look = b.view.plan.motifs.find((m) => m.id === p.motif);
	if (!look) return null;
	const mid = { x: plan.midX, y: plan.midY };
	const made = b.card.motifs.find((m) => m.id === p.motif)?.layers;
	const half = p.side / 2;
	const inner = half - p.trim;
	return (
		<g>
			<rect x={-half} y={-half} width={p.side} height={p.side} fill="#fbfbfa" stroke={hue.text} strokeWidth={0.8 / scale} />
			<clipPath id="panel">
				<rect x={-half} y={-half} width={p.side} height={p.side} />
			</clipPath>
			<g clipPath="url(#panel)">
				{look.layers.map((l, i) =>
					(made?.[i]?.make === "cut" ? [] : plan.strikes).map((k) => {
						const dry = look.colourways.find((w) => w.id === k.colourway)?.layers[i]?.dry;
						return (
							<path
								key={`${l.id} ${k.number}`}
								d={l.outline}
								fill={dry}
								fillRule="evenodd"
								style={{ mixBlendMode: "multiply" }}
								transform={`translate(${k.x - mid.x} ${k.y - mid.y}) rotate(${k.turn} ${mid.x} ${mid.y})`}
							/>
						);
					}),
				)}
			</g>
			{p.trim > 0 && (
				<path
					d={`M${-half} ${-half}H${half}V${half}H${-half}ZM${-inner} ${-inner}V${inner}H${inner}V${-inner}Z`}
					fill={hue.bench}
					fillOpacity={0.75}
					stroke={hue.madder}
					strokeWidth={1.2 / scale}
					strokeDasharray={`${6 / scale} ${4 / scale}`}
				/>
			)}
			{[
				[-1, -1],
				[1, -1],
				[1, 1],
				[-1, 1],
			].map(([x, y], i) => (
				<text
					key={i}
					x={x * (half + 12 / scale)}
					y={y * (half + 12 / scale) + 5 / scale}
					fontSize={14 / scale}
					fontWeight={700}
					textAnchor="middle"
					fill={hue.text}
				>
					{i + 1}
				</text>
			))}
			{plan.strikes.map((k) => (
				<g key={k.number} transform={`translate(${k.x} ${k.y})`} pointerEvents="none">
					<circle r={11 / scale} fill={hue.sheet} stroke={hue.text} strokeWidth={1 / scale} />
					<text y={5 / scale} fontSize={13 / scale} fontWeight={700} textAnchor="middle" fill={hue.text}>
						{k.number}
					</text>
				</g>
			))}
		</g>
	);
}
