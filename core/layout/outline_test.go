package layout

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

func noParts(string, string) (shape.Region, bool) { return shape.Region{}, false }

// Closed forms of areas; every outline keeps to its box.
func TestOutlinesHaveTheirAreas(t *testing.T) {
	const w, h = 60.0, 40.0
	for _, c := range []struct {
		o    card.Outline
		area float64
	}{
		{card.Outline{Kind: card.Rectangle}, w * h},
		{card.Outline{Kind: card.Rectangle, Pitch: 6}, w*h - (4-math.Pi)*36},
		{card.Outline{Kind: card.Oval}, math.Pi * w * h / 4},
		{card.Outline{Kind: card.Arch}, w*10 + math.Pi*900/2},
		{card.Outline{Kind: card.Fishtail, Depth: 12}, w*h - 2*12*h/2},
		{card.Outline{Kind: card.Notched, Depth: 12}, w*h - 12*h/2},
		{card.Outline{Kind: card.Pointed, Depth: 12}, w*h - 12*h/2},
		{card.Outline{Kind: card.Slanted, Depth: 12}, w*h - 12*h/2},
		// Half circles of 2.5 on an inner rectangle: 11 and 7 on the sides of 55 and 35.
		{card.Outline{Kind: card.Scalloped, Pitch: 5}, 55*35 + 36*math.Pi*2.5*2.5/2},
		// Raised cosines fill half of their height.
		{card.Outline{Kind: card.Wavy, Pitch: 5, Depth: 2}, 56*36 + (2*56+2*36)*2/2},
		{card.Outline{Kind: card.Wavy, Pitch: 5, Depth: 2, Sides: []card.Side{card.RightSide}}, 58*40 + 40*2/2},
		// A fringe loses its cuts, of 0.3 mm as drawn: 19 of 24 mm.
		{card.Outline{Kind: card.Fringe, Pitch: 3, Depth: 24}, w*h - 19*24*0.3},
	} {
		g, err := Outline(&c.o, w, h, noParts)
		require.NoError(t, err, "%+v", c.o)
		assert.InEpsilon(t, c.area, g.Area(), 0.006, "%+v", c.o)
		b := g.Bounds()
		assert.InDelta(t, w, b.W(), 0.05, "%+v", c.o)
		assert.InDelta(t, h, b.H(), 0.05, "%+v", c.o)
		assert.InDelta(t, 0, b.Centre().X, 0.03)
		assert.Len(t, g.Pieces(), 1, "%+v falls apart", c.o)
	}
	tag, err := Outline(&card.Outline{Kind: card.Tag}, 40, 80, noParts)
	require.NoError(t, err)
	assert.Len(t, tag.Holes(), 1)
	_, err = Outline(&card.Outline{Kind: card.DiePart, Set: "s", Part: "p"}, 1, 1, noParts)
	assert.ErrorIs(t, err, ErrNoPart)
	for _, o := range []card.Outline{{Kind: card.Fishtail, Depth: 40}, {Kind: card.Scalloped, Pitch: 90}, {Kind: "heptagon"}} {
		_, err = Outline(&o, w, h, noParts)
		assert.Error(t, err, "%+v", o)
	}
	plain, err := Outline(nil, w, h, noParts)
	require.NoError(t, err)
	assert.InDelta(t, w*h, plain.Area(), 1e-9)
}

// A band along a line of length l is l w and a round end; half way along is half way.
func TestLinesAndBows(t *testing.T) {
	g, err := LineOf([]card.Offset{{X: 0}, {X: 30}, {X: 30, Y: 20}}, 2)
	require.NoError(t, err)
	assert.InDelta(t, 2*50+math.Pi-(1-math.Pi/4), g.Area(), 0.1)
	p, turn := Along([]card.Offset{{X: 0}, {X: 30}, {X: 30, Y: 20}}, 0.8)
	assert.InDelta(t, 30, p.X, 1e-9)
	assert.InDelta(t, 10, p.Y, 1e-9)
	assert.InDelta(t, 90, turn, 1e-9)
	knot, loops, err := Tied(card.Bow, 2)
	require.NoError(t, err)
	assert.False(t, knot.Empty())
	assert.Len(t, loops.Holes(), 2, "a loop on either side")
	assert.InDelta(t, 0, loops.Centroid().X, 0.4, "even on both sides")
	// A bow of a ribbon of 10 mm is about 60 to 80 mm across, one of a cord of 1.5 mm about 20 to
	// 30: common practice, no source.
	for w, want := range map[float64][2]float64{10: {60, 80}, 1.5: {18, 30}, 25: {120, 170}} {
		_, bow, err := Tied(card.Bow, w)
		require.NoError(t, err)
		across := bow.Bounds().W()
		assert.True(t, across >= want[0] && across <= want[1], "a bow of %g mm is %g mm across", w, across)
		assert.Len(t, bow.Holes(), 2, "%g mm", w)
	}
	_, none, err := Tied(card.Untied, 2)
	require.NoError(t, err)
	assert.True(t, none.Empty())
}

// squares is a typeface of squares one high and one apart.
type squares struct{}

func (squares) Has(r rune) bool { return r < 0x3000 }

func (squares) Line(text string, capital float64) (out []SetLetter, wide float64) {
	for _, r := range text {
		if r != ' ' {
			out = append(out, SetLetter{string(r), shape.Rect(wide, -capital, capital, capital)})
		}
		wide += 2 * capital
	}
	return out, wide
}

// Letters fill the width asked for with their gaps; on an arc each stands square to it and
// as far from its middle as the radius.
func TestLettersFillAWidthAndStandOnAnArc(t *testing.T) {
	l, err := Set(squares{}, card.Letters{Text: "moth", Size: 9, Fit: 70, Gap: 2}, nil)
	require.NoError(t, err)
	assert.InDelta(t, 70, l.W, 0.06)
	assert.InDelta(t, (70-3*2)/4.0, l.Size, 0.05, "four squares and three gaps, by hand")
	for i := 1; i < len(l.Letters); i++ {
		d, _, _ := l.Letters[i].Region.Gap(l.Letters[i-1].Region)
		assert.InDelta(t, 2, d, 1e-3)
	}
	for _, r := range []float64{40, -40} {
		got, wide := Written(squares{}, card.Words{Text: "night", Letter: 4, Bend: r})
		assert.InDelta(t, 40, wide, 1e-9)
		// The line goes through y 2 at the middle; its circle's middle lies a radius below.
		mid := shape.Point{Y: 2 + r}
		for _, g := range got {
			feet := g.Rings()[0]
			near := math.Inf(1)
			for _, p := range feet {
				near = min(near, math.Abs(p.Distance(mid)-math.Abs(r)))
			}
			assert.Less(t, near, 0.15, "its foot stands on the arc")
		}
	}
	_, err = Set(squares{}, card.Letters{Text: "感", Size: 9}, nil)
	assert.ErrorIs(t, err, ErrNoLetters)
	some, err := Set(squares{}, card.Letters{Text: "a感b", Size: 9}, nil)
	require.NoError(t, err)
	assert.Equal(t, []string{"感"}, some.Missing)
}
