package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/advise"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/measure"
)

// Standing is how everything on the front stands, for drawing it from the side, from the
// back and aslant.
type Standing struct {
	Base   float64    `json:"base" doc:"thickness of the two leaves of the base, mm"`
	Total  float64    `json:"total" doc:"greatest thickness, mm"`
	Pieces []Standee  `json:"pieces" nullable:"false" doc:"leaves and prints, as they are laid"`
	Less   []Less     `json:"less" nullable:"false" doc:"what one level less of a part would change, the most first"`
	Things []Relation `json:"things" nullable:"false" doc:"by element: what it has to do with the others"`
}

// Less is what the card comes to with one level less beneath a part.
type Less struct {
	Element string         `json:"element"`
	Name    string         `json:"name"`
	Total   float64        `json:"total" doc:"greatest thickness then, mm"`
	Mailed  []depth.Mailed `json:"mailed" nullable:"false"`
	Edits   []card.Edit    `json:"edits" nullable:"false"`
}

// Relation says what a thing stands on, what stands on it, and what it must let pass.
type Relation struct {
	Element string   `json:"element"`
	On      []string `json:"on" nullable:"false" doc:"what it touches beneath"`
	Bears   []string `json:"bears" nullable:"false" doc:"what touches it from above"`
	Passes  []string `json:"passes" nullable:"false" doc:"what is tucked beneath it"`
	Pads    int      `json:"pads" doc:"pads beneath its leaves"`
	Said    string   `json:"said" doc:"how it is held"`
	Undo    []string `json:"undo" nullable:"false" doc:"whether and how its joints come up again"`
}

// Standee is a leaf or a print with its heights.
type Standee struct {
	Element  string     `json:"element"`
	Part     string     `json:"part,omitempty"`
	Motif    string     `json:"motif,omitempty" doc:"of a layer that its own bonds hold: its image"`
	Name     string     `json:"name"`
	Path     string     `json:"path" doc:"outline on the front, path data in mm"`
	X        float64    `json:"x" doc:"where its height is given, mm"`
	Y        float64    `json:"y" doc:"mm"`
	Z        float64    `json:"z" doc:"underside there, mm above the table"`
	SX       float64    `json:"sx" doc:"how much it rises to the right, mm a mm"`
	SY       float64    `json:"sy" doc:"how much it rises downwards, mm a mm"`
	Thick    float64    `json:"thick" doc:"mm; 0 for a print"`
	Body     string     `json:"body" doc:"#rrggbb"`
	Top      string     `json:"top" doc:"#rrggbb"`
	Frame    card.Place `json:"frame" doc:"where its own frame lies, in which pads are given"`
	Supports []Support  `json:"supports" nullable:"false"`
	Trouble  string     `json:"trouble,omitempty" enum:"rocks,rides,airy,leans,bows"`
	TroubleX float64    `json:"troubleX,omitempty" doc:"where, mm"`
	TroubleY float64    `json:"troubleY,omitempty" doc:"mm"`
}

// Support is an area on the back of a leaf by which it is held.
type Support struct {
	Bond   int       `json:"bond" doc:"which of its bonds"`
	Path   string    `json:"path" doc:"on the front, path data in mm"`
	Height float64   `json:"height" doc:"mm"`
	Foam   bool      `json:"foam"`
	Raised bool      `json:"raised" doc:"on spacers; else glue"`
	Own    bool      `json:"own" doc:"where the person put it"`
	Pad    *card.Pad `json:"pad,omitempty" doc:"in its leaf's own frame; none for glue and what is cut to shape"`
}

// Standing tells how everything on the front of a plan stands. m remembers pads.
func (m *Planner) Standing(p Plan, opts ...Option) Standing {
	out := Standing{Base: p.Build.Thick, Total: p.Depth.Total, Pieces: []Standee{}, Things: []Relation{}}
	bd := &p.Build
	for _, i := range bd.Upward() {
		s := p.Stood[i]
		e, _ := bd.Card.Element(s.ID.Element)
		x := Standee{Element: s.ID.Element, Part: s.ID.Part, Name: build.Name(bd.Card, e), Path: s.Outline.Path(), X: s.Under.At.X, Y: s.Under.At.Y, Z: s.Under.Z, SX: s.Under.SX, SY: s.Under.SY,
			Thick: s.Thick, Body: s.Body, Top: s.Top, Frame: s.Frame(), Supports: []Support{}}
		if e.Image != nil && s.On.Element == s.ID.Element {
			x.Motif = e.Image.Motif
		}
		if s.ID.Part != "" && s.ID.Part != build.CutoutPart {
			x.Name += ", " + bd.PartName(e, s.ID.Part)
		}
		for _, h := range m.held(s) {
			held := Support{Bond: h.Hold, Path: h.Area.Path(), Height: h.Height, Foam: h.Foam, Raised: h.Raised, Own: h.Own}
			if h.Pad.W > 0 {
				held.Pad = &h.Pad
			}
			x.Supports = append(x.Supports, held)
		}
		if t := s.Trouble(); t != depth.None {
			x.Trouble = string(t)
			at := s.Uneven.High
			switch t {
			case depth.Riding:
				at = s.Uneven.At
			case depth.Rocking, depth.Airy:
				at = s.Uneven.GapAt
			case depth.Leaning:
				at = s.Uneven.Low
			}
			x.TroubleX, x.TroubleY = at.X, at.Y
		}
		out.Pieces = append(out.Pieces, x)
	}
	out.Less = m.less(p, assumed(opts))
	out.Things = m.relations(p, out.Pieces, assumed(opts).write)
	return out
}

// held is what holds a piece: as it was worked out, or by its glue.
func (m *Planner) held(s depth.Stood) []depth.Support {
	if len(s.Supports) > 0 || len(s.Holds) == 0 {
		return s.Supports
	}
	return m.pads.Supports(s.Piece, nil, s.Outline)
}

// undoing says whether and how joints come up again.
func undoing(b *build.Build, bonds []card.Bond) []string {
	out := []string{}
	for _, x := range bonds {
		said := ""
		if sp, ok := b.Stock.Spacer(x.Spacer); ok {
			said = sp.Undoing()
		} else if a, ok := b.Stock.Adhesive(x.Adhesive); ok && !x.Raised() {
			said = a.Undoing()
		}
		if said != "" && !slices.Contains(out, said) {
			out = append(out, said)
		}
	}
	return out
}

// meets is how near, mm, an underside comes to a top to touch it, pads and glue between.
const meets = 0.35

// relations says by thing what it stands on, what stands on it and what passes beneath.
func (m *Planner) relations(p Plan, pieces []Standee, w measure.Writing) []Relation {
	bd := &p.Build
	at := map[string]int{}
	out := []Relation{}
	for _, e := range bd.Card.Elements {
		if e.Face == card.Front && e.Known() {
			at[e.ID] = len(out)
			out = append(out, Relation{Element: e.ID, On: []string{}, Bears: []string{}, Passes: []string{}, Said: build.Held(bd.Stock, e.Bonds, w), Undo: undoing(bd, e.Bonds)})
		}
	}
	for _, x := range pieces {
		if i, ok := at[x.Element]; ok {
			for _, h := range x.Supports {
				if h.Pad != nil {
					out[i].Pads++
				}
			}
		}
	}
	add := func(list *[]string, name string) {
		if !slices.Contains(*list, name) {
			*list = append(*list, name)
		}
	}
	name := func(id string) string {
		if e, ok := bd.Card.Element(id); ok {
			return build.Name(bd.Card, e)
		}
		return "the card"
	}
	up := bd.Upward()
	for k, i := range up {
		s := p.Stood[i]
		if s.Print() {
			continue
		}
		box := s.Outline.Bounds()
		for _, j := range up[:k] {
			o := p.Stood[j]
			if o.Print() || o.ID.Element == s.ID.Element || !box.Meets(o.Outline.Bounds()) || !o.Outline.Overlaps(s.Outline) {
				continue
			}
			under, over := at[s.ID.Element], at[o.ID.Element]
			lift := s.Lift
			if gap := s.Z0 - o.Highest(); math.Abs(gap-lift) < meets || math.Abs(gap) < meets {
				add(&out[under].On, name(o.ID.Element))
				add(&out[over].Bears, name(s.ID.Element))
			}
		}
	}
	for cover, below := range bd.Beneath() {
		for _, j := range below {
			how := ", which goes in first"
			if ways := m.pads.WaysIn(bd, p.Stood, cover, j); len(ways) > 0 {
				how = fmt.Sprintf(", in from the %s", depth.SideOf(ways[len(ways)/2]))
			}
			add(&out[at[p.Stood[cover].ID.Element]].Passes, name(p.Stood[j].ID.Element)+how)
		}
	}
	for i := range out {
		slices.Sort(out[i].Passes)
		if len(out[i].On) == 0 {
			out[i].On = append(out[i].On, "the card")
		}
	}
	return out
}

// Heights lists the ways to hold a part of a plan's card as high as it stands, or level with
// another element. The error wraps card.ErrGone.
func (p Plan) Heights(element, part, with string, opts ...Option) (advise.Raised, error) {
	out, err := advise.HeightsFor(&p.Build, p.Stood, element, part, with, assumed(opts).write)
	if err != nil {
		return out, fmt.Errorf("the same height by other means: %w", err)
	}
	return out, nil
}

// less tries one level less beneath everything that stands on spacers.
func (m *Planner) less(p Plan, o options) []Less {
	out := []Less{}
	bd := p.Build
	panel := bd.Thick
	for _, s := range p.Stood {
		if s.ID == (build.ID{Element: bd.Panel().ID}) {
			panel = s.Z1
		}
	}
	_, highest := depth.Top(p.Stood, bd.Thick)
	if highest < 0 {
		return out
	}
	// Only what lies beneath the highest, or is it, can make the card thinner.
	beneath := func(t build.Thing) bool { return t.Rough.Overlaps(p.Stood[highest].Outline) }
	try := func(element, name string, bonds []card.Bond, hold card.Hold, goes func(build.Piece) bool) {
		if !card.Raised(bonds) {
			return
		}
		hold.Bonds = oneLess(bonds)
		holds := build.HoldsOf(bd.Stock, hold.Bonds)
		lower := bd
		lower.Pieces = slices.Clone(bd.Pieces)
		for k := range lower.Pieces {
			if x := &lower.Pieces[k]; !x.Print() && goes(*x) {
				x.Holds = holds
				x.Lift, x.Foam = build.LiftOf(holds)
			}
		}
		total, _ := depth.Top(m.pads.Stand(&lower), bd.Thick)
		if total > p.Depth.Total-leastLess {
			return
		}
		l := Less{Element: element, Name: name, Total: total, Mailed: []depth.Mailed{}, Edits: []card.Edit{{Hold: &hold}}}
		if env, ok := bd.Stock.Envelope(bd.Card.Base.Envelope); ok {
			for _, c := range o.carriers {
				l.Mailed = append(l.Mailed, c.Take(depth.Letter{Size: env.Size().Size, Thick: total + 2*env.Caliper, Grams: p.Depth.Filled, Raised: max(0, total-panel)}, o.write))
			}
		}
		out = append(out, l)
	}
	tried := map[string]bool{}
	for _, t := range p.Build.Things {
		e := t.Element
		if e.Face != card.Front || !beneath(t) {
			continue
		}
		try(e.ID, t.Name, e.Bonds, card.Hold{Element: e.ID}, func(x build.Piece) bool { return x.ID.Element == e.ID && x.On.Element != e.ID })
		if e.Image == nil || tried[e.Image.Motif] {
			continue
		}
		tried[e.Image.Motif] = true
		mo, _ := bd.Card.Motif(e.Image.Motif)
		for _, l := range mo.Layers {
			try(e.ID, mo.Name+", "+l.Label, l.Bonds, card.Hold{Motif: mo.ID, Layer: l.ID}, func(x build.Piece) bool {
				of, _ := bd.Card.Element(x.ID.Element)
				return of.Image != nil && of.Image.Motif == mo.ID && x.ID.Part == l.ID && x.On.Element == x.ID.Element
			})
		}
	}
	slices.SortStableFunc(out, func(a, b Less) int { return cmp.Compare(a.Total, b.Total) })
	return out
}

// oneLess are bonds with one spacer less, or none where there was one.
func oneLess(bonds []card.Bond) []card.Bond {
	out := slices.Clone(bonds)
	for i, b := range out {
		if !b.Raised() {
			continue
		}
		out[i].Pads = nil
		switch {
		case b.Level > 1:
			out[i].Level--
		case len(b.Shims) > 0 && b.Spacer != "":
			out[i].Shims = nil
		default:
			out[i] = card.Bond{Adhesive: b.Adhesive, Zone: b.Zone}
		}
	}
	return out
}

// leastLess is how much thinner, mm, a card must get for it to be said.
const leastLess = 0.05
