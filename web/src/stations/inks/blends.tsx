import { Box } from "@chakra-ui/react";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { Select } from "../../ui/select";
import { length } from "../../ui/units";

const zones = ["rim", "foot", "tip", "left side", "right side", "all over"] as const;

/** Inks worked into zones of the chosen layer, its edge and its back. */
export function Blends({ f, look, cut, set }: { f: S["Finish"]; look: S["LookLayer"]; cut: boolean; set: (x: Partial<S["Finish"]>) => void }) {
	const b = useBench();
	const list = f.blends ?? [];
	const put = (n: number, x: Partial<S["Blend"]>) => set({ blends: list.map((s, i) => (i === n ? { ...s, ...x } : s)) });
	const inks = (value: string, label: string, pick: (id: string) => void, none?: string) => (
		<Select label={label} bare value={value} onChange={(v) => pick(v)} width="152px">
			{none !== undefined && <option value="">{none}</option>}
			{b.state.inks.map((x) => (
				<option key={x.id} value={x.id}>
					{b.state.kit.inks.find((k) => k.id === x.id)?.name} ({Math.round(x.l)})
				</option>
			))}
		</Select>
	);
	/** The next darker owned ink of the same family as the last in hand. */
	const next = () => {
		const last = list.at(-1)?.ink ?? f.ink ?? "";
		const family = b.state.kit.inks.find((k) => k.id === last)?.family;
		const at = b.state.inks.findIndex((x) => x.id === last);
		const l = b.state.inks[at]?.l ?? 100;
		const down = b.state.inks.filter((x) => x.l < l - 5 && b.state.kit.inks.find((k) => k.id === x.id)?.family === family);
		return (down[0] ?? b.state.inks.find((x) => x.l < l - 5) ?? b.state.inks[0])?.id ?? "";
	};
	return (
		<Box flexBasis="100%" display="flex" flexDirection="column" gap="3" fontSize="small">
			{list.map((s, n) => (
				<Box key={`${s.zone}${n}`} display="flex" gap="4" alignItems="center">
					<span style={{ width: 22, height: 22, background: look.blends[n]?.dry || "none", border: `1px solid ${hue.edge}` }} />
					{inks(s.ink, `Ink of blend ${n + 1}`, (ink) => put(n, { ink }))}
					<Select label={`Zone of blend ${n + 1}`} bare value={s.zone} onChange={(v) => put(n, { zone: v as S["Blend"]["zone"] })}>
						{zones.map((z) => (
							<option key={z}>{z}</option>
						))}
					</Select>
					<span>
						{look.blends[n]?.dry &&
							`lightness ${Math.round(look.blends[n].l)}${look.blends[n].reach > 0 ? `, fades out over ${length(look.blends[n].reach, b.state.settings)}` : ""}`}
					</span>
					<Button aria-label={`Take away blend ${n + 1}`} onClick={() => set({ blends: list.filter((_, i) => i !== n) })}>
						Take away
					</Button>
				</Box>
			))}
			<Box display="flex" gap="5" alignItems="center" flexWrap="wrap">
				{list.length < 6 && <Button onClick={() => set({ blends: [...list, { ink: next(), zone: list.at(-1)?.zone ?? "rim" }] })}>Work in a darker ink</Button>}
				{list.length > 0 && f.ink && <Check label="the first ink once more over the joins" on={f.return ?? false} set={(on) => set({ return: on })} />}
				{cut && (
					<>
						<span className="beside">edge {inks(f.edge ?? "", "Ink of the edge", (edge) => set({ edge }), "bare")}</span>
						<span className="beside">back {inks(f.back ?? "", "Ink of the back", (back) => set({ back }), "bare")}</span>
						{f.ink && <Check label="with water, until it is soaked" on={f.soaked ?? false} set={(on) => set({ soaked: on || undefined })} />}
					</>
				)}
			</Box>
		</Box>
	);
}
