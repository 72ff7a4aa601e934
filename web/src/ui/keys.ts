/** Whether a key goes to a field being typed in, and is no key of the page. */
export const typing = (e: KeyboardEvent) => {
	const t = e.target as HTMLElement;
	return t.matches?.("input:not([type=range]):not([type=checkbox]), select, textarea") ?? false;
};
