package card

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
	ID      string   `json:"id"`
	Name    string   `json:"name,omitempty" maxLength:"80" doc:"what the person calls it; empty takes what it is"`
	Face    Face     `json:"face" enum:"front,inside left,inside right,envelope,beside"`
	On      string   `json:"on,omitempty" doc:"the element that carries it; empty: the face itself"`
	Carried *string  `json:"carried,omitempty" doc:"the sheet beneath that the person says carries it, empty for the card front; none: what bears most of it"`
	Place   Place    `json:"place"`
	Inset   *Margins `json:"inset,omitempty" doc:"instead of a place and size: so much of what carries it shows on each side"`
	Group   string   `json:"group,omitempty" maxLength:"40" doc:"elements of one group are taken and moved together"`
	Flush   bool     `json:"flush,omitempty" doc:"what hangs over what carries it is trimmed off from the back when the glue is dry"`
	Bonds   []Bond   `json:"bonds,omitempty" maxItems:"6" doc:"what holds it; none: laid loose"`
	Film    bool     `json:"film,omitempty" doc:"laid out first, and lifted with tacky film together with the others that are"`
	Level   string   `json:"level,omitempty" doc:"the element that its top is to be level with"`
	Meant   []Meant  `json:"meant,omitempty" maxItems:"12" doc:"what it is meant to do on the finished front"`
	Tucks   []Tuck   `json:"tucks,omitempty" maxItems:"60" doc:"parts of it that cross another element the other way than the rest"`
	Snips   []Snip   `json:"snips,omitempty" maxItems:"24" doc:"bits cut off its parts where they would meet something"`
	Sheet   *Sheet   `json:"sheet,omitempty"`
	Image   *Image   `json:"image,omitempty"`
	Gems    *Gems    `json:"gems,omitempty"`
	Letters *Letters `json:"letters,omitempty"`
	Ribbon  *Ribbon  `json:"ribbon,omitempty"`
	Shaker  *Shaker  `json:"shaker,omitempty"`

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
	if e.Letters != nil {
		out = append(out, e.Letters)
	}
	if e.Ribbon != nil {
		out = append(out, e.Ribbon)
	}
	if e.Shaker != nil {
		out = append(out, e.Shaker)
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
	// Mirror lays it left for right: the twin that looks the other way.
	Mirror bool `json:"mirror,omitempty" doc:"left for right, before it is turned"`

	extra extra
}

// Tuck is a part of an element that crosses another element the other way than the rest:
// beneath it where the rest lies over it, over it where the rest lies beneath.
type Tuck struct {
	Part string `json:"part" doc:"layer of an image, or number of a letter from 1"`
	With string `json:"with" doc:"the other element"`
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

// Image is a motif of the card in one of its colourways.
type Image struct {
	Motif     string `json:"motif" doc:"motif id"`
	Colourway string `json:"colourway" doc:"colourway id"`
	// Cutout is card of its own that its prints stand on; none: what carries it.
	Cutout *Cutout `json:"cutout,omitempty" doc:"printed on card of its own and cut out; none: printed on what carries it"`
	// Masked prints are made first and masked while their ground is inked, so that none of it
	// lies beneath them.
	Masked bool `json:"masked,omitempty" doc:"printed first, and masked while its ground is inked"`

	extra extra
}
