package trace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/vision/trace"
)

// A4 (ISO 216) at 300 dots to the inch has 2480 by 3508 dots: right, relabelled 72
// and 600, and a phone's picture that says 72.
func TestAScaleThatCannotBe(t *testing.T) {
	mm := func(px, dpi float64) float64 { return px / dpi * 25.4 }
	note, err := trace.Glass(mm(2480, 300), mm(3508, 300), 300)
	require.NoError(t, err)
	assert.Empty(t, note)
	_, err = trace.Glass(mm(2480, 72), mm(3508, 72), 72)
	assert.ErrorContains(t, err, "875 × 1238 mm")
	assert.ErrorContains(t, err, "At 300 it would be a whole glass")
	note, err = trace.Glass(mm(2480, 600), mm(3508, 600), 600)
	require.NoError(t, err)
	assert.Contains(t, note, "Was it scanned at 300")
	_, err = trace.Glass(mm(4032, 72), mm(3024, 72), 72)
	assert.ErrorContains(t, err, "If it is a photograph")
	note, err = trace.Glass(130, 95, 300)
	require.NoError(t, err)
	assert.Empty(t, note, "a part of the glass is fine")
}
