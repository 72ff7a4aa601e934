package proof

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// Where nothing can be said of how sure a place is, it is said to be as unsure as can be, in
// numbers that can be written down.
func TestWhatNothingIsKnownOfIsWritten(t *testing.T) {
	film := colour.FilmFrom(colour.Linear{0.3, 0.2, 0.2}, colour.Linear{0.9, 0.9, 0.9}, 0)
	m := newModel(colour.Linear{0.9, 0.9, 0.9}, []Layer{
		{Label: "A", Region: shape.Rect(0, 0, 20, 20), Film: film, Strikes: 1},
		{Label: "B", Region: shape.Rect(5, 5, 6, 9), Film: film, Strikes: 1},
	})
	p := &Plane{w: 90, h: 90, perMM: 3, v: make([]float32, 3*90*90)}
	out := Result{Layers: make([]Off, 2)}
	m.place(&out, p, surety{}, []float64{1, 1})
	assert.True(t, out.Layers[1].Lost)
	assert.False(t, math.IsInf(out.Layers[1].SureShift, 0))
	_, err := json.Marshal(out.Layers)
	require.NoError(t, err)
}
