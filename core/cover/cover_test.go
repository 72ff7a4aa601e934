package cover_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/look"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

func sheetAt(id, paper string, x, y, w, h float64) card.Element {
	return card.Element{ID: id, Name: id, Face: card.Front, Place: card.Place{X: x, Y: y}, Sheet: &card.Sheet{Paper: paper, W: w, H: h}}
}

// Areas of rectangles by hand.
func TestWhatIsLeftToSee(t *testing.T) {
	c := card.Card{Base: card.Base{W: 100, H: 100}, Elements: []card.Element{
		sheetAt("low", "chalk", 50, 50, 40, 40), sheetAt("side", "chalk", 80, 50, 40, 100), sheetAt("clear", "vellum", 50, 50, 90, 90), sheetAt("corner", "chalk", 32, 32, 4, 4)}}
	b := build.Expand(c, look.NewStock(trial.Kit()), nil, build.With{})
	left, over, err := cover.Left(&b, 0, b.Things[0].Outline)
	require.NoError(t, err)
	assert.InDelta(t, 40*30-4*4, left.Area(), 1e-6, "a quarter under the side, a corner; vellum hides nothing")
	assert.Equal(t, []string{"side", "corner"}, over)
	left, over, err = cover.Left(&b, 3, b.Things[3].Outline)
	require.NoError(t, err)
	assert.InDelta(t, 16, left.Area(), 1e-9, "the top is under nothing")
	assert.Empty(t, over)
	left, _, err = cover.Left(&b, 0, shape.Rect(61, 40, 8, 8))
	require.NoError(t, err)
	assert.True(t, left.Empty())
}

func TestWhatIsBuried(t *testing.T) {
	for _, c := range []struct {
		w    float64
		want bool
	}{{39, true}, {40.5, false}, {60, false}} {
		b := build.Expand(card.Card{Base: card.Base{W: 100, H: 100}, Elements: []card.Element{sheetAt("low", "chalk", 50, 50, c.w, 20), sheetAt("top", "chalk", 50, 50, 40, 40)}}, look.NewStock(trial.Kit()), nil, build.With{})
		over, is, err := cover.Buried(&b, 0, 0.02)
		require.NoError(t, err)
		assert.Equal(t, c.want, is, "%g mm wide under 40", c.w)
		if c.want {
			assert.Equal(t, []string{"top"}, over)
		}
	}
}
