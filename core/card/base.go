package card

import (
	"fmt"

	"ochrestone/core/measure"
)

// Base is the card itself: a folded one, a flat tag, or a holder with a pocket.
type Base struct {
	Format   string       `json:"format" doc:"id of a known format, or custom"`
	W        float64      `json:"w" minimum:"20" maximum:"400" doc:"closed width, mm"`
	H        float64      `json:"h" minimum:"20" maximum:"400" doc:"closed height, mm"`
	Fold     measure.Fold `json:"fold" enum:"side,top"`
	Paper    string       `json:"paper" doc:"cardstock id"`
	Envelope string       `json:"envelope" doc:"envelope id"`
	Make     BaseMake     `json:"make,omitempty" enum:"folded,flat,holder" doc:"none: folded"`
	// Leaf is the outline of the front leaf where that is not the plain rectangle.
	Leaf       *Outline    `json:"leaf,omitempty" doc:"outline of the front leaf; none: the plain rectangle"`
	Short      float64     `json:"short,omitempty" minimum:"0" maximum:"300" doc:"by how much the front leaf is shorter than the back, away from the fold, mm"`
	Treatments []Treatment `json:"treatments,omitempty" maxItems:"20" doc:"what is done to the front leaf, in order; places from its middle"`
	Pocket     float64     `json:"pocket,omitempty" minimum:"0" maximum:"300" doc:"of a holder: how deep its pocket is, mm"`
	Flap       float64     `json:"flap,omitempty" minimum:"0" maximum:"300" doc:"of a holder: how deep its flap is, mm"`

	extra extra
}

// BaseMake is what a base is made into.
type BaseMake string

// What bases are made into.
const (
	Folded BaseMake = "folded"
	Flat   BaseMake = "flat"
	Holder BaseMake = "holder"
)

// Size is the closed front.
func (b Base) Size() measure.Size { return measure.Size{W: b.W, H: b.H} }

// Leaves is how many leaves of the base lie on each other when it is closed.
func (b Base) Leaves() int {
	if b.Make == Flat {
		return 1
	}
	return 2
}

// Front is how large the front leaf is, which a shortened front makes smaller.
func (b Base) Front() measure.Size {
	s := b.Size()
	if b.Fold == measure.FoldTop {
		s.H -= b.Short
	} else {
		s.W -= b.Short
	}
	return s
}

// Sheet is the front leaf as a sheet, with what is done to it.
func (b Base) Sheet() Sheet {
	s := b.Front()
	return Sheet{Paper: b.Paper, W: s.W, H: s.H, Shape: b.Leaf, Treatments: b.Treatments}
}

func (b Base) check(k *checker, c Card) {
	s := b.Sheet()
	for j, t := range b.Treatments {
		k.treatment(c, fmt.Sprintf("base.treatments[%d]", j), Element{Sheet: &s}, t)
	}
	if b.Leaf != nil {
		k.outline("base.leaf", *b.Leaf)
	}
	along := b.W
	if b.Fold == measure.FoldTop {
		along = b.H
	}
	k.bad(!sane(b.Short, 0, 300) || b.Short > along-10, "base.short", "the shortened front leaves less than 10 mm of itself")
	k.bad(!sane(b.Pocket, 0, b.H) || !sane(b.Flap, 0, b.H), "base.pocket", "the pocket and the flap of a holder are no deeper than the card is high")
}
