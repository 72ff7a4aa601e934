import { type ReactNode, useRef } from "react";
import type { Box } from "../../parts/box";

/** The box shown: fitted to the table, or grown until it is drawn at true size. */
export function Sized({ box, on, hide, children }: { box: Box; on: boolean; hide: boolean; children: (box: Box) => ReactNode }) {
	const ref = useRef<HTMLDivElement>(null);
	const el = ref.current;
	const perMM = 96 / 25.4;
	const [w, h] = on && el ? [Math.max(box.w, (el.clientWidth - 48) / perMM), Math.max(box.h, (el.clientHeight - 48) / perMM)] : [box.w, box.h];
	return (
		<div ref={ref} style={{ flex: 1, minHeight: 0, display: hide ? "none" : "flex" }}>
			{!hide && children({ x: box.x - (w - box.w) / 2, y: box.y - (h - box.h) / 2, w, h })}
		</div>
	);
}
