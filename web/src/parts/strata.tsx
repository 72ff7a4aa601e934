import { Box } from "@chakra-ui/react";
import { type KeyboardEvent, memo, useCallback, useLayoutEffect, useMemo, useRef, useState } from "react";
import { foamHole, foamWhite, hue } from "../ui/colours";
import { size } from "../ui/sizes";
import { type Drawn, type Slab, type Stratum, section } from "./section";

export type { Stratum } from "./section";

/** A vertical sample through the thing being made, drawn to scale in thickness, bottom layer at the bottom. */
export function Strata({
	rows,
	what,
	selected,
	onPick,
	onMove,
	foot,
	title = "Strata",
}: {
	rows: Stratum[];
	what: string;
	selected: string;
	onPick: (id: string) => void;
	onMove?: (id: string, by: number) => void;
	foot?: string;
	title?: string;
}) {
	const ref = useRef<HTMLDivElement>(null);
	const [room, setRoom] = useState({ w: 352, h: 420 });
	useLayoutEffect(() => {
		const el = ref.current;
		if (!el) return;
		const watch = new ResizeObserver(() => setRoom({ w: el.clientWidth, h: el.clientHeight - 4 }));
		watch.observe(el);
		return () => watch.disconnect();
	}, []);
	// The labels take as much height as there is, within reason; the section is drawn to it.
	const each = (room.h - 12) / Math.max(3, rows.length);
	// Where there is little, a label is one line.
	const terse = each < 34;
	const pitch = Math.max(terse ? 22 : 34, Math.min(60, each));
	const wide = Math.round(Math.max(70, Math.min(190, room.w * (terse ? 0.29 : 0.37))));
	const drawn = useMemo(() => section(rows, pitch, wide), [rows, pitch, wide]);
	const factor = drawn.factor * (25.4 / 96);
	// The rows see the latest of what to do without being drawn again for it.
	const now = useRef({ rows, onPick, onMove });
	now.current = { rows, onPick, onMove };
	const pick = useCallback((id: string) => now.current.onPick(id), []);
	const key = useCallback((e: KeyboardEvent, i: number) => {
		const { rows, onPick, onMove } = now.current;
		const by = e.key === "ArrowUp" ? 1 : e.key === "ArrowDown" ? -1 : 0;
		if (by !== 0) {
			e.preventDefault();
			e.stopPropagation();
			if (e.altKey) onMove?.(rows[i].id, by);
			else {
				const next = rows[i + by];
				if (next) {
					onPick(next.id);
					document.getElementById(`stratum-${next.id}`)?.focus();
				}
			}
		}
		if (e.key === "Enter" || e.key === " ") {
			e.preventDefault();
			onPick(rows[i].id);
		}
	}, []);
	// What is chosen elsewhere is brought into sight here.
	useLayoutEffect(() => {
		if (selected) document.getElementById(`stratum-${selected}`)?.scrollIntoView({ block: "nearest" });
	}, [selected]);
	const any = rows.some((r) => r.id === selected);
	return (
		<Box
			as="section"
			aria-label="Strata"
			className="strata"
			bg="sheet"
			borderLeft="1px solid {colors.line}"
			py="6"
			px="8"
			display="flex"
			flexDirection="column"
			minH={0}
		>
			<div style={{ display: "flex", justifyContent: "space-between", alignItems: "baseline" }}>
				<h2 style={{ fontSize: size.sub }}>{title}</h2>
				<div style={{ color: hue.quiet, fontSize: size.small }}>{what}</div>
			</div>
			<div
				style={{ color: hue.quiet, fontSize: size.note }}
				title="A section through the stack, as a geologist reads ground from a drilled sample. A print is a film: it has no height."
			>
				Thickness {Math.round(factor)} times true; prints are films
			</div>
			{rows.length === 0 && <div style={{ color: hue.quiet, marginTop: 16 }}>Nothing is stacked yet.</div>}
			<div ref={ref} style={{ flex: 1, minHeight: 120, marginTop: 6, overflow: "hidden auto" }}>
				<svg
					width={room.w}
					height={drawn.height}
					style={{ display: "block" }}
					// biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a section that is chosen from; its strata are options with the keys of a list
					role="listbox"
					aria-label={`Strata, ${what}`}
				>
					{drawn.drawn.map((s, i) => (
						<Row
							key={rows[i].id}
							r={rows[i]}
							s={s}
							i={i}
							on={rows[i].id === selected}
							tab={rows[i].id === selected || (!any && i === 0)}
							wide={wide}
							w={room.w}
							terse={terse}
							onPick={pick}
							onKey={key}
						/>
					))}
					<defs>
						<pattern id="foam" width="6" height="6" patternUnits="userSpaceOnUse">
							<rect width="6" height="6" fill={foamWhite} />
							<circle cx="2" cy="2" r="1" fill={foamHole} />
							<circle cx="5" cy="5" r="0.8" fill={foamHole} />
						</pattern>
					</defs>
				</svg>
			</div>
			{foot && <div style={{ borderTop: `1px solid ${hue.line}`, marginTop: 8, paddingTop: 8, fontWeight: 700, fontSize: size.small }}>{foot}</div>}
		</Box>
	);
}

const cut = (s: string, n: number) => (s.length > n ? `${s.slice(0, n - 1)}…` : s);

const box = (s: Slab) => ({ x: s.x0, y: s.y0, width: Math.max(0.5, s.x1 - s.x0), height: Math.max(0.5, s.y1 - s.y0) });

interface RowProps {
	r: Stratum;
	s: Drawn;
	i: number;
	on: boolean;
	tab: boolean;
	/** How wide the section is, and all of it with its labels, px. */
	wide: number;
	w: number;
	terse: boolean;
	onPick: (id: string) => void;
	onKey: (e: KeyboardEvent, i: number) => void;
}

const alike = (a: object, b: object) => JSON.stringify(a) === JSON.stringify(b);

/** One stratum with its leader and label; drawn again only when something of its own changes. */
const Row = memo(
	function Row({ r, s, i, on, tab, wide, w, terse, onPick, onKey }: RowProps) {
		const x = wide + 30;
		// Where there is little room the figure stands beneath the name.
		const under = !terse && w - x < 210;
		const letters = (px: number) => Math.floor((w - x - 4) / px);
		const mid = (s.y0 + s.y1) / 2;
		// From a piece of a composite that is as high as its middle: the higher ones are narrower.
		const end = s.parts.find((p) => p.y0 <= mid && mid <= p.y1 + 0.01)?.x1 ?? s.x1;
		const start = Math.min(wide - 4, end - 4);
		return (
			<g
				id={`stratum-${r.id}`}
				className="stratum"
				role="option"
				aria-selected={on}
				tabIndex={tab ? 0 : -1}
				onClick={() => onPick(r.id)}
				onKeyDown={(e) => onKey(e, i)}
				style={{ cursor: "pointer" }}
			>
				<rect
					className="mark"
					x={x - 6}
					y={terse ? s.label - 12 : s.label - 15}
					width={w - x + 4}
					height={terse ? 21 : 34}
					fill={on ? hue.white : "transparent"}
					stroke={on ? hue.ochre : "none"}
					strokeWidth={2}
				/>
				{s.gap && <rect {...box(s.gap)} fill={r.foam ? "url(#foam)" : hue.bed} stroke={hue.rule} strokeWidth={0.6} />}
				{s.parts.length > 0 ? (
					s.parts.map((p, k) => (
						<g key={k}>
							{p.gap && <rect {...box(p.gap)} fill="url(#foam)" stroke={hue.rule} strokeWidth={0.4} />}
							<rect {...box(p)} fill={p.body} stroke={hue.outline} strokeWidth={0.5} />
							<rect {...box({ ...p, y1: p.y0 + Math.min(4, (p.y1 - p.y0) * 0.4) })} fill={p.top} />
						</g>
					))
				) : (
					<>
						<rect {...box(s)} fill={s.film ? r.top : r.body} stroke={hue.outline} strokeWidth={0.7} />
						{!s.film && <rect {...box({ ...s, y1: s.y0 + Math.min(7, (s.y1 - s.y0) * 0.28) })} fill={r.top} />}
					</>
				)}
				{on && <rect {...box(s)} fill="none" stroke={hue.ochre} strokeWidth={2.2} />}
				{/* Between a stratum and its name a tap is meant for it, too. */}
				<path d={leader(start, mid, s.label + 2, wide)} fill="none" stroke="transparent" strokeWidth={12} />
				<path d={leader(start, mid, s.label + 2, wide)} fill="none" stroke={hue.sheet} strokeWidth={3} />
				<path d={leader(start, mid, s.label + 2, wide)} fill="none" stroke={on ? hue.ochre : hue.rule} strokeWidth={on ? 1.8 : 0.9} />
				<circle cx={start} cy={mid} r={2} fill={on ? hue.ochre : hue.rule} stroke={hue.sheet} strokeWidth={0.8} />
				<text x={x} y={terse ? s.label + 3 : s.label} fontSize={13} fontWeight={700} fill={hue.text}>
					{i + 1} {cut(r.name, letters(6.9) - 2 - (r.value && !under ? r.value.length + 1 : 0))}
				</text>
				{!terse && (
					<text x={x} y={s.label + 14} fontSize={12} fill={hue.quiet}>
						{cut(r.sub, letters(5.8) - (r.value && under ? Math.ceil(r.value.length * 1.3) : 0))}
					</text>
				)}
				{r.value && (
					<text
						x={w - 4}
						y={terse ? s.label + 4 : under ? s.label + 14 : s.label + 1}
						fontSize={terse ? 12.5 : 13.5}
						fontWeight={700}
						textAnchor="end"
						fill={hue.text}
					>
						{r.value}
					</text>
				)}
			</g>
		);
	},
	(a, b) => a.i === b.i && a.on === b.on && a.tab === b.tab && a.wide === b.wide && a.w === b.w && a.terse === b.terse && alike(a.r, b.r) && alike(a.s, b.s),
);

/** From the stratum across to its label. */
const leader = (x: number, y: number, label: number, wide: number) =>
	`M${x} ${y} L${wide + 2} ${y} C${wide + 14} ${y} ${wide + 10} ${label} ${wide + 26} ${label}`;
