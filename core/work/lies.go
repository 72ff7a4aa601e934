package work

import (
	"fmt"
	"slices"

	"ochrestone/core/words"
)

// Lie is what there is to do where a thing is put down because of how it comes to lie.
type Lie struct {
	Element string
	Down    float64 // its ends are bent down so far to where they hold, mm; 0: it lies level, or on pads
	Pads    int     // so many pads go behind it
	Cut     float64 // that are cut so narrow, mm; 0: as they come
	Of      string  // what they are cut from
	Across  float64 // it is so wide there, mm
}

// leastDown is how far card comes down by itself where it is pressed on, mm: our own default.
const leastDown = 0.5

// Lying are the acts with what there is to do because of how things lie said where they are put down;
// format and thin write lengths and small heights in sentences. The acts given are not changed.
func Lying(acts []Act, lies []Lie, format, thin func(mm float64) string) []Act {
	of := map[string]Lie{}
	for _, l := range lies {
		of[l.Element] = l
	}
	if len(of) > 0 {
		acts = slices.Clone(acts)
	}
	for i := range acts {
		a := &acts[i]
		l, ok := of[a.ID.Element]
		if !ok || a.ID.Verb != Place {
			continue
		}
		if l.Down >= leastDown {
			a.Detail += " Its ends come down by " + thin(l.Down) + ": hold them down until the glue does."
		}
		if l.Cut > 0 {
			a.Detail += fmt.Sprintf(" It is %s across: %s cut to %s from the %s.", format(l.Across), words.Count(l.Pads, "pad"), format(l.Cut), words.Small(l.Of))
		}
	}
	return acts
}
