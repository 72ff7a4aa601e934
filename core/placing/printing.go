package placing

import (
	"cmp"
	"fmt"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/motif"
	"slices"
	"strings"
)

// Printing is the order of a run that keeps every stamp in its place.
type Printing struct {
	Strikes  []Standing `json:"strikes" nullable:"false" doc:"in order; each stands in the positioner until its last strike"`
	Settings int        `json:"settings" doc:"times a stamp is set so"`
	OneByOne int        `json:"oneByOne" doc:"times it would be set, image by image"`
	Say      string     `json:"say"`
}

// Standing is a stamp that stands in the positioner while all its copies are
// printed.
type Standing struct {
	Label   string   `json:"label" doc:"the layers it prints"`
	Inks    []string `json:"inks" nullable:"false" doc:"names, lightest first, so that it needs no washing between"`
	Prints  int      `json:"prints" doc:"strikes of it, impressions counted"`
	Washed  bool     `json:"washed" doc:"two inks on it lie too near in lightness to go on unwashed"`
	darkest float64
	key     string
	after   map[string]bool // stamps whose prints lie beneath
}

// Printing orders a run of so many images in every colourway: each stamp is set
// once, all its prints made in its lightest ink before the next darker, and the
// stamps go from the lightest to the darkest where the school does, else as they
// lie. Layers on one stamp are printed together.
func (t Study) Printing(run int) Printing {
	out := Printing{Strikes: []Standing{}}
	type stamp struct {
		labels  []string
		inks    map[string]float64
		strikes int
		after   map[string]bool
	}
	key := func(v motif.View) string { return cmp.Or(v.Part.Stamp, v.Layer.ID) }
	var order []string
	stamps := map[string]*stamp{}
	for _, v := range t.Image.Shapes.Views {
		if v.Layer.Make == card.Cut {
			continue
		}
		k := key(v)
		if stamps[k] == nil {
			stamps[k] = &stamp{inks: map[string]float64{}, after: map[string]bool{}}
			order = append(order, k)
		}
		s := stamps[k]
		if v.Host >= 0 && t.Image.Shapes.Views[v.Host].Layer.Make != card.Cut && key(t.Image.Shapes.Views[v.Host]) != k {
			s.after[key(t.Image.Shapes.Views[v.Host])] = true
		}
		s.labels = append(s.labels, v.Layer.Label)
		most := 0
		for _, w := range t.Image.Colourways {
			f := w.Layers[v.Layer.ID]
			if ink, ok := t.Stock.Ink(f.Ink); ok {
				if c, err := colour.ParseHex(ink.Dry); err == nil {
					s.inks[ink.Name] = c.Lab().L
				}
				most = max(most, f.Strikes())
			}
		}
		s.strikes = max(s.strikes, most)
	}
	for _, k := range order {
		s := stamps[k]
		if len(s.inks) == 0 {
			continue
		}
		st := Standing{Label: strings.Join(s.labels, " and "), Inks: []string{}, Prints: run * max(1, s.strikes), darkest: 100, key: k, after: s.after}
		for name := range s.inks {
			st.Inks = append(st.Inks, name)
		}
		slices.SortFunc(st.Inks, func(a, c string) int { return cmp.Or(cmp.Compare(s.inks[c], s.inks[a]), cmp.Compare(a, c)) })
		for i, name := range st.Inks {
			st.darkest = min(st.darkest, s.inks[name])
			st.Washed = st.Washed || i > 0 && s.inks[st.Inks[i-1]]-s.inks[name] < t.Hand.Step
		}
		out.Strikes = append(out.Strikes, st)
	}
	if t.Image.School == card.LightGround {
		out.Strikes = lightestFirst(out.Strikes)
	}
	n := len(out.Strikes)
	out.Settings, out.OneByOne = n, n*run
	if n == 0 {
		return out
	}
	first := out.Strikes[0]
	out.Say = fmt.Sprintf("Print all %d of %s before the next stamp: %d settings instead of %d, and every copy off alike. Leave each stamp on the lid until its last strike, and the paper against the same corner.", run, first.Label, n, n*run)
	if len(first.Inks) > 1 {
		out.Say += " On one stamp go from the lightest ink to the darkest."
	}
	return out
}

// lightestFirst orders stamps from the lightest to the darkest, none before one
// whose print lies beneath its own.
func lightestFirst(all []Standing) []Standing {
	left := slices.Clone(all)
	out := make([]Standing, 0, len(all))
	for len(left) > 0 {
		best := -1
		for i, s := range left {
			waits := slices.ContainsFunc(left, func(o Standing) bool { return s.after[o.key] })
			if !waits && (best < 0 || s.darkest > left[best].darkest) {
				best = i
			}
		}
		best = max(0, best) // stamps that wait for each other are taken as they lie
		out = append(out, left[best])
		left = slices.Delete(left, best, best+1)
	}
	return out
}
