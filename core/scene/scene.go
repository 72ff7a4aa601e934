// Package scene tells what the picture of each step shows: which pieces of the card the step is about,
// and which of them lie in their place from then on. The page draws it from that and from how
// everything stands.
package scene

import (
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/work"
)

// Step is the picture of one step.
type Step struct {
	Key  string `json:"key" doc:"of the step"`
	Lit  []int  `json:"lit" nullable:"false" doc:"pieces it is about, by their place as they are laid; none: the base, or the whole card"`
	Mark string `json:"mark,omitempty" doc:"where on the front ink goes on, path data in mm; none: all over what is lit"`
	Puts bool   `json:"puts,omitempty" doc:"they lie in their place from then on"`
}

// Of gives the picture of each act of a card, pieces by their place in Upward.
func Of(b *build.Build, acts []work.Act) []Step {
	up := b.Upward()
	out := make([]Step, len(acts))
	for n, a := range acts {
		on, puts := a.About()
		out[n] = Step{Key: a.Key, Lit: lit(b, up, on), Mark: a.Mark().Path(), Puts: puts}
		if len(out[n].Lit) == 0 {
			out[n].Puts = false
			// What is no piece of its own, such as words on a strip, is shown by what it is on.
			for i := range on {
				on[i].Part = ""
			}
			if out[n].Lit = lit(b, up, on); len(out[n].Lit) == 0 {
				out[n].Lit = lit(b, up, []work.Thing{{Element: a.ID.Element, Motif: a.ID.Motif, Colourway: a.ID.Colourway}})
			}
		}
	}
	return out
}

// lit lists the pieces of some things, by their place as they are laid.
func lit(b *build.Build, up []int, on []work.Thing) []int {
	out := []int{}
	for k, i := range up {
		if slices.ContainsFunc(on, func(t work.Thing) bool { return shows(b, t, i) }) {
			out = append(out, k)
		}
	}
	return out
}

// shows reports whether a piece is, or is part of, what an act works on.
func shows(b *build.Build, t work.Thing, i int) bool {
	p := &b.Pieces[i]
	if t == (work.Thing{}) {
		return false
	}
	if t.Element != "" && t.Element != p.ID.Element {
		return false
	}
	if t.Motif != "" {
		e, ok := b.Card.Element(p.ID.Element)
		if !ok || e.Image == nil || e.Image.Motif != t.Motif || t.Colourway != "" && e.Image.Colourway != t.Colourway {
			return false
		}
	}
	switch t.Part {
	case "", p.ID.Part, "letters", build.CutoutPart:
		return t.Part != "letters" || p.ID.Part != build.ShadowPart
	}
	return false
}
