package card

import "ochrestone/core/kit"

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
	After bool `json:"after,omitempty" doc:"a cut layer that is stamped first and cut out after"`
	// Pitch is from middle to middle of the prints of one that is cut out after, where several lie
	// on one strip of card; 0 takes what its die asks for.
	Pitch  float64 `json:"pitch,omitempty" minimum:"0" maximum:"400" doc:"of one stamped first and cut out after: from print to print along a strip, mm; 0 takes what its die asks for"`
	On     string  `json:"on,omitempty" doc:"layer it sits on; empty lets the outlines decide"`
	Rank   int     `json:"rank" minimum:"1" maximum:"99" doc:"tone rank"`
	Accent bool    `json:"accent,omitempty" doc:"left out of the order of lightness"`
	Fit    kit.Fit `json:"fit" enum:"free,within,even rim,fills,offset"`
	Copies int     `json:"copies" minimum:"1" maximum:"9" doc:"cut so many and glue them as one"`
	Bonds  []Bond  `json:"bonds,omitempty" maxItems:"6" doc:"what holds a cut layer to what is beneath; none: laid loose"`
	// What it takes of its part, where that is not simply the whole of it.
	Traced  float64 `json:"traced,omitempty" minimum:"-20" maximum:"20" doc:"traced round its part so much larger, below 0 smaller, and cut by hand, mm"`
	Region  *Region `json:"region,omitempty" doc:"only one colour region of its part"`
	Shifted float64 `json:"shifted,omitempty" minimum:"-200" maximum:"200" doc:"put on so far along the longer way of its part, the end trimmed off and put on at the other, mm"`
	// Forgive is what the eye forgives of this layer, where the person has set it;
	// nil takes the general limits, eased by contrast.
	Forgive *Forgive `json:"forgive,omitempty"`

	extra extra
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

	extra extra
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
	Bare        bool    `json:"bare,omitempty" doc:"of a print without ink: left bare on purpose"`
	Soaked      bool    `json:"soaked,omitempty" doc:"of a cut layer: the ink is painted on with so much water that the card is soaked"`

	extra extra
}

// Strikes is the number of impressions, at least one.
func (f Finish) Strikes() int { return max(1, f.Impressions) }

// First is the ink that is laid down first: its own, or that of the first blend where there is
// no other; empty for bare paper.
func (f Finish) First() string {
	if f.Ink == "" && len(f.Blends) > 0 {
		return f.Blends[0].Ink
	}
	return f.Ink
}

// Inks are those that are laid on the layer itself, its own first and then what is blended in; no id
// of none.
func (f Finish) Inks() (ids []string) {
	if f.Ink != "" {
		ids = append(ids, f.Ink)
	}
	for _, b := range f.Blends {
		ids = append(ids, b.Ink)
	}
	return ids
}

// Colourway is one choice of papers and inks for all layers.
type Colourway struct {
	ID     string            `json:"id"`
	Name   string            `json:"name"`
	Layers map[string]Finish `json:"layers" doc:"by layer id"`

	extra extra
}

// Motif is a layered image made from the parts of a set.
type Motif struct {
	ID         string      `json:"id"`
	Name       string      `json:"name"`
	Set        string      `json:"set" doc:"set id"`
	School     School      `json:"school" enum:"light ground,dark ground,local colour,every piece"`
	Layers     []Layer     `json:"layers" nullable:"false" doc:"lowest first"`
	Colourways []Colourway `json:"colourways" nullable:"false"`
	// Tones is how many tones the person wants to see in it.
	Tones int `json:"tones,omitempty" minimum:"0" maximum:"9" doc:"how many tones are wanted in it; 0: as many as its layers give"`
	// Made is how many of it the person makes, where that is not as many as are laid.
	Made int `json:"made,omitempty" minimum:"0" maximum:"500" doc:"how many of it are cut or printed; 0: as many as are laid"`

	extra extra
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
