import { createSystem, defaultBaseConfig, defineConfig, defineRecipe } from "@chakra-ui/react";

export const button = defineRecipe({
	base: {
		display: "inline-flex",
		alignItems: "center",
		justifyContent: "center",
		gap: "1.5",
		fontWeight: 700,
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
			main: { bg: "ochre", color: "white", border: "1px solid {colors.ochre}", _hover: { bg: "#8a4f00" } },
			link: { color: "ochre", bg: "transparent", border: "0 solid transparent", textAlign: "left", _hover: { textDecoration: "underline" } },
		},
		size: {
			sm: { fontSize: "13px", minH: "28px", px: "10px" },
			text: { fontSize: "13px", minH: "24px", px: 0 },
			big: { fontSize: "20px", minH: "64px", px: "28px" },
		},
	},
	defaultVariants: { variant: "plain", size: "sm" },
});

const config = defineConfig({
	cssVarsRoot: ":where(html)",
	globalCss: {
		"html, body": { bg: "ground", color: "text", fontFamily: "body", fontSize: "14px", lineHeight: 1.4 },
	},
	theme: {
		tokens: {
			colors: {
				ground: { value: "#d9dad8" },
				sheet: { value: "#f3f3f1" },
				bench: { value: "#a9aaa9" },
				line: { value: "#bfc2c1" },
				text: { value: "#1d2327" },
				quiet: { value: "#4f5962" },
				ochre: { value: "#824a00" },
				fill: { value: "#e0a040" },
				lichen: { value: "#4d6b3b" },
				madder: { value: "#9a2f2b" },
			},
			fonts: {
				body: { value: '"Figures", "Atkinson Hyperlegible Next", sans-serif' },
				heading: { value: '"Bricolage Grotesque", sans-serif' },
			},
		},
	},
});

export const system = createSystem(defaultBaseConfig, config);
