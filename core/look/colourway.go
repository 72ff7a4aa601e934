package look

import (
	"cmp"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
	"slices"
)

// Image is a layered image as the other packages know it: its document, its shapes,
// and what it lies on.
type Image struct {
	card.Motif
	Shapes motif.Image
	Ground string   // id of the paper it lies on
	Key    [32]byte // of everything the shapes depend on: images with one key have the same
}

// Name of a layer by its id; "the panel" for none.
func (m Image) LabelOf(id string) string {
	for _, l := range m.Layers {
		if l.ID == id {
			return l.Label
		}
	}
	return "the panel"
}

// Colourway is how one choice of papers and inks for an image comes out.
type Colourway struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Ground  string   `json:"ground" doc:"colour of the panel under the image, #rrggbb"`
	Layers  []Layer  `json:"layers" nullable:"false"`
	Pairs   []Pair   `json:"pairs" nullable:"false" doc:"touching pairs, weakest first"`
	Weakest float64  `json:"weakest" doc:"CIEDE2000 of the weakest touching pair; 0 when nothing touches"`
	Height  float64  `json:"height" doc:"height of the stack by itself, mm"`
	Card    int      `json:"cards" doc:"cut pieces in the stack"`
	Prints  int      `json:"prints" doc:"printed layers"`
	Crossed []string `json:"crossed" nullable:"false" doc:"ids of layers that dry against the order of the school"`
	Eyes    []Eye    `json:"eyes" nullable:"false" doc:"how it holds for other eyes"`
}

// Layer is how one layer looks in a colourway.
type Layer struct {
	ID        string        `json:"id"`
	Paper     string        `json:"paper" doc:"#rrggbb"`
	PaperName string        `json:"paperName"`
	InkName   string        `json:"inkName"`
	Dry       string        `json:"dry" doc:"dried colour, #rrggbb"`
	Wet       string        `json:"wet" doc:"colour while wet, #rrggbb"`
	L         float64       `json:"l" doc:"lightness of the dried colour, CIE L*"`
	WetL      float64       `json:"wetL" doc:"lightness while wet, CIE L*"`
	Source    colour.Source `json:"source" enum:"measured,typed,estimated"`
	Z0        float64       `json:"z0" doc:"underside, mm above the lowest layer's underside"`
	Z1        float64       `json:"z1" doc:"top, mm"`
	Thick     float64       `json:"thick" doc:"mm; 0 for a print"`
	Lift      float64       `json:"lift" doc:"glue or foam beneath, mm"`
	Foam      bool          `json:"foam" doc:"the lift is foam"`
	Doubt     float64       `json:"doubt" doc:"how far the dried colour may be off, CIEDE2000; 0 when it was measured or nothing is inked"`
	Missing   string        `json:"missing,omitempty" doc:"what the stores do not hold"`
	Bare      bool          `json:"bare,omitempty" doc:"a print that has no ink: it is not printed, and what lies beneath is seen as it is"`

	Kept   bool    `json:"kept,omitempty" doc:"a region that stays as its piece is without its ink: it takes none"`
	Card   string  `json:"-"` // id of the bare card it is inked on; empty on another ink
	Blends []Blend `json:"blends" nullable:"false" doc:"worked in over it, in order"`
	Tints  []Tint  `json:"tints,omitempty" doc:"other colours of a print where it crosses something else than what it lies on, painted over it in order"`
	Line   *Line   `json:"line,omitempty" doc:"an outline printed first or last"`
	Edge   string  `json:"edge,omitempty" doc:"colour of the cut edge where it is inked, #rrggbb"`
}

// Tint is a stretch of a print in a colour of its own.
type Tint struct {
	Path   string       `json:"path" doc:"outline in the frame of the image, mm"`
	Dry    string       `json:"dry" doc:"dried colour, #rrggbb"`
	Region shape.Region `json:"-"`
}

// Pair is a touching pair and how far apart it dries.
type Pair struct {
	A      string  `json:"a" doc:"layer id; empty for the panel"`
	B      string  `json:"b"`
	Diff   float64 `json:"diff" doc:"CIEDE2000"`
	Length float64 `json:"length" doc:"shared edge, mm"`

	a, b []colour.Lab // colours that may meet
}

// SeenBy is the smallest difference, CIEDE2000, of any two colours of the pair that may
// meet, to other eyes.
func (p Pair) SeenBy(e colour.Eyes) float64 {
	seen := func(cs []colour.Lab) []colour.Lab {
		out := make([]colour.Lab, len(cs))
		for i, c := range cs {
			out[i] = c.Linear().Seen(e).Lab()
		}
		return out
	}
	return closest(seen(p.a), seen(p.b))
}

// Dried is an ink as it dries on something.
type Dried struct {
	Dry, Wet colour.Linear
	Source   colour.Source
	Doubt    float64 // CIEDE2000
	Ink      string  // its name
}

// Dried is the dried and wet colour of a finish on what is beneath; paper is the
// id of the card when that is bare, else empty. The ink is unknown when ok is
// false.
func (s Stock) Dried(f card.Finish, under colour.Linear, paper string) (d Dried, ok bool) {
	if f.Ink == "" {
		return Dried{Dry: under, Wet: under, Source: colour.Typed}, true
	}
	d = Dried{Dry: under, Wet: under, Source: colour.Estimated}
	i, found := s.ink[f.Ink]
	if !found {
		return d, false
	}
	d.Ink = i.Name
	film, _, err := s.Film(i)
	if err != nil {
		return d, false
	}
	n := f.Strikes()
	d.Dry, d.Source, d.Doubt = s.On(i, film, under, paper, n)
	d.Wet = kit.BehaviourOf(i.Kind).Drying.Wet(d.Dry)
	if c, err := colour.ParseHex(i.Wet); err == nil && i.Wet != "" {
		d.Wet = colour.FilmFrom(c, s.PaperColour(i.Paper), film.Hide).Over(under, n)
	}
	return d, true
}

// Look is how a colourway of an image dries: every layer, and every pair that touches.
// Heights are left at 0.
func (s Stock) Look(m Image, w card.Colourway) Colourway {
	ground := s.PaperColour(m.Ground)
	bare := make([]string, len(m.Shapes.Views)) // paper that a layer leaves bare on top
	out := Colourway{ID: w.ID, Name: w.Name, Ground: ground.Hex(), Layers: []Layer{}, Pairs: []Pair{}, Crossed: []string{}}
	n := len(m.Shapes.Views)
	lin := make([]colour.Linear, n)
	lab := make([]colour.Lab, n)
	tones := make([][]toned, n)
	for i, v := range m.Shapes.Views {
		f := w.Layers[v.Layer.ID]
		spared := v.Layer.Spares() && v.Problem == ""
		if spared {
			f = card.Finish{}
		}
		look := Layer{ID: v.Layer.ID}
		under, paper := ground, ""
		if v.Layer.Make == card.Cut {
			under, paper = s.PaperColour(f.Paper), f.Paper
			if p, ok := s.paper[f.Paper]; ok {
				look.PaperName = p.Name
			} else {
				look.Missing = "paper"
			}
			out.Card += v.Layer.Copies
		} else if spared {
			// It is seen as what it is a region of is without its ink.
			under, paper = s.spared(m, w, v, lin, bare)
			look.Kept = true
		} else {
			out.Prints++
			look.Bare = f.First() == ""
			if paper = m.Ground; v.Host >= 0 {
				under, paper = lin[v.Host], bare[v.Host]
			}
		}
		if f.Ink == "" && len(f.Blends) == 0 {
			bare[i] = paper
		}
		look.Paper = under.Hex()
		d, ok := s.Dried(f, under, paper)
		if !ok {
			look.Missing = "ink"
		}
		look.Wet, look.WetL, look.Doubt, look.Card = d.Wet.Hex(), d.Wet.Lab().L, d.Doubt, paper
		lin[i], tones[i] = s.blended(&look, v, f, d.Dry, paper)
		lab[i] = lin[i].Lab()
		look.Dry, look.L = lin[i].Hex(), lab[i].L
		look.Line = s.line(m, w, i, lin[i], under)
		look.Source, look.InkName = d.Source, d.Ink
		out.Layers = append(out.Layers, look)
	}
	for _, t := range m.Shapes.Touches {
		if out.Layers[t.B].Bare || t.A != motif.Ground && out.Layers[t.A].Bare {
			continue // what is not printed touches nothing
		}
		a, id := []colour.Lab{ground.Lab()}, ""
		if t.A != motif.Ground {
			// What a layer sits on meets it away from that one's own edge.
			a, id = within(lab[t.A], tones[t.A]), m.Shapes.Views[t.A].Layer.ID
			if m.Shapes.Views[t.B].Host != t.A {
				a = atEdge(lab[t.A], tones[t.A])
			}
		}
		edge := atEdge(lab[t.B], tones[t.B])
		out.Pairs = append(out.Pairs, Pair{id, m.Shapes.Views[t.B].Layer.ID, closest(a, edge), t.Length, a, edge})
	}
	slices.SortStableFunc(out.Pairs, func(p, q Pair) int { return cmp.Compare(p.Diff, q.Diff) })
	if len(out.Pairs) > 0 {
		out.Weakest = out.Pairs[0].Diff
	}
	for _, c := range Crossings(m.Motif, out) {
		for _, i := range []int{c.Low, c.High} {
			if id := m.Layers[i].ID; !slices.Contains(out.Crossed, id) {
				out.Crossed = append(out.Crossed, id)
			}
		}
	}
	return out
}

// spared is what shows where a region of a layer is kept from its ink, and the paper that is where it is
// bare: the card it is cut from, or what it is printed on.
func (s Stock) spared(m Image, w card.Colourway, v motif.View, lin []colour.Linear, bare []string) (colour.Linear, string) {
	of := v.Host
	if of >= 0 {
		if h := m.Shapes.Views[of]; h.Layer.Make == card.Cut {
			id := w.Layers[h.Layer.ID].Paper
			return s.PaperColour(id), id
		} else if of = h.Host; of >= 0 {
			return lin[of], bare[of]
		}
	}
	return s.PaperColour(m.Ground), m.Ground
}

// Of finds the look of a layer by its id.
func (w Colourway) Of(layer string) (Layer, bool) {
	for _, l := range w.Layers {
		if l.ID == layer {
			return l, true
		}
	}
	return Layer{}, false
}
