import { createSystem, defaultBaseConfig, defineConfig, defineRecipe } from "@chakra-ui/react";
import { colours } from "./colours";
import { sizes, spaces, weights } from "./sizes";

export const button = defineRecipe({
	base: {
		display: "inline-flex",
		alignItems: "center",
		justifyContent: "center",
		gap: "3",
		fontWeight: "bold",
		borderRadius: "4px",
		cursor: "pointer",
		lineHeight: "1.2",
		whiteSpace: "nowrap",
		_disabled: { color: "quiet", borderColor: "line", bg: "transparent", cursor: "default" },
		_focusVisible: { outline: "3px solid {colors.ochre}", outlineOffset: "1px" },
	},
	variants: {
		variant: {
			plain: { bg: "white", border: "1px solid {colors.line}", color: "text", _hover: { borderColor: "ochre" } },
			main: { bg: "ochre", color: "white", border: "1px solid {colors.ochre}", _hover: { bg: "text" } },
			link: { color: "ochre", bg: "transparent", border: "0 solid transparent", textAlign: "left", _hover: { textDecoration: "underline" } },
		},
		size: {
			sm: { fontSize: "small", minH: "28px", px: "5" },
			text: { fontSize: "small", minH: "24px", px: 0 },
			big: { fontSize: "title", minH: "64px", px: "11" },
		},
	},
	defaultVariants: { variant: "plain", size: "sm" },
});

const config = defineConfig({
	cssVarsRoot: ":where(html)",
	globalCss: {
		"html, body": { bg: "ground", color: "text", fontFamily: "body", fontSize: "text", lineHeight: 1.4 },
	},
	theme: {
		tokens: {
			fontSizes: Object.fromEntries(Object.entries(sizes).map(([name, value]) => [name, { value }])),
			spacing: Object.fromEntries(Object.entries(spaces).map(([name, value]) => [name, { value }])),
			fontWeights: Object.fromEntries(Object.entries(weights).map(([name, value]) => [name, { value }])),
			colors: Object.fromEntries(Object.entries(colours).map(([name, value]) => [name, { value }])),
			fonts: {
				body: { value: '"Figures", "Atkinson Hyperlegible Next", sans-serif' },
				heading: { value: '"Bricolage Grotesque", sans-serif' },
			},
		},
	},
});

export const system = createSystem(defaultBaseConfig, config);
