/** The sizes of letters, by what they are for. */
export const sizes = {
	/** Beneath a field, beside a figure. */
	note: "12px",
	/** Forms, lists, tables. */
	small: "13px",
	/** Running text. */
	text: "14px",
	/** The heading of a note, a group, a step. */
	lead: "15px",
	/** The heading of a panel. */
	sub: "17px",
	/** The heading of a station. */
	title: "20px",
	/** At the bench: what a step says. */
	step: "23px",
	/** The heading of a place. */
	place: "26px",
	/** At the bench, read from a metre and a half: what to do. */
	act: "38px",
} as const;

/** How much larger letters are for who asks for large ones. */
export const larger = 1.25;

/** Rooms between things: steps of one scale. */
export const spaces = {
	1: "2px",
	2: "4px",
	3: "6px",
	4: "8px",
	5: "10px",
	6: "12px",
	7: "14px",
	8: "16px",
	9: "20px",
	10: "24px",
	11: "28px",
	12: "36px",
	13: "40px",
} as const;

/** The weights of letters. */
export const weights = { plain: 400, firm: 600, bold: 700 } as const;

type Size = keyof typeof sizes;

/** The sizes as variables of the theme, for inline styles. */
export const size = Object.fromEntries(Object.keys(sizes).map((k) => [k, `var(--chakra-font-sizes-${k})`])) as Record<Size, string>;
