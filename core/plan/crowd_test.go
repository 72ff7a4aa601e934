package plan_test

import (
	"fmt"
	"testing"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/demo"
)

// BenchmarkCrowd plans a card of sixty things that lie over each other: the beetles, each
// laid again and again 8 mm further on.
func BenchmarkCrowd(b *testing.B) {
	k, err := demo.Kit()
	if err != nil {
		b.Fatal(err)
	}
	c := demo.Cards(k)[1]
	var of []string
	for _, e := range c.Elements {
		if e.Image != nil {
			of = append(of, e.ID)
		}
	}
	for n := len(c.Elements); n < 60; n++ {
		if c, err = c.Apply(k, card.Edit{Repeat: &card.Repeat{Element: of[n%len(of)]}}); err != nil {
			b.Fatal(err)
		}
	}
	m := plan.NewPlanner()
	m.Of(c, k)
	for n := 0; b.Loop(); n++ {
		c, err := c.Apply(k, card.Edit{Move: &card.Move{Element: c.Elements[30].ID, DX: 0.5 * float64(n%3)}})
		if err != nil {
			b.Fatal(err)
		}
		m.Of(c, k)
	}
}

// BenchmarkHeap plans a card of three hundred images of two layers that lie on one another, from
// nothing.
func BenchmarkHeap(b *testing.B) {
	c, k := scene()
	for i := range c.Motifs {
		m := &c.Motifs[i]
		m.Layers = m.Layers[:2]
	}
	for n := 0; len(c.Elements) < 301; n++ {
		e := c.Elements[1+n%60]
		e.ID = fmt.Sprint("y", n)
		c.Elements = append(c.Elements, e)
	}
	for i := range c.Elements[1:] {
		c.Elements[i+1].Place.X, c.Elements[i+1].Place.Y = 40+float64(i%20)*2, 40+float64(i/20)*3
	}
	if err := c.Validate(); err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		plan.Of(c, k)
	}
}
