package work

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/motif"
)

// prints adds the prints: all copies of a stamp together, but images that overlap on what
// carries them one by one, from the front to the back, each masked while those behind it
// are printed.
func (m *making) prints() {
	together, alone := m.groups()
	// What is printed on its pieces is printed on all of them at once, wherever they go.
	all := 0
	for _, g := range together {
		all += g.n
	}
	for _, g := range together {
		m.print(g.on, "", g.n, all)
		all = 0
	}
	for _, i := range alone {
		m.print(m.groundOf(m.Build.Things[i].Element), m.Build.Things[i].Element.ID, 1, 1)
	}
}

// furtherGround is from where on prints on other leaves than the first are numbered, clear of
// those on card of their own.
const furtherGround = 100

// ground is a leaf of the card that is printed on, and on which face of the card it lies: the base is
// printed on outside and inside.
type ground struct {
	Thing
	face card.Face
}

// groundOf is what an element is printed on.
func (k *maker) groundOf(e card.Element) ground {
	on := ground{k.carrier(e), e.Face}
	if on.Element != "" {
		on.face = card.Front
	}
	return on
}

// groundName is what a person calls a ground.
func (k *maker) groundName(g ground) string {
	switch g.face {
	case card.InsideLeft:
		return "the inside, left"
	case card.InsideRight:
		return "the inside, right"
	case card.OnEnvelope:
		return "the envelope"
	}
	return k.LeafName(g.Element)
}

// grounds are the leaves of the card that the image is printed on, as they are met; card it is
// cut out of is not with them.
func (m *making) grounds() (out []ground) {
	for _, i := range m.Things {
		t := &m.Build.Things[i]
		if on := m.groundOf(t.Element); t.Element.Image.Cutout == nil && !slices.Contains(out, on) {
			out = append(out, on)
		}
	}
	return out
}

// group is a number of images that are printed on one leaf together.
type group struct {
	on ground
	n  int
}

// groups parts the image's things by what carries them; those whose prints overlap others
// stand alone, the front one first.
func (m *making) groups() (together []group, alone []int) {
	for _, i := range m.Things {
		t := &m.Build.Things[i]
		on := m.groundOf(t.Element)
		if cut := t.Element.Image.Cutout; cut != nil {
			on = ground{m.cutoutSheet(cut.Paper), card.Front}
		}
		if t.Printed && m.byItself(i) {
			alone = append(alone, i)
			continue
		}
		if at := slices.IndexFunc(together, func(g group) bool { return g.on == on }); at >= 0 {
			together[at].n++
		} else {
			together = append(together, group{on, 1})
		}
	}
	slices.Reverse(alone)
	return together, alone
}

// batch is what one stamp with one ink prints at once.
type batch struct {
	layers []int
	ink    string
}

// print adds the prints of the image on one leaf, n of them, and those on so many of its own
// pieces: of all alike, or of one element.
func (m *making) print(at ground, element string, n, pieces int) {
	var batches []batch
	for i, v := range m.views {
		f := m.finish(i)
		ink := f.First()
		if v.Layer.Make == card.Cut || ink == "" {
			continue // bare paper is a legitimate layer
		}
		// Parts of one stamp that take one ink are printed at one stroke.
		at := slices.IndexFunc(batches, func(b batch) bool {
			o := m.views[b.layers[0]]
			return v.Layer.Region == nil && o.Layer.Region == nil && v.Part.Stamp != "" && v.Part.Stamp == o.Part.Stamp && f.Ink == b.ink && v.Layer.Make == card.Printed && o.Layer.Make == card.Printed &&
				len(f.Blends) == 0 && build.Leaf(m.Image.Shapes, i) == build.Leaf(m.Image.Shapes, b.layers[0]) && m.onlyOver(i, b.layers)
		})
		if at >= 0 {
			batches[at].layers = append(batches[at].layers, i)
		} else {
			batches = append(batches, batch{[]int{i}, ink})
		}
	}
	for _, b := range batches {
		if build.Leaf(m.Image.Shapes, b.layers[0]) == motif.Ground {
			m.strike(b, at, element, n)
		} else if pieces > 0 {
			m.strike(b, at, element, pieces)
		}
	}
	if t := m.thingOf(element); t != nil && len(batches) > 0 {
		behind := []string{}
		for _, j := range m.overlapped(t.at) {
			if j < t.at {
				behind = append(behind, m.Build.Things[j].Name)
			}
		}
		under, inks := m.InkedAround(t.at)
		for _, n := range inks {
			if name := build.Inking(under.Element.Sheet.Treatments[n]); !slices.Contains(behind, name) {
				behind = append(behind, name)
			}
		}
		if len(behind) > 0 {
			m.add(phaseInk, Act{ID: card.Step{Verb: Mask, Element: element}, Kind: MaskAct, Title: fmt.Sprintf("Mask no. %d, %s", m.fromFront(t.at), t.Name),
				Detail: fmt.Sprintf("Lay its mask over it, once it is dry, while what stands behind it is inked: %s. %sRegister prints the masks. Take it off straight up when that is done.", strings.Join(behind, ", "), ofPieces(m.Build, t.at))}, facts{masks: element})
		}
	}
}

// thinnestMask is how broad, mm, a part of a print is at least that a mask can be cut for: what is
// narrower is left to the ink round it.
const thinnestMask = 0.8

// ofPieces says of how many pieces a mask is, where it is more than one.
func ofPieces(b *build.Build, at int) string {
	n := 0
	for _, g := range b.Things[at].Prints.Filled().Pieces() {
		if 2*g.Area() > thinnestMask*g.Length() {
			n++
		}
	}
	if n < 2 {
		return ""
	}
	return fmt.Sprintf("It is of %d pieces. ", n)
}

// byItself reports whether a thing is printed by itself and not with its likes: it lies over or under
// another print, or is masked while its ground is inked.
func (k *maker) byItself(i int) bool {
	if _, inks := k.InkedAround(i); len(inks) > 0 {
		return true
	}
	return len(k.overlapped(i)) > 0
}

// onlyOver reports whether no print lies beneath a layer but those given: only then they
// can be printed at one stroke.
func (m *making) onlyOver(layer int, of []int) bool {
	for h := m.views[layer].Host; h != motif.Ground && m.views[h].Layer.Make != card.Cut; h = m.views[h].Host {
		if !slices.Contains(of, h) {
			return false
		}
	}
	return true
}

// placed is a thing with its place in the pile.
type placed struct {
	*build.Thing
	at int
}

func (m *making) thingOf(element string) *placed {
	for _, i := range m.Things {
		if t := &m.Build.Things[i]; t.Element.ID == element {
			return &placed{t, i}
		}
	}
	return nil
}

// strike adds what one stamp with one ink prints.
func (m *making) strike(b batch, at ground, element string, n int) {
	ground := at.Thing
	first := b.layers[0]
	v, f := m.views[first], m.finish(first)
	id := m.id(Print, first)
	id.Element = element
	if ground.Motif != "" {
		id.N = 1 + slices.Index(m.cutoutPapers(), ground.Part) // on card of its own
	} else if nth := slices.Index(m.grounds(), at); nth > 0 {
		id.N = furtherGround + nth // on another leaf than the first
	}
	fa := facts{leaf: m.leaf(first, ground), makes: element, stack: first, tool: m.tool(m.Image.Motif, v.Layer), tone: m.tone(f.First())}
	fa.times = n
	if leaf := build.Leaf(m.Image.Shapes, first); leaf != motif.Ground {
		l := m.views[leaf].Layer
		fa.hole, fa.times = !l.After, n*max(1, l.Copies)
	} else if ground.Motif == "" {
		fa.spots = n
	}
	var labels []string
	for _, i := range b.layers {
		w := m.views[i]
		if w.Host == motif.Ground {
			// nothing of the image lies beneath
		} else if on := m.inkedBelow(i); on == motif.Ground {
			// only bare card lies beneath
		} else if h := m.thing(on, m.alone(on, element)); !slices.ContainsFunc(b.layers, func(j int) bool { return j == on }) {
			fa.over = append(fa.over, h)
		}
		if r := w.Layer.Region; r != nil && r.By == card.Enclosed {
			// The lines that hold it are there first, and dry.
			for j, of := range m.views {
				if of.Layer.Part == w.Layer.Part && of.Layer.Region == nil && of.Layer.Make != card.Cut && m.finish(j).First() != "" {
					fa.over = append(fa.over, m.thing(j, m.alone(j, element)))
				}
			}
		}
		labels = append(labels, w.Layer.Label)
		fa.inks = append(fa.inks, m.thing(i, m.alone(i, element)))
		if m.Image.School == card.LightGround && !w.Layer.Accent {
			fa.rank = max(fa.rank, w.Layer.Rank)
		}
	}
	if element != "" {
		for _, j := range m.overlapped(m.thingOf(element).at) {
			if j > m.thingOf(element).at {
				fa.masked = append(fa.masked, m.Build.Things[j].Element.ID)
			}
		}
	}
	carrier := m.groundName(at)
	if ground.Motif != "" && v.Host == motif.Ground {
		carrier = m.Stock.PaperName(ground.Part) + ", to be cut out"
	}
	if v.Host != motif.Ground {
		carrier = m.views[v.Host].Layer.Label
	}
	what := m.of(strings.Join(labels, " and "))
	if element != "" {
		what += fmt.Sprintf(", no. %d from the front", m.fromFront(m.thingOf(element).at))
	}
	title, detail := fmt.Sprintf("Stamp %s × %d", what, n), "%s on %s. Look before you lift the stamp."
	masks := v.Layer.Region != nil && v.Layer.Region.By == card.Masked && v.Problem == ""
	if masks {
		title, detail = m.maskedInk(first, what, n)
	}
	kind := PrintAct
	if m.handLaid(v.Layer, f.First()) && !masks {
		title, detail, kind = fmt.Sprintf("Colour %s × %d", what, n), "%s by hand, within its line, on %s.", InkAct
		fa.tool, fa.spots, fa.hole = tool{}, 0, false
	}
	if v.Layer.Make == card.Stencilled && !masks {
		title, detail = fmt.Sprintf("Stencil %s × %d", what, n), "%s through its opening, the etched lines laid over what is there on %s, one edge hinged with tape. Wipe the stencil before another colour."
	}
	with := laidWith(v.Layer)
	if kind == InkAct {
		with = ""
	}
	a := m.inked(Act{ID: id, Kind: kind, Title: title, Detail: fmt.Sprintf(detail, m.loaded(f, with), carrier)}, f.First())
	for _, i := range b.layers {
		if covers, _ := m.covered(i); covers != "" {
			a.Detail = covers + a.Detail + " Take the mask off straight up."
		}
	}
	fa.seq, fa.series = 1, fa.inks[0]
	a.Mind = append(a.Mind, m.inStrips(first, fa.times)...)
	if l := m.Look.Layers[first].Line; l != nil && l.Soft && l.LastDiff > l.FirstDiff {
		a.Mind = append(a.Mind, "This line covers soft shading for good: look at both pictures on Inks, line first and line last, before it is printed.")
	}
	on := m.on(b.layers, ground)
	m.add(phaseInk, m.minded(a, f.First(), on), fa)
	for i, over := range m.drawnOver(f, what, on, func(n int) card.Step {
		return card.Step{Verb: Blend, Element: element, Motif: id.Motif, Colourway: id.Colourway, Part: id.Part, N: 10*id.N + n}
	}) {
		m.add(phaseInk, over, facts{leaf: fa.leaf, inks: fa.inks, seq: 2 + i, series: fa.series, tone: m.tone(over.Ink), times: fa.times})
	}
	m.heat(id, what, fa.leaf, fa.inks, inksOf(f)...)
}

// on is what layers are printed on together, on what carries the image where none of its
// pieces does.
func (m *making) on(layers []int, ground Thing) medium {
	out := medium{paper: m.Card.Base.Paper, strikes: m.finish(layers[0]).Strikes()}
	if e, ok := m.Card.Element(ground.Element); ok && e.Sheet != nil {
		out.paper = e.Sheet.Paper
	}
	if ground.Motif != "" {
		out.paper = ground.Part
	}
	for _, i := range layers {
		if v := m.views[i]; v.Layer.Make == card.Printed {
			out.area, out.edge = out.area+v.Outline.Area(), out.edge+v.Outline.Length()
		}
		for h := m.views[i].Host; h != motif.Ground; h = m.views[h].Host {
			f := m.finish(h)
			out.beneath = append(out.beneath, inksOf(f)...)
			if m.views[h].Layer.Make == card.Cut {
				out.paper = f.Paper
				break
			}
		}
	}
	return out
}

// inkedBelow is the layer beneath a print that has ink of its own; motif.Ground for none.
func (m *making) inkedBelow(layer int) int {
	for {
		layer = m.views[layer].Host
		if layer == motif.Ground || m.finish(layer).Ink != "" || len(m.finish(layer).Blends) > 0 {
			return layer
		}
	}
}

// alone is the element a layer's ink belongs to where each is printed by itself: only what
// lies on the ground is.
func (m *making) alone(layer int, element string) string {
	if build.Leaf(m.Image.Shapes, layer) != motif.Ground {
		return ""
	}
	return element
}

// fromFront counts a printed thing among those that overlap others, from the front, from 1.
func (k *maker) fromFront(i int) int {
	n := 1
	for j := i + 1; j < len(k.Things); j++ {
		if t := k.Things[j]; t.Printed && t.Element.Face == k.Things[i].Element.Face && k.byItself(j) {
			n++
		}
	}
	return n
}

// overlapped lists the printed things that a printed thing lies over or under. Every strike
// asks for it, so that it is found once.
func (k *maker) overlapped(i int) (out []int) {
	if was, ok := k.laps[i]; ok {
		return was
	}
	defer func() { k.laps[i] = out }()
	for j := range k.Things {
		if k.Overprint(i, j) {
			out = append(out, j)
		}
	}
	return out
}
