package cut

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/kit"
)

// Counted by hand: two sheets fewer, the one offcut used gone of two alike, a new one there.
func TestSheetsAreTakenOutOfTheStores(t *testing.T) {
	p := kit.Cardstock{Sheets: 5, Offcuts: []kit.Offcut{{W: 100, H: 80, N: 2}, {W: 50, H: 50}}}
	s := Stock{Needs: 2, Sheets: []Sheet{{W: 100, H: 80, Kind: "offcut", Left: []Area{}}, {W: 216, H: 279, Kind: "sheet", Left: []Area{{W: 216.3, H: 60.2}}}, {W: 216, H: 279, Kind: "sheet", Left: []Area{{W: 216.3, H: 60.2}}}, {W: 60, H: 60, Kind: "middle"}}}
	got := Taken(p, s)
	assert.Equal(t, 3, got.Sheets)
	assert.Equal(t, []kit.Offcut{{W: 100, H: 80, N: 1}, {W: 50, H: 50}, {W: 216, H: 60, N: 2}}, got.Offcuts)
	assert.Equal(t, 2, p.Offcuts[0].N, "what was given is left as it was")
	assert.Zero(t, Taken(kit.Cardstock{Sheets: 1}, s).Sheets, "never below none")
}
