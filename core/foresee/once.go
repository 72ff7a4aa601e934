package foresee

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/card"
)

// apiece are the rules that look at every thing by itself: of copies of one image they find one cause
// as often as it is laid.
var apiece = []string{"uneven", "leans", "hangs", "no pad", "joint", "background", "buried", "light", "unheld", "pads"}

// aLayer are the rules that look at every layer of an image by itself: one cause in several of them is one note.
var aLayer = []string{"thin", "narrow"}

// once says one cause once: of the copies of one image that a rule finds the same of, one note with the
// others as its places. Those whose mend was found go together, and are mended together.
func (v *View) once(fs []Finding) []Finding {
	type kin struct{ rule, motif, rest, severity, aside, mend string }
	lead := map[kin]int{}
	out := []Finding{}
	for _, f := range fs {
		if slices.Contains(aLayer, f.Rule) && f.Mend == nil && f.Element == "" {
			key := kin{rule: f.Rule, motif: f.Motif, severity: string(f.Severity), aside: f.Aside}
			at, had := lead[key]
			if !had {
				lead[key] = len(out)
				out = append(out, f)
				continue
			}
			out[at].What += ", and so has " + v.layerName(f)
			out[at].Cause += " " + f.Layer + " " + f.Cause
			continue
		}
		rest, m := v.copyOf(f)
		if m == "" || !slices.Contains(apiece, f.Rule) {
			out = append(out, f)
			continue
		}
		key := kin{f.Rule, m, rest, string(f.Severity), f.Aside, ""}
		if f.Mend != nil {
			key.mend = "mended"
		}
		at, had := lead[key]
		if !had {
			lead[key] = len(out)
			out = append(out, f)
			continue
		}
		first := &out[at]
		if bad(f) > bad(*first) { // the worst of them is the one that is told
			f.Places, first.Places = first.Places, nil
			*first, f = f, *first
		}
		first.Places = append(first.Places, f.Element)
		first.Cause += " " + f.Element + " " + f.Cause
		if f.Mend != nil {
			both := Mend{Label: first.Mend.Label, Edits: append(slices.Clone(first.Mend.Edits), f.Mend.Edits...)}
			first.Mend = &both
		}
	}
	for i := range out {
		if n := len(out[i].Places); n > 0 {
			out[i].What += fmt.Sprintf(" (and %d more of it)", n)
			if out[i].Mend != nil {
				out[i].Mend.Label += ", for all of them"
			}
		}
	}
	return out
}

// layerName is what the layer of a finding is called.
func (v *View) layerName(f Finding) string {
	m, _ := v.Card.Motif(f.Motif)
	for _, l := range m.Layers {
		if l.ID == f.Layer {
			return l.Label
		}
	}
	return "another layer"
}

// bad is how bad a finding is among its likes: its numbers together.
func bad(f Finding) (sum float64) {
	for _, n := range f.Numbers {
		sum += n
	}
	return sum
}

// copyOf is the image that a finding about one of its copies is about, and what of the finding's key does
// not name the copy; no image for a finding about something else.
func (v *View) copyOf(f Finding) (rest, motif string) {
	if f.Element == "" {
		return "", ""
	}
	for _, e := range v.Card.Elements {
		if e.ID != f.Element || e.Image == nil || e.Face != card.Front {
			continue
		}
		ids := f.IDs()
		if len(ids) == 0 || ids[0] != f.Element {
			return "", ""
		}
		return strings.Join(ids[1:], ":"), e.Image.Motif
	}
	return "", ""
}
