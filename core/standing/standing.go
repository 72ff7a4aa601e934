// Package standing tells how everything on a front stands: for drawing it from the side,
// from the back and aslant, and for saying what holds what.
package standing

import (
	"math"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/measure"
	"ochrestone/core/scene"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// Card is how everything on the front stands, for drawing it from the side, from the
// back and aslant.
type Card struct {
	Base   float64      `json:"base" doc:"thickness of the two leaves of the base, mm"`
	Total  float64      `json:"total" doc:"greatest thickness, mm"`
	Pieces []Piece      `json:"pieces" nullable:"false" doc:"leaves and prints, as they are laid"`
	Less   []Less       `json:"less" nullable:"false" doc:"what one level less of a part would change, the most first"`
	Things []Relation   `json:"things" nullable:"false" doc:"by element: what it has to do with the others"`
	Steps  []scene.Step `json:"steps" nullable:"false" doc:"what the picture of each step of the work shows"`
}

// Piece is a leaf or a print with its heights.
type Piece struct {
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
	Bent     *Bent      `json:"bent,omitempty" doc:"its underside where it is bent; none: it is the plane given"`
	Thick    float64    `json:"thick" doc:"mm; 0 for a print"`
	Body     string     `json:"body" doc:"#rrggbb"`
	Top      string     `json:"top" doc:"#rrggbb"`
	Frame    card.Place `json:"frame" doc:"where its own frame lies, in which pads are given"`
	Supports []Support  `json:"supports" nullable:"false"`
	Films    []Film     `json:"films" nullable:"false" doc:"ink on it beside its top, in order"`
	Off      []string   `json:"off" nullable:"false" doc:"what is cut off it, path data in mm"`
	Trouble  string     `json:"trouble,omitempty" enum:"rocks,rides,airy,leans,bows"`
	TroubleX float64    `json:"troubleX,omitempty" doc:"where, mm"`
	TroubleY float64    `json:"troubleY,omitempty" doc:"mm"`
}

// Bent is the underside of a leaf that is bent: heights over a grid, linear between its nodes.
type Bent struct {
	X    float64   `json:"x" doc:"of the first node, mm"`
	Y    float64   `json:"y" doc:"mm"`
	Cell float64   `json:"cell" doc:"mm from node to node"`
	NX   int       `json:"nx" doc:"nodes in a row"`
	Z    []float64 `json:"z" nullable:"false" doc:"mm above the table, row by row"`
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

// Film is ink on a leaf.
type Film struct {
	Path string `json:"path" doc:"on the front, path data in mm"`
	Fill string `json:"fill" doc:"dried colour, #rrggbb"`
	Of   int    `json:"of,omitempty" doc:"which treatment of its sheet leaves it, from 0"`
}

// placed lays what is drawn in a thing's own frame on the front.
func placed(b *build.Build, element string, g shape.Region) shape.Region {
	for i := range b.Things {
		if t := &b.Things[i]; t.Element.ID == element {
			return t.Place(g)
		}
	}
	return g
}

// View is what is stood up, and by whose figures.
type View struct {
	Build    *build.Build
	Stood    []depth.Stood
	Pads     *depth.Memory
	Carriers []depth.Carrier
	Write    measure.Writing
	Acts     []work.Act // in their order
}

// Of tells how everything on the front stands.
func Of(v View) Card {
	bd := v.Build
	out := Card{Base: bd.Thick, Pieces: []Piece{}, Things: []Relation{}, Steps: scene.Of(bd, v.Acts)}
	out.Total, _ = depth.Top(v.Stood, bd.Thick)
	for _, i := range bd.Upward() {
		s := v.Stood[i]
		e, _ := bd.Card.Element(s.ID.Element)
		x := Piece{Element: s.ID.Element, Part: s.ID.Part, Name: build.Name(bd.Card, e), Path: s.Outline.Path(), X: s.Under.At.X, Y: s.Under.At.Y, Z: s.Under.Z, SX: s.Under.SX, SY: s.Under.SY,
			Thick: s.Thick, Body: s.Body, Top: s.Top, Frame: s.Frame(), Supports: []Support{}, Films: []Film{}, Off: []string{}}
		if f := s.Bent; !f.Flat() {
			x.Bent = &Bent{X: hundredths(f.From.X), Y: hundredths(f.From.Y), Cell: f.Cell, NX: f.NX, Z: make([]float64, len(f.Z))}
			for i, z := range f.Z {
				x.Bent.Z[i] = hundredths(z)
			}
		}
		if e.Image != nil && s.On.Element == s.ID.Element {
			x.Motif = e.Image.Motif
		}
		if s.ID.Part != "" && s.ID.Part != build.CutoutPart {
			x.Name += ", " + bd.PartName(e, s.ID.Part)
		}
		for _, h := range v.held(s) {
			held := Support{Bond: h.Hold, Path: h.Area.Path(), Height: h.Height, Foam: h.Foam, Raised: h.Raised, Own: h.Own}
			if h.Pad.W > 0 {
				held.Pad = &h.Pad
			}
			x.Supports = append(x.Supports, held)
		}
		if len(s.Films) > 0 {
			for _, f := range s.Films {
				x.Films = append(x.Films, Film{placed(bd, s.ID.Element, f.Region).Path(), f.Colour, f.Treatment})
			}
		}
		for _, n := range e.Snips {
			if (n.Part == "" || n.Part == s.ID.Part) && !s.Print() {
				x.Off = append(x.Off, s.FromSelf(n.Off).Path())
			}
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
	out.Less = v.less(out.Total)
	out.Things = v.relations(out.Pieces)
	return out
}

// hundredths is a length told to 0.01 mm, as finely as it is drawn.
func hundredths(mm float64) float64 { return math.Round(mm*100) / 100 }

// held is what holds a piece: as it was worked out, or by its glue.
func (v View) held(s depth.Stood) []depth.Support {
	if len(s.Supports) > 0 || len(s.Holds) == 0 {
		return s.Supports
	}
	return v.Pads.Supports(s.Piece, nil, s.Outline)
}
