package plan_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	pictures "ochrestone/core/scene"
	"ochrestone/core/shape"
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

// What is stamped on a sheet is shown where it falls: a strike of a sheet that is turned under the
// stamp as large as its layer, on the card, and no two strikes of it at one place.
func TestAStrikeIsShownWhereItFalls(t *testing.T) {
	t.Parallel()
	made := two(40, 70, func(c *card.Card, _ *kit.Kit) {
		for i := range c.Motifs[0].Layers {
			c.Motifs[0].Layers[i].Make = card.Printed
		}
		c.Motifs[0].Colourways[0].Layers = map[string]card.Finish{"a": {Ink: "one"}, "b": {Ink: "two"}}
		c.Elements = c.Elements[:1]
		c.Elements[0].Sheet.Treatments = []card.Treatment{{Turned: &card.Turned{Motif: c.Motifs[0].ID, Turns: 4, Start: 1, Y: -30, Colourways: []string{c.Motifs[0].Colourways[0].ID}}}}
	})
	p := warm.Of(made.c, made.k)
	seen := map[string]string{}
	base := shape.Rect(0, 0, made.c.Base.W, made.c.Base.H)
	for i, s := range pictures.Of(&p.Build, p.Steps) {
		a := p.Steps[i]
		if a.ID.Verb != work.Print {
			continue
		}
		require.NotEmpty(t, s.Mark, a.Title)
		in, err := a.Mark().Intersect(base)
		require.NoError(t, err)
		assert.Greater(t, in.Area(), 0.2*a.Mark().Area(), a.Title)
		assert.Empty(t, seen[s.Mark], "%s is where %s is", a.Title, seen[s.Mark])
		seen[s.Mark] = a.Title
	}
	assert.Len(t, seen, 8, "two layers, four strikes each")
}

// What is put down is measured to the nearer edge across and the nearer up and down; each line begins at
// the edge and ends at the outline, as long as it says. What stands past an edge or ends at it is not
// measured there. Distances by counting along the outline.
func TestWhereThingsArePutDown(t *testing.T) {
	t.Parallel()
	measured := 0
	for _, s := range trial.Strangers() {
		p := warm.Of(s.Card, s.Kit, plan.Typeface(trial.Blocks{}))
		for n, pic := range pictures.Of(&p.Build, p.Steps) {
			a := p.Steps[n]
			for _, m := range pic.From {
				measured++
				i := slices.IndexFunc(p.Build.Things, func(th build.Thing) bool { return th.Element.ID == a.ID.Element })
				g, leaf := p.Build.Things[i].Outline, p.Build.Edge(p.Build.Things[i].Element)
				across := math.Abs(m.X1-m.X2) > math.Abs(m.Y1-m.Y2)
				assert.InDelta(t, m.MM, math.Hypot(m.X1-m.X2, m.Y1-m.Y2), 0.06, "%s: %s", s.ID, a.Title)
				near := math.Inf(1)
				for _, q := range shape.Along(g, 0.5) {
					if across {
						near = min(near, q.X-leaf.X, leaf.X+leaf.Size.W-q.X)
					} else {
						near = min(near, q.Y-leaf.Y, leaf.Y+leaf.Size.H-q.Y)
					}
				}
				assert.InDelta(t, near, m.MM, 0.1, "%s: %s", s.ID, a.Title)
				assert.Positive(t, m.MM)
			}
		}
	}
	assert.Greater(t, measured, 60)
}
