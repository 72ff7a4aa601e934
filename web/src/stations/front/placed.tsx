import { memo, useRef } from "react";
import type { Element, S } from "../../api/client";
import { type Live, useLive } from "../../ui/live";
import { Thing } from "./things";

/** How far what is in hand is dragged, mm, and which elements go with it. */
export type Held = { ids: readonly string[]; dx: number; dy: number; snapX?: string; snapY?: string } | null;

export interface PlacedProps {
	e: Element;
	drawn: S["PlanDrawn"][];
	here?: S["PlanPlaced"];
	on: boolean;
	scale: number;
	moving: Live<Held>;
	parts?: string[];
	pale?: boolean;
	onTake: (e: Element, also: boolean) => void;
	/** Where a drag comes to, drawn to what is near. */
	onDrag: (e: Element, dx: number, dy: number) => NonNullable<Held>;
	onDrop: (h: NonNullable<Held>) => void;
	onPart?: (part: string) => void;
}

const nothing: S["PlanDrawn"][] = [];

/** One element where it lies, or where it is held to; while it is dragged only this is drawn. */
export const Placed = memo(function Placed({ e, drawn, here, on, scale, moving, parts, pale, onTake, onDrag, onDrop, onPart }: PlacedProps) {
	const held = useLive(moving, (h) => (h?.ids.includes(e.id) ? h : null));
	const from = useRef<{ cx: number; cy: number } | null>(null);
	const at = { x: e.place.x + (held?.dx ?? 0), y: e.place.y + (held?.dy ?? 0) };
	const thing = (
		<g
			id={`thing-${e.id}`}
			// As a style, so that the browser moves its picture of the thing and paints nothing anew.
			style={{
				cursor: onPart ? "crosshair" : "move",
				opacity: pale ? 0.25 : undefined,
				transform: `translate(${at.x}px, ${at.y}px) rotate(${e.place.turn}deg)`,
				willChange: on ? "transform" : undefined,
			}}
			onPointerDown={(ev) => {
				if (onPart) return;
				(ev.currentTarget as unknown as { setPointerCapture: (id: number) => void }).setPointerCapture(ev.pointerId);
				onTake(e, ev.shiftKey);
				from.current = { cx: ev.clientX, cy: ev.clientY };
			}}
			onPointerMove={(ev) => {
				const f = from.current;
				if (f) moving.set(onDrag(e, (ev.clientX - f.cx) / scale, (ev.clientY - f.cy) / scale));
			}}
			onPointerUp={() => {
				from.current = null;
				const h = moving.get();
				moving.set(null);
				if (h) onDrop(h);
			}}
			onPointerCancel={() => {
				from.current = null;
				moving.set(null);
			}}
		>
			<Body e={e} drawn={drawn ?? nothing} over={here?.over ?? false} lift={here?.foam ? here.lift : 0} on={on} scale={scale} parts={parts} onPart={onPart} />
		</g>
	);
	// What is trimmed flush ends at the panel's edge.
	return e.flush && !held ? <g clipPath="url(#panel-edge)">{thing}</g> : thing;
});

const Body = memo(Thing);
