package advise

import (
	"fmt"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/measure"
)

// Many is how several of an element are to be laid.
type Many struct {
	Kind      string   // ring, two rings, row, grid, frame, scatter, field, twin, middle, weight
	N         int      // pieces of a ring or a row, columns of a grid, of a scatter; 0: as many as close a ring
	Rows      int      // of a grid
	Radius    float64  // of a ring, mm
	Gap       float64  // wanted between neighbours of a ring or frame, mm; negative: an overlap
	Inside    float64  // of a frame: how far its middles lie inside the panel's edge, mm
	With      []string // of a field: further elements whose copies fill it too
	Keep      string   // of a field: an element that will lie over it, under whose middle it stays bare
	Seed      int      // of a scatter
	Alternate bool     // take turns in the image's colourways
}

// Laid is a proposal: the change that lays it, how many it takes, and what is to be known.
type Laid struct {
	Count int           `json:"count" doc:"pieces it takes"`
	Gap   float64       `json:"gap" doc:"between neighbours, mm; negative: they overlap"`
	Say   string        `json:"say"`
	Notes []string      `json:"notes" nullable:"false" doc:"what will be seen, and what to do"`
	Edits []card.Edit   `json:"edits" nullable:"false" doc:"that lay it"`
	Gaps  []card.Offset `json:"gaps" nullable:"false" doc:"middles of what stays bare, from the face's top left, mm"`
}

// LayMany proposes how several of an element are laid on the panel of its card. A ring
// stands round the panel's middle, a row stays at the element's height; twin, middle and
// weight move or mirror what is there. Errors are those of layout, and card.ErrGone.
func LayMany(b *build.Build, element string, want Many, write measure.Writing) (Laid, error) {
	var out Laid
	at := slices.IndexFunc(b.Things, func(t build.Thing) bool { return t.Element.ID == element })
	if at < 0 || b.Things[at].Outline.Empty() {
		return out, fmt.Errorf("lay %q: it %w", element, card.ErrGone)
	}
	e := b.Things[at].Element
	outline := b.Things[at].Outline
	upright := outline.Turn(-e.Place.Turn, outline.Bounds().Centre()).Bounds()
	l := laying{b: b, e: e, outline: outline, w: upright.W(), h: upright.H(), panel: layout.Region(b.Panel()).Bounds(), want: want, write: write}
	if err := l.places(&out); err != nil {
		return out, err
	}
	if out.Edits == nil {
		lay := &card.Lay{Element: e.ID, Places: l.at}
		lay.Colourways = l.ways(&out)
		out.Count, out.Edits = len(l.at), []card.Edit{{Lay: lay}}
	}
	if out.Notes == nil {
		out.Notes = []string{}
	}
	if out.Gaps == nil {
		out.Gaps = []card.Offset{}
	}
	return out, nil
}

// layoutHair is what may stand over without a word, mm.
const layoutHair = 0.1

// apart says how far neighbours are from each other.
func apart(gap float64, write measure.Writing) string {
	switch {
	case gap > 0.05:
		return write.Length(gap) + " between them"
	case gap < -0.05:
		return "each over the next by " + write.Length(-gap)
	}
	return "touching"
}
