package plan

import (
	"cmp"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

// Colourway is the plan of one choice of papers and inks.
type Colourway struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Ground  string      `json:"ground" doc:"colour of the panel under the image, #rrggbb"`
	Layers  []LayerLook `json:"layers" nullable:"false"`
	Pairs   []PairLook  `json:"pairs" nullable:"false" doc:"touching pairs, weakest first"`
	Weakest float64     `json:"weakest" doc:"CIEDE2000 of the weakest touching pair; 0 when nothing touches"`
	Height  float64     `json:"height" doc:"height of the stack by itself, mm"`
	Card    int         `json:"cards" doc:"cut pieces in the stack"`
	Prints  int         `json:"prints" doc:"printed layers"`
	Eyes    []EyeLook   `json:"eyes" nullable:"false" doc:"how it holds for other eyes"`
}

// LayerLook is how one layer looks in a colourway.
type LayerLook struct {
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
	Doubt     float64       `json:"doubt" doc:"how far the dried colour may be off, CIEDE2000; 0 when it was measured or nothing is inked"`
	Missing   string        `json:"missing,omitempty" doc:"what the stores do not hold"`

	card   string      // id of the bare card it is inked on; empty on another ink
	Blends []BlendLook `json:"blends" nullable:"false" doc:"worked in over it, in order"`
	Line   *LineLook   `json:"line,omitempty" doc:"an outline printed first or last"`
	Edge   string      `json:"edge,omitempty" doc:"colour of the cut edge where it is inked, #rrggbb"`
}

// PairLook is a touching pair and how far apart it dries.
type PairLook struct {
	A      string  `json:"a" doc:"layer id; empty for the panel"`
	B      string  `json:"b"`
	Diff   float64 `json:"diff" doc:"CIEDE2000"`
	Length float64 `json:"length" doc:"shared edge, mm"`
}

// defaultCaliper is taken for a paper the stores do not hold, mm.
const defaultCaliper = 0.28

// panelColour is the colour of the sheet images lie on.
func (b *builder) panelColour() colour.Linear {
	return b.paperColour(b.panelPaper())
}

// panelPaper is the id of the paper images lie on.
func (b *builder) panelPaper() string {
	if n := len(b.card.Sheets); n > 0 {
		return b.card.Sheets[n-1].Paper
	}
	return b.card.Base.Paper
}

func (b *builder) paperColour(id string) colour.Linear { return b.kit.paperColour(id) }

// film returns an ink as a filter.
func (b *builder) film(i *kit.Ink) (colour.Film, colour.Source, error) {
	return b.kit.film(i)
}

// driedInk is an ink as it dries on something.
type driedInk struct {
	dry, wet colour.Linear
	source   colour.Source
	doubt    float64 // CIEDE2000
	ink      string  // its name
}

// dried is the dried and wet colour of a finish on what is beneath; paper is the
// id of the card when that is bare, else empty. The ink is unknown when ok is
// false.
func (b *builder) dried(f card.Finish, under colour.Linear, paper string) (d driedInk, ok bool) {
	if f.Ink == "" {
		return driedInk{dry: under, wet: under, source: colour.Typed}, true
	}
	d = driedInk{dry: under, wet: under, source: colour.Estimated}
	i, found := b.kit.ink[f.Ink]
	if !found {
		return d, false
	}
	d.ink = i.Name
	film, _, err := b.film(i)
	if err != nil {
		return d, false
	}
	n := f.Strikes()
	d.dry, d.source, d.doubt = b.kit.on(i, film, under, paper, n)
	d.wet = kit.HabitOf(i.Kind).Drying.Wet(d.dry)
	if c, err := colour.ParseHex(i.Wet); err == nil && i.Wet != "" {
		d.wet = colour.FilmFrom(c, b.paperColour(i.Paper), film.Hide).Over(under, n)
	}
	return d, true
}

// colours works out every colourway of every image.
func (b *builder) colours() {
	for mi := range b.plan.Motifs {
		pm := &b.plan.Motifs[mi]
		m := b.card.Motifs[mi]
		if pm.Problem != "" {
			continue
		}
		for _, w := range m.Colourways {
			pm.Colourways = append(pm.Colourways, b.colourway(pm, w))
		}
	}
}

func (b *builder) colourway(pm *Motif, w card.Colourway) Colourway {
	out := b.look(pm, w)
	out.Eyes = eyes(out)
	b.heights(pm, w, &out)
	return out
}

// look is a colourway without its heights.
func (b *builder) look(pm *Motif, w card.Colourway) Colourway {
	ground := b.panelColour()
	bare := make([]string, len(pm.img.Views)) // paper that a layer leaves bare on top
	out := Colourway{ID: w.ID, Name: w.Name, Ground: ground.Hex(), Layers: []LayerLook{}, Pairs: []PairLook{}}
	n := len(pm.img.Views)
	lin := make([]colour.Linear, n)
	lab := make([]colour.Lab, n)
	tones := make([][]toned, n)
	for i, v := range pm.img.Views {
		f := w.Layers[v.Layer.ID]
		look := LayerLook{ID: v.Layer.ID}
		under, paper := ground, ""
		if v.Layer.Make == card.Cut {
			under, paper = b.paperColour(f.Paper), f.Paper
			if p, ok := b.kit.paper[f.Paper]; ok {
				look.PaperName = p.Name
			} else {
				look.Missing = "paper"
			}
			out.Card += v.Layer.Copies
		} else {
			out.Prints++
			if paper = b.panelPaper(); v.Host >= 0 {
				under, paper = lin[v.Host], bare[v.Host]
			}
		}
		if f.Ink == "" && len(f.Blends) == 0 {
			bare[i] = paper
		}
		look.Paper = under.Hex()
		d, ok := b.dried(f, under, paper)
		if !ok {
			look.Missing = "ink"
		}
		look.Wet, look.WetL, look.Doubt, look.card = d.wet.Hex(), d.wet.Lab().L, d.doubt, paper
		lin[i], tones[i] = b.blended(&look, v, f, d.dry, paper)
		lab[i] = lin[i].Lab()
		look.Dry, look.L = lin[i].Hex(), lab[i].L
		look.Line = b.line(pm, w, i, lin[i], under)
		look.Source, look.InkName = d.source, d.ink
		out.Layers = append(out.Layers, look)
	}
	for _, t := range pm.img.Touches {
		a, id := []colour.Lab{ground.Lab()}, ""
		if t.A != motif.Ground {
			// What a layer sits on meets it away from that one's own edge.
			a, id = within(lab[t.A], tones[t.A]), pm.img.Views[t.A].Layer.ID
			if pm.img.Views[t.B].Host != t.A {
				a = atEdge(lab[t.A], tones[t.A])
			}
		}
		out.Pairs = append(out.Pairs, PairLook{id, pm.img.Views[t.B].Layer.ID, closest(a, atEdge(lab[t.B], tones[t.B])), t.Length})
	}
	slices.SortStableFunc(out.Pairs, func(p, q PairLook) int { return cmp.Compare(p.Diff, q.Diff) })
	if len(out.Pairs) > 0 {
		out.Weakest = out.Pairs[0].Diff
	}
	return out
}

// heights stands the layers on each other.
func (b *builder) heights(pm *Motif, w card.Colourway, out *Colourway) {
	stood := depth.Stack(b.solids(pm, w, *out, func(g shape.Region) shape.Region { return g }), 0)
	for i, s := range stood {
		l := &out.Layers[i]
		l.Z0, l.Z1, l.Thick, l.Lift = s.Z0, s.Z1, s.Thick, s.Lift
	}
	out.Height, _ = depth.Top(stood, 0)
}

// solids lists the layers of an image as solids, put in place.
func (b *builder) solids(pm *Motif, w card.Colourway, look Colourway, place func(shape.Region) shape.Region) []depth.Solid {
	out := make([]depth.Solid, 0, len(pm.img.Views))
	for i, v := range pm.img.Views {
		l := look.Layers[i]
		s := depth.Solid{Layer: v.Layer.ID, Outline: place(v.Outline), Colour: l.Paper, Top: l.Dry}
		if l.Edge != "" {
			s.Colour = l.Edge
		}
		if v.Layer.Make == card.Cut {
			s.Thick = defaultCaliper
			if p, ok := b.kit.paper[w.Layers[v.Layer.ID].Paper]; ok {
				s.Thick = p.Caliper
			}
			s.Thick *= float64(max(1, v.Layer.Copies))
			if i > 0 {
				s.Lift, s.Foam = b.lift(v.Layer.Joint)
			}
		}
		out = append(out, s)
	}
	return out
}

func (b *builder) lift(j card.Joint) (float64, bool) {
	var spacer, glue float64
	foam := false
	if s, ok := b.kit.spacer[j.Spacer]; ok && j.Kind == card.Foamed {
		spacer, foam = s.Thickness, s.Foam()
		return depth.Lift(true, spacer, j.Levels, 0), foam
	}
	if j.Kind == card.Loose {
		return 0, false
	}
	if a, ok := b.kit.adhesive[j.Glue]; ok {
		glue = a.Thickness
	}
	return depth.Lift(false, 0, 0, glue), false
}
