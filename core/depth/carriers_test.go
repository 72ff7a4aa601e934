package depth

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
)

func carrier(t *testing.T, id string) Carrier {
	for _, c := range Carriers() {
		if c.ID == id {
			return c
		}
	}
	t.Fatal(id)
	return Carrier{}
}

// Published figures, each at its edge and just past it.
func TestCarriersTakeWhatTheyPublish(t *testing.T) {
	in := func(x float64) float64 { return x * measure.Inch }
	size := func(w, h float64) measure.Size { return measure.Size{W: w, H: h} }
	for _, c := range []struct {
		carrier, what string
		l             Letter
		want          string
	}{
		// USPS Domestic Mail Manual 101 (letters) and 201: 3 1/2 x 5 to 6 1/8 x 11 1/2 in, 1/4 in,
		// 3.5 oz; length over height 1.3 to 2.5. Large envelopes to 12 x 15 x 3/4 in, 13 oz.
		{"us", "the usual card", Letter{size(in(5.75), in(4.375)), 3, 20, 0}, "letter"},
		{"us", "at a quarter inch", Letter{size(in(5.75), in(4.375)), in(0.25), 20, 0}, "letter"},
		{"us", "past it", Letter{size(in(5.75), in(4.375)), in(0.25) + 0.01, 20, 0}, "large envelope"},
		{"us", "uneven", Letter{size(in(5.75), in(4.375)), 4, 20, 2}, "letter, non-machinable"},
		{"us", "a square", Letter{size(in(5.25), in(5.25)), 3, 20, 0}, "letter, non-machinable"},
		{"us", "3.6 oz", Letter{size(in(5.75), in(4.375)), 3, 3.6 * 28.35, 0}, "large envelope"},
		{"us", "over three quarters", Letter{size(in(5.75), in(4.375)), in(0.76), 100, 0}, Parcel},
		// Sizes of the United Kingdom's inland post: letter 240 x 165 x 5 mm, 100 g; large letter
		// 353 x 250 x 25 mm, 750 g.
		{"gb", "C6 and thin", Letter{size(162, 114), 5, 100, 3}, "letter"},
		{"gb", "thicker", Letter{size(162, 114), 5.01, 100, 3}, "large letter"},
		{"gb", "heavier", Letter{size(162, 114), 5, 101, 3}, "large letter"},
		{"gb", "as large as it gets", Letter{size(353, 250), 25, 750, 3}, "large letter"},
		{"gb", "larger", Letter{size(354, 250), 25, 750, 3}, Parcel},
		// Universal Postal Union, format P: 90 x 140 to 165 x 245 x 5 mm, 100 g; G to 305 x 381 x
		// 20 mm, 500 g.
		{"upu", "small", Letter{size(245, 165), 5, 100, 0}, "small letter (P)"},
		{"upu", "thicker", Letter{size(245, 165), 6, 100, 0}, "large letter (G)"},
		{"upu", "too thick", Letter{size(245, 165), 21, 100, 0}, Parcel},
	} {
		got := carrier(t, c.carrier).Take(c.l, measure.Metric)
		assert.Equal(t, c.want, got.Class, "%s, %s", c.carrier, c.what)
		assert.Equal(t, got.Class != carrier(t, c.carrier).Classes[0].Name, got.Not != "", "%s, %s: %s", c.carrier, c.what, got.Not)
		assert.NotEmpty(t, got.Source)
		assert.NotEmpty(t, got.Date)
	}
}

// A file that a person spoilt is refused with the place.
func TestASpoiltFileOfCarriersIsRefused(t *testing.T) {
	for doc, want := range map[string]string{
		`[`:  "read the carriers",
		`[]`: "give 1 to 20",
		`[{"id":"x","name":"X","source":"s","date":"d","classes":[]}]`:                                                                                               "X has no classes",
		`[{"id":"x","name":"X","classes":[{"name":"letter"}]}]`:                                                                                                      "a source and a date",
		`[{"id":"x","name":"X","source":"s","date":"d","classes":[{"name":"letter","maxShort":100,"maxLong":200,"maxThick":0,"maxGrams":20}]}]`:                      `class "letter" needs`,
		`[{"id":"x","name":"X","source":"s","date":"d","classes":[{"name":"letter","minShort":300,"maxShort":100,"maxLong":200,"maxThick":5,"maxGrams":20}]}]`:       "a least above its most",
		`[{"id":"x","name":"X","source":"s","date":"d","classes":[{"name":"letter","maxShort":100,"maxLong":200,"maxThick":5,"maxGrams":20,"colour":"red"}],"x":1}]`: "colour",
	} {
		_, err := ReadCarriers([]byte(doc))
		assert.ErrorContains(t, err, want)
	}
	again, err := ReadCarriers(Published())
	require.NoError(t, err)
	assert.Equal(t, Carriers(), again)
}

// ISO 536: grammage is mass over area; a square metre of 216 g/m² weighs 216 g.
func TestWeightsGoByGrammage(t *testing.T) {
	assert.InDelta(t, 216, Weigh(1e6, 216), 1e-9)
	assert.InDelta(t, 216*0.10795*0.1397, Weigh(107.95*139.7, 216), 1e-6)
}
