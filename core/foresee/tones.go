package foresee

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/blend"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/words"
)

// bitten notes prints that lie closer on their strip than the die is wide that cuts them out.
func bitten(v *View, m *Image, add func(Hit)) {
	most := 0 // in one colourway: those are printed on one strip
	for i := range v.Build.Made {
		if d := &v.Build.Made[i]; d.Image.ID == m.ID {
			most = max(most, len(d.Things))
		}
	}
	for _, view := range m.Shapes.Views {
		s := build.InStrip(view, most*max(1, view.Layer.Copies), 0)
		if s == nil || s.Bite() <= 0 {
			continue
		}
		l := view.Layer
		l.Pitch = 0
		add(Hit{Key: []string{m.ID, l.ID}, At: At{Motif: m.ID, Layer: l.ID},
			What:    fmt.Sprintf("Prints for %s lie %s too near each other", l.Label, v.Format(s.Bite())),
			Why:     fmt.Sprintf("They are printed %s apart, and the die that cuts them out is %s wide: each bites into the next.", v.Format(s.Pitch), v.Format(s.Die)),
			Do:      fmt.Sprintf("Print them %s apart, or further: %d of them take a strip of %s.", v.Format(s.Asked), s.N, v.Format(float64(s.N-1)*s.Asked+s.Asked)),
			Numbers: map[string]float64{"bite": s.Bite(), "pitch": s.Asked, "printed": s.Pitch},
			Mend:    &Mend{"As far apart as the die asks", []card.Edit{{Layer: &card.SetLayer{Motif: m.ID, Layer: l}}}}})
	}
}

// toneStep is how far two tones of one image lie apart at least to be told as two, L*; our own
// default.
const toneStep = 8.0

// tones notes an image that has fewer tones than are wanted of it, and how it comes to one more.
func tones(v *View, m *Image, wi int, add func(Hit)) {
	if m.Tones < 2 {
		return
	}
	w := m.Looks[wi]
	var all []float64
	tone := func(l float64) {
		if !slices.ContainsFunc(all, func(o float64) bool { return math.Abs(o-l) < toneStep }) {
			all = append(all, l)
		}
	}
	layers := 0
	var main string
	most := 0.0
	for i, view := range m.Shapes.Views {
		f := m.Colourways[wi].Layers[view.Layer.ID]
		if view.Hidden() || f.First() == "" {
			continue
		}
		layers++
		tone(w.Layers[i].L)
		for _, bl := range w.Layers[i].Blends {
			if !bl.Missing {
				tone(bl.L)
			}
		}
		if f.Ink != "" && view.Visible > most {
			most, main = view.Visible, view.Layer.ID
		}
	}
	if len(all) >= m.Tones || main == "" {
		return
	}
	label := m.LabelOf(main)
	f := m.Colourways[wi].Layers[main]
	h := Hit{Key: []string{m.ID, m.Colourways[wi].ID}, At: At{Motif: m.ID, Colourway: m.Colourways[wi].ID, Layer: main},
		What:    fmt.Sprintf("%s has %s, where %d are wanted", m.Name, words.Count(len(all), "tone"), m.Tones),
		Why:     fmt.Sprintf("It has %s with ink, and tones less than %.0f L* apart are seen as one.", words.Count(layers, "layer"), toneStep),
		Do:      fmt.Sprintf("Ink the edge of %s deeper, or add a layer.", label),
		Numbers: map[string]float64{"tones": float64(len(all)), "wanted": float64(m.Tones)}, Facts: []string{f.Ink}}
	if deeper := v.deeper(f); deeper != "" {
		h.Do = fmt.Sprintf("Ink the edge of %s with %s over %s.", label, v.Stock.InkName(deeper), v.Stock.InkName(f.Ink))
		with := f
		with.Blends = append(slices.Clone(f.Blends), card.Blend{Ink: deeper, Zone: card.Rim})
		h.Mend = &Mend{"Ink its edge deeper", []card.Edit{{Finish: &card.SetFinish{Motif: m.ID, Colourway: m.Colourways[wi].ID, Layers: map[string]card.Finish{main: with}}}}}
	}
	add(h)
}

// deeper is the next deeper ink of the family of what a finish ends in, far enough from it to be
// seen and near enough to soften; empty where the stores have none.
func (v *View) deeper(f card.Finish) (id string) {
	last := f.Ink
	if n := len(f.Blends); n > 0 {
		last = f.Blends[n-1].Ink
	}
	of, ok := v.Stock.Ink(last)
	if !ok {
		return ""
	}
	from, ok := of.Shade()
	if !ok {
		return ""
	}
	best := math.Inf(1)
	for i := range v.Stock.Inks {
		o := &v.Stock.Inks[i]
		if o.Gone || o.Away || o.Family == "" || o.Family != of.Family || o.Kind == kit.Embossing || o.Kind.ByHand() != of.Kind.ByHand() {
			continue
		}
		if t, ok := o.Shade(); ok {
			if step := from.L - t.L; step >= max(toneStep, blend.LeastRung) && step < best {
				best, id = step, o.ID
			}
		}
	}
	return id
}
