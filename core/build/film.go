package build

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// Film is ink, powder or a mark on a leaf, in the leaf's own frame: about its middle, as
// it lies unturned. Films are painted one over the other in their order.
type Film struct {
	Region    shape.Region
	Colour    string // as it dries, #rrggbb
	Treatment int    // which of the sheet's; of letters 0
}

// Patch is a part of a leaf in one colour; a later one lies over those before it.
type Patch struct {
	Region shape.Region
	Colour colour.Linear
	bare   bool // card without any ink yet
	nest   int  // patches of one nest lie each within the one before; 0: of none
	box    shape.Box
}

// ground is a leaf while it is treated: what colour it has where, and the films that paint
// that.
type ground struct {
	b       *Build
	paper   string
	outline shape.Region
	patches []Patch
	films   []Film
	now     int // treatment in hand
	nests   int
}

func newGround(b *Build, paper string, outline shape.Region) *ground {
	g := &ground{b: b, paper: paper, outline: outline}
	g.put(Patch{Region: outline, Colour: b.Stock.PaperColour(paper), bare: true})
	return g
}

func (g *ground) put(p Patch) {
	p.box = p.Region.Bounds()
	g.patches = append(g.patches, p)
}

// sameColour is the difference, CIEDE2000, under which an ink on two neighbouring grounds
// counts as one colour: less is hardly seen within a print, whose own tooth is as uneven.
const sameColour = 2.2

// mostPatches is over how many patches ink is told apart, those of fades not counted: every
// print over others doubles them, and past that it takes the colour that is beneath it on
// the whole.
const mostPatches = 48

// within is what of a region lies on the leaf.
func (g *ground) within(region shape.Region) (shape.Region, error) {
	if g.outline.Covers(region) {
		return region, nil
	}
	in, err := region.Intersect(g.outline)
	if err != nil {
		return in, fmt.Errorf("cut ink off at the edge of a sheet: %w", err)
	}
	return in, nil
}

// makes is what becomes of a colour beneath; bare tells that it is card without any ink.
type makes func(under colour.Linear, bare bool) colour.Linear

// apply changes the colour of a region of the leaf. Where what is beneath has several
// colours the region is painted in each of them, from the lowest patch up, so that no seam
// is left between them.
func (g *ground) apply(region shape.Region, to makes) error {
	if region.Empty() {
		return nil
	}
	region, err := g.within(region)
	if err != nil || region.Empty() {
		return err
	}
	box := region.Bounds()
	met := 0
	for _, p := range g.patches {
		if p.nest == 0 && p.box.Meets(box) {
			met++
		}
	}
	if met > mostPatches {
		c := to(g.under(region), false)
		g.films = append(g.films, Film{region, c.Hex(), g.now})
		g.put(Patch{Region: region, Colour: c})
		return nil
	}
	laid := 0
	var last Patch
	for _, p := range g.patches {
		if !p.box.Meets(box) {
			continue
		}
		c := to(p.Colour, p.bare)
		// Within a nest the next is told apart only where its colour is.
		if laid > 0 && p.nest != 0 && p.nest == last.nest && colour.Difference(c.Lab(), last.Colour.Lab()) < sameColour {
			continue
		}
		in := region
		whole := p.Region.Covers(region)
		if !whole {
			if !region.Overlaps(p.Region) {
				continue
			}
			if in, err = region.Intersect(p.Region); err != nil {
				return fmt.Errorf("lay ink on a sheet: %w", err)
			}
		}
		if in.Empty() {
			continue
		}
		if whole {
			// It hides all that was laid before it.
			g.films = g.films[:len(g.films)-laid]
			laid = 0
		}
		g.films = append(g.films, Film{in, c.Hex(), g.now})
		last = Patch{Colour: c, nest: p.nest}
		laid++
	}
	for _, f := range g.films[len(g.films)-laid:] {
		c, err := colour.ParseHex(f.Colour)
		if err != nil {
			continue
		}
		g.put(Patch{Region: f.Region, Colour: c})
	}
	return nil
}

// ink lays ink on a region so often.
func (g *ground) ink(region shape.Region, ink string, strikes int) error {
	return g.apply(region, g.inked(ink, strikes))
}

// inked is what an ink makes of the colours beneath it; one the stores do not hold leaves
// them as they are.
func (g *ground) inked(ink string, strikes int) makes {
	return func(under colour.Linear, bare bool) colour.Linear {
		paper := ""
		if bare {
			paper = g.paper
		}
		d, ok := g.b.Stock.Dried(card.Finish{Ink: ink, Impressions: strikes}, under, paper)
		if !ok {
			return under
		}
		return d.Dry
	}
}

// mixed averages light where one colour covers a share of another (Murray and Davies).
func mixed(under, over colour.Linear, cover float64) colour.Linear {
	for c := range under {
		under[c] += cover * (over[c] - under[c])
	}
	return under
}

// mark paints a region without counting it as ink: light and shade of what is pressed, the
// shine of a coat.
func (g *ground) mark(region shape.Region, c colour.Linear) error {
	if region.Empty() {
		return nil
	}
	in, err := g.within(region)
	if err == nil && !in.Empty() {
		g.films = append(g.films, Film{in, c.Hex(), g.now})
	}
	return err
}

// under is the colour of a region on the whole.
func (g *ground) under(region shape.Region) colour.Linear {
	c, _ := MeanOf(g.patches, region)
	return c
}

// lookRows is along how many lines a region is looked at for its colour, and lookMost how
// many points it is looked at on each of them at the most.
const lookRows, lookMost = 24, 24

// MeanOf is the colour patches have within a region on the whole, and the share of it, 0
// to 1, on which they lie at all: looked at along lines across it.
func MeanOf(patches []Patch, region shape.Region) (mean colour.Linear, share float64) {
	box := region.Bounds()
	n, on := 0, 0
	for row := range lookRows {
		y := box.Min.Y + box.H()*(float64(row)+0.5)/lookRows
		for _, x := range region.Cross(y) {
			k := max(1, int(math.Round(lookMost*(x[1]-x[0])/max(box.W(), 1e-9))))
			for i := range k {
				n++
				p := shape.Point{X: x[0] + (x[1]-x[0])*(float64(i)+0.5)/float64(k), Y: y}
				if at := topmost(patches, p); at >= 0 {
					on++
					for c := range mean {
						mean[c] += patches[at].Colour[c]
					}
				}
			}
		}
	}
	for c := range mean {
		mean[c] /= max(1, float64(on))
	}
	return mean, float64(on) / max(1, float64(n))
}

// mostBeside is at how many points round an outline a ground is looked at, at the most.
const mostBeside = 64

// Beside is the colour a sheet has round an outline that lies on it on the front, so far
// from its edge, mm, and the share of that, 0 to 1, that lies on the sheet at all.
func (t Thing) Beside(g shape.Region, far float64) (mean colour.Linear, share float64) {
	n, on := 0, 0
	step := max(1, g.Points()/mostBeside)
	for _, r := range g.Rings() {
		for i := 0; i < len(r); i += step {
			a, b := r[i], r[(i+1)%len(r)]
			d := b.Sub(a)
			if d.Len() < 1e-9 {
				continue
			}
			// Rings go so that the region lies to one side of them: the other is outside, or in a hole.
			p := a.Add(b).Scale(0.5).Add(shape.Point{X: d.Y, Y: -d.X}.Scale(far / d.Len()))
			n++
			q := p.Sub(shape.Point{X: t.At.X, Y: t.At.Y})
			at := topmost(t.Patches, shape.Raw(shape.Ring{q}).Turn(-t.At.Turn, shape.Point{}).Rings()[0][0])
			if at < 0 {
				continue
			}
			on++
			for c := range mean {
				mean[c] += t.Patches[at].Colour[c]
			}
		}
	}
	for c := range mean {
		mean[c] /= max(1, float64(on))
	}
	return mean, float64(on) / max(1, float64(n))
}

// topmost is the patch that is seen at a point; -1 for none.
func topmost(patches []Patch, p shape.Point) int {
	for i := len(patches) - 1; i >= 0; i-- {
		b := patches[i].box
		if p.X >= b.Min.X && p.X <= b.Max.X && p.Y >= b.Min.Y && p.Y <= b.Max.Y && patches[i].Region.Contains(p) {
			return i
		}
	}
	return -1
}
