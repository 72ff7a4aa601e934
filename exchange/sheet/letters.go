package sheet

import (
	"slices"
	"strings"
	"unicode"

	"github.com/tdewolff/canvas"
)

// Has reports whether the shipped typefaces can draw a letter. Blanks are drawn by
// leaving room.
func Has(r rune) bool {
	if unicode.IsSpace(r) {
		return true
	}
	f, err := loadFonts()
	return err == nil && has(f.text, r) && has(f.head, r)
}

func has(f *canvas.FontFamily, r rune) bool {
	return f.Face(10, inkText).Font.GlyphIndex(r) != 0
}

// Missing lists the letters of a text that the typefaces lack, each once, in the
// order they come.
func Missing(text string) []string {
	var out []string
	for _, r := range text {
		if !Has(r) && !slices.Contains(out, string(r)) {
			out = append(out, string(r))
		}
	}
	return out
}

// drawable is a text without the letters the typefaces lack: they would come out as
// boxes.
func drawable(text string) string {
	return strings.Map(func(r rune) rune {
		if Has(r) {
			return r
		}
		return -1
	}, text)
}

// Width is how wide a line of words comes out with capitals of a height, mm; 0 where
// nothing of it can be drawn.
func Width(text string, letter float64) float64 {
	f, err := loadFonts()
	if err != nil {
		return 0
	}
	_, w, err := lettering(f.text, letter, text)
	if err != nil {
		return 0
	}
	return w
}
