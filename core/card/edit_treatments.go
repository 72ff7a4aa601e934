package card

import (
	"fmt"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Did is what a person calls a treatment.
type Did string

// Treatments as a person calls them, by the names of their fields.
const (
	DidWords   Did = "words"
	DidPrint   Did = "print"
	DidTurned  Did = "turned"
	DidFade    Did = "fade"
	DidBands   Did = "bands"
	DidStencil Did = "stencil"
	DidSplash  Did = "splash"
	DidStroke  Did = "stroke"
	DidPressed Did = "pressed"
	DidEdged   Did = "edged"
	DidGlaze   Did = "glaze"
)

// Treat changes what is done to a sheet: it adds a treatment as it usually starts, changes
// one, moves one up or down, or takes one away.
type Treat struct {
	Element   string     `json:"element" doc:"a sheet; empty: the card base itself"`
	Add       Did        `json:"add,omitempty" enum:"words,print,turned,fade,bands,stencil,splash,stroke,pressed,edged,glaze"`
	Motif     string     `json:"motif,omitempty" doc:"for a print: of this image; none: the first that can be printed"`
	At        int        `json:"at,omitempty" minimum:"0" doc:"which of the sheet's treatments, from 0"`
	Treatment *Treatment `json:"treatment,omitempty" doc:"the whole of it"`
	Drop      bool       `json:"drop,omitempty"`
	By        int        `json:"by,omitempty" minimum:"-1" maximum:"1" doc:"1 later, -1 earlier"`
}

func (e *Treat) apply(c *Card, k kit.Kit) error {
	base := c.Base.Sheet()
	el := &Element{Sheet: &base}
	if e.Element != "" {
		var err error
		if el, err = c.element(e.Element); err != nil {
			return err
		}
		if el.Sheet == nil {
			return kit.Problem{Path: "treat.element", What: fmt.Sprintf("%q is no sheet", e.Element)}
		}
	} else {
		defer func() { c.Base.Treatments = el.Sheet.Treatments }()
	}
	s := *el.Sheet
	s.Treatments = slices.Clone(s.Treatments)
	el.Sheet = &s
	if e.Add != "" {
		t, err := c.usual(*el, e.Add, e.Motif, k)
		if err != nil {
			return err
		}
		s.Treatments = append(s.Treatments, t)
		return nil
	}
	if e.At < 0 || e.At >= len(s.Treatments) {
		return fmt.Errorf("treatment %d of %s %w", e.At+1, e.Element, ErrGone)
	}
	switch to := e.At + e.By; {
	case e.Drop:
		s.Treatments = slices.Delete(s.Treatments, e.At, e.At+1)
	case e.Treatment != nil:
		t := *e.Treatment
		t.extra = s.Treatments[e.At].extra
		s.Treatments[e.At] = t
	case e.By != 0 && to >= 0 && to < len(s.Treatments):
		s.Treatments[e.At], s.Treatments[to] = s.Treatments[to], s.Treatments[e.At]
	}
	return nil
}

// How treatments start: our own defaults, mm.
const (
	usualLetter = 5.0
	usualEdge   = measure.Inch / 8
	usualDrops  = 24
	usualDrop   = 1.4
	usualStroke = 8.0
	usualReach  = 0.6 // of the shorter side
)

// usual is a treatment as it starts on a sheet.
func (c *Card) usual(e Element, as Did, motif string, k kit.Kit) (t Treatment, err error) {
	w, h := c.sizeOf(e)
	ink := inkFor(k)
	switch as {
	case DidWords:
		t.Words = &Words{Text: "thank you", Ink: darkest(k), Letter: min(usualLetter, h/2)}
	case DidFade:
		t.Fade = &Fade{From: FromFoot, Inks: []string{ink}, Reach: max(1, usualReach*min(w, h))}
	case DidBands:
		n := 3
		b := &Bands{}
		for i := range n {
			b.Bands = append(b.Bands, Band{Ink: ladder(ink, k, i), W: h / float64(n)})
		}
		t.Bands = b
	case DidSplash:
		t.Splash = &Splash{Ink: ink, Drops: usualDrops, Size: usualDrop}
	case DidStroke:
		t.Stroke = &Stroke{Ink: ink, W: min(usualStroke, h/2), Points: []Offset{{X: -w / 3}, {X: w / 3}}}
	case DidPressed:
		t.Pressed = &Pressed{Relief: Ribs}
	case DidEdged:
		t.Edged = &Edged{Ink: ink, W: usualEdge}
	case DidGlaze:
		t.Glaze = &Glaze{Kind: Gloss}
	case DidStencil:
		for _, s := range k.Sets {
			if s.Kind == kit.StencilSet && len(s.Parts) > 0 {
				t.Stencil = &Stencil{Set: s.ID, Part: s.Parts[0].ID, Ink: ink}
				return t, nil
			}
		}
		return t, kit.Problem{Path: "treat.add", What: "no stencil in the stores: bring one in, then lay it here"}
	case DidPrint, DidTurned:
		return c.printOf(e, as, motif)
	default:
		return t, kit.Problem{Path: "treat.add", What: fmt.Sprintf("%q is no treatment", as)}
	}
	return t, nil
}

// printOf starts a print of an image on a sheet: once in its middle, or in quarter turns.
func (c *Card) printOf(e Element, as Did, motif string) (t Treatment, err error) {
	i := slices.IndexFunc(c.Motifs, func(m Motif) bool {
		return (motif == "" || m.ID == motif) && slices.ContainsFunc(m.Layers, func(l Layer) bool { return l.Make != Cut })
	})
	if i < 0 || len(c.Motifs[i].Colourways) == 0 {
		return t, kit.Problem{Path: "treat.motif", What: "no image on this card is stamped or stencilled: add one from a set of stamps first"}
	}
	m := c.Motifs[i]
	if as == DidPrint {
		t.Print = &Print{Motif: m.ID, Colourways: []string{m.Colourways[0].ID}}
		return t, nil
	}
	var ways []string
	for _, w := range m.Colourways[:min(4, len(m.Colourways))] {
		ways = append(ways, w.ID)
	}
	w, h := c.sizeOf(e)
	t.Turned = &Turned{Motif: m.ID, Colourways: ways, Turns: 4, Start: 1, X: -w / 4, Y: -h / 4}
	return t, nil
}

// sizeOf is how large a sheet is, laid by its margins or by its own measures.
func (c *Card) sizeOf(e Element) (w, h float64) {
	if e.Inset == nil {
		return e.Sheet.W, e.Sheet.H
	}
	leaves, err := c.Nest()
	if err == nil {
		for _, l := range leaves {
			if l.ID == e.ID {
				return l.Size.W, l.Size.H
			}
		}
	}
	return c.Base.W, c.Base.H
}

// inkFor is the ink a treatment starts with: of those with a hue the one owned that comes
// nearest to a soft lightness, else of all.
func inkFor(k kit.Kit) string {
	best, far := "", 1e9
	for _, i := range k.Inks {
		l, ok := i.Lightness()
		c, err := colour.ParseHex(i.Dry)
		if !ok || i.Gone || i.Kind == kit.Embossing || err != nil {
			continue
		}
		d := max(l-softInk, softInk-l)
		if c.Lab().Chroma() < someHue {
			d += 100
		}
		if d < far {
			best, far = i.ID, d
		}
	}
	return best
}

// someHue is the chroma from which an ink is no grey: our own default.
const someHue = 12.0

// softInk is the lightness, L*, of an ink that backgrounds start with: our own default.
const softInk = 78.0

// ladder is the nth darker ink of the same family, or the ink itself.
func ladder(ink string, k kit.Kit, n int) string {
	i := slices.IndexFunc(k.Inks, func(x kit.Ink) bool { return x.ID == ink })
	if i < 0 {
		return ink
	}
	var family []kit.Ink
	for _, x := range k.Inks {
		if x.Family == k.Inks[i].Family && !x.Gone {
			family = append(family, x)
		}
	}
	slices.SortStableFunc(family, func(a, b kit.Ink) int {
		la, _ := a.Lightness()
		lb, _ := b.Lightness()
		switch {
		case la > lb:
			return -1
		case la < lb:
			return 1
		}
		return 0
	})
	return family[min(n, len(family)-1)].ID
}

// AddOpening cuts an opening into a sheet: of a shape, or of letters.
type AddOpening struct {
	Element string   `json:"element"`
	Kind    Outlined `json:"kind,omitempty" enum:"rectangle,oval,arch,scalloped,wavy,fishtail,notched,pointed,slanted,tag,fringe,die part" doc:"none with a text"`
	Text    string   `json:"text,omitempty" maxLength:"40"`
	Set     string   `json:"set,omitempty" doc:"of a die part"`
	Part    string   `json:"part,omitempty"`
}

// openingShare is how much of a sheet an opening starts as, each way: our own default.
const openingShare = 0.5

func (e *AddOpening) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Sheet == nil {
		return kit.Problem{Path: "addOpening.element", What: fmt.Sprintf("%q is no sheet", e.Element)}
	}
	w, h := c.sizeOf(*el)
	s := *el.Sheet
	o := Opening{Outline: Outline{Kind: e.Kind, Set: e.Set, Part: e.Part}, W: openingShare * w, H: openingShare * h}
	if e.Text != "" {
		o = Opening{Text: e.Text, H: min(h/2, 1.4*w/float64(max(1, len([]rune(e.Text))))), Islands: true}
	}
	s.Openings = append(slices.Clone(s.Openings), o)
	el.Sheet = &s
	return nil
}
