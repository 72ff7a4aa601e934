package card

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/kit"
)

// Limits of a card.
const (
	MaxElements   = 400
	MaxLayers     = 200
	MaxMats       = 24
	MaxMotifs     = 60
	MaxColourways = 60     // of an image
	MaxPlaced     = 600    // layers of all images as placed, each as often as it is placed
	MaxAsides     = 2000   // notes set aside
	MaxOrder      = 40_000 // steps in the person's own order
)

// outOfReach is said of a place no hand would lay a thing at.
const outOfReach = "the place is out of reach of the "

// checker collects what is wrong with a card, each with the path of its field.
type checker struct {
	errs []error
	ids  map[string]string // by id: where it was met
}

func (k *checker) bad(is bool, path, what string) {
	if is {
		k.errs = append(k.errs, kit.Problem{Path: path, What: what})
	}
}

func (k *checker) once(id, path string) {
	was, dup := k.ids[id]
	k.bad(dup || id == "", path+".id", fmt.Sprintf("id %q is missing or used twice (%s)", id, was))
	k.ids[id] = path
}

// Validate checks the document by itself, without the kit. It returns every
// problem found, each a kit.Problem with the path of its field.
func (c Card) Validate() error {
	k := checker{ids: map[string]string{}}
	k.bad(c.Version > Version, "version", fmt.Sprintf("this card was made by a newer Ochrestone (document version %d; this one reads up to %d)", c.Version, Version))
	k.bad(c.Title == "", "title", "give the card a name")
	k.bad(!sane(c.Base.W, 20, 400) || !sane(c.Base.H, 20, 400), "base.w", "a card is 20 to 400 mm each way")
	c.Base.check(&k, c)
	k.bad(c.Light != "" && c.Light != LeftSide && c.Light != RightSide, "light", "light comes from the left or from the right")
	k.bad(c.Copies < 0 || c.Copies > MaxCopies, "copies", tooMany(c.Copies))
	k.lots(c.Lots)
	k.locks(c.Locks)
	k.bad(len(c.Motifs) > MaxMotifs, "motifs", fmt.Sprintf("at most %d images", MaxMotifs))
	k.bad(len(c.SetAside) > MaxAsides, "setAside", fmt.Sprintf("at most %d notes set aside", MaxAsides))
	k.bad(len(c.Order) > MaxOrder, "order", "too many steps in the order of work")
	k.bad(len(c.Elements) > MaxElements, "elements", fmt.Sprintf("at most %d elements", MaxElements))
	placed := 0
	for _, e := range c.Elements {
		if e.Image != nil {
			m, _ := c.Motif(e.Image.Motif)
			placed += len(m.Layers)
		}
	}
	k.bad(placed > MaxPlaced && len(c.Elements) <= MaxElements, "elements", fmt.Sprintf("the images placed have %d layers in all; at most %d can be planned at once", placed, MaxPlaced))
	k.bad(len(c.Mats()) > MaxMats, "elements", fmt.Sprintf("at most %d mats and panels", MaxMats))
	var mat *MatError
	if _, err := c.Nest(); errors.As(err, &mat) {
		k.bad(true, fmt.Sprintf("elements[%d].inset", slices.IndexFunc(c.Elements, func(e Element) bool { return e.ID == mat.ID })), mat.Error())
	}
	for i, m := range c.Motifs {
		k.motif(m, fmt.Sprintf("motifs[%d]", i))
	}
	for i, e := range c.Elements {
		k.element(c, i, fmt.Sprintf("elements[%d]", i), e)
	}
	return errors.Join(k.errs...)
}

func (k *checker) motif(m Motif, at string) {
	k.once(m.ID, at)
	k.bad(len(m.Layers) > MaxLayers, at+".layers", fmt.Sprintf("at most %d layers", MaxLayers))
	k.bad(len(m.Colourways) > MaxColourways, at+".colourways", fmt.Sprintf("at most %d colourways", MaxColourways))
	layers := map[string]bool{}
	for j, l := range m.Layers {
		k.bad(l.ID == "" || layers[l.ID], fmt.Sprintf("%s.layers[%d].id", at, j), "every layer has an id of its own")
		layers[l.ID] = true
		k.again(fmt.Sprintf("%s.layers[%d]", at, j), l)
		k.bonds(fmt.Sprintf("%s.layers[%d]", at, j), l.Bonds)
		if f := l.Forgive; f != nil {
			k.bad(!sane(f.Spill, 0, 5) || !sane(f.RimShare, 0.05, 1) || !sane(f.Gap, 0, 5) || !sane(f.Overlap, 0, 5), fmt.Sprintf("%s.layers[%d].forgive", at, j), "limits are 0 to 5 mm, and a share of the rim from 0.05 to 1")
		}
	}
	ways := map[string]bool{}
	for j, w := range m.Colourways {
		k.bad(w.ID == "" || ways[w.ID], fmt.Sprintf("%s.colourways[%d].id", at, j), "every colourway has an id of its own")
		ways[w.ID] = true
		for id, f := range w.Layers {
			for n, bl := range f.Blends {
				k.bad(!slices.Contains(Zones, bl.Zone), fmt.Sprintf("%s.colourways[%d].layers.%s.blends[%d].zone", at, j, id, n), fmt.Sprintf("%q is not a zone; take %v", bl.Zone, Zones))
			}
		}
	}
}

func (k *checker) element(c Card, i int, at string, e Element) {
	k.once(e.ID, at)
	k.bad(!sane(e.Place.X, -500, 1000) || !sane(e.Place.Y, -500, 1000), at+".place.x", outOfReach+"card")
	k.bad(!sane(e.Place.Turn, -3600, 3600), at+".place.turn", "a turn is given in degrees")
	k.bad(!slices.Contains(Faces, e.Face), at+".face", fmt.Sprintf("%q is not a face of a card; take %v", e.Face, Faces))
	if e.On != "" {
		at0 := slices.IndexFunc(c.Elements[:min(i, len(c.Elements))], func(o Element) bool { return o.ID == e.On })
		k.bad(at0 < 0, at+".on", "lies on something that does not come before it on this card")
	}
	if m := e.Inset; m != nil {
		k.bad(!sane(m.Left, 0, 150) || !sane(m.Right, 0, 150) || !sane(m.Top, 0, 150) || !sane(m.Bottom, 0, 150), at+".inset", "a border is 0 to 150 mm")
		k.bad(e.Sheet == nil, at+".inset", "only a sheet is laid by its borders")
	}
	k.bonds(at, e.Bonds)
	k.snips(at, e.Snips)
	k.meant(c, e, at)
	if e.Level != "" {
		_, ok := c.Element(e.Level)
		k.bad(!ok || e.Level == e.ID, at+".level", "is to be level with something that is not on this card")
	}
	for j, t := range e.Tucks {
		_, ok := c.Element(t.With)
		k.bad(!ok, fmt.Sprintf("%s.tucks[%d].with", at, j), "crosses something that is not on this card")
		k.bad(t.With == e.ID, fmt.Sprintf("%s.tucks[%d].with", at, j), "nothing can be tucked beneath itself: name another thing")
	}
	kinds := e.kinds()
	k.bad(len(kinds) > 1, at, "is two kinds of thing at once")
	k.bad(len(kinds) == 0 && len(e.extra) == 0, at+".sheet", "an element is a sheet, an image or another thing that this version knows")
	for _, kind := range kinds {
		kind.check(k, c, e, at)
	}
}

func (i *Image) check(k *checker, c Card, _ Element, at string) {
	k.names(c, at+".image", i.Motif, i.Colourway)
	k.bad(i.Cutout != nil && !sane(i.Cutout.Margin, 0, 20), at+".image.cutout.margin", "the margin of a cut-out is 0 to 20 mm")
}

// names checks that a motif and its colourways are on the card.
func (k *checker) names(c Card, at, motif string, colourways ...string) {
	m, ok := c.Motif(motif)
	k.bad(!ok, at+".motif", "names an image that is not on this card")
	for _, w := range colourways {
		_, has := m.Colourway(w)
		k.bad(ok && !has, at+".colourway", fmt.Sprintf("names a colourway %q that the image does not have", w))
	}
}

func sane(v, lo, hi float64) bool { return !math.IsNaN(v) && v >= lo && v <= hi }
