package advise

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// laying is an element while it is laid several times.
type laying struct {
	b       *build.Build
	e       card.Element
	outline shape.Region
	w, h    float64 // of it unturned, mm
	panel   shape.Box
	want    Many
	write   measure.Writing

	at    []card.Place
	round bool // it closes on itself
}

// places finds where each lies, and says what that comes to.
func (l *laying) places(out *Laid) error {
	switch l.want.Kind {
	case "ring":
		return l.ring(out, l.want.Radius)
	case "two rings":
		return l.rings(out)
	case "row", "grid":
		return l.rows(out)
	case "frame":
		return l.frame(out)
	case "scatter":
		at, err := layout.Scatter(l.want.N, max(l.w, l.h), l.panel, uint64(max(0, l.want.Seed)))
		if err != nil {
			return err
		}
		l.at = at
		out.Say = fmt.Sprintf("%d scattered over the panel, none nearer to another than it has to be.", len(at))
	case "field":
		return l.field(out)
	case "twin":
		l.twin(out)
	case "middle", "weight":
		l.centre(out)
	default:
		return fmt.Errorf("lay %q: no such layout is known", l.want.Kind)
	}
	return nil
}

func (l *laying) ring(out *Laid, r float64) error {
	n := l.want.N
	if n == 0 {
		if n = layout.RingCount(r, l.w, l.want.Gap); n == 0 {
			return layout.ErrRadius
		}
	}
	at, err := layout.Ring(n, l.panel.Centre(), r)
	if err != nil {
		return fmt.Errorf("lay a ring: %w", err)
	}
	l.at, l.round = at, true
	out.Gap = layout.Chord(n, r) - l.w
	out.Say = fmt.Sprintf("%d close the ring, %s; it is %s across.%s", n, apart(out.Gap, l.write), l.write.Length(2*r+l.h), inTurn(n))
	l.runsOver(out, r+l.h/2)
	return nil
}

// mostInTurn is the most colourways that are laid in turn, as it is said.
const mostInTurn = 6

// inTurn says with how many colourways in turn a closed ring of n has no two alike side by side.
func inTurn(n int) string {
	var even []string
	for k := 2; k <= mostInTurn; k++ {
		if n%k == 0 {
			even = append(even, fmt.Sprint(k))
		}
	}
	if len(even) == 0 {
		return " However many colourways are laid in turn, two alike meet where it closes, or one comes once less than the others."
	}
	return fmt.Sprintf(" With %s colourways in turn they come as often as each other, and no two alike meet.", words.Either(even))
}

// runsOver notes a ring that is larger than the panel.
func (l *laying) runsOver(out *Laid, reach float64) {
	if over := reach - min(l.panel.W(), l.panel.H())/2; over > layoutHair {
		out.Notes = append(out.Notes, fmt.Sprintf("It runs over the panel by %s: make the radius smaller, or trim it from the back when the glue is dry.", l.write.Length(over)))
	}
}

// rings lays an outer ring, and an inner one half a step on, so that its pieces look
// through the gaps of the outer: both have as many.
func (l *laying) rings(out *Laid) error {
	if err := l.ring(out, l.want.Radius); err != nil {
		return err
	}
	inner := l.want.Radius - l.h*ringsStep
	if inner <= 0 {
		return layout.ErrRadius
	}
	n := len(l.at)
	at, err := layout.Ring(n, l.panel.Centre(), inner)
	if err != nil {
		return fmt.Errorf("lay the inner ring: %w", err)
	}
	half := 180 / float64(n)
	for i := range at {
		s, c := math.Sincos((at[i].Turn + half) * math.Pi / 180)
		m := l.panel.Centre()
		at[i] = card.Place{X: m.X + inner*s, Y: m.Y - inner*c, Turn: math.Remainder(at[i].Turn+half, 360)}
	}
	gap := layout.Chord(n, inner) - l.w
	out.Say = fmt.Sprintf("%d in two rings of %d: the outer %s, the inner %s, half a step on.", 2*n, n, apart(out.Gap, l.write), apart(gap, l.write))
	l.at = append(l.at, at...)
	return nil
}

// ringsStep is how much of its height the inner of two rings lies further in: our own
// default.
const ringsStep = 0.6

func (l *laying) rows(out *Laid) error {
	rows := 1
	if l.want.Kind == "grid" {
		rows = l.want.Rows
	}
	at, across, down, err := layout.Grid(l.want.N, rows, l.w, l.h, l.panel)
	if err != nil {
		return fmt.Errorf("lay rows: %w", err)
	}
	l.at, out.Gap = at, across
	if l.want.Kind == "row" {
		for i := range at {
			at[i].Y = l.e.Place.Y // a row stays at its height
		}
		out.Say = fmt.Sprintf("%d in a row, %s, the same to the edges.", len(at), apart(across, l.write))
		return nil
	}
	out.Gap = min(across, down)
	out.Say = fmt.Sprintf("%d in all: across %s, down %s, the same to the edges.", len(at), apart(across, l.write), apart(down, l.write))
	return nil
}

func (l *laying) frame(out *Laid) error {
	at, err := layout.Frame(l.w, l.want.Gap, l.want.Inside, l.panel)
	if err != nil {
		return fmt.Errorf("lay a frame: %w", err)
	}
	l.at, l.round = at, true
	line := 2 * (l.panel.W() + l.panel.H() - 4*l.want.Inside)
	out.Gap = line/float64(len(at)) - l.w
	out.Say = fmt.Sprintf("%d close the frame, %s along the edge.", len(at), apart(out.Gap, l.write))
	if over := l.h/2 - l.want.Inside; over > layoutHair {
		out.Notes = append(out.Notes, fmt.Sprintf("It runs over the panel by %s: trim it from the back when the glue is dry, before the panel goes on its base, and keep the trimmings for the gaps.", l.write.Length(over)))
	}
	return nil
}

// mostField is how many pieces a field is filled with at the most.
const mostField = 120

// field fills the panel with copies of the element and of others, the largest first.
func (l *laying) field(out *Laid) error {
	ids := append([]string{l.e.ID}, l.want.With...)
	var sorts []layout.Sized
	var things []build.Thing
	for _, id := range ids {
		i := slices.IndexFunc(l.b.Things, func(t build.Thing) bool { return t.Element.ID == id })
		if i < 0 || l.b.Things[i].Outline.Empty() {
			return fmt.Errorf("fill a field with %q: it %w", id, card.ErrGone)
		}
		things = append(things, l.b.Things[i])
		sorts = append(sorts, layout.Sized{Radius: math.Sqrt(l.b.Things[i].Outline.Area() / math.Pi)})
	}
	var keep func(shape.Point) bool
	if i := slices.IndexFunc(l.b.Things, func(t build.Thing) bool { return t.Element.ID == l.want.Keep }); i >= 0 {
		// What will lie over it hides its middle: that stays thin, but for a rim to close up to.
		if hidden, err := l.b.Things[i].Outline.Filled().Offset(-keepRim); err == nil && !hidden.Empty() {
			keep = hidden.Contains
		}
	}
	got := layout.Field(sorts, l.overlap(), mostField, l.panel, keep)
	if len(got.Places) == 0 {
		return layout.ErrFew
	}
	counts := make([]int, len(sorts))
	by := make([][]card.Place, len(sorts))
	for i, p := range got.Places {
		counts[got.Of[i]]++
		by[got.Of[i]] = append(by[got.Of[i]], p)
	}
	for s, at := range by {
		if len(at) == 0 {
			continue
		}
		lay := &card.Lay{Element: things[s].Element.ID, Places: at}
		l.at, l.e = at, things[s].Element
		lay.Colourways = l.ways(out)
		out.Edits = append(out.Edits, card.Edit{Lay: lay})
	}
	out.Count = len(got.Places)
	out.Say = fmt.Sprintf("%d fill the panel", out.Count)
	if len(sorts) > 1 {
		out.Say += ":"
		for s, n := range counts {
			if s > 0 {
				out.Say += ","
			}
			out.Say += fmt.Sprintf(" %d of %s", n, things[s].Name)
		}
	}
	out.Say += fmt.Sprintf("; about %.0f %% of it is covered.", 100*got.Cover)
	if len(got.Gaps) > 0 {
		for _, g := range got.Gaps {
			out.Gaps = append(out.Gaps, card.Offset(g))
		}
		out.Notes = append(out.Notes, fmt.Sprintf("%d gaps stay, the widest %s across: fill them with trimmings from the edge, or with a smaller piece.", len(got.Gaps), l.write.Length(got.Widest)))
	}
	if out.Count == mostField {
		out.Notes = append(out.Notes, fmt.Sprintf("It stops at %d pieces: take larger ones for more.", mostField))
	}
	out.Notes = append(out.Notes, "Pieces run over the edge: trim them from the back when the glue is dry, before the panel goes on its base.")
	return nil
}

// keepRim is how far a field reaches under what lies over it, mm: our own default.
const keepRim = 4.0

// overlap is how much of its radius a piece of a field may lie over others.
func (l *laying) overlap() float64 {
	return max(0, min(0.45, -l.want.Gap/max(1, min(l.w, l.h))))
}

// twin lays a second one left for right on the other side of the panel's middle.
func (l *laying) twin(out *Laid) {
	p := l.e.Place
	twin := card.Place{X: l.panel.Min.X + l.panel.Max.X - p.X, Y: p.Y, Turn: -p.Turn, Mirror: !p.Mirror}
	l.at = []card.Place{p, twin}
	out.Gap = math.Abs(twin.X-p.X) - l.w
	out.Say = "A twin that looks the other way, across the middle of the panel: half the work of laying out."
	if l.e.Image != nil && slices.ContainsFunc(l.b.Pieces, func(q build.Piece) bool { return q.ID.Element == l.e.ID && q.Print() }) {
		out.Notes = append(out.Notes, "A stamp prints one way only: the twin has to be cut from card, or stamped from a mirrored stamp.")
	}
}

// centre moves it to the middle of the panel: by its box, or by the weight of its outline.
func (l *laying) centre(out *Laid) {
	c := l.outline.Bounds().Centre()
	what := "its box stands in the middle"
	if l.want.Kind == "weight" {
		c = l.outline.Centroid()
		what = "the weight of what shows of it stands in the middle"
	}
	m := l.panel.Centre()
	x, y := l.e.Place.X+m.X-c.X, l.e.Place.Y+m.Y-c.Y
	out.Edits = []card.Edit{{Put: &card.Put{Element: l.e.ID, X: &x, Y: &y}}}
	out.Count = 1
	out.Say = fmt.Sprintf("Moved by %s across and %s down, %s.", l.write.Length(math.Abs(x-l.e.Place.X)), l.write.Length(math.Abs(y-l.e.Place.Y)), what)
}

// ways are the colourways that take turns, and what closes badly with them: in a ring the
// last stands beside the first.
func (l *laying) ways(out *Laid) (ids []string) {
	if !l.want.Alternate || l.e.Image == nil {
		return nil
	}
	m, ok := l.b.Card.Motif(l.e.Image.Motif)
	if !ok || len(m.Colourways) < 2 {
		return nil
	}
	for _, w := range m.Colourways {
		if !plain(w) {
			ids = append(ids, w.ID)
		}
	}
	k, n := len(ids), len(l.at)
	if k < 2 {
		return nil
	}
	switch {
	case l.want.Kind == "grid":
		// Each row begins one on, so that no column is of one colour.
		cols := max(1, l.want.N)
		all := make([]string, n)
		for i := range all {
			all[i] = ids[(i%cols+i/cols*step(k))%k]
		}
		return all
	case l.round && n%k == 1 && k > 2:
		// The join closes where the last takes another than the first.
		all := make([]string, n)
		for i := range all {
			all[i] = ids[i%k]
		}
		all[n-1] = ids[1]
		return all
	case l.round && n%k == 1:
		out.Notes = append(out.Notes, fmt.Sprintf("Where it closes two of one colourway stand side by side: take %d or %d, or a third colourway.", n-1, n+k-1))
	}
	return ids
}

// plain reports whether no layer of a colourway has an ink yet: it is not laid in turn with
// those that are chosen.
func plain(w card.Colourway) bool {
	for _, f := range w.Layers {
		if f.Ink != "" || len(f.Blends) > 0 {
			return false
		}
	}
	return true
}

// step is by how many colourways each row of a grid begins further on.
func step(k int) int {
	if k > 3 {
		return 2
	}
	return 1
}
