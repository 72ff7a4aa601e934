package depth

import (
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Post is how the card goes by letter.
type Post struct {
	Fits     bool          `json:"fits" doc:"the card goes into the envelope"`
	Class    measure.Class `json:"class" doc:"class of the filled envelope as a US letter"`
	Filled   float64       `json:"filled" doc:"thickness of the filled envelope, mm"`
	Limit    float64       `json:"limit" doc:"greatest thickness of a letter, mm"`
	Envelope string        `json:"envelope" doc:"envelope id; empty when none is chosen"`
	NeedsW   float64       `json:"needsW" doc:"inside width the card takes up, mm"`
	NeedsH   float64       `json:"needsH" doc:"inside height the card takes up, mm"`
	Box      bool          `json:"box,omitempty" doc:"the envelope is a box"`
	Room     float64       `json:"room,omitempty" doc:"height left over the card in a box, mm; below 0: it does not shut"`
}

// unevenBy is the height, mm, past which parts on a front make a letter uneven
// for the carrier's machines: our own default, the carrier decides.
const unevenBy = 1.0

// Posting is a card to be put into an envelope.
type Posting struct {
	Size   measure.Size // of the closed card, mm
	Girth  measure.Size // what it takes up of an envelope, from Girth
	Thick  float64      // greatest thickness, mm
	Raised float64      // how much stands above the panel, mm; what is in a box lies even
	Grams  float64      // without its envelope
}

// Mail judges a card in an envelope: how it fits, how thick and heavy the whole is, and how
// each carrier takes it.
func (c Posting) Mail(e kit.Envelope, carriers []Carrier, w measure.Writing) (Post, float64, []Mailed) {
	p := Post{Filled: e.Filled(c.Thick), Limit: measure.LetterMaxThickness, Envelope: e.ID, NeedsW: c.Girth.W, NeedsH: c.Girth.H, Box: e.Box()}
	raised := c.Raised
	if p.Box {
		p.NeedsW, p.NeedsH, p.Room, raised = c.Size.W, c.Size.H, e.Depth-2*e.Padding-c.Thick, 0
	}
	out := []Mailed{}
	if e.ID == "" {
		return p, 0, out
	}
	size := e.Size().Size
	p.Fits = e.Takes(c.Size, c.Girth, c.Thick)
	p.Class = measure.BasicLetter(size, p.Filled, raised > unevenBy)
	grams := c.Grams + e.Weight()
	for _, by := range carriers {
		out = append(out, by.Take(Letter{Size: size, Thick: p.Filled, Grams: grams, Raised: raised}, w))
	}
	return p, grams, out
}
