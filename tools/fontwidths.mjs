// Widths of words by another library than ours, for exchange/sheet/testdata/widths.json:
// opentype.js reads the shipped typeface and adds up its own tables, kerning too.
// Run: node tools/fontwidths.mjs (with opentype.js 1.3.4 from the registry beside it).
import fs from "node:fs";
import { createRequire } from "node:module";
const require = createRequire(process.cwd() + "/");
const opentype = require("opentype.js");
const file = process.argv[2];
const raw = fs.readFileSync(file);
const font = opentype.parse(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
const high = font.tables.os2.sCapHeight;
const words = ["thank you", "AVATAR", "hello", "with thanks", "Typography", "come to the light", "night", "To You", "señor Müller", "WAVE", "fi fl", "1 4 2 9"];
const out = {};
for (const w of words) {
	let width = 0;
	const glyphs = [...w].map((c) => font.charToGlyph(c));
	glyphs.forEach((g, i) => {
		width += g.advanceWidth;
		if (i + 1 < glyphs.length) width += font.getKerningValue(g, glyphs[i + 1]);
	});
	out[w] = Math.round((width / high) * 1e5) / 1e5; // in heights of a capital
}
console.log(JSON.stringify({ capHeight: high, unitsPerEm: font.unitsPerEm, widths: out }, null, 1));
