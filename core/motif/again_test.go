package motif

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

func outlined(t *testing.T, g shape.Region, l card.Layer) (shape.Region, string) {
	t.Helper()
	l.Part = "a"
	p := kit.Part{ID: "a", Outline: g}
	out, problem, err := OutlineOf(l, p, kit.Set{Parts: []kit.Part{p, {ID: "eye", Outline: shape.Disc(shape.Point{X: 20, Y: 10}, 4)}}})
	require.NoError(t, err)
	return out, problem
}

// A back traced round a convex piece is larger by its edge times the distance and a disc
// of that radius (Steiner's formula); one traced inside a rectangle is smaller by so much
// on each side.
func TestABackIsTracedLargerOrSmaller(t *testing.T) {
	box := shape.Rect(0, 0, 40, 20)
	g, problem := outlined(t, box, card.Layer{Traced: 2})
	assert.Empty(t, problem)
	assert.InEpsilon(t, 40*20+120*2+math.Pi*4, g.Area(), 1e-3)
	g, problem = outlined(t, box, card.Layer{Traced: -3})
	assert.Empty(t, problem)
	assert.InEpsilon(t, 34*14, g.Area(), 1e-3)
	g, problem = outlined(t, box, card.Layer{Traced: -11})
	assert.NotEmpty(t, problem, "nothing would be left of it")
	assert.InDelta(t, 800, g.Area(), 1e-6, "then it is the whole part")
}

// The two sides of any line make up the piece, and a point is in the one to the right of
// it by the sign of a cross product.
func TestALinePartsAPieceInTwo(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 9))
	disc := shape.Disc(shape.Point{X: 20, Y: 10}, 10)
	parted := 0
	for range 60 {
		at := func() card.Offset { return card.Offset{X: 10 + 20*r.Float64(), Y: 20 * r.Float64()} }
		line := []card.Offset{at(), at()}
		region := card.Region{By: card.Masked, Line: line}
		right, problem := outlined(t, disc, card.Layer{Region: &region})
		if problem != "" {
			continue
		}
		parted++
		region.Other = true
		left, _ := outlined(t, disc, card.Layer{Region: &region})
		assert.InEpsilon(t, disc.Area(), right.Area()+left.Area(), 1e-3)
		a, b := shape.Point(line[0]), shape.Point(line[1])
		for range 40 {
			p := shape.Polar(9.5*r.Float64(), 360*r.Float64()).Add(shape.Point{X: 20, Y: 10})
			// y points down: to the right of a line is where the cross product is above 0.
			side := b.Sub(a).Cross(p.Sub(a))
			if math.Abs(side)/b.Sub(a).Len() < 0.05 {
				continue
			}
			assert.Equal(t, side > 0, right.Contains(p))
			assert.Equal(t, side < 0, left.Contains(p))
		}
	}
	assert.Greater(t, parted, 40)
}

// A bent line parts along its bends, whichever way its ends run; a line beside the piece
// parts nothing.
func TestABentLineParts(t *testing.T) {
	box := shape.Rect(0, 0, 40, 20)
	cases := []struct {
		name string
		line []card.Offset
		want float64
	}{
		{"a step, rightwards: below it", []card.Offset{{X: 0, Y: 5}, {X: 20, Y: 5}, {X: 20, Y: 15}, {X: 40, Y: 15}}, 20*15 + 20*5},
		{"a step, leftwards: above it", []card.Offset{{X: 40, Y: 15}, {X: 20, Y: 15}, {X: 20, Y: 5}, {X: 0, Y: 5}}, 20*5 + 20*15},
		{"a notch open to the top, walked with it on the left", []card.Offset{{X: 10, Y: 0}, {X: 10, Y: 12}, {X: 30, Y: 12}, {X: 30, Y: 0}}, 800 - 20*12},
		{"the same notch, walked the other way", []card.Offset{{X: 30, Y: 0}, {X: 30, Y: 12}, {X: 10, Y: 12}, {X: 10, Y: 0}}, 20 * 12},
	}
	for _, c := range cases {
		g, problem := outlined(t, box, card.Layer{Region: &card.Region{By: card.Masked, Line: c.line}})
		assert.Empty(t, problem, c.name)
		assert.InDelta(t, c.want, g.Area(), 0.1, c.name)
	}
	for _, line := range [][]card.Offset{{{X: 0, Y: 30}, {X: 40, Y: 30}}, {{X: 5, Y: 5}, {X: 5, Y: 5}}} {
		g, problem := outlined(t, box, card.Layer{Region: &card.Region{By: card.Masked, Line: line}})
		assert.NotEmpty(t, problem)
		assert.InDelta(t, 800, g.Area(), 1e-6)
	}
	g, _ := outlined(t, box, card.Layer{Region: &card.Region{By: card.Masked, Part: "eye"}})
	assert.InEpsilon(t, math.Pi*16, g.Area(), 1e-3, "within another part")
	_, problem := outlined(t, box, card.Layer{Region: &card.Region{By: card.Masked, Part: "gone"}})
	assert.NotEmpty(t, problem)
}

// A copy put on offset with its trimming at the other end is as much card as before, and
// of a strip it is the very same strip.
func TestACopyIsPutOnOffset(t *testing.T) {
	box := shape.Rect(3, 4, 60, 12)
	g, problem := outlined(t, box, card.Layer{Shifted: 9})
	assert.Empty(t, problem)
	off, err := g.Minus(box)
	require.NoError(t, err)
	assert.Less(t, off.Area(), 0.05)
	assert.InDelta(t, box.Area(), g.Area(), 0.05)
	// A triangle pointing right, moved right by 10 of 40: the tip, 10 long and 5 high there,
	// is trimmed and stands before its foot.
	tri := shape.Raw(shape.Ring{{X: 0, Y: 0}, {X: 40, Y: 10}, {X: 0, Y: 20}})
	g, _ = outlined(t, tri, card.Layer{Shifted: 10})
	assert.InDelta(t, tri.Area(), g.Area(), 0.05)
	b := g.Bounds()
	assert.InDelta(t, 0, b.Min.X, 0.01)
	assert.InDelta(t, 40, b.Max.X, 0.01)
	assert.True(t, g.Contains(shape.Point{X: 5, Y: 10}), "the trimming")
	assert.False(t, g.Contains(shape.Point{X: 9.9, Y: 2}), "beside it")
	_, problem = outlined(t, box, card.Layer{Shifted: -60})
	assert.NotEmpty(t, problem, "past its own end")
}

// A swapped region is let into its piece: nothing overlaps, nothing is left open, and both
// lie on the same thing.
func TestASwappedRegionIsLetIn(t *testing.T) {
	layers, set := stack(shape.Rect(-10, -10, 60, 60), shape.Disc(shape.Point{X: 20, Y: 20}, 15))
	layers = append(layers, card.Layer{ID: "c", Part: "b", Make: card.Cut, Region: &card.Region{By: card.Swapped, Line: []card.Offset{{X: 0, Y: 18}, {X: 40, Y: 18}}}})
	img, err := Analyse(layers, set)
	require.NoError(t, err)
	rest, region := img.Views[1], img.Views[2]
	assert.InEpsilon(t, math.Pi*225, rest.Area+region.Area, 1e-3)
	both, err := rest.Outline.Intersect(region.Outline)
	require.NoError(t, err)
	assert.Less(t, both.Area(), 0.01)
	assert.Equal(t, 0, rest.Host)
	assert.Equal(t, 0, region.Host)
	assert.Equal(t, []int{2}, img.Parted(1))
	// Cut twice it lies over its piece instead.
	layers[2].Region.By, layers[2].On = card.CutTwice, "b"
	img, err = Analyse(layers, set)
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi*225, img.Views[1].Area, 1e-3)
	assert.Equal(t, 1, img.Views[2].Host)
}

// A line whose ends meet holds what lies within it, whichever way it runs; its other side is the rest.
func TestAClosedLineHoldsARegion(t *testing.T) {
	disc := shape.Disc(shape.Point{X: 20, Y: 10}, 10)
	line := []card.Offset{{X: 16, Y: 6}, {X: 24, Y: 6}, {X: 24, Y: 14}, {X: 16, Y: 14}, {X: 16, Y: 6.4}}
	for range 2 {
		region := card.Region{By: card.CutTwice, Line: line}
		in, problem := outlined(t, disc, card.Layer{Region: &region})
		require.Empty(t, problem)
		assert.InDelta(t, 64, in.Area(), 2)
		region.Other = true
		rest, _ := outlined(t, disc, card.Layer{Region: &region})
		assert.InDelta(t, disc.Area(), in.Area()+rest.Area(), 0.1)
		line[0], line[4] = line[4], line[0]
		line[1], line[3] = line[3], line[1]
	}
}
