package foresee

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// leastCut is which share of a letter may be trimmed off before it is cut through; our own default.
const leastCut = 0.02

func trimRules() []Rule {
	return []Rule{
		{ID: "blade", Station: Front, Severity: Spoils, Source: practice, Limits: []Limit{{"clear of the blade", build.BladeClear, "mm", ""}}, check: ribbonsInBlade},
		{ID: "severed", Station: Front, Severity: Shows, Source: practice, Limits: []Limit{{"share of a letter", leastCut, "share", ""}}, check: severed},
	}
}

// ribbonsInBlade names ribbons that lie beneath what is trimmed where it is: they are on before, and the
// blade goes through both.
func ribbonsInBlade(v *View, add func(Hit)) {
	for i := range v.Build.Things {
		over := &v.Build.Things[i]
		for j := range v.Build.Things {
			r := &v.Build.Things[j]
			if r.Element.Ribbon == nil || j >= i {
				continue
			}
			hit := over.InBlade(r)
			if hit.Empty() {
				continue
			}
			free, along := v.freeOf(r, hit)
			add(Hit{Key: []string{over.Element.ID, r.Element.ID}, At: At{Element: over.Element.ID},
				What: fmt.Sprintf("%s is trimmed where %s lies beneath it", over.Name, words.Small(r.Name)),
				Why:  "The blade that trims it would go through both. " + along,
				Do:   fmt.Sprintf("Lay %s over it once it is trimmed, move one of them, or leave %s untrimmed.", words.Small(r.Name), words.Small(over.Name)), Numbers: free})
		}
	}
}

// freeOf says where along a ribbon no cut goes, in mm from its left end, or its upper end where it runs down.
func (v *View) freeOf(r *build.Thing, hit shape.Region) (free map[string]float64, say string) {
	b, h := r.Outline.Bounds(), hit.Bounds()
	from, to, long, end := h.Min.X-b.Min.X, h.Max.X-b.Min.X, b.W(), "left"
	if b.H() > b.W() {
		from, to, long, end = h.Min.Y-b.Min.Y, h.Max.Y-b.Min.Y, b.H(), "upper"
	}
	var parts []string
	if from > build.BladeClear {
		parts = append(parts, fmt.Sprintf("up to %s", v.Format(from)))
	}
	if long-to > build.BladeClear {
		parts = append(parts, fmt.Sprintf("past %s", v.Format(to)))
	}
	free = map[string]float64{"from": from, "to": to}
	if len(parts) == 0 {
		return free, "No stretch of it is free of the cut."
	}
	return free, fmt.Sprintf("From its %s end it is free of the cut %s.", end, words.Listed(parts))
}

// severed names the letters that are trimmed through.
func severed(v *View, add func(Hit)) {
	for i := range v.Build.Things {
		t := &v.Build.Things[i]
		if t.Offcut.Empty() {
			continue
		}
		cut := v.cutLetters(t)
		if len(cut) == 0 {
			continue
		}
		h := Hit{Key: []string{t.Element.ID}, At: At{Element: t.Element.ID}, What: fmt.Sprintf("%s cut through as %s is trimmed", lettersAre(cut), words.Small(t.Name)),
			Why: "What hangs over is trimmed flush with the edge.", Do: "Move it in, or make the letters smaller.", Numbers: map[string]float64{"letters": float64(len(cut))}}
		whole := t.Outline
		if g, err := t.Outline.Union(t.Offcut); err == nil {
			whole = g
		}
		if dx, dy, fits := layout.RoomOf(whole, v.Build.Edge(t.Element)).Mend(); fits {
			h.Mend = movedIn(t.Element.ID, dx, dy)
		}
		add(h)
	}
}

func lettersAre(cut []string) string {
	if len(cut) == 1 {
		return "The letter " + cut[0] + " is"
	}
	return "The letters " + words.Listed(cut) + " are"
}

// cutLetters are the letters of a thing that is trimmed of which more than leastCut goes off: cut from
// card, or stamped on it.
func (v *View) cutLetters(t *build.Thing) (out []string) {
	see := func(name string, g shape.Region) {
		g = t.Place(g)
		off, err := g.Intersect(t.Offcut)
		if err == nil && g.Area() > 0 && off.Area() > leastCut*g.Area() {
			out = append(out, name)
		}
	}
	if t.Line != nil {
		for _, l := range t.Line.Letters {
			see(l.Letter, l.Region)
		}
	}
	if t.Element.Sheet == nil {
		return out
	}
	for n, tr := range t.Element.Sheet.Treatments {
		if tr.Words == nil || n >= len(t.Treated) {
			continue
		}
		said := slices.DeleteFunc(strings.Split(tr.Words.Text, ""), func(s string) bool { return strings.TrimSpace(s) == "" })
		for k, g := range t.Treated[n].Regions {
			name := fmt.Sprintf("no. %d of “%s”", k+1, tr.Words.Text)
			if len(said) == len(t.Treated[n].Regions) {
				name = said[k]
			}
			see(name, g)
		}
	}
	return out
}
