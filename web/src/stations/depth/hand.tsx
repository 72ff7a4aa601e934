import { lazy, Suspense, useState } from "react";
import type { S } from "../../api/client";
import { Aslant } from "./aslant";

const Solid = lazy(() => import("./solid"));

/** Whether the browser draws solids. */
function draws(): boolean {
	try {
		const gl = document.createElement("canvas").getContext("webgl2");
		gl?.getExtension("WEBGL_lose_context")?.loseContext();
		return gl !== null;
	} catch {
		return false;
	}
}

/** The card turned in the hand: solid where the browser can, else our own oblique drawing. */
export function InHand({ standing, w, h }: { standing: S["StandingCard"]; w: number; h: number }) {
	const [solid] = useState(draws);
	const flat = <Aslant standing={standing} w={w} h={h} />;
	if (!solid) return flat;
	return (
		<Suspense fallback={flat}>
			<Solid standing={standing} w={w} h={h} />
		</Suspense>
	);
}
