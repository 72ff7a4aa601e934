package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/work"
	"ochrestone/demo/sim"
)

// anyCard draws a card of one or two images from sets nobody tuned, with inks,
// papers, joints, mats and places as they fall.
func anyCard(t *rapid.T, k kit.Kit) card.Card {
	formats := measure.Formats()
	fold := rapid.SampledFrom([]measure.Fold{measure.FoldSide, measure.FoldTop}).Draw(t, "fold")
	c := card.New("Any", formats[rapid.IntRange(0, len(formats)-1).Draw(t, "format")], fold, k)
	for n := range rapid.IntRange(1, 2).Draw(t, "images") {
		set := k.Sets[rapid.IntRange(0, len(k.Sets)-1).Draw(t, fmt.Sprint("set", n))]
		c = c.AddSet(set, k)
	}
	held := func(n string) []card.Bond {
		switch rapid.IntRange(0, 2).Draw(t, n) {
		case 0:
			return card.Foam(k.Spacers[rapid.IntRange(0, len(k.Spacers)-1).Draw(t, n+"s")].ID, rapid.IntRange(1, 2).Draw(t, n+"l"))
		case 1:
			return nil
		}
		return card.Glue(k.Adhesives[rapid.IntRange(0, len(k.Adhesives)-1).Draw(t, n+"g")].ID)
	}
	for mi := range c.Motifs {
		m := &c.Motifs[mi]
		m.School = rapid.SampledFrom([]card.School{card.LightGround, card.DarkGround, card.LocalColour}).Draw(t, "school")
		for li := range m.Layers {
			l := &m.Layers[li]
			l.Bonds = held(fmt.Sprint("j", mi, li))
			if li > 0 && rapid.Bool().Draw(t, "print") {
				l.Make = card.Printed
			}
			f := card.Finish{Ink: k.Inks[rapid.IntRange(0, len(k.Inks)-1).Draw(t, "ink")].ID, Impressions: rapid.IntRange(1, 3).Draw(t, "n")}
			if l.Make == card.Cut {
				f.Paper = k.Papers[rapid.IntRange(0, len(k.Papers)-1).Draw(t, "paper")].ID
			}
			m.Colourways[0].Layers[l.ID] = f
		}
	}
	for i := range c.Elements {
		e := &c.Elements[i]
		if e.Inset != nil {
			continue
		}
		e.Place.X, e.Place.Y = rapid.Float64Range(0, c.Base.W).Draw(t, "x"), rapid.Float64Range(0, c.Base.H).Draw(t, "y")
		e.Place.Turn = rapid.Float64Range(-180, 180).Draw(t, "turn")
		e.Bonds = held(fmt.Sprint("e", i))
	}
	return c
}

func manySets(t testing.TB) kit.Kit {
	_, k := moth(t)
	more, err := sim.Sets()
	require.NoError(t, err)
	k.Sets = append(k.Sets, more...)
	return k
}

// Whatever the card, what is planned keeps the order of the world: needs come
// before what needs them, heat before foam, heights add up, sentences are
// sentences, and every number is one.
func TestAnyCardIsPlannedSoundly(t *testing.T) {
	t.Parallel()
	k := manySets(t)
	maker := plan.NewPlanner()
	rapid.Check(t, func(t *rapid.T) {
		c := anyCard(t, k)
		if err := c.Validate(); err != nil {
			t.Fatal(err)
		}
		p := maker.Of(c, k)
		if _, err := json.Marshal(p); err != nil {
			t.Fatalf("a number that is none: %v", err)
		}
		soundSteps(t, p)
		soundHeights(t, p)
		soundWords(t, p)
		for _, m := range p.Motifs {
			if m.Problem != "" {
				t.Fatalf("%s: %s", m.Name, m.Problem)
			}
			for _, w := range m.Colourways {
				for i, q := range w.Pairs {
					if i > 0 && q.Diff < w.Pairs[i-1].Diff || q.Diff < 0 || q.Length <= 0 {
						t.Fatalf("pairs are not weakest first: %v", w.Pairs)
					}
				}
				for _, e := range w.Eyes {
					if e.Weakest < 0 || math.IsNaN(e.Weakest) {
						t.Fatalf("%v", e)
					}
				}
			}
		}
	})
}

func soundSteps(t *rapid.T, p plan.Plan) {
	at := map[string]int{}
	for i, s := range p.Steps {
		if s.Number != i+1 {
			t.Fatalf("step %d is numbered %d", i+1, s.Number)
		}
		at[s.Key] = i
	}
	told := map[string]bool{}
	for i, s := range p.Steps {
		for _, c := range s.Cautions {
			if told[c] {
				t.Fatalf("%q says again: %s", s.Title, c)
			}
			told[c] = true
		}
		for _, n := range s.After {
			if j, ok := at[n.Key]; ok && j >= i {
				t.Fatalf("%q comes before %q: %s", s.Title, p.Steps[j].Title, n.Why)
			}
		}
		if s.Kind == work.HeatAct && len(told) == 0 {
			t.Fatalf("nothing is said of heat before %q", s.Title)
		}
	}
}

func soundHeights(t *rapid.T, p plan.Plan) {
	for _, s := range p.Stood {
		if s.Z1 < s.Z0 || s.Z0 < p.Depth.Base-1e-9 {
			t.Fatalf("%s stands from %g to %g on a base of %g", s.ID.Element, s.Z0, s.Z1, p.Depth.Base)
		}
		if s.Z1 > p.Depth.Total+1e-9 {
			t.Fatalf("%s reaches %g, the card %g", s.ID.Element, s.Z1, p.Depth.Total)
		}
	}
	// Nothing goes through anything: where two leaves lie over each other the one that is laid
	// later is above, wherever one looks.
	for i, hi := range p.Stood {
		if hi.Print() || hi.Outline.Empty() {
			continue
		}
		box := hi.Outline.Bounds()
		for j, lo := range p.Stood {
			if lo.Print() || lo.Turn >= hi.Turn || !box.Meets(lo.Outline.Bounds()) || i == j {
				continue
			}
			for y := box.Min.Y + 0.37; y < box.Max.Y; y += 3.1 {
				for x := box.Min.X + 0.53; x < box.Max.X; x += 2.9 {
					q := shape.Point{X: x, Y: y}
					if !hi.Outline.Contains(q) || !lo.Outline.Contains(q) {
						continue
					}
					if in := lo.Over(q) - hi.Below(q); in > 0.25 {
						t.Fatalf("%v goes %.2f mm into %v at %v", hi.ID, in, lo.ID, q)
					}
				}
			}
		}
	}
	if p.Depth.Weight <= 0 || p.Depth.Weight > 200 {
		t.Fatalf("a card of %g g", p.Depth.Weight)
	}
}

func soundWords(t *rapid.T, p plan.Plan) {
	seen := map[string]bool{}
	for _, f := range p.Findings {
		if seen[f.ID] {
			t.Fatalf("two notes are called %s", f.ID)
		}
		seen[f.ID] = true
		if f.What == "" || !strings.HasSuffix(f.Why, ".") || !strings.HasSuffix(f.Do, ".") || f.Cause == "" {
			t.Fatalf("a note that is no sentence: %+v", f)
		}
		if strings.Contains(f.What+f.Why+f.Do, "NaN") || strings.Contains(f.What+f.Why+f.Do, "%!") {
			t.Fatalf("a note gone wrong: %+v", f)
		}
	}
}

// What shows of all layers together is the silhouette, for every set there is.
func TestShownAreasFillTheSilhouette(t *testing.T) {
	t.Parallel()
	k := manySets(t)
	for _, s := range k.Sets {
		c := card.New("One", measure.Formats()[0], measure.FoldSide, k).AddSet(s, k)
		m := warm.Of(c, k).Motifs[0]
		require.Empty(t, m.Problem, s.Name)
		var shown, edge float64
		for _, l := range m.Layers {
			assert.GreaterOrEqual(t, l.Share, -1e-9)
			assert.LessOrEqual(t, l.Share, 1+1e-4, "%s, %s", s.Name, l.Label)
			shown += l.Visible
			edge += l.W + l.H
		}
		assert.InDelta(t, m.Image().Silhouette.Area(), shown, 0.01*edge+0.5, s.Name)
	}
}

// Moving an image does not change what its layers are, only where it lies; a
// quarter turn swaps its width and height.
func TestPlaceAndTurnChangeOnlyThePlace(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	a := warm.Of(c, k)
	c.Elements[2].Place.X += 3
	c.Elements[2].Place.Turn = 90
	b := warm.Of(c, k)
	assert.Equal(t, a.Motifs[0].Layers, b.Motifs[0].Layers)
	assert.InDelta(t, a.Front.Elements[0].W, b.Front.Elements[0].H, 1e-6)
	assert.InDelta(t, a.Front.Elements[0].H, b.Front.Elements[0].W, 1e-6)
	assert.InDelta(t, a.Depth.Total, b.Depth.Total, 0.4)
}
