package build

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/look"
	"ochrestone/core/shape"
)

func sheetAt(id string, x, y, w, h float64) card.Element {
	return card.Element{ID: id, Face: card.Front, Place: card.Place{X: x, Y: y}, Sheet: &card.Sheet{Paper: "p", W: w, H: h}}
}

func carried(c card.Card, of string, silhouettes map[string]shape.Region) string {
	e, _ := Carry(c, look.Stock{}, silhouettes).Element(of)
	return e.On
}

// A thing lies on what bears most of it, the topmost at every place; a person's word goes first.
func TestWhatCarriesAThing(t *testing.T) {
	c := card.Card{Base: card.Base{W: 100, H: 140}, Elements: []card.Element{sheetAt("panel", 50, 70, 96, 136), sheetAt("strip", 50, 40, 60, 20), sheetAt("tag", 50, 40, 20, 10)}}
	assert.Equal(t, "panel", carried(c, "strip", nil))
	assert.Equal(t, "strip", carried(c, "tag", nil), "the topmost beneath it")
	c.Elements[2].Place.X = 82 // 8 of its 20 mm lie on the strip
	assert.Equal(t, "panel", carried(c, "tag", nil))
	c.Elements[2].Place.X = 78 // and now 12
	assert.Equal(t, "strip", carried(c, "tag", nil))
	panel := "panel"
	c.Elements[2].Carried = &panel
	assert.Equal(t, "panel", carried(c, "tag", nil), "a person says otherwise")
	gone := "no such"
	c.Elements[2].Carried = &gone
	assert.Equal(t, "strip", carried(c, "tag", nil), "what they named is gone")
	c.Elements[2].Carried = nil
	c.Elements[1].Sheet.Openings = []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 40, H: 16, X: 10}}
	c.Elements[2].Place.X = 60
	assert.Equal(t, "panel", carried(c, "tag", nil), "it lies in an opening")
	assert.Equal(t, "", carried(c, "panel", nil))
	c.Elements = append(c.Elements, card.Element{ID: "owl", Face: card.Front, Place: card.Place{X: 50, Y: 100}, Image: &card.Image{Motif: "m"}})
	assert.Equal(t, "panel", carried(c, "owl", map[string]shape.Region{"m": shape.Disc(shape.Point{X: 9, Y: 9}, 12)}))
	assert.Equal(t, "", carried(c, "owl", nil), "an image that cannot be worked out stays where it is")
}

// Against counting points ten times as fine, on random piles of sheets.
func TestCarriersAgainstCountingPoints(t *testing.T) {
	rng := rand.New(rand.NewPCG(30, 1))
	told := 0
	for range 200 {
		c := card.Card{Base: card.Base{W: 100, H: 140}}
		for i := range 4 {
			c.Elements = append(c.Elements, sheetAt(string(rune('a'+i)), 100*rng.Float64(), 140*rng.Float64(), 20+60*rng.Float64(), 20+60*rng.Float64()))
		}
		top := c.Elements[3]
		got := carried(c, "d", nil)
		count, all := map[string]int{}, 0
		for i := range 90 {
			for j := range 90 {
				x, y := top.Place.X+((float64(i)+0.5)/90-0.5)*top.Sheet.W, top.Place.Y+((float64(j)+0.5)/90-0.5)*top.Sheet.H
				if x < 0 || y < 0 || x > 100 || y > 140 {
					continue
				}
				all++
				id := ""
				for _, o := range slices.Backward(c.Elements[:3]) {
					if 2*abs(x-o.Place.X) < o.Sheet.W && 2*abs(y-o.Place.Y) < o.Sheet.H {
						id = o.ID
						break
					}
				}
				count[id]++
			}
		}
		require.Positive(t, all)
		most, next := "", 0
		for _, id := range []string{"", "a", "b", "c"} {
			if count[id] > count[most] {
				most = id
			}
		}
		for id, n := range count {
			if id != most {
				next = max(next, n)
			}
		}
		if count[most]-next < all/8 || all < 90*90/3 {
			continue // either may be said
		}
		told++
		assert.Equal(t, most, got, "%v of %d, %+v", count, all, c.Elements)
	}
	assert.Greater(t, told, 120)
}

func abs(v float64) float64 { return max(v, -v) }

// The blade that trims an overhang passes a ribbon where their rectangles come within its clearance:
// in closed form, on random ones.
func TestABladePassesWhatIsNear(t *testing.T) {
	rng := rand.New(rand.NewPCG(30, 6))
	near, clear := 0, 0
	for range 300 {
		rect := func(x, y, w, h float64) shape.Region { return shape.Rect(x, y, w, h) }
		ox, oy, ow, oh := 100.0, 10+60*rng.Float64(), 1+8*rng.Float64(), 2+20*rng.Float64()
		rx, ry, rw, rh := 20+60*rng.Float64(), 5+80*rng.Float64(), 15+40*rng.Float64(), 1+9*rng.Float64()
		over := Thing{Offcut: rect(ox, oy, ow, oh)}
		ribbon := Thing{Outline: rect(rx, ry, rw, rh)}
		dx := math.Max(0, math.Max(ox-(rx+rw), rx-(ox+ow)))
		dy := math.Max(0, math.Max(oy-(ry+rh), ry-(oy+oh)))
		gap := math.Hypot(dx, dy)
		if math.Abs(gap-BladeClear) < 0.05 {
			continue // within the tolerance of outlines
		}
		got := over.InBlade(&ribbon)
		assert.Equal(t, gap < BladeClear, !got.Empty(), "%.2f mm apart", gap)
		if gap < BladeClear {
			near++
		} else {
			clear++
		}
	}
	assert.Greater(t, min(near, clear), 10)
	plain := Thing{Outline: shape.Rect(0, 0, 10, 10)}
	assert.True(t, plain.InBlade(&plain).Empty(), "nothing of it is trimmed")
}
