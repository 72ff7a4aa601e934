package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/blend"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/motif"
	"ochrestone/core/words"
)

// image adds the acts of one image in one colourway: its prints, its pieces, and how they
// are stacked.
func (k *maker) image(m *build.Made) {
	im := making{maker: k, Made: m, views: m.Image.Shapes.Views}
	var cut []int
	for i, v := range im.views {
		if v.Layer.Make == card.Cut {
			im.piece(i)
			cut = append(cut, i)
		}
	}
	im.prints()
	im.cutOut()
	im.pop(im.takeOut(cut))
	for _, i := range cut {
		im.plies(i)
		if im.views[i].Host != motif.Ground {
			im.glue(i)
		}
	}
}

// cutoutSheet is the card that images are printed on to be cut out of, of one paper.
func (m *making) cutoutSheet(paper string) Thing {
	return Thing{Motif: m.Image.ID, Colourway: m.Colourway.ID, Part: paper}
}

// cutoutPapers are the cards that copies of the image are cut out of, as they are met.
func (m *making) cutoutPapers() (out []string) {
	for _, i := range m.Things {
		if cut := m.Build.Things[i].Element.Image.Cutout; cut != nil && !slices.Contains(out, cut.Paper) {
			out = append(out, cut.Paper)
		}
	}
	return out
}

// cutOut cuts the images out that are printed on card of their own.
func (m *making) cutOut() {
	n, margin := map[string]int{}, map[string]float64{}
	for _, i := range m.Things {
		if cut := m.Build.Things[i].Element.Image.Cutout; cut != nil {
			n[cut.Paper]++
			margin[cut.Paper] = max(margin[cut.Paper], cut.Margin)
		}
	}
	for _, paper := range m.cutoutPapers() {
		how := "close to its edge"
		if margin[paper] > 0 {
			how = fmt.Sprintf("with %s of card all round", m.format(margin[paper]))
		}
		m.add(phasePop, Act{ID: card.Step{Verb: CutOut, Motif: m.Image.ID, Colourway: m.Colourway.ID, Part: paper}, Kind: CutAct, Title: fmt.Sprintf("Cut %s out × %d", m.of(m.Image.Name), n[paper]),
			Detail: fmt.Sprintf("Fussy cut from %s, %s, or with its own die: turn the card, not the scissors. Colour the cut edge where it shows.", m.Stock.PaperName(paper), how)}, facts{leaf: m.cutoutSheet(paper), cutsOut: true})
	}
}

// inStrips says how the prints lie on their card that are cut out of it afterwards, n of them.
func (m *making) inStrips(layer, n int) []string {
	leaf := build.Leaf(m.Image.Shapes, layer)
	if leaf == motif.Ground {
		return nil
	}
	paper, long := m.finish(leaf).Paper, 0.0
	if p, ok := m.Stock.Paper(paper); ok {
		long = max(p.W, p.H)
	}
	s := build.InStrip(m.views[leaf], n, long)
	if s == nil {
		return nil
	}
	rows := ""
	if s.Rows > 1 {
		rows = fmt.Sprintf(", in %d rows of %d", s.Rows, s.Row)
	}
	return []string{fmt.Sprintf("Side by side on %s, %s from middle to middle, so that the die for %s has room: %d%s take a strip of %s × %s.", m.Stock.PaperName(paper), m.format(s.Pitch), m.name(leaf), n, rows, m.format(s.Across*float64(s.Rows)), m.format(s.Along))}
}

// making is an image in a colourway while its acts are collected.
type making struct {
	*maker
	*build.Made
	views []motif.View
}

func (m *making) id(verb string, layer int) card.Step {
	return card.Step{Verb: verb, Motif: m.Image.ID, Colourway: m.Colourway.ID, Part: m.views[layer].Layer.ID}
}

// thing is a layer of the image; element where each is done by itself.
func (m *making) thing(layer int, element string) Thing {
	return Thing{element, m.Image.ID, m.Colourway.ID, m.views[layer].Layer.ID}
}

// leaf is the leaf that carries a layer in the end, on the ground what carries the image.
func (m *making) leaf(layer int, ground Thing) Thing {
	if l := build.Leaf(m.Image.Shapes, layer); l != motif.Ground {
		return m.thing(l, "")
	}
	return ground
}

// of says which image and colourway is meant, where the card has several.
func (m *making) of(name string) string {
	if len(m.Image.Colourways) > 1 {
		name += ", " + m.Colourway.Name
	}
	if len(m.Card.Motifs) > 1 {
		name += ", of " + m.Image.Name
	}
	return name
}

func (m *making) name(layer int) string { return m.of(m.views[layer].Layer.Label) }

func (m *making) finish(layer int) card.Finish { return m.Colourway.Layers[m.views[layer].Layer.ID] }

// cuts is how often a layer is cut for all things of the image.
func (m *making) cuts(i int) int {
	return len(m.Things) * max(1, m.views[i].Layer.Copies) * max(1, m.views[i].Part.Copies)
}

// piece cuts a layer and inks it, or inks its sheet and cuts it out after.
func (m *making) piece(i int) {
	v, f := m.views[i], m.finish(i)
	leaf := m.thing(i, "")
	n := m.cuts(i)
	paper := m.Stock.PaperName(f.Paper)
	prints := slices.ContainsFunc(m.views, func(w motif.View) bool {
		return w.Host == i && w.Layer.Make != card.Cut && m.Colourway.Layers[w.Layer.ID].Ink != ""
	})
	cut := Act{ID: m.id(Cut, i), Kind: CutAct, Title: fmt.Sprintf("Cut %s × %d", m.name(i), n), Detail: fmt.Sprintf("From %s.", paper)}
	title, detail := "Ink "+m.name(i), "%s%s. Lightly, edges too, so that no white core shows."
	phase := phaseCut
	if v.Layer.After {
		phase = phaseInk
		title, detail = "Ink the sheet of "+m.name(i), "%s%s, a little past where the die will cut."
		cut.Title = fmt.Sprintf("Cut %s out × %d", m.name(i), n)
		cut.Cautions = []string{"The cutting edge is sharp: hold the die by its rim. Keep fingers off the rollers."}
		switch {
		case prints:
			cut.Detail = fmt.Sprintf("Lay the die round the print on %s, even all round, and tape it down.", paper)
		case f.Ink != "":
			cut.Detail = fmt.Sprintf("Lay the die on the inked sheet of %s and tape it down.", paper)
		}
	}
	m.madeAgain(i, n, &cut)
	m.add(phase, cut, facts{leaf: leaf, cutsOut: v.Layer.After})
	turn, before := 0, []string{}
	covers, uncovers := m.covered(i)
	add := func(id card.Step, kind Kind, title, detail, ink string) {
		if turn++; turn == 1 {
			detail = covers + detail + uncovers
		}
		a := m.minded(m.inked(Act{ID: id, Kind: kind, Title: title, Detail: detail}, ink), ink, medium{paper: f.Paper, beneath: before})
		before = append(before, ink)
		if _, open := v.Ribbed(); open && turn == 1 && f.Back == "" {
			a.Mind = append(a.Mind, "Open work is seen from behind too: colour its back and its edges as well.")
		}
		if f.Soaked && id.Verb == Ink {
			a.Minutes = max(a.Minutes, soakedDry)
		}
		m.add(phaseInk, a, facts{leaf: leaf, inks: []Thing{leaf}, seq: turn, series: leaf, tone: m.tone(ink)})
	}
	if f.Ink != "" && f.Soaked {
		title = strings.Replace(title, "Ink ", "Paint ", 1)
		detail = "%s%s, with plenty of water, scrap beneath. Wet card tears: leave it in its sheet until it is dry, flat under a weight as soon as nothing comes off."
		if v.Layer.After {
			detail = "%s%s, with plenty of water, scrap beneath, a little past where the die will cut. Let it dry flat under a weight before it is cut."
		}
	}
	if f.Ink != "" {
		add(m.id(Ink, i), InkAct, title, fmt.Sprintf(detail, m.Stock.InkName(f.Ink), strikes(f)), f.Ink)
	}
	for n, bl := range f.Blends {
		id := m.id(Blend, i)
		id.N = n + 1
		zone, twins := m.zoneAsLaid(bl.Zone)
		add(id, InkAct, fmt.Sprintf("Blend the %s of %s", zone, m.name(i)), m.blended(i, n, bl, f)+twins, bl.Ink)
	}
	if f.Ink != "" && f.Return && len(f.Blends) > 0 {
		add(m.id(Return, i), InkAct, "Go back over "+m.name(i), fmt.Sprintf("%s once more, over the joins, to soften them.", m.Stock.InkName(f.Ink)), f.Ink)
	}
	if f.Edge != "" {
		add(m.id(Edge, i), InkAct, "Ink the edge of "+m.name(i), m.Stock.InkName(f.Edge)+", run along the cut edge, so that no white core shows.", f.Edge)
	}
	if f.Back != "" {
		add(m.id(Back, i), InkAct, "Ink the back of "+m.name(i), m.Stock.InkName(f.Back)+", where it will be seen.", f.Back)
	}
	m.heat(m.id(Heat, i), m.name(i), leaf, []Thing{leaf}, inksOf(f)...)
}

// blended says how the nth blend of a layer is worked in.
func (m *making) blended(i, n int, bl card.Blend, f card.Finish) string {
	passes := ""
	if bl.Strikes() > 1 {
		passes = fmt.Sprintf(", %d passes", bl.Strikes())
	}
	if bl.Zone == card.AllOver {
		return m.Stock.InkName(bl.Ink) + passes + ", over the whole of it."
	}
	earlier := 0
	for _, o := range f.Blends[:n] {
		if o.Zone == bl.Zone {
			earlier++
		}
	}
	reach := blend.Reach(m.views[i].Outline, bl.Zone, earlier)
	return fmt.Sprintf("%s%s, fading out over %s. Start off the piece, little ink, small circles.", m.Stock.InkName(bl.Ink), passes, m.format(reach))
}

// takeOut takes the pieces to which nothing is done in their sheets out of them as they are cut, says in
// each cut which it is, and gives back those that stay. It goes by all other acts of the image.
func (m *making) takeOut(cut []int) (stay []int) {
	for _, i := range cut {
		at, out := m.cutOf(i)
		if at < 0 || m.views[i].Layer.After {
			stay = append(stay, i)
			continue
		}
		how := "Leave the piece in its sheet for inking."
		if out {
			how = "Take " + words.Of(m.cuts(i), "it", "them") + " out of the sheet."
		}
		l, act := m.views[i].Layer, &m.acts[at]
		byDie := l.Traced == 0 && l.Region == nil || m.views[i].Problem != ""
		if out && byDie && len(m.views[i].Outline.Holes()) > 0 {
			how += " Push the waste out from behind."
			act.Cautions = append(act.Cautions, cautions(PopAct)...)
		}
		if byDie {
			act.Detail += " " + how
		}
		if out {
			act.pops = []Thing{m.thing(i, "")}
		} else {
			stay = append(stay, i)
		}
	}
	return stay
}

// cutOf is the act that cuts a piece, -1 for none, and whether nothing is done to it before it is popped out.
func (m *making) cutOf(i int) (at int, alone bool) {
	leaf, at, alone := m.thing(i, ""), -1, true
	for n, a := range m.acts {
		switch {
		case a.leaf != leaf:
		case a.ID.Verb == Cut:
			at = n
		case a.phase < phasePop:
			alone = false
		}
	}
	return at, alone
}

// pop takes all pieces of the image out of their sheets, in gluing order.
func (m *making) pop(cut []int) {
	if len(cut) == 0 {
		return
	}
	var labels []string
	var leaves []Thing
	for _, i := range cut {
		labels, leaves = append(labels, m.views[i].Layer.Label), append(leaves, m.thing(i, ""))
	}
	id := card.Step{Verb: Pop, Motif: m.Image.ID, Colourway: m.Colourway.ID}
	title := "Pop out " + m.name(cut[0])
	if len(cut) > 1 {
		title = "Pop out the pieces of " + m.Image.Name
		if len(m.Image.Colourways) > 1 {
			title += ", " + m.Colourway.Name
		}
	}
	detail := words.Of(len(cut), "Once it is dry. Lay it on low-tack tape.", "Once they are dry. Lay them on low-tack tape in gluing order: "+strings.Join(labels, ", ")+".")
	m.add(phasePop, Act{ID: id, Kind: PopAct, Title: title, Detail: detail}, facts{pops: leaves})
}

// plies glues the copies of a layer that is cut more than once into one piece.
func (m *making) plies(i int) {
	if n := m.views[i].Layer.Copies; n > 1 {
		m.add(phasePop, Act{ID: m.id(Plies, i), Kind: GlueAct, Title: fmt.Sprintf("Glue the %d plies of %s into one", n, m.name(i)),
			Detail: "Edge on edge, the inked one on top, dots of glue well inside; press it flat."}, facts{leaf: m.thing(i, "")})
	}
}

// glue puts a piece onto the one that carries it, or onto a print.
func (m *making) glue(i int) {
	v := m.views[i]
	a, raised := m.held(Act{ID: m.id(Glue, i), Title: fmt.Sprintf("%s onto %s", m.name(i), m.views[v.Host].Layer.Label)}, v.Layer.Bonds)
	said := slices.DeleteFunc([]string{a.Detail, m.dose(v.Layer.Bonds, v.Outline), m.putOn(i)}, func(s string) bool { return s == "" })
	a.Detail = strings.Join(said, " ")
	m.add(phaseStack, a, facts{leaf: m.thing(i, ""), onto: m.leaf(v.Host, m.carrier(m.Build.Things[m.Things[0]].Element)), raised: raised, shy: m.shy(m.finish(i).Paper), stack: i, times: len(m.Things), left: m.mirrored(), outline: v.Outline.Simplify(build.Hair)})
}

// mirrored is how many of the image's things are laid left for right.
func (m *making) mirrored() (n int) {
	for _, i := range m.Things {
		if m.Build.Things[i].Element.Place.Mirror {
			n++
		}
	}
	return n
}

// onGround reports whether a thing has a piece that is laid on what carries it.
func (k *maker) onGround(t *build.Thing) bool {
	return t.Made >= 0 && slices.ContainsFunc(k.Made[t.Made].Image.Shapes.Views, func(v motif.View) bool { return v.Host == motif.Ground && v.Layer.Make == card.Cut })
}
