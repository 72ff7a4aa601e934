// Writes core/colour/testdata/vision.json: random sRGB colours as seen without
// one kind of cone, computed by culori (severity 1).
import { writeFileSync } from "node:fs";
import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit, formatHex } from "culori";

let seed = 20261125;
const random = () => {
	seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
	return seed / 2 ** 32;
};
const see = { protan: filterDeficiencyProt(1), deutan: filterDeficiencyDeuter(1), tritan: filterDeficiencyTrit(1) };
const rows = [];
for (let i = 0; i < 400; i++) {
	const hex = `#${Math.floor(random() * 2 ** 24)
		.toString(16)
		.padStart(6, "0")}`;
	rows.push({ hex, protan: formatHex(see.protan(hex)), deutan: formatHex(see.deutan(hex)), tritan: formatHex(see.tritan(hex)) });
}
writeFileSync(new URL("../../core/colour/testdata/vision.json", import.meta.url), `${JSON.stringify(rows)}\n`);
