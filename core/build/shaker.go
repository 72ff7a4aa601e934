package build

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// shakers are windows with something loose behind them.
var shakers = kind{
	is:    func(e card.Element) bool { return e.Shaker != nil },
	name:  func(card.Card, card.Element) string { return "Shaker" },
	build: func(b *Build, i int, images []Image) { b.shaker(i, images) },
}

// Parts of a shaker, the lowest first.
const (
	BackPart  = "back"
	WallPart  = "wall"
	FilmPart  = "film"
	FrontPart = "front"
)

// Our own defaults of shakers, mm.
const (
	wallWide    = 5.0
	wallLeast   = 2.0  // narrower than this no wall holds
	wallClear   = 1.0  // it stands so far back from the window that it is not seen
	wallHides   = 0.5  // and so far in from the edge of the front
	backSmaller = 1.0  // the backing, all round, so that it does not peek
	BaffleEach  = 40.0 // a bar of foam for each so many of a tall window
	baffleWide  = 4.0
)

// Shaking is what a shaker comes to.
type Shaking struct {
	Chambers shape.Region   // where its filling moves, in its own frame
	Wall     shape.Region   // with baffles, as far as there is room
	Lacks    float64        // mm² of wall that there is no room for: it is not closed
	LacksAt  shape.Point    // where, on the front
	High     float64        // of the wall, mm
	Long     float64        // of strip that the wall takes, mm
	Baffles  int            // bars across
	Islands  []shape.Region // loose islands of letters that are glued to the film
}

// shaker puts a shaker together: backing, wall, film and front, the lowest first.
func (b *Build) shaker(i int, images []Image) {
	t := &b.Things[i]
	e := t.Element
	s := e.Shaker
	t.At = e.Place
	front := s.Front()
	front.W, front.H = 0, 0 // its frame is as large as its die, where it has one
	made := b.leafed(card.Element{ID: e.ID, Sheet: &front}, t.At, s.W, s.H, images)
	t.Local, t.Whole, t.Openings, t.Islands, t.Problem = made.whole, made.whole, made.openings, made.islands, made.problem
	t.Shaking = &Shaking{}
	sp, ok := b.Stock.Spacer(s.Wall)
	switch {
	case t.Problem != "":
	case len(made.openings) == 0:
		t.Problem = "Its window cannot be cut: choose another."
	case !ok || sp.Thickness <= 0:
		t.Problem = "Its wall is of nothing: choose a spacer with a thickness for it in Front."
	}
	if t.Problem != "" {
		return
	}
	t.Shaking.High = sp.Thickness * float64(s.Levels())
	if err := t.walled(*s); err != nil {
		t.Problem = fmt.Sprintf("Its wall cannot be cut: %v.", err)
		return
	}
	smaller := backSmaller
	if s.Back != 0 {
		smaller = s.Back
	}
	back, err := made.whole.Offset(-smaller)
	if err != nil || back.Empty() {
		t.Problem = "Its backing would be nothing: make it less small."
		return
	}
	leaf := func(part, paper string, g shape.Region, bonds []card.Bond) Piece {
		body := b.Stock.PaperColour(paper).Hex()
		p := Piece{ID: ID{e.ID, part}, Local: g, Stock: paper, Thick: b.Stock.Caliper(paper), Plies: 1, Body: body, Top: body, Clear: b.clear(paper), frame: frame{at: t.At}}
		b.hold(&p, bonds)
		return p
	}
	glue := card.Glue("")
	backing := leaf(BackPart, s.Backing, back, e.Bonds)
	backing.On = b.Carrier(e)
	backing.Films = t.filling(*s)
	wall := Piece{ID: ID{e.ID, WallPart}, On: backing.ID, Local: t.Shaking.Wall, Thick: t.Shaking.High, Foam: sp.Foam(), Body: foamBody, Top: foamBody, frame: frame{at: t.At}}
	ps := []Piece{backing, wall}
	on := wall.ID
	if s.Film != "" && !s.Pouch {
		film := leaf(FilmPart, s.Film, back, glue)
		if smaller < 0 {
			film.Local = made.whole // it goes behind the frame, however large the backing is
		}
		film.On, on = on, film.ID
		ps = append(ps, film)
	}
	top := leaf(FrontPart, s.Paper, made.local, glue)
	top.On = on
	ps = append(ps, top)
	b.laid(t, ps)
}

// foamBody is the colour of foam.
const foamBody = "#f2f2ee"

// walled works out the chambers and the wall round them and round every island: a strip
// just behind the edge of each window, as wide as there is room for.
func (t *Thing) walled(s card.Shaker) error {
	open, err := shape.UnionAll(t.Openings...)
	if err != nil {
		return fmt.Errorf("join the windows: %w", err)
	}
	for _, g := range t.Openings {
		t.Shaking.Islands = append(t.Shaking.Islands, g.Holes()...)
	}
	wide := wallWide
	if s.Wide > 0 {
		wide = s.Wide
	}
	room, err := t.Whole.Offset(-wallHides)
	if err != nil {
		return fmt.Errorf("stand it in from the edge: %w", err)
	}
	chamber, err := open.Offset(wallClear)
	if err != nil {
		return fmt.Errorf("stand it back from the window: %w", err)
	}
	// What an island leaves of the chamber is walled round by foam of its own shape.
	chambers := chamber.Filled()
	for try := wide; ; try = max(wallLeast, try-1) {
		outer, err := chambers.Offset(try)
		if err != nil {
			return fmt.Errorf("make it %.1f mm wide: %w", try, err)
		}
		ring, err := outer.Minus(chambers)
		if err != nil {
			return fmt.Errorf("make it %.1f mm wide: %w", try, err)
		}
		wall, err := ring.Intersect(room)
		if err != nil {
			return fmt.Errorf("keep it behind the front: %w", err)
		}
		lacks, err := ring.Minus(room)
		if err != nil {
			return fmt.Errorf("keep it behind the front: %w", err)
		}
		t.Shaking.Wall, t.Shaking.Lacks, t.Shaking.LacksAt = wall, lacks.Area(), t.Place(lacks).Bounds().Centre()
		if lacks.Area() < 0.5 {
			t.Shaking.Lacks = 0
			t.Shaking.Long = ring.Area() / try
		}
		if t.Shaking.Lacks == 0 || try <= wallLeast || s.Wide > 0 {
			break
		}
	}
	t.Shaking.Chambers = chambers
	for _, island := range t.Shaking.Islands {
		post, err := island.Offset(-wallHides)
		if err != nil || post.Empty() {
			continue // glued to the film as it is
		}
		if t.Shaking.Wall, err = t.Shaking.Wall.Union(post); err != nil {
			return fmt.Errorf("wall an island: %w", err)
		}
		if t.Shaking.Chambers, err = t.Shaking.Chambers.Minus(post); err != nil {
			return fmt.Errorf("wall an island: %w", err)
		}
		t.Shaking.Long += post.Length() / 2
	}
	if s.Baffles {
		return t.baffles()
	}
	return nil
}

// TallWindow is how many bars a shaker wants for the height of its chambers.
func TallWindow(high float64) int { return max(0, int(math.Ceil(high/BaffleEach-1e-9))-1) }

// baffles puts bars of foam across tall chambers, evenly.
func (t *Thing) baffles() error {
	whole := t.Shaking.Chambers
	for _, c := range whole.Pieces() {
		box := c.Bounds()
		n := TallWindow(box.H())
		for k := 1; k <= n; k++ {
			y := box.Min.Y + box.H()*float64(k)/float64(n+1)
			bar, err := c.Intersect(shape.Rect(box.Min.X-1, y-baffleWide/2, box.W()+2, baffleWide))
			if err != nil {
				return fmt.Errorf("put a baffle in: %w", err)
			}
			if t.Shaking.Wall, err = t.Shaking.Wall.Union(bar); err != nil {
				return fmt.Errorf("put a baffle in: %w", err)
			}
			if t.Shaking.Chambers, err = t.Shaking.Chambers.Minus(bar); err != nil {
				return fmt.Errorf("put a baffle in: %w", err)
			}
			t.Shaking.Baffles++
			t.Shaking.Long += bar.Area() / baffleWide
		}
	}
	return nil
}

// filling draws what is loose in the chambers, spread over them without chance.
func (t *Thing) filling(s card.Shaker) []Film {
	var out []Film
	box := t.Shaking.Chambers.Bounds()
	const right, down = 0.7548776662466927, 0.5698402909980532 // multiples of these fill a square evenly
	n := 0
	for _, f := range s.Filling {
		r := min(3, max(0.4, f.High*0.6))
		for k := 0; k < min(f.N, 60); n++ {
			if n > 4000 {
				return out
			}
			_, u := math.Modf(float64(n+1) * right)
			_, v := math.Modf(float64(n+1) * down)
			p := shape.Point{X: box.Min.X + u*box.W(), Y: box.Min.Y + math.Sqrt(v)*box.H()}
			if !t.Shaking.Chambers.Contains(p) {
				continue
			}
			k++
			out = append(out, Film{Region: shape.Disc(p, r), Colour: f.Colour})
		}
	}
	return out
}
