package build

import (
	"fmt"
	"slices"

	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/layout"
	"ochrestone/core/motif"
	"ochrestone/core/shape"
)

func (t *treating) words(w card.Words) (Treated, error) {
	letters, wide := layout.Written(t.b.with.Face, w)
	out := Treated{Regions: letters, Wide: wide}
	all, err := shape.UnionAll(letters...)
	if err != nil {
		return out, fmt.Errorf("write %q: %w", w.Text, err)
	}
	if err := t.ink(all, w.Ink, 1); err != nil || all.Empty() {
		return out, err
	}
	if mid := all.Bounds().Centre(); w.Shade != "" {
		if err := t.blends(all, all.Bounds(), []card.Place{{X: mid.X, Y: mid.Y}}, w.Finish()); err != nil {
			return out, err
		}
	}
	if !w.Emboss {
		return out, nil
	}
	return out, t.raise(all, true, shineBy)
}

// image finds an image of the card, and its look in a colourway.
func (t *treating) image(id string) (Image, bool) {
	i := slices.IndexFunc(t.images, func(m Image) bool { return m.ID == id })
	if i < 0 || t.images[i].Problem != "" || len(t.images[i].Shapes.Views) == 0 {
		return Image{}, false
	}
	return t.images[i], true
}

// strikes are prints of one layer in one colourway.
type strikes struct {
	way    string
	prints []shape.Region
	at     []card.Place // where each lies
}

// fewPrints is how many prints are laid one by one, so that where two meet the ink is seen
// to be twice; those of a longer repeat are laid all together.
const fewPrints = 16

// struck lays an outline at places, in the colourways of each.
func struck(g shape.Region, box shape.Box, at []card.Place, ways []string) (out []strikes) {
	for n, p := range at {
		i := slices.IndexFunc(out, func(s strikes) bool { return s.way == ways[n] })
		if i < 0 || len(at) <= fewPrints {
			i, out = len(out), append(out, strikes{way: ways[n]})
		}
		out[i].prints, out[i].at = append(out[i].prints, layout.Place(g, box, p)), append(out[i].at, p)
	}
	return out
}

// strike prints the stamped and stencilled layers of an image on the sheet at places, all
// strikes of one layer before those of the next.
func (t *treating) strike(m Image, at []card.Place, ways []string) (Treated, error) {
	out := Treated{Prints: len(at), Plain: true}
	box := m.Shapes.Silhouette.Bounds()
	laid, on := 0.0, 0.0
	for _, v := range m.Shapes.Views {
		if v.Layer.Make == card.Cut {
			continue
		}
		for _, g := range struck(v.Outline, box, at, ways) {
			w, _ := m.Motif.Colourway(g.way)
			f := w.Layers[v.Layer.ID]
			if f.Ink == "" && len(f.Blends) == 0 {
				continue
			}
			out.Plain = false
			all, err := shape.UnionAll(g.prints...)
			if err != nil {
				return out, fmt.Errorf("print %s: %w", m.Motif.Name, err)
			}
			in, err := all.Intersect(t.outline)
			if err != nil {
				return out, fmt.Errorf("print %s: %w", m.Motif.Name, err)
			}
			laid, on = laid+all.Area(), on+in.Area()
			out.Regions = append(out.Regions, in)
			t.prints = append(t.prints, in)
			if err := t.ink(in, f.Ink, f.Strikes()); err != nil {
				return out, err
			}
			if err := t.blends(v.Outline, box, g.at, f); err != nil {
				return out, err
			}
		}
	}
	if laid > 0 {
		out.Off = 1 - on/laid
	}
	return out, nil
}

// blendBands is in how many steps an ink dabbed on a part of a stamp fades out.
const blendBands = 4

// blends lays the inks that are worked into zones of a layer wherever it was printed, fading
// out from each zone as on a piece of its own.
func (t *treating) blends(g shape.Region, box shape.Box, at []card.Place, f card.Finish) error {
	before := map[card.Zone]int{}
	for _, bl := range f.Blends {
		reach := blend.Reach(g, bl.Zone, before[bl.Zone])
		before[bl.Zone]++
		bands, err := blend.Bands(g, bl.Zone, reach, blendBands)
		if err != nil {
			return fmt.Errorf("blend a print: %w", err)
		}
		full := t.inked(bl.Ink, bl.Strikes())
		for _, band := range bands {
			var all []shape.Region
			for _, p := range at {
				all = append(all, layout.Place(band.Region, box, p))
			}
			laid, err := shape.UnionAll(all...)
			if err != nil {
				return fmt.Errorf("blend a print: %w", err)
			}
			if err := t.apply(laid, func(under colour.Linear, bare bool) colour.Linear { return mixed(under, full(under, bare), band.Cover) }); err != nil {
				return err
			}
		}
	}
	return nil
}

// gone says that something a treatment needs is not there.
const gone = "Its image cannot be worked out."

// unprinted says that an image is all cut.
const unprinted = "Its image has no layer that is stamped or stencilled."

func (t *treating) turned(p card.Turned) (Treated, error) {
	m, ok := t.image(p.Motif)
	if !ok {
		return Treated{Problem: gone}, nil
	}
	q := PatternOf(t.e, t.now, m, t.whole, t.size)
	t.patterns = append(t.patterns, q)
	if q.Problem != "" {
		return Treated{Problem: q.Problem}, nil
	}
	// The pattern is turned about what is printed, the strikes are laid about the whole image.
	box := m.Shapes.Silhouette.Bounds().Centre()
	var at []card.Place
	var ways []string
	for _, s := range q.Strikes {
		d := shape.Raw(shape.Ring{{X: box.X - q.MidX, Y: box.Y - q.MidY}}).Turn(s.Turn, shape.Point{}).Rings()[0][0]
		at = append(at, card.Place{X: s.X + d.X, Y: s.Y + d.Y, Turn: s.Turn})
		ways = append(ways, s.Colourway)
	}
	return t.strike(m, at, ways)
}

func (t *treating) print(p card.Print) (Treated, error) {
	m, ok := t.image(p.Motif)
	if !ok {
		return Treated{Problem: gone}, nil
	}
	if !slices.ContainsFunc(m.Shapes.Views, func(v motif.View) bool { return v.Layer.Make != card.Cut }) {
		return Treated{Problem: unprinted}, nil
	}
	at := []card.Place{{X: p.X, Y: p.Y, Turn: p.Turn}}
	if p.Rows != nil {
		box := m.Shapes.Silhouette.Bounds()
		if box.W()*box.H() > mostDeep*p.Rows.Across*p.Rows.Down {
			return Treated{Problem: fmt.Sprintf("With such steps each print lies over %d others and more: take larger ones.", mostDeep)}, nil
		}
		at = layout.Rows(*p.Rows, p.Spot, box.W(), box.H(), t.outline.Bounds())
	}
	if len(at) > mostPrints {
		return Treated{Problem: fmt.Sprintf("%d prints in a repeat are too many: at most %d; take larger steps.", len(at), mostPrints)}, nil
	}
	ways := make([]string, len(at))
	for i := range at {
		ways[i] = p.Colourways[i%len(p.Colourways)]
	}
	if len(at) == 0 {
		return Treated{Problem: "No print of the repeat falls on the sheet."}, nil
	}
	return t.strike(m, at, ways)
}

// mostDeep is how many prints of a repeat may lie over each other.
const mostDeep = 8

// mostPrints is how many prints one repeat may have.
const mostPrints = 400

func (t *treating) stencil(s card.Stencil) (Treated, error) {
	g, ok := t.b.part(s.Set, s.Part)
	if !ok {
		return Treated{Problem: noPart}, nil
	}
	box := g.Bounds()
	first := layout.Place(g, box, card.Place{X: s.X, Y: s.Y, Turn: s.Turn})
	all := []shape.Region{first}
	for _, x := range s.Shifts {
		all = append(all, layout.Place(g, box, card.Place{X: s.X + x.X, Y: s.Y + x.Y, Turn: s.Turn, Mirror: x.Flip}))
	}
	laid, err := shape.UnionAll(all...)
	if err != nil {
		return Treated{}, fmt.Errorf("lay a stencil: %w", err)
	}
	in, err := laid.Intersect(t.outline)
	if err != nil {
		return Treated{}, fmt.Errorf("lay a stencil: %w", err)
	}
	out := Treated{Regions: []shape.Region{in}, Prints: len(all)}
	if a := laid.Area(); a > 0 {
		out.Off = 1 - in.Area()/a
	}
	if s.Over {
		out.Openings = len(laid.Pieces())
		if out.Misses, err = t.misses(laid); err != nil {
			return out, err
		}
		if s.Taped && len(out.Misses) > 0 {
			tape, err := shape.UnionAll(out.Misses...)
			if err != nil {
				return out, fmt.Errorf("tape the openings of a stencil: %w", err)
			}
			if in, err = in.Minus(tape); err != nil {
				return out, fmt.Errorf("tape the openings of a stencil: %w", err)
			}
			out.Taped, out.Misses, out.Regions = len(out.Misses), nil, []shape.Region{in}
		}
	}
	if err := t.ink(in, s.Ink, 1); err != nil || !s.Paste {
		return out, err
	}
	return out, t.raise(in, true, shineBy)
}
