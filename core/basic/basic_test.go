package basic

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

func TestBasicDiesAgainstClosedForms(t *testing.T) {
	for _, c := range []struct {
		m    Measures
		area float64
		tol  float64
	}{
		{Measures{Kind: Circle, W: 50}, math.Pi * 625, 0.5},
		{Measures{Kind: Oblong, W: 60, H: 40}, 2400, 1e-6},
		{Measures{Kind: Oblong, W: 60, H: 40, Corner: 8}, 2400 - (4-math.Pi)*64, 0.5},
		{Measures{Kind: RingDie, W: 50, Corner: 5}, math.Pi * (625 - 400), 0.5},
		{Measures{Kind: Fishtail, W: 60, H: 12, Corner: 5}, 60*12 - 2*5*12/2, 1e-6},
		{Measures{Kind: Notched, W: 60, H: 12, Corner: 5}, 60*12 - 5*12/2, 1e-6},
		{Measures{Kind: Tag, W: 40, H: 60, Corner: 8}, 2400 - 64 - math.Pi*4, 0.2},
	} {
		ps, err := Parts(c.m)
		require.NoError(t, err, c.m.Kind)
		require.Len(t, ps, 1)
		assert.InDelta(t, c.area, ps[0].Outline.Area(), c.tol, c.m.Kind)
		b := ps[0].Outline.Bounds()
		assert.InDelta(t, c.m.W, b.W(), 0.05, c.m.Kind)
	}
}

func TestScallopsKeepTheSizeAskedFor(t *testing.T) {
	ps, err := Parts(Measures{Kind: Scallop, W: 100, H: 70, Corner: 4})
	require.NoError(t, err)
	b := ps[0].Outline.Bounds()
	assert.InDelta(t, 100, b.W(), 0.1)
	assert.InDelta(t, 70, b.H(), 0.1)
	assert.Less(t, ps[0].Outline.Area(), 7000.0)
	assert.Greater(t, ps[0].Outline.Area(), 92.0*62)
}

// Nested dies step by the same rim all round (common practice, no source: mats
// step by 1/8 in a side).
func TestNestsStepEvenly(t *testing.T) {
	ps, err := Parts(Measures{Kind: Circle, W: 101.6, Count: 4, Step: 3.175})
	require.NoError(t, err)
	require.Len(t, ps, 4)
	for i, p := range ps {
		assert.InDelta(t, 101.6-2*3.175*float64(i), p.Outline.Bounds().W(), 0.05)
		if i > 0 {
			assert.Equal(t, ps[i-1].ID, p.Host)
			assert.Equal(t, kit.FitEvenRim, p.Fit)
			gap, _, _ := p.Outline.Gap(ps[i-1].Outline)
			assert.InDelta(t, 3.175, gap, 0.03)
		}
	}
	require.NoError(t, kit.Set{Name: "Nest", Parts: ps}.Validate())
}

func TestStitchesRunInsideTheEdge(t *testing.T) {
	ps, err := Parts(Measures{Kind: Stitched, W: 80, H: 50, Corner: 3})
	require.NoError(t, err)
	n := strings.Count(ps[0].Lines, "M")
	assert.InDelta(t, (2*77+2*47-(8-2*math.Pi)*1.5)/2.6, float64(n), 1)
}

func TestImpossibleMeasuresAreNamed(t *testing.T) {
	for _, m := range []Measures{
		{Kind: Circle, W: 20, Count: 5, Step: 3},
		{Kind: Oblong, W: 20, H: 10, Corner: 6},
		{Kind: RingDie, W: 10, Corner: 6},
		{Kind: Scallop, W: 20, H: 20, Corner: 9},
		{Kind: Fishtail, W: 20, H: 10, Corner: 15},
		{Kind: "heart", W: 20},
	} {
		_, err := Parts(m)
		var p kit.Problem
		assert.ErrorAs(t, err, &p, m.Kind)
	}
}
