package depth

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

func squares(side float64) build.Hold {
	return build.Hold{Kind: "square", W: side, H: side, Height: 2, Raised: true, Bond: card.Bond{Spacer: "s"}}
}

// What anyone asks of pads, whatever the part: none peeks out, none stands where it must
// not, none overlaps another, and nothing hangs further than Hang where pads go in at all.
func TestPadsHideAndReach(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, h := rapid.Float64Range(16, 110).Draw(t, "w"), rapid.Float64Range(16, 110).Draw(t, "h")
		var g shape.Region
		switch rapid.IntRange(0, 2).Draw(t, "kind") {
		case 0:
			g = shape.Rect(-w/2, -h/2, w, h)
		case 1:
			g = shape.Disc(shape.Point{}, w/2)
		default: // an L
			leg := shape.Rect(-w/2, -h/2, max(12, w/3), h)
			foot := shape.Rect(-w/2, h/2-max(12, h/3), w, max(12, h/3))
			l, err := leg.Union(foot)
			if err != nil {
				t.Skip(err)
			}
			g = l
		}
		side := rapid.SampledFrom([]float64{4, 6, 8}).Draw(t, "side")
		pads := Propose(g, squares(side), Room{})
		if len(pads) == 0 {
			t.Fatal("no pad goes in")
		}
		for i, p := range pads {
			area := PadArea(p)
			if !g.Covers(area) {
				t.Fatalf("pad %+v stands over the edge", p)
			}
			for _, q := range area.Rings()[0] {
				if d := g.EdgeDistance(q); d < padInset-0.6 {
					t.Fatalf("pad %+v comes within %.2f mm of the edge", p, d)
				}
			}
			for _, o := range pads[:i] {
				if PadArea(o).Overlaps(area) {
					t.Fatalf("pads %+v and %+v overlap", o, p)
				}
			}
		}
		for _, q := range shape.Along(g, 1) {
			if d := nearestPad(pads, q); d > Hang+1.2 {
				t.Fatalf("%v hangs %.1f mm from the nearest pad", q, d)
			}
		}
	})
}

// A label of 60 by 16 on pads of 6: by hand, four corners and one in the middle of each long
// side are plenty, and two do not do.
func TestPadsOfALabel(t *testing.T) {
	pads := Propose(shape.Rect(-30, -8, 60, 16), squares(6), Room{})
	assert.GreaterOrEqual(t, len(pads), 3)
	assert.LessOrEqual(t, len(pads), 6)
	one := Propose(shape.Rect(-7, -7, 14, 14), squares(6), Room{})
	require.Len(t, one, 1, "a small part stands on one")
	assert.InDelta(t, 0, math.Hypot(one[0].X, one[0].Y), 1)
}

// Where a stem stands up pads stand beside it, on both sides.
func TestPadsStandBesideAStem(t *testing.T) {
	stem := shape.Rect(-3, -40, 6, 80)
	pads := Propose(shape.Rect(-30, -8, 60, 16), squares(6), Room{Avoid: []shape.Region{stem}})
	left, right := 0, 0
	for _, p := range pads {
		assert.False(t, PadArea(p).Overlaps(stem))
		if p.X < 0 {
			left++
		} else {
			right++
		}
	}
	assert.Positive(t, left)
	assert.Positive(t, right)
}

// A side left open has no pad within the pocket; a zone keeps its pads to itself.
func TestOpenSidesAndZones(t *testing.T) {
	g := shape.Rect(-40, -30, 80, 60)
	for side, out := range map[card.Side]func(shape.Box) bool{
		card.LeftSide: func(b shape.Box) bool { return b.Min.X < -40+25 }, card.RightSide: func(b shape.Box) bool { return b.Max.X > 40-25 },
		card.TopSide: func(b shape.Box) bool { return b.Min.Y < -30+25 }, card.BottomSide: func(b shape.Box) bool { return b.Max.Y > 30-25 },
	} {
		h := squares(6)
		h.Bond.Open, h.Bond.Pocket = []card.Side{side}, 25
		pads := Propose(g, h, Room{})
		require.NotEmpty(t, pads)
		for _, p := range pads {
			assert.False(t, out(PadArea(p).Bounds()), "%s: %+v", side, p)
		}
	}
	h := squares(6)
	h.Bond.Zone = card.BondFoot
	for _, p := range Propose(g, h, Room{}) {
		assert.Greater(t, p.Y, 0.0, "grass stays free above its foot")
	}
}

// Areas of glue in closed form.
func TestGlueAreasInClosedForm(t *testing.T) {
	g := shape.Rect(-40, -30, 80, 60)
	area := func(b card.Bond) (a float64) {
		for _, x := range glued(g, b, Room{}) {
			a += x.Area()
		}
		return a
	}
	assert.InDelta(t, 78*58, area(card.Bond{}), 1, "a millimetre back from the edge")
	assert.InDelta(t, 70*50, area(card.Bond{Inset: 5}), 1)
	assert.InDelta(t, 78*58-66*46, area(card.Bond{Zone: card.BondEdge}), 1, "six wide round the edge")
	assert.InDelta(t, 78*(0.4*60-1), area(card.Bond{Zone: card.BondFoot}), 1)
	assert.InDelta(t, 0.4*80*0.4*60, area(card.Bond{Zone: card.BondMiddle}), 1)
	assert.InDelta(t, 78*(58-19), area(card.Bond{Open: []card.Side{card.BottomSide}}), 1, "20 mm of the foot stay free")
	hair := shape.Rect(-20, -0.4, 40, 0.8)
	assert.Positive(t, glued(hair, card.Bond{}, Room{})[0].Area(), "what is finer than the usual inset is glued all the same")
	opaque := shape.Rect(-10, -10, 20, 20)
	assert.InDelta(t, 400, glued(g, card.Bond{Zone: card.BondOpaque}, Room{Opaque: opaque})[0].Area(), 1)
}

// Pads for sixty parts of all sizes, from nothing: well under 200 ms.
func BenchmarkPads60(b *testing.B) {
	for b.Loop() {
		for i := range 60 {
			w := 14 + float64(i)*1.4
			if len(Propose(shape.Rect(-w/2, -w/3, w, w/1.5), squares(6), Room{Avoid: []shape.Region{shape.Rect(-2, -60, 4, 120)}})) == 0 && w > 30 {
				b.Fatal(w)
			}
		}
	}
}

// Behind a stem of 5 by 80 mm, straight or aslant, pads go in that are cut small: squares of 6 in
// halves, of 12 in quarters or sixths, tape in slivers.
func TestPadsGoInBehindAStem(t *testing.T) {
	stem := shape.Rect(-2.5, -40, 5, 80)
	h := build.Hold{Bond: card.Bond{Spacer: "dots", Level: 1}, Kind: "square", Raised: true, Height: 1, W: 6, H: 6}
	large, tape := h, h
	large.W, large.H = 12, 12
	tape.Kind, tape.W, tape.H = "tape", 12, 4000
	for _, deg := range []float64{0, 30, 90} {
		for _, h := range []build.Hold{h, large, tape} {
			pads := Propose(stem.Turn(deg, shape.Point{}), h, Room{})
			assert.GreaterOrEqual(t, len(pads), 3, "%s of %g, turned by %g", h.Kind, h.W, deg)
			for _, p := range pads {
				assert.True(t, stem.Turn(deg, shape.Point{}).Covers(PadArea(p)))
			}
		}
	}
	assert.Empty(t, Propose(shape.Rect(-1.5, -40, 3, 80), h, Room{}), "none hides behind 3 mm")
}

// Foam cut to a part goes nearer to its edge where a slender end would else hang, and no nearer than that.
func TestFoamCutToSlenderEndsHoldsThem(t *testing.T) {
	block := shape.Rect(0, 0, 20, 20)
	held := func(wide, long float64) shape.Region {
		g, err := block.Union(shape.Rect(20, 8, long, wide))
		require.NoError(t, err)
		return cutTo(g, card.Bond{Spacer: "sheet", Level: 1}, Room{})
	}
	for _, c := range []struct{ wide, long, to float64 }{
		{3, 30, 50 - 1},                      // too narrow for 2 mm on both sides: 1 mm
		{1.8, 30, 50 - 0.5},                  // for 1 mm, too
		{3, 10, 20 - math.Sqrt(2*2-1.5*1.5)}, // a short end may hang: 2 mm from the corners
		{6, 30, 50 - 2},
	} {
		assert.InDelta(t, c.to, held(c.wide, c.long).Bounds().Max.X, 0.06, "%v", c)
	}
	// Held in one zone on purpose its ends are free, and foam stays back from the edge as it does.
	plate := shape.Rect(0, 0, 80, 20)
	assert.InDelta(t, 2, cutTo(plate, card.Bond{Spacer: "sheet", Level: 1, Zone: card.BondLeft}, Room{}).Bounds().Min.X, 0.06)
}
