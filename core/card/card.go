// Package card holds the document a person makes: a card with its base, mats,
// images, colourways and placements, and the checks that keep it readable.
package card

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Version is the document version this program writes.
const Version = 1

// Card is the whole document.
type Card struct {
	Version  int       `json:"version" doc:"document version" minimum:"1"`
	Title    string    `json:"title" minLength:"1" maxLength:"120"`
	Base     Base      `json:"base"`
	Sheets   []Sheet   `json:"sheets" nullable:"false" doc:"mats from the base up; the last is the panel"`
	Motifs   []Motif   `json:"motifs" nullable:"false"`
	Elements []Element `json:"elements" nullable:"false" doc:"what lies on the panel, lowest first"`
	Patterns []Pattern `json:"patterns,omitempty" maxItems:"12" doc:"patterns turned on a panel"`
	Work     Work      `json:"work"`
	SetAside []Aside   `json:"setAside" nullable:"false" doc:"margin notes the person has set aside"`
}

// Base is the folded card.
type Base struct {
	Format   string       `json:"format" doc:"id of a known format, or custom"`
	W        float64      `json:"w" minimum:"20" maximum:"400" doc:"closed width, mm"`
	H        float64      `json:"h" minimum:"20" maximum:"400" doc:"closed height, mm"`
	Fold     measure.Fold `json:"fold" enum:"side,top"`
	Paper    string       `json:"paper" doc:"cardstock id"`
	Envelope string       `json:"envelope" doc:"envelope id"`
}

// Size is the closed front.
func (b Base) Size() measure.Size { return measure.Size{W: b.W, H: b.H} }

// Sheet is a mat, or the panel when it is the last.
type Sheet struct {
	ID     string  `json:"id"`
	Paper  string  `json:"paper" doc:"cardstock id"`
	Border float64 `json:"border" minimum:"0" maximum:"150" doc:"how much of the sheet beneath shows on each side, mm"`
	Joint  Joint   `json:"joint"`
}

// JointKind is how a part is held.
type JointKind string

// Kinds of joints.
const (
	Glued  JointKind = "glue"
	Foamed JointKind = "foam"
	Loose  JointKind = "loose"
)

// Joint holds a part to what is beneath.
type Joint struct {
	Kind   JointKind `json:"kind" enum:"glue,foam,loose"`
	Spacer string    `json:"spacer,omitempty" doc:"spacer id, for foam"`
	Levels int       `json:"levels,omitempty" minimum:"0" maximum:"6" doc:"how many spacers on each other; 0 counts as 1"`
	Glue   string    `json:"glue,omitempty" doc:"adhesive id"`
}

// School is the rule of lightness for a motif.
type School string

// Schools of lightness.
const (
	LightGround School = "light ground" // lightest first, darker details after
	DarkGround  School = "dark ground"  // lowest darkest, rising to light
	LocalColour School = "local colour" // no order; neighbours stay apart
	EveryPiece  School = "every piece"  // light, middle and dark within every piece; neighbours stay apart
)

// Ordered reports whether the school sets an order of lightness over the ranks.
func (s School) Ordered() bool { return s == LightGround || s == DarkGround }

// Make is how a layer comes to be.
type Make string

// Makes of layers.
const (
	Cut     Make = "cut"     // a piece of its own paper
	Printed Make = "printed" // stamped on the layer that carries it
	// Stencilled ink is blended through an opening of a layering stencil, laid by
	// its etched lines on the layer that carries it.
	Stencilled Make = "stencilled"
)

// Layer is one part in the stack of an image.
type Layer struct {
	ID    string `json:"id"`
	Part  string `json:"part" doc:"part id in the motif's set"`
	Label string `json:"label"`
	Make  Make   `json:"make" enum:"cut,printed,stencilled"`
	// After says that a cut layer is stamped first, and cut out with its die when
	// that is dry: then it is the die that has to be placed.
	After  bool    `json:"after,omitempty" doc:"a cut layer that is stamped first and cut out after"`
	On     string  `json:"on,omitempty" doc:"layer it sits on; empty lets the outlines decide"`
	Rank   int     `json:"rank" minimum:"1" maximum:"99" doc:"tone rank"`
	Accent bool    `json:"accent,omitempty" doc:"left out of the order of lightness"`
	Fit    kit.Fit `json:"fit" enum:"free,within,even rim,fills,offset"`
	Copies int     `json:"copies" minimum:"1" maximum:"9" doc:"cut so many and glue them as one"`
	Joint  Joint   `json:"joint"`
	// Forgive is what the eye forgives of this layer, where the person has set it;
	// nil takes the general limits, eased by contrast.
	Forgive *Forgive `json:"forgive,omitempty"`
}

// Forgive is what the eye forgives of a layer off its place, all mm but RimShare.
type Forgive struct {
	Spill    float64 `json:"spill" minimum:"0" maximum:"5" doc:"how far it may run over its host, or past the cut line, mm"`
	RimShare float64 `json:"rimShare" minimum:"0.05" maximum:"1" doc:"share of the nominal rim left at the narrowest place"`
	Gap      float64 `json:"gap" minimum:"0" maximum:"5" doc:"bare gap round a layer that fills a blank, or inside a cut line, mm"`
	Overlap  float64 `json:"overlap" minimum:"0" maximum:"5" doc:"overlap where a layer fills a blank, mm"`
}

// Zone is where on a piece a blend goes.
type Zone string

// Zones of a piece, as it stands upright in its image.
const (
	AllOver Zone = "all over"
	Rim     Zone = "rim"
	Foot    Zone = "foot"
	Tip     Zone = "tip"
	Left    Zone = "left side"
	Right   Zone = "right side"
)

// Zones lists them all.
var Zones = []Zone{AllOver, Rim, Foot, Tip, Left, Right}

// Blend is an ink worked into a zone of a piece over what is there, fading out
// into the rest.
type Blend struct {
	Ink         string `json:"ink" doc:"ink id"`
	Zone        Zone   `json:"zone" enum:"all over,rim,foot,tip,left side,right side"`
	Impressions int    `json:"impressions,omitempty" minimum:"0" maximum:"6" doc:"passes; 0 counts as 1"`
}

// Strikes is the number of passes, at least one.
func (b Blend) Strikes() int { return max(1, b.Impressions) }

// Finish is the paper and ink of one layer in one colourway.
type Finish struct {
	Paper       string  `json:"paper,omitempty" doc:"cardstock id of a cut layer"`
	Ink         string  `json:"ink,omitempty" doc:"ink id; empty leaves it plain"`
	Impressions int     `json:"impressions,omitempty" minimum:"0" maximum:"6" doc:"strikes; 0 counts as 1"`
	Blends      []Blend `json:"blends,omitempty" maxItems:"6" doc:"worked in over the ink, in order"`
	Return      bool    `json:"return,omitempty" doc:"a last pass of the first ink over the joins of the blends"`
	Edge        string  `json:"edge,omitempty" doc:"ink id run round the cut edge"`
	Back        string  `json:"back,omitempty" doc:"ink id on the back, where it shows"`
}

// Strikes is the number of impressions, at least one.
func (f Finish) Strikes() int { return max(1, f.Impressions) }

// Colourway is one choice of papers and inks for all layers.
type Colourway struct {
	ID     string            `json:"id"`
	Name   string            `json:"name"`
	Layers map[string]Finish `json:"layers" doc:"by layer id"`
}

// Motif is a layered image made from the parts of a set.
type Motif struct {
	ID         string      `json:"id"`
	Name       string      `json:"name"`
	Set        string      `json:"set" doc:"set id"`
	School     School      `json:"school" enum:"light ground,dark ground,local colour,every piece"`
	Layers     []Layer     `json:"layers" nullable:"false" doc:"lowest first"`
	Colourways []Colourway `json:"colourways" nullable:"false"`
}

// Colourway finds a colourway by its id.
func (m Motif) Colourway(id string) (Colourway, bool) {
	for _, c := range m.Colourways {
		if c.ID == id {
			return c, true
		}
	}
	return Colourway{}, false
}

// ElementKind tells what an element is.
type ElementKind string

// Kinds of elements.
const (
	MotifElement ElementKind = "motif"
	StripElement ElementKind = "strip"
)

// Element is something placed on the panel.
type Element struct {
	ID        string      `json:"id"`
	Kind      ElementKind `json:"kind" enum:"motif,strip"`
	X         float64     `json:"x" doc:"centre from the left edge of the front, mm"`
	Y         float64     `json:"y" doc:"centre from the top edge of the front, mm"`
	Turn      float64     `json:"turn" doc:"clockwise, degrees"`
	Joint     Joint       `json:"joint"`
	Motif     string      `json:"motif,omitempty" doc:"motif id"`
	Colourway string      `json:"colourway,omitempty" doc:"colourway id"`
	Strip     *Strip      `json:"strip,omitempty"`
}

// Strip is a text strip: a sentiment on a strip of paper.
type Strip struct {
	Text   string  `json:"text" maxLength:"80"`
	Paper  string  `json:"paper" doc:"cardstock id"`
	Ink    string  `json:"ink" doc:"ink id"`
	W      float64 `json:"w" minimum:"3" maximum:"400" doc:"mm"`
	H      float64 `json:"h" minimum:"3" maximum:"400" doc:"mm"`
	Letter float64 `json:"letter" minimum:"1" maximum:"100" doc:"height of a capital, mm"`
	Emboss bool    `json:"emboss,omitempty" doc:"heat embossed with powder"`
}

// Work is what has been done at the bench.
type Work struct {
	Done  []string `json:"done" nullable:"false" doc:"ids of steps ticked off"`
	Order []string `json:"order,omitempty" doc:"the person's own order of steps, where it differs"`
	// Used is what was really used, where it was not what was planned.
	Used map[string]string `json:"used,omitempty" doc:"ink id by the id of the inking step"`
}

// Aside is a margin note set aside with a reason.
type Aside struct {
	Finding string `json:"finding" doc:"id of the finding"`
	Cause   string `json:"cause" doc:"what caused it then; another cause brings it back"`
	Reason  string `json:"reason" maxLength:"200"`
}

// Motif finds a motif by its id.
func (c Card) Motif(id string) (Motif, bool) {
	for _, m := range c.Motifs {
		if m.ID == id {
			return m, true
		}
	}
	return Motif{}, false
}

// Panel returns the size of the topmost sheet and of every sheet beneath it,
// lowest first. A card without sheets has its front as panel.
func (c Card) Panel() (measure.Size, []measure.Size, error) {
	borders := make([]float64, len(c.Sheets))
	for i, s := range c.Sheets {
		borders[i] = s.Border
	}
	sizes, err := measure.Nest(c.Base.Size(), borders...)
	if err != nil {
		return measure.Size{}, nil, fmt.Errorf("lay out the mats: %w", &MatError{At: len(sizes), Of: len(borders), Border: borders[len(sizes)]})
	}
	if len(sizes) == 0 {
		return c.Base.Size(), nil, nil
	}
	return sizes[len(sizes)-1], sizes, nil
}

// MatError tells which mat, counted from 0 from the base up, leaves nothing of
// itself: its border on both sides is wider than what it lies on.
type MatError struct {
	At, Of int
	Border float64 // mm
}

func (e *MatError) Error() string {
	return fmt.Sprintf("the border round %s is too wide: nothing is left of it; make it narrower", e.Name())
}

// Name is what a person calls the sheet.
func (e *MatError) Name() string { return SheetName(e.At, e.Of) }

// SheetName is what a person calls sheet i of n, counted from 0 from the base
// up; the last is the panel.
func SheetName(i, n int) string {
	switch {
	case i == n-1:
		return "the panel"
	case n == 2:
		return "the mat"
	}
	return fmt.Sprintf("mat %d", i+1)
}

// Limits of a card.
const (
	MaxElements   = 400
	MaxLayers     = 200
	MaxSheets     = 24
	MaxMotifs     = 60
	MaxColourways = 60  // colourways of an image
	MaxPlaced     = 600 // layers of all images as placed, each as often as it is placed
)

// Validate checks the document by itself, without the kit. It returns every
// problem found, each a kit.Problem with the path of its field.
func (c Card) Validate() error {
	var errs []error
	bad := func(is bool, path, what string) {
		if is {
			errs = append(errs, kit.Problem{Path: path, What: what})
		}
	}
	bad(c.Version > Version, "version", fmt.Sprintf("this card was made by a newer Ochrestone (document version %d; this one reads up to %d)", c.Version, Version))
	bad(c.Title == "", "title", "give the card a name")
	bad(!sane(c.Base.W, 20, 400) || !sane(c.Base.H, 20, 400), "base.w", "a card is 20 to 400 mm each way")
	var mat *MatError
	if _, _, err := c.Panel(); errors.As(err, &mat) {
		bad(true, fmt.Sprintf("sheets[%d].border", mat.At), mat.Error())
	}
	ids := map[string]string{}
	once := func(id, path string) {
		if was, dup := ids[id]; dup || id == "" {
			bad(true, path+".id", fmt.Sprintf("id %q is missing or used twice (%s)", id, was))
		}
		ids[id] = path
	}
	bad(len(c.Sheets) > MaxSheets, "sheets", fmt.Sprintf("at most %d mats and panels", MaxSheets))
	bad(len(c.Motifs) > MaxMotifs, "motifs", fmt.Sprintf("at most %d images", MaxMotifs))
	bad(len(c.SetAside) > 2000, "setAside", "at most 2000 notes set aside")
	bad(len(c.Work.Done)+len(c.Work.Order)+len(c.Work.Used) > 40_000, "work", "too many steps ticked off")
	placed := 0
	for _, e := range c.Elements {
		if m, ok := c.Motif(e.Motif); ok {
			placed += len(m.Layers)
		}
	}
	bad(placed > MaxPlaced && len(c.Elements) <= MaxElements, "elements", fmt.Sprintf("the images placed have %d layers in all; at most %d can be planned at once", placed, MaxPlaced))
	for i, s := range c.Sheets {
		once(s.ID, fmt.Sprintf("sheets[%d]", i))
		bad(!sane(s.Border, 0, 150), fmt.Sprintf("sheets[%d].border", i), "a border is 0 to 150 mm")
	}
	for i, m := range c.Motifs {
		at := fmt.Sprintf("motifs[%d]", i)
		once(m.ID, at)
		bad(len(m.Layers) > MaxLayers, at+".layers", fmt.Sprintf("at most %d layers", MaxLayers))
		bad(len(m.Colourways) > MaxColourways, at+".colourways", fmt.Sprintf("at most %d colourways", MaxColourways))
		layers := map[string]bool{}
		for j, l := range m.Layers {
			bad(l.ID == "" || layers[l.ID], fmt.Sprintf("%s.layers[%d].id", at, j), "every layer has an id of its own")
			layers[l.ID] = true
			if f := l.Forgive; f != nil {
				bad(!sane(f.Spill, 0, 5) || !sane(f.RimShare, 0.05, 1) || !sane(f.Gap, 0, 5) || !sane(f.Overlap, 0, 5), fmt.Sprintf("%s.layers[%d].forgive", at, j), "limits are 0 to 5 mm, and a share of the rim from 0.05 to 1")
			}
		}
		cw := map[string]bool{}
		for j, w := range m.Colourways {
			bad(w.ID == "" || cw[w.ID], fmt.Sprintf("%s.colourways[%d].id", at, j), "every colourway has an id of its own")
			cw[w.ID] = true
			for id, f := range w.Layers {
				for n, bl := range f.Blends {
					bad(!slices.Contains(Zones, bl.Zone), fmt.Sprintf("%s.colourways[%d].layers.%s.blends[%d].zone", at, j, id, n), fmt.Sprintf("%q is not a zone; take %v", bl.Zone, Zones))
				}
			}
		}
	}
	for i, p := range c.Patterns {
		at := fmt.Sprintf("patterns[%d]", i)
		once(p.ID, at)
		p.check(c, at, bad)
	}
	bad(len(c.Elements) > MaxElements, "elements", fmt.Sprintf("at most %d elements", MaxElements))
	for i, e := range c.Elements {
		at := fmt.Sprintf("elements[%d]", i)
		once(e.ID, at)
		bad(!sane(e.X, -500, 1000) || !sane(e.Y, -500, 1000), at+".x", "the place is out of reach of the card")
		bad(!sane(e.Turn, -3600, 3600), at+".turn", "a turn is given in degrees")
		switch e.Kind {
		case MotifElement:
			m, ok := c.Motif(e.Motif)
			bad(!ok, at+".motif", "names an image that is not on this card")
			_, cw := m.Colourway(e.Colourway)
			bad(ok && !cw, at+".colourway", "names a colourway the image does not have")
		case StripElement:
			bad(e.Strip == nil, at+".strip", "a strip needs its text and size")
			bad(e.Strip != nil && (!sane(e.Strip.W, 1, 400) || !sane(e.Strip.H, 1, 400) || !sane(e.Strip.Letter, 0.5, 100)), at+".strip.w", "a strip is 1 to 400 mm each way")
		default:
			bad(true, at+".kind", fmt.Sprintf("%q is not a kind of element", e.Kind))
		}
	}
	return errors.Join(errs...)
}

func sane(v, lo, hi float64) bool { return !math.IsNaN(v) && v >= lo && v <= hi }
