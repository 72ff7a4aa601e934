package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// stirred is a trial card on which things are moved, laid over and under one another, held otherwise,
// trimmed flush, and ribbons and words are added, by chance.
func stirred(rng *rand.Rand) card.Card {
	k := trial.Kit()
	all := trial.Cards()
	c := all[rng.IntN(len(all))].Card
	for range 2 + rng.IntN(5) {
		var ids []string
		for _, e := range c.Elements {
			if e.Face == card.Front && e.Inset == nil {
				ids = append(ids, e.ID)
			}
		}
		if len(ids) == 0 {
			break
		}
		id := ids[rng.IntN(len(ids))]
		var e card.Edit
		switch rng.IntN(7) {
		case 0, 1:
			e.Move = &card.Move{Element: id, DX: 60*rng.Float64() - 30, DY: 60*rng.Float64() - 30}
		case 2:
			e.Shift = &card.Shift{Element: id, By: 2*rng.IntN(2) - 1}
		case 3:
			e.Hold = &card.Hold{Element: id, Bonds: [][]card.Bond{card.Glue("liquid"), card.Foam("thin", 1)}[rng.IntN(2)]}
		case 4:
			e.Flush = &card.Flush{Elements: []string{id}, On: rng.IntN(3) > 0}
		case 5:
			e.AddRibbon = &card.AddRibbon{}
		case 6:
			e.AddLetters = &card.AddLetters{Text: "wren"}
		}
		if out, err := c.Apply(k, e); err == nil {
			c = out
		}
	}
	return c
}

// On 500 random cards every order that is proposed keeps every rule: the bench makes the card by it.
func TestOrdersOfRandomCardsAreKept(t *testing.T) {
	t.Parallel()
	made, circles, ties := 0, 0, 0
	for seed := range uint64(500) {
		c := stirred(rand.New(rand.NewPCG(seed, 30)))
		b := warm.Build(c, trial.Kit(), plan.Typeface(trial.Blocks{}))
		acts := work.Acts(&b, b.Patterns, func(mm float64) string { return fmt.Sprint(mm) })
		order, err := work.Order(acts)
		if err != nil {
			circles++
			continue
		}
		assert.NoError(t, newTable(b, acts).lay(order), "card %d, of %s", seed, c.Title)
		made++
		for _, a := range acts {
			if a.ID.Verb == work.Tie {
				ties++
			}
		}
	}
	t.Logf("%d made, %d with steps in a circle, %d ribbons", made, circles, ties)
	assert.Greater(t, made, 490)
	assert.Greater(t, ties, 100)
}

// blade tells whether trimming a thing passes a ribbon: by points along both outlines.
func (t *table) blade(over, ribbon build.Thing) bool {
	const near = 3
	points := func(g shape.Region) []shape.Point { return shape.Along(g, 0.7) }
	at := points(ribbon.Outline)
	for _, p := range points(over.Offcut) {
		if ribbon.Outline.Contains(p) {
			return true
		}
		for _, q := range at {
			if p.Sub(q).Len() < near {
				return true
			}
		}
	}
	return false
}
