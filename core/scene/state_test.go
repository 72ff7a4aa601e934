package scene

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A piece is to come, begun, in place, or lit; what lies over what is lit is told from what lies beneath.
func TestPiecesComeToTheirPlaces(t *testing.T) {
	steps := []Step{
		{Key: "cut", Lit: []int{0, 1}},
		{Key: "ink", Lit: []int{1}},
		{Key: "place", Lit: []int{0}, Puts: true},
		{Key: "glue", Lit: []int{1}, Puts: true},
		{Key: "touch up", Lit: []int{0}},
		{Key: "wrap", Lit: []int{}},
	}
	grow(steps, 3)
	var got []string
	for _, s := range steps {
		got = append(got, s.States)
	}
	assert.Equal(t, []string{"ll.", "bl.", "lb.", "dl.", "lo.", "dd."}, got)
	assert.Equal(t, []int{0, 2, 1}, steps[3].Order(), "lit over what is to come")
	assert.Equal(t, []int{2, 0, 1}, steps[4].Order(), "and beneath what lies on it")
	assert.Equal(t, []int{0, 1, 2}, steps[5].Order())
	grow(nil, 2)
	grow(steps[:1], 2)
	assert.Equal(t, "ll", steps[0].States)
}
