package look

import (
	"math"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"slices"
)

// Stock is a kit with its items by id, and what is known of the colours of its inks.
type Stock struct {
	kit.Kit
	set      map[string]*kit.Set
	ink      map[string]*kit.Ink
	paper    map[string]*kit.Cardstock
	spacer   map[string]*kit.Spacer
	adhesive map[string]*kit.Adhesive
	swatch   map[swatchKey]string
	byInk    map[string][]kit.Swatch
	fitted   map[string]colour.Film  // inks with swatches, by id
	hides    map[kit.InkKind]float64 // how much inks of a kind hide, by the person's own swatches on card
}

type swatchKey struct {
	ink, paper string
	n          int
}

// NewStock puts a kit in order.
func NewStock(k kit.Kit) Stock {
	// An ink that is no longer there is never suggested, like one that is empty.
	k.Inks = slices.Clone(k.Inks)
	for i := range k.Inks {
		k.Inks[i].Gone = k.Inks[i].Gone || k.Inks[i].Away
	}
	s := Stock{Kit: k, swatch: map[swatchKey]string{}, byInk: map[string][]kit.Swatch{}}
	s.set = byID(k.Sets, func(v *kit.Set) string { return v.ID })
	s.ink = byID(k.Inks, func(v *kit.Ink) string { return v.ID })
	s.paper = byID(k.Papers, func(v *kit.Cardstock) string { return v.ID })
	s.spacer = byID(k.Spacers, func(v *kit.Spacer) string { return v.ID })
	s.adhesive = byID(k.Adhesives, func(v *kit.Adhesive) string { return v.ID })
	for _, w := range k.Swatches {
		s.swatch[swatchKey{w.Ink, w.Paper, w.Impressions}] = w.Dry
		s.byInk[w.Ink] = append(s.byInk[w.Ink], w)
	}
	s.fit()
	return s
}

func byID[T any](items []T, id func(*T) string) map[string]*T {
	out := make(map[string]*T, len(items))
	for i := range items {
		out[id(&items[i])] = &items[i]
	}
	return out
}

// PaperColour is the colour of a cardstock, by its id; a plain white where the stores
// do not hold it.
func (s Stock) PaperColour(id string) colour.Linear {
	if p, ok := s.paper[id]; ok {
		if c, err := colour.ParseHex(p.Colour); err == nil {
			return c
		}
	}
	c, _ := colour.ParseHex(kit.PlainWhite)
	return c
}

// Film is an ink as a filter, fitted to the person's own swatches where there
// are some.
func (s Stock) Film(i *kit.Ink) (colour.Film, colour.Source, error) {
	if f, ok := s.fitted[i.ID]; ok {
		return f, colour.Estimated, nil
	}
	if h, ok := s.hides[i.Kind]; ok && i.Hide == nil {
		like := *i
		like.Hide = &h
		i = &like
	}
	return i.Film(s.PaperColour(i.Paper))
}

// How far a colour may be off that is not measured, CIEDE2000, with nothing else
// to say: our own defaults.
const (
	typedDoubt     = 1.5
	estimatedDoubt = 3.0
	fittedShare    = 0.5 // of the doubt of the optics, once the ink was seen on some papers
)

// On is the dried colour of n impressions of an ink on what is beneath, how it is
// known, and how far, CIEDE2000, it may be off. paper is the id of the card when
// that is bare, else empty. It is the one source of colour: where a swatch of that
// ink, paper and count was measured, the swatch wins; else the film foretells.
func (s Stock) On(i *kit.Ink, film colour.Film, under colour.Linear, paper string, n int) (colour.Linear, colour.Source, float64) {
	if hex, has := s.swatch[swatchKey{i.ID, paper, n}]; has && paper != "" {
		if c, err := colour.ParseHex(hex); err == nil {
			return c, colour.Measured, 0
		}
	}
	_, src, err := i.Film(s.PaperColour(i.Paper))
	if err != nil {
		return under, colour.Estimated, 0
	}
	own := s.PaperColour(i.Paper)
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

// Seen lists the swatches of so many impressions of an ink by paper.
func (s Stock) Seen(ink string, n int) map[string]colour.Linear {
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
func (s Stock) filmWithout(i *kit.Ink, paper string) (colour.Film, int, error) {
	typed := i.AsTyped()
	prior, _, err := typed.Film(s.PaperColour(typed.Paper))
	if err != nil {
		return prior, 0, err
	}
	var ss []colour.Sample
	for _, w := range s.byInk[i.ID] {
		if w.Paper == paper {
			continue
		}
		if dry, err := colour.ParseHex(w.Dry); err == nil {
			ss = append(ss, colour.Sample{Under: s.PaperColour(w.Paper), Dry: dry, Impressions: w.Impressions})
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
func (s *Stock) learn() {
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
				far = math.Max(far, colour.Difference(s.PaperColour(v.Paper).Lab(), s.PaperColour(w.Paper).Lab()))
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
func (s *Stock) fit() {
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

// Set finds a set by its id.
func (s Stock) Set(id string) (*kit.Set, bool) { v, ok := s.set[id]; return v, ok }

// Ink finds an ink by its id.
func (s Stock) Ink(id string) (*kit.Ink, bool) { v, ok := s.ink[id]; return v, ok }

// Paper finds a cardstock by its id.
func (s Stock) Paper(id string) (*kit.Cardstock, bool) { v, ok := s.paper[id]; return v, ok }

// Spacer finds a spacer by its id.
func (s Stock) Spacer(id string) (*kit.Spacer, bool) { v, ok := s.spacer[id]; return v, ok }

// Adhesive finds an adhesive by its id.
func (s Stock) Adhesive(id string) (*kit.Adhesive, bool) { v, ok := s.adhesive[id]; return v, ok }

// PaperName is what the person calls a cardstock; "card" where it is not known.
func (s Stock) PaperName(id string) string {
	if p, ok := s.paper[id]; ok {
		return p.Name
	}
	return "card"
}

// InkName is what the person calls an ink; "ink" where it is not known.
func (s Stock) InkName(id string) string {
	if i, ok := s.ink[id]; ok {
		return i.Name
	}
	return "ink"
}

// defaultCaliper is taken for a paper the stores do not hold, mm.
const defaultCaliper = 0.28

// Caliper is the thickness of a cardstock, mm; of a usual one where the stores do not
// hold it.
func (s Stock) Caliper(id string) float64 {
	if p, ok := s.paper[id]; ok {
		return p.Caliper
	}
	return defaultCaliper
}

// How much see-through stocks hide of what lies behind: our own guesses for clear vellum
// and for acetate laid on it.
const vellumHides, acetateHides = 0.38, 0.07

// Hides is how much of what lies behind a stock is hidden by it, 0 to 1; all, where the
// stores do not hold it.
func (s Stock) Hides(id string) float64 {
	p, ok := s.paper[id]
	switch {
	case !ok || p.Opaque():
		return 1
	case p.Kind == kit.PaperAcetate:
		return acetateHides
	}
	return vellumHides
}

// GSM is the weight of a cardstock, g/m²; 0 where the stores do not hold it.
func (s Stock) GSM(id string) float64 {
	if p, ok := s.paper[id]; ok {
		return p.GSM
	}
	return 0
}
