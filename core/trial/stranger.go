package trial

import (
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Stranger is a card as a naive person enters it, slips built in, with what that person owns.
type Stranger struct {
	ID   string // the trial's letter, with a number where it makes several cards
	Card card.Card
	Kit  kit.Kit
	// Given is the person's own order of work, as far as it differs: what is done, and to what.
	Given []Given
	// Gaps are what no edit and no form can say.
	Gaps []string
	made map[string]string // ids by the names the trial gives
}

// Given is a step of a person's own order: a verb and the trial's own name of the thing.
type Given struct{ Verb, Of string }

// Find is the id of what a trial calls by a name: an element, or an image.
func (s *Stranger) Find(name string) string {
	id, ok := s.made[name]
	if !ok {
		panic(fmt.Sprintf("trial %s has nothing called %q", s.ID, name))
	}
	return id
}

// Do makes edits as the page does. An edit that is refused is a fault of the trial and panics.
func (s *Stranger) Do(edits ...card.Edit) {
	c, err := s.Card.Apply(s.Kit, edits...)
	if err != nil {
		panic(fmt.Sprintf("trial %s: %v", s.ID, err))
	}
	s.Card = c
}

// Clone is the stranger again, to be changed.
func (s *Stranger) Clone() *Stranger {
	out := *s
	out.Kit.Sets, out.Kit.Inks, out.Kit.Papers, out.Kit.Spacers = slices.Clone(s.Kit.Sets), slices.Clone(s.Kit.Inks), slices.Clone(s.Kit.Papers), slices.Clone(s.Kit.Spacers)
	for i := range out.Kit.Sets {
		out.Kit.Sets[i].Parts = slices.Clone(out.Kit.Sets[i].Parts)
	}
	return &out
}

// begin is a card on its base, without a panel, of a format laid upright or on its side.
func begin(id, title, format string, across bool, base string) *Stranger {
	s := &Stranger{ID: id, Kit: drawer(), made: map[string]string{}}
	for _, f := range measure.Formats() {
		if f.ID == format {
			s.Card = card.New(title, f, measure.FoldTop, s.Kit)
		}
	}
	envelope := "a2"
	if format == "slimline" {
		envelope = "slim"
	}
	s.Do(card.Edit{Remove: &card.Remove{Element: "panel"}}, card.Edit{Base: &card.SetBase{Paper: &base, Envelope: &envelope}})
	if across != (s.Card.Base.W > s.Card.Base.H) {
		s.Do(card.Edit{Base: &card.SetBase{Turned: true}})
	}
	return s
}

// gap notes what cannot be entered.
func (s *Stranger) gap(what string) { s.Gaps = append(s.Gaps, what) }

// last is the element that was added last, by its new name.
func (s *Stranger) last(name string) string {
	id := s.Card.Elements[len(s.Card.Elements)-1].ID
	s.made[name] = id
	return id
}

// panel lays a sheet by even borders on the base.
func (s *Stranger) panel(name, paper string, border float64, bonds []card.Bond) string {
	s.Do(card.Edit{AddMat: &card.AddMat{}})
	mats := s.Card.Mats()
	id := mats[len(mats)-1].ID
	s.made[name] = id
	e, _ := s.Card.Element(id)
	sheet := *e.Sheet
	sheet.Paper = paper
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: id, Name: &name, Sheet: &sheet, Inset: card.Even(border)}}, card.Edit{Hold: &card.Hold{Element: id, Bonds: bonds}})
	return id
}

// sheet lays a sheet of any outline with its middle at a place.
func (s *Stranger) sheet(name, paper string, w, h, x, y float64, bonds []card.Bond, change ...func(*card.Sheet)) string {
	s.Do(card.Edit{AddSheet: &card.AddSheet{As: card.AsPlain}})
	id := s.last(name)
	e, _ := s.Card.Element(id)
	sheet := *e.Sheet
	sheet.Paper, sheet.W, sheet.H, sheet.Shape = paper, w, h, nil
	for _, f := range change {
		f(&sheet)
	}
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: id, Name: &name, Sheet: &sheet}}, card.Edit{Put: &card.Put{Element: id, X: &x, Y: &y}}, card.Edit{Hold: &card.Hold{Element: id, Bonds: bonds}})
	return id
}

// cutWith is a sheet cut with a die of its own outline; the die is added to the stores.
func (s *Stranger) cutWith(name string, g shape.Region) func(*card.Sheet) {
	set := "die-" + name
	s.Kit.Sets = append(s.Kit.Sets, kit.Set{ID: set, Name: "Die of the " + name, Kind: kit.DieSet, Parts: []kit.Part{{ID: "die", Label: name, Outline: g, Rank: 1, Copies: 1, Fit: kit.FitFree}}})
	return func(sh *card.Sheet) {
		b := g.Bounds()
		sh.W, sh.H, sh.Shape = b.W(), b.H(), &card.Outline{Kind: card.DiePart, Set: set, Part: "die"}
	}
}

// nested is a sheet cut with one of a set of rectangles that lie in each other, sizes in inches; the set is
// added to the stores, some of its sizes not there.
func (s *Stranger) nested(name, size string, owned, lost []string) func(*card.Sheet) {
	set := kit.Set{ID: name, Name: name, Kind: kit.DieSet}
	for i, at := range slices.Concat(owned, lost) {
		var w, h float64
		if _, err := fmt.Sscanf(at, "%fx%f", &w, &h); err != nil {
			panic(err)
		}
		w, h = w*measure.Inch, h*measure.Inch
		set.Parts = append(set.Parts, kit.Part{ID: at, Label: at, Outline: shape.Rect(-w/2, -h/2, w, h), Order: i + 1, Rank: 1, Copies: 1, Fit: kit.FitFree, Missing: i >= len(owned)})
	}
	s.Kit.Sets = append(s.Kit.Sets, set)
	return func(sh *card.Sheet) { sh.Shape = &card.Outline{Kind: card.DiePart, Set: name, Part: size} }
}

// Piece lays a piece with a die of its own on a part of an image, for a twin.
func (s *Stranger) Piece(image, name, words, on, paper string) {
	for i := range s.Kit.Sets {
		if set := &s.Kit.Sets[i]; set.ID == "set-"+image {
			set.Parts = append(set.Parts, kit.Part{ID: name, Label: name, Outline: outline(words), Rank: 9, Copies: 1, Fit: kit.FitFree, Host: on})
		}
	}
	for i := range s.Card.Motifs {
		m := &s.Card.Motifs[i]
		if m.ID != s.Find("image "+image) {
			continue
		}
		m.Layers = append(slices.Clone(m.Layers), card.Layer{ID: name, Part: name, Label: name, Make: card.Cut, Rank: 9, Fit: kit.FitFree, Copies: 1, On: s.Layer(image, on), Bonds: liquid})
		s.Do(card.Edit{Finish: &card.SetFinish{Motif: m.ID, Colourway: m.Colourways[0].ID, Layers: map[string]card.Finish{name: {Paper: paper, Impressions: 1}}}})
	}
}

// shaped lays a sheet cut to a drawn outline, its own frame's middle at a place.
func (s *Stranger) shaped(name, paper string, g shape.Region, x, y float64, bonds []card.Bond) string {
	b := g.Bounds()
	c := b.Centre()
	return s.sheet(name, paper, b.W(), b.H(), x+c.X, y+c.Y, bonds, s.cutWith(name, g))
}

// oval makes a sheet an oval of its measures.
func oval(sh *card.Sheet) { sh.Shape = &card.Outline{Kind: card.Oval} }

// part is a layer of an image as a trial tells it.
type part struct {
	name   string
	make   card.Make
	g      shape.Region
	ink    string
	paper  string
	stamp  string // it is on, where several share one
	after  bool   // cut out when it is printed
	bonds  []card.Bond
	host   string
	fit    kit.Fit
	copies int
	blends []card.Blend
}

// image adds an image from a set of its own, made of parts, lowest first.
func (s *Stranger) image(name string, x, y float64, bonds []card.Bond, parts ...part) string {
	set := kit.Set{ID: "set-" + name, Name: name, Kind: kit.StampSet}
	if !slices.ContainsFunc(parts, func(p part) bool { return p.make != card.Cut }) {
		set.Kind = kit.DieSet
	}
	for i, p := range parts {
		fit := p.fit
		if fit == "" {
			fit = kit.FitFree
		}
		set.Parts = append(set.Parts, kit.Part{ID: p.name, Label: p.name, Outline: p.g, Order: i + 1, Rank: i + 1, Copies: 1, Fit: fit, Host: p.host, Stamp: p.stamp})
	}
	s.Kit.Sets = append(s.Kit.Sets, set)
	s.Do(card.Edit{AddImage: &card.AddImage{Set: set.ID}})
	id := s.last(name)
	m := s.Card.Motifs[len(s.Card.Motifs)-1]
	s.made["image "+name] = m.ID
	layers := map[string]card.Finish{}
	for i, p := range parts {
		l := m.Layers[i]
		l.Make, l.After, l.Copies = p.make, p.after, max(1, p.copies)
		if p.bonds != nil {
			l.Bonds = p.bonds
		}
		s.Do(card.Edit{Layer: &card.SetLayer{Motif: m.ID, Layer: l}})
		f := card.Finish{Ink: p.ink, Impressions: 1, Blends: p.blends}
		if p.make == card.Cut {
			f.Paper = p.paper
		}
		layers[l.ID] = f
	}
	s.Do(card.Edit{Finish: &card.SetFinish{Motif: m.ID, Colourway: m.Colourways[0].ID, Layers: layers}}, card.Edit{School: &card.SetSchool{Motif: m.ID, School: card.LocalColour}})
	s.at(id, x, y, 0)
	s.Do(card.Edit{Hold: &card.Hold{Element: id, Bonds: bonds}})
	return id
}

// boxOf is the middle of an image's outlines in its own frame.
func (s *Stranger) middleOf(motif string) shape.Point {
	m, _ := s.Card.Motif(motif)
	set, _ := s.Kit.Set(m.Set)
	var all []shape.Region
	for _, p := range set.Parts {
		all = append(all, p.Outline)
	}
	return joined(all...).Bounds().Centre()
}

// at lays an image with the middle of its own frame at a place.
func (s *Stranger) at(id string, x, y, turn float64) {
	e, _ := s.Card.Element(id)
	if e.Image != nil {
		c := s.middleOf(e.Image.Motif)
		d := shape.Raw(shape.Ring{{X: c.X, Y: c.Y}}).Turn(turn, shape.Point{}).Rings()[0][0]
		x, y = x+d.X, y+d.Y
	}
	s.Do(card.Edit{Put: &card.Put{Element: id, X: &x, Y: &y, Turn: &turn}})
}

// another lays an image once more, in a colourway of its own where finishes are given.
func (s *Stranger) another(name, of string, x, y float64, bonds []card.Bond, finishes map[string]card.Finish) string {
	s.Do(card.Edit{Repeat: &card.Repeat{Element: s.Find(of)}})
	id := s.last(name)
	if finishes != nil {
		e, _ := s.Card.Element(id)
		m, _ := s.Card.Motif(e.Image.Motif)
		all := map[string]card.Finish{}
		for l, f := range m.Colourways[0].Layers {
			all[l] = f
		}
		for l, f := range finishes {
			if f.Paper == "" {
				f.Paper = all[l].Paper
			}
			all[l] = f
		}
		s.Do(card.Edit{AddColourways: &card.AddColourways{Motif: m.ID, Choices: []card.Choice{{Name: name, Layers: all}}}})
		m, _ = s.Card.Motif(m.ID)
		s.Do(card.Edit{Recolour: &card.Recolour{Elements: map[string]string{id: m.Colourways[len(m.Colourways)-1].ID}}})
	}
	s.at(id, x, y, 0)
	s.Do(card.Edit{Hold: &card.Hold{Element: id, Bonds: bonds}})
	return id
}

// treat does something to a sheet; an empty name is the base.
func (s *Stranger) treat(name string, as card.Did, t card.Treatment) {
	id := ""
	if name != "" {
		id = s.Find(name)
	}
	s.Do(card.Edit{Treat: &card.Treat{Element: id, Add: as}})
	at := len(s.Card.Base.Treatments) - 1
	if id != "" {
		e, _ := s.Card.Element(id)
		at = len(e.Sheet.Treatments) - 1
	}
	s.Do(card.Edit{Treat: &card.Treat{Element: id, At: at, Treatment: &t}})
}

// Bonds as the trials name them.
var (
	liquid = card.Glue("liquid")
	tape   = card.Glue("tape")
	foam1  = card.Foam("foam1", 1)
	foam2  = card.Foam("foam2", 1)
)

// stencil adds a stencil to the stores.
func (s *Stranger) stencil(id string, g shape.Region) {
	s.Kit.Sets = append(s.Kit.Sets, kit.Set{ID: id, Name: id, Kind: kit.StencilSet, Parts: []kit.Part{{ID: "all", Label: id, Outline: g, Rank: 1, Copies: 1, Fit: kit.FitFree}}})
}

// dots are round holes over w by h mm, pitch apart.
func dots(w, h, pitch, d float64) shape.Region {
	var all []shape.Region
	for y := -h/2 + pitch/2; y < h/2; y += pitch {
		for x := -w/2 + pitch/2; x < w/2; x += pitch {
			all = append(all, ellipse(d/2, d/2).Move(shape.Point{X: x, Y: y}))
		}
	}
	return joined(all...)
}

// ring lays n pieces round a middle.
func ring(n int, x, y, r float64) []card.Place {
	places, err := layout.Ring(n, shape.Point{X: x, Y: y}, r)
	if err != nil {
		panic(err)
	}
	return places
}

// Made is the id of what a trial calls by a name, where there is such a thing.
func (s *Stranger) Made(name string) (string, bool) {
	id, ok := s.made[name]
	return id, ok
}

// Reshape draws a part of an image of the trial otherwise, in words, for a twin.
func (s *Stranger) Reshape(image, part string, words string) {
	for i := range s.Kit.Sets {
		if s.Kit.Sets[i].ID != "set-"+image {
			continue
		}
		for j := range s.Kit.Sets[i].Parts {
			if p := &s.Kit.Sets[i].Parts[j]; p.ID == part {
				p.Outline = outline(words)
			}
		}
	}
}

// Layer is the id of a layer of an image by its id or what it is called.
func (s *Stranger) Layer(image, name string) string {
	m, _ := s.Card.Motif(s.Find("image " + image))
	for _, l := range m.Layers {
		if l.ID == name || l.Label == name {
			return l.ID
		}
	}
	return name
}

// region makes all of a piece that lies above or below a height of its own frame a colour region of
// its own, the rest masked.
func (s *Stranger) region(image, layer, name string, y float64, above bool) {
	line := []card.Offset{{X: -100, Y: y}, {X: 100, Y: y}}
	s.Do(card.Edit{Again: &card.Again{Motif: s.Find("image " + image), Layer: layer, Label: name, Region: &card.Region{By: card.Masked, Line: line, Other: above}}})
}

// Pitch prints an image's die so far from the next along a strip.
func (s *Stranger) Pitch(image, layer string, mm float64) {
	m, _ := s.Card.Motif(s.Find("image " + image))
	for _, l := range m.Layers {
		if l.ID == layer {
			l.Pitch = mm
			s.Do(card.Edit{Layer: &card.SetLayer{Motif: m.ID, Layer: l}})
		}
	}
}

// Make says how many of an image are made.
func (s *Stranger) Make(image string, n int) {
	s.Do(card.Edit{Wanted: &card.SetWanted{Motif: s.Find("image " + image), Made: &n}})
}

// Tones says how many tones are wanted in an image.
func (s *Stranger) Tones(image string, n int) {
	s.Do(card.Edit{Wanted: &card.SetWanted{Motif: s.Find("image " + image), Tones: &n}})
}

// Ink gives a layer of an image another ink in all its colourways; none leaves it bare.
func (s *Stranger) Ink(image, layer, ink string) {
	id := s.Find("image " + image)
	m, _ := s.Card.Motif(id)
	layer = s.Layer(image, layer)
	for _, w := range m.Colourways {
		f := w.Layers[layer]
		f.Ink, f.Blends = ink, nil
		s.Do(card.Edit{Finish: &card.SetFinish{Motif: id, Colourway: w.ID, Layers: map[string]card.Finish{layer: f}}})
	}
}

// Blend lays one more ink over a layer of an image in all its colourways, or takes all such off.
func (s *Stranger) Blend(image, layer string, blends ...card.Blend) {
	id := s.Find("image " + image)
	m, _ := s.Card.Motif(id)
	for _, w := range m.Colourways {
		f := w.Layers[layer]
		f.Blends = blends
		s.Do(card.Edit{Finish: &card.SetFinish{Motif: id, Colourway: w.ID, Layers: map[string]card.Finish{layer: f}}})
	}
}

// soak paints a layer of an image with so much water that its card is soaked.
func (s *Stranger) soak(image, layer string) {
	id := s.Find("image " + image)
	m, _ := s.Card.Motif(id)
	for _, w := range m.Colourways {
		f := w.Layers[layer]
		f.Soaked = true
		s.Do(card.Edit{Finish: &card.SetFinish{Motif: id, Colourway: w.ID, Layers: map[string]card.Finish{layer: f}}})
	}
}

// Resize makes a sheet so large.
func (s *Stranger) Resize(name string, w, h float64) {
	id := s.Find(name)
	e, _ := s.Card.Element(id)
	sheet := *e.Sheet
	sheet.W, sheet.H = w, h
	s.Do(card.Edit{Sheet: &card.SetSheet{Element: id, Sheet: &sheet}})
}

// Treat changes the nth treatment of a sheet.
func (s *Stranger) Treat(name string, at int, change func(*card.Treatment)) {
	id := s.Find(name)
	e, _ := s.Card.Element(id)
	t := e.Sheet.Treatments[at]
	change(&t)
	s.Do(card.Edit{Treat: &card.Treat{Element: id, At: at, Treatment: &t}})
}

// Drop takes a treatment of a sheet away.
func (s *Stranger) Drop(name string, at int) {
	s.Do(card.Edit{Treat: &card.Treat{Element: s.Find(name), At: at, Drop: true}})
}

// Off takes a thing off the card.
func (s *Stranger) Off(name string) { s.Do(card.Edit{Remove: &card.Remove{Element: s.Find(name)}}) }

// Hold holds a thing otherwise.
func (s *Stranger) Hold(name string, bonds []card.Bond) {
	s.Do(card.Edit{Hold: &card.Hold{Element: s.Find(name), Bonds: bonds}})
}

// Lay lays a thing elsewhere, an image by the middle of its own frame.
func (s *Stranger) Lay(name string, x, y, turn float64) { s.at(s.Find(name), x, y, turn) }

// CutAfter says of a layer whether it is cut round what was printed before.
func (s *Stranger) CutAfter(image, layer string, after bool) {
	m, _ := s.Card.Motif(s.Find("image " + image))
	for _, l := range m.Layers {
		if l.ID == layer {
			l.After = after
			s.Do(card.Edit{Layer: &card.SetLayer{Motif: m.ID, Layer: l}})
		}
	}
}

// gems puts a sort of gem into the stores, so many of it, and takes it for an element.
func (s *Stranger) gems(element, id, name, rgb string, size, high float64, left int) {
	s.Kit.Gems = append(s.Kit.Gems, kit.Gem{ID: id, Name: name, Size: size, Height: high, Colour: rgb, Left: &left})
	s.Do(card.Edit{Gems: &card.SetGems{Element: element, Gem: &id}})
}

// GemsLeft says how many of a sort of gem are left.
func (s *Stranger) GemsLeft(id string, left int) {
	for i := range s.Kit.Gems {
		if s.Kit.Gems[i].ID == id {
			s.Kit.Gems[i].Left = &left
		}
	}
}
