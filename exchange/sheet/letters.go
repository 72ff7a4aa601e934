package sheet

import (
	"fmt"
	"slices"
	"strings"
	"unicode"

	"github.com/tdewolff/canvas"

	"ochrestone/core/layout"
	"ochrestone/core/memory"
	"ochrestone/core/shape"
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

// Face is the typeface that words on cards are drawn with.
type Face struct{}

// Has reports whether it can draw a letter.
func (Face) Has(r rune) bool { return Has(r) }

// lineKey is a line of text at a size.
type lineKey struct {
	text    string
	capital float64
}

// line is one as it was set.
type line struct {
	letters []layout.SetLetter
	wide    float64
}

// mostLines is how many lines and letters are remembered.
const mostLines = 2000

var lines = memory.New[lineKey, line](mostLines)

// Line sets a text in one line with its kerning, capitals so high in mm. What the typeface
// lacks is left out; an empty line has no letters and no width.
func (Face) Line(text string, capital float64) ([]layout.SetLetter, float64) {
	l, err := lines.Get(lineKey{text, capital}, func() (line, error) { return setLine(text, capital) })
	if err != nil {
		return nil, 0
	}
	return slices.Clone(l.letters), l.wide
}

func setLine(text string, capital float64) (line, error) {
	f, err := loadFonts()
	if err != nil {
		return line{}, err
	}
	text = drawable(text)
	face := f.text.Face(100*ptPerMM, inkText)
	high := face.Metrics().CapHeight
	if high <= 0 {
		high = 70
	}
	k := capital / high
	out := line{wide: k * face.TextWidth(text)}
	so := ""
	for _, r := range text {
		so += string(r)
		if unicode.IsSpace(r) {
			continue
		}
		path, wide, err := face.ToPath(string(r))
		if err != nil {
			return out, fmt.Errorf("draw the letter %q: %w", r, err)
		}
		// A letter ends where the line up to it ends, so that kerning has moved it.
		x := k * (face.TextWidth(so) - wide)
		g := shape.FromPath(path.Scale(k, -k), true)
		out.letters = append(out.letters, layout.SetLetter{Letter: string(r), Region: g.Move(shape.Point{X: x})})
	}
	return out, nil
}
