package layout

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/shape"
)

// Setting is how the letters of a word are set, lengths in mm.
type Setting struct {
	Gap    float64 // between neighbours, at their nearest
	Space  float64 // of a space between words
	Bounce float64 // letters dance off the line by up to so much, up and down in turn
}

// SetLetter is a letter in its place.
type SetLetter struct {
	Letter string
	Region shape.Region // mm, the line at y 0, y down
}

// Line is a text set from letter dies.
type Line struct {
	Letters []SetLetter
	W       float64
	Size    float64  // height of a capital they were set with, mm; 0 for dies
	Missing []string // letters there is no die for
	Passes  int      // through the machine, with one die of each letter
	Most    []string // the letters that decide the passes, in the order they come; none when no letter comes twice
}

// ErrNoLetters is returned when a text has nothing to set.
var ErrNoLetters = errors.New("no letters to set")

// SetLine sets a text from letter dies. Every letter is pushed up to the one
// before until the gap between their outlines is the one wanted, at whatever
// height that is: so that A and V stand as near as H and I. With one die of each
// letter a text needs as many passes as its most frequent letter has copies
// (common practice, no source).
func SetLine(text string, letter func(rune) (shape.Region, bool), s Setting) (Line, error) {
	var out Line
	x, n, space := 0.0, 0, false
	var last shape.Region
	count := map[string]int{}
	missing := map[string]bool{}
	for _, r := range text {
		if r == ' ' {
			space = true
			continue
		}
		name := string(r)
		g, ok := letter(r)
		if !ok || g.Empty() {
			if !missing[name] {
				out.Missing = append(out.Missing, name)
			}
			missing[name] = true
			continue
		}
		b := g.Bounds()
		// Far to the right, then back to the one before.
		at := x + b.W() + 50
		move := shape.Point{X: at - b.Min.X, Y: s.Bounce / 2 * float64(1-2*(n%2))}
		g = g.Move(move)
		back := at - x - s.Gap
		if !last.Empty() {
			if t := g.Travel(last, 180); !math.IsInf(t, 1) {
				back = math.Min(t, at-last.Bounds().Min.X)
			} else {
				back = at - x // they pass above one another: box to box
			}
			back -= s.Gap
			// Sideways they may stand nearer than corner to corner: draw apart until the
			// nearest points keep the gap.
			for range 4 {
				d, _, _ := g.Move(shape.Point{X: -back}).Gap(last)
				if d >= s.Gap-1e-6 {
					break
				}
				back -= s.Gap - d
			}
			if space {
				back -= s.Space
			}
		}
		g = g.Move(shape.Point{X: -back})
		out.Letters = append(out.Letters, SetLetter{name, g})
		last, space = g, false
		x = math.Max(x, g.Bounds().Max.X)
		n++
		count[name]++
		out.Passes = max(out.Passes, count[name])
	}
	if n == 0 {
		return out, fmt.Errorf("set %q: %w", text, ErrNoLetters)
	}
	for _, l := range out.Letters {
		if out.Passes > 1 && count[l.Letter] == out.Passes && !slices.Contains(out.Most, l.Letter) {
			out.Most = append(out.Most, l.Letter)
		}
	}
	left := out.Letters[0].Region.Bounds().Min.X
	for i := range out.Letters {
		out.Letters[i].Region = out.Letters[i].Region.Move(shape.Point{X: -left})
	}
	out.W = x - left
	return out, nil
}
