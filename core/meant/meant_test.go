package meant_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/look"
	"ochrestone/core/meant"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// How deep rectangles go into each other, in closed form: the furthest corner from the other's edge.
func TestHowDeepRectanglesGo(t *testing.T) {
	vase := shape.Rect(0, 0, 40, 40)
	for _, c := range []struct {
		name string
		own  shape.Region
		deep float64
		way  shape.Point
	}{
		{"a stem from above, 12 mm in", shape.Rect(18, -30, 4, 42), 12, shape.Point{Y: 1}},
		{"a stem 5 mm short", shape.Rect(18, -30, 4, 25), -5, shape.Point{Y: 1}},
		{"from the right, 3 mm short", shape.Rect(43, 10, 20, 4), -3, shape.Point{X: -1}},
		{"right across: as deep as the middle", shape.Rect(18, -10, 4, 60), 20, shape.Point{}},
		{"wholly inside", shape.Rect(10, 10, 20, 20), 15, shape.Point{}},
	} {
		deep, way := meant.Into(c.own, vase)
		if c.deep < 15 {
			assert.InDelta(t, c.deep, deep, 0.25, c.name)
			assert.InDelta(t, 1, way.Dot(c.way), 0.05, c.name)
		} else {
			assert.Greater(t, deep, 9.9, c.name)
		}
	}
}

// front is a card with two sheets, a lower and an upper, that lie so far apart, and what the upper means.
func front(x float64, m ...card.Meant) build.Build {
	k := trial.Kit()
	c := card.New("Two", measure.Formats()[0], measure.FoldSide, k)
	c.Elements = []card.Element{
		{ID: "low", Face: card.Front, Place: card.Place{X: 50, Y: 50}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "oat", W: 20, H: 20}},
		{ID: "up", Face: card.Front, Place: card.Place{X: 50 + x, Y: 50}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "chalk", W: 20, H: 20}, Meant: m},
	}
	stock := look.NewStock(k)
	return build.Expand(build.Carry(c, stock, nil), stock, nil, build.With{})
}

func judged(t *testing.T, b build.Build) meant.Kept {
	t.Helper()
	all := meant.Judge(&b, func() *cover.Map { return cover.Seen(&b) })
	require.Len(t, all, 1)
	return all[0]
}

// Every purpose is kept up to its number and no further, and where moving helps, moving so far keeps it.
func TestEveryPurposeUpToItsNumber(t *testing.T) {
	for _, c := range []struct {
		name     string
		m        card.Meant
		has, not float64 // how far across the upper lies
		is       float64 // at has
	}{
		{"reach", card.Meant{Do: card.Reaches, With: "low", By: 2}, 17, 19, 3},
		{"go in", card.Meant{Do: card.GoesIn, With: "low", By: 4}, 15, 17, 5},
		{"clear", card.Meant{Do: card.KeepsOff, With: "low", By: 3}, 24, 22, 4},
		{"copy", card.Meant{Do: card.IsCopy, With: "low"}, 0.2, 0.8, 0.2},
		{"run over", card.Meant{Do: card.RunsOver, By: 2}, -43, -41, 3},
	} {
		yes, no := judged(t, front(c.has, c.m)), judged(t, front(c.not, c.m))
		assert.True(t, yes.Kept, c.name)
		assert.InDelta(t, c.is, yes.Is, 0.3, c.name)
		assert.False(t, no.Kept, c.name)
		assert.Equal(t, meant.MM, no.Unit)
		if c.m.Do != card.RunsOver {
			assert.True(t, judged(t, front(c.not+no.Way.X, c.m)).Kept, "%s, moved by %v", c.name, no.Way)
		}
	}
}

// What is to be seen is measured on the map of the front, what is to match in CIEDE2000.
func TestSeenAndMatched(t *testing.T) {
	b := front(10)
	b.Things[0].Element.Meant = []card.Meant{{Do: card.IsSeen, By: 60}}
	got := judged(t, b)
	assert.InDelta(t, 50, got.Is, 2, "half of it lies under the upper")
	assert.False(t, got.Kept)
	b.Things[0].Element.Meant[0] = card.Meant{Do: card.IsHidden}
	assert.False(t, judged(t, b).Kept)

	same := judged(t, front(30, card.Meant{Do: card.Matches, Paper: "chalk"}))
	assert.True(t, same.Kept)
	assert.InDelta(t, 0, same.Is, 0.5)
	other := judged(t, front(30, card.Meant{Do: card.Matches, With: "low"}))
	assert.False(t, other.Kept)
	assert.Greater(t, other.Is, meant.Alike)
	assert.False(t, math.IsNaN(other.Is))

	gone := judged(t, front(30, card.Meant{Do: card.Matches, Ink: "nobody's"}))
	assert.True(t, gone.Unknown && gone.Kept, "what cannot be judged draws no note")
}
