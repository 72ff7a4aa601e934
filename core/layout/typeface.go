package layout

import (
	"fmt"
	"math"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Typeface draws letters.
type Typeface interface {
	// Has reports whether it can draw a letter.
	Has(rune) bool
	// Line sets a text in one line with its kerning, capitals so high in mm: the letters
	// with their line at y 0, y down, from x 0, and how wide it comes out, mm. What it cannot
	// draw is left out; blanks are no letters.
	Line(text string, capital float64) ([]SetLetter, float64)
}

// Written are words as they come to lie on a sheet: their letters about the middle of it,
// and how wide they are before they are bent, mm.
func Written(f Typeface, w card.Words) ([]shape.Region, float64) {
	if f == nil || strings.TrimSpace(w.Text) == "" {
		return nil, 0
	}
	line, wide := f.Line(w.Text, w.Letter)
	out := make([]shape.Region, len(line))
	for i, l := range line {
		g := bend(l.Region.Move(shape.Point{X: -wide / 2}), w.Bend)
		out[i] = g.Move(shape.Point{X: w.X, Y: w.Y + w.Letter/2}).Turn(w.Turn, shape.Point{X: w.X, Y: w.Y})
	}
	return out, wide
}

// bend sets a letter whose line is y 0 on an arc through the origin: on top of it for a
// radius above 0, hanging in it for one below. Every letter is turned as a whole, as a
// stamp or a die would be.
func bend(g shape.Region, radius float64) shape.Region {
	if radius == 0 || g.Empty() {
		return g
	}
	mid := g.Bounds().Centre().X
	turn := mid / radius
	s, c := math.Sincos(turn)
	return g.Move(shape.Point{X: -mid}).Turn(turn*180/math.Pi, shape.Point{}).Move(shape.Point{X: radius * s, Y: radius * (1 - c)})
}

// fitRounds is how often letters are set anew to fill a width: after three the rest is
// under a tenth of a millimetre.
const fitRounds = 4

// Set sets the words of letters cut from card about the origin, their middle line at y 0:
// from dies, found by dies, or from a typeface. It returns ErrNoLetters when there is
// nothing to set.
func Set(f Typeface, l card.Letters, die func(rune) (shape.Region, bool)) (Line, error) {
	size := l.Size
	set := func() (Line, error) {
		letter := die
		if l.Set == "" {
			letter = func(r rune) (shape.Region, bool) {
				if f == nil || !f.Has(r) {
					return shape.Region{}, false
				}
				line, _ := f.Line(string(r), size)
				if len(line) == 0 {
					return shape.Region{}, false
				}
				return line[0].Region, true
			}
		}
		space := l.Space
		if space == 0 {
			space = size / 3
		}
		return SetLine(l.Text, letter, Setting{Gap: l.Gap, Space: space, Bounce: l.Bounce})
	}
	out, err := set()
	for range fitRounds {
		if err != nil || l.Set != "" || l.Fit <= 0 || math.Abs(out.W-l.Fit) < 0.05 {
			break
		}
		gaps := l.Gap * float64(len(out.Letters)-1)
		if l.Fit <= gaps || out.W <= gaps {
			break
		}
		size *= (l.Fit - gaps) / (out.W - gaps)
		out, err = set()
	}
	if err != nil {
		return out, fmt.Errorf("cut the letters of %q: %w", l.Text, err)
	}
	box := out.Letters[0].Region.Bounds()
	for i := range out.Letters {
		g := bend(out.Letters[i].Region.Move(shape.Point{X: -out.W / 2}), l.Bend)
		out.Letters[i].Region = g
		b := g.Bounds()
		if i == 0 {
			box = b
		}
		box.Min.X, box.Min.Y = min(box.Min.X, b.Min.X), min(box.Min.Y, b.Min.Y)
		box.Max.X, box.Max.Y = max(box.Max.X, b.Max.X), max(box.Max.Y, b.Max.Y)
	}
	mid := box.Centre()
	for i := range out.Letters {
		out.Letters[i].Region = out.Letters[i].Region.Move(shape.Point{X: -mid.X, Y: -mid.Y})
	}
	out.Size = size
	return out, nil
}
