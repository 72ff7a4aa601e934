import { Box } from "@chakra-ui/react";
import { type KeyboardEvent, useLayoutEffect, useMemo, useRef, useState } from "react";

export interface Stratum {
	id: string;
	name: string;
	sub: string;
	value?: string;
	thick: number; // mm, 0 for a film
	lift: number; // mm beneath
	foam?: boolean;
	body: string;
	top: string;
	parts?: { thick: number; lift: number; body: string; top: string }[]; // pieces it is built of, lowest first
}

const W = 168;
const FILM = 5;

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
	const ref = useRef<HTMLElement>(null);
	const [room, setRoom] = useState({ w: 384, h: 420 });
	useLayoutEffect(() => {
		const el = ref.current;
		if (!el) return;
		const watch = new ResizeObserver(() => setRoom({ w: el.clientWidth - 32, h: el.clientHeight - 118 }));
		watch.observe(el);
		return () => watch.disconnect();
	}, []);
	// The labels take as much height as there is, within reason; the core is drawn to it.
	const pitch = Math.max(38, Math.min(60, ((room.h / Math.max(1, room.w)) * 416) / Math.max(3, rows.length)));
	const drawn = useMemo(() => lay(rows, pitch, room.w / 416), [rows, pitch, room.w]);
	const key = (e: KeyboardEvent, i: number) => {
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
	};
	return (
		<Box
			as="section"
			ref={ref}
			aria-label="Strata"
			className="strata"
			bg="sheet"
			borderLeft="1px solid {colors.line}"
			p="12px 16px"
			display="flex"
			flexDirection="column"
			minH={0}
			overflow="auto"
		>
			<Box display="flex" justifyContent="space-between" alignItems="baseline">
				<h2 style={{ fontSize: 16 }}>{title}</h2>
				<Box color="quiet" fontSize="13px">
					{what}
				</Box>
			</Box>
			<Box
				color="quiet"
				fontSize="12px"
				title="A section through the stack, as a geologist reads ground from a drilled sample. A print is a film: it has no height."
			>
				A section, thickness {Math.round(drawn.factor)} times true; prints are films
			</Box>
			{rows.length === 0 && (
				<Box color="quiet" mt="16px">
					Nothing is stacked yet.
				</Box>
			)}
			<svg
				viewBox={`0 0 416 ${drawn.height}`}
				width="100%"
				style={{ marginTop: 6, overflow: "visible", maxHeight: drawn.height * 1.05 }}
				// biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a section that is chosen from; its strata are options with the keys of a list
				role="listbox"
				aria-label={`Strata, ${what}`}
			>
				{drawn.slabs.map((s, i) => {
					const r = rows[i];
					const on = r.id === selected;
					return (
						<g
							key={r.id}
							id={`stratum-${r.id}`}
							className="stratum"
							role="option"
							aria-selected={on}
							tabIndex={on || (selected === "" && i === 0) ? 0 : -1}
							onClick={() => onPick(r.id)}
							onKeyDown={(e) => key(e, i)}
							style={{ cursor: "pointer" }}
						>
							<rect
								className="mark"
								x={W + 30}
								y={s.label - 15}
								width={414 - W - 30}
								height={34}
								fill={on ? "#fff" : "transparent"}
								stroke={on ? "#824a00" : "none"}
								strokeWidth={2}
							/>
							{s.gap && <path d={s.gap} fill={r.foam ? "url(#foam)" : "#d9dad8"} stroke="#8b9196" strokeWidth={0.6} />}
							<path d={s.body} fill={r.thick > 0 ? r.body : r.top} stroke="#1d232766" strokeWidth={0.7} />
							{r.thick > 0 && !r.parts && <path d={s.film} fill={r.top} />}
							{r.parts && <Pile y0={s.mid - s.tall / 2} tall={s.tall} parts={r.parts} />}
							{on && <path d={s.body} fill="none" stroke="#824a00" strokeWidth={2.2} />}
							<path
								d={`M${W + 4} ${s.mid} C${W + 18} ${s.mid} ${W + 14} ${s.label + 2} ${W + 32} ${s.label + 2}`}
								fill="none"
								stroke={on ? "#824a00" : "#7d878d"}
								strokeWidth={on ? 1.8 : 0.9}
							/>
							<text x={W + 36} y={s.label} fontSize={13.5} fontWeight={700} fill="#1d2327">
								{i + 1} {cut(r.name, r.value ? 26 - r.value.length : 28)}
							</text>
							<text x={W + 36} y={s.label + 14} fontSize={12} fill="#4f5962">
								{cut(r.sub, 36)}
							</text>
							{r.value && (
								<text x={408} y={s.label + 1} fontSize={15} fontWeight={700} textAnchor="end" fill="#1d2327">
									{r.value}
								</text>
							)}
						</g>
					);
				})}
				<defs>
					<pattern id="foam" width="6" height="6" patternUnits="userSpaceOnUse">
						<rect width="6" height="6" fill="#f7f7f5" />
						<circle cx="2" cy="2" r="1" fill="#a9b0b4" />
						<circle cx="5" cy="5" r="0.8" fill="#a9b0b4" />
					</pattern>
				</defs>
			</svg>
			{foot && (
				<Box borderTop="1px solid {colors.line}" mt="8px" pt="8px" fontWeight={700} fontSize="13px">
					{foot}
				</Box>
			)}
		</Box>
	);
}

const cut = (s: string, n: number) => (s.length > n ? `${s.slice(0, n - 1)}…` : s);

interface Slab {
	body: string;
	film: string;
	gap: string;
	mid: number;
	tall: number;
	label: number;
}

/** The pieces an image is built of, inside its stratum: each with its share of the thickness. */
function Pile({ y0, tall, parts }: { y0: number; tall: number; parts: NonNullable<Stratum["parts"]> }) {
	const total = parts.reduce((n, p) => n + p.thick + p.lift, 0) || 1;
	let y = y0 + tall;
	return (
		<>
			{parts.map((p, i) => {
				const lift = (p.lift / total) * tall;
				const h = (p.thick / total) * tall;
				y -= lift + h;
				return (
					<g key={i}>
						{p.lift > 0.5 && <rect x={16} y={y + h} width={W - 32} height={lift} fill="url(#foam)" />}
						<rect x={5} y={y} width={W - 10} height={h} fill={p.body} stroke="#1d232744" strokeWidth={0.4} />
						<rect x={5} y={y} width={W - 10} height={Math.min(4, h * 0.4)} fill={p.top} />
					</g>
				);
			})}
		</>
	);
}

/** Lays the strata out from the bottom up: true relative thickness, one continuous core. */
function lay(rows: Stratum[], pitch: number, shown: number): { slabs: Slab[]; height: number; factor: number } {
	const total = rows.reduce((s, r) => s + r.thick + (r.foam ? r.lift : 0), 0) || 1;
	const films = rows.filter((r) => r.thick === 0).length;
	const height = Math.max(rows.length * pitch + 8, 120);
	const factor = (height - films * FILM - 14) / total;
	const slabs: Slab[] = [];
	let y = height - 6;
	rows.forEach((r, i) => {
		const lift = r.foam ? r.lift * factor : 0;
		const gap = lift > 0 ? band(y - lift, y, i + 50, 22) : "";
		y -= lift;
		const t = r.thick > 0 ? r.thick * factor : FILM;
		const inset = r.thick > 0 ? 0 : 7;
		slabs.push({ body: band(y - t, y, i, inset), film: band(y - t, y - t + Math.min(7, t * 0.28), i, inset), gap, mid: y - t / 2, tall: t, label: 0 });
		y -= t;
	});
	slabs.forEach((s, i) => {
		s.label = height - (i + 0.5) * pitch - 2;
	});
	return { slabs, height, factor: factor * shown * (25.4 / 96) };
}

/** A slab with slightly broken ends, the same at every drawing. */
function band(y0: number, y1: number, seed: number, inset: number): string {
	const j = (k: number) => (((seed * 37 + k * 53) % 11) - 5) * 0.55;
	const [l, r] = [3 + inset, W - inset];
	return `M${l + j(1)} ${y0} L${r + j(2)} ${y0} L${r + 3 + j(3)} ${(y0 + y1) / 2} L${r + j(4)} ${y1} L${l + j(5)} ${y1} L${l - 2 + j(6)} ${(y0 + y1) / 2}Z`;
}
