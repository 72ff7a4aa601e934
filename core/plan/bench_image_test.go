package plan_test

import (
	"errors"
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// image does an act on the pieces and prints of an image.
func (t *table) image(a work.Act, m *build.Made) error {
	id := a.ID
	at := slices.IndexFunc(m.Image.Shapes.Views, func(v motif.View) bool { return v.Layer.ID == id.Part })
	of := func(i int) thing {
		return thing{motif: id.Motif, colourway: id.Colourway, part: m.Image.Shapes.Views[i].Layer.ID}
	}
	if id.Verb == work.Pop {
		for i, v := range m.Image.Shapes.Views {
			if v.Layer.Make != card.Cut || !waitsForInk(m, i) {
				continue
			}
			if !t.cut[of(i)] {
				return fmt.Errorf("%s is not cut yet", v.Layer.Label)
			}
			if err := t.dry(m, i); err != nil {
				return err
			}
			t.popped[of(i)] = true
		}
		return nil
	}
	if id.Verb == work.CutOut {
		for i, v := range m.Image.Shapes.Views {
			if v.Layer.Make == card.Cut || m.Colourway.Layers[v.Layer.ID].Ink == "" {
				continue
			}
			for _, n := range []thing{of(i)} {
				if !t.inked[n] || t.wet[n] {
					return fmt.Errorf("%s is not on it, or wet", v.Layer.Label)
				}
			}
		}
		t.popped[thing{motif: id.Motif, colourway: id.Colourway, part: "its card"}] = true
		return nil
	}
	v := m.Image.Shapes.Views[at]
	leaf := build.Leaf(m.Image.Shapes, at)
	switch id.Verb {
	case work.Cut:
		if v.Layer.After {
			if err := t.dry(m, at); err != nil {
				return err
			}
		}
		t.cut[of(at)] = true
		t.popped[of(at)] = !v.Layer.After && !waitsForInk(m, at)
	case work.Ink, work.Blend, work.Return, work.Edge, work.Back:
		if !v.Layer.After && !t.cut[of(at)] {
			return errors.New("the piece is not cut yet")
		}
		if t.popped[of(at)] {
			return errors.New("it is out of its sheet already, and slips under the brush")
		}
		return t.ink(a, m, at)
	case work.Print:
		if leaf != motif.Ground {
			if l := m.Image.Shapes.Views[leaf].Layer; !l.After && !t.cut[of(leaf)] || t.popped[of(leaf)] {
				return fmt.Errorf("%s is not in its sheet to be printed on", l.Label)
			}
		}
		return t.print(a, m, at, leaf)
	case work.Heat:
		if t.foamed {
			return errors.New("the heat tool warps the foam that is on already")
		}
		for l := range t.wet {
			if l.motif == id.Motif && l.colourway == id.Colourway && t.same(m, l.part, id.Part) && (l.element == id.Element || l.element == "") {
				t.wet[l] = false
			}
		}
	case work.Plies:
		if !t.popped[of(at)] {
			return errors.New("the plies are still in their sheets")
		}
		t.plied[of(at)] = true
	case work.Glue:
		return t.glue(m, at, leafBelow(m, at))
	case work.Mask:
		return t.mask(id.Element)
	}
	return nil
}

// waitsForInk reports whether anything is done to a piece that it stays in its sheet for.
func waitsForInk(m *build.Made, i int) bool {
	views := m.Image.Shapes.Views
	for j, v := range views {
		f := m.Colourway.Layers[v.Layer.ID]
		switch {
		case j != i && (v.Layer.Make == card.Cut || build.Leaf(m.Image.Shapes, j) != i):
		case f.Ink != "" || f.Edge != "" || f.Back != "" || len(f.Blends) > 0:
			return true
		}
	}
	return views[i].Layer.After
}

// leafBelow is the cut layer a piece is glued onto, or the ground.
func leafBelow(m *build.Made, i int) int {
	return build.Leaf(m.Image.Shapes, m.Image.Shapes.Views[i].Host)
}

// same tells whether two layers are printed at one stroke.
func (t *table) same(m *build.Made, a, b string) bool {
	if a == b {
		return true
	}
	var x, y motif.View
	for _, v := range m.Image.Shapes.Views {
		if v.Layer.ID == a {
			x = v
		}
		if v.Layer.ID == b {
			y = v
		}
	}
	return x.Part.Stamp != "" && x.Part.Stamp == y.Part.Stamp && m.Colourway.Layers[a].Ink == m.Colourway.Layers[b].Ink
}

// ink lays ink on a piece, a blend on the ink before it.
func (t *table) ink(a work.Act, m *build.Made, i int) error {
	l := thing{motif: a.ID.Motif, colourway: a.ID.Colourway, part: a.ID.Part}
	before := map[string]int{work.Ink: 0, work.Blend: a.ID.N, work.Return: 90, work.Edge: 91, work.Back: 92}[a.ID.Verb]
	for _, o := range t.acts {
		if o.ID.Motif != a.ID.Motif || o.ID.Colourway != a.ID.Colourway || o.ID.Part != a.ID.Part || o.ID == a.ID {
			continue
		}
		n, inking := map[string]int{work.Ink: 0, work.Blend: o.ID.N, work.Return: 90}[o.ID.Verb]
		if inking && n < before && !t.inked[thing{o.Key, "", "", ""}] {
			return fmt.Errorf("“%s” comes before the lighter “%s”", a.Title, o.Title)
		}
	}
	t.inked[thing{a.Key, "", "", ""}], t.inked[l] = true, true
	f := m.Colourway.Layers[m.Image.Shapes.Views[i].Layer.ID]
	t.wet[l] = t.wet[l] || t.hot(a.Ink) || t.hot(f.Ink)
	return nil
}

// print prints a layer, and what shares its stamp and ink.
func (t *table) print(a work.Act, m *build.Made, at, leaf int) error {
	id := a.ID
	key := func(i int, element string) thing {
		if build.Leaf(m.Image.Shapes, i) != motif.Ground {
			element = ""
		}
		return thing{element, id.Motif, id.Colourway, m.Image.Shapes.Views[i].Layer.ID}
	}
	// What lies beneath has to be there, and dry.
	for h := m.Image.Shapes.Views[at].Host; h != motif.Ground; h = m.Image.Shapes.Views[h].Host {
		host := m.Image.Shapes.Views[h]
		l := key(h, id.Element)
		if host.Layer.Make == card.Cut {
			l.element = ""
		}
		if f := m.Colourway.Layers[host.Layer.ID]; (f.Ink != "" || len(f.Blends) > 0) && !t.same(m, host.Layer.ID, id.Part) {
			if !t.inked[l] {
				return fmt.Errorf("%s is not on yet, and comes over it", host.Layer.Label)
			}
			if t.wet[l] {
				return fmt.Errorf("%s is wet", host.Layer.Label)
			}
		}
		if host.Layer.Make == card.Cut {
			break // what lies beneath that piece is another leaf
		}
	}
	// On a light ground lighter steps come first.
	if l := m.Image.Shapes.Views[at].Layer; m.Image.School == card.LightGround && !l.Accent {
		for i, o := range m.Image.Shapes.Views[:at] {
			if o.Layer.Make != card.Cut && !o.Layer.Accent && o.Layer.Rank < l.Rank && m.Colourway.Layers[o.Layer.ID].Ink != "" && !t.inked[key(i, id.Element)] && !t.same(m, o.Layer.ID, l.ID) {
				return fmt.Errorf("%s is darker and comes before the lighter %s", l.Label, o.Layer.Label)
			}
		}
	}
	if leaf == motif.Ground && id.N == 0 {
		for _, ti := range m.Things {
			th := t.b.Things[ti]
			if th.Element.Image.Cutout != nil {
				continue // on card of its own
			}
			if id.Element != "" && th.Element.ID != id.Element || id.Element == "" && t.has(card.Step{Verb: id.Verb, Element: th.Element.ID, Motif: id.Motif, Colourway: id.Colourway, Part: id.Part}) {
				continue
			}
			if err := t.onto(ti); err != nil {
				return err
			}
		}
	}
	for i, v := range m.Image.Shapes.Views {
		if v.Layer.Make == card.Cut || !t.same(m, v.Layer.ID, id.Part) {
			continue
		}
		if v.Layer.ID != id.Part && t.has(card.Step{Verb: id.Verb, Element: id.Element, Motif: id.Motif, Colourway: id.Colourway, Part: v.Layer.ID}) {
			continue // it is printed by itself
		}
		l := key(i, id.Element)
		f := m.Colourway.Layers[v.Layer.ID]
		inks := []string{f.Ink}
		for _, b := range f.Blends {
			inks = append(inks, b.Ink)
		}
		t.inked[l], t.wet[l] = true, t.hot(inks...)
	}
	return nil
}

// over reports whether two outlines lie over each other by more than a hair.
func over(a, b shape.Region) bool {
	if !a.Overlaps(b) {
		return false
	}
	in, err := a.Offset(-build.Hair)
	return err != nil || in.Overlaps(b)
}

// onto looks whether a printed thing can be printed on what carries it.
func (t *table) onto(i int) error {
	th := t.b.Things[i]
	on := t.b.Carrier(th.Element)
	switch {
	case !t.cut[thing{element: on.Element}]:
		return errors.New("what it is printed on is not cut yet")
	case t.touched[on.Element]:
		return errors.New("a stamp cannot come down flat beside what is put on already")
	case t.mounted[on.Element]:
		return errors.New("it is mounted already")
	}
	for j, o := range t.b.Things {
		if j == i || !o.Printed || !over(o.Outline, th.Outline) || o.Element.Face != card.Front {
			continue
		}
		if j > i && !t.masked[o.Element.ID] {
			return fmt.Errorf("%s stands in front and is not masked", o.Name)
		}
		if j < i && t.begun(o.Element.ID) {
			return fmt.Errorf("%s stands behind and is printed already: it would be printed over", o.Name)
		}
	}
	return nil
}

// begun tells whether anything of a thing that is printed by itself is printed.
func (t *table) begun(element string) bool {
	for l, is := range t.inked {
		if is && l.element == element && l.motif != "" {
			return true
		}
	}
	return false
}

func (t *table) mask(element string) error {
	for _, a := range t.acts {
		if a.ID.Element != element || a.ID.Verb != work.Print {
			continue
		}
		l := thing{element, a.ID.Motif, a.ID.Colourway, a.ID.Part}
		if m := t.made(a.ID); m != nil {
			at := slices.IndexFunc(m.Image.Shapes.Views, func(v motif.View) bool { return v.Layer.ID == a.ID.Part })
			if at >= 0 && build.Leaf(m.Image.Shapes, at) != motif.Ground {
				continue // on a piece, which no mask covers
			}
		}
		if !t.inked[l] || t.wet[l] {
			return fmt.Errorf("masked before “%s” is done and dry", a.Title)
		}
	}
	t.masked[element] = true
	return nil
}

// dry looks whether all ink on a piece is on it and dry.
func (t *table) dry(m *build.Made, piece int) error {
	for _, a := range t.acts {
		if a.ID.Motif != m.Image.ID || a.ID.Colourway != m.Colourway.ID || a.ID.Part == "" {
			continue
		}
		i := slices.IndexFunc(m.Image.Shapes.Views, func(v motif.View) bool { return v.Layer.ID == a.ID.Part })
		if build.Leaf(m.Image.Shapes, i) != piece {
			continue
		}
		l := thing{motif: a.ID.Motif, colourway: a.ID.Colourway, part: a.ID.Part}
		switch a.ID.Verb {
		case work.Ink, work.Blend, work.Return, work.Edge, work.Back:
			if !t.inked[thing{a.Key, "", "", ""}] || t.wet[l] {
				return fmt.Errorf("“%s” is not done and dry", a.Title)
			}
		case work.Print:
			if !t.inked[l] || t.wet[l] {
				return fmt.Errorf("“%s” is not done and dry", a.Title)
			}
		}
	}
	return nil
}

// glue puts a piece onto another, or onto a print.
func (t *table) glue(m *build.Made, i, on int) error {
	vs := m.Image.Shapes.Views
	of := func(i int) thing {
		return thing{motif: m.Image.ID, colourway: m.Colourway.ID, part: vs[i].Layer.ID}
	}
	if !t.popped[of(i)] || vs[i].Layer.Copies > 1 && !t.plied[of(i)] {
		return errors.New("it is not one piece in the hand yet")
	}
	within := func(k, root int) bool {
		for ; k != motif.Ground; k = leafBelow(m, k) {
			if k == root {
				return true
			}
		}
		return false
	}
	for k := i + 1; k < len(vs); k++ {
		if vs[k].Layer.Make == card.Cut && t.stuck[of(k)] && !within(k, i) && vs[k].Outline.Overlaps(vs[i].Outline) {
			return fmt.Errorf("%s lies over its place already", vs[k].Layer.Label)
		}
	}
	if on == motif.Ground {
		c := t.b.Carrier(t.b.Things[m.Things[0]].Element)
		if !t.cut[thing{element: c.Element}] || t.mounted[c.Element] {
			return errors.New("what carries it is not there, or mounted already")
		}
		t.touched[c.Element] = true
	} else {
		if !t.popped[of(on)] || vs[on].Layer.Copies > 1 && !t.plied[of(on)] {
			return fmt.Errorf("%s is not one piece in the hand yet", vs[on].Layer.Label)
		}
		if len(vs[on].Layer.Bonds) > 0 && vs[on].Layer.Bonds[0].Raised() && t.stuck[of(on)] {
			slipped := false
			for k := on + 1; k < i; k++ {
				slipped = slipped || vs[k].Layer.Make == card.Cut && !within(k, on) && vs[k].Outline.Overlaps(vs[i].Outline)
			}
			if !slipped {
				return fmt.Errorf("it is pressed down on %s, which stands on foam", vs[on].Layer.Label)
			}
		}
	}
	t.stuck[of(i)] = true
	t.foamed = t.foamed || card.Raised(vs[i].Layer.Bonds) || t.shy(m.Colourway.Layers[vs[i].Layer.ID].Paper)
	return nil
}
