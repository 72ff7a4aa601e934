package build_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// shaking builds a card with one shaker on it.
func shaking(t *testing.T, s card.Shaker) (build.Thing, []build.Piece) {
	k := trial.Kit()
	c := card.New("Shaker", measure.Formats()[0], measure.FoldSide, k)
	on, _ := c.Panel()
	s.Paper, s.Backing, s.Film = "oat", "chalk", "acetate"
	c.Elements = append(c.Elements, card.Element{ID: "k", Face: card.Front, On: on, Place: card.Place{X: c.Base.W / 2, Y: c.Base.H / 2}, Bonds: card.Glue(""), Shaker: &s})
	require.NoError(t, c.Validate())
	b := build.Expand(c, look.NewStock(k), nil, build.With{Face: trial.Blocks{}, Memory: build.NewMemory()})
	at := b.Things[len(b.Things)-1]
	require.Empty(t, at.Problem)
	return at, b.Pieces[at.From:at.To]
}

// turns counts how often a region goes round a point: the sum of the angles under which its
// edges are seen from there, by the definition of the winding number.
func turns(g shape.Region, p shape.Point) float64 {
	sum := 0.0
	for _, r := range g.Rings() {
		for i, a := range r {
			u, v := a.Sub(p), r[(i+1)%len(r)].Sub(p)
			sum += math.Atan2(u.Cross(v), u.Dot(v))
		}
	}
	return sum / (2 * math.Pi)
}

// A wall round a round window is a ring: its area in closed form, and its outer edge goes
// round every point of the window once.
func TestAWallIsClosedAllRound(t *testing.T) {
	at, ps := shaking(t, card.Shaker{W: 60, H: 60, Wall: "foam", Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 40, H: 40}}, Filling: []card.Filling{{Name: "Beads", High: 1, Colour: "#aa0000", N: 9}}})
	s := at.Shaking
	assert.Zero(t, s.Lacks)
	assert.InDelta(t, math.Pi*(26*26-21*21), s.Wall.Area(), 4, "a millimetre back from the window, five wide")
	assert.InDelta(t, 2*math.Pi*23.5, s.Long, 1, "the strip is as long as the ring's middle line")
	outer := s.Wall.Filled()
	for a := 0.0; a < 360; a += 15 {
		p := shape.Polar(19.5, a)
		assert.InDelta(t, 1, math.Abs(turns(outer, p)), 1e-6)
		assert.InDelta(t, 0, turns(s.Wall, p), 1e-6, "and its inner edge once the other way")
		assert.True(t, s.Chambers.Contains(p))
	}
	// Backing, wall, film, front: as high as they stand on each other.
	require.Len(t, ps, 4)
	assert.Equal(t, []string{build.BackPart, build.WallPart, build.FilmPart, build.FrontPart}, []string{ps[0].ID.Part, ps[1].ID.Part, ps[2].ID.Part, ps[3].ID.Part})
	foam, _ := trial.Kit().Spacer("foam")
	assert.InDelta(t, foam.Thickness, ps[1].Thick, 1e-9)
	assert.True(t, ps[2].Clear)
	for _, f := range ps[0].Films {
		assert.True(t, s.Chambers.Contains(f.Region.Centroid()), "nothing lies outside its chamber")
	}
}

// Where the front has no room for it, the wall is not closed, and says by how much.
func TestAWallWithoutRoomIsNotClosed(t *testing.T) {
	at, _ := shaking(t, card.Shaker{W: 44, H: 60, Wall: "foam", Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 40, H: 40}}})
	assert.Positive(t, at.Shaking.Lacks)
	narrow, _ := shaking(t, card.Shaker{W: 49, H: 60, Wall: "foam", Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 40, H: 40}}})
	assert.Zero(t, narrow.Shaking.Lacks, "where there is less room it is made narrower")
	assert.Less(t, narrow.Shaking.Wall.Area(), math.Pi*(26*26-21*21))
}

// Letters with islands: every island has a wall of its own, and the chamber goes round it.
func TestIslandsHaveAWallOfTheirOwn(t *testing.T) {
	at, _ := shaking(t, card.Shaker{W: 60, H: 40, Wall: "foam", Openings: []card.Opening{{Text: "OD", H: 16}}})
	require.NotEmpty(t, at.Shaking.Islands)
	for _, i := range at.Shaking.Islands {
		c := i.Centroid()
		assert.True(t, at.Shaking.Wall.Contains(c))
		assert.False(t, at.Shaking.Chambers.Contains(c))
	}
}

// A bar for each 40 mm: a window of 100 takes two and is parted in three, of equal height.
func TestBafflesPartATallWindow(t *testing.T) {
	assert.Equal(t, []int{0, 0, 1, 1, 2}, []int{build.TallWindow(20), build.TallWindow(40), build.TallWindow(41), build.TallWindow(80), build.TallWindow(100)})
	at, _ := shaking(t, card.Shaker{W: 40, H: 120, Wall: "foam", Baffles: true, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 20, H: 98}}})
	assert.Equal(t, 2, at.Shaking.Baffles)
	parts := at.Shaking.Chambers.Pieces()
	require.Len(t, parts, 3)
	for _, p := range parts {
		assert.InDelta(t, 100/3.0, p.Bounds().H(), 4)
	}
}

// What cannot be made says so, and is no shaker.
func TestShakersThatCannotBe(t *testing.T) {
	k := trial.Kit()
	k.Spacers = append(k.Spacers, kit.Spacer{ID: "flat", Name: "Flat", Kind: "tape"})
	c := card.New("Shaker", measure.Formats()[0], measure.FoldSide, k)
	c.Elements = append(c.Elements, card.Element{ID: "k", Face: card.Front, Shaker: &card.Shaker{W: 40, H: 40, Wall: "flat", Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 20, H: 20}}}})
	b := build.Expand(c, look.NewStock(k), nil, build.With{Face: trial.Blocks{}, Memory: build.NewMemory()})
	assert.Contains(t, b.Things[len(b.Things)-1].Problem, "spacer with a thickness")
	for want, s := range map[string]card.Shaker{
		"shaker.openings":        {W: 40, H: 40},
		"shaker.level":           {W: 40, H: 40, Level: 9, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 20, H: 20}}},
		"shaker.filling[0].high": {W: 40, H: 40, Openings: []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 20, H: 20}}, Filling: []card.Filling{{High: -1, N: 1}}},
	} {
		c.Elements[len(c.Elements)-1].Shaker = &s
		assert.ErrorContains(t, c.Validate(), want)
	}
}
