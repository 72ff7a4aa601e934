package card

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Parting is how a part comes to have two colour regions.
type Parting string

// Ways of parting a part in two colours.
const (
	Masked   Parting = "masked"    // the rest is covered while the region is inked
	CutTwice Parting = "cut twice" // cut again, fussy cut along the line and laid over the first
	Swapped  Parting = "swapped"   // both cut along the line and the regions swapped: no thicker
	Enclosed Parting = "enclosed"  // what a closed line of a print holds, coloured by hand within it
	Kept     Parting = "kept"      // stays as the piece is without its ink; how is not said yet
	Covered  Parting = "covered"   // stays so beneath a mask while the piece is inked
)

// Partings lists them.
var Partings = []Parting{Masked, CutTwice, Swapped, Enclosed, Kept, Covered}

// Spares reports whether a layer is no layer of its own but a region of another that stays as that is
// without its ink.
func (l Layer) Spares() bool {
	return l.Region != nil && (l.Region.By == Kept || l.Region.By == Covered)
}

// KeptLabel is what a region of a layer is called that stays as it is, where nobody gave it a name.
func KeptLabel(of Layer) string { return of.Label + ", kept as it is" }

// piece reports whether a region parted so is a piece of card of its own.
func (p Parting) piece() bool { return p == CutTwice || p == Swapped }

// Region is one of two colour regions of a part: what lies to the right of a line across
// it, as the line runs, or within another part of the set.
type Region struct {
	By    Parting  `json:"by" enum:"masked,cut twice,swapped,enclosed,kept,covered"`
	Line  []Offset `json:"line,omitempty" maxItems:"60" doc:"the line it is parted along, in the frame of the set, mm; its ends run on straight, or it is closed where they meet; of what a print encloses one point within"`
	Part  string   `json:"part,omitempty" doc:"part id: instead of a line, what lies within that part"`
	Other bool     `json:"other,omitempty" doc:"the other side of the line, or what lies outside that part"`
}

// Again adds a layer that is made of the part of another layer once more: a back traced
// round it, a region in another colour, a copy put on offset.
type Again struct {
	Motif   string  `json:"motif"`
	Layer   string  `json:"layer" doc:"the layer whose part is used again"`
	Traced  float64 `json:"traced,omitempty" minimum:"-20" maximum:"20" doc:"a back traced round it so much larger, below 0 smaller, mm: it goes right beneath the layer"`
	Region  *Region `json:"region,omitempty" doc:"one region of it in another colour; without a line it is parted along its longest pressed line, or across its middle"`
	Within  bool    `json:"within,omitempty" doc:"all that the closed lines of a print hold, each a region to be coloured by hand"`
	Shifted float64 `json:"shifted,omitempty" minimum:"-200" maximum:"200" doc:"a copy so far along, its end trimmed off and put on at the other, mm"`
	Label   string  `json:"label,omitempty" maxLength:"80" doc:"empty takes one that says what it is"`
}

func (e *Again) apply(c *Card, k kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(m.Layers, func(l Layer) bool { return l.ID == e.Layer })
	if i < 0 {
		return fmt.Errorf("layer %q of %s %w", e.Layer, m.Name, ErrGone)
	}
	of := m.Layers[i]
	if e.Within {
		return m.enclose(k, i)
	}
	l := Layer{ID: m.freshLayer(), Part: of.Part, Make: Cut, Rank: of.Rank, Fit: kit.FitFree, Copies: 1, Bonds: Glue(firstGlue(k))}
	at := i + 1
	switch {
	case e.Region != nil:
		r := *e.Region
		if len(r.Line) == 0 && r.Part == "" {
			r.Line = proposedLine(k, m.Set, of.Part)
		}
		l.Region, l.Label, l.On = &r, of.Label+", second colour", of.ID
		if !r.By.piece() {
			l.Make, l.Bonds = of.Make, nil
			if l.Make == Cut {
				l.Make = Printed
			}
		}
		if l.Spares() {
			l.Label = KeptLabel(of)
		}
		l.Accent = true // another colour has its own place in the order of lightness
		if r.By == Swapped {
			l.On = ""
			l.Bonds = of.Bonds
		}
	case e.Traced != 0:
		l.Traced, l.Label, at = e.Traced, "Back of "+of.Label, i
		// It stands where the layer stood, and that is glued to it.
		l.On, l.Bonds = of.On, of.Bonds
		m.Layers = slices.Clone(m.Layers)
		if of.On != "" {
			m.Layers[i].On = l.ID
		}
		if Raised(of.Bonds) {
			m.Layers[i].Bonds = Glue(firstGlue(k))
		}
	default:
		l.Shifted, l.Label, l.On = e.Shifted, of.Label+", offset", of.ID
	}
	if e.Label != "" {
		l.Label = e.Label
	}
	m.Layers = slices.Insert(slices.Clone(m.Layers), at, l)
	m.Colourways = slices.Clone(m.Colourways)
	for n, w := range m.Colourways {
		f := w.Layers[of.ID]
		if l.Make != Cut {
			f = Finish{} // its ink is still to be chosen
		}
		w.Layers = maps.Clone(w.Layers)
		if w.Layers == nil {
			w.Layers = map[string]Finish{}
		}
		w.Layers[l.ID] = f
		m.Colourways[n] = w
	}
	return nil
}

// reparted brings a layer into line with how its region is parted now: a piece of card has its paper and
// its glue, what is printed or kept has none, and what is kept takes no ink.
func (m *Motif) reparted(k kit.Kit, layer int, was *Region) {
	l := &m.Layers[layer]
	if l.Region == nil || was == nil || l.Region.By == was.By {
		return
	}
	of := slices.IndexFunc(m.Layers, func(o Layer) bool { return o.ID == l.On || l.On == "" && o.Part == l.Part && o.Region == nil })
	if of < 0 {
		return
	}
	cut := m.Layers[of].Make == Cut
	switch {
	case l.Region.By.piece() && cut && l.Make != Cut:
		l.Make, l.Bonds = Cut, Glue(firstGlue(k))
		m.refinish(l.ID, func(f Finish, w Colourway) Finish {
			f.Paper = w.Layers[m.Layers[of].ID].Paper
			return f
		})
	case !l.Region.By.piece() && l.Make == Cut:
		l.Make, l.Bonds = Printed, nil
		m.refinish(l.ID, func(f Finish, _ Colourway) Finish {
			f.Paper = ""
			return f
		})
	}
	if l.Region.By == Swapped {
		l.On, l.Bonds = "", m.Layers[of].Bonds
	} else {
		l.On = m.Layers[of].ID
	}
	if l.Spares() {
		m.refinish(l.ID, func(Finish, Colourway) Finish { return Finish{} })
	}
}

// refinish changes the finish of a layer in every colourway.
func (m *Motif) refinish(layer string, to func(Finish, Colourway) Finish) {
	m.Colourways = slices.Clone(m.Colourways)
	for n, w := range m.Colourways {
		f := to(w.Layers[layer], w)
		w.Layers = maps.Clone(w.Layers)
		if w.Layers == nil {
			w.Layers = map[string]Finish{}
		}
		w.Layers[layer] = f
		m.Colourways[n] = w
	}
}

// leastEnclosed is how large a region is at least, mm², that a person would colour by itself: our own
// default. mostEnclosed is how many are taken of one print, the largest.
const (
	leastEnclosed = 2.0
	mostEnclosed  = 30
)

// enclose adds a layer for every region that the lines of a print hold, from the largest, without a
// colour yet. It is an error where they hold none that is not a layer already.
func (m *Motif) enclose(k kit.Kit, layer int) error {
	of := m.Layers[layer]
	s, _ := k.Set(m.Set)
	p, ok := s.Part(of.Part)
	if !ok || of.Make == Cut {
		return kit.Problem{Path: "again.within", What: "only what the lines of a print hold is coloured within them"}
	}
	held := p.Outline.Enclosed()
	slices.SortStableFunc(held, func(a, b shape.Region) int { return cmp.Compare(b.Area(), a.Area()) })
	var fresh []Layer
	for _, g := range held {
		at, ok := g.Heart()
		if !ok || g.Area() < leastEnclosed || len(fresh) == mostEnclosed {
			continue
		}
		if slices.ContainsFunc(m.Layers, func(l Layer) bool {
			return l.Part == of.Part && l.Region != nil && l.Region.By == Enclosed && g.Contains(shape.Point{X: l.Region.Line[0].X, Y: l.Region.Line[0].Y})
		}) {
			continue
		}
		fresh = append(fresh, Layer{Part: of.Part, Label: fmt.Sprintf("%s, region %d", of.Label, len(fresh)+1), Make: Printed, Rank: of.Rank, Accent: true, Fit: kit.FitFree, Copies: 1,
			Region: &Region{By: Enclosed, Line: []Offset{{X: at.X, Y: at.Y}}}})
	}
	if len(fresh) == 0 {
		return kit.Problem{Path: "again.within", What: "its lines hold nothing that could be coloured, or all of it is a layer already"}
	}
	m.Layers = slices.Clone(m.Layers)
	for n := range fresh {
		fresh[n].ID = m.freshLayer()
		m.Layers = slices.Insert(m.Layers, layer+1+n, fresh[n])
	}
	return nil
}

// freshLayer is an id no layer of the image has.
func (m Motif) freshLayer() string {
	for n := len(m.Layers) + 1; ; n++ {
		id := fmt.Sprintf("l%d", n)
		if !slices.ContainsFunc(m.Layers, func(l Layer) bool { return l.ID == id }) {
			return id
		}
	}
}

// proposedLine is where a part is parted at first: along its longest pressed line, or
// across its middle.
func proposedLine(k kit.Kit, set, part string) []Offset {
	s, _ := k.Set(set)
	p, ok := s.Part(part)
	if !ok {
		return nil
	}
	var best []Offset
	longest := 0.0
	for _, line := range p.Pressed() {
		long := 0.0
		for j := 1; j < len(line); j++ {
			long += line[j].Distance(line[j-1])
		}
		if first, last := line[0], line[len(line)-1]; long > longest && first.Distance(last) > long/3 {
			longest = long
			best = best[:0]
			step := max(1, int(math.Ceil(float64(len(line)-1)/50)))
			for j := 0; j < len(line)-1; j += step {
				best = append(best, Offset{X: line[j].X, Y: line[j].Y})
			}
			best = append(best, Offset{X: last.X, Y: last.Y})
		}
	}
	if len(best) > 1 {
		return best
	}
	b := p.Outline.Bounds()
	y := b.Centre().Y
	return []Offset{{X: b.Min.X, Y: y}, {X: b.Max.X, Y: y}}
}

// again checks what a layer takes of its part.
func (k *checker) again(at string, l Layer) {
	k.bad(!sane(l.Traced, -20, 20), at+".traced", "a back is traced at most 20 mm larger or smaller")
	k.bad(!sane(l.Shifted, -200, 200), at+".shifted", "a copy is put on at most 200 mm off")
	r := l.Region
	if r == nil {
		return
	}
	k.bad(!slices.Contains(Partings, r.By), at+".region.by", fmt.Sprintf("%q is no way to part a piece; take %v", r.By, Partings))
	k.bad(len(r.Line) > 60, at+".region.line", "a line goes through at most 60 points")
	if r.By == Enclosed {
		k.bad(len(r.Line) == 0, at+".region.line", "name a point within the region")
		k.bad(l.Make == Cut, at+".region.by", "only what the lines of a print hold is coloured within them")
		return
	}
	k.bad(r.Part == "" && len(r.Line) < 2, at+".region.line", "draw the line it is parted along, through two points or more")
	for i, p := range r.Line {
		k.bad(!sane(p.X, -5000, 5000) || !sane(p.Y, -5000, 5000), fmt.Sprintf("%s.region.line[%d]", at, i), "the point is out of reach of the piece")
	}
	k.bad(r.By.piece() && l.Make != Cut, at+".region.by", "only cut pieces are cut twice or swapped: mask a print")
	k.bad(l.Spares() && l.Make == Cut, at+".region.by", "what stays as it is, is no piece of its own: cut it twice")
}
