package advise

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// SheetSeat is a place in a sheet where an image goes: pressed into it by a background die, or
// cut out of it.
type SheetSeat struct {
	X       float64   `json:"x" doc:"its middle on the front, from the left, mm"`
	Y       float64   `json:"y" doc:"from the top, mm"`
	W       float64   `json:"w" doc:"mm"`
	H       float64   `json:"h" doc:"mm"`
	Path    string    `json:"path" doc:"its outline on the front"`
	Where   string    `json:"where" doc:"where on the sheet, in a word or two"`
	Window  bool      `json:"window" doc:"it is cut out, not pressed in"`
	Taken   string    `json:"taken,omitempty" doc:"what lies in it already"`
	Fits    []SeatFit `json:"fits" nullable:"false" doc:"the images of the card, those that go in first, the closest first"`
	Through []Seen    `json:"through" nullable:"false" doc:"of one that is cut out: what is seen through it of what lies beneath"`
	Crop    *Crop     `json:"crop,omitempty" doc:"how the sheet behind it would be cropped to it"`
}

// SeatFit is how an image goes into a seat, upright as the sheet lies.
type SeatFit struct {
	Motif   string  `json:"motif"`
	Name    string  `json:"name"`
	Spare   float64 `json:"spare" doc:"mm left between its outline and the seat's where they come nearest, at its best place; below 0: it stands over by so much"`
	Element string  `json:"element,omitempty" doc:"one of it that lies in no seat yet; empty: none does"`
	X       float64 `json:"x" doc:"where its middle goes, mm"`
	Y       float64 `json:"y" doc:"mm"`
}

// farOff is from where on an image is too large for a seat to be named with it: it stands
// over by so much, mm.
const farOff = 6.0

// SeatsOf lists the seats of a sheet on the front and how the images of the card fit into
// them; none where the sheet has none. The error wraps card.ErrGone.
func SeatsOf(b *build.Build, element string) ([]SheetSeat, error) {
	at := slices.IndexFunc(b.Things, func(t build.Thing) bool { return t.Element.ID == element && t.Element.Sheet != nil })
	if at < 0 {
		return nil, fmt.Errorf("the seats of %q: the sheet %w", element, card.ErrGone)
	}
	sheet := b.Things[at]
	seats := make([]shape.Region, 0, len(sheet.Seats))
	for _, g := range slices.Concat(sheet.Seats, sheet.Openings) {
		seats = append(seats, sheet.Place(g))
	}
	open := func(g shape.Region) bool { return !sheet.Outline.Contains(g.Bounds().Centre()) }
	// As one reads: from the top down, from the left to the right.
	whole := sheet.Outline.Bounds()
	row := func(g shape.Region) int {
		return int(seatRows * (g.Bounds().Centre().Y - whole.Min.Y) / max(whole.H(), 1))
	}
	slices.SortStableFunc(seats, func(a, b shape.Region) int {
		return cmp.Or(cmp.Compare(row(a), row(b)), cmp.Compare(a.Bounds().Centre().X, b.Bounds().Centre().X))
	})
	lies := func(t build.Thing) int {
		return slices.IndexFunc(seats, func(g shape.Region) bool { return g.Contains(t.Outline.Bounds().Centre()) })
	}
	out := make([]SheetSeat, 0, len(seats))
	for n, g := range seats {
		box := g.Bounds()
		c := box.Centre()
		s := SheetSeat{X: c.X, Y: c.Y, W: box.W(), H: box.H(), Path: g.Path(), Where: whereOn(c, whole), Fits: []SeatFit{}}
		if s.Through, s.Window = []Seen{}, open(g); s.Window {
			s.Through, s.Crop = throughWindow(b, at, g)
		}
		field := shape.NewField(g, 0.5)
		for i, t := range b.Things {
			if i != at && t.Element.Image != nil && !t.Outline.Empty() && lies(t) == n && s.Taken == "" {
				s.Taken = t.Name
			}
		}
		for i, m := range b.Made {
			if slices.ContainsFunc(b.Made[:i], func(o build.Made) bool { return o.Image.ID == m.Image.ID }) {
				continue
			}
			sil := m.Image.Shapes.Silhouette
			upright := layout.Place(sil, sil.Bounds(), card.Place{Turn: sheet.At.Turn})
			spare, p := seated(upright, g, field)
			if spare < -farOff {
				continue
			}
			f := SeatFit{Motif: m.Image.ID, Name: m.Image.Motif.Name, Spare: spare, X: p.X, Y: p.Y}
			for _, o := range b.Made {
				for _, j := range o.Things {
					if t := b.Things[j]; o.Image.ID == m.Image.ID && f.Element == "" && t.Element.Face == card.Front && lies(t) < 0 {
						f.Element = t.Element.ID
					}
				}
			}
			s.Fits = append(s.Fits, f)
		}
		slices.SortStableFunc(s.Fits, func(a, b SeatFit) int {
			if in, also := a.Spare >= 0, b.Spare >= 0; in != also {
				return cmp.Compare(b.Spare, a.Spare)
			}
			return cmp.Compare(math.Abs(a.Spare), math.Abs(b.Spare))
		})
		out = append(out, s)
	}
	return out, nil
}

// seated is the best place for an outline about its middle in a seat, without turning it,
// and the least distance there, mm, between its edge and the seat's: below 0 it stands
// over by so much.
func seated(g, seat shape.Region, field *shape.Field) (spare float64, at shape.Point) {
	edge := shape.Along(g, 0.8)
	worth := func(p shape.Point) float64 {
		least := math.Inf(1)
		for _, q := range edge {
			least = min(least, field.Inside(q.Add(p)))
		}
		return least
	}
	// From several starts: a seat that is not convex has more than one good place.
	box := seat.Bounds()
	starts := []shape.Point{box.Centre(), seat.Centroid()}
	for _, dx := range []float64{-0.25, 0.25} {
		for _, dy := range []float64{-0.25, 0.25} {
			starts = append(starts, box.Centre().Add(shape.Point{X: dx * box.W(), Y: dy * box.H()}))
		}
	}
	best := math.Inf(-1)
	for _, p := range starts {
		v := worth(p)
		for step := min(box.W(), box.H()) / 6; step > 0.02; step /= 2 {
			for moved := true; moved; {
				moved = false
				for _, d := range []shape.Point{{X: step}, {X: -step}, {Y: step}, {Y: -step}, {X: step, Y: step}, {X: -step, Y: step}, {X: step, Y: -step}, {X: -step, Y: -step}} {
					if u := worth(p.Add(d)); u > v+1e-9 {
						p, v, moved = p.Add(d), u, true
					}
				}
			}
		}
		if v > best {
			best, at = v, p
		}
	}
	// Exactly, where it lies best.
	spare = math.Inf(1)
	for _, q := range edge {
		d := seat.EdgeDistance(q.Add(at))
		if !seat.Contains(q.Add(at)) {
			d = -d
		}
		spare = min(spare, d)
	}
	return spare, at
}

// seatRows is in how many rows a sheet is read.
const seatRows = 8

// whereOn says in which third of a box a point lies.
func whereOn(p shape.Point, in shape.Box) string {
	third := func(v, from, long float64) int { return min(2, max(0, int(3*(v-from)/max(long, 1e-9)))) }
	across := []string{"left", "", "right"}[third(p.X, in.Min.X, in.W())]
	down := []string{"top", "", "foot"}[third(p.Y, in.Min.Y, in.H())]
	switch {
	case across == "" && down == "":
		return "in the middle"
	case across == "":
		return map[string]string{"top": "at the top", "foot": "at the foot"}[down]
	case down == "":
		return "at the " + across
	}
	return down + " " + across
}
