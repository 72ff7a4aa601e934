package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
)

// Purpose is what a thing is meant to do on the finished front.
type Purpose string

// Purposes.
const (
	Reaches  Purpose = "reach"             // lie over or under another by so much
	GoesIn   Purpose = "go in beneath"     // another, so deep
	KeepsOff Purpose = "stay clear of"     // another, by so much
	IsSeen   Purpose = "be seen"           // at least so much of it
	IsHidden Purpose = "be hidden"         // all of it
	Matches  Purpose = "match"             // the colour of another, or of a paper or an ink
	RunsOver Purpose = "run over"          // the edge of what it is to keep within
	IsCopy   Purpose = "lie over its like" // a copy right over its print
)

// Purposes are all there are.
var Purposes = []Purpose{Reaches, GoesIn, KeepsOff, IsSeen, IsHidden, Matches, RunsOver, IsCopy}

// Pairs reports whether the purpose is about another thing.
func (p Purpose) Pairs() bool {
	return slices.Contains([]Purpose{Reaches, GoesIn, KeepsOff, Matches, IsCopy}, p)
}

// Meant is what a thing, or a layer of an image, is meant to do: it is judged where it lies, and what is
// done on purpose draws no other note.
type Meant struct {
	Do       Purpose `json:"do" enum:"reach,go in beneath,stay clear of,be seen,be hidden,match,run over,lie over its like"`
	Part     string  `json:"part,omitempty" maxLength:"80" doc:"layer of an image that is meant; empty: all of it"`
	With     string  `json:"with,omitempty" doc:"the other element"`
	WithPart string  `json:"withPart,omitempty" maxLength:"80" doc:"layer of the other image that is meant; empty: all of it"`
	Ink      string  `json:"ink,omitempty" doc:"of a match: the ink, as it dries on what it lies on"`
	Paper    string  `json:"paper,omitempty" doc:"of a match: the cardstock"`
	By       float64 `json:"by,omitempty" minimum:"0" maximum:"400" doc:"mm; of what is to be seen its share, in hundredths; of a match CIEDE2000; 0: as much as counts"`
}

// maxMeant is how many purposes an element has at the most.
const maxMeant = 12

// Mean says what an element is meant to do; it takes the place of what was said before.
type Mean struct {
	Element string  `json:"element"`
	Meant   []Meant `json:"meant" nullable:"false" maxItems:"12"`
}

func (e *Mean) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	el.Meant = slices.Clone(e.Meant)
	if len(el.Meant) == 0 {
		el.Meant = nil
	}
	return nil
}

// meant checks what an element is meant to do.
func (k *checker) meant(c Card, e Element, at string) {
	k.bad(len(e.Meant) > maxMeant, at+".meant", fmt.Sprintf("says %d things it is meant to do: at most %d", len(e.Meant), maxMeant))
	for j, m := range e.Meant {
		in := fmt.Sprintf("%s.meant[%d]", at, j)
		k.bad(!slices.Contains(Purposes, m.Do), in+".do", fmt.Sprintf("%q is no purpose; take one of %v", m.Do, Purposes))
		k.bad(!sane(m.By, 0, 400), in+".by", "is 0 to 400")
		if m.With != "" {
			_, ok := c.Element(m.With)
			k.bad(!ok || m.With == e.ID, in+".with", "names something that is not on this card")
		}
		named := m.With != "" || m.Do == Matches && (m.Ink != "" || m.Paper != "")
		k.bad(m.Do.Pairs() && !named, in+".with", "names no other thing: say which one")
	}
}
