/** What was done, to be said in passing: kept until there is somewhere to say it, so that
 * the part of the page that shows it can come later. */
export interface Said {
	words: string;
	/** What takes it back. */
	undo?: () => void;
}
let hear: ((s: Said) => void) | undefined;
const waiting: Said[] = [];

export const said = {
	listen: (f: (s: Said) => void) => {
		hear = f;
		for (const s of waiting.splice(0)) f(s);
	},
};

/** Says what was done, in a sentence, with what takes it back where it can be. */
export const say = (words: string, undo?: () => void) => (hear ? hear({ words, undo }) : void waiting.push({ words, undo }));
