package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Snip is a bit that is cut off a part where it would meet something, such as a pad of what
// it slips in beneath.
type Snip struct {
	Part string       `json:"part,omitempty" doc:"layer of an image, or number of a letter; empty: of a part that is one leaf"`
	Off  shape.Region `json:"off" doc:"what is cut off, in the part's own frame: mm about its middle, as it lies unturned"`
}

// maxSnips is how many bits are cut off one element.
const maxSnips = 24

// SnipOff cuts a bit off a part of an element; one with nothing in it makes the part whole
// again.
type SnipOff struct {
	Element string       `json:"element"`
	Part    string       `json:"part,omitempty" doc:"layer of an image, or number of a letter"`
	Off     shape.Region `json:"off" doc:"in the part's own frame, mm; empty: the part is whole again"`
}

func (e *SnipOff) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if e.Off.Empty() {
		el.Snips = slices.DeleteFunc(slices.Clone(el.Snips), func(s Snip) bool { return s.Part == e.Part })
		return nil
	}
	el.Snips = append(slices.Clone(el.Snips), Snip{e.Part, e.Off})
	return nil
}

// snips checks what is cut off an element.
func (k *checker) snips(at string, snips []Snip) {
	k.bad(len(snips) > maxSnips, at+".snips", fmt.Sprintf("at most %d bits are cut off one thing", maxSnips))
	for i, s := range snips {
		b := s.Off.Bounds()
		k.bad(s.Off.Empty() || !sane(b.Min.X, -400, 400) || !sane(b.Max.X, -400, 400) || !sane(b.Min.Y, -400, 400) || !sane(b.Max.Y, -400, 400),
			fmt.Sprintf("%s.snips[%d].off", at, i), "what is cut off lies within 400 mm of the part's middle")
	}
}
