package plan

import (
	"ochrestone/core/colour"
	"ochrestone/core/kit"
)

// Drawer says how well the colours of a kit are known.
type Drawer struct {
	Inks     int     `json:"inks"`
	Measured int     `json:"measured" doc:"inks with a measured swatch"`
	Swatches int     `json:"swatches" doc:"measured swatches"`
	HeldBack int     `json:"heldBack" doc:"swatches that could be foretold from the others of their ink"`
	Error    float64 `json:"error" doc:"mean CIEDE2000 between swatches foretold without them and as measured; 0 when none could be"`
	Default  float64 `json:"default" doc:"the same without any swatches, from the typed colour alone"`
}

// DrawerOf holds every swatch back in turn, foretells it from what else is
// known of its ink, and compares.
func DrawerOf(k kit.Kit) Drawer {
	s := newStock(k)
	d := Drawer{Inks: len(k.Inks), Swatches: len(k.Swatches)}
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
		under := s.paperColour(w.Paper)
		fitted, _, err := s.filmWithout(ink, w.Paper)
		if err != nil {
			continue
		}
		plain, _, err := ink.Film(s.paperColour(ink.Paper))
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

func (s stock) paperColour(id string) colour.Linear {
	if p, ok := s.paper[id]; ok {
		if c, err := colour.ParseHex(p.Colour); err == nil {
			return c
		}
	}
	c, _ := colour.ParseHex(kit.PlainWhite)
	return c
}

// film is an ink as a filter, fitted to the person's own swatches where there
// are some.
func (s stock) film(i *kit.Ink) (colour.Film, colour.Source, error) {
	if f, ok := s.fitted[i.ID]; ok {
		return f, colour.Estimated, nil
	}
	return i.Film(s.paperColour(i.Paper))
}

// filmWithout is the ink fitted to all of its swatches but those on one paper.
func (s stock) filmWithout(i *kit.Ink, paper string) (colour.Film, int, error) {
	prior, _, err := i.Film(s.paperColour(i.Paper))
	if err != nil {
		return prior, 0, err
	}
	var ss []colour.Sample
	for _, w := range s.Swatches {
		if w.Ink != i.ID || w.Paper == paper {
			continue
		}
		if dry, err := colour.ParseHex(w.Dry); err == nil {
			ss = append(ss, colour.Sample{Under: s.paperColour(w.Paper), Dry: dry, Impressions: w.Impressions})
		}
	}
	return colour.Fit(prior, ss), len(ss), nil
}

// fit fits every ink that has swatches.
func (s *stock) fit() {
	s.fitted = map[string]colour.Film{}
	for _, w := range s.Swatches {
		if _, done := s.fitted[w.Ink]; done {
			continue
		}
		if i, ok := s.ink[w.Ink]; ok {
			if f, n, err := s.filmWithout(i, "\x00"); err == nil && n > 0 {
				s.fitted[w.Ink] = f
			}
		}
	}
}
