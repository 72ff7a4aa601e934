package standing

import (
	"fmt"
	"math"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"slices"
)

// Relation says what a thing stands on, what stands on it, and what it must let pass.
type Relation struct {
	Element string   `json:"element"`
	On      []string `json:"on" nullable:"false" doc:"what it touches beneath"`
	Bears   []string `json:"bears" nullable:"false" doc:"what touches it from above"`
	Passes  []string `json:"passes" nullable:"false" doc:"what is tucked beneath it"`
	Pads    int      `json:"pads" doc:"pads beneath its leaves"`
	Said    string   `json:"said" doc:"how it is held"`
	Undo    []string `json:"undo" nullable:"false" doc:"whether and how its joints come up again"`
}

// undoing says whether and how joints come up again.
func undoing(b *build.Build, bonds []card.Bond) []string {
	out := []string{}
	for _, x := range bonds {
		said := ""
		if sp, ok := b.Stock.Spacer(x.Spacer); ok {
			said = sp.Undoing()
		} else if a, ok := b.Stock.Adhesive(x.Adhesive); ok && !x.Raised() {
			said = a.Undoing()
		}
		if said != "" && !slices.Contains(out, said) {
			out = append(out, said)
		}
	}
	return out
}

// meets is how near, mm, an underside comes to a top to touch it, pads and glue between.
const meets = 0.35

// relations says by thing what it stands on, what stands on it and what passes beneath.
func (v View) relations(pieces []Piece) []Relation {
	bd := v.Build
	at := map[string]int{}
	out := []Relation{}
	for _, e := range bd.Card.Elements {
		if e.Face == card.Front && e.Known() {
			at[e.ID] = len(out)
			out = append(out, Relation{Element: e.ID, On: []string{}, Bears: []string{}, Passes: []string{}, Said: build.Held(bd.Stock, e.Bonds, v.Write), Undo: undoing(bd, e.Bonds)})
		}
	}
	for _, x := range pieces {
		if i, ok := at[x.Element]; ok {
			for _, h := range x.Supports {
				if h.Pad != nil {
					out[i].Pads++
				}
			}
		}
	}
	add := func(list *[]string, name string) {
		if !slices.Contains(*list, name) {
			*list = append(*list, name)
		}
	}
	name := func(id string) string {
		if e, ok := bd.Card.Element(id); ok {
			return build.Name(bd.Card, e)
		}
		return "the card"
	}
	up := bd.Upward()
	for k, i := range up {
		s := v.Stood[i]
		if s.Print() {
			continue
		}
		box := s.Outline.Bounds()
		for _, j := range up[:k] {
			o := v.Stood[j]
			if o.Print() || o.ID.Element == s.ID.Element || !box.Meets(o.Outline.Bounds()) || !o.Outline.Overlaps(s.Outline) {
				continue
			}
			under, over := at[s.ID.Element], at[o.ID.Element]
			lift := s.Lift
			if gap := s.Gap(o); math.Abs(gap-lift) < meets || math.Abs(gap) < meets {
				add(&out[under].On, name(o.ID.Element))
				add(&out[over].Bears, name(s.ID.Element))
			}
		}
	}
	for cover, below := range bd.Beneath() {
		for _, j := range below {
			how := ", which goes in first"
			if ways := v.Pads.WaysIn(bd, v.Stood, cover, j); len(ways) > 0 {
				how = fmt.Sprintf(", in from the %s", depth.SideOf(ways[len(ways)/2]))
			}
			add(&out[at[v.Stood[cover].ID.Element]].Passes, name(v.Stood[j].ID.Element)+how)
		}
	}
	for i := range out {
		slices.Sort(out[i].Passes)
		if len(out[i].On) == 0 {
			out[i].On = append(out[i].On, "the card")
		}
	}
	return out
}
