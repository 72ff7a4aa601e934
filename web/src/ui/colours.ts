/** Every colour of the page by what it is for. What is drawn to stand for paper and
 * ink keeps its own. */
export const colours = {
	/** Behind everything: a neutral grey, as in a viewing booth. */
	ground: "#d9dad8",
	/** Strips, rails and forms. */
	sheet: "#f3f3f1",
	/** The table that things lie on. */
	bench: "#a9aaa9",
	/** Behind swatches and small pictures. */
	bed: "#c9cac9",
	white: "#ffffff",
	/** Between parts of the page. */
	line: "#bfc2c1",
	/** Round what can be typed in, and scales in a drawing. */
	rule: "#7d878d",
	text: "#1d2327",
	quiet: "#4f5962",
	/** Stones, and outlines that stand for nothing chosen. */
	slate: "#5c6a75",
	/** What can be acted on, its fill, and what is picked in a list. */
	ochre: "#824a00",
	fill: "#e0a040",
	wash: "#e9dcc3",
	glow: "#e0a04055",
	/** Settled, and trouble. */
	lichen: "#4d6b3b",
	madder: "#9a2f2b",
	/** The edge of a drawn thing: of a swatch, of a piece, of a piece that is told apart. */
	edge: "#00000033",
	outline: "#1d232766",
	mark: "#1d2327aa",
	/** Laid over the page behind a dialog. */
	dim: "#1d232799",
	/** Laid over a drawing so that what is beneath stays seen. */
	veil: "#f3f3f1cc",
} as const;

type Hue = keyof typeof colours;

/** The page in a dark room: what is other there. Greys stay neutral; colours of paper and ink are as they are. */
export const dim: Partial<Record<Hue, string>> = {
	ground: "#1b1d1e",
	sheet: "#26292a",
	bench: "#454748",
	bed: "#3a3c3d",
	white: "#313435",
	line: "#4b5053",
	rule: "#8b959a",
	text: "#eceeed",
	quiet: "#b9c1c6",
	slate: "#8d9ba6",
	ochre: "#f0b558",
	fill: "#8a5a14",
	wash: "#4a3c20",
	glow: "#e0a04040",
	lichen: "#a9cc90",
	madder: "#ff9d94",
	edge: "#ffffff40",
	outline: "#eceeed77",
	mark: "#eceeedbb",
	dim: "#000000aa",
	veil: "#26292acc",
};

/** The same as variables of the theme, for drawings and inline styles. */
export const hue = Object.fromEntries(Object.keys(colours).map((k) => [k, `var(--chakra-colors-${k})`])) as Record<Hue, string>;

/** Foam as it is, in whatever room. */
export const foamWhite = "#f3f3f1";
export const foamHole = "#a9aaa9";

/** What is written on light grounds of the table, which keep their own colours. */
export const onLight = "#1d2327";

/** What stands for card or ink that is not chosen yet. */
export const bare = "#e8e8e6";
