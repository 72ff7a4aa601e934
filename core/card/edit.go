package card

import (
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"

	"ochrestone/core/kit"
)

// Edit is one change of a card: exactly one of its fields is set.
type Edit struct {
	Rename        *Rename        `json:"rename,omitempty"`
	Format        *SetFormat     `json:"format,omitempty"`
	Base          *SetBase       `json:"base,omitempty"`
	Move          *Move          `json:"move,omitempty"`
	Put           *Put           `json:"put,omitempty"`
	Hold          *Hold          `json:"hold,omitempty"`
	Remove        *Remove        `json:"remove,omitempty"`
	Repeat        *Repeat        `json:"repeat,omitempty"`
	Lay           *Lay           `json:"lay,omitempty"`
	Face          *SetFace       `json:"face,omitempty"`
	Shift         *Shift         `json:"shift,omitempty"`
	Sheet         *SetSheet      `json:"sheet,omitempty"`
	AddImage      *AddImage      `json:"addImage,omitempty"`
	AddStrip      *AddStrip      `json:"addStrip,omitempty"`
	AddMat        *AddMat        `json:"addMat,omitempty"`
	AddTurned     *AddTurned     `json:"addTurned,omitempty"`
	Recolour      *Recolour      `json:"recolour,omitempty"`
	Finish        *SetFinish     `json:"finish,omitempty"`
	Replace       *Replace       `json:"replace,omitempty"`
	AddColourways *AddColourways `json:"addColourways,omitempty"`
	CopyColourway *CopyColourway `json:"copyColourway,omitempty"`
	NameColourway *NameColourway `json:"nameColourway,omitempty"`
	Layer         *SetLayer      `json:"layer,omitempty"`
	ShiftLayer    *ShiftLayer    `json:"shiftLayer,omitempty"`
	Again         *Again         `json:"again,omitempty"`
	School        *SetSchool     `json:"school,omitempty"`
	Wanted        *SetWanted     `json:"wanted,omitempty"`
	AddGems       *AddGems       `json:"addGems,omitempty"`
	Gems          *SetGems       `json:"gems,omitempty"`
	AddSheet      *AddSheet      `json:"addSheet,omitempty"`
	Treat         *Treat         `json:"treat,omitempty"`
	AddOpening    *AddOpening    `json:"addOpening,omitempty"`
	AddLetters    *AddLetters    `json:"addLetters,omitempty"`
	Letters       *SetLetters    `json:"letters,omitempty"`
	AddRibbon     *AddRibbon     `json:"addRibbon,omitempty"`
	LevelWith     *LevelWith     `json:"levelWith,omitempty"`
	AddShaker     *AddShaker     `json:"addShaker,omitempty"`
	Shaker        *SetShaker     `json:"shaker,omitempty"`
	Ribbon        *SetRibbon     `json:"ribbon,omitempty"`
	Cutout        *SetCutout     `json:"cutout,omitempty"`
	Masked        *SetMasked     `json:"masked,omitempty"`
	Carry         *SetCarried    `json:"carry,omitempty"`
	Lift          *Lift          `json:"lift,omitempty"`
	Mean          *Mean          `json:"mean,omitempty"`
	Twin          *Twin          `json:"twin,omitempty"`
	SnipOff       *SnipOff       `json:"snipOff,omitempty"`
	Tucks         *SetTucks      `json:"tucks,omitempty"`
	Together      *Together      `json:"together,omitempty"`
	Around        *Around        `json:"around,omitempty"`
	Flush         *Flush         `json:"flush,omitempty"`
	Light         *SetLight      `json:"light,omitempty"`
	ShadeOther    *ShadeOther    `json:"shadeOther,omitempty"`
	Copies        *SetCopies     `json:"copies,omitempty"`
	Lots          *SetLots       `json:"lots,omitempty"`
	Lot           *EditLot       `json:"lot,omitempty"`
	LayByHand     *LayByHand     `json:"layByHand,omitempty"`
	SetAside      *Aside         `json:"setAside,omitempty"`
	Recall        *Recall        `json:"recall,omitempty"`
	Order         *Reorder       `json:"order,omitempty"`
}

// ErrGone is returned for an edit of something that is not on the card any more.
var ErrGone = errors.New("is not on this card any more")

// ErrNoEdit is returned for an edit that says nothing, or two things at once.
var ErrNoEdit = errors.New("an edit changes exactly one thing")

// change is what every edit does to a card that is its own.
type change interface {
	apply(c *Card, k kit.Kit) error
}

// Apply returns the card with the edits made one after another; the card itself is left
// as it was. Where one cannot be made nothing is, and the error says which and why: it
// wraps ErrGone, ErrNoEdit, or what Validate finds wrong with the outcome.
func (c Card) Apply(k kit.Kit, edits ...Edit) (Card, error) {
	out := c
	out.Elements, out.Motifs, out.SetAside, out.Order = slices.Clone(c.Elements), slices.Clone(c.Motifs), slices.Clone(c.SetAside), slices.Clone(c.Order)
	for i, e := range edits {
		one, err := e.one()
		if err == nil {
			err = one.apply(&out, k)
		}
		if err != nil {
			return c, fmt.Errorf("edit %d of %d: %w", i+1, len(edits), err)
		}
	}
	if err := out.Validate(); err != nil {
		return c, fmt.Errorf("the card would not be sound: %w", err)
	}
	return out, nil
}

// one is the change an edit makes.
func (e Edit) one() (found change, err error) {
	v := reflect.ValueOf(e)
	for i := range v.NumField() {
		if f := v.Field(i); !f.IsNil() {
			if found != nil {
				return nil, ErrNoEdit
			}
			found = f.Interface().(change)
		}
	}
	if found == nil {
		return nil, ErrNoEdit
	}
	return found, nil
}

// Absorb joins an edit to the one before it where both move the same element, so that
// a key held down is one change. It reports whether it could.
func (e *Edit) Absorb(next Edit) bool {
	if e.Move != nil && next.Move != nil && e.Move.Element == next.Move.Element {
		m := *e.Move
		m.DX, m.DY, m.Turn = m.DX+next.Move.DX, m.DY+next.Move.DY, m.Turn+next.Move.Turn
		e.Move = &m
		return true
	}
	if e.Put != nil && next.Put != nil && e.Put.Element == next.Put.Element {
		p := *e.Put
		for _, v := range []struct {
			from *float64
			to   **float64
		}{{next.Put.X, &p.X}, {next.Put.Y, &p.Y}, {next.Put.Turn, &p.Turn}} {
			if v.from != nil {
				*v.to = v.from
			}
		}
		if next.Put.Mirror != nil {
			p.Mirror = next.Put.Mirror
		}
		e.Put = &p
		return true
	}
	return false
}

// element finds an element to change in place.
func (c *Card) element(id string) (*Element, error) {
	for i := range c.Elements {
		if c.Elements[i].ID == id {
			return &c.Elements[i], nil
		}
	}
	return nil, fmt.Errorf("element %q %w", id, ErrGone)
}

// motif finds an image to change in place; its lists become its own.
func (c *Card) motif(id string) (*Motif, error) {
	for i := range c.Motifs {
		if m := &c.Motifs[i]; m.ID == id {
			m.Layers, m.Colourways = slices.Clone(m.Layers), slices.Clone(m.Colourways)
			return m, nil
		}
	}
	return nil, fmt.Errorf("image %q %w", id, ErrGone)
}

// colourway finds a colourway to change in place; its finishes become its own.
func (c *Card) colourway(motif, id string) (*Colourway, error) {
	m, err := c.motif(motif)
	if err != nil {
		return nil, err
	}
	for i := range m.Colourways {
		if w := &m.Colourways[i]; w.ID == id {
			w.Layers = maps.Clone(w.Layers)
			if w.Layers == nil {
				w.Layers = map[string]Finish{}
			}
			return w, nil
		}
	}
	return nil, fmt.Errorf("colourway %q of %s %w", id, m.Name, ErrGone)
}

// layer finds a layer of an image to change in place.
func (c *Card) layer(motif, id string) (*Layer, error) {
	m, err := c.motif(motif)
	if err != nil {
		return nil, err
	}
	for i := range m.Layers {
		if m.Layers[i].ID == id {
			return &m.Layers[i], nil
		}
	}
	return nil, fmt.Errorf("layer %q of %s %w", id, m.Name, ErrGone)
}
