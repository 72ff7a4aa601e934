/** A box of the drawing, mm. */
export interface Box {
	x: number;
	y: number;
	w: number;
	h: number;
}
