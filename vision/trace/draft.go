package trace

import (
	"context"
	"fmt"
	"sync"

	"ochrestone/core/together"
)

// draft is a piece whose lines are drawn but not yet moved to where its card ends.
type draft struct {
	p     *patch
	lines [][]xy
	cut   bool
}

// edge is what was made of the edge of a piece: its lines where the card ends.
type edge struct {
	lines  [][]xy
	sure   [][]float64 // standard deviation of every point of them, pixels
	rimmed bool        // the core of the card shows
	known  bool        // its profile was looked at
	blind  int         // stretches in which a core would not show
	looked int         // stretches that were asked
}

// edge moves the lines of a piece to where the card ends. That cores show elsewhere in the
// picture makes it likelier here.
func (d draft) edge(dev device, likely bool) (e edge) {
	e.lines = d.lines
	if !d.p.hasEdge() {
		return e
	}
	e.lines = make([][]xy, len(d.lines))
	marks := d.p.draw(d.lines)
	for i, l := range d.lines {
		var found []stretch
		e.lines[i], found = d.p.refine(l, marks, dev, likely)
		e.sure = append(e.sure, doubts(found, e.lines[i], d.p.unlooked()))
		for _, s := range found {
			if s.asked {
				e.looked++
				if s.blind(dev) {
					e.blind++
				}
			}
			e.known = true
			e.rimmed = e.rimmed || s.fit.rim > 0
		}
	}
	return e
}

// edges are those of all pieces of a picture.
func (t *finder) edges(ctx context.Context, drafts []draft) []edge {
	t.tell(0.7, "Looking how the picture was taken")
	dev := t.device(drafts)
	if dev.misfit > mostMisfit || t.pic.Soft && (dev.misfit > softMost || !t.pale()) {
		// A device that is not understood is not believed: the half level stands. Where colour is
		// smeared, lightness alone tells no more than it does.
		return t.asDrawn(drafts)
	}
	out := make([]edge, len(drafts))
	var mu sync.Mutex
	done := 0
	together.By(len(drafts), func(i int) {
		if ctx.Err() != nil {
			return
		}
		out[i] = drafts[i].edge(dev, false)
		mu.Lock()
		defer mu.Unlock()
		done++
		t.tell(0.72+0.25*float64(done)/float64(len(drafts)), fmt.Sprintf("Reading edge %d of %d", done, len(drafts)))
	})
	rimmed, known := 0, 0
	for _, e := range out {
		if e.known {
			known++
		}
		if e.rimmed {
			rimmed++
		}
	}
	if rimmed < 2 || 2*rimmed < known {
		return out
	}
	// Pieces on one sheet are of one kind of card, mostly.
	together.By(len(drafts), func(i int) {
		if out[i].known && !out[i].rimmed && ctx.Err() == nil {
			out[i] = drafts[i].edge(dev, true)
		}
	})
	return out
}

// asDrawn leaves the lines where they were drawn.
func (t *finder) asDrawn(drafts []draft) []edge {
	out := make([]edge, len(drafts))
	for i, d := range drafts {
		out[i].lines = d.lines
		if !d.p.hasEdge() {
			continue
		}
		for _, l := range d.lines {
			out[i].sure = append(out[i].sure, doubts(nil, l, d.p.unlooked()))
		}
	}
	return out
}
