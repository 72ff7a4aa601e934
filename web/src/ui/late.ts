import { useEffect, useState } from "react";

/** Whether the first picture is on the screen and there is time for what can wait. */
export function useLate(): boolean {
	const [late, setLate] = useState(false);
	useEffect(() => {
		const t = requestIdleCallback(() => setLate(true), { timeout: 1500 });
		return () => cancelIdleCallback(t);
	}, []);
	return late;
}
