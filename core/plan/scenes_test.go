package plan_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	pictures "ochrestone/core/scene"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// Every step of every card shows what it is about, and every leaf of the front is put down by some step
// and shown by one before or with it: nothing comes into the picture out of nowhere.
func TestEveryStepHasItsPicture(t *testing.T) {
	t.Parallel()
	check := func(name string, p plan.Plan) {
		up := p.Build.Upward()
		put := map[int]string{}
		for n, s := range pictures.Of(&p.Build, p.Steps) {
			a := p.Steps[n]
			assert.Equal(t, a.Key, s.Key)
			whole := []string{work.Fold, work.Finish, work.Elsewhere}
			if len(s.Lit) == 0 && !slices.Contains(whole, a.ID.Verb) {
				e, ok := p.Build.Card.Element(a.ID.Element)
				away := a.ID.Element == "" && a.ID.Motif == "" || ok && e.Face != card.Front
				assert.True(t, away, "%s: nothing is lit at %q", name, a.Title)
			}
			for _, k := range s.Lit {
				if i := up[k]; s.Puts && !p.Build.Pieces[i].Print() {
					put[i] = fmt.Sprint(put[i], a.Title, "; ")
				}
			}
		}
		for i, piece := range p.Build.Pieces {
			if !piece.Print() && len(piece.Holds) > 0 {
				assert.NotEmpty(t, put[i], "%s: %v is never put down", name, piece.ID)
			}
		}
	}
	for _, n := range trial.Cards() {
		check(n.Name, warm.Of(n.Card, trial.Kit(), plan.Typeface(trial.Blocks{})))
	}
	for _, s := range trial.Strangers() {
		check(s.ID, warm.Of(s.Card, s.Kit, plan.Typeface(trial.Blocks{})))
	}
}
