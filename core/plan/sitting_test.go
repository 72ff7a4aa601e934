package plan_test

import (
	"context"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
	"ochrestone/demo"
)

// lotted is a card in so many lots: every image in a colourway of its own for each, its inks
// handed on from layer to layer.
func lotted(c card.Card, lots int, copies func(n int) int) card.Card {
	c.Motifs = slices.Clone(c.Motifs)
	c.Lots = nil
	for n := range lots {
		l := card.Lot{ID: fmt.Sprint("lot", n), Name: fmt.Sprint("sort ", n), Copies: copies(n)}
		for i := range c.Motifs {
			m := &c.Motifs[i]
			if n == 0 || len(m.Colourways) == 0 {
				continue
			}
			was := m.Colourways[0]
			w := card.Colourway{ID: fmt.Sprint("lot-", n), Name: fmt.Sprint("Way ", n), Layers: map[string]card.Finish{}}
			ids := slices.Sorted(maps.Keys(was.Layers))
			for k, id := range ids {
				f := was.Layers[id]
				if o := was.Layers[ids[(k+n)%len(ids)]]; o.Ink != "" && f.Ink != "" {
					f.Ink = o.Ink
				}
				w.Layers[id] = f
			}
			m.Colourways = append(slices.Clone(m.Colourways), w)
			for _, o := range m.Colourways[:1] {
				l.Swaps = append(l.Swaps, card.Swap{Motif: m.ID, From: o.ID, To: w.ID})
			}
		}
		c.Lots = append(c.Lots, l)
	}
	return c
}

// onTheBench makes every card of a sitting on a small bench of its own, in the order in which
// the sitting goes.
func onTheBench(maker *plan.Planner, jobs []plan.Job, k kit.Kit, s plan.Sitting, opts ...plan.Option) error {
	for _, m := range s.Cards {
		var c card.Card
		for _, j := range jobs {
			if j.ID != m.Card {
				continue
			}
			c = j.Card
			for _, l := range j.Card.Lots {
				if l.ID == m.Lot {
					c = j.Card.Of(l)
				}
			}
		}
		p := maker.Of(c, k, opts...)
		acts := map[card.Step]work.Act{}
		for _, a := range p.Steps {
			acts[a.ID] = a
		}
		var mine []work.Act
		for _, a := range s.Steps {
			id := a.ID
			id.Card, id.Lot = "", ""
			if a.ID.Card != m.Card || a.For != "" && a.For != m.Title && !slices.Contains(strings.Split(a.For, "; "), m.Name) {
				continue
			}
			own, ok := acts[id]
			if !ok {
				return fmt.Errorf("%s: there is no “%s” on it", m.Name, a.Title)
			}
			delete(acts, id)
			own.Number = a.Number
			mine = append(mine, own)
		}
		if len(acts) > 0 {
			return fmt.Errorf("%s: %d steps are never done", m.Name, len(acts))
		}
		if err := newTable(p.Build, mine).lay(mine); err != nil {
			return fmt.Errorf("%s: %w", m.Name, err)
		}
	}
	return nil
}

// Every card of the demo and of the trials in lots of one to twelve, some with another made
// beside it: each card of the sitting is made on the small bench in the order that is
// proposed, nothing takes more settings or washes than card by card, and no lot waits longer.
func TestSittingsCanBeMadeAsProposed(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	type case_ struct {
		c card.Card
		k kit.Kit
	}
	var all []case_
	for _, c := range demo.Cards(k) {
		all = append(all, case_{c, k})
	}
	for _, n := range trial.Cards() {
		all = append(all, case_{n.Card, trial.Kit()})
	}
	face := plan.Typeface(trial.Blocks{})
	m := plan.NewPlanner()
	for i, at := range all {
		for n := 1; n <= 12; n += 1 + i%3 {
			lots := 1 + n%4
			c := lotted(at.c, lots, func(l int) int { return 1 + (n+l)/lots })
			jobs := []plan.Job{{Card: c}}
			if n%2 == 0 {
				other := all[(i+1)%len(all)]
				if other.k.Papers[0].ID == at.k.Papers[0].ID {
					jobs = append(jobs, plan.Job{ID: "other", Card: other.c})
				}
			}
			s := m.Sitting(jobs, at.k, plan.Did{}, face)
			require.Empty(t, s.Stuck, at.c.Title)
			require.NoError(t, onTheBench(m, jobs, at.k, s, face), "%s, %d lots", at.c.Title, lots)
			cards := 0
			for _, x := range s.Cards {
				cards += x.Copies
			}
			assert.Equal(t, cards, s.Time.Run.Copies)
			assert.LessOrEqual(t, s.Time.Run.Setups, s.Alone.Setups, at.c.Title)
			assert.LessOrEqual(t, s.Time.Run.Washes, s.Alone.Washes, at.c.Title)
			assert.LessOrEqual(t, s.Time.Run.Wall, s.Alone.Wall+1e-6, at.c.Title)
			assert.GreaterOrEqual(t, s.Time.Run.Wall, s.Time.Least-1e-6, at.c.Title)
		}
	}
}

// A sitting by chance, made on the small bench as proposed, a thousand by make explore; and
// followed by chance: whatever is ticked, in whatever order the needs
// allow, what is left is still proposed in an order that can be done, steps keep their
// numbers, and nothing is forgotten.
func TestAnySittingGoesOnFromWhatIsDone(t *testing.T) {
	t.Parallel()
	k := manySets(t)
	maker := plan.NewPlanner()
	rapid.Check(t, func(t *rapid.T) {
		c := anyCard(t, k)
		if c.Validate() != nil {
			t.Skip("not sound")
		}
		c = lotted(c, rapid.IntRange(1, 3).Draw(t, "lots"), func(int) int { return rapid.IntRange(1, 5).Draw(t, "copies") })
		jobs := []plan.Job{{Card: c}}
		whole := maker.Sitting(jobs, k, plan.Did{})
		if err := onTheBench(maker, jobs, k, whole); err != nil {
			t.Fatal(err)
		}
		number := map[card.Step]int{}
		for _, a := range whole.Steps {
			number[a.ID] = a.Number
		}
		rng := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		var done []card.Step
		is := map[string]bool{}
		for range rapid.IntRange(0, len(whole.Steps)).Draw(t, "done") {
			var free []work.Act
			for _, a := range whole.Steps {
				if !is[a.Key] && !slices.ContainsFunc(a.After, func(n work.Need) bool { return !is[n.Key] }) {
					free = append(free, a)
				}
			}
			a := free[rng.IntN(len(free))]
			is[a.Key] = true
			done = append(done, a.ID)
		}
		rest := maker.Sitting(jobs, k, plan.Did{Done: done})
		if len(rest.Doubt) > 0 {
			t.Fatalf("nothing is doubtful, but %v", rest.Doubt)
		}
		if err := onTheBench(maker, jobs, k, rest); err != nil {
			t.Fatal(err)
		}
		for i, a := range rest.Steps {
			if a.Number != number[a.ID] {
				t.Fatalf("“%s” was step %d and is %d", a.Title, number[a.ID], a.Number)
			}
			if i < len(done) && a.ID != done[i] {
				t.Fatal("what is done stands first, as it was done")
			}
		}
	})
}

// By hand: three in one colourway and two in another of a stamped moth. What both share is
// done on five at once; the prints whose ink differs are done lot by lot, the stamp staying.
func TestASittingByHand(t *testing.T) {
	c, k := moth(t)
	c = lotted(c, 2, func(n int) int { return 3 - n })
	s := plan.NewPlanner().Sitting([]plan.Job{{Card: c}}, k, plan.Did{})
	require.Len(t, s.Cards, 2)
	for _, a := range s.Steps {
		switch {
		case a.ID.Verb == work.Fold, a.ID.Verb == work.Finish:
			assert.Equal(t, 5, a.Cards, a.Title)
			assert.Empty(t, a.For, a.Title)
		case a.ID.Colourway == "lot-1":
			assert.Equal(t, 2, a.Cards, a.Title)
			assert.Equal(t, "sort 1", a.For, a.Title)
		}
	}
}

// A step taken back after what followed it is told, with why.
func TestAStepTakenBackIsDoubted(t *testing.T) {
	c, k := moth(t)
	m := plan.NewPlanner()
	jobs := []plan.Job{{Card: c}}
	whole := m.Sitting(jobs, k, plan.Did{})
	var done []card.Step
	for _, a := range whole.Steps {
		if a.ID.Verb != work.Fold {
			done = append(done, a.ID)
		}
	}
	got := m.Sitting(jobs, k, plan.Did{Done: done})
	require.NotEmpty(t, got.Doubt)
	for _, d := range got.Doubt {
		assert.Equal(t, work.Fold, whole.Steps[d.Needs-1].ID.Verb)
		assert.NotEmpty(t, d.Why)
	}
}

// Another ink in hand: its step stays the next one, all keep their numbers, and what comes
// after goes on from that ink.
func TestAnotherInkKeepsTheStepInHand(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	m := plan.NewPlanner()
	for _, c := range demo.Cards(k) {
		jobs := []plan.Job{{Card: c}}
		whole := m.Sitting(jobs, k, plan.Did{})
		var done []card.Step
		for i, a := range whole.Steps {
			if a.Kind == work.PrintAct || a.Kind == work.InkAct {
				for _, ink := range k.Inks {
					got := m.Sitting(jobs, k, plan.Did{Done: done, Used: map[card.Step]string{a.ID: ink.ID}})
					require.Equal(t, a.ID, got.Steps[i].ID, c.Title)
					assert.Equal(t, ink.ID, got.Steps[i].Ink)
					for _, b := range got.Steps {
						n := slices.IndexFunc(whole.Steps, func(o work.Act) bool { return o.ID == b.ID })
						require.Equal(t, n+1, b.Number, c.Title)
					}
				}
				break
			}
			done = append(done, a.ID)
		}
	}
}

// Twelve cards that all differ, each of more than a hundred steps: put in order from plans
// that are made, and from nothing; and the next step after a tick.
func BenchmarkSitting(b *testing.B) {
	k, err := demo.Kit()
	require.NoError(b, err)
	cards := demo.Cards(k)
	c := cards[len(cards)-1]
	c = lotted(c, 12, func(int) int { return 1 })
	jobs := []plan.Job{{Card: c}, {ID: "other", Card: cards[2]}}
	m := plan.NewPlanner()
	s := m.Sitting(jobs, k, plan.Did{})
	var done []card.Step
	for _, a := range s.Steps[:len(s.Steps)/2] {
		done = append(done, a.ID)
	}
	b.Run("planned again", func(b *testing.B) {
		for range b.N {
			m.Sitting(jobs, k, plan.Did{})
		}
		b.ReportMetric(float64(len(s.Steps)), "steps")
		b.ReportMetric(100*(s.Time.Run.Wall/s.Time.Least-1), "%over")
	})
	b.Run("from nothing", func(b *testing.B) {
		for range b.N {
			plan.NewPlanner().Sitting(jobs, k, plan.Did{})
		}
	})
	ready := m.Prepare(jobs, k)
	b.Run("after a tick", func(b *testing.B) {
		for range b.N {
			ready.Sitting(plan.Did{Done: done})
		}
	})
}

// Twelve beetle cards in four colourways and a moth: what one sitting takes beside doing it
// card by card.
func BenchmarkTwelveBeetlesAndAMoth(b *testing.B) {
	k, err := demo.Kit()
	require.NoError(b, err)
	var beetles, moth card.Card
	for _, c := range demo.Cards(k) {
		switch c.Title {
		case "Five beetles":
			beetles = c
		case "Moth night":
			moth = c
		}
	}
	beetles.Copies = 12
	beetles, err = beetles.Apply(k, card.Edit{Lots: &card.SetLots{Each: beetles.Motifs[0].ID}})
	require.NoError(b, err)
	lots := slices.Clone(beetles.Lots[:4])
	for i := range lots {
		lots[i].Copies = 3
	}
	beetles, err = beetles.Apply(k, card.Edit{Lots: &card.SetLots{Lots: lots}})
	require.NoError(b, err)
	jobs := []plan.Job{{Card: beetles}, {ID: "moth", Card: moth}}
	m := plan.NewPlanner()
	for range b.N {
		s := m.Sitting(jobs, k, plan.Did{})
		c := m.Cutting(context.Background(), jobs, k, nil)
		sheets := 0
		for _, st := range c.Stocks {
			sheets += st.Needs
		}
		for name, both := range map[string][2]float64{"sheets": {float64(sheets), float64(c.One)}, "passes": {float64(c.Runs), float64(c.OneRuns)},
			"settings": {float64(s.Time.Run.Setups), float64(s.Alone.Setups)}, "washes": {float64(s.Time.Run.Washes), float64(s.Alone.Washes)},
			"inks": {float64(s.Time.Run.Inks), float64(s.Alone.Inks)}, "hours": {s.Time.Run.Wall / 60, s.Alone.Wall / 60}} {
			b.ReportMetric(both[0], name)
			b.ReportMetric(both[1], name+"-alone")
		}
		b.ReportMetric(100*(s.Time.Run.Wall/s.Time.Least-1), "%over")
	}
}

// The order of every demo card, made once and twelve times: how long finding it takes, and
// how far it lies over the bound.
func BenchmarkOrders(b *testing.B) {
	k, err := demo.Kit()
	require.NoError(b, err)
	m := plan.NewPlanner()
	for _, c := range demo.Cards(k) {
		for _, n := range []int{1, 12} {
			c.Copies = n
			ready := m.Prepare([]plan.Job{{Card: c}}, k)
			b.Run(fmt.Sprint(c.Title, " x ", n), func(b *testing.B) {
				var s plan.Sitting
				for range b.N {
					s = ready.Sitting(plan.Did{})
				}
				b.ReportMetric(float64(len(s.Steps)), "steps")
				b.ReportMetric(100*(s.Time.Run.Wall/s.Time.Least-1), "%over")
			})
		}
	}
}
