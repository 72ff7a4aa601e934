package card

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Move shifts an element, and turns it, by so much.
type Move struct {
	Element string  `json:"element"`
	DX      float64 `json:"dx,omitempty" doc:"to the right, mm"`
	DY      float64 `json:"dy,omitempty" doc:"down, mm"`
	Turn    float64 `json:"turn,omitempty" doc:"clockwise, degrees"`
}

func (e *Move) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	el.Place.X, el.Place.Y, el.Place.Turn = el.Place.X+e.DX, el.Place.Y+e.DY, math.Remainder(el.Place.Turn+e.Turn, 360)
	return nil
}

// Put lays an element at a place; what is not given stays.
type Put struct {
	Element string   `json:"element"`
	X       *float64 `json:"x,omitempty" doc:"centre from the left edge, mm"`
	Y       *float64 `json:"y,omitempty" doc:"centre from the top edge, mm"`
	Turn    *float64 `json:"turn,omitempty" doc:"clockwise, degrees"`
	Mirror  *bool    `json:"mirror,omitempty" doc:"left for right"`
}

func (e *Put) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	for _, v := range []struct{ from, to *float64 }{{e.X, &el.Place.X}, {e.Y, &el.Place.Y}, {e.Turn, &el.Place.Turn}} {
		if v.from != nil {
			*v.to = *v.from
		}
	}
	if e.Mirror != nil {
		el.Place.Mirror = *e.Mirror
	}
	return nil
}

// Hold says what holds an element, or a layer of an image, to what is beneath.
type Hold struct {
	Element string `json:"element,omitempty"`
	Motif   string `json:"motif,omitempty" doc:"for a layer"`
	Layer   string `json:"layer,omitempty"`
	Bonds   []Bond `json:"bonds" nullable:"false" maxItems:"6" doc:"none: laid loose"`
}

func (e *Hold) apply(c *Card, _ kit.Kit) error {
	if e.Element != "" {
		el, err := c.element(e.Element)
		if err != nil {
			return err
		}
		el.Bonds = slices.Clone(e.Bonds)
		return nil
	}
	l, err := c.layer(e.Motif, e.Layer)
	if err != nil {
		return err
	}
	l.Bonds = slices.Clone(e.Bonds)
	return nil
}

// Remove takes an element off the card; what lay on it lies on what carried it.
type Remove struct {
	Element string `json:"element"`
}

func (e *Remove) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	on := el.On
	c.Elements = slices.DeleteFunc(c.Elements, func(o Element) bool { return o.ID == e.Element })
	if c.Lamp == e.Element {
		c.Lamp = ""
	}
	for i := range c.Elements {
		if by := c.Elements[i].Carried; by != nil && *by == e.Element {
			c.Elements[i].Carried = nil
		}
		if c.Elements[i].On == e.Element {
			c.Elements[i].On = on
		}
		if c.Elements[i].Level == e.Element {
			c.Elements[i].Level = ""
		}
		if meant := c.Elements[i].Meant; len(meant) > 0 {
			c.Elements[i].Meant = slices.DeleteFunc(slices.Clone(meant), func(m Meant) bool { return m.With == e.Element })
		}
		if tucks := c.Elements[i].Tucks; len(tucks) > 0 {
			c.Elements[i].Tucks = slices.DeleteFunc(slices.Clone(tucks), func(t Tuck) bool { return t.With == e.Element })
		}
	}
	return nil
}

// besides is how far, mm, a repeated element is laid beside the first, across and down.
const besides = 8.0

// Repeat lays another of an element a little beside it, clear of those laid so before.
type Repeat struct {
	Element string `json:"element"`
}

func (e *Repeat) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	again := *el
	again.ID, again.Meant = c.fresh("e"), nil // what is meant of the one is not said of the other
	taken := func(o Element) bool {
		return o.Face == again.Face && math.Hypot(o.Place.X-again.Place.X, o.Place.Y-again.Place.Y) < besides/2
	}
	for range c.Elements {
		again.Place.X, again.Place.Y = again.Place.X+besides, again.Place.Y+besides
		if !slices.ContainsFunc(c.Elements, taken) {
			break
		}
	}
	c.Elements = append(c.Elements, again)
	return nil
}

// mostLaid is how many places one edit lays an element in.
const mostLaid = 120

// Lay lays an element in the first of places and another of it in each of the others, in
// one change; images take turns in the colourways given, if any are.
type Lay struct {
	Element    string   `json:"element"`
	Places     []Place  `json:"places" nullable:"false" minItems:"1" maxItems:"120"`
	Colourways []string `json:"colourways,omitempty" maxItems:"120" doc:"of the image, in turn; none: all as it is"`
}

func (e *Lay) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	switch {
	case err != nil:
		return err
	case len(e.Places) == 0 || len(e.Places) > mostLaid:
		return fmt.Errorf("lay %s: 1 to %d places are laid at once", e.Element, mostLaid)
	}
	first := *el
	for i, p := range e.Places {
		one := first
		one.Place = p
		if n := len(e.Colourways); n > 0 && one.Image != nil {
			image := *one.Image
			image.Colourway = e.Colourways[i%n]
			one.Image = &image
		}
		if i == 0 {
			*el = one
			continue
		}
		one.ID, one.Meant = c.fresh("e"), nil // what is meant of the one is not said of the others
		c.Elements = append(c.Elements, one)
	}
	return nil
}

// Shift moves an element up or down the pile, past the one next to it on its face, with all
// that it carries; mats stay where they are, and nothing goes beneath what carries it. Where it
// is the highest or the lowest there already it stays; where something else holds it there the
// error says what.
type Shift struct {
	Element string `json:"element"`
	By      int    `json:"by" minimum:"-1" maximum:"1" doc:"1 up, -1 down"`
}

func (e *Shift) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Inset != nil {
		return kit.Problem{Path: "shift.element", What: "mats and the panel lie as they are nested: change their order by their borders"}
	}
	if e.By == 0 {
		return nil
	}
	// Rows of the pile: what lies on the same leaf, each with all that it carries.
	mine := c.carried(e.Element)
	beside := func(o Element) bool { return o.Face == el.Face && o.On == el.On && o.Inset == nil && o.ID != e.Element }
	at := slices.IndexFunc(c.Elements, func(o Element) bool { return o.ID == e.Element })
	past := -1
	for i := at + e.By; i >= 0 && i < len(c.Elements); i += e.By {
		if beside(c.Elements[i]) {
			past = i
			break
		}
	}
	if past < 0 {
		return nil
	}
	other := c.carried(c.Elements[past].ID)
	var moved, rest []Element
	for _, o := range c.Elements {
		if mine[o.ID] {
			moved = append(moved, o)
		} else {
			rest = append(rest, o)
		}
	}
	to := -1
	for i, o := range rest {
		if other[o.ID] {
			if e.By < 0 {
				to = i
				break
			}
			to = i + 1
		}
	}
	c.Elements = slices.Concat(rest[:to], moved, rest[to:])
	return nil
}

// carried are an element and all that lies on it, and on that.
func (c *Card) carried(id string) map[string]bool {
	out := map[string]bool{id: true}
	for grown := true; grown; {
		grown = false
		for _, o := range c.Elements {
			if o.On != "" && out[o.On] && !out[o.ID] {
				out[o.ID], grown = true, true
			}
		}
	}
	return out
}

// SetFace lays an element on another face of the card, or beside it, with all that lies on it;
// on the front it lies on the panel.
type SetFace struct {
	Element string `json:"element"`
	Face    Face   `json:"face" enum:"front,inside left,inside right,envelope,beside"`
}

func (e *SetFace) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	c.turnTo(e.Face, e.Element)
	if el.Face == Front {
		on, _ := c.Panel()
		// What carries it has to come before it.
		if slices.IndexFunc(c.Elements, func(o Element) bool { return o.ID == on }) < slices.IndexFunc(c.Elements, func(o Element) bool { return o.ID == e.Element }) {
			el.On = on
		}
	}
	return nil
}

// turnTo lays an element on a face by itself, and with it all that lies on it.
func (c *Card) turnTo(face Face, id string) {
	with := c.carried(id)
	for i := range c.Elements {
		o := &c.Elements[i]
		if !with[o.ID] {
			continue
		}
		if o.ID == id {
			o.On = ""
		}
		o.Face = face
	}
}

// SetSheet changes a sheet: what it is, and by which margins it is laid.
type SetSheet struct {
	Element string   `json:"element"`
	Name    *string  `json:"name,omitempty" maxLength:"80"`
	Face    *Face    `json:"face,omitempty" enum:"front,inside left,inside right,envelope,beside"`
	Sheet   *Sheet   `json:"sheet,omitempty" doc:"the whole of it"`
	Inset   *Margins `json:"inset,omitempty"`
}

func (e *SetSheet) apply(c *Card, k kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Sheet == nil {
		return kit.Problem{Path: "sheet.element", What: fmt.Sprintf("%q is no sheet", e.Element)}
	}
	if e.Name != nil {
		el.Name = *e.Name
	}
	if e.Face != nil {
		c.turnTo(*e.Face, e.Element)
		if el.Face == Front {
			el.On, _ = c.Panel()
		}
	}
	if e.Sheet != nil {
		s := *e.Sheet
		s.extra, s.Treatments, s.Openings = el.Sheet.extra, slices.Clone(s.Treatments), slices.Clone(s.Openings)
		// A sheet cut with a die is as large as the die.
		if o := s.Shape; o != nil && o.Kind == DiePart && el.Inset == nil {
			if set, ok := k.Set(o.Set); ok {
				if p, ok := set.Part(o.Part); ok && (el.Sheet.Shape == nil || *diePart(el.Sheet.Shape) != *diePart(o)) {
					b := p.Outline.Bounds()
					s.W, s.H = b.W(), b.H()
				} else if p, ok := sized(set, s.W, s.H); ok && s.Size() != el.Sheet.Size() {
					// Another size is another die of its set, where there is one.
					other := *o
					other.Part, s.Shape = p.ID, &other
				}
			}
		}
		el.Sheet = &s
	}
	if e.Inset != nil {
		m := *e.Inset
		el.Inset = &m
	}
	return nil
}

// sized is the part of a set that is so large, mm; one that is not lost where there are several.
func sized(set kit.Set, w, h float64) (found kit.Part, ok bool) {
	for _, p := range set.Parts {
		if p.Cuts(w, h) && (!ok || found.Missing && !p.Missing) {
			found, ok = p, true
		}
	}
	return found, ok
}

// diePart is the die of an outline.
func diePart(o *Outline) *[2]string { return &[2]string{o.Set, o.Part} }

// AddImage puts an image made from all parts of a set in the middle of the front.
type AddImage struct {
	Set string `json:"set" doc:"set id"`
}

func (e *AddImage) apply(c *Card, k kit.Kit) error {
	s, ok := k.Set(e.Set)
	if !ok {
		return fmt.Errorf("set %q is not in the stores: %w", e.Set, ErrGone)
	}
	*c = c.AddSet(s, k)
	return nil
}

// How a strip of words starts: 2 by 1/2 in, a little above the foot of the card; our
// own defaults.
const (
	stripW, stripH = 2 * measure.Inch, measure.Inch / 2
	stripLetter    = 4.0
	stripAt        = 0.82 // of the height of the card
)

// AddStrip lays a strip of words on the panel, in the darkest ink owned on the first
// card owned.
type AddStrip struct {
	Text string `json:"text,omitempty" maxLength:"80" doc:"none: thank you"`
}

func (e *AddStrip) apply(c *Card, k kit.Kit) error {
	text := e.Text
	if text == "" {
		text = "thank you"
	}
	on, _ := c.Panel()
	c.Elements = append(c.Elements, Element{ID: c.fresh("s"), Face: Front, On: on, Place: Place{X: c.Base.W / 2, Y: c.Base.H * stripAt}, Bonds: Glue(firstGlue(k)),
		Sheet: &Sheet{Paper: firstCard(k, ""), W: stripW, H: stripH, Treatments: []Treatment{{Words: &Words{Text: text, Ink: darkest(k), Letter: stripLetter}}}}})
	return nil
}

// AddMat lays a mat under the panel, an eighth of an inch larger all round, on a card
// that the panel is not of.
type AddMat struct{}

func (e *AddMat) apply(c *Card, k kit.Kit) error {
	id, paper := c.Panel()
	mat := Element{ID: c.fresh("mat"), Face: Front, Inset: Even(measure.Inch / 8), Bonds: Glue(firstGlue(k)), Sheet: &Sheet{Paper: firstCard(k, paper)}}
	at := 0
	if i := slices.IndexFunc(c.Elements, func(o Element) bool { return o.ID == id }); i >= 0 {
		at, mat.On = i, c.Elements[i].On
		c.Elements[i].On = mat.ID
	}
	c.Elements = slices.Insert(c.Elements, at, mat)
	return nil
}

// How a turned pattern starts: the panel so many times as wide as the image, its middle
// a quarter of that from the panel's; trimmed 1/8 in. Our own defaults.
const (
	turnedWide  = 2.3
	turnedLeast = 60.0
	turnedTrim  = measure.Inch / 8
)

// AddTurned prints an image on a square sheet in quarter turns, beside the card.
type AddTurned struct {
	Motif string `json:"motif"`
}

func (e *AddTurned) apply(c *Card, k kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(m.Layers, func(l Layer) bool { return l.Make != Cut }) {
		return kit.Problem{Path: "addTurned.motif", What: "a pattern is printed: this image has no layer that is stamped or stencilled"}
	}
	size := 0.0
	if s, ok := k.Set(m.Set); ok {
		for _, p := range s.Parts {
			b := p.Outline.Bounds()
			size = max(size, b.W(), b.H())
		}
	}
	side := min(300, max(turnedLeast, math.Round(size*turnedWide)))
	var ways []string
	for _, w := range m.Colourways[:min(4, len(m.Colourways))] {
		ways = append(ways, w.ID)
	}
	_, paper := c.Panel()
	t := &Turned{Motif: m.ID, Colourways: ways, Turns: 4, Start: 1, X: -math.Round(side / 4), Y: -math.Round(side / 4)}
	c.Elements = append(c.Elements, Element{ID: c.fresh("t"), Name: m.Name + ", quarter turns", Face: Beside,
		Sheet: &Sheet{Paper: paper, W: side, H: side, Trim: turnedTrim, Treatments: []Treatment{{Turned: t}}}})
	return nil
}

func firstGlue(k kit.Kit) string {
	if len(k.Adhesives) > 0 {
		return k.Adhesives[0].ID
	}
	return ""
}

// firstCard is the first plain card owned that is not the one given.
func firstCard(k kit.Kit, but string) string {
	for _, p := range k.Papers {
		if p.Kind == kit.PaperCard && p.ID != but {
			return p.ID
		}
	}
	return ""
}

// darkest is the ink owned that dries darkest on plain white.
func darkest(k kit.Kit) string {
	best, least := "", 101.0
	for _, i := range k.Inks {
		if l, ok := i.Lightness(); ok && !i.Gone && i.Kind != kit.Embossing && l < least {
			best, least = i.ID, l
		}
	}
	return best
}
