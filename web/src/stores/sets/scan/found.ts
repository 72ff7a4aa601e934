import type { S } from "../../../api/client";

/** What the picture is of. */
export type As = "pieces" | "mat" | "stamps" | "stencil";
/** A piece found, and whether it is left out. */
export type Piece = S["TracedOutline"] & { out?: boolean };

/** What was found in a picture. */
export interface Found {
	as: As;
	name: string;
	picture?: string;
	traced: S["Traced"];
	pieces: Piece[];
}
