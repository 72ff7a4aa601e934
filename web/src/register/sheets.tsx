import { TurningJig } from "./jig";

/** Sheets to print at true size for placing. */
export function Sheets({ w }: { layer: string; w: number; h: number }) {
	return <TurningJig w={w} />;
}
