import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type S, sendBytes } from "../../api/client";
import { Picture } from "../../parts/picture";
import { Button } from "../../ui/button";
import { Check } from "../../ui/check";
import { hue } from "../../ui/colours";
import { FileButton, pictures } from "../../ui/file";
import { NumberField } from "../../ui/number";
import { Popover } from "../../ui/popover";
import { Select } from "../../ui/select";
import { size } from "../../ui/sizes";

const schools = ["light ground", "dark ground", "local colour", "every piece"] as const;
const leans = ["warmer", "cooler", "quieter", "livelier"] as const;
const zones = ["rim", "foot", "tip", "left side", "right side"] as const;

const byWords = { ink: "by ink", card: "coloured card", tone: "tone on tone" } as const;

/** Ranked colourways from the drawer, as pictures. */
export function Ranked() {
	const b = useBench();
	const [keep, setKeep] = useState(false);
	const [family, setFamily] = useState("");
	const [by, setBy] = useState<NonNullable<S["Ask"]["by"]>>("ink");
	const [lean, setLean] = useState<"" | (typeof leans)[number]>("");
	const [zone, setZone] = useState<(typeof zones)[number]>("rim");
	const [count, setCount] = useState(5);
	const families = [...new Set(b.state.kit.inks.map((i) => i.family).filter(Boolean))] as string[];
	const { motif, look, colourway } = b;
	const ask = useMutation({
		mutationFn: () =>
			ok(
				api.POST("/api/cards/{id}/inks", {
					params: { path: { id: b.view.id } },
					body: {
						motif: motif!.id,
						colourway: colourway!.id,
						school: motif!.school,
						keep: keep && b.layer ? { [b.layer]: true } : undefined,
						families: family ? [family] : undefined,
						lean: lean || undefined,
						by: by === "ink" ? undefined : by,
						zone,
						best: 5,
					},
				}),
			),
	});
	const many = useMutation({
		mutationFn: () =>
			ok(
				api.POST("/api/cards/{id}/colourways", {
					params: { path: { id: b.view.id }, query: { n: count } },
					body: { motif: motif!.id, colourway: colourway!.id, school: motif!.school, by: by === "ink" ? undefined : by, zone },
				}),
			),
	});
	const [spread, setSpread] = useState("");
	const after = useMutation({
		mutationFn: async (file: File) => {
			const q = new URLSearchParams({ motif: motif!.id, colourway: colourway!.id, school: motif!.school });
			return sendBytes<S["PictureOutBody"]>(`/api/cards/${b.view.id}/picture?${q}`, file);
		},
	});
	// biome-ignore lint/correctness/useExhaustiveDependencies: another image empties the row
	useEffect(() => {
		ask.reset();
		after.reset();
		many.reset();
		setSpread("");
	}, [motif?.id]);
	if (!motif || !look || !colourway) return null;
	const take = (s: S["Suggestion"]) => b.edit({ replace: { motif: motif.id, colourway: colourway.id, with: { name: s.name, layers: s.finishes } } });
	/** Adds every colourway of the set to the image. */
	const takeAll = (all: S["Suggestion"][]) => b.edit({ addColourways: { motif: motif.id, choices: all.map((s) => ({ name: s.name, layers: s.finishes })) } });
	/** Shares the colourways out among the places of the image. */
	const share = async () => {
		const got = await ok(api.GET("/api/cards/{id}/spread", { params: { path: { id: b.view.id }, query: { motif: motif.id } } }));
		b.edit({ recolour: { elements: got.elements } });
		setSpread(
			got.clashes === 0 ? "Shared out: no two neighbours are alike." : `Shared out; ${got.clashes} neighbours have to share one. Add a colourway to part them.`,
		);
	};
	const places = b.card.elements.filter((e) => e.image?.motif === motif.id).length;
	const chosen = colourway.layers.find((l) => l.id === b.layer);
	const setSchool = (school: (typeof schools)[number]) => b.edit({ school: { motif: motif.id, school } });
	return (
		<Box pt="4" px="7" pb="4" bg={hue.bed} minH="112px">
			<Box display="flex" gap="5" alignItems="center" flexWrap="wrap" mb="3" fontSize="small">
				<b style={{ fontSize: size.lead }}>From your drawer</b>
				<Popover label={`${motif.school}, ${byWords[by]}, ${family || "all families"}${lean ? `, ${lean}` : ""}`} title="What to choose from, and how">
					<Box display="grid" gridTemplateColumns="1fr 1fr" gap="5">
						<Select label="School of lightness" value={motif.school} onChange={(v) => setSchool(v as (typeof schools)[number])}>
							<option value="light ground">light ground, darker detail</option>
							<option value="dark ground">dark ground, rising to light</option>
							<option value="local colour">local colour, no order</option>
							<option value="every piece">each piece shaded</option>
						</Select>
						<Select label="What colours a cut piece" value={by} onChange={(v) => setBy(v as typeof by)}>
							<option value="ink">by ink</option>
							<option value="card">coloured card, plain</option>
							<option value="tone">tone on tone</option>
						</Select>
						<Select label="Families to use" value={family} onChange={(v) => setFamily(v)}>
							<option value="">all families</option>
							{families.map((f) => (
								<option key={f} value={f}>
									only {f}
								</option>
							))}
						</Select>
						{motif.school === "every piece" && (
							<Select label="Where pieces darken" value={zone} onChange={(v) => setZone(v as typeof zone)}>
								{zones.map((z) => (
									<option key={z} value={z}>
										to the {z}
									</option>
								))}
							</Select>
						)}
						<Select label="How they should differ from now" value={lean} onChange={(v) => setLean(v as typeof lean)}>
							<option value="">any hue</option>
							{leans.map((l) => (
								<option key={l}>{l}</option>
							))}
						</Select>
						<NumberField
							saved
							label="Tones wanted, 0: as many as it has"
							min={0}
							max={9}
							v={motif.tones ?? 0}
							set={(tones) => b.edit({ wanted: { motif: motif.id, tones } })}
							width="64px"
						/>
						<NumberField
							saved
							label="Made of it, 0: as many as are laid"
							min={0}
							max={500}
							v={motif.made ?? 0}
							set={(made) => b.edit({ wanted: { motif: motif.id, made } })}
							width="64px"
						/>
					</Box>
				</Popover>
				<Button variant="main" onClick={() => ask.mutate()} disabled={ask.isPending}>
					{ask.isPending ? "Trying the inks…" : "Suggest inks"}
				</Button>
				<FileButton label="After a picture" accept={pictures} onFile={(f) => after.mutate(f)} />
				<span style={{ display: "flex", gap: 4, alignItems: "center" }}>
					<Button onClick={() => many.mutate()} disabled={many.isPending}>
						{many.isPending ? "Trying the families…" : "A set of"}
					</Button>
					<NumberField bare label="How many colourways" min={2} max={12} v={count} set={setCount} width="46px" />
				</span>
				{places > 1 && motif.colourways.length > 1 && <Button onClick={share}>Share them out</Button>}
				{b.layer && <Check label="keep this layer" on={keep} set={setKeep} />}
			</Box>
			{spread && (
				<Box role="status" fontSize="small">
					{spread}
				</Box>
			)}
			{many.data && (
				<Box fontSize="small" mb="2" display="flex" gap="5" alignItems="center">
					{many.data.say}
					<Button
						variant="main"
						onClick={() => {
							takeAll(many.data.colourways);
							many.reset();
						}}
					>
						Add all {many.data.colourways.length}
					</Button>
				</Box>
			)}
			{(ask.error || after.error || many.error) && (
				<Box role="alert" bg="sheet" py="4" px="6" color="madder">
					{(ask.error ?? after.error ?? many.error)?.message}
				</Box>
			)}
			{ask.data?.advice && (
				<Box bg="sheet" py="3" px="5" mb="3" fontSize="small" borderLeft="4px solid {colors.fill}">
					{ask.data.advice}
				</Box>
			)}
			{ask.data && !ask.data.proven && <Box fontSize="note">The search was stopped before it had tried everything; these are the best so far.</Box>}
			<Box display="flex" gap="4" alignItems="flex-start">
				<Choice title="now" sub={colourway.weakest > 0 ? `weakest pair ${colourway.weakest.toFixed(1)}` : ""} now>
					<Picture look={look} colourway={colourway} title="As it is now" />
				</Choice>
				{chosen?.line && (
					<>
						<Choice title="line last" sub={`${chosen.line.lastDiff.toFixed(1)} from its colour`} tip={chosen.line.say} now>
							<Picture look={look} colourway={colourway} title={`The line printed last. ${chosen.line.say}`} />
						</Choice>
						<Choice title="line first" sub={`${chosen.line.firstDiff.toFixed(1)} from its colour`} tip={chosen.line.say}>
							<Picture
								look={look}
								colourway={{ ...colourway, layers: colourway.layers.map((l) => (l.id === chosen.id ? { ...l, dry: chosen.line?.first ?? l.dry } : l)) }}
								title={`The line printed first and coloured over. ${chosen.line.say}`}
							/>
						</Choice>
					</>
				)}
				{many.data?.colourways.map((s) => (
					<Choice key={`set ${s.name}`} title={s.name} sub={`weakest pair ${s.look.weakest.toFixed(1)}`} tip={s.why} onClick={() => take(s)}>
						<Picture look={look} colourway={s.look} title={`${s.name}. ${s.why}`} />
					</Choice>
				))}
				{after.data && (
					<Choice
						title={after.data.colourway.name}
						sub={`weakest pair ${after.data.colourway.look.weakest.toFixed(1)}`}
						tip={after.data.colourway.why}
						onClick={() => after.data && take(after.data.colourway)}
						strip={after.data.colours}
					>
						<Picture look={look} colourway={after.data.colourway.look} title={`After the picture. ${after.data.colourway.why}`} />
					</Choice>
				)}
				{!many.data &&
					ask.data?.colourways.slice(0, after.data ? 4 : 5).map((s) => (
						<Choice key={JSON.stringify(s.finishes)} title={s.name} sub={`weakest pair ${s.look.weakest.toFixed(1)}`} tip={s.why} onClick={() => take(s)}>
							<Picture look={look} colourway={s.look} title={`${s.name}. ${s.why}`} />
						</Choice>
					))}
				{!ask.data && !after.data && !many.data && !ask.isPending && (
					<Box fontSize="small" maxW="300px" pt="3">
						The best choices from the inks you own, ranked by how clearly the layers part, then by even steps and kindred hues.
					</Box>
				)}
			</Box>
		</Box>
	);
}

function Choice({
	title,
	sub,
	tip,
	now,
	strip,
	onClick,
	children,
}: {
	title: string;
	sub: string;
	tip?: string;
	now?: boolean;
	strip?: S["MainColour"][];
	onClick?: () => void;
	children: React.ReactNode;
}) {
	const inner = (
		<>
			<span style={{ display: "block", height: 58, background: hue.bed, padding: 4, border: now ? `2px solid ${hue.ochre}` : `1px solid ${hue.rule}` }}>
				{children}
			</span>
			{strip && (
				<span style={{ display: "flex", height: 7 }} title="The main colours of the picture, by share">
					{strip.map((c) => (
						<span key={c.colour} style={{ flex: c.share, background: c.colour }} />
					))}
				</span>
			)}
			<b style={{ display: "block", fontSize: size.note, lineHeight: 1.2, marginTop: 2, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
				{title}
			</b>
			<span style={{ fontSize: size.note, display: "block" }}>{sub}</span>
		</>
	);
	const style = { flex: "0 1 112px", minWidth: 0, padding: 0, background: "none", border: 0, textAlign: "left", color: hue.text } as const;
	return onClick ? (
		<button type="button" style={{ ...style, cursor: "pointer" }} onClick={onClick} title={tip}>
			{inner}
		</button>
	) : (
		<div style={style}>{inner}</div>
	);
}
