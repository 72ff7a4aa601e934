package card

import (
	"fmt"
	"maps"
	"reflect"
	"slices"

	"ochrestone/core/kit"
)

// SetLight says from which side light falls on the front, so that every image is shaded on
// the other.
type SetLight struct {
	Side Side `json:"side,omitempty" enum:"left,right" doc:"none: nobody minds"`
	// Lamp is a thing on the card that the light comes from instead.
	Lamp string `json:"lamp,omitempty" doc:"element the light comes from, such as a lamp: what stands left of it is lit on its right; empty: the side says"`
}

func (e *SetLight) apply(c *Card, _ kit.Kit) error {
	if e.Lamp != "" {
		if _, err := c.element(e.Lamp); err != nil {
			return err
		}
	}
	c.Light, c.Lamp = e.Side, e.Lamp
	return nil
}

// ShadeOther gives an image a colourway like its own that is shaded on the other side: one
// that is there already, or a new one.
type ShadeOther struct {
	Element string `json:"element"`
}

func (e *ShadeOther) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Image == nil {
		return kit.Problem{Path: "shadeOther.element", What: fmt.Sprintf("%q is no image", e.Element)}
	}
	m, err := c.motif(el.Image.Motif)
	if err != nil {
		return err
	}
	w, ok := m.Colourway(el.Image.Colourway)
	if !ok {
		return fmt.Errorf("colourway %q of %s %w", el.Image.Colourway, m.Name, ErrGone)
	}
	other := maps.Clone(w.Layers)
	for id, f := range other {
		f.Blends = slices.Clone(f.Blends)
		for i := range f.Blends {
			switch f.Blends[i].Zone {
			case Left:
				f.Blends[i].Zone = Right
			case Right:
				f.Blends[i].Zone = Left
			}
		}
		other[id] = f
	}
	img := *el.Image
	at := slices.IndexFunc(m.Colourways, func(o Colourway) bool { return reflect.DeepEqual(o.Layers, other) })
	if at < 0 {
		at = len(m.Colourways)
		m.Colourways = append(slices.Clone(m.Colourways), Colourway{ID: m.freshColourway(), Name: w.Name + ", shaded the other way", Layers: other})
	}
	img.Colourway = m.Colourways[at].ID
	el.Image = &img
	return nil
}
