package cover

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

// front is a card with leaves of those outlines on it, the lowest first, in colours of their own.
func front(gs ...shape.Region) *build.Build {
	stock := look.NewStock(kit.Kit{Papers: []kit.Cardstock{{ID: "p", Name: "P", Kind: kit.PaperCard, Colour: "#f0f0f0", Caliper: 0.3}}})
	b := &build.Build{Card: card.Card{Base: card.Base{W: 108, H: 140, Paper: "p"}}, Stock: stock}
	colours := []string{"#802020", "#208020", "#202080", "#808020", "#208080", "#802080"}
	for i, g := range gs {
		id := string(rune('a' + i))
		b.Things = append(b.Things, build.Thing{Element: card.Element{ID: id, Face: card.Front}, Name: id, Outline: g, Rough: g, From: i, To: i + 1, Made: -1})
		b.Pieces = append(b.Pieces, build.Piece{ID: build.ID{Element: id}, Outline: g, Stock: "p", Thick: 0.3, Body: colours[i%6], Top: colours[i%6]})
	}
	return b
}

// meets is how long two things meet.
func meets(m *Map, a, b int) (long float64) {
	for _, e := range m.Edges {
		p, q := m.Patches[e.A].Thing, m.Patches[e.B].Thing
		if p == a && q == b || p == b && q == a {
			long += e.Length
		}
	}
	return long
}

// strewn are six shapes strewn over the front: discs, rings, turned rectangles.
func strewn(rng *rand.Rand) (gs []shape.Region) {
	for range 6 {
		at := shape.Point{X: 108 * rng.Float64(), Y: 140 * rng.Float64()}
		switch rng.IntN(3) {
		case 0:
			gs = append(gs, shape.Disc(at, 4+25*rng.Float64()))
		case 1:
			gs = append(gs, shape.RingDisc(at, 14+10*rng.Float64(), 6+6*rng.Float64()))
		default:
			w, h := 4+50*rng.Float64(), 4+50*rng.Float64()
			gs = append(gs, shape.Rect(-w/2, -h/2, w, h).Turn(360*rng.Float64(), shape.Point{}).Move(at))
		}
	}
	return gs
}

// Edges and areas in closed form.
func TestTheMapInClosedForm(t *testing.T) {
	for _, turn := range []float64{0, 11, 30, 45, 77} {
		square := shape.Rect(-20, -20, 40, 40).Turn(turn, shape.Point{}).Move(shape.Point{X: 50, Y: 60})
		m := Seen(front(square))
		assert.InEpsilon(t, 160, meets(m, 0, Base), 0.055, "a square turned by %g", turn)
		assert.InEpsilon(t, 1600, m.Shown[0], 0.01)
	}
	disc := shape.Disc(shape.Point{X: 50, Y: 60}, 17)
	m := Seen(front(disc))
	assert.InEpsilon(t, 2*math.Pi*17, meets(m, 0, Base), 0.03)
	assert.InEpsilon(t, math.Pi*17*17, m.Shown[0], 0.01)
	ring := shape.RingDisc(shape.Point{X: 50, Y: 60}, 17, 16)
	m = Seen(front(disc, ring))
	assert.InEpsilon(t, 2*math.Pi*16, meets(m, 0, 1), 0.04, "a rim of a millimetre parts the disc from its ground")
	assert.Zero(t, meets(m, 0, Base))
	half := shape.Rect(50, 0, 58, 140)
	m = Seen(front(disc, half))
	assert.InEpsilon(t, 34, meets(m, 0, 1), 0.055)
	assert.InEpsilon(t, 0.5, m.Shown[0]/m.Whole[0], 0.02, "half of it is covered")
	m = Seen(front(disc, shape.Rect(0, 0, 108, 140)))
	assert.Zero(t, m.Shown[0])
	off := disc.Move(shape.Point{X: 58})
	m = Seen(front(off))
	assert.InEpsilon(t, math.Pi*17*17/2, m.Shown[0], 0.02, "what hangs past the card is not on the front")
}

// On random piles, what is seen of each leaf is what the exact polygons leave of it.
func TestTheMapAgainstExactPolygons(t *testing.T) {
	rng := rand.New(rand.NewPCG(30, 2))
	sheet := shape.Rect(0, 0, 108, 140)
	for range 50 {
		gs := strewn(rng)
		m := Seen(front(gs...))
		whole := 0.0
		for i, g := range gs {
			left, err := g.Intersect(sheet)
			require.NoError(t, err)
			for _, o := range gs[i+1:] {
				left, err = left.Minus(o)
				require.NoError(t, err)
			}
			// A cell is gained or lost along the edge at random.
			assert.InDelta(t, left.Area(), m.Shown[i], 3*Cell*Cell*math.Sqrt(left.Length()/Cell)+0.4)
			whole += m.Shown[i]
		}
		base := 0.0
		for _, p := range m.Patches {
			if p.Thing == Base {
				base += p.Area
			}
		}
		assert.InDelta(t, 108*140, whole+base, 60)
	}
}

// The same front looked at ten times as finely has the same edges.
func TestTheMapAgainstAFinerOne(t *testing.T) {
	rng := rand.New(rand.NewPCG(30, 3))
	var gs []shape.Region
	for range 5 {
		gs = append(gs, shape.Disc(shape.Point{X: 20 + 60*rng.Float64(), Y: 30 + 80*rng.Float64()}, 10+15*rng.Float64()))
	}
	b := front(gs...)
	coarse, fine := Seen(b), seen(b, Cell/10)
	for i := range gs {
		for j := Base; j < i; j++ {
			long := meets(fine, i, j)
			assert.InDelta(t, long, meets(coarse, i, j), 0.05*long+2)
		}
	}
}

// What is bare is the ground without ink: all of it, less what lies on it.
func TestHowMuchIsBare(t *testing.T) {
	assert.InDelta(t, 1, Seen(front()).Bare(front()), 1e-9)
	b := front(shape.Rect(0, 0, 54, 140))
	assert.InDelta(t, 0.5, Seen(b).Bare(b), 0.01, "half of it is covered")
}
