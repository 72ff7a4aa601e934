package foresee

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/words"
)

// What wet glue ripples; our own defaults.
const (
	thinPaper = 120.0 // g/m², and vellum of any weight
	wetArea   = 900.0 // mm² of glue from which it shows
)

func rippleRules() []Rule {
	return []Rule{
		{ID: "ripples", Station: Depth, Severity: Shows, Source: practice,
			Limits: []Limit{{"paper lighter than", thinPaper, "g/m²", ""}, {"glue over at least", wetArea, "mm²", ""}}, check: ripples},
	}
}

// wetted is the leaf that ripples where a piece is glued wet: the piece itself, or what it is glued
// to; -1 where both bear it.
func (v *View) wetted(i int) int {
	for _, id := range []build.ID{v.Stood[i].ID, v.Stood[i].On} {
		j := slices.IndexFunc(v.Stood, func(s depth.Stood) bool { return s.ID == id && !s.Print() })
		if j < 0 || v.Stood[j].Plies > 1 {
			continue
		}
		// Thin paper that is itself glued down is borne by what it lies on; vellum ripples all the same.
		if p, ok := v.Stock.Paper(v.Stood[j].Stock); ok && swells(p) && (j == i || p.Kind == kit.PaperVellum) {
			return j
		}
	}
	return -1
}

// ripples notes leaves of vellum and thin paper with much wet glue behind or on them. Whose glue is seen
// through it is noted for that, and takes another.
func ripples(v *View, add func(Hit)) {
	v.each(func(i int) (Hit, bool) {
		s, j := v.Stood[i], v.wetted(i)
		if j < 0 {
			return Hit{}, false
		}
		p, _ := v.Stock.Paper(v.Stood[j].Stock)
		side := "behind"
		if j != i {
			side = "on"
		}
		for k, h := range s.Holds {
			if h.Raised || h.Glue == nil || h.Glue.Kind != "liquid" {
				continue
			}
			if seen, _ := v.Pads.Seen(v.Build, v.Stood, i, k); s.Clear && h.Glue.Shows && seen >= shownBy {
				continue
			}
			wet := 0.0
			for _, g := range v.Pads.HeldBy(v.Build, v.Stood, i) {
				if g.Hold == k {
					wet += g.Area.Area()
				}
			}
			if wet < wetArea {
				continue
			}
			hit := Hit{What: fmt.Sprintf("%s ripples %s", words.Capital(h.Glue.Name), v.pieceName(j)),
				Why:     fmt.Sprintf("%s lie %s %s, and it dries uneven.", v.Write.Area(wet), side, words.Small(p.Name)),
				Do:      "Take a dry adhesive, or a few dots of it where something opaque lies over them.",
				Numbers: map[string]float64{"wet": wet}, Facts: []string{h.Glue.ID}}
			if dry := v.dry(s.Clear); dry != nil {
				bonds := make([]card.Bond, len(s.Holds))
				for n, o := range s.Holds {
					bonds[n] = o.Bond
				}
				bonds[k].Adhesive = dry.ID
				if !s.Clear || v.settles(i, bonds) {
					hit.Mend = &Mend{"Take " + dry.Name, v.held(i, bonds)}
				}
			}
			return hit, true
		}
		return Hit{}, false
	}, add)
}

// swells reports whether a sheet of a kind and weight dries in ripples where it was wet.
func swells(p *kit.Cardstock) bool {
	switch p.Kind {
	case kit.PaperVellum:
		return true
	case kit.PaperCard, kit.PaperPatterned:
		return p.GSM > 0 && p.GSM < thinPaper
	}
	return false
}

// dry is an adhesive of the stores without water, for a leaf that is seen through one that does not
// show; nil where there is none.
func (v *View) dry(clear bool) *kit.Adhesive {
	i := slices.IndexFunc(v.Stock.Adhesives, func(a kit.Adhesive) bool {
		return !a.Away && (a.Kind == "double-sided" || a.Kind == "tape runner" || a.Kind == "spray" && !a.Shows) && !(clear && a.Shows)
	})
	if i < 0 {
		return nil
	}
	return &v.Stock.Adhesives[i]
}
