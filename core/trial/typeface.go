package trial

import (
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// Blocks is a typeface whose letters are blocks of one width, with an O that has a loose
// middle; it has no Han.
type Blocks struct{}

// Has reports whether it can draw a letter.
func (Blocks) Has(r rune) bool { return r < 0x3000 }

// Line sets a text in blocks 0.7 of their height apart.
func (b Blocks) Line(text string, capital float64) (out []layout.SetLetter, wide float64) {
	for _, r := range text {
		if !b.Has(r) {
			continue
		}
		g := shape.Rect(wide+0.1*capital, -capital, 0.5*capital, capital)
		if r == 'o' || r == 'O' {
			if ring, err := g.Minus(shape.Rect(wide+0.25*capital, -0.7*capital, 0.2*capital, 0.4*capital)); err == nil {
				g = ring
			}
		}
		if r != ' ' {
			out = append(out, layout.SetLetter{Letter: string(r), Region: g})
		}
		wide += 0.7 * capital
	}
	return out, wide
}
