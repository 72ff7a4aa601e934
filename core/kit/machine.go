package kit

import "strings"

// Machine is a die machine: what goes on its plate and through its rollers at once.
type Machine struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	W     float64 `json:"w" minimum:"0" doc:"width of its plate, mm"`
	H     float64 `json:"h" minimum:"0" doc:"length of its plate, mm"`
	Most  float64 `json:"most" minimum:"0" maximum:"10" doc:"card it cuts in one run, mm thick; what is thicker goes there and back"`
	Shim  string  `json:"shim,omitempty" maxLength:"80" doc:"what the person lays under to make it cut clean"`
	Where string  `json:"where,omitempty" maxLength:"80" doc:"where it is kept"`
	Away  bool    `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
}

// Validate checks a machine.
func (m Machine) Validate() error {
	var c check
	c.add(strings.TrimSpace(m.Name) == "", "name", "give the machine a name")
	c.add(!(m.W >= 30 && m.H >= 30 && m.W <= 1000 && m.H <= 1000), "w", "its plate is 30 to 1,000 mm each way")
	c.add(!(m.Most >= 0.1 && m.Most <= 10), "most", "it cuts 0.1 to 10 mm in one run")
	return c.done()
}
