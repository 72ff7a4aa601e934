import { Problem } from "./client";

/** Runs long work on the server: tells how far it is, gives what comes of it, and stops when the signal says so. */
export async function stream<T>(url: string, init: RequestInit, wanted: string, tell: (share: number, what: string) => void): Promise<T> {
	let response: Response;
	try {
		response = await fetch(url, { method: "POST", ...init });
	} catch (e) {
		if ((e as Error).name === "AbortError") throw new Problem("cancelled", "Stopped. Nothing was kept.");
		throw new Problem("offline", "Ochrestone does not answer. Is it still running? Nothing you saved is lost.");
	}
	if (!response.ok || !response.body) {
		const e = (await response.json().catch(() => ({}))) as { type?: string; detail?: string; title?: string };
		throw new Problem(e.type ?? "unknown", e.detail ?? e.title ?? "Something went wrong.");
	}
	const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
	let text = "";
	try {
		for (;;) {
			const { value, done } = await reader.read();
			if (done) break;
			text += value;
			for (let end = text.indexOf("\n\n"); end >= 0; end = text.indexOf("\n\n")) {
				const block = text.slice(0, end);
				text = text.slice(end + 2);
				const event = /^event: (.*)$/m.exec(block)?.[1];
				const data = /^data: (.*)$/m.exec(block)?.[1];
				if (!event || !data) continue;
				const body = JSON.parse(data);
				if (event === "progress") tell(body.share, body.what);
				else if (event === "refused") throw new Problem(body.type, body.detail);
				else if (event === wanted) return body as T;
			}
		}
	} catch (e) {
		if ((e as Error).name === "AbortError") throw new Problem("cancelled", "Stopped. Nothing was kept.");
		throw e;
	}
	throw new Problem("broken", "The answer broke off. Try again.");
}
