// Packs rectangles by a library of the registry, for core/cut to be checked against in the
// same run: reads [{w, h, rects: [[w, h], ...]}, ...] and writes how many bins each takes.
import { readFileSync } from "node:fs";
import { MaxRectsPacker } from "maxrects-packer";

const cases = JSON.parse(readFileSync(0, "utf8"));
const bins = cases.map(({ w, h, rects }) => {
	const p = new MaxRectsPacker(w, h, 0, { smart: false, pot: false, square: false, allowRotation: true, border: 0 });
	p.addArray(rects.map(([width, height]) => ({ width, height, x: 0, y: 0 })));
	return p.bins.length;
});
process.stdout.write(JSON.stringify(bins));
