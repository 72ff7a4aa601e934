package work

import (
	"fmt"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/words"
)

// madeAgain says how a piece is cut that is not simply the whole of its part.
func (m *making) madeAgain(i, n int, cut *Act) {
	l := m.views[i].Layer
	paper := m.Stock.PaperName(m.finish(i).Paper)
	switch {
	case m.views[i].Problem != "":
	case l.Traced != 0:
		how := m.format(l.Traced) + " larger"
		if l.Traced < 0 {
			how = m.format(-l.Traced) + " smaller"
		}
		cut.Title = fmt.Sprintf("Trace and cut %s × %d", m.name(i), n)
		cut.Detail = fmt.Sprintf("Draw round %s on %s, %s all round, and cut it out by hand. A pencil's line runs %s outside what it is drawn round: cut inside it.", m.partOf(i), paper, how, m.format(pencilLine))
	case l.Region != nil && l.Region.By == card.CutTwice:
		cut.Title = fmt.Sprintf("Cut %s × %d again", m.name(i), n)
		cut.Detail = fmt.Sprintf("From %s, with the die of %s. Then fussy cut it along %s and keep %s.%s", paper, m.partOf(i), m.along(i), m.keeps(i), m.neck(i))
	case l.Region != nil && l.Region.By == card.Swapped:
		cut.Title = fmt.Sprintf("Cut %s × %d, to be swapped", m.name(i), n)
		cut.Detail = fmt.Sprintf("From %s, with the die of %s. Lay both cards on each other, cut through both along %s, and swap: this one gives %s.", paper, m.partOf(i), m.along(i), m.keeps(i))
	}
}

// pencilLine is by how much a traced outline comes larger all round, mm: common practice, no source; and
// narrowNeck how narrow a place is at the most, mm, that is told of what is kept: our own default.
const (
	pencilLine = 0.5
	narrowNeck = 4.0
)

// neck says where what is kept of a piece hangs together by little.
func (m *making) neck(i int) string {
	wide, at, ok := m.views[i].Outline.Neck(narrowNeck)
	if !ok {
		return ""
	}
	b := m.views[i].Outline.Bounds()
	return fmt.Sprintf(" It hangs together by a neck of %s, %s below its top: hold it there, cut it last, or part it there and glue both.", m.format(wide), m.format(at.Y-b.Min.Y))
}

// partOf is what the die or the stamp of a layer is called, whatever is made of it.
func (m *making) partOf(i int) string {
	if s, ok := m.Stock.Set(m.Image.Set); ok {
		if p, ok := s.Part(m.views[i].Layer.Part); ok && p.Label != "" {
			return p.Label
		}
	}
	return "its part"
}

// along is what a piece is parted along.
func (m *making) along(i int) string {
	v := m.views[i]
	if r := v.Layer.Region; r.Part != "" {
		if s, ok := m.Stock.Set(m.Image.Set); ok {
			if p, ok := s.Part(r.Part); ok {
				return "the edge of " + p.Label
			}
		}
	}
	if len(v.Part.Pressed()) > 0 {
		return "the pressed line"
	}
	return "the line that is drawn in Pieces"
}

// keeps says which side of the line a region is.
func (m *making) keeps(i int) string {
	v := m.views[i]
	at, whole := v.Outline.Centroid(), v.Part.Outline.Bounds()
	c := whole.Centre()
	dx, dy := (at.X-c.X)/max(whole.W(), 1e-9), (at.Y-c.Y)/max(whole.H(), 1e-9)
	size := fmt.Sprintf(", %s × %s", m.format(v.Outline.Bounds().W()), m.format(v.Outline.Bounds().H()))
	switch {
	case dx*dx+dy*dy < 0.003:
		return "the middle" + size
	case dx*dx > dy*dy && dx < 0:
		return "its left" + size
	case dx*dx > dy*dy:
		return "its right" + size
	case dy < 0:
		return "its top" + size
	}
	return "its foot" + size
}

// putOn says how a copy is put on that is offset from the one beneath it.
func (m *making) putOn(i int) string {
	l := m.views[i].Layer
	if l.Shifted == 0 || m.views[i].Problem != "" {
		return ""
	}
	far := []string{"right", "left"}
	if u, _, _ := motif.Lengthwise(m.views[i].Outline); u.Y == 1 {
		far = []string{"lower", "upper"}
	}
	by := l.Shifted
	if by < 0 {
		far[0], far[1] = far[1], far[0]
		by = -by
	}
	return fmt.Sprintf("Offset %s: trim what stands over at the %s end, and put the trimming on at the %s end.", m.format(by), far[0], far[1])
}

// maskedInk is how one colour region of a piece is inked while the rest is covered: the
// title of the act and its detail, which takes the ink, its strikes, what else goes on and
// what carries it.
func (m *making) maskedInk(i int, what string, n int) (title, detail string) {
	mask := fmt.Sprintf("Lay the mask over %s so that only %s is open; Register prints the mask. ", m.partOf(i), strings.ReplaceAll(m.keeps(i), "%", "%%"))
	if s, _ := m.Stock.Set(m.Image.Set); s.Kind == kit.StampSet {
		return fmt.Sprintf("Stamp %s × %d, the rest masked", what, n), mask + "%s on %s. Look before you lift the stamp."
	}
	return fmt.Sprintf("Ink %s × %d, the rest masked", what, n), mask + "%s on %s, from the mask outwards. Take it off straight up."
}

// covered says which regions of a layer are covered while it is inked, before that and after; nothing
// for none.
func (m *making) covered(i int) (before, after string) {
	var names []string
	for j, v := range m.views {
		if v.Layer.Spares() && v.Layer.Region.By == card.Covered && v.Problem == "" && v.Host == i {
			names = append(names, m.views[j].Layer.Label)
		}
	}
	if len(names) == 0 {
		return "", ""
	}
	mask := words.Of(len(names), "its mask", "their masks")
	return fmt.Sprintf("First cover %s with %s; Register prints it. ", words.Listed(names), mask), " Work from the mask outwards, with little ink, and take it off straight up when the last ink of this piece is on."
}

// zoneAsLaid is a zone of a piece as it is told: of an image that is only laid left for
// right its other side, and of one that is laid both ways what goes for the twins.
func (m *making) zoneAsLaid(z card.Zone) (said card.Zone, twins string) {
	other := map[card.Zone]card.Zone{card.Left: card.Right, card.Right: card.Left}[z]
	if other == "" {
		return z, ""
	}
	mirrored := 0
	for _, i := range m.Things {
		if m.Build.Things[i].Element.Place.Mirror {
			mirrored++
		}
	}
	switch mirrored {
	case 0:
		return z, ""
	case len(m.Things):
		return other, " It is laid left for right."
	}
	return z, fmt.Sprintf(" Of the %d laid left for right: their %s.", mirrored, other)
}
