package colour

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func lin(hex string) Linear {
	c, err := ParseHex(hex)
	if err != nil {
		panic(err)
	}
	return c
}

// Beer and Lambert's law and an opaque paint are the two ends of the model: a
// film made by either is found again from its samples on three papers.
func TestFitFindsTheFilmThatMadeTheSamples(t *testing.T) {
	papers := []Linear{lin("#f6f5f1"), lin("#b58f66"), lin("#3b3d40")}
	white := lin("#f6f5f1")
	for name, f := range map[string]Film{
		"clear dye":    FilmFrom(lin("#b4524f"), white, 0),
		"chalky":       {T: Linear{0.4, 0.5, 0.7}, Body: Linear{0.5, 0.45, 0.4}, Hide: 0.4},
		"opaque paint": {T: Linear{0.1, 0.1, 0.1}, Body: Linear{0.6, 0.5, 0.1}, Hide: 0.95},
	} {
		var ss []Sample
		for _, p := range papers {
			for n := 1; n <= 2; n++ {
				ss = append(ss, Sample{p, f.Over(p, n), n})
			}
		}
		got := Fit(FilmFrom(f.Over(white, 1), white, 0.2), ss)
		for _, p := range append(papers, lin("#6d7a4c"), lin("#263249")) {
			assert.Less(t, Difference(got.Over(p, 1).Lab(), f.Over(p, 1).Lab()), 1.2, "%s on %s", name, p.Hex())
			assert.Less(t, Difference(got.Over(p, 3).Lab(), f.Over(p, 3).Lab()), 2.0, "%s thrice on %s", name, p.Hex())
		}
	}
}

func TestFitKeepsThePriorWhereNothingIsKnown(t *testing.T) {
	white := lin("#f6f5f1")
	prior := FilmFrom(lin("#55689f"), white, 0.45)
	assert.Equal(t, prior, Fit(prior, nil))
	// One sample on white: white is met, dark card still leans on the prior.
	seen := lin("#5d70a8")
	got := Fit(prior, []Sample{{white, seen, 1}})
	assert.Less(t, Difference(got.Over(white, 1).Lab(), seen.Lab()), 1.0)
	dark := lin("#3b3d40")
	assert.Less(t, Difference(got.Over(dark, 1).Lab(), prior.Over(dark, 1).Lab()), 6.0)
}

// More samples never make the model worse on the papers sampled.
func TestFitBeatsThePriorOnItsSamples(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		white, dark := lin("#f6f5f1"), lin("#4a382e")
		truth := Film{T: hexColour(t, "t"), Body: hexColour(t, "body"), Hide: rapid.Float64Range(0, 0.9).Draw(t, "hide")}
		prior := FilmFrom(truth.Over(white, 1), white, 0.2)
		ss := []Sample{{white, truth.Over(white, 1), 1}, {dark, truth.Over(dark, 1), 1}}
		got := Fit(prior, ss)
		var was, is float64
		for _, s := range ss {
			was += Difference(prior.Over(s.Under, 1).Lab(), s.Dry.Lab())
			is += Difference(got.Over(s.Under, 1).Lab(), s.Dry.Lab())
		}
		if is > was+0.6 {
			t.Fatalf("fitted %.2f, prior %.2f", is, was)
		}
	})
}
