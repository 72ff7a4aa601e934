package trace

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A profile without a pixel in it explains nothing, and says so.
func TestAProfileThatTellsNothing(t *testing.T) {
	e := &even{chans: 3, sheet: [3]float64{0.8, 0.8, 0.8}, hi: profileLen}
	for _, casts := range [][]shadow{nil, shadows(11.8)} {
		for _, f := range e.widths(0.75, 11.8, edgeFit{}, casts) {
			assert.False(t, f.ok)
		}
		assert.False(t, e.rimmed(0.75, 11.8, edgeFit{}, casts).ok)
	}
}
