package work

import (
	"fmt"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/words"
)

// Fill is the verb of filling a shaker.
const Fill = "fill"

// buildShakers builds shakers: film behind the front, islands glued to it, the wall, the
// filling, the backing; then onto what carries them.
func buildShakers(k *maker) {
	for i, t := range k.Things {
		e := t.Element
		if e.Shaker == nil || e.Face != card.Front || t.Problem != "" || t.Outline.Empty() {
			continue
		}
		k.shaker(i, t)
	}
}

func (k *maker) shaker(i int, t build.Thing) {
	e, s, sh := t.Element, t.Element.Shaker, t.Shaking
	part := func(p string) Thing { return Thing{Element: e.ID, Part: p} }
	step := func(verb, p string) card.Step { return card.Step{Verb: verb, Element: e.ID, Part: p} }
	name := words.Small(t.Name)
	wall, _ := k.Stock.Spacer(s.Wall)
	cut := func(p, title, detail string) {
		k.add(phaseCut, Act{ID: step(Cut, p), Kind: CutAct, Title: title, Detail: detail}, facts{leaf: part(p)})
	}
	detail := fmt.Sprintf("%s, %s; its windows in it.", k.Stock.PaperName(s.Paper), k.size(s.Front().Size()))
	if t.Islands > 0 {
		detail += fmt.Sprintf(" Leave %s in until glued to the film.", islandsOf(t.Islands))
	}
	cut(build.FrontPart, "Cut the front of "+name, detail)
	cut(build.BackPart, "Cut the backing of "+name, fmt.Sprintf("%s, smaller all round so that it does not peek.", k.Stock.PaperName(s.Backing)))
	on := part(build.FrontPart)
	join := func(p, title, detail string, f facts) {
		f.leaf, f.onto = part(p), on
		on = f.leaf
		k.add(phaseStack, Act{ID: step(Glue, p), Kind: GlueAct, Title: title, Detail: detail}, f)
	}
	filmed := s.Film != "" && !s.Pouch
	if filmed {
		cut(build.FilmPart, "Cut the film of "+name, fmt.Sprintf("%s, as the backing. Touch it at its edges only.", k.Stock.PaperName(s.Film)))
		islands := ""
		if t.Islands > 0 {
			islands = fmt.Sprintf(" Press %s on it in place, with a dot of glue each; then push the letters out.", islandsOf(t.Islands))
		}
		join(build.FilmPart, "The film behind the front of "+name, "Double-sided tape or a clear glue round the window, well back from its edge. No heat from here on."+islands, facts{shy: k.shy(s.Film)})
	}
	fill := func() {
		var what []string
		for _, f := range s.Filling {
			what = append(what, fmt.Sprintf("about %d %s", f.N, strings.ToLower(f.Name)))
		}
		if len(what) > 0 {
			k.add(phaseStack, Act{ID: step(Fill, ""), Kind: GlueAct, Title: "Fill " + name, Detail: words.Capital(strings.Join(what, ", ")) + ". Half full shakes best.",
				Cautions: []string{"Small parts: not for children under three, nor where a pet can chew it open."}}, facts{leaf: part("filling"), onto: on})
			on = part("filling")
		}
	}
	if s.Pouch {
		fill()
	}
	how := fmt.Sprintf("%s, %d high", wall.Name, s.Levels())
	if sh.Long > 0 {
		how += fmt.Sprintf(": %s of strip", k.format(sh.Long))
	}
	if s.Pouch {
		join(build.WallPart, "The pouch and its frame of foam behind "+name, how+" round the pouch. It is closed in itself.", facts{shy: wall.Foam()})
	} else {
		how += ", closed all round: ends cut square and pressed together."
		if len(sh.Islands) > 0 {
			how += " A piece of its own behind every island."
		}
		if sh.Baffles > 0 {
			how += fmt.Sprintf(" %s across, each compartment filled by itself: not all of it falls to the foot.", barsOf(sh.Baffles))
		}
		how += " Rub the sticky sides with anti-static powder, or the filling clings."
		join(build.WallPart, "The wall of "+name, how, facts{shy: wall.Foam()})
	}
	if !s.Pouch {
		fill()
	}
	join(build.BackPart, "Close "+name, "Peel the wall, set the backing down on two corners, then all of it; press the wall, not the window.", facts{})
	a, raised := k.held(Act{ID: card.Step{Verb: Place, Element: e.ID}, Title: t.Name + " onto " + k.LeafName(k.carrier(e).Element)}, e.Bonds)
	a.Detail += k.crossed(i)
	k.add(phaseRaise, a, facts{leaf: Thing{Element: e.ID}, onto: k.carrier(e), raised: raised || wall.Foam(), shy: filmed && k.shy(s.Film), stack: i, outline: t.Rough})
}

// barsOf names so many bars.
func barsOf(n int) string {
	if n == 1 {
		return "A bar"
	}
	return fmt.Sprintf("%d bars", n)
}

// islandsOf names so many loose islands.
func islandsOf(n int) string {
	if n == 1 {
		return "the loose island"
	}
	return fmt.Sprintf("the %d loose islands", n)
}
