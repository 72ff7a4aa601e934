package card

import (
	"fmt"
	"slices"

	"ochrestone/core/measure"
)

// Sheet is a piece of any stock: a mat, the panel, a frame, a strip of words, a banner, a
// leaf of vellum. Its size is its own, or comes of the Inset of its element.
type Sheet struct {
	Paper      string      `json:"paper" doc:"cardstock id"`
	W          float64     `json:"w,omitempty" minimum:"0" maximum:"400" doc:"mm; 0 where an inset gives it"`
	H          float64     `json:"h,omitempty" minimum:"0" maximum:"400" doc:"mm; 0 where an inset gives it"`
	Trim       float64     `json:"trim,omitempty" minimum:"0" maximum:"60" doc:"taken off each side when all is printed, mm"`
	Shape      *Outline    `json:"shape,omitempty" doc:"none: a rectangle with sharp corners"`
	Openings   []Opening   `json:"openings,omitempty" maxItems:"40" doc:"cut out of it"`
	Flap       *Flap       `json:"flap,omitempty" doc:"scored and folded behind, to hold a front leaf by"`
	Treatments []Treatment `json:"treatments,omitempty" maxItems:"20" doc:"what is done to it, in order"`

	extra extra
}

// Size of the sheet before it is trimmed, without its flap; nothing where an inset gives it.
func (s Sheet) Size() measure.Size { return measure.Size{W: s.W, H: s.H} }

// Flat is a sheet as it is cut, its flap folded out.
func (s Sheet) Flat(of measure.Size) measure.Size {
	if s.Flap == nil {
		return of
	}
	if s.Flap.Side == LeftSide {
		of.W += s.Flap.Depth
	} else {
		of.H += s.Flap.Depth
	}
	return of
}

// Outlined is a sort of outline.
type Outlined string

// Sorts of outlines.
const (
	Rectangle Outlined = "rectangle"
	Oval      Outlined = "oval"
	Arch      Outlined = "arch"
	Scalloped Outlined = "scalloped"
	Wavy      Outlined = "wavy"
	Fishtail  Outlined = "fishtail"
	Notched   Outlined = "notched"
	Pointed   Outlined = "pointed"
	Slanted   Outlined = "slanted"
	Tag       Outlined = "tag"
	Fringe    Outlined = "fringe"
	DiePart   Outlined = "die part"
)

// Outlineds lists them.
var Outlineds = []Outlined{Rectangle, Oval, Arch, Scalloped, Wavy, Fishtail, Notched, Pointed, Slanted, Tag, Fringe, DiePart}

// Side is one side of a sheet.
type Side string

// Sides of a sheet, as it lies unturned.
const (
	LeftSide   Side = "left"
	RightSide  Side = "right"
	TopSide    Side = "top"
	BottomSide Side = "bottom"
)

// Sides lists them.
var Sides = []Side{LeftSide, RightSide, TopSide, BottomSide}

// Outline is the shape of a sheet, or of an opening in one, within its width and height. Letters
// that are cut out have none of these kinds.
type Outline struct {
	Kind Outlined `json:"kind,omitempty" enum:"rectangle,oval,arch,scalloped,wavy,fishtail,notched,pointed,slanted,tag,fringe,die part"`
	// Pitch is how wide a scallop, a wave or a strip of a fringe is; the radius of a
	// rectangle's corners.
	Pitch float64 `json:"pitch,omitempty" minimum:"0" maximum:"200" doc:"width of a scallop, wave or strip of a fringe; radius of corners, mm; 0 takes a usual one"`
	// Depth is how deep waves, notches and the cuts of a fringe go.
	Depth float64 `json:"depth,omitempty" minimum:"0" maximum:"200" doc:"how deep waves, notches or cuts go, mm; 0 takes a usual one"`
	Sides []Side  `json:"sides,omitempty" maxItems:"4" doc:"which sides are scalloped, wavy or fringed; none: all, of a fringe the foot"`
	Set   string  `json:"set,omitempty" doc:"of a die part: its set"`
	Part  string  `json:"part,omitempty"`
}

// Opening is something cut out of a sheet: a shape, or letters.
type Opening struct {
	Outline
	W    float64 `json:"w,omitempty" minimum:"0" maximum:"400" doc:"mm"`
	H    float64 `json:"h,omitempty" minimum:"0" maximum:"400" doc:"mm"`
	X    float64 `json:"x,omitempty" minimum:"-400" maximum:"400" doc:"its middle to the right of the sheet's, mm"`
	Y    float64 `json:"y,omitempty" minimum:"-400" maximum:"400" doc:"down, mm"`
	Turn float64 `json:"turn,omitempty" minimum:"-360" maximum:"360" doc:"clockwise, degrees"`
	// Text is cut out letter by letter instead of a shape.
	Text    string `json:"text,omitempty" maxLength:"40" doc:"letters cut out instead of a shape, as high as H"`
	Islands bool   `json:"islands,omitempty" doc:"the loose islands of letters are kept and glued back"`
}

// Flap is a strip along one side that is scored and folded behind.
type Flap struct {
	Side  Side    `json:"side" enum:"left,top"`
	Depth float64 `json:"depth" minimum:"1" maximum:"100" doc:"mm"`
}

// Words are the first words on the sheet; nil for none.
func (s Sheet) Words() *Words {
	for _, t := range s.Treatments {
		if t.Words != nil {
			return t.Words
		}
	}
	return nil
}

// Turned is the first pattern turned on the sheet; nil for none.
func (s Sheet) Turned() *Turned {
	for _, t := range s.Treatments {
		if t.Turned != nil {
			return t.Turned
		}
	}
	return nil
}

func (s *Sheet) check(k *checker, c Card, e Element, at string) {
	at += ".sheet"
	k.bad(e.Inset == nil && (!sane(s.W, 1, 400) || !sane(s.H, 1, 400)), at+".w", "a sheet is 1 to 400 mm each way")
	k.bad(!sane(s.Trim, 0, 60) || e.Inset == nil && 2*s.Trim >= min(s.W, s.H), at+".trim", "the trim leaves nothing of the sheet")
	if s.Shape != nil {
		k.outline(at+".shape", *s.Shape)
	}
	k.openings(at, s.Openings)
	if f := s.Flap; f != nil {
		k.bad(!sane(f.Depth, 1, 100), at+".flap.depth", "a flap is 1 to 100 mm deep")
		k.bad(f.Side != LeftSide && f.Side != TopSide, at+".flap.side", "a flap is at the left or at the top")
	}
	for j, t := range s.Treatments {
		k.treatment(c, fmt.Sprintf("%s.treatments[%d]", at, j), e, t)
	}
}

func (k *checker) openings(at string, openings []Opening) {
	for i, o := range openings {
		in := fmt.Sprintf("%s.openings[%d]", at, i)
		k.bad(!sane(o.X, -400, 400) || !sane(o.Y, -400, 400) || !sane(o.Turn, -360, 360), in+".x", "the opening is out of reach of the sheet")
		k.bad(!sane(o.H, 0.5, 400) || o.Text == "" && !sane(o.W, 0.5, 400), in+".w", "an opening is 0.5 to 400 mm each way")
		if o.Text == "" {
			k.outline(in, o.Outline)
		}
	}
}

func (k *checker) outline(at string, o Outline) {
	k.bad(!slices.Contains(Outlineds, o.Kind), at+".kind", fmt.Sprintf("%q is not an outline; take %v", o.Kind, Outlineds))
	k.bad(!sane(o.Pitch, 0, 200) || !sane(o.Depth, 0, 200), at+".depth", "scallops, waves, notches and cuts are 0 to 200 mm")
	k.bad(o.Kind == DiePart && (o.Set == "" || o.Part == ""), at+".part", "name the die part it is cut with")
	for _, s := range o.Sides {
		k.bad(!slices.Contains(Sides, s), at+".sides", fmt.Sprintf("%q is not a side; take %v", s, Sides))
	}
}
