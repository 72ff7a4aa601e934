package card

import (
	"fmt"
)

// Pattern is an image printed again and again on a square panel that is turned by
// the same step between strikes, while the stamp stays where it is.
type Pattern struct {
	ID    string `json:"id"`
	Name  string `json:"name" maxLength:"80"`
	Motif string `json:"motif" doc:"image id"`
	// Colourways are those of the strikes in turn: fewer than strikes go round again.
	Colourways []string `json:"colourways" nullable:"false" minItems:"1" maxItems:"16" doc:"colourway ids, one for each strike in turn"`
	Turns      int      `json:"turns" minimum:"2" maximum:"16" doc:"strikes; the panel is turned by 360°/turns between them"`
	Anti       bool     `json:"anti,omitempty" doc:"the panel is turned anticlockwise"`
	Start      int      `json:"start" minimum:"1" maximum:"4" doc:"corner of the panel at the top left for the first strike; corners are numbered clockwise"`
	Side       float64  `json:"side" minimum:"20" maximum:"300" doc:"of the square panel as it is printed, mm"`
	Trim       float64  `json:"trim" minimum:"0" maximum:"60" doc:"taken off each side afterwards, mm"`
	X          float64  `json:"x" minimum:"-300" maximum:"300" doc:"middle of the image to the right of the panel's at the first strike, mm"`
	Y          float64  `json:"y" minimum:"-300" maximum:"300" doc:"down, mm"`
	Turn       float64  `json:"turn" minimum:"-360" maximum:"360" doc:"of the image at the first strike, clockwise, degrees"`
}

// check names what is wrong with a pattern.
func (p Pattern) check(c Card, at string, bad func(bool, string, string)) {
	m, ok := c.Motif(p.Motif)
	bad(!ok, at+".motif", "names an image that is not on this card")
	for i, w := range p.Colourways {
		_, has := m.Colourway(w)
		bad(ok && !has, fmt.Sprintf("%s.colourways[%d]", at, i), "names a colourway the image does not have")
	}
	bad(len(p.Colourways) == 0, at+".colourways", "name a colourway for the strikes")
	bad(p.Turns < 2 || p.Turns > 16, at+".turns", "a pattern has 2 to 16 strikes")
	bad(p.Start < 1 || p.Start > 4, at+".start", "the panel has corners 1 to 4")
	bad(!sane(p.Side, 20, 300), at+".side", "a panel is 20 to 300 mm a side")
	bad(!sane(p.Trim, 0, 60) || 2*p.Trim >= p.Side, at+".trim", "the trim leaves nothing of the panel")
	bad(!sane(p.X, -300, 300) || !sane(p.Y, -300, 300) || !sane(p.Turn, -360, 360), at+".x", "the place is out of reach of the panel")
}
