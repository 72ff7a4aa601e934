package motif

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

func stack(parts ...shape.Region) ([]card.Layer, kit.Set) {
	s := kit.Set{Name: "test"}
	var ls []card.Layer
	for i, g := range parts {
		id := string(rune('a' + i))
		s.Parts = append(s.Parts, kit.Part{ID: id, Label: id, Outline: g})
		ls = append(ls, card.Layer{ID: id, Part: id, Label: id, Make: card.Cut})
	}
	return ls, s
}

// Closed forms: concentric discs show as rings, the top one whole.
func TestShownRegionsOfConcentricDiscs(t *testing.T) {
	o := shape.Point{X: 40, Y: 40}
	img, err := Analyse(stack(shape.Disc(o, 30), shape.Disc(o, 20), shape.Disc(o, 10)))
	require.NoError(t, err)
	for i, want := range []float64{900 - 400, 400 - 100, 100} {
		assert.InEpsilon(t, math.Pi*want, img.Views[i].Visible, 3e-3)
	}
	assert.InDelta(t, 5.0/9, img.Views[0].Share(), 1e-3)
	assert.Equal(t, []int{Ground, 0, 1}, []int{img.Views[0].Host, img.Views[1].Host, img.Views[2].Host})
	assert.InEpsilon(t, math.Pi*900, img.Silhouette.Area(), 1e-3)
	var pairs [][2]int
	for _, p := range img.Touches {
		pairs = append(pairs, [2]int{p.A, p.B})
		if p.A == 0 && p.B == 1 {
			assert.InEpsilon(t, 2*math.Pi*20, p.Length, 0.02, "they share the edge of the smaller")
		}
	}
	assert.ElementsMatch(t, [][2]int{{Ground, 0}, {0, 1}, {1, 2}}, pairs, "the lowest and the top do not touch")
}

// The areas that show always add up to the silhouette.
func TestShownAreasAddUp(t *testing.T) {
	img, err := Analyse(stack(shape.Rect(0, 0, 40, 30), shape.Disc(shape.Point{X: 40, Y: 15}, 12), shape.Rect(5, -5, 8, 40), shape.Rect(100, 0, 3, 3)))
	require.NoError(t, err)
	var sum float64
	for _, v := range img.Views {
		sum += v.Visible
	}
	assert.InDelta(t, img.Silhouette.Area(), sum, 0.2)
	assert.Equal(t, Ground, img.Views[3].Host, "beside everything else")
}

func TestHiddenAndSeeThrough(t *testing.T) {
	ls, s := stack(shape.Rect(5, 5, 10, 10), shape.Rect(0, 0, 30, 30))
	img, err := Analyse(ls, s)
	require.NoError(t, err)
	assert.True(t, img.Views[0].Hidden())
	img, err = Analyse(ls, s, SeeThrough(func(l card.Layer) bool { return l.ID == "b" }))
	require.NoError(t, err)
	assert.InDelta(t, 100, img.Views[0].Visible, 0.01, "vellum dims, it does not hide")
	assert.InDelta(t, 900, img.Silhouette.Area(), 0.01)
}

func TestNamedHostWinsAndMissingPartIsNamed(t *testing.T) {
	ls, s := stack(shape.Rect(0, 0, 30, 30), shape.Rect(2, 2, 20, 20), shape.Rect(4, 4, 5, 5))
	ls[2].On = "a"
	img, err := Analyse(ls, s)
	require.NoError(t, err)
	assert.Equal(t, 0, img.Views[2].Host)
	ls[1].Part = "z"
	_, err = Analyse(ls, s)
	assert.ErrorIs(t, err, ErrPart)
	assert.ErrorContains(t, err, `"b"`)
}

func TestProposeFits(t *testing.T) {
	o := shape.Point{X: 20, Y: 20}
	parts := Propose([]kit.Part{{ID: "dot", Outline: shape.Disc(o, 3)}, {ID: "mat", Outline: shape.Disc(o, 18)}, {ID: "panel", Outline: shape.Disc(o, 20)}, {ID: "arm", Outline: shape.Rect(30, 18, 40, 4)}})
	got := map[string]kit.Fit{}
	for _, p := range parts {
		got[p.ID] = p.Fit
	}
	assert.Equal(t, map[string]kit.Fit{"panel": kit.FitFree, "mat": kit.FitEvenRim, "dot": kit.FitWithin, "arm": kit.FitFree}, got)
	assert.Equal(t, []int{1, 2, 3, 4}, []int{parts[0].Order, parts[1].Order, parts[2].Order, parts[3].Order})
}
