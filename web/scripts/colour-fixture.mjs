// Writes core/colour/testdata/culori.json: random sRGB pairs with their CIE
// Lab (D65) and CIEDE2000 as culori computes them. Run: npm run colour-fixture
import { writeFileSync } from "node:fs";
import { converter, differenceCiede2000, formatHex } from "culori";

const lab = converter("lab65");
const de = differenceCiede2000();
let seed = 20261124;
// mulberry32, so that the fixture is the same at every run
const rnd = () => {
	seed = (seed + 0x6d2b79f5) | 0;
	let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
	t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
	return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};
const any = () => ({ mode: "rgb", r: Math.round(rnd() * 255) / 255, g: Math.round(rnd() * 255) / 255, b: Math.round(rnd() * 255) / 255 });
const near = (c) => {
	const k = () => (Math.round(rnd() * 24) - 12) / 255;
	const cl = (v) => Math.min(1, Math.max(0, Math.round(v * 255) / 255));
	return { mode: "rgb", r: cl(c.r + k()), g: cl(c.g + k()), b: cl(c.b + k()) };
};
const six = (v) => Math.round(v * 1e6) / 1e6;
const rows = [];
for (let i = 0; i < 2400; i++) {
	const a = any();
	const b = i % 3 === 0 ? near(a) : any();
	const [la, lb] = [lab(a), lab(b)];
	rows.push({ a: formatHex(a), b: formatHex(b), labA: [la.l, la.a, la.b].map(six), labB: [lb.l, lb.a, lb.b].map(six), dE: six(de(la, lb)) });
}
writeFileSync(new URL("../../core/colour/testdata/culori.json", import.meta.url), `[\n${rows.map((r) => JSON.stringify(r)).join(",\n")}\n]\n`);
