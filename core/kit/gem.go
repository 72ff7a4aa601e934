package kit

import (
	"strings"

	"ochrestone/core/colour"
)

// Gem is a sort of gem, pearl, sequin or shell on hand: one size, one colour.
type Gem struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Size   float64 `json:"size" minimum:"0.5" maximum:"30" doc:"across, mm"`
	Height float64 `json:"height" minimum:"0.1" maximum:"15" doc:"mm"`
	Colour string  `json:"colour" doc:"#rrggbb"`
	Left   *int    `json:"left,omitempty" minimum:"0" maximum:"100000" doc:"on hand; empty: not counted"`
	Where  string  `json:"where,omitempty" maxLength:"80" doc:"where they are kept"`
	Away   bool    `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
}

// Validate gives the first thing wrong with a gem, as a Problem.
func (g Gem) Validate() error {
	var c check
	c.add(strings.TrimSpace(g.Name) == "", "name", "give the gems a name")
	c.add(!(g.Size >= 0.5 && g.Size <= 30), "size", "a gem is 0.5 to 30 mm across")
	c.add(!(g.Height >= 0.1 && g.Height <= 15), "height", "a gem is 0.1 to 15 mm high")
	c.add(g.Left != nil && *g.Left < 0, "left", "so many are left, or none")
	_, err := colour.ParseHex(g.Colour)
	c.add(err != nil, "colour", "write the colour as #rrggbb")
	return c.done()
}

// Gem finds a sort of gem by its id.
func (k Kit) Gem(id string) (Gem, bool) {
	return find(k.Gems, func(g Gem) bool { return g.ID == id })
}
