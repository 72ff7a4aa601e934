package kit

import "ochrestone/core/measure"

// usual marks a value that is usual and was not measured on the person's own.
const usual = " (usual values, measure yours)"

// usualSheets is how many sheets a usual card is taken to be there of, until they are counted.
const usualSheets = 10

// Starter is a shelf to begin with for someone who has not measured theirs: cardstock in
// white, black and a natural tone, foam, glue and tape, envelopes, with usual values, each
// named as such, and ten sheets of each card. Common practice, no source; inks and sets are everybody's own.
func Starter() Kit {
	const letterW, letterH = 215.9, 279.4
	k := Kit{
		Sets: []Set{}, Inks: []Ink{}, Machines: []Machine{}, Swatches: []Swatch{},
		Papers: []Cardstock{
			{ID: "usual-white", Name: "White card, 80 lb" + usual, Kind: PaperCard, Colour: "#f6f5f1", GSM: 216, Caliper: 0.28, Sheets: usualSheets, W: letterW, H: letterH},
			{ID: "usual-white-heavy", Name: "White card, 110 lb" + usual, Kind: PaperCard, Colour: "#f6f5f1", GSM: 298, Caliper: 0.38, Sheets: usualSheets, W: letterW, H: letterH},
			{ID: "usual-natural", Name: "Natural card, 80 lb" + usual, Kind: PaperCard, Colour: "#d9c29c", GSM: 216, Caliper: 0.28, Sheets: usualSheets, W: letterW, H: letterH},
			{ID: "usual-black", Name: "Black card, 80 lb" + usual, Kind: PaperCard, Colour: "#26272a", GSM: 216, Caliper: 0.28, Sheets: usualSheets, W: letterW, H: letterH},
			{ID: "usual-vellum", Name: "Vellum" + usual, Kind: PaperVellum, Colour: "#e9e9e6", GSM: 100, Caliper: 0.1, Sheets: usualSheets, W: letterW, H: letterH},
		},
		Spacers: []Spacer{
			{ID: "usual-foam-thin", Name: "Thin foam squares" + usual, Kind: "square", Thickness: 1, W: 6, H: 6},
			{ID: "usual-foam", Name: "Foam squares" + usual, Kind: "square", Thickness: 2, W: 12, H: 12},
			{ID: "usual-foam-mini", Name: "Small foam squares" + usual, Kind: "mini", Thickness: 2, W: 4, H: 4},
		},
		Adhesives: []Adhesive{
			{ID: "usual-liquid", Name: "Liquid glue" + usual, Kind: "liquid", SetMinutes: 10, Thickness: 0.02, Wiggle: true, Shows: true},
			{ID: "usual-runner", Name: "Tape runner" + usual, Kind: "tape runner", Thickness: 0.06, Shows: true},
		},
		Envelopes: []Envelope{},
		Gems:      []Gem{},
	}
	for _, e := range measure.Envelopes() {
		k.Envelopes = append(k.Envelopes, Envelope{ID: "usual-" + e.ID, Name: e.Name + usual, W: e.Size.W, H: e.Size.H, Caliper: 0.11})
	}
	return k
}
