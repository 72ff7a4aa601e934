package main

import (
	"strings"

	"ochrestone/core/foresee"
)

// judgements are what a person who knows the card says of each note, by card, rule and a piece of
// its id: true and useful, true but idle, or false. Ids go by elements and layers, so that they
// hold as long as the card is entered as it is.
var judgements = map[string]string{
	"A1 beside:":            "true",
	"A2 envelope":           "true",
	"A2 edge:":              "once",
	"A2 covered:":           "true",
	"A2 background:e1":      "false",
	"A3 wall:":              "true",
	"A3 baffles:":           "true",
	"B envelope":            "true",
	"B edge:":               "true",
	"B hangs:":              "once",
	"B thin:":               "true",
	"C envelope":            "true",
	"C one:":                "false",
	"C edge:":               "true",
	"C thin:m1:mop left":    "true",
	"C thin:":               "idle",
	"D one:m1":              "false",
	"D one:m2":              "true",
	"D one:m2:w1:hull:top":  "idle",
	"D background:e4":       "false",
	"D leans:s3":            "true",
	"D buried:e3":           "true",
	"D buried:s":            "idle",
	"D hue:":                "idle",
	"D noink:":              "false",
	"D thin:":               "true",
	"E spacers:":            "true",
	"E stamp:":              "once",
	"E behind:":             "true",
	"E leans:e3":            "true",
	"E leans:g1":            "idle",
	"E hangs:":              "once",
	"E unused:":             "true",
	"E hue:":                "false",
	"E gems":                "true",
	"E2 gems":               "true",
	"H1 gems":               "true",
	"H1 thick":              "true",
	"E thick":               "true",
	"E2 thick":              "true",
	"E2 envelope":           "true",
	"E2 spacers":            "true",
	"E2 uneven":             "true",
	"E2 stamp:":             "true",
	"E2 covered":            "true",
	"E2 behind":             "true",
	"E2 leans":              "true",
	"E2 hangs":              "true",
	"E2 unused":             "true",
	"E2 edge":               "true",
	"E2 beside":             "true",
	"H2 span":               "true",
	"H2 fits":               "true",
	"F thick":               "true",
	"F one:":                "false",
	"F behind:":             "true",
	"F uncoloured:":         "once",
	"F leans:s2":            "true",
	"F leans:g1":            "idle",
	"F hue:m1":              "idle",
	"F hue:m3":              "false",
	"F jars:":               "false",
	"F guess:":              "once",
	"F runs:":               "true",
	"I hides:":              "true",
	"J across:":             "true",
	"K across:":             "true",
	"K spacers:":            "true",
	"K hangs:":              "true",
	"H1 background:e1":      "true",
	"A4 balance":            "true",
	"C stroke:":             "once",
	"D small":               "true",
	"K narrow blend:":       "once",
	"A1 ring":               "true",
	"A3 peeks":              "true",
	"C ribs:":               "once",
	"F ring":                "true",
	"G seat":                "true",
	"G dot":                 "true",
	"G spared":              "true",
	"G unheld":              "true",
	"E unheld":              "true",
	"J margins":             "true",
	"J2 across:":            "true",
	"J2 dulls:":             "once",
	"J2 margins":            "true",
	"J2 brush":              "true",
	"J2 bands:":             "true",
	"K light:":              "true",
	"I narrow tape:":        "true",
	"F bitten:":             "true",
	"H2 tones:":             "true",
	"J dulls:":              "once",
	"H1 brush":              "true",
	"J brush":               "true",
	"G thick":               "true",
	"G spacers:":            "true",
	"G one:m3":              "true",
	"G leans:":              "true",
	"G pads:":               "once",
	"G hue:":                "idle",
	"H1 uneven:":            "true",
	"H1 one:":               "false",
	"H2 thick":              "true",
	"H2 one:":               "true",
	"H2 background:":        "false",
	"I thick":               "true",
	"I one:":                "true",
	"I leans:":              "true",
	"J bands:":              "true",
	"K thick":               "true",
	"K uneven:e2":           "true",
	"K uneven:e4":           "true",
	"K no pad:s4":           "false",
	"K no pad:e2":           "idle",
	"K no pad:e":            "idle",
	"K one:m2:w1:body:head": "true",
	"K one:":                "false",
	"K one:m2:w1:head":      "true",
	"K blend:":              "true",
	"K uncoloured:":         "true",
	"K leans:e2":            "idle",
	"K leans:e5":            "true",
}

// judgement is what is said of a note; of several notes of one rule about one cause the later ones
// are idle.
func judgement(t *told, f *foresee.Finding, seen map[string]int) string {
	best, long := "unjudged", -1
	for at, v := range judgements {
		id, rest, _ := strings.Cut(at, " ")
		if id == t.ID && strings.HasPrefix(f.ID, rest) && len(rest) > long {
			best, long = v, len(rest)
		}
	}
	if best == "once" {
		best = "true"
		if seen[f.Rule] > 1 {
			best = "idle"
		}
	}
	return best
}

// judgedNotes counts the notes of a card by what is said of them.
func judgedNotes(t *told) map[string]int {
	out := map[string]int{}
	seen := map[string]int{}
	for i := range t.Findings {
		seen[t.Findings[i].Rule]++
		out[judgement(t, &t.Findings[i], seen)]++
	}
	return out
}
