package cut

import (
	"context"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/build"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
)

// wanted is a laying of random pieces, some trimmed, some cut by dies, from sheets of a size.
func wanted(t *rapid.T, size measure.Size) (*laying, kit.Cardstock) {
	rng := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
	p := kit.Cardstock{ID: "p", Name: "Plain", W: size.W, H: size.H, Grain: rapid.SampledFrom([]string{"", "across", "down"}).Draw(t, "grain")}
	s := &laying{Stock: &Stock{Stock: "p"}, stock: look.Stock{Kit: kit.Kit{Papers: []kit.Cardstock{p}}}, o: usual(nil), each: 1}
	for range rapid.IntRange(1, 9).Draw(t, "wants") {
		w := Want{N: 1 + rng.IntN(9)}
		g := blob(rng, 10+70*rng.Float64())
		w.W, w.H, w.By = g.Bounds().W(), g.Bounds().H(), string(build.Die)
		if rng.IntN(2) == 0 {
			w.By = string(build.Trimmer)
			w.cut.Fold = []build.Direction{build.NoWay, "across", "down"}[rng.IntN(3)]
		}
		w.cut.Outline, w.cut.Size = g, measure.Size{W: w.W, H: w.H}
		s.Wants = append(s.Wants, w)
	}
	return s, p
}

// Where boxes in rows say that there are enough sheets, the layout finds as much: nobody is told
// of enough and then handed a cutting guide that takes a sheet more.
func TestNoLayoutTakesMoreThanRows(t *testing.T) {
	told := 0
	rapid.Check(t, func(t *rapid.T) {
		s, p := wanted(t, rapid.SampledFrom([]measure.Size{measure.Letter, measure.A4, {W: 152, H: 152}}).Draw(t, "size"))
		if p.Sheets, _ = s.inRows(p); p.Sheets > 1000 || !s.ample(p) {
			return
		}
		told++
		s.lay(context.Background())
		assert.Empty(t, s.Lacks)
		assert.LessOrEqual(t, s.Needs, p.Sheets)
	})
	require.Positive(t, told)
}

// Rows by hand: of cards of 100 by 140 four lie on a sheet of 210 by 297, and a piece larger than
// a sheet has no answer.
func TestRowsByHand(t *testing.T) {
	s := &laying{Stock: &Stock{}, o: usual(nil)}
	a4 := kit.Cardstock{ID: "p", W: 210, H: 297}
	s.Wants = []Want{{W: 100, H: 140, N: 8, By: string(build.Trimmer)}}
	rows := func() int { n, _ := s.inRows(a4); return n }
	assert.Equal(t, 2, rows())
	s.Wants[0].N = 9
	assert.Equal(t, 3, rows())
	s.Wants[0].W = 211
	assert.Greater(t, rows(), 1000)
}
