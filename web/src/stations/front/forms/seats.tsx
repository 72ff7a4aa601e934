import { useBench } from "../../../api/card";
import type { Element, S } from "../../../api/client";
import { useSeats } from "../../../api/queries";
import { Button } from "../../../ui/button";
import { hue } from "../../../ui/colours";
import { length, type Settings, thin } from "../../../ui/units";

/** The seats of a sheet: which image of the card goes into which, and by how much; what lies behind a window. */
export default function Seats({ e }: { e: Element }) {
	const b = useBench();
	const s = b.state.settings;
	const got = useSeats(b.view.id, b.view.version, e.id);
	if (!got) return <div>Measuring…</div>;
	if (got.length === 0) return <div>No seat is pressed into it, and nothing is cut out of it.</div>;
	return (
		<div style={{ display: "grid", gap: 12, width: 330, maxHeight: "56vh", overflowY: "auto" }}>
			{got.map((seat, i) => (
				<fieldset key={i} style={{ border: 0, padding: "0 0 8px", margin: 0, display: "grid", gap: 6, borderBottom: `1px solid ${hue.line}` }}>
					<legend style={{ fontWeight: 700, padding: 0 }}>
						{seat.window ? "Window" : "Seat"} {seat.where}, {length(seat.w, s, false)} × {length(seat.h, s)}
					</legend>
					{seat.taken && !seat.through.some((x) => x.name === seat.taken) && <div>{seat.taken} lies in it.</div>}
					{seat.fits.map((f) => {
						const free = f.element;
						return (
							<div key={f.motif} style={{ display: "flex", gap: 8, alignItems: "center", justifyContent: "space-between" }}>
								<span>
									{f.name}: {f.spare >= 0 ? `goes in, ${thin(f.spare, s)} to spare` : `${thin(-f.spare, s)} too large`}
								</span>
								{free && f.spare >= 0 && !seat.taken && (
									<Button onClick={() => b.edit({ put: { element: free, x: f.x, y: f.y, turn: e.place.turn } })}>Lay it in</Button>
								)}
							</div>
						);
					})}
					{seat.through.map((x) => (
						<div key={x.name}>
							{x.name}: {Math.round(100 * x.share)} % of it lies in the window{beyond(x, s)}
						</div>
					))}
					{seat.crop && (
						<div>
							To lie behind it, {seat.crop.name} is cropped to {length(seat.crop.w, s, false)} × {length(seat.crop.h, s)}: {length(seat.crop.left, s)} off its
							left, {length(seat.crop.top, s)} off its top.
						</div>
					)}
					{seat.fits.length === 0 && seat.through.length === 0 && <div>No image of this card is near its size.</div>}
				</fieldset>
			))}
		</div>
	);
}

/** How far a thing goes on beyond the window, side by side. */
function beyond(x: S["Seen"], s: Settings): string {
	const sides = (["left", "right", "top", "foot"] as const).filter((k) => x[k] > 0.3).map((k) => `${length(x[k], s)} at the ${k}`);
	return sides.length > 0 ? `; it goes on beyond it, ${sides.join(", ")}.` : ".";
}
