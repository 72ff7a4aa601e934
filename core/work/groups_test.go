package work

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Each caution stands once, at the first act it matters for (common practice, no source:
// a warning repeated at every step is not read).
func TestACautionIsToldOnce(t *testing.T) {
	acts := []Act{
		{Title: "a", Cautions: []string{"blades"}, facts: facts{phase: phaseCut}},
		{Title: "b", Cautions: []string{"blades", "powder"}, facts: facts{phase: phaseHeat}},
		{Title: "c", Cautions: []string{"powder", "heat"}, facts: facts{phase: phasePop}},
	}
	was := slices.Clone(acts[1].Cautions)
	told := Told(acts)
	assert.Equal(t, [][]string{{"blades"}, {"powder"}, {"heat"}}, [][]string{told[0].Cautions, told[1].Cautions, told[2].Cautions})
	assert.Equal(t, []Group{CutGroup, InkGroup, StackGroup}, []Group{told[0].Group, told[1].Group, told[2].Group})
	assert.Equal(t, was, acts[1].Cautions, "the acts handed in stay as they were")
}

// What several cards take is gathered by its sort, each thing once.
func TestSuppliesOfSeveralCards(t *testing.T) {
	got := Supplies([]Supply{{"Tools", []string{"trimmer"}}, {"Inks", []string{"a"}}}, []Supply{{"Inks", []string{"b", "a"}}})
	assert.Equal(t, []Supply{{"Tools", []string{"trimmer"}}, {"Inks", []string{"a", "b"}}}, got)
	assert.NotNil(t, Supplies())
}
