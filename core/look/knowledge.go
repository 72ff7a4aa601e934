package look

import (
	"ochrestone/core/colour"
	"ochrestone/core/kit"
)

// Knowledge says how well the colours of a kit are known.
type Knowledge struct {
	Inks     int     `json:"inks"`
	Measured int     `json:"measured" doc:"inks with a measured swatch"`
	Swatches int     `json:"swatches" doc:"measured swatches"`
	HeldBack int     `json:"heldBack" doc:"swatches that could be foretold from the others of their ink"`
	Error    float64 `json:"error" doc:"mean CIEDE2000 between swatches foretold without them and as measured; 0 when none could be"`
	Default  float64 `json:"default" doc:"the same without any swatches, from the typed colour alone"`
}

// KnowledgeOf holds every swatch back in turn, foretells it from what else is
// known of its ink, and compares.
func KnowledgeOf(k kit.Kit) Knowledge {
	s := NewStock(k)
	d := Knowledge{Inks: len(k.Inks), Swatches: len(k.Swatches)}
	seen := map[string]bool{}
	for i, w := range k.Swatches {
		seen[w.Ink] = true
		ink, ok := s.ink[w.Ink]
		dry, err := colour.ParseHex(w.Dry)
		if !ok || err != nil {
			continue
		}
		others := 0
		for j, v := range k.Swatches {
			if j != i && v.Ink == w.Ink && v.Paper != w.Paper {
				others++
			}
		}
		if others == 0 {
			continue
		}
		under := s.PaperColour(w.Paper)
		fitted, _, err := s.filmWithout(ink, w.Paper)
		if err != nil {
			continue
		}
		typed := ink.AsTyped()
		if typed.Measured && typed.Paper == w.Paper {
			continue // its own colour is that swatch; what was typed before is not known
		}
		plain, _, err := typed.Film(s.PaperColour(typed.Paper))
		if err != nil {
			continue
		}
		d.HeldBack++
		d.Error += colour.Difference(fitted.Over(under, w.Impressions).Lab(), dry.Lab())
		d.Default += colour.Difference(plain.Over(under, w.Impressions).Lab(), dry.Lab())
	}
	d.Measured = len(seen)
	if d.HeldBack > 0 {
		d.Error /= float64(d.HeldBack)
		d.Default /= float64(d.HeldBack)
	}
	return d
}
