package card

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"ochrestone/core/kit"
)

// Recolour gives elements other colourways of their images.
type Recolour struct {
	Elements map[string]string `json:"elements" nullable:"false" doc:"colourway id by element id"`
}

func (e *Recolour) apply(c *Card, _ kit.Kit) error {
	for _, id := range slices.Sorted(maps.Keys(e.Elements)) {
		el, err := c.element(id)
		if err != nil {
			return err
		}
		if el.Image == nil {
			return kit.Problem{Path: "recolour.elements", What: fmt.Sprintf("%q is no image", id)}
		}
		img := *el.Image
		img.Colourway = e.Elements[id]
		el.Image = &img
	}
	return nil
}

// SetFinish changes the papers and inks of layers in a colourway: of each layer named,
// the whole finish.
type SetFinish struct {
	Motif     string            `json:"motif"`
	Colourway string            `json:"colourway"`
	Layers    map[string]Finish `json:"layers" nullable:"false" doc:"by layer id"`
}

func (e *SetFinish) apply(c *Card, _ kit.Kit) error {
	w, err := c.colourway(e.Motif, e.Colourway)
	if err != nil {
		return err
	}
	m, _ := c.Motif(e.Motif)
	for id, f := range e.Layers {
		if !slices.ContainsFunc(m.Layers, func(l Layer) bool { return l.ID == id }) {
			return fmt.Errorf("layer %q of %s %w", id, m.Name, ErrGone)
		}
		f.extra = w.Layers[id].extra
		w.Layers[id] = f
	}
	return nil
}

// Replace gives a colourway all finishes of another choice. The only colourway of an
// image takes its name as well.
type Replace struct {
	Motif     string `json:"motif"`
	Colourway string `json:"colourway"`
	With      Choice `json:"with"`
}

// Choice is a named choice of papers and inks for all layers of an image.
type Choice struct {
	Name   string            `json:"name"`
	Layers map[string]Finish `json:"layers" nullable:"false" doc:"by layer id"`
}

func (e *Replace) apply(c *Card, _ kit.Kit) error {
	w, err := c.colourway(e.Motif, e.Colourway)
	if err != nil {
		return err
	}
	w.Layers = maps.Clone(e.With.Layers)
	if m, _ := c.Motif(e.Motif); len(m.Colourways) == 1 && e.With.Name != "" {
		w.Name = e.With.Name
	}
	return nil
}

// AddColourways adds choices to an image, each as a colourway of its own.
type AddColourways struct {
	Motif   string   `json:"motif"`
	Choices []Choice `json:"choices" nullable:"false" maxItems:"12"`
}

func (e *AddColourways) apply(c *Card, _ kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	for _, w := range e.Choices {
		name := w.Name
		if name != "" {
			name = unlike(name, m.called)
		}
		m.Colourways = append(m.Colourways, Colourway{ID: m.freshColourway(), Name: name, Layers: maps.Clone(w.Layers)})
	}
	return nil
}

// CopyColourway adds a colourway like another, to be changed.
type CopyColourway struct {
	Motif     string `json:"motif"`
	Colourway string `json:"colourway"`
}

func (e *CopyColourway) apply(c *Card, _ kit.Kit) error {
	w, err := c.colourway(e.Motif, e.Colourway)
	if err != nil {
		return err
	}
	again := *w
	m, _ := c.motif(e.Motif)
	again.ID, again.Layers = m.freshColourway(), maps.Clone(w.Layers)
	again.Name = unlike(strings.Split(w.Name, ", again")[0]+", again", m.called)
	m.Colourways = append(m.Colourways, again)
	return nil
}

// NameColourway calls a colourway otherwise: by the name given, with a number after it where
// another of the image has it. Without a name it keeps its own.
type NameColourway struct {
	Motif     string `json:"motif"`
	Colourway string `json:"colourway"`
	Name      string `json:"name" minLength:"1" maxLength:"80"`
}

func (e *NameColourway) apply(c *Card, _ kit.Kit) error {
	w, err := c.colourway(e.Motif, e.Colourway)
	if err != nil {
		return err
	}
	m, _ := c.Motif(e.Motif)
	if name := strings.TrimSpace(e.Name); name != "" && name != w.Name {
		w.Name = unlike(name, m.called)
	}
	return nil
}

// called reports whether a colourway of the image has the name.
func (m Motif) called(name string) bool {
	return slices.ContainsFunc(m.Colourways, func(w Colourway) bool { return w.Name == name })
}

// freshColourway is an id no colourway of the image has.
func (m Motif) freshColourway() string {
	for n := 1; ; n++ {
		id := fmt.Sprintf("w%d", n)
		if _, taken := m.Colourway(id); !taken {
			return id
		}
	}
}

// SetLayer changes a layer of an image, all of it but its id and part.
type SetLayer struct {
	Motif string `json:"motif"`
	Layer Layer  `json:"layer"`
}

func (e *SetLayer) apply(c *Card, k kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(m.Layers, func(l Layer) bool { return l.ID == e.Layer.ID })
	if i < 0 {
		return fmt.Errorf("layer %q of %s %w", e.Layer.ID, m.Name, ErrGone)
	}
	was := m.Layers[i]
	m.Layers[i] = e.Layer
	m.Layers[i].ID, m.Layers[i].Part, m.Layers[i].extra = was.ID, was.Part, was.extra
	m.reparted(k, i, was.Region)
	return nil
}

// ShiftLayer moves a layer up or down the stack, past the one next to it.
type ShiftLayer struct {
	Motif string `json:"motif"`
	Layer string `json:"layer"`
	By    int    `json:"by" minimum:"-1" maximum:"1" doc:"1 up, -1 down"`
}

func (e *ShiftLayer) apply(c *Card, _ kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(m.Layers, func(l Layer) bool { return l.ID == e.Layer })
	if i < 0 {
		return fmt.Errorf("layer %q of %s %w", e.Layer, m.Name, ErrGone)
	}
	j := i + e.By
	if j < 0 || j >= len(m.Layers) {
		return nil
	}
	m.Layers[i], m.Layers[j] = m.Layers[j], m.Layers[i]
	under := map[string]bool{"": true}
	for n := range m.Layers {
		// A layer cannot sit on one that is above it now: the outlines decide.
		if l := &m.Layers[n]; !under[l.On] {
			l.On = ""
		}
		under[m.Layers[n].ID] = true
	}
	return nil
}

// SetWanted says how many tones a person wants of an image, and how many of it they make.
type SetWanted struct {
	Motif string `json:"motif"`
	Tones *int   `json:"tones,omitempty" minimum:"0" maximum:"9" doc:"how many tones are wanted; none leaves it as it is"`
	Made  *int   `json:"made,omitempty" minimum:"0" maximum:"500" doc:"how many are cut or printed; none leaves it as it is"`
}

func (e *SetWanted) apply(c *Card, _ kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	if e.Tones != nil {
		m.Tones = *e.Tones
	}
	if e.Made != nil {
		m.Made = *e.Made
	}
	return nil
}

// SetSchool sets the rule of lightness of an image.
type SetSchool struct {
	Motif  string `json:"motif"`
	School School `json:"school" enum:"light ground,dark ground,local colour,every piece"`
}

func (e *SetSchool) apply(c *Card, _ kit.Kit) error {
	m, err := c.motif(e.Motif)
	if err != nil {
		return err
	}
	m.School = e.School
	return nil
}
