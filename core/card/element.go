package card

import "ochrestone/core/measure"

// Face is a side of the card that things lie on.
type Face string

// Faces of a folded card, and Beside for what is made beside it and not on it yet.
const (
	Front       Face = "front"
	InsideLeft  Face = "inside left"
	InsideRight Face = "inside right"
	OnEnvelope  Face = "envelope"
	Beside      Face = "beside"
)

// Faces lists them all.
var Faces = []Face{Front, InsideLeft, InsideRight, OnEnvelope, Beside}

// Element is one thing on a card: exactly one of its kinds, from Sheet on, is set. One
// with none is of a kind that a later version made; it is kept and not planned.
type Element struct {
	ID    string   `json:"id"`
	Name  string   `json:"name,omitempty" maxLength:"80" doc:"what the person calls it; empty takes what it is"`
	Face  Face     `json:"face" enum:"front,inside left,inside right,envelope,beside"`
	On    string   `json:"on,omitempty" doc:"the element that carries it; empty: the face itself"`
	Place Place    `json:"place"`
	Inset *Margins `json:"inset,omitempty" doc:"instead of a place and size: so much of what carries it shows on each side"`
	Bonds []Bond   `json:"bonds,omitempty" maxItems:"6" doc:"what holds it; none: laid loose"`
	Sheet *Sheet   `json:"sheet,omitempty"`
	Image *Image   `json:"image,omitempty"`
	Gems  *Gems    `json:"gems,omitempty"`

	extra extra
}

// kind is a sort of thing that an element can be.
type kind interface {
	check(k *checker, c Card, e Element, at string)
}

// kinds are the kinds of thing the element is: one, where it is sound.
func (e Element) kinds() (out []kind) {
	if e.Sheet != nil {
		out = append(out, e.Sheet)
	}
	if e.Image != nil {
		out = append(out, e.Image)
	}
	if e.Gems != nil {
		out = append(out, e.Gems)
	}
	return out
}

// Known reports whether the element is of a kind that this version knows.
func (e Element) Known() bool { return len(e.kinds()) > 0 }

// Place is where an element lies, in the frame of its face.
type Place struct {
	X    float64 `json:"x" doc:"centre from the left edge, mm"`
	Y    float64 `json:"y" doc:"centre from the top edge, mm"`
	Turn float64 `json:"turn" doc:"clockwise, degrees"`

	extra extra
}

// Margins are lengths on the four sides, mm.
type Margins struct {
	Left   float64 `json:"left" doc:"mm"`
	Right  float64 `json:"right" doc:"mm"`
	Top    float64 `json:"top" doc:"mm"`
	Bottom float64 `json:"bottom" doc:"mm"`
}

// Even gives the same margin on every side.
func Even(mm float64) *Margins { return &Margins{mm, mm, mm, mm} }

// Least is the smallest of them.
func (m Margins) Least() float64 { return min(m.Left, m.Right, m.Top, m.Bottom) }

// Bond holds a part to what is beneath: by a spacer, or where none is named by an
// adhesive.
type Bond struct {
	Adhesive string `json:"adhesive,omitempty" doc:"adhesive id; empty: some glue"`
	Spacer   string `json:"spacer,omitempty" doc:"spacer id"`
	Level    int    `json:"level,omitempty" minimum:"0" maximum:"6" doc:"how many spacers on each other; 0 counts as 1"`

	extra extra
}

// Raised reports whether a spacer holds the part.
func (b Bond) Raised() bool { return b.Spacer != "" }

// Glue holds a part by an adhesive.
func Glue(adhesive string) []Bond { return []Bond{{Adhesive: adhesive}} }

// Foam holds a part on so many spacers, one on the other.
func Foam(spacer string, level int) []Bond { return []Bond{{Spacer: spacer, Level: level}} }

// Sheet is a rectangle of any stock: a mat, the panel, a strip of words. Its size is
// its own, or comes of the Inset of its element.
type Sheet struct {
	Paper      string      `json:"paper" doc:"cardstock id"`
	W          float64     `json:"w,omitempty" minimum:"0" maximum:"400" doc:"mm; 0 where an inset gives it"`
	H          float64     `json:"h,omitempty" minimum:"0" maximum:"400" doc:"mm; 0 where an inset gives it"`
	Trim       float64     `json:"trim,omitempty" minimum:"0" maximum:"60" doc:"taken off each side when all is printed, mm"`
	Treatments []Treatment `json:"treatments,omitempty" maxItems:"20" doc:"what is done to it, in order"`

	extra extra
}

// Size of the sheet before it is trimmed.
func (s Sheet) Size() measure.Size { return measure.Size{W: s.W, H: s.H} }

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

// Treatment is something done to a sheet: exactly one of its fields is set, or none
// where a later version made it.
type Treatment struct {
	Words  *Words  `json:"words,omitempty"`
	Turned *Turned `json:"turned,omitempty"`

	extra extra
}

// Words are stamped on a sheet, in its middle.
type Words struct {
	Text   string  `json:"text" maxLength:"80"`
	Ink    string  `json:"ink" doc:"ink id"`
	Letter float64 `json:"letter" minimum:"0.5" maximum:"100" doc:"height of a capital, mm"`
	Emboss bool    `json:"emboss,omitempty" doc:"heat embossed with powder"`

	extra extra
}

// Turned is an image printed again and again on a square sheet that is turned by the
// same step between strikes, while the stamp stays where it is.
type Turned struct {
	Motif string `json:"motif" doc:"image id"`
	// Colourways are those of the strikes in turn: fewer than strikes go round again.
	Colourways []string `json:"colourways" nullable:"false" minItems:"1" maxItems:"16" doc:"colourway ids, one for each strike in turn"`
	Turns      int      `json:"turns" minimum:"2" maximum:"16" doc:"strikes; the sheet is turned by 360°/turns between them"`
	Anti       bool     `json:"anti,omitempty" doc:"the sheet is turned anticlockwise"`
	Start      int      `json:"start" minimum:"1" maximum:"4" doc:"corner of the sheet at the top left for the first strike; corners are numbered clockwise"`
	X          float64  `json:"x" minimum:"-300" maximum:"300" doc:"middle of the image to the right of the sheet's at the first strike, mm"`
	Y          float64  `json:"y" minimum:"-300" maximum:"300" doc:"down, mm"`
	Turn       float64  `json:"turn" minimum:"-360" maximum:"360" doc:"of the image at the first strike, clockwise, degrees"`

	extra extra
}

// Image is a motif of the card in one of its colourways.
type Image struct {
	Motif     string `json:"motif" doc:"motif id"`
	Colourway string `json:"colourway" doc:"colourway id"`

	extra extra
}
