import { useCallback, useEffect, useRef } from "react";

/** What is typed belongs to the thing it was typed for: it is taken by what took such words when
 * typing began, whatever is chosen meanwhile, and it is taken too when the field goes. */
export function useTyped(take: (text: string) => void) {
	const own = useRef<{ text: string; take: (text: string) => void }>(undefined);
	const latest = useRef(take);
	latest.current = take;
	/** Something is typed. */
	const typed = useCallback((text: string) => {
		own.current = { text, take: own.current?.take ?? latest.current };
	}, []);
	/** What was typed is given up. */
	const drop = useCallback(() => {
		own.current = undefined;
	}, []);
	/** What was typed is taken: by Enter, Tab, leaving, or choosing something else. */
	const done = useCallback(() => {
		const o = own.current;
		own.current = undefined;
		o?.take(o.text);
	}, []);
	useEffect(() => done, [done]);
	return { typed, drop, done };
}
