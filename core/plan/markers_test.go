package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// A marker takes dye lines along wherever it comes upon them, over them or beside them; pigment
// lines stand, and a broad pale dye is no line. The mend takes a black that stands.
func TestMarkersTakeDyeLinesAlong(t *testing.T) {
	t.Parallel()
	two := func(lower kit.InkKind, l float64) (card.Card, kit.Kit) {
		o := two(40, 70, laidOver(kit.Alcohol, lower, l))
		return o.c, o.k
	}
	c, k := two(kit.Dye, 12)
	f := finding(warm.Of(c, k), "runs:")
	require.NotNil(t, f)
	assert.Contains(t, f.What, "will run into")
	assert.Contains(t, f.Why, "upper is a marker, and its alcohol takes lower along, which is a dye")
	for _, of := range []struct {
		kind kit.InkKind
		l    float64
	}{{kit.Pigment, 12}, {kit.Waterproof, 12}, {kit.Dye, 70}} {
		c, k := two(of.kind, of.l)
		assert.Nil(t, finding(warm.Of(c, k), "runs:"), "%s of %v", of.kind, of.l)
	}
	stands := grey("stands", 14)
	stands.Kind = kit.Pigment
	k.Inks = append(k.Inks, stands)
	f = finding(warm.Of(c, k), "runs:")
	require.NotNil(t, f)
	require.NotNil(t, f.Mend)
	mended, err := c.Apply(k, f.Mend.Edits...)
	require.NoError(t, err)
	assert.Nil(t, finding(warm.Of(mended, k), "runs:"), "the mend settles it")
}
