package build_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/look"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// treated is a sheet of 60 by 40 mm of chalk with what is done to it.
func treated(t *testing.T, change func(s *card.Sheet), ts ...card.Treatment) build.Thing {
	s := &card.Sheet{Paper: "chalk", W: 60, H: 40, Treatments: ts}
	if change != nil {
		change(s)
	}
	c := card.Card{Base: card.Base{W: 100, H: 100}, Elements: []card.Element{{ID: "s", Name: "Sheet", Face: card.Front, Place: card.Place{X: 50, Y: 50}, Sheet: s}}}
	b := build.Expand(c, look.NewStock(trial.Kit()), nil, build.With{Face: trial.Blocks{}})
	for _, d := range b.Things[0].Treated {
		require.Empty(t, d.Problem)
	}
	return b.Things[0]
}

func dried(t *testing.T, ink string, n int) colour.Linear {
	s := look.NewStock(trial.Kit())
	d, ok := s.Dried(card.Finish{Ink: ink, Impressions: n}, s.PaperColour("chalk"), "chalk")
	require.True(t, ok)
	return d.Dry
}

// seen is the colour at a point of a sheet.
func seen(th build.Thing, x, y float64) colour.Linear {
	c, _ := build.MeanOf(th.Patches, shape.Rect(x-0.05, y-0.05, 0.1, 0.1))
	return c
}

func near(t *testing.T, want, got colour.Linear, by float64, what string) {
	t.Helper()
	assert.LessOrEqual(t, colour.Difference(want.Lab(), got.Lab()), by, what)
}

// Where ink lies alone on bare card it has the colour that it dries to there; where it does
// not lie the card is bare; the films end where the sheet ends.
func TestInkOnASheetDriesAsItDoes(t *testing.T) {
	chalk := look.NewStock(trial.Kit()).PaperColour("chalk")
	th := treated(t, func(s *card.Sheet) {
		s.Openings = []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 10, H: 10, X: 20}}
	}, card.Treatment{Bands: &card.Bands{Start: 5, Gap: 3, Bands: []card.Band{{Ink: "madder-full", W: 10}, {Ink: "mere-soft", W: 8}}}})
	near(t, dried(t, "madder-full", 1), seen(th, -20, -10), 0.3, "in the first band: 5 to 15 from the top")
	near(t, chalk, seen(th, -20, -4), 0.3, "in the gap")
	near(t, dried(t, "mere-soft", 1), seen(th, -20, 2), 0.3, "in the second: 18 to 26")
	near(t, chalk, seen(th, -20, 10), 0.3, "after the last")
	assert.InDelta(t, 21, th.Treated[0].Sum, 1e-9)
	assert.InDelta(t, 35, th.Treated[0].Room, 1e-9, "from where they begin")
	for _, f := range th.Drawn[0].Films {
		off, err := f.Region.Minus(th.Local)
		require.NoError(t, err)
		assert.Less(t, off.Area(), 0.01, "nothing in the opening, nothing past the edge")
	}
	// The edge: a rim of 3 mm of 60 by 40, by hand, whatever hole is in the middle.
	rim := treated(t, func(s *card.Sheet) {
		s.Openings = []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 20, H: 10}}
	}, card.Treatment{Edged: &card.Edged{Ink: "sedge-full", W: 3}})
	assert.InDelta(t, 60*40-54*34, rim.Treated[0].Regions[0].Area(), 0.2)
}

// A fade is fullest where it begins, pales all the way, and has gone at its reach; two
// strikes are deeper than one.
func TestFadesPaleAllTheWay(t *testing.T) {
	chalk := look.NewStock(trial.Kit()).PaperColour("chalk")
	for _, from := range card.Froms {
		if from == card.FromAll || from == card.FromImage {
			continue
		}
		th := treated(t, nil, card.Treatment{Fade: &card.Fade{From: from, Inks: []string{"dusk-deep"}, Reach: 15}})
		var start, step shape.Point
		switch from {
		case card.FromLeft:
			start, step = shape.Point{X: -29.9}, shape.Point{X: 1}
		case card.FromRight:
			start, step = shape.Point{X: 29.9}, shape.Point{X: -1}
		case card.FromTop, card.FromEdge:
			start, step = shape.Point{Y: -19.9}, shape.Point{Y: 1}
		case card.FromFoot:
			start, step = shape.Point{Y: 19.9}, shape.Point{Y: -1}
		case card.FromTopLeft:
			start, step = shape.Point{X: -29.9, Y: -19.9}, shape.Point{X: math.Sqrt(0.5), Y: math.Sqrt(0.5)}
		case card.FromTopRight:
			start, step = shape.Point{X: 29.9, Y: -19.9}, shape.Point{X: -math.Sqrt(0.5), Y: math.Sqrt(0.5)}
		case card.FromBottomLeft:
			start, step = shape.Point{X: -29.9, Y: 19.9}, shape.Point{X: math.Sqrt(0.5), Y: -math.Sqrt(0.5)}
		case card.FromBottomRight:
			start, step = shape.Point{X: 29.9, Y: 19.9}, shape.Point{X: -math.Sqrt(0.5), Y: -math.Sqrt(0.5)}
		default:
			step = shape.Point{X: 1}
		}
		last := 0.0
		for d := 0.0; d < 20; d += 0.5 {
			p := start.Add(step.Scale(d))
			l := seen(th, p.X, p.Y).Lab().L
			assert.GreaterOrEqual(t, l, last-0.2, "%s at %g mm", from, d)
			last = l
			if d == 0 {
				near(t, dried(t, "dusk-deep", 1), seen(th, p.X, p.Y), 6, string(from)+" begins nearly full")
			}
			if d >= 15.5 {
				near(t, chalk, seen(th, p.X, p.Y), 0.5, string(from)+" has gone")
			}
		}
	}
	one := treated(t, nil, card.Treatment{Fade: &card.Fade{From: card.FromAll, Inks: []string{"dusk-soft"}, Reach: 1}})
	three := treated(t, nil, card.Treatment{Fade: &card.Fade{From: card.FromAll, Inks: []string{"dusk-soft"}, Reach: 1, Strikes: 3}})
	assert.Less(t, seen(three, 0, 0).Lab().L, seen(one, 0, 0).Lab().L-1)
}

// Ink on ink is deeper than either alone, in whatever treatment; water takes some of it
// away again, the longer the more, and does nothing to bare card.
func TestInkOverInkAndWaterOverInk(t *testing.T) {
	ground := card.Treatment{Fade: &card.Fade{From: card.FromLeft, Inks: []string{"mere-full"}, Reach: 60}}
	stroke := card.Treatment{Stroke: &card.Stroke{Ink: "madder-full", W: 8, Points: []card.Offset{{X: -25}, {X: 25}}}}
	both := treated(t, nil, ground, stroke)
	alone := treated(t, nil, stroke)
	assert.Less(t, seen(both, -24, 0).Lab().L, seen(alone, -24, 0).Lab().L-3, "on deep ink")
	near(t, seen(alone, 24, 0), seen(both, 24, 0), 12, "on nearly bare card")
	for n, x := range []float64{-24, -10, 0, 10, 24} {
		if n > 0 {
			assert.GreaterOrEqual(t, seen(both, x, 0).Lab().L, seen(both, x-10, 0).Lab().L-1.6, "it pales as the ground pales")
		}
	}
	wet := func(dwell float64) build.Thing {
		return treated(t, nil, card.Treatment{Fade: &card.Fade{From: card.FromAll, Inks: []string{"mere-full"}, Reach: 1}}, card.Treatment{Splash: &card.Splash{Drops: 1, Size: 8, Dwell: dwell, Reach: 0.1, Seed: 4}})
	}
	dry := treated(t, nil, card.Treatment{Fade: &card.Fade{From: card.FromAll, Inks: []string{"mere-full"}, Reach: 1}})
	short, long := seen(wet(0), 0, 0).Lab().L, seen(wet(60), 0, 0).Lab().L
	assert.Greater(t, short, seen(dry, 0, 0).Lab().L+1)
	assert.Greater(t, long, short+1)
}

// Words come out letter by letter, in their ink, centred; those cut out leave islands: an o
// has one, as everybody who cut one knows (common practice, no source).
func TestWordsStampedAndCutOut(t *testing.T) {
	th := treated(t, nil, card.Treatment{Words: &card.Words{Text: "ho", Ink: "soot-deep", Letter: 10}})
	require.Len(t, th.Treated[0].Regions, 2)
	assert.InDelta(t, 14, th.Treated[0].Wide, 1e-9, "two blocks of 0.7 of 10")
	near(t, dried(t, "soot-deep", 1), seen(th, -3.4, 0), 0.3, "in the h")
	require.NotNil(t, th.Treated[0].Read)
	assert.Greater(t, colour.Contrast(th.Treated[0].Read.Ink, th.Treated[0].Read.Ground), 7.0, "black on white")
	assert.True(t, th.Treated[0].Read.Bare)

	for _, keep := range []bool{false, true} {
		out := treated(t, func(s *card.Sheet) { s.Openings = []card.Opening{{Text: "oho", H: 10, Islands: keep}} })
		assert.Equal(t, 2, out.Islands)
		assert.Len(t, out.Local.Holes(), 3)
		pieces := 1
		if keep {
			pieces = 3
		}
		assert.Len(t, out.Local.Pieces(), pieces, "the sheet, and its islands where they are kept")
	}
}

// What was remembered of a sheet is what is put together anew, and another ink, size or
// opening is another sheet.
func TestASheetIsRememberedByAllItDependsOn(t *testing.T) {
	k := trial.Kit()
	m := build.NewMemory()
	s := card.Sheet{Paper: "chalk", W: 60, H: 40, Treatments: []card.Treatment{{Fade: &card.Fade{From: card.FromFoot, Inks: []string{"dusk-deep", "dusk-soft"}, Reach: 30}}, {Words: &card.Words{Text: "hi", Ink: "soot-deep", Letter: 8}}}}
	made := func(with build.With, s card.Sheet, stock look.Stock) build.Thing {
		c := card.Card{Base: card.Base{W: 100, H: 100}, Elements: []card.Element{{ID: "s", Face: card.Front, Place: card.Place{X: 50, Y: 50}, Sheet: &s}}}
		b := build.Expand(c, stock, nil, with)
		return b.Things[0]
	}
	stock := look.NewStock(k)
	same := func(a, b build.Thing) bool {
		return assert.ObjectsAreEqual(a.Drawn[0].Films, b.Drawn[0].Films) && assert.ObjectsAreEqual(a.Patches, b.Patches) && assert.ObjectsAreEqual(a.Local, b.Local)
	}
	cold, warm := build.With{Face: trial.Blocks{}}, build.With{Face: trial.Blocks{}, Memory: m}
	for range 2 {
		assert.True(t, same(made(cold, s, stock), made(warm, s, stock)))
	}
	wider, other, opened := s, s, s
	wider.W = 61
	other.Paper = "oat"
	opened.Openings = []card.Opening{{Outline: card.Outline{Kind: card.Oval}, W: 5, H: 5}}
	for _, x := range []card.Sheet{wider, other, opened} {
		assert.True(t, same(made(cold, x, stock), made(warm, x, stock)))
		assert.False(t, same(made(cold, s, stock), made(warm, x, stock)), "%+v", x)
	}
	k = trial.Kit()
	for i := range k.Inks {
		if k.Inks[i].ID == "dusk-deep" {
			k.Inks[i].Dry = "#400000"
		}
	}
	red := look.NewStock(k)
	assert.True(t, same(made(cold, s, red), made(warm, s, red)), "an ink that was measured anew")
	assert.False(t, same(made(cold, s, stock), made(warm, s, red)))
}

// Round an outline, outside of it, the sheet has the colour it has there: on a sheet that is
// half in ink, a square in the ink sees ink, one on the bare half sees bare card, whichever
// way the sheet is turned.
func TestWhatIsSeenRoundAnOutline(t *testing.T) {
	half := card.Treatment{Bands: &card.Bands{Up: true, Bands: []card.Band{{Ink: "mere-full", W: 30}}}}
	th := treated(t, nil, half)
	for _, turn := range []float64{0, 90} {
		th.At.Turn = turn
		at := func(x, y float64) shape.Region {
			return th.Place(shape.Rect(x-4, y-4, 8, 8))
		}
		ink, share := th.Beside(at(-15, 0), 1)
		assert.InDelta(t, 1, share, 1e-9)
		near(t, dried(t, "mere-full", 1), ink, 0.3, "in the ink")
		bare, _ := th.Beside(at(15, 0), 1)
		near(t, look.NewStock(trial.Kit()).PaperColour("chalk"), bare, 0.3, "on bare card")
		_, none := th.Beside(at(200, 0), 1)
		assert.Zero(t, none)
	}
	// A square of the ink's own size sees what is round it, not what it covers.
	th.At.Turn = 0
	c, _ := th.Beside(th.Place(shape.Rect(-29.5, -19.5, 29, 39)), 1)
	assert.Greater(t, c.Lab().L, dried(t, "mere-full", 1).Lab().L+5)
}
