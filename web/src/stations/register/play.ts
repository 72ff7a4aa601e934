import type { S } from "../../api/client";
import { type Settings, thin } from "../../ui/units";

/** A layer off its place: mm right, mm down, degrees clockwise about its middle. */
export interface Off {
	x: number;
	y: number;
	t: number;
}

export const inPlace: Off = { x: 0, y: 0, t: 0 };

const steps = 72;

type Play = S["Play"];

/** The play between two of the directions it was computed in. */
export function reachAt(p: Play, o: { x: number; y: number }): number {
	if (!p.judged || p.reach.length !== steps) return Number.POSITIVE_INFINITY;
	const k = (((Math.atan2(o.y, o.x) / (2 * Math.PI)) * steps) % steps) + steps;
	const [i, t] = [Math.floor(k) % steps, k - Math.floor(k)];
	return p.reach[i] * (1 - t) + p.reach[(i + 1) % steps] * t;
}

/** A distance given all round, between two of its directions. */
function around(reach: number[], x: number, y: number): number {
	const n = reach.length;
	const k = (Math.atan2(y, x) / (2 * Math.PI)) * n + 2 * n;
	const [i, t] = [Math.floor(k) % n, k - Math.floor(k)];
	return reach[i] * (1 - t) + reach[(i + 1) % n] * t;
}

/** Looks a shift and turn up in the joint region, between its levels of turn. */
function holdsJoint(joint: NonNullable<Play["joint"]>, o: Off): boolean {
	const k = joint.findIndex((j) => j.turn >= o.t);
	if (k < 0 || (k === 0 && joint[0].turn > o.t)) return false;
	const [a, b] = [joint[Math.max(0, k - 1)], joint[Math.max(1, k)]];
	const t = (o.t - a.turn) / (b.turn - a.turn);
	const [x, y] = [o.x - (a.x * (1 - t) + b.x * t), o.y - (a.y * (1 - t) + b.y * t)];
	return Math.hypot(x, y) <= around(a.reach, x, y) * (1 - t) + around(b.reach, x, y) * t;
}

/** How much a layer off so may still be turned the way it is turned, degrees. */
export function turnLeft(p: Play, o: Off): number {
	const way = o.t < 0 ? -1 : 1;
	let most = 0;
	for (let t = 0; t <= 90; t += 0.1) {
		if (!holds(p, { ...o, t: way * t })) break;
		most = t;
	}
	return most;
}

/** Whether a layer off so lies inside its play: by the joint region of shift and turn where it is known, else with the turn shrinking evenly as the shift uses up the play. */
export function holds(p: Play, o: Off): boolean {
	if (p.joint && p.joint.length > 1) return holdsJoint(p.joint, o);
	const reach = reachAt(p, o);
	const d = Math.hypot(o.x, o.y);
	if (d > reach) return false;
	const limit = o.t < 0 ? p.anti : p.clock;
	return !p.judged || limit >= 90 || Math.abs(o.t) <= limit * (reach > 0 ? 1 - d / reach : 1);
}

export function reachPath(reach: number[], mag: number): string {
	return `M${reach.map((r, i) => `${(Math.cos((i * 2 * Math.PI) / steps) * r * mag).toFixed(3)} ${(Math.sin((i * 2 * Math.PI) / steps) * r * mag).toFixed(3)}`).join("L")}Z`;
}

/** How many times true the play is drawn, so that it can be seen. */
export function magnify(loose: number, box: { w: number; h: number }): number {
	const room = Math.min(box.w, box.h) * 0.2;
	return loose > 0 ? Math.max(1, Math.min(20, Math.floor(room / loose))) : 1;
}

/** A direction in words. */
export function compass(o: { x: number; y: number }): string {
	const deg = ((Math.atan2(o.y, o.x) * 180) / Math.PI + 360) % 360;
	return ["right", "down and right", "down", "down and left", "left", "up and left", "up", "up and right"][Math.round(deg / 45) % 8];
}

export const turned = (t: number) => `${Math.abs(t).toFixed(1)}° ${t < 0 ? "anticlockwise" : "clockwise"}`;

/** Off in words, with its unit. */
export function offWords(s: Settings, o: Off): string {
	const d = Math.hypot(o.x, o.y);
	const parts = [];
	if (d >= 0.005) parts.push(`${thin(d, s)} ${compass(o)}`);
	if (Math.abs(o.t) >= 0.05) parts.push(`turned ${turned(o.t)}`);
	return parts.join(", ");
}

/** Somewhere up to 3 mm off, at least 1, and turned by up to 4° where the turn matters. */
export function astray(p: Play): Off {
	const [r, a] = [1 + 2 * Math.random(), 2 * Math.PI * Math.random()];
	return { x: r * Math.cos(a), y: r * Math.sin(a), t: Math.min(p.clock, p.anti) < 90 ? 8 * Math.random() - 4 : 0 };
}
