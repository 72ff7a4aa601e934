// Package remember says what is asked of cards afterwards: what was changed of one since it was
// made, what a run took out of the stores, and what to buy for the next.
package remember

import (
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
)

// Since says in words how a card differs from what it was, each with the plan of it: its name
// and size, what is on it, the inks of its images, how thick it is and how it goes by post.
// Nothing is said of what is the same. Inks and envelopes are named as the stores call them, measures written as the person has them.
func Since(was, is card.Card, before, now plan.Plan, k kit.Kit, w measure.Writing) []string {
	out := []string{}
	say := func(format string, a ...any) { out = append(out, fmt.Sprintf(format, a...)) }
	size := func(c card.Card) string {
		return w.Length(measure.MM(c.Base.W)) + " × " + w.Length(measure.MM(c.Base.H))
	}
	if was.Title != is.Title {
		say("It was called %s.", was.Title)
	}
	if a, b := size(was), size(is); a != b {
		say("It was %s and is %s.", a, b)
	}
	if a, b := was.Run(), is.Run(); a != b {
		say("%d were made in a sitting, now %d.", a, b)
	}
	out = append(out, placedSince(was, is, before, now, w)...)
	out = append(out, inksSince(was, is, now, k)...)
	if a, b := w.Thin(before.Depth.Total), w.Thin(now.Depth.Total); a != b {
		say("It was %s thick and is %s.", a, b)
	}
	envelope := func(p plan.Plan) string {
		e, ok := k.Envelope(p.Depth.Post.Envelope)
		if !ok {
			return "no envelope"
		}
		return e.Name
	}
	if a, b := envelope(before), envelope(now); a != b {
		say("It went in %s, now in %s.", a, b)
	}
	if a, b := before.Depth.Post.Class, now.Depth.Post.Class; a != b {
		say("By post it was a %s and is a %s.", a, b)
	}
	return out
}

// placedSince says what came onto a card, went from it, was moved, or is held otherwise.
func placedSince(was, is card.Card, before, now plan.Plan, w measure.Writing) (out []string) {
	label := func(p plan.Plan, e card.Element) string {
		for _, x := range p.Front.Elements {
			if x.ID == e.ID {
				return x.Label
			}
		}
		if e.Name != "" {
			return e.Name
		}
		return "a thing beside the front"
	}
	had := map[string]card.Element{}
	for _, e := range was.Elements {
		had[e.ID] = e
	}
	for _, e := range is.Elements {
		b, ok := had[e.ID]
		delete(had, e.ID)
		name := label(now, e)
		if !ok {
			out = append(out, fmt.Sprintf("New: %s.", name))
			continue
		}
		if d := measure.MM(math.Hypot(e.Place.X-b.Place.X, e.Place.Y-b.Place.Y)); d > 0.05 {
			out = append(out, fmt.Sprintf("%s was moved by %s.", name, w.Length(d)))
		}
		if e.Place.Turn != b.Place.Turn {
			out = append(out, fmt.Sprintf("%s was turned by %.0f°.", name, e.Place.Turn-b.Place.Turn))
		}
		if !reflect.DeepEqual(e.Bonds, b.Bonds) {
			out = append(out, fmt.Sprintf("%s is held otherwise.", name))
		}
	}
	for _, e := range was.Elements {
		if _, gone := had[e.ID]; gone {
			out = append(out, fmt.Sprintf("Gone: %s.", label(before, e)))
		}
	}
	return out
}

// inksSince says which layers of which images take another ink or paper.
func inksSince(was, is card.Card, now plan.Plan, k kit.Kit) (out []string) {
	ink := func(id string) string {
		if i, ok := k.Ink(id); ok {
			return i.Name
		}
		if id != "" {
			return "an ink that is gone"
		}
		return "left plain"
	}
	had := map[string]card.Motif{}
	for _, m := range was.Motifs {
		had[m.ID] = m
	}
	for _, m := range is.Motifs {
		old := had[m.ID]
		for _, way := range m.Colourways {
			before, ok := old.Colourway(way.ID)
			if !ok {
				if old.ID != "" {
					out = append(out, fmt.Sprintf("New colours of %s: %s.", m.Name, way.Name))
				}
				continue
			}
			for _, l := range slices.Sorted(maps.Keys(way.Layers)) {
				a, b := before.Layers[l].Ink, way.Layers[l].Ink
				if a != b {
					out = append(out, fmt.Sprintf("%s, %s: %s was %s, is %s.", m.Name, way.Name, layerName(now, m.ID, l), ink(a), ink(b)))
				}
			}
		}
	}
	return out
}

func layerName(p plan.Plan, motif, layer string) string {
	for _, m := range p.Motifs {
		for _, l := range m.Layers {
			if m.ID == motif && l.ID == layer {
				return l.Label
			}
		}
	}
	return layer
}
