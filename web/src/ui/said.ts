/** What was done, to be said in passing: kept until there is somewhere to say it, so that
 * the part of the page that shows it can come later. */
let hear: ((words: string) => void) | undefined;
const waiting: string[] = [];

export const said = {
	listen: (f: (words: string) => void) => {
		hear = f;
		for (const w of waiting.splice(0)) f(w);
	},
};

/** Says what was done, in a sentence. */
export const say = (words: string) => (hear ? hear(words) : void waiting.push(words));
