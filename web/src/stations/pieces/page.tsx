import { Box } from "@chakra-ui/react";
import { lazy, Suspense, useCallback, useState } from "react";
import { useBench } from "../../api/card";
import { boxOf, laidApart } from "../../parts/apart";
import { Beside, useNotesAbout } from "../../parts/beside";
import { ImageStrata } from "../../parts/image-strata";
import { Frame, grounds, Layers } from "../../parts/picture";
import { spokenImage } from "../../parts/spoken";
import { GroundPicker, MotifPicker, NoImage, StationFrame, useGround } from "../../parts/station";
import { Table } from "../../parts/table";
import { hue } from "../../ui/colours";
import { Slider } from "../../ui/slider";
import { length } from "../../ui/units";

import { PartingLine } from "./line";

const LayerForm = lazy(() => import("./form"));

/** Pieces: the layered image and its parts, apart or together; what shows, what hides, labels, order. */
export default function Pieces() {
	const b = useBench();
	const notes = useNotesAbout("pieces");
	const [spread, setSpread] = useState(0);
	const [ground, setGround] = useGround();
	const s = b.state.settings;
	const { look, motif, pick } = b;
	const take = useCallback((layer: string) => pick({ layer }), [pick]);
	if (!motif || !look || look.layers.length === 0)
		return (
			<StationFrame
				station="pieces"
				table={look?.problem ? <Box p="10">{look.problem}</Box> : <NoImage />}
				strata={<ImageStrata what="copies" value={() => ""} />}
			/>
		);
	const labels = look.layers.map((l, i) => `${i + 1} ${l.label} × ${motif.layers[i].copies}`);
	const apart = (room: { w: number; h: number }) => laidApart(look, labels, room, spread);
	const line = motif.layers.find((l) => l.id === b.layer);
	const chosen = look.layers.find((l) => l.id === b.layer);
	return (
		<StationFrame
			station="pieces"
			table={
				<>
					<Frame
						title={motif.name}
						sub={`${length(look.w, s)} wide, ${length(look.h, s)} high; ${look.layers.length} ${look.layers.length === 1 ? "layer" : "layers"}.`}
						tools={
							<>
								<MotifPicker more />
								<GroundPicker value={ground} onChange={setGround} />
							</>
						}
					/>
					<Box px="9" pb="4" display="flex" gap="5" alignItems="center" fontSize="small">
						<span>stacked</span>
						<Slider
							label="Lay the pieces apart"
							min={0}
							max={1}
							step={0.01}
							v={spread}
							set={setSpread}
							say={(v) => (v === 0 ? "stacked" : v === 1 ? "laid apart" : `${Math.round(100 * v)} % of the way apart`)}
							width="220px"
						/>
						<span>laid apart</span>
						{spread > 0.9 && <Box color="quiet">Numbers are places in the stack, then how many are cut or printed for one image.</Box>}
					</Box>
					<Table
						box={spread > 0 ? (room) => apart(room).box : { x: look.minX, y: look.minY, w: look.w, h: look.h }}
						settings={s}
						ground={grounds[ground]}
						label={`The pieces: ${spokenImage(look, b.colourway)}`}
						beside={chosen && spread < 0.05 ? { box: boxOf(chosen.outline, 0), node: <Beside notes={notes} /> } : undefined}
						origin={{ x: look.minX, y: look.minY }}
					>
						{(scale, room) => (
							<>
								<Layers
									look={look}
									colourway={b.colourway}
									apart={spread > 0 ? apart(room) : undefined}
									labels={spread > 0.9 ? labels : undefined}
									layer={b.layer}
									onPick={take}
								/>
								{chosen && spread < 0.05 && !line?.region && (
									<path d={chosen.shown} fill={hue.glow} stroke={hue.ochre} strokeWidth={1.5 / scale} fillRule="evenodd" pointerEvents="none" />
								)}
								{line?.region && spread < 0.05 && <PartingLine layer={line} scale={scale} />}
							</>
						)}
					</Table>
					{chosen ? (
						<Suspense>
							<LayerForm />
						</Suspense>
					) : (
						<Hint>Tap a piece, or a stratum, to see what of it shows and to change it. Alt with the arrow keys moves it up or down.</Hint>
					)}
				</>
			}
			strata={
				<ImageStrata
					what="shows"
					value={(i) => `${Math.round(look.layers[i].share * 100)} %`}
					sub={(i) =>
						`${b.colourway?.layers[i]?.kept ? "kept as it is" : motif.layers[i].make}, ${look.layers[i].pieces === 1 ? "one piece" : `${look.layers[i].pieces} pieces`}, rank ${motif.layers[i].rank}${motif.layers[i].copies > 1 ? `, × ${motif.layers[i].copies}` : ""}`
					}
				/>
			}
		/>
	);
}

export const Hint = ({ children }: { children: React.ReactNode }) => (
	<Box py="5" px="9" fontSize="small" color="quiet" minH="44px">
		{children}
	</Box>
);
