package trace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A scanner that is a little less sharp than most passes for one that shows a white core on every piece,
// on a grey sheet, or a shadow beside every piece, on a pale one: outlines came to lie 0.07 mm
// and 0.02 mm off. Cores that do show are still found. The truth is what the scene was drawn from.
func TestAWiderBlurIsNeitherRimNorShadow(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct {
		scene     onSheet
		mean, p95 float64 // mm
	}{
		"dark grey":         {onSheet{grey: 66, blur: 1.1, seed: 8101, set: basics()}, 0.006, 0.012},
		"grey":              {onSheet{grey: 88, blur: 1.1, seed: 8102, set: demoSets(t)[0]}, 0.006, 0.012},
		"pale":              {onSheet{grey: 205, blur: 1.1, seed: 8103, set: basics()}, 0.010, 0.025},
		"cores, dark grey":  {onSheet{grey: 66, blur: 0.75, core: true, seed: 8104, set: basics()}, 0.020, 0.060},
		"cores, wider blur": {onSheet{grey: 20, blur: 1.1, core: true, seed: 8105, set: basics()}, 0.020, 0.060},
	} {
		r := c.scene.run(t)
		assert.Zero(t, r.missed+r.false_, name)
		assert.LessOrEqual(t, r.mean, c.mean, name)
		assert.LessOrEqual(t, r.p95, c.p95, name)
		assert.GreaterOrEqual(t, r.covered, r.judged*8/10, name)
	}
}
