import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type S = components["schemas"];
export type Card = S["Card"];
export type Plan = S["Plan"];
export type View = S["View"];
export type State = S["State"];
export type Motif = S["Motif"];
export type Layer = S["Layer"];
export type Finish = S["Finish"];
export type Element = S["Element"];
export type PlanMotif = S["PlanMotif"];
export type Colourway = S["LookColourway"];
export type Finding = S["Finding"];
export type Act = S["Act"];
export type Step = S["Step"];
export type Edit = S["Edit"];
export type Bond = S["Bond"];
export type Changed = S["Changed"];

/** Whether an element is a mat, or the panel: a sheet laid by its borders. */
export const isMat = (e: Element) => e.sheet !== undefined && e.inset !== undefined;

/** The words on a sheet. */
export const wordsOf = (e: Element) => e.sheet?.treatments?.find((t) => t.words)?.words;

/** The pattern turned on a sheet. */
export const turnedOf = (e: Element) => e.sheet?.treatments?.find((t) => t.turned)?.turned;

export const api = createClient<paths>({ baseUrl: "/" });

/** What went wrong, as a sentence for people and the places it names. */
export class Problem extends Error {
	constructor(
		readonly type: string,
		message: string,
		readonly places: string[] = [],
	) {
		super(message);
	}
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** Unwraps an answer or throws its problem. */
export async function ok<T>(call: Promise<Answer<T>>): Promise<T> {
	let r: Answer<T>;
	try {
		r = await call;
	} catch {
		throw new Problem("offline", "Ochrestone does not answer. Is it still running? Nothing you saved is lost.");
	}
	if (r.error !== undefined || !r.response.ok) {
		const e = (r.error ?? {}) as { type?: string; detail?: string; title?: string; errors?: { message?: string; location?: string }[] | null };
		const places = (e.errors ?? []).map((x) => `${x.location ? `${x.location}: ` : ""}${x.message ?? ""}`);
		throw new Problem(e.type ?? "unknown", e.detail ?? e.title ?? "Something went wrong.", places);
	}
	return r.data as T;
}

const said = async (r: Response) => (r.headers.get("content-type")?.includes("json") ? await r.json().catch(() => undefined) : undefined);

/** Asks for JSON at a way the typed client does not carry: bytes sent, as of a picture or a file. */
export const asked = <T>(url: string, init?: RequestInit): Promise<T> =>
	ok<T>(
		fetch(url, init).then(async (response) => {
			const body = await said(response);
			return response.ok ? { data: body as T, response } : { error: body ?? {}, response };
		}),
	);

/** Sends bytes. */
export const sendBytes = <T>(url: string, body: BodyInit, type = "application/octet-stream") =>
	asked<T>(url, { method: "POST", headers: { "Content-Type": type }, body });

/** Fetches a picture. */
export const takePicture = (url: string): Promise<Blob> =>
	ok<Blob>(
		fetch(url).then(async (response) =>
			response.ok ? { data: await response.blob(), response } : { error: (await said(response)) ?? { detail: "The picture cannot be had." }, response },
		),
	);
