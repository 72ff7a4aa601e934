import type { Element } from "../../api/client";

/** The parts of an element that cross another the other way than the rest, with one of them
 * changed: from the card as it is, not from a list that was asked for before the last change. */
export function crossed(e: Element, withID: string, part: string, on?: boolean): string[] {
	const now = e.tucks?.filter((t) => t.with === withID).map((t) => t.part) ?? [];
	const others = now.filter((p) => p !== part);
	return (on ?? !now.includes(part)) ? [...others, part] : others;
}
