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
	Kind      string  // ring, row or grid
	N         int     // pieces of a ring or a row, columns of a grid; 0: as many as close a ring
	Rows      int     // of a grid
	Radius    float64 // of a ring, mm
	Gap       float64 // wanted between neighbours of a ring, mm; negative: an overlap
	Alternate bool    // take turns in the image's colourways
}

// Laid is a proposal: the change that lays it, how many it takes, and what is to be known.
type Laid struct {
	Count int       `json:"count" doc:"pieces it takes"`
	Gap   float64   `json:"gap" doc:"between neighbours, mm; negative: they overlap"`
	Say   string    `json:"say"`
	Notes []string  `json:"notes" nullable:"false" doc:"what will be seen, and what to do"`
	Edit  card.Edit `json:"edit"`
}

// LayMany proposes how several of an element are laid on the panel of its card. A ring
// stands round the panel's middle, a row stays at the element's height. Errors are those
// of layout, and card.ErrGone.
func LayMany(b *build.Build, element string, want Many, write measure.Writing) (Laid, error) {
	var out Laid
	c := b.Card
	at := slices.IndexFunc(b.Things, func(t build.Thing) bool { return t.Element.ID == element })
	if at < 0 || b.Things[at].Outline.Empty() {
		return out, fmt.Errorf("lay %q: it %w", element, card.ErrGone)
	}
	e := b.Things[at].Element
	outline := b.Things[at].Outline
	upright := outline.Turn(-e.Place.Turn, outline.Bounds().Centre()).Bounds()
	w, h := upright.W(), upright.H()
	panel := layout.Region(b.Panel()).Bounds()
	var places []card.Place
	var err error
	switch want.Kind {
	case "ring":
		n := want.N
		if n == 0 {
			if n = layout.RingCount(want.Radius, w, want.Gap); n == 0 {
				return out, layout.ErrRadius
			}
		}
		if places, err = layout.Ring(n, panel.Centre(), want.Radius); err != nil {
			return out, err
		}
		out.Gap = layout.Chord(n, want.Radius) - w
		out.Say = fmt.Sprintf("%d close the ring, %s; it is %s across.", n, apart(out.Gap, write), write.Length(2*want.Radius+h))
		if over := want.Radius + h/2 - min(panel.W(), panel.H())/2; over > layoutHair {
			out.Notes = append(out.Notes, fmt.Sprintf("It runs over the panel by %s: make the radius smaller, or trim it from the back when the glue is dry.", write.Length(over)))
		}
	case "row", "grid":
		rows := 1
		if want.Kind == "grid" {
			rows = want.Rows
		}
		var across, down float64
		if places, across, down, err = layout.Grid(want.N, rows, w, h, panel); err != nil {
			return out, err
		}
		out.Gap = across
		if want.Kind == "row" {
			for i := range places {
				places[i].Y = e.Place.Y // a row stays at its height
			}
			out.Say = fmt.Sprintf("%d in a row, %s, the same to the edges.", len(places), apart(across, write))
		} else {
			out.Gap = min(across, down)
			out.Say = fmt.Sprintf("%d in all: across %s, down %s, the same to the edges.", len(places), apart(across, write), apart(down, write))
		}
	default:
		return out, fmt.Errorf("lay %q: a ring, a row or a grid is known", want.Kind)
	}
	lay := &card.Lay{Element: e.ID, Places: places}
	if want.Alternate && e.Image != nil {
		if i := slices.IndexFunc(c.Motifs, func(m card.Motif) bool { return m.ID == e.Image.Motif }); i >= 0 {
			for _, wy := range c.Motifs[i].Colourways {
				lay.Colourways = append(lay.Colourways, wy.ID)
			}
		}
		if k := len(lay.Colourways); want.Kind == "ring" && k > 1 && len(places)%k == 1 {
			out.Notes = append(out.Notes, fmt.Sprintf("Where the ring closes two of one colourway stand side by side: take %d or %d.", len(places)-1, len(places)+k-1))
		}
	}
	out.Count, out.Edit = len(places), card.Edit{Lay: lay}
	if out.Notes == nil {
		out.Notes = []string{}
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
