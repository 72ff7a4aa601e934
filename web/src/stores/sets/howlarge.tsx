import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { api, ok, type S } from "../../api/client";
import { useKit, useRefresh, useSettings } from "../../api/queries";
import { Button } from "../../ui/button";
import { size } from "../../ui/sizes";
import { length, thin } from "../../ui/units";

/** Asks how large a drawn set truly is, where the drawing does not say: each size
 * it may be meant to have stands as a picture beside a ruler. */
export function HowLarge({ set, onDone }: { set: S["Imported"]; onDone: () => void }) {
	const s = useSettings();
	const refresh = useRefresh();
	const settings = useKit().data?.settings;
	const show = (mm: number) => (settings ? length(mm, settings) : `${thin(mm, s)}`);
	const [wrong, setWrong] = useState("");
	const pick = async (w: number) => {
		try {
			if (w !== set.sizes[0].w) {
				await ok(api.POST("/api/sets/{id}/scale", { params: { path: { id: set.id } }, body: { width: w } }));
				await refresh("state", "card");
			}
			onDone();
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	const most = Math.max(...set.sizes.map((s) => Math.max(s.w, s.h)));
	return (
		<Box role="region" aria-label={`How large is ${set.name}?`} bg="sheet" border="2px solid {colors.ochre}" py="7" px="9" mb="7">
			<h2 style={{ fontSize: size.sub }}>How large is {set.name}?</h2>
			<Box mb="5">The drawing does not say for sure. Measure a cut piece, or hold it against the ruler, and choose. Nothing else changes.</Box>
			<Box display="flex" gap="9" flexWrap="wrap" alignItems="flex-end">
				{set.sizes.map((s, i) => (
					<Box key={s.why} maxW="300px">
						<Ruled set={set} w={s.w} h={s.h} from={set.sizes[0].w} most={most} inches={settings?.unit === "in"} />
						<b>
							{show(s.w)} × {show(s.h)}
						</b>
						<Box fontSize="small" mb="3">
							{i === 0 ? "As it was read: " : "If "}
							{s.why}.
						</Box>
						<Button onClick={() => pick(s.w)} variant={i === 0 ? "main" : undefined}>
							It is this large
						</Button>
					</Box>
				))}
			</Box>
			{wrong && (
				<Box role="alert" color="madder" mt="4">
					{wrong}
				</Box>
			)}
		</Box>
	);
}

/** The set at one size above a ruler, all sizes drawn at one scale as far as that
 * leaves something to see. */
function Ruled({ set, w, h, from, most, inches }: { set: S["Imported"]; w: number; h: number; from: number; most: number; inches: boolean }) {
	const room = 260;
	const k = Math.min(room / Math.max(w, h), Math.max(room / most, 46 / Math.max(w, h)));
	const grow = w / from;
	const unit = inches ? 25.4 : 10;
	const every = [1, 2, 5, 10, 20, 50].find((n) => n * unit * k >= 14) ?? 100;
	const ticks = Math.max(1, Math.ceil(w / (unit * every)));
	const nums = set.parts.flatMap((p) => (p.outline.match(/-?[\d.]+/g) ?? []).map(Number));
	const left = Math.min(...nums.filter((_, i) => i % 2 === 0));
	const top = Math.min(...nums.filter((_, i) => i % 2 === 1));
	const wide = Math.max(w, ticks * unit * every) * k + 24;
	return (
		<svg width={wide} height={h * k + 34} role="img" aria-label="The set above a ruler" style={{ display: "block", marginBottom: 6 }}>
			<g transform={`translate(2 2) scale(${k * grow}) translate(${-left} ${-top})`}>
				{set.parts.map((p) => (
					<path key={p.id} d={p.outline} fill="currentColor" fillOpacity={0.12} stroke="currentColor" strokeWidth={1 / (k * grow)} fillRule="evenodd" />
				))}
			</g>
			<g transform={`translate(2 ${h * k + 12})`} stroke="currentColor" fill="currentColor" fontSize={11}>
				<path d={`M0 0H${ticks * unit * every * k}`} />
				{Array.from({ length: ticks + 1 }, (_, i) => (
					<g key={String(i)} transform={`translate(${i * unit * every * k} 0)`}>
						<path d="M0 0v6" />
						<text y={18} textAnchor={i === 0 ? "start" : "middle"} stroke="none">
							{i * every}
							{i === ticks ? (inches ? " in" : " cm") : ""}
						</text>
					</g>
				))}
			</g>
		</svg>
	);
}
