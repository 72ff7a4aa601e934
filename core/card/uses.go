package card

import "ochrestone/core/kit"

// Use is something of the stores that a card names, and where.
type Use struct {
	Kind kit.Kind // what it is of
	ID   string
	// Where it is named: an element, or a layer of an image in a colourway; the base by neither.
	Element, Motif, Colourway, Layer string
}

// Key names it for maps and lists: its kind and id, a slash between.
func (u Use) Key() string { return string(u.Kind) + "/" + u.ID }

// Uses lists what of the stores a card names, in the order of the document, each as often as it is
// named. What an item names itself, such as the paper an ink was swatched on, is not with it.
func (c Card) Uses() []Use {
	u := users{}
	u.add(kit.KindPaper, c.Base.Paper)
	u.add(kit.KindEnvelope, c.Base.Envelope)
	if c.Base.Leaf != nil {
		u.add(kit.KindSet, c.Base.Leaf.Set)
	}
	u.treatments(c.Base.Treatments)
	for _, m := range c.Motifs {
		u.at = Use{Motif: m.ID}
		u.add(kit.KindSet, m.Set)
		for _, l := range m.Layers {
			u.at = Use{Motif: m.ID, Layer: l.ID}
			u.bonds(l.Bonds)
		}
		for _, w := range m.Colourways {
			for _, l := range m.Layers {
				f := w.Layers[l.ID]
				u.at = Use{Motif: m.ID, Colourway: w.ID, Layer: l.ID}
				if l.Make == Cut {
					u.add(kit.KindPaper, f.Paper)
				}
				u.add(kit.KindInk, f.Ink, f.Edge, f.Back)
				for _, b := range f.Blends {
					u.add(kit.KindInk, b.Ink)
				}
			}
		}
	}
	for _, e := range c.Elements {
		u.at = Use{Element: e.ID}
		u.bonds(e.Bonds)
		if s := e.Sheet; s != nil {
			u.add(kit.KindPaper, s.Paper)
			u.outline(s.Shape)
			u.openings(s.Openings)
			u.treatments(s.Treatments)
		}
		if i := e.Image; i != nil && i.Cutout != nil {
			u.add(kit.KindPaper, i.Cutout.Paper)
		}
		if g := e.Gems; g != nil {
			u.add(kit.KindGem, g.Gem)
		}
		if l := e.Letters; l != nil {
			u.add(kit.KindPaper, l.Paper)
			u.add(kit.KindSet, l.Set)
			if l.Shadow != nil {
				u.add(kit.KindPaper, l.Shadow.Paper)
			}
			// A sheet of foam, or of adhesive: the stores know which.
			u.add(kit.KindSpacer, l.Backing)
			u.add(kit.KindAdhesive, l.Backing)
		}
		if s := e.Shaker; s != nil {
			u.add(kit.KindPaper, s.Paper, s.Film, s.Backing)
			u.add(kit.KindSpacer, s.Wall)
			u.outline(s.Shape)
			u.openings(s.Openings)
		}
	}
	return u.all
}

// users collects uses at a place.
type users struct {
	at  Use
	all []Use
}

func (u *users) add(kind kit.Kind, ids ...string) {
	for _, id := range ids {
		if id != "" {
			one := u.at
			one.Kind, one.ID = kind, id
			u.all = append(u.all, one)
		}
	}
}

func (u *users) outline(o *Outline) {
	if o != nil {
		u.add(kit.KindSet, o.Set)
	}
}

func (u *users) openings(all []Opening) {
	for _, o := range all {
		u.add(kit.KindSet, o.Set)
	}
}

func (u *users) bonds(all []Bond) {
	for _, b := range all {
		u.add(kit.KindAdhesive, b.Adhesive)
		u.add(kit.KindSpacer, b.Spacer)
		for _, s := range b.Shims {
			u.add(kit.KindSpacer, s.Spacer)
			u.add(kit.KindPaper, s.Paper)
		}
	}
}

func (u *users) treatments(all []Treatment) {
	for _, t := range all {
		u.add(kit.KindInk, t.Inks()...)
		if t.Stencil != nil {
			u.add(kit.KindSet, t.Stencil.Set)
		}
		if t.Pressed != nil {
			u.add(kit.KindSet, t.Pressed.Set)
		}
	}
}
