package kit

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
)

func TestASetIsScaledToItsTrueWidth(t *testing.T) {
	s := Set{Name: "S", Parts: []Part{{ID: "a", Outline: shape.Rect(0, 0, 30, 10), Lines: "M0 0L30 10"}, {ID: "b", Outline: shape.Rect(30, 0, 10, 10)}}}
	got, err := s.ScaledTo(80)
	require.NoError(t, err)
	assert.InDelta(t, 4*300, got.Parts[0].Outline.Area(), 1e-9, "twice as wide is four times the area")
	assert.Equal(t, "M0 0L60 20", got.Parts[0].Lines)
	assert.Contains(t, got.Notes[0], "Scaled by 2")
	assert.InDelta(t, 300, s.Parts[0].Outline.Area(), 1e-9, "the set itself is left as it was")
	_, err = Set{}.ScaledTo(80)
	assert.Error(t, err)
}

// Closed letters have loose islands (common practice, no source); a shadow lies beneath.
func TestWordsWithShadowAndIslands(t *testing.T) {
	o, island := shape.RingDisc(shape.Point{X: 10, Y: 10}, 10, 5), shape.Disc(shape.Point{X: 10, Y: 10}, 5)
	s, err := Words("o", o, island, 2)
	require.NoError(t, err)
	require.NoError(t, s.Validate())
	require.Len(t, s.Parts, 3)
	assert.Equal(t, []string{"Shadow", "Words", "Islands, loose"}, []string{s.Parts[0].Label, s.Parts[1].Label, s.Parts[2].Label})
	assert.Equal(t, FitEvenRim, s.Parts[1].Fit, "the shadow shows all round")
	assert.Equal(t, "p1", s.Parts[1].Host)
	assert.InDelta(t, 24, s.Parts[0].Outline.Bounds().W(), 0.05, "2 mm larger all round")
	plain, err := Words("o", o, shape.Region{}, 0)
	require.NoError(t, err)
	assert.Len(t, plain.Parts, 1)
}

func TestRanksOfAStack(t *testing.T) {
	got := Stacked(make([]Part, 5), []int{-1, 0, 1, 0, 7})
	var ranks []int
	for _, p := range got {
		ranks = append(ranks, p.Rank)
	}
	assert.Equal(t, []int{1, 2, 3, 2, 1}, ranks)
	assert.Equal(t, []string{"", "p1", "p2", "p1", ""}, []string{got[0].Host, got[1].Host, got[2].Host, got[3].Host, got[4].Host})
}

func TestLettersStandOnTheLine(t *testing.T) {
	s := Set{Parts: []Part{{Label: "h", Outline: shape.Rect(40, 5, 10, 20)}, {Label: "g", Outline: shape.Rect(0, 0, 10, 20)}}}
	h, ok := s.Letter('h')
	require.True(t, ok)
	assert.InDelta(t, 0, h.Bounds().Max.Y, 1e-9)
	assert.InDelta(t, 0, h.Bounds().Min.X, 1e-9)
	g, _ := s.Letter('g')
	assert.InDelta(t, TailShare*20, g.Bounds().Max.Y, 1e-9, "its tail hangs")
	_, ok = s.Letter('x')
	assert.False(t, ok)
}
