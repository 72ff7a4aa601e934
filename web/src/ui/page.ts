import { dim } from "./colours";
import { larger, sizes } from "./sizes";

/** How the page looks on this screen: kept by the browser, since another screen stands elsewhere. */
export interface Look {
	room: "light" | "dark";
	letters: "usual" | "large";
}

const where = "page";

export function look(): Look {
	try {
		const kept = JSON.parse(localStorage.getItem(where) ?? "{}") as Partial<Look>;
		return { room: kept.room === "dark" ? "dark" : "light", letters: kept.letters === "large" ? "large" : "usual" };
	} catch {
		return { room: "light", letters: "usual" };
	}
}

/** Makes the page look so, now and when it is opened again. */
export function setLook(l: Look) {
	try {
		localStorage.setItem(where, JSON.stringify(l));
	} catch {
		// a browser that keeps nothing still shows it until it is shut
	}
	apply(l);
}

export function apply({ room, letters }: Look) {
	const root = document.documentElement;
	root.dataset.room = room;
	root.style.colorScheme = room;
	for (const [name, value] of Object.entries(dim)) {
		if (room === "dark") root.style.setProperty(`--chakra-colors-${name}`, value);
		else root.style.removeProperty(`--chakra-colors-${name}`);
	}
	for (const [name, value] of Object.entries(sizes)) {
		if (letters === "large") root.style.setProperty(`--chakra-font-sizes-${name}`, `${Math.round(Number.parseFloat(value) * larger)}px`);
		else root.style.removeProperty(`--chakra-font-sizes-${name}`);
	}
}
