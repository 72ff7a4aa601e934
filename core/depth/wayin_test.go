package depth

import (
	"math"
	"slices"
	"testing"

	"pgregory.net/rapid"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Against pulling it out by hand: a tab beneath a cover on pads is moved out a fifth of a
// millimetre at a time in every direction, and either meets a pad on its way or does not.
// Where a hair more or less of a pad decides, nothing is asked.
func TestAWayInIsOneThatCanBePulled(t *testing.T) {
	cover := shape.Rect(0, 0, 40, 30)
	rapid.Check(t, func(t *rapid.T) {
		at := func(name string, most float64) float64 { return rapid.Float64Range(0, most).Draw(t, name) }
		tab := shape.Rect(at("x", 38)-4, at("y", 28)-3, 8, 6)
		type pad struct{ x, y float64 }
		var pads []pad
		for range rapid.IntRange(1, 4).Draw(t, "pads") {
			pads = append(pads, pad{at("px", 35), at("py", 25)})
		}
		blocked := func(deg, grown float64) bool {
			under, err := tab.Intersect(cover)
			if err != nil {
				t.Skip(err)
			}
			for far := 0.0; far < 52; far += 0.2 {
				moved := under.Move(shape.Polar(far, deg))
				box := moved.Bounds()
				for _, p := range pads {
					// A rectangle moved keeps its sides: what is still beneath meets the pad, or not.
					lo := shape.Point{X: max(box.Min.X, 0, p.x-grown), Y: max(box.Min.Y, 0, p.y-grown)}
					hi := shape.Point{X: min(box.Max.X, 40, p.x+5+grown), Y: min(box.Max.Y, 30, p.y+5+grown)}
					if hi.X-lo.X > 1e-9 && hi.Y-lo.Y > 1e-9 {
						return true
					}
				}
			}
			return false
		}
		c := Stood{Piece: build.Piece{Outline: cover, Holds: []build.Hold{{Raised: true, Bond: card.Bond{Spacer: "s"}}}}}
		for _, p := range pads {
			c.Supports = append(c.Supports, Support{Area: shape.Rect(p.x, p.y, 5, 5), Raised: true})
		}
		ways := NewMemory().WaysIn(&build.Build{}, []Stood{c, {Piece: build.Piece{Outline: tab}}}, 0, 1)
		for k := range wayDirections {
			deg := 360 * float64(k) / wayDirections
			if blocked(deg, -0.9) != blocked(deg, 0.9) {
				continue
			}
			if got := slices.ContainsFunc(ways, func(w float64) bool { return math.Abs(w-deg) < 1e-9 }); got == blocked(deg, 0) {
				t.Fatalf("towards %v: a way in is said to be %v, pads at %v", deg, got, pads)
			}
		}
	})
}
