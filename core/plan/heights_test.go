package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
)

// Ways for which there are not enough spacers come last, and say how many they take; what
// nobody counted is taken to be there.
func TestHeightsAreCountedAgainstWhatIsOwned(t *testing.T) {
	few, many := 1, 500
	at := func(left *int) []string {
		o := two(40, 70, func(c *card.Card, k *kit.Kit) {
			c.Elements = c.Elements[:1]
			k.Spacers = []kit.Spacer{{ID: "one", Name: "One", Kind: "square", Thickness: 2, W: 6, H: 6, Left: left}, {ID: "half", Name: "Half", Kind: "square", Thickness: 1, W: 6, H: 6}}
			laid(c, "strip", 0, 0, card.Sheet{Paper: "chalk", W: 60, H: 12}).Bonds = card.Foam("half", 2)
		})
		m := plan.NewPlanner()
		got, err := m.Heights(m.Of(o.c, o.k), "strip", "", "")
		require.NoError(t, err)
		var first []string
		for n, w := range got.Ways {
			assert.False(t, n > 0 && len(w.Short) == 0 && len(got.Ways[n-1].Short) > 0, "what is too little comes last")
			for _, s := range w.Short {
				assert.Equal(t, "one", s.Spacer)
				assert.Equal(t, 1, s.Left)
				assert.Greater(t, s.Needs, 1)
			}
			first = append(first, w.Bond.Spacer)
		}
		return first
	}
	assert.Equal(t, "one", at(nil)[0], "one pad high before two")
	assert.Equal(t, "one", at(&many)[0])
	short := at(&few)
	assert.Equal(t, "half", short[0])
}

// Nothing of a leaf stands higher than it is said to at its highest, bent or not.
func TestNothingStandsHigherThanItsHighest(t *testing.T) {
	t.Parallel()
	for _, wide := range []float64{2, 4, 5, 7, 10} {
		for _, off := range []float64{0, 0.7, 1.5} {
			s, _ := standing(func(c *card.Card, _ *kit.Kit) {
				laid(c, "stem", off, 0, card.Sheet{Paper: "oat", W: wide, H: 60}).Bonds = card.Glue("wet")
				laid(c, "strip", 0, 0, card.Sheet{Paper: "chalk", W: 76, H: 12.7}).Bonds = card.Glue("wet")
			})
			p := s["strip"]
			require.False(t, p.Bent.Flat())
			for k := range p.Bent.Z {
				if q := p.Bent.Node(k); p.Outline.Contains(q) {
					assert.LessOrEqual(t, p.Over(q), p.Highest()+1e-9)
				}
			}
			assert.LessOrEqual(t, p.Z1, p.Highest()+0.005, "%g mm, %g aside", wide, off)
		}
	}
}
