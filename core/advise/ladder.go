package advise

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/ramp"
	"slices"
)

// ladder is three inks of one family from light to dark.
type ladder struct {
	inks [3]string
	mid  colour.Film
	odd  float64 // how uneven its two steps are, L*
}

// laddersOf lists the ladders of every family, at most so many of each, the
// evenest first. Steps are those that show and still soften, and the three are
// of one kind: a dye will not blend with a pigment, and on a dark ground their
// order of lightness could turn round.
func (a Study) laddersOf(free []int, finishes []card.Finish) []ladder {
	type rung struct {
		id   string
		l    float64
		film colour.Film
	}
	families := map[string][]rung{}
	var names []string
	white, _ := colour.ParseHex(kit.PlainWhite)
	for _, o := range free {
		ink, ok := a.Stock.Ink(finishes[o].Ink)
		if !ok || ink.Family == "" {
			continue
		}
		film, _, err := a.Stock.Film(ink)
		if err != nil {
			continue
		}
		key := ink.Family + "/" + string(ink.Kind)
		if families[key] == nil {
			names = append(names, key)
		}
		families[key] = append(families[key], rung{ink.ID, film.Over(white, 1).Lab().L, film})
	}
	var out []ladder
	for _, n := range names {
		rs := families[n]
		slices.SortStableFunc(rs, func(p, q rung) int { return cmp.Compare(q.l, p.l) })
		var own []ladder
		for i := range rs {
			for j := i + 1; j < len(rs); j++ {
				for k := j + 1; k < len(rs); k++ {
					u, v := rs[i].l-rs[j].l, rs[j].l-rs[k].l
					if u < blend.LeastRung || v < blend.LeastRung || u > blend.MostRung || v > blend.MostRung {
						continue
					}
					own = append(own, ladder{[3]string{rs[i].id, rs[j].id, rs[k].id}, rs[j].film, math.Abs(u - v)})
				}
			}
		}
		slices.SortStableFunc(own, func(p, q ladder) int { return cmp.Compare(p.odd, q.odd) })
		out = append(out, own[:min(len(own), laddersEach)]...)
	}
	return out
}

// alikeUnder is the mean difference under which two colourways of an image look
// alike on a card; our own default.
const alikeUnder = 11.0

// laddersEach is how many ladders of one family are tried.
const laddersEach = 8

// ladderOptions adds the ladders as options; the search sees each by its middle.
func (a Study) ladderOptions(ask Ask, free []int, p *ramp.Problem, finishes *[]card.Finish) []int {
	zone := ask.Zone
	if zone == "" || zone == card.AllOver {
		zone = card.Rim
	}
	var out []int
	for _, l := range a.laddersOf(free, *finishes) {
		p.Options = append(p.Options, ramp.Option{Film: l.mid, Impressions: 1})
		// A pass of an ink that hides would pale the dark again.
		*finishes = append(*finishes, card.Finish{Ink: l.inks[0], Impressions: 1, Return: l.mid.Hide < 0.1,
			Blends: []card.Blend{{Ink: l.inks[1], Zone: zone}, {Ink: l.inks[2], Zone: zone}}})
		out = append(out, len(p.Options)-1)
	}
	return out
}

// climbing keeps the ladders whose steps show on what is beneath; where none do,
// as on dark card, the plain inks.
func (a Study) climbing(options, plain []int, finishes []card.Finish, under colour.Linear) []int {
	var out []int
	for _, o := range options {
		f := finishes[o]
		was, shows, on := math.Inf(1), true, under
		for n := range 1 + len(f.Blends) {
			id := f.Ink
			if n > 0 {
				id = f.Blends[n-1].Ink
			}
			ink, ok := a.Stock.Ink(id)
			if !ok {
				continue
			}
			film, _, err := a.Stock.Film(ink)
			if err != nil {
				continue
			}
			on = film.Over(on, 1)
			l := on.Lab().L
			shows = shows && was-l >= blend.LeastRung
			was = l
		}
		if shows {
			out = append(out, o)
		}
	}
	if len(out) == 0 {
		return plain
	}
	return out
}

// How much warmer or quieter an ink is to be than the one it replaces.
const (
	leanWarm   = 4.0 // along the Lab direction of orange
	leanChroma = 4.0
)

// leaning keeps the options of a slot that lean as wished against what the layer
// has now. Where none do, all stay.
func (a Study) leaning(lean Lean, f card.Finish, s ramp.Slot, options []ramp.Option) []int {
	under := s.Under
	if s.On >= 0 {
		under, _ = colour.ParseHex(kit.PlainWhite)
	}
	paper := s.Paper
	if s.On >= 0 {
		paper = ""
	}
	now, _ := a.Stock.Dried(f, under, paper)
	was := now.Dry.Lab()
	warmth := func(c colour.Lab) float64 {
		const orange = 60 * math.Pi / 180
		return c.A*math.Cos(orange) + c.B*math.Sin(orange)
	}
	var out []int
	for _, i := range s.Options {
		c := options[i].On(under, paper).Lab()
		by, need := 0.0, leanChroma
		switch lean {
		case Warmer:
			by, need = warmth(c)-warmth(was), leanWarm
		case Cooler:
			by, need = warmth(was)-warmth(c), leanWarm
		case Quieter:
			by = was.Chroma() - c.Chroma()
		case Livelier:
			by = c.Chroma() - was.Chroma()
		}
		if by >= need {
			out = append(out, i)
		}
	}
	if len(out) == 0 {
		return s.Options
	}
	return out
}

// Colourways finds n colourways of one image that all read and differ as much as the
// drawer allows: first one from each family of inks, then from pairs of
// families. The least visible difference between any two of them is returned,
// the mean CIEDE2000 over what shows.
func (a Study) Colourways(ctx context.Context, ask Ask, n int) ([]Suggestion, float64, error) {
	var families []string
	for _, i := range a.Stock.Inks {
		if i.Family != "" && !i.Gone && !slices.Contains(families, i.Family) && (len(ask.Families) == 0 || slices.Contains(ask.Families, i.Family)) {
			families = append(families, i.Family)
		}
	}
	slices.Sort(families)
	var all []Suggestion
	try := func(fam ...string) error {
		ask.Families, ask.Best = fam, 1
		got, _, err := a.suggestPlain(ctx, ask)
		if err != nil && !errors.Is(err, ramp.ErrNoAnswer) && !errors.Is(err, ramp.ErrNoOptions) {
			return err
		}
		for _, s := range got {
			if s.Look.Weakest >= a.Readable/2 || len(s.Look.Pairs) == 0 {
				all = append(all, s)
			}
		}
		return nil
	}
	for _, f := range families {
		if err := try(f); err != nil {
			return nil, 0, err
		}
	}
	for i, f := range families {
		for _, g := range families[i+1:] {
			if len(all) >= 4*n {
				break
			}
			if err := try(f, g); err != nil {
				return nil, 0, err
			}
		}
	}
	if len(all) == 0 {
		return nil, 0, fmt.Errorf("a set of colourways of %s: %w", a.Image.Name, ramp.ErrNoAnswer)
	}
	// The clearest first, then always the one furthest from those taken; among
	// nearly as far ones the clearer.
	slices.SortStableFunc(all, func(p, q Suggestion) int { return cmp.Compare(q.Look.Weakest, p.Look.Weakest) })
	taken := all[:1:1]
	rest := slices.Clone(all[1:])
	least := math.Inf(1)
	for len(taken) < n && len(rest) > 0 {
		best, far := 0, -1.0
		for i, s := range rest {
			d := math.Inf(1)
			for _, t := range taken {
				d = math.Min(d, a.looksApart(s.Look, t.Look))
			}
			if score := math.Min(d, 2*alikeUnder) + 0.5*math.Min(s.Look.Weakest, a.Readable); score > far {
				best, far = i, score
			}
		}
		for _, t := range taken {
			least = math.Min(least, a.looksApart(rest[best].Look, t.Look))
		}
		taken = append(taken, rest[best])
		rest = slices.Delete(rest, best, best+1)
	}
	if len(taken) < 2 {
		least = 0
	}
	return taken, least, nil
}

// looksApart is how much two colourways of an image differ to the eye: the mean
// CIEDE2000 of their layers, weighted by what shows.
func (a Study) looksApart(p, q look.Colourway) float64 {
	var sum, area float64
	for i, v := range a.Image.Shapes.Views {
		x, err1 := colour.ParseHex(p.Layers[i].Dry)
		y, err2 := colour.ParseHex(q.Layers[i].Dry)
		if err1 != nil || err2 != nil {
			continue
		}
		sum += v.Visible * colour.Difference(x.Lab(), y.Lab())
		area += v.Visible
	}
	if area == 0 {
		return 0
	}
	return sum / area
}
