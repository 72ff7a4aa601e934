package look

import (
	"math"
	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
)

// Blend is one ink worked into a zone of a layer, where it is fullest.
type Blend struct {
	Zone    card.Zone `json:"zone" enum:"all over,rim,foot,tip,left side,right side"`
	InkName string    `json:"inkName"`
	Dry     string    `json:"dry" doc:"dried colour where it covers fully, #rrggbb"`
	Wet     string    `json:"wet" doc:"the same while wet, #rrggbb"`
	L       float64   `json:"l" doc:"its lightness, CIE L*"`
	Reach   float64   `json:"reach" doc:"how far it goes before it has faded out, mm"`
	Missing bool      `json:"missing,omitempty" doc:"the stores do not hold the ink"`
}

// blended adds the blends of a finish to the look of a layer. It returns the
// dried colour all over, which is the base's unless a blend goes all over, and
// the fullest colours of the other blends with their zones.
// paper is the id of the bare card beneath, or empty.
func (s Stock) blended(look *Layer, v motif.View, f card.Finish, base colour.Linear, paper string) (colour.Linear, []toned) {
	var tones []toned
	nth := map[card.Zone]int{}
	look.Blends = []Blend{}
	all := base
	for _, bl := range f.Blends {
		out := Blend{Zone: bl.Zone, Reach: blend.Reach(v.Outline, bl.Zone, nth[bl.Zone])}
		nth[bl.Zone]++
		under := all
		// A further ink in a zone lies on the one before it.
		for _, t := range tones {
			if t.zone == bl.Zone {
				under = t.dry
			}
		}
		ink, ok := s.ink[bl.Ink]
		if !ok {
			out.Missing = true
			look.Blends = append(look.Blends, out)
			continue
		}
		film, _, err := s.Film(ink)
		if err != nil {
			continue
		}
		on := paper
		if f.Ink != "" || under != base {
			on = ""
		}
		dry, _, _ := s.On(ink, film, under, on, bl.Strikes())
		if f.Return {
			if first, ok := s.ink[f.Ink]; ok {
				if over, _, err := s.Film(first); err == nil {
					dry = over.Over(dry, 1)
				}
			}
		}
		wet := kit.BehaviourOf(ink.Kind).Drying.Wet(dry)
		out.InkName, out.Dry, out.Wet, out.L = ink.Name, dry.Hex(), wet.Hex(), dry.Lab().L
		look.Blends = append(look.Blends, out)
		if bl.Zone == card.AllOver {
			all = dry
			look.Wet, look.WetL = wet.Hex(), wet.Lab().L
			continue
		}
		tones = append(tones, toned{bl.Zone, dry})
	}
	if i, ok := s.ink[f.Edge]; ok && v.Layer.Make == card.Cut {
		if film, _, err := s.Film(i); err == nil {
			edge, _, _ := s.On(i, film, s.PaperColour(f.Paper), f.Paper, 1)
			look.Edge = edge.Hex()
		}
	}
	return all, tones
}

// toned is a zone of a layer and its fullest dried colour.
type toned struct {
	zone card.Zone
	dry  colour.Linear
}

// atEdge lists the colours a layer may show along its own edge: the rim's where
// there is one, else the base's, and those of the sides.
func atEdge(base colour.Lab, tones []toned) []colour.Lab {
	out := []colour.Lab{base}
	for _, t := range tones {
		if t.zone == card.Rim {
			out[0] = t.dry.Lab()
		}
	}
	for _, t := range tones {
		if t.zone != card.Rim {
			out = append(out, t.dry.Lab())
		}
	}
	return out
}

// within lists the colours a layer may show away from its edge.
func within(base colour.Lab, tones []toned) []colour.Lab {
	out := []colour.Lab{base}
	for _, t := range tones {
		if t.zone != card.Rim {
			out = append(out, t.dry.Lab())
		}
	}
	return out
}

// closest is the smallest difference between any of two sets of colours: the
// worst that may meet somewhere along an edge.
func closest(a, b []colour.Lab) float64 {
	d := math.Inf(1)
	for _, p := range a {
		for _, q := range b {
			d = math.Min(d, colour.Difference(p, q))
		}
	}
	return d
}
