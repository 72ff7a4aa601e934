package plan_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/foresee"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// again is the trial card of parts that are used again, changed.
func againWith(t *testing.T, change func(c *card.Card)) build.Build {
	t.Helper()
	c := trial.Again()
	if change != nil {
		change(&c)
	}
	return plan.NewPlanner().Build(c, trial.Kit(), plan.Typeface(trial.Blocks{}))
}

func thingOf(t *testing.T, b build.Build, id string) build.Thing {
	t.Helper()
	for _, x := range b.Things {
		if x.Element.ID == id {
			return x
		}
	}
	require.Fail(t, "no such thing", id)
	return build.Thing{}
}

func element(c *card.Card, id string) *card.Element {
	for i := range c.Elements {
		if c.Elements[i].ID == id {
			return &c.Elements[i]
		}
	}
	return nil
}

// A glow is fullest at the image's edge, gone at its reach, and goes where the image goes.
func TestAGlowFollowsItsImage(t *testing.T) {
	chalk := look.NewStock(trial.Kit()).PaperColour("chalk")
	for _, dx := range []float64{0, 30} {
		b := againWith(t, func(c *card.Card) {
			element(c, "left-looking").Place.X += dx
			element(c, "ground").Sheet.Treatments = element(c, "ground").Sheet.Treatments[:1]
		})
		ground, img := thingOf(t, b, "ground"), thingOf(t, b, "left-looking")
		box := img.Outline.Bounds()
		at := func(past float64) float64 {
			// Right of the image, on the sheet.
			g := shape.Disc(shape.Point{X: box.Max.X + past - ground.At.X, Y: box.Centre().Y - ground.At.Y}, 0.3)
			c, _ := build.MeanOf(ground.Patches, g)
			return colour.Difference(c.Lab(), chalk.Lab())
		}
		near, far := at(1), at(6)
		assert.Greater(t, near, far+1, "dx %g", dx)
		assert.Less(t, at(9.6+2), 0.5, "it has gone")
	}
	gone := againWith(t, func(c *card.Card) { element(c, "ground").Sheet.Treatments[0].Fade.Round = "nobody" })
	assert.NotEmpty(t, thingOf(t, gone, "ground").Treated[0].Problem)
	assert.Empty(t, thingOf(t, gone, "ground").Treated[1].Problem, "the rest is still planned")
}

// The bands of a sheet run on through a word cut out of it: of a letter that is a block 7
// wide, what of every band it lies over is as wide.
func TestBandsRunOnThroughAWord(t *testing.T) {
	b := againWith(t, func(c *card.Card) {
		l := element(c, "word").Letters
		l.Text, l.Size = "ill", 14 // blocks 7 by 14
		element(c, "bands").Sheet.Treatments[0].Bands.Start = 5
	})
	w := thingOf(t, b, "word")
	require.Empty(t, w.Problem)
	require.Len(t, w.Drawn, 3)
	// The sheet is 30 high, its middle at 15: the word lies from 8 to 22, the bands from 5 to
	// 13, 13 to 21 and 21 to 29.
	for _, p := range w.Drawn {
		require.Len(t, p.Films, 3)
		for n, high := range []float64{5, 8, 1} {
			assert.InDelta(t, 7*high, p.Films[n].Region.Area(), 0.1, "band %d", n+1)
		}
		assert.Equal(t, "oat", p.Stock, "its card is the sheet's")
	}
	off := againWith(t, func(c *card.Card) { element(c, "word").Letters.From.X = 40 })
	assert.NotEmpty(t, thingOf(t, off, "word").Problem, "it sticks out")
	gone := againWith(t, func(c *card.Card) { element(c, "word").Letters.From.Sheet = "nobody" })
	assert.NotEmpty(t, thingOf(t, gone, "word").Problem)
	assert.NotEmpty(t, thingOf(t, gone, "word").Drawn, "still drawn, on plain card")
}

// A stencil laid over prints names the openings with no print beneath, and leaves ink on
// the prints themselves; taped ones take none.
func TestAStencilOverPrints(t *testing.T) {
	far := func(taped bool) build.Build {
		return againWith(t, func(c *card.Card) {
			s := element(c, "ground").Sheet.Treatments[1].Stencil
			s.Shifts = []card.Shifted{{X: 45, Y: 0}}
			s.Taped = taped
		})
	}
	b := far(false)
	d := thingOf(t, b, "ground").Treated[1]
	assert.Equal(t, 2, d.Openings)
	require.Len(t, d.Misses, 1)
	assert.InDelta(t, 25, d.Misses[0].Bounds().Centre().X, 0.5, "the one that was shifted")
	over := thingOf(t, b, "left-looking")
	last := over.Drawn[len(over.Drawn)-1]
	assert.Equal(t, build.StencilledPart, last.ID.Part)
	area := 0.0
	for _, f := range last.Films {
		area += f.Region.Area()
	}
	both, err := over.Outline.Intersect(thingOf(t, b, "ground").Place(d.Regions[0]))
	require.NoError(t, err)
	assert.InEpsilon(t, both.Area(), area, 0.01, "all of the print that lies in the opening")
	taped := thingOf(t, far(true), "ground").Treated[1]
	assert.Empty(t, taped.Misses)
	assert.Equal(t, 1, taped.Taped)
	assert.InDelta(t, d.Regions[0].Area()-d.Misses[0].Area(), taped.Regions[0].Area(), 0.1)
}

// One stencil over the prints of two sheets in two inks is one note, with a table of image by ink, and
// one mend for both; the steps say how often it is wiped.
func TestOneStencilIsOneNote(t *testing.T) {
	c := trial.Again()
	s := element(&c, "ground").Sheet.Treatments[1].Stencil
	s.Shifts = []card.Shifted{{X: 45, Y: 0}}
	second := *element(&c, "ground")
	again := *s
	again.Ink = "ember-pale"
	second.ID, second.Name = "tag", "Tag"
	second.Place.Y -= 60
	second.Sheet = &card.Sheet{Paper: "chalk", W: 92, H: 46, Treatments: []card.Treatment{{Stencil: &again}}}
	over := *element(&c, "left-looking")
	over.ID, over.On = "over-tag", "tag"
	over.Place.Y -= 60
	c.Elements = append(c.Elements, second, over)
	p := warm.Of(c, trial.Kit())
	var found []foresee.Finding
	for _, f := range p.Findings {
		if f.Rule == "openings" {
			found = append(found, f)
		}
	}
	require.Len(t, found, 1)
	assert.Equal(t, 2.0, found[0].Numbers["openings"])
	assert.Contains(t, found[0].Why, "; ")
	require.NotNil(t, found[0].Mend)
	out, err := c.Apply(trial.Kit(), found[0].Mend.Edits...)
	require.NoError(t, err)
	for _, f := range warm.Of(out, trial.Kit()).Findings {
		assert.NotEqual(t, "openings", f.Rule)
	}
	said := 0
	for _, a := range p.Steps {
		if strings.Contains(a.Detail, "It is inked 2 times: ") {
			said++
			assert.Contains(t, a.Detail, "wiped ")
		}
	}
	assert.Equal(t, 1, said, "at the first of them")
	// One ink on one image needs no table.
	for _, a := range warm.Of(trial.Again(), trial.Kit()).Steps {
		assert.NotContains(t, a.Detail, "It is inked")
	}
}

// Which side a zone looks to, by hand for quarter turns and mirrors.
func TestSidesAsLaid(t *testing.T) {
	for _, c := range []struct {
		at   card.Place
		z    card.Zone
		want card.Side
	}{
		{card.Place{}, card.Left, card.LeftSide},
		{card.Place{Mirror: true}, card.Left, card.RightSide},
		{card.Place{Turn: 90}, card.Left, card.TopSide}, // clockwise: left goes up
		{card.Place{Turn: -90}, card.Left, card.BottomSide},
		{card.Place{Turn: 180}, card.Right, card.LeftSide},
		{card.Place{Mirror: true, Turn: 90}, card.Left, card.BottomSide},
		{card.Place{Turn: 90}, card.Tip, card.RightSide},
		{card.Place{Turn: 45}, card.Left, ""},
		{card.Place{}, card.Rim, ""},
	} {
		assert.Equal(t, c.want, build.SideOf(c.at, c.z), "%+v %s", c.at, c.z)
	}
}

// A mask covers all of a piece but its region, and more on that side, and nothing of the
// region.
func TestTheMaskOfASecondColour(t *testing.T) {
	b := againWith(t, nil)
	masks, err := b.Masks(0.4)
	require.NoError(t, err)
	found := false
	for _, m := range masks {
		if m.Element != "" {
			continue
		}
		found = true
		ground := shape.Disc(shape.Point{X: 20, Y: 20}, 20)
		left, err := ground.Minus(m.Region)
		require.NoError(t, err)
		assert.InEpsilon(t, math.Pi*200, left.Area(), 0.01, "half of the disc is open")
		assert.Greater(t, left.Bounds().Min.Y, 19.9, "the lower half")
		assert.Greater(t, m.Region.Area(), math.Pi*200+100, "past the edge on its own side")
	}
	assert.True(t, found)
}
