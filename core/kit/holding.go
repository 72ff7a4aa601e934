package kit

import (
	"fmt"
	"strings"
)

// Spacer lifts a part: foam squares, foam tape, craft foam, scrap board.
type Spacer struct {
	ID        string  `json:"id"`
	Name      string  `json:"name"`
	Kind      string  `json:"kind" enum:"square,mini,tape,sheet,board"`
	Thickness float64 `json:"thickness" minimum:"0" maximum:"20" doc:"mm"`
	W         float64 `json:"w" minimum:"0" doc:"mm"`
	H         float64 `json:"h" minimum:"0" doc:"mm"`
	Left      *int    `json:"left,omitempty" minimum:"0" maximum:"100000" doc:"pads, strips or sheets on hand; empty: not counted"`
	Where     string  `json:"where,omitempty" maxLength:"80" doc:"where they are kept"`
	Away      bool    `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
}

// Foam reports whether heat would harm the spacer.
func (s Spacer) Foam() bool { return s.Kind != "board" }

// Pads reports whether the spacer comes as pads or strips; sheets and board are cut to the
// shape of their part.
func (s Spacer) Pads() bool { return s.Kind == "square" || s.Kind == "mini" || s.Kind == "tape" }

// Backings are the ids of what comes as a sheet with adhesive, of foam or alone, and so can be cut with
// letters in one pass.
func (k Kit) Backings() []string {
	out := []string{}
	for _, s := range k.Spacers {
		if s.Kind == "sheet" {
			out = append(out, s.ID)
		}
	}
	for _, a := range k.Adhesives {
		if a.Kind == "double-sided" {
			out = append(out, a.ID)
		}
	}
	return out
}

// Adhesive is a glue, tape or spray.
type Adhesive struct {
	ID         string  `json:"id"`
	Name       string  `json:"name"`
	Kind       string  `json:"kind" enum:"liquid,tape runner,double-sided,spray,dots,repositionable"`
	SetMinutes float64 `json:"setMinutes" minimum:"0" doc:"until it is set, minutes"`
	Thickness  float64 `json:"thickness" minimum:"0" maximum:"2" doc:"mm it adds"`
	Wiggle     bool    `json:"wiggle" doc:"leaves time to move the part"`
	Shows      bool    `json:"shows" doc:"shows through vellum"`
	Low        bool    `json:"low,omitempty" doc:"nearly empty"`
	Where      string  `json:"where,omitempty" maxLength:"80" doc:"where it is kept"`
	Away       bool    `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
}

// Bears is how hard a joint of it may be pulled at for good, N/mm²: our own defaults by kind; of
// wet glue, and of what nobody knows, what card itself bears through its thickness (from memory).
func (a Adhesive) Bears() float64 {
	switch a.Kind {
	case "double-sided", "dots":
		return 0.1
	case "tape runner":
		return 0.05
	case "spray":
		return 0.03
	case "repositionable":
		return 0.01
	}
	return 0.3
}

// Undoing says whether and how the joint comes up again, and until when; the product's
// label goes first.
func (a Adhesive) Undoing() string {
	switch a.Kind {
	case "repositionable":
		return "it lifts off again at any time"
	case "liquid":
		if a.SetMinutes > 0 {
			return fmt.Sprintf("it can be moved for about %.0f minutes, then it is final", a.SetMinutes)
		}
		return "it can be moved while it is wet, then it is final"
	case "tape runner", "double-sided":
		return "adhesive remover lifts it, slowly and with air in the room, away from any flame; the card may tear"
	}
	return "it is final"
}

// Undoing says whether and how what stands on the spacer comes off again.
func (s Spacer) Undoing() string {
	if s.Foam() {
		return "adhesive remover or a thin blade lifts it, drawn away from your hand; the foam is spent"
	}
	return "it is as final as the glue it is stuck with"
}

// Validate checks a spacer.
func (s Spacer) Validate() error {
	var c check
	c.add(strings.TrimSpace(s.Name) == "", "name", "give the spacer a name")
	c.add(!(s.Thickness > 0 && s.Thickness <= 20), "thickness", "thickness lies between 0 and 20 mm")
	c.add(s.Left != nil && (*s.Left < 0 || *s.Left > 100_000), "left", "count 0 to 100,000 of them, or leave it empty")
	return c.done()
}

// Validate checks an adhesive.
func (a Adhesive) Validate() error {
	var c check
	c.add(strings.TrimSpace(a.Name) == "", "name", "give the adhesive a name")
	c.add(!(a.Thickness >= 0 && a.Thickness <= 2), "thickness", "what it adds lies between 0 and 2 mm")
	c.add(!(a.SetMinutes >= 0 && a.SetMinutes <= 10_080), "setMinutes", "glue sets within 0 and 10,080 minutes, a week")
	return c.done()
}
