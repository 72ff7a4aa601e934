package card

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestSchoolsThatOrder(t *testing.T) {
	assert.True(t, LightGround.Ordered())
	assert.True(t, DarkGround.Ordered())
	assert.False(t, LocalColour.Ordered(), "only neighbours stay apart")
	assert.False(t, EveryPiece.Ordered(), "every piece is ordered in itself")
	assert.False(t, School("").Ordered())
}

func TestPassesCountAtLeastOnce(t *testing.T) {
	assert.Equal(t, 1, Blend{}.Strikes())
	assert.Equal(t, 3, Blend{Impressions: 3}.Strikes())
	assert.Equal(t, 1, Finish{}.Strikes())
}
