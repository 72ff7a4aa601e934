package depth

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

func sheet(x, y, w, h, thick, lift float64) build.Piece {
	return build.Piece{Outline: shape.Rect(x, y, w, h), Thick: thick, Lift: lift}
}

func TestStackRestsOnTheHighestBeneath(t *testing.T) {
	st := Stack([]build.Piece{sheet(0, 0, 50, 50, 0.3, 0), sheet(5, 5, 10, 10, 0.3, 2), sheet(30, 30, 10, 10, 0.5, 0.1), sheet(8, 8, 30, 30, 0.2, 0), sheet(200, 0, 5, 5, 1, 0)}, 1)
	assert.InDelta(t, 1.3, st[0].Z1, 1e-9)
	assert.InDelta(t, 3.3, st[1].Z0, 1e-9, "2 mm of foam")
	assert.InDelta(t, 3.6, st[1].Z1, 1e-9)
	assert.InDelta(t, 1.4, st[2].Z0, 1e-9)
	assert.InDelta(t, 3.6, st[3].Z0, 1e-9, "a stiff strip across both rests on the higher")
	assert.InDelta(t, 1, st[4].Z0, 1e-9, "beside everything: on the floor")
	top, at := Top(st, 1)
	assert.InDelta(t, 3.8, top, 1e-9)
	assert.Equal(t, 3, at)
	top, at = Top(nil, 0.7)
	assert.Equal(t, 0.7, top)
	assert.Equal(t, -1, at)
}

func TestSectionFindsWhatTheCutMeets(t *testing.T) {
	st := Stack([]build.Piece{sheet(0, 0, 50, 50, 0.3, 0), {Outline: shape.RingDisc(shape.Point{X: 25, Y: 25}, 20, 10), Thick: 0.3}}, 0)
	slabs := Section(st, 25.001)
	assert.Len(t, slabs, 3, "the sheet whole, the ring twice")
	assert.InDelta(t, 5, slabs[1].X0, 0.05)
	assert.InDelta(t, 15, slabs[1].X1, 0.05)
	assert.Len(t, Section(st, 2), 1)
	assert.Empty(t, Section(st, 60))
}

// Closed forms: a plain card takes up its width and its thickness; a raised
// block in the middle makes a trapezium of the taut wrapping.
func TestGirthAgainstClosedForms(t *testing.T) {
	s := measure.Size{W: 100, H: 140}
	g := Girth(s, 1, nil)
	assert.InDelta(t, 101, g.W, 1e-9)
	assert.InDelta(t, 141, g.H, 1e-9)
	g = Girth(s, 1, Stack([]build.Piece{sheet(30, 0, 40, 140, 3, 0)}, 1))
	want := (100 + 2*1 + 2*math.Hypot(30, 3) + 40) / 2
	assert.InDelta(t, want, g.W, 1e-9)
	assert.InDelta(t, 144, g.H, 1e-9, "down the card the block runs to the edges")
}

// Common practice, no source: foam about 1 and 2 mm, doubled foam doubles; two
// levels of regular foam are easily too many for a letter.
func TestFoamAndTheLetter(t *testing.T) {
	a2 := measure.Envelopes()[0]
	env := kit.Envelope{ID: "a2", W: a2.Size.W, H: a2.Size.H, Caliper: 0.11}
	mail := func(w, h, thick, raised float64) Post {
		p, _, _ := Posting{Girth: measure.Size{W: w, H: h}, Size: measure.Size{W: w, H: h}, Thick: thick, Raised: raised}.Mail(env, nil, measure.Writing{})
		return p
	}
	plain := mail(108, 140, 0.8, 0)
	assert.Equal(t, measure.ClassLetter, plain.Class)
	assert.True(t, plain.Fits)
	assert.InDelta(t, 1.02, plain.Filled, 1e-9)
	raised := mail(108, 140, 3.3, 2.3)
	assert.Equal(t, measure.ClassNonMachinable, raised.Class)
	thick := mail(109, 141, 6.2, 5)
	assert.Equal(t, measure.ClassTooThick, thick.Class, "6.2 mm and two walls pass 6.35 mm")
	assert.InDelta(t, 3.24, Weigh(150*100, 216), 1e-9)
}

// A box keeps its thickness whatever is in it, takes a card by its own size and lets it lie
// even; padding adds on both sides. Worked by hand.
func TestABoxAndAPaddedEnvelope(t *testing.T) {
	card := Posting{Size: measure.Size{W: 108, H: 140}, Girth: measure.Size{W: 113, H: 145}, Thick: 7, Raised: 6, Grams: 20}
	box := kit.Envelope{ID: "box", W: 110, H: 142, Caliper: 0.5, Depth: 12, Grams: 40}
	p, grams, _ := card.Mail(box, nil, measure.Writing{})
	assert.True(t, p.Fits, "it need not wrap round")
	assert.InDelta(t, 13, p.Filled, 1e-9)
	assert.InDelta(t, 5, p.Room, 1e-9)
	assert.InDelta(t, 60, grams, 1e-9)
	box.Depth = 6
	p, _, _ = card.Mail(box, nil, measure.Writing{})
	assert.False(t, p.Fits, "it does not shut")
	assert.InDelta(t, -1, p.Room, 1e-9)

	padded := kit.Envelope{ID: "padded", W: 150, H: 210, Caliper: 0.1, Padding: 3}
	p, grams, mailed := card.Mail(padded, Carriers(), measure.Writing{})
	assert.InDelta(t, 7+6.2, p.Filled, 1e-9)
	assert.True(t, p.Fits)
	area := 150 * 210 * 2.4 / 1e6
	assert.InDelta(t, 20+area*105+area*3*15, grams, 1e-9)
	assert.Len(t, mailed, len(Carriers()))
	none, grams, mailed := card.Mail(kit.Envelope{}, Carriers(), measure.Writing{})
	assert.False(t, none.Fits)
	assert.Zero(t, grams)
	assert.Empty(t, mailed)
}
