package trace_test

import (
	"context"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// Noise is refused, and not followed round every grain.
func TestNoiseIsRefused(t *testing.T) {
	rnd := rand.New(rand.NewPCG(1, 1))
	p := &picture.Picture{W: 2400, H: 2400, Pix: make([]uint8, 3*2400*2400), DPI: 300, Reduced: 1}
	for i := range p.Pix {
		p.Pix[i] = uint8(rnd.IntN(256))
	}
	for _, opts := range [][]trace.Option{{trace.Prints()}, nil} {
		_, err := trace.Find(context.Background(), p, trace.DPI(300), opts...)
		var pic *picture.Problem
		require.ErrorAs(t, err, &pic)
		assert.NotEmpty(t, pic.Mend)
	}
}
