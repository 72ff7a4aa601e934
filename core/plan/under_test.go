package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/work"
)

// A stack within a stack, each on foam: what rides on a piece that rides on another is no
// reason to put that down first, so all is pressed together before any foam is under it.
func TestAStackIsPressedBeforeItsFoam(t *testing.T) {
	c, k := moth(t)
	m := &c.Motifs[0]
	foam := card.Foam(k.Spacers[0].ID, 1)
	glue := card.Glue("")
	for i := range m.Layers {
		m.Layers[i].Bonds, m.Layers[i].Make = glue, card.Cut
		if i == 1 || i == 2 { // hind wings, and the patches on them
			m.Layers[i].Bonds = foam
		}
	}
	p := plan.NewPlanner().Of(c, k)
	acts := work.Acts(&p.Build, p.Patterns, func(mm float64) string { return fmt.Sprint(mm) })
	order, err := work.Order(acts)
	require.NoError(t, err)
	assert.NoError(t, newTable(p.Build, acts).lay(order))
}
