package kit

import (
	"strings"

	"ochrestone/core/measure"
)

// Envelope is an envelope, a padded one, or a box on hand.
type Envelope struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	W       float64 `json:"w" minimum:"0" doc:"inside width, mm"`
	H       float64 `json:"h" minimum:"0" doc:"inside height, mm"`
	Caliper float64 `json:"caliper" minimum:"0" doc:"thickness of one wall, mm"`
	Padding float64 `json:"padding,omitempty" minimum:"0" maximum:"30" doc:"padding on each wall, mm"`
	Depth   float64 `json:"depth,omitempty" minimum:"0" maximum:"200" doc:"inside height of a box, mm; 0: it is no box, and gives way"`
	Grams   float64 `json:"grams,omitempty" minimum:"0" maximum:"2000" doc:"weight of it empty, g; 0: reckoned from its size"`
	Left    *int    `json:"left,omitempty" minimum:"0" maximum:"100000" doc:"on hand; empty: not counted"`
	Where   string  `json:"where,omitempty" maxLength:"80" doc:"where they are kept"`
	Away    bool    `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
}

// Box reports whether it is a box, which keeps its own thickness.
func (e Envelope) Box() bool { return e.Depth > 0 }

// Filled is how thick it is with a card of thickness t in it, mm.
func (e Envelope) Filled(t float64) float64 {
	if e.Box() {
		t = max(t, e.Depth-2*e.Padding)
	}
	return t + 2*(e.Caliper+e.Padding)
}

// Takes reports whether a card goes in, either way round: size is of the card as it lies
// flat, girth what it takes up of an envelope that wraps round it (depth.Girth), t how
// thick it is, all in mm.
func (e Envelope) Takes(size, girth measure.Size, t float64) bool {
	if !e.Box() {
		return e.Size().Fits(girth, 0)
	}
	return t+2*e.Padding <= e.Depth+1e-9 && e.Size().Fits(size, 0)
}

// What an envelope, its padding and a box weigh where nobody weighed them: our own defaults.
const (
	envelopePaper = 105.0 // g/m²
	envelopeCover = 2.4   // area of paper for each of its size, flaps and seams with it
	boxBoard      = 350.0 // g/m²
	paddingGrams  = 15.0  // g for each square metre and mm
)

// Weight is what it weighs empty, g: as it was weighed, or about, from its size.
func (e Envelope) Weight() float64 {
	if e.Grams > 0 {
		return e.Grams
	}
	board, area := envelopePaper, e.W*e.H*envelopeCover
	if e.Box() {
		board, area = boxBoard, area+2*(e.W+e.H)*e.Depth
	}
	return (area*board + area*e.Padding*paddingGrams) / 1e6
}

// Size is the inside of the envelope as measure knows it.
func (e Envelope) Size() measure.Envelope {
	return measure.Envelope{ID: e.ID, Name: e.Name, Size: measure.Size{W: e.W, H: e.H}}
}

// Validate checks an envelope.
func (e Envelope) Validate() error {
	var c check
	c.add(strings.TrimSpace(e.Name) == "", "name", "give the envelope a name")
	c.add(!(e.W > 0 && e.H > 0 && e.W < 1000 && e.H < 1000), "w", "give the inside width and height in mm")
	c.add(!(e.Caliper >= 0 && e.Caliper <= 10), "caliper", "a wall is 0 to 10 mm thick")
	c.add(!(e.Padding >= 0 && e.Padding <= 30), "padding", "padding is 0 to 30 mm on each wall")
	c.add(!(e.Depth >= 0 && e.Depth <= 200), "depth", "a box is up to 200 mm high inside; 0 is an envelope that gives way")
	c.add(e.Depth > 0 && e.Depth <= 2*e.Padding, "depth", "the padding fills the box: give it more height, or less padding")
	c.add(!(e.Grams >= 0 && e.Grams <= 2000), "grams", "it weighs 0 to 2,000 g; 0 reckons it from its size")
	return c.done()
}
