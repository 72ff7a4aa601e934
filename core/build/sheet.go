package build

import (
	"errors"
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
	"ochrestone/core/words"
)

// sheets are mats, the panel, frames, strips, banners and other leaves of any outline.
var sheets = kind{
	is:    func(e card.Element) bool { return e.Sheet != nil },
	name:  sheetName,
	build: func(b *Build, i int, images []Image) { b.sheet(i, images) },
}

// sheetName is what a sheet is called: a mat by its place, a strip by its words.
func sheetName(c card.Card, e card.Element) string {
	if e.Inset != nil {
		mats := c.Mats()
		if i := slices.IndexFunc(mats, func(o card.Element) bool { return o.ID == e.ID }); i >= 0 {
			return card.MatName(i, len(mats))
		}
		return "Sheet"
	}
	if w := e.Sheet.Words(); w != nil && w.Text != "" {
		return "Strip “" + w.Text + "”"
	}
	return "Strip"
}

// sheet builds a leaf of paper with all that is done to it: one that lies in its place, or
// by its margins. What lies beside the card is treated too, and is no piece of the front.
func (b *Build) sheet(i int, images []Image) {
	t := &b.Things[i]
	e := t.Element
	s := e.Sheet
	w, h := s.W-2*s.Trim, s.H-2*s.Trim
	t.At = e.Place
	if e.Inset != nil && e.Face == card.Front {
		at := leafOf(b.Leaves, e.ID)
		if at == nil {
			return // the mats do not fit
		}
		t.Leaf, w, h = at, at.Size.W, at.Size.H
		t.At = card.Place{X: at.X + w/2, Y: at.Y + h/2}
	}
	made := b.remembered(e, t.At, w, h, images)
	t.Local, t.Whole, t.Openings, t.Islands, t.Problem = made.local, made.whole, made.openings, made.islands, made.problem
	t.Treated, t.Patches, t.Seats, t.Died = made.treated, made.patches, made.seats, made.died
	b.Patterns = append(b.Patterns, made.patterns...)
	body := b.Stock.PaperColour(s.Paper).Hex()
	p := Piece{ID: ID{Element: e.ID}, On: b.Carrier(e), Local: made.local, Films: made.films, Stock: s.Paper, Thick: b.Stock.Caliper(s.Paper), Plies: 1, Body: body, Top: body, Clear: b.clear(s.Paper)}
	b.hold(&p, e.Bonds)
	for i := range p.Holds {
		p.Holds[i].Flap = e.Sheet.Flap
	}
	p.frame.at = t.At
	if made.top != "" {
		p.Top = made.top
	}
	if e.Face != card.Front {
		t.Drawn = []Piece{p}
		return
	}
	t.Leaves = 1
	p.Outline = t.Place(made.local)
	t.Outline, t.Rough = p.Outline, p.Outline.Simplify(Hair)
	b.Pieces = append(b.Pieces, p)
	t.Drawn = b.Pieces[len(b.Pieces)-1:]
}

// leafed puts a sheet of w by h mm at a place together in its own frame: cut out, opened,
// treated.
func (b *Build) leafed(e card.Element, at card.Place, w, h float64, images []Image) (out leafed) {
	s := e.Sheet
	whole, died, err := layout.Sheet(*s, w, h, b.part)
	if err != nil {
		out.problem = said(err)
		whole = shape.Rect(-w/2, -h/2, w, h)
	}
	out.whole, out.died = whole, died
	b.open(&out, s.Openings)
	g := newGround(b, s.Paper, out.local)
	cut := shape.Rect(-w/2-s.Trim, -h/2-s.Trim, w+2*s.Trim, h+2*s.Trim).Bounds()
	doing := treating{ground: g, e: e, at: at, size: cut, whole: whole, images: images}
	if o := s.Shape; died {
		// The die presses its lines as it cuts.
		if p, ok := b.partOf(o.Set, o.Part); ok {
			c := p.Outline.Bounds().Centre()
			for _, seat := range p.Seats() {
				doing.seats = append(doing.seats, seat.Move(shape.Point{X: -c.X, Y: -c.Y}))
			}
			if err := doing.lines(p, card.Place{}); err != nil {
				out.problem = words.Capital(err.Error()) + "."
			}
		}
	}
	for n, tr := range s.Treatments {
		g.now = n
		done, err := doing.treat(tr)
		if err != nil {
			done.Problem = "It cannot be drawn: " + err.Error() + "."
		}
		out.treated = append(out.treated, done)
	}
	for n, tr := range s.Treatments {
		if tr.Words != nil {
			out.treated[n].Read = g.read(out.treated[n].Regions, tr.Words.Letter)
		}
	}
	out.seats = doing.seats
	out.patches, out.films, out.patterns = g.patches, g.films, doing.patterns
	if len(g.films) > 0 {
		out.top = g.under(out.local).Hex()
	}
	return out
}

// said is why an outline cannot be cut, for people.
func said(err error) string {
	if errors.Is(err, layout.ErrNoPart) {
		return noPart
	}
	return words.Capital(err.Error()) + "."
}

// clear reports whether a stock is seen through.
func (b *Build) clear(paper string) bool {
	p, ok := b.Stock.Paper(paper)
	return ok && !p.Opaque()
}

// open cuts openings out of a sheet; those that leave nothing of it are left out, and said.
func (b *Build) open(t *leafed, openings []card.Opening) {
	t.local = t.whole
	for n, o := range openings {
		hole, islands, err := b.opening(o)
		if err != nil {
			t.problem = fmt.Sprintf("Opening %d: %s", n+1, said(err))
			continue
		}
		t.islands += islands
		if !o.Islands {
			hole = hole.Filled()
		}
		rest, err := t.local.Minus(hole)
		switch {
		case err != nil:
			t.problem = fmt.Sprintf("Opening %d cannot be cut: %v.", n+1, err)
		case rest.Area() < leastLeft*t.whole.Area():
			t.problem = fmt.Sprintf("Opening %d leaves nothing of it: make it smaller.", n+1)
		default:
			t.local = rest
		}
		t.openings = append(t.openings, hole)
	}
}

// leastLeft is the share of a sheet that openings have to leave.
const leastLeft = 0.002

// opening is what is cut out, in the frame of the sheet, and how many loose islands fall
// out of it.
func (b *Build) opening(o card.Opening) (hole shape.Region, islands int, err error) {
	if o.Text == "" {
		g, err := layout.Outline(&o.Outline, o.W, o.H, b.part)
		if err != nil {
			return g, 0, fmt.Errorf("cut an opening: %w", err)
		}
		return layout.Place(g, shape.Box{}, card.Place{X: o.X, Y: o.Y, Turn: o.Turn}), 0, nil
	}
	letters, _ := layout.Written(b.with.Face, card.Words{Text: o.Text, Letter: o.H, Spot: card.Spot{X: o.X, Y: o.Y, Turn: o.Turn}})
	if len(letters) == 0 {
		return hole, 0, layout.ErrNoLetters
	}
	if hole, err = shape.UnionAll(letters...); err != nil {
		return hole, 0, fmt.Errorf("cut the letters of %q: %w", o.Text, err)
	}
	return hole, len(hole.Holes()), nil
}

func leafOf(leaves []card.Leaf, id string) *card.Leaf {
	for i := range leaves {
		if leaves[i].ID == id {
			return &leaves[i]
		}
	}
	return nil
}
