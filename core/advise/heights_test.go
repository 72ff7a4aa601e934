package advise

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
)

// Against trying everything: no way with fewer pieces comes within the tolerance, of at
// most two sorts of spacer, or one and scraps of one card.
func TestNoWayToAHeightTakesFewerPieces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var k kit.Kit
		var thick []float64
		for _, id := range []string{"a", "b", "c"}[:rapid.IntRange(1, 3).Draw(t, "spacers")] {
			mm := float64(rapid.IntRange(5, 30).Draw(t, "tenths")) / 10
			thick = append(thick, mm)
			k.Spacers = append(k.Spacers, kit.Spacer{ID: id, Name: id, Kind: "square", Thickness: mm, W: 5, H: 5})
		}
		k.Papers = []kit.Cardstock{{ID: "p", Name: "p", Colour: "#ffffff", GSM: 216, Caliper: 0.28}}
		want := rapid.Float64Range(0.5, 6).Draw(t, "want")
		least := math.Inf(1)
		near := func(h float64, n int) {
			if math.Abs(h-want) <= SameHeight+1e-9 {
				least = min(least, float64(n))
			}
		}
		for n := range card.MaxPlies + 1 {
			near(float64(n)*0.28, n)
		}
		for i, a := range thick {
			for n := 1; n <= card.MaxLevel; n++ {
				for m := range card.MaxPlies + 1 {
					near(float64(n)*a+float64(m)*0.28, n+m)
				}
				for j, b := range thick {
					for m := 1; i != j && m <= card.MaxLevel; m++ {
						near(float64(n)*a+float64(m)*b, n+m)
					}
				}
			}
		}
		got := Rises(look.NewStock(k), want, SameHeight, SameHeight)
		if math.IsInf(least, 1) {
			if len(got) > 0 {
				t.Fatalf("%v comes to %v mm, which cannot be", got[0], want)
			}
			return
		}
		if len(got) == 0 || float64(got[0].Pieces) != least {
			t.Fatalf("%+v, could take %v pieces", got, least)
		}
	})
}

// What a way says it comes to, its bond comes to.
func TestAWayComesToItsHeight(t *testing.T) {
	k := kit.Kit{Spacers: []kit.Spacer{{ID: "a", Name: "a", Kind: "square", Thickness: 1.1, W: 5, H: 5}, {ID: "b", Name: "b", Kind: "mini", Thickness: 2, W: 5, H: 5}},
		Papers: []kit.Cardstock{{ID: "p", Name: "p", Colour: "#ffffff", GSM: 216, Caliper: 0.28}}}
	s := look.NewStock(k)
	ways := Rises(s, 3.4, SameHeight, SameHeight)
	require.NotEmpty(t, ways)
	for _, w := range ways {
		h := 0.0
		if sp, ok := s.Spacer(w.Bond.Spacer); ok {
			h += sp.Thickness * float64(max(1, w.Bond.Level))
		}
		for _, m := range w.Bond.Shims {
			if sp, ok := s.Spacer(m.Spacer); ok {
				h += sp.Thickness * float64(m.N)
			} else {
				h += 0.28 * float64(m.N)
			}
		}
		assert.InDelta(t, w.Height, h, 1e-9)
		assert.InDelta(t, 3.4, h, SameHeight+1e-9)
	}
}
