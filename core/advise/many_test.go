package advise_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/kit"
	"ochrestone/core/look"
)

// However many spacers lie in the stores, few sorts of them are looked at, and a height that one
// of the first comes to is found.
func TestAWallOfSpacers(t *testing.T) {
	k := kit.Kit{}
	for i := range 4900 {
		k.Spacers = append(k.Spacers, kit.Spacer{ID: fmt.Sprint(i), Name: fmt.Sprintf("Pad %d", i), Kind: "square", Thickness: 0.5 + float64(i%400)/100, W: 5, H: 5})
	}
	got := advise.Rises(look.NewStock(k), 2, 0.05, 0.05)
	require.NotEmpty(t, got)
	assert.Less(t, len(got), 20_000)
	for _, r := range got {
		assert.LessOrEqual(t, math.Abs(r.Height-2), 0.05+1e-6)
	}
}
