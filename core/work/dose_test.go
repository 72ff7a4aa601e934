package work

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Common practice, no source: a pick's dot for an eye, dots along a stem, dots at the crossings of a
// web; a part as wide as a finger takes glue as it comes, and so does what is taped or held in a zone.
func TestHowMuchGlueGoesOn(t *testing.T) {
	b := &build.Build{Stock: look.NewStock(kit.Kit{Adhesives: []kit.Adhesive{{ID: "wet", Kind: "liquid"}, {ID: "tape", Kind: "tape runner"}}})}
	k := &maker{Build: b, format: func(mm float64) string { return measure.Writing{Unit: measure.Millimetres}.Length(mm) }}
	web := shape.Rect(0, 0, 60, 40)
	for x := 6.0; x < 60; x += 8 {
		for y := 6.0; y < 40; y += 8 {
			cut, err := web.Minus(shape.Disc(shape.Point{X: x, Y: y}, 3))
			assert.NoError(t, err)
			web = cut
		}
	}
	wet := card.Glue("wet")
	assert.Contains(t, k.dose(wet, shape.Disc(shape.Point{}, 1)), "a dot a third as wide as the part with a pick")
	assert.Contains(t, k.dose(wet, shape.Rect(0, 0, 1.6, 50)), "It is about 1.6 mm across: small dots in a row")
	assert.Contains(t, k.dose(wet, web), "small dots where they cross")
	assert.Empty(t, k.dose(wet, shape.Rect(0, 0, 20, 30)))
	assert.Empty(t, k.dose(wet, shape.Rect(0, 0, 6.1, 50)), "just wide enough")
	assert.Empty(t, k.dose(card.Glue("tape"), shape.Rect(0, 0, 1.6, 50)))
	assert.Empty(t, k.dose([]card.Bond{{Adhesive: "wet", Zone: card.BondSpots}}, shape.Rect(0, 0, 1.6, 50)))
}
