package plan

import (
	"math"
	"slices"

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
		typed := ink.AsTyped()
		if typed.Measured && typed.Paper == w.Paper {
			continue // its own colour is that swatch; what was typed before is not known
		}
		plain, _, err := typed.Film(s.paperColour(typed.Paper))
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
	if h, ok := s.hides[i.Kind]; ok && i.Hide == nil {
		like := *i
		like.Hide = &h
		i = &like
	}
	return i.Film(s.paperColour(i.Paper))
}

// How far a colour may be off that is not measured, CIEDE2000, with nothing else
// to say: our own defaults.
const (
	typedDoubt     = 1.5
	estimatedDoubt = 3.0
	fittedShare    = 0.5 // of the doubt of the optics, once the ink was seen on some papers
)

// on is the dried colour of n impressions of an ink on what is beneath, how it is
// known, and how far, CIEDE2000, it may be off. paper is the id of the card when
// that is bare, else empty. It is the one source of colour: where a swatch of that
// ink, paper and count was measured, the swatch wins; else the film foretells.
func (s stock) on(i *kit.Ink, film colour.Film, under colour.Linear, paper string, n int) (colour.Linear, colour.Source, float64) {
	if hex, has := s.swatch[swatchKey{i.ID, paper, n}]; has && paper != "" {
		if c, err := colour.ParseHex(hex); err == nil {
			return c, colour.Measured, 0
		}
	}
	_, src, err := i.Film(s.paperColour(i.Paper))
	if err != nil {
		return under, colour.Estimated, 0
	}
	own := s.paperColour(i.Paper)
	doubt := film.Doubt(under, own, n, 0)
	_, fitted := s.fitted[i.ID]
	if fitted {
		doubt *= fittedShare
	}
	if fitted || under != own || n != 1 {
		src = colour.Estimated
	}
	switch {
	case i.Dry == "":
		doubt += estimatedDoubt
	case src != colour.Measured:
		doubt += typedDoubt
	}
	return film.Over(under, n), src, doubt
}

// seen lists the swatches of so many impressions of an ink by paper.
func (s stock) seen(ink string, n int) map[string]colour.Linear {
	var out map[string]colour.Linear
	for _, w := range s.byInk[ink] {
		if w.Impressions != n {
			continue
		}
		if c, err := colour.ParseHex(w.Dry); err == nil {
			if out == nil {
				out = map[string]colour.Linear{}
			}
			out[w.Paper] = c
		}
	}
	return out
}

// filmWithout is the ink fitted to all of its swatches but those on one paper.
func (s stock) filmWithout(i *kit.Ink, paper string) (colour.Film, int, error) {
	typed := i.AsTyped()
	prior, _, err := typed.Film(s.paperColour(typed.Paper))
	if err != nil {
		return prior, 0, err
	}
	var ss []colour.Sample
	for _, w := range s.byInk[i.ID] {
		if w.Paper == paper {
			continue
		}
		if dry, err := colour.ParseHex(w.Dry); err == nil {
			ss = append(ss, colour.Sample{Under: s.paperColour(w.Paper), Dry: dry, Impressions: w.Impressions})
		}
	}
	return colour.Fit(prior, ss), len(ss), nil
}

// kindsFrom is how many inks of a kind, each swatched on two unlike papers, tell how
// much the others of that kind hide; our own default, as is unlikePapers, CIEDE2000.
const (
	kindsFrom    = 3
	unlikePapers = 15.0
)

// learn takes how much a kind of ink hides from the person's own swatches: the median
// of the inks that were seen on two papers as unlike as that. One paper alone, or
// white and cream, do not tell hiding from colour.
func (s *stock) learn() {
	s.hides = map[kit.InkKind]float64{}
	by := map[kit.InkKind][]float64{}
	for _, i := range s.Inks {
		f, ok := s.fitted[i.ID]
		if !ok {
			continue
		}
		far := 0.0
		for _, v := range s.byInk[i.ID] {
			for _, w := range s.byInk[i.ID] {
				far = math.Max(far, colour.Difference(s.paperColour(v.Paper).Lab(), s.paperColour(w.Paper).Lab()))
			}
		}
		if far >= unlikePapers {
			by[i.Kind] = append(by[i.Kind], f.Hide)
		}
	}
	for k, hs := range by {
		if len(hs) >= kindsFrom {
			slices.Sort(hs)
			s.hides[k] = hs[len(hs)/2]
		}
	}
}

// fit fits every ink that has swatches, and learns from them of those that have none.
func (s *stock) fit() {
	defer s.learn()
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
