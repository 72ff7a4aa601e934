package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/words"
)

// Verbs of lifting an arrangement with tacky film.
const (
	LiftFilm  = "lift film"  // laid out, and lifted
	PeelFilm  = "peel film"  // it is down, and holds
	GlueAgain = "glue again" // what the film did not reach
)

// filmHolds is for how long an arrangement is left under a weight before its film is peeled off, minutes,
// where its glue says no longer; our own default.
const filmHolds = 10.0

// wholeBack is which share of a back may be covered before there is nothing to glue it by.
const wholeBack = 0.95

// liftFilms adds what is done with an arrangement that is lifted with tacky film: laying it out, peeling
// the film when it holds, and the joints that were covered.
func liftFilms(k *maker) {
	all := k.film
	if len(all) == 0 {
		return
	}
	var names, again tally
	var ids []string
	longest := filmHolds
	on := k.carrier(k.Things[all[0].Thing].Element)
	for _, l := range all {
		t := &k.Things[l.Thing]
		ids = append(ids, t.Element.ID)
		names.add(k.plainName(l.Thing), "")
		if len(l.Over) > 0 {
			var over []string
			for _, j := range l.Over {
				if n := k.plainName(j); !slices.Contains(over, n) {
					over = append(over, n)
				}
			}
			again.add(k.plainName(l.Thing), words.Listed(over))
		}
		for _, b := range t.Element.Bonds {
			if g, ok := k.Stock.Adhesive(b.Adhesive); ok {
				longest = max(longest, g.SetMinutes)
			}
		}
	}
	leaf := Thing{Part: "film"}
	k.add(phaseFlat, Act{ID: card.Step{Verb: LiftFilm}, Kind: GlueAct, Title: fmt.Sprintf("Lay out %s and lift them with tacky film", words.Count(len(all), "piece")),
		Detail: fmt.Sprintf("Face up, as they are to lie: %s. Press the film over them from above, lift it, and turn it over: they lie face down, left for right.", words.Listed(names.said()))},
		facts{leaf: leaf, film: ids})
	k.add(phaseFlat, Act{ID: card.Step{Verb: PeelFilm}, Kind: GlueAct, Minutes: longest, Title: "Press the film down, and peel it when the glue holds",
		Detail: fmt.Sprintf("All of it at once onto %s, its place marked; under a weight. Only when the glue holds, peel the film off flat.", k.LeafName(on.Element))},
		facts{leaf: leaf, film: ids})
	if len(again) == 0 {
		return
	}
	joints := 0
	for _, e := range again {
		joints += e.n
	}
	k.add(phaseFlat, Act{ID: card.Step{Verb: GlueAgain}, Kind: GlueAct, Minutes: longest, Title: fmt.Sprintf("Glue %s that the film did not reach", words.Count(joints, "joint")),
		Detail: fmt.Sprintf("%s. Lift each with a pick, a little glue beneath it, press.", words.Capital(strings.Join(again.said(), "; ")))},
		facts{leaf: leaf, film: ids})
}

// tally counts what is said several times: a thing, and on what it lies.
type tally []entry

type entry struct {
	what []string
	on   string
	n    int
}

// add counts a thing; those that lie on the same are said together.
func (t *tally) add(what, on string) {
	for i := range *t {
		if e := &(*t)[i]; e.on == on && (on != "" || e.what[0] == what) {
			if !slices.Contains(e.what, what) {
				e.what = append(e.what, what)
			}
			e.n++
			return
		}
	}
	*t = append(*t, entry{[]string{what}, on, 1})
}

func (t tally) said() (out []string) {
	for _, e := range t {
		s := words.Listed(e.what)
		if e.n > len(e.what) {
			s = fmt.Sprintf("%d × %s", e.n, s)
		}
		if e.on != "" {
			s += " on " + e.on
		}
		out = append(out, s)
	}
	return out
}

// plainName is what a thing is called, an image without its colourway.
func (k *maker) plainName(i int) string {
	t := &k.Things[i]
	if t.Element.Image != nil {
		if m, ok := k.Card.Motif(t.Element.Image.Motif); ok {
			return words.Small(m.Name)
		}
	}
	return words.Small(t.Name)
}

// filmed says of a thing that is put down with film how its back is glued in it; glue that goes on there
// does not begin to set before all of it is pressed down. It reports whether glue goes on in this step.
func (k *maker) filmed(i int, a Act, raised bool) (Act, bool) {
	n := slices.IndexFunc(k.film, func(l build.Lifted) bool { return l.Thing == i })
	if n < 0 || raised {
		return a, true
	}
	glue := "Glue"
	if bonds := k.Things[i].Element.Bonds; len(bonds) > 0 {
		if g, ok := k.Stock.Adhesive(bonds[0].Adhesive); ok {
			glue = words.Capital(g.Name)
		}
	}
	glue += ", back from the edge."
	name := k.plainName(i)
	a.Title, a.Minutes = "Glue the back of "+name+", in the film", 0
	switch share := k.film[n].Share; {
	case share >= wholeBack:
		a.Title = words.Capital(name) + " gets no glue in the film"
		a.Detail = "Its back is wholly covered: it gets its glue when the film is off."
		return a, false
	case share > 0:
		a.Detail = fmt.Sprintf("What is free of it; %.0f %% is covered, and gets its glue afterwards. %s", 100*share, glue)
	default:
		a.Detail = glue
	}
	return a, true
}

// lifted: what film lifts is glued in it, and what lies over it waits until the film is off.
func lifted(t *table, need func(first, then int)) {
	in := func(a *Act, ids []string) bool {
		for _, id := range ids {
			if a.ID.Element == id {
				return true
			}
		}
		return false
	}
	for _, l := range t.verb[LiftFilm] {
		ids := t.acts[l].film
		for _, p := range t.verb[PeelFilm] {
			need(l, p)
			for _, j := range t.joins() {
				switch a := &t.acts[j]; {
				case a.ID.Verb == Place && in(a, ids):
					need(l, j)
					need(j, p)
				case a.ID.Verb == Tie || a.ID.Verb == Place:
					// It lies over something that is in the film, or on it.
					for _, q := range t.verb[Place] {
						if b := &t.acts[q]; in(b, ids) && (a.onto.Element == b.ID.Element || a.stack > b.stack && a.outline.Overlaps(b.outline)) {
							need(p, j)
						}
					}
				}
			}
			for _, g := range t.verb[GlueAgain] {
				need(p, g)
			}
			for _, g := range t.verb[Gems] {
				need(p, g)
			}
		}
	}
	for _, m := range t.verb[Mount] {
		for _, verb := range []string{PeelFilm, GlueAgain} {
			for _, g := range t.verb[verb] {
				need(g, m)
			}
		}
	}
}
