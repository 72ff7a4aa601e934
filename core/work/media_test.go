package work

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/build"
	"ochrestone/core/kit"
	"ochrestone/core/look"
)

// What is to be minded, common practice, no source: each only where it has something to do
// with ink and card.
func TestWhatIsToBeMinded(t *testing.T) {
	hide := func(kind kit.InkKind, hex string) kit.Ink {
		return kit.Ink{ID: string(kind) + hex, Name: string(kind), Kind: kind, Dry: hex}
	}
	inks := []kit.Ink{hide(kit.Dye, "#7090b0"), hide(kit.Dye, "#111111"), hide(kit.Alcohol, "#7090b0"), hide(kit.Watercolor, "#7090b0"), hide(kit.Pencil, "#7090b0"), hide(kit.Hybrid, "#7090b0")}
	papers := []kit.Cardstock{{ID: "thin", Name: "Thin", Kind: kit.PaperCard, GSM: 216, Colour: "#ffffff"}, {ID: "thick", Name: "Thick", Kind: kit.PaperCard, GSM: 300, Colour: "#ffffff"},
		{ID: "vellum", Name: "Vellum", Kind: kit.PaperVellum, GSM: 110, Colour: "#f0f0f0"}}
	k := &maker{Build: &build.Build{Stock: look.NewStock(kit.Kit{Inks: inks, Papers: papers})}}
	says := func(kind Kind, ink string, on medium) string {
		return strings.Join(k.minded(Act{Kind: kind, Minutes: 2}, ink, on).Mind, " ")
	}
	dye, black, alcohol, water, pencil, hybrid := inks[0].ID, inks[1].ID, inks[2].ID, inks[3].ID, inks[4].ID, inks[5].ID
	assert.Empty(t, says(PrintAct, dye, medium{paper: "thin", area: 80, edge: 60, strikes: 1}))
	assert.Contains(t, says(InkAct, dye, medium{paper: "thin"}), "scrap")
	assert.Contains(t, says(PrintAct, dye, medium{paper: "thin", area: 900, edge: 120, strikes: 1}), "strike again")
	assert.NotContains(t, says(PrintAct, dye, medium{paper: "thin", area: 900, edge: 120, strikes: 2}), "strike again")
	assert.Empty(t, says(PrintAct, dye, medium{paper: "thin", area: 900, edge: 2000, strikes: 1}), "a net of lines is not solid")
	assert.Contains(t, says(InkAct, alcohol, medium{paper: "thin"}), "goes through card")
	assert.Contains(t, says(InkAct, alcohol, medium{paper: "thin", beneath: []string{black}}), "blacks")
	assert.Contains(t, says(InkAct, water, medium{paper: "thin"}), "cockles")
	assert.NotContains(t, says(InkAct, water, medium{paper: "thick"}), "cockles")
	assert.Contains(t, says(InkAct, pencil, medium{paper: "thick", beneath: []string{black}}), "dulls")
	assert.NotContains(t, says(InkAct, pencil, medium{paper: "thick", beneath: []string{dye}}), "dulls")
	assert.Contains(t, says(PrintAct, hybrid, medium{paper: "thin"}), "water")
	assert.Contains(t, says(PrintAct, dye, medium{paper: "vellum"}), "smears")
	assert.InDelta(t, 6, k.minded(Act{Minutes: 2}, dye, medium{paper: "vellum"}).Minutes, 1e-9, "it lies wet three times as long")
	acts := []Act{{Mind: []string{"a", "b"}}, {Mind: []string{"b", "c"}}}
	mindOnce(acts)
	assert.Equal(t, []string{"c"}, acts[1].Mind, "each is said once")
}
