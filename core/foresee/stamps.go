package foresee

import (
	"fmt"
	"maps"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/words"
)

// sharing is one stamp whose parts were given different inks: in which colourways, and which parts.
type sharing struct {
	stamp    string
	was      card.Layer // that is inked first
	parts    []string   // labels of the others
	ways     []string   // names of colourways
	facts    []string
	hit      Hit
	edits    []card.Edit
	unmended bool
}

// sharedStamps warns where parts of one stamp were given different inks: once for each stamp.
func sharedStamps(v *View, m *Image, add func(Hit)) {
	var all []*sharing
	for wi, w := range m.Colourways {
		if !m.used[w.ID] || m.bare(wi) {
			continue
		}
		first := map[string]card.Layer{}
		for _, view := range m.Shapes.Views {
			l, stamp := view.Layer, view.Part.Stamp
			if stamp == "" || l.Make != card.Printed {
				continue
			}
			was, seen := first[stamp]
			if !seen {
				first[stamp] = l
				continue
			}
			if w.Layers[was.ID].Ink == w.Layers[l.ID].Ink {
				continue
			}
			at := slices.IndexFunc(all, func(s *sharing) bool { return s.stamp == stamp })
			if at < 0 {
				at, all = len(all), append(all, &sharing{stamp: stamp, was: was, hit: Hit{Key: []string{m.ID, stamp}, At: At{Motif: m.ID, Colourway: w.ID, Layer: l.ID}}})
			}
			all[at].note(v, m, wi, l)
		}
	}
	for _, s := range all {
		add(s.said(m))
	}
}

// note adds one part that has another ink in a colourway.
func (s *sharing) note(v *View, m *Image, wi int, l card.Layer) {
	w := m.Colourways[wi]
	if !slices.Contains(s.parts, l.Label) {
		s.parts = append(s.parts, l.Label)
	}
	if !slices.Contains(s.ways, w.Name) {
		s.ways = append(s.ways, w.Name)
	}
	ink := w.Layers[s.was.ID].Ink
	s.facts = append(s.facts, ink, w.Layers[l.ID].Ink)
	if ink == "" || v.mends >= mostMends {
		s.unmended = true
		return
	}
	trial := w
	trial.Layers = maps.Clone(w.Layers)
	f := trial.Layers[l.ID]
	f.Ink, f.Impressions = ink, 1
	trial.Layers[l.ID] = f
	if worse(v.colourHits(m, wi, w, m.Looks[wi]), v.colourHits(m, wi, trial, v.Stock.Look(m.Image.Image, trial))) {
		s.unmended = true
		return
	}
	s.edits = append(s.edits, v.useInk(m, wi, l.ID, ink).Edits...)
}

func (s *sharing) said(m *Image) Hit {
	h := s.hit
	h.What = fmt.Sprintf("%s share a stamp but not an ink", words.Listed(append([]string{s.was.Label}, s.parts...)))
	h.Why = fmt.Sprintf("All are on the stamp %q, which takes one ink at a time.", s.stamp)
	if len(s.parts) == 1 {
		h.Why = fmt.Sprintf("Both are on the stamp %q, which takes one ink at a time.", s.stamp)
	}
	if len(m.Colourways) > 1 {
		h.Why += " So it is in " + words.Listed(s.ways) + "."
	}
	h.Do = "Give them the same ink, mask one while you ink the other, or ink the stamp in part."
	h.Numbers = map[string]float64{"parts": float64(len(s.parts) + 1)}
	h.Facts = s.facts
	if !s.unmended {
		h.Mend = &Mend{"One ink for all of it", s.edits}
	}
	return h
}
