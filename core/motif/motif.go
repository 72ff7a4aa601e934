// Package motif works out what shows and what hides in a layered image, which
// layers touch, and what each layer sits on.
package motif

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// Ground is the host index of a layer that sits on the panel itself.
const Ground = -1

// touchTolerance is how near two shown regions must run, mm, to count as
// sharing an edge: a piece that fills a hole leaves a hairline round it which the
// eye closes. And touchLength the least shared length that matters.
const (
	touchTolerance = 0.35
	touchLength    = 1.0
)

// crumb is the shown area, mm², under which nothing useful is seen.
const crumb = 0.5

// ErrPart is returned for a layer whose part is not in the set.
var ErrPart = errors.New("the part is not in the set")

// Touch is an edge two shown regions have in common.
type Touch struct {
	A, B   int     // layer indices; A is Ground for the panel round the image
	Length float64 // mm
}

// View is one layer as it lies in the image.
type View struct {
	Layer   card.Layer
	Part    kit.Part
	Outline shape.Region
	Shown   shape.Region
	Host    int // index of the layer it sits on, or Ground
	Area    float64
	Visible float64 // shown area, mm²
	Edge    float64 // length of its outline, mm
	Problem string  // why it is the whole of its part, where it was to be traced, parted or put on offset
}

// Share is the part of the layer's area that shows, 0 to 1.
func (v View) Share() float64 {
	if v.Area == 0 {
		return 0
	}
	return v.Visible / v.Area
}

// Hidden reports whether nothing of the layer is seen.
func (v View) Hidden() bool { return v.Visible < crumb }

// Image is a layered image worked out.
type Image struct {
	Views      []View // lowest first
	Touches    []Touch
	Silhouette shape.Region
}

// With returns the image with the layers and parts of today in place of those it
// was worked out from, matched by their place: what was worked out holds as long
// as their outlines, order and seats are the same.
func (img Image) With(layers []card.Layer, set kit.Set) Image {
	views := slices.Clone(img.Views)
	for i := range views {
		views[i].Layer = layers[i]
		views[i].Part, _ = set.Part(layers[i].Part)
	}
	img.Views = views
	return img
}

// Option changes how Analyse looks at the layers.
type Option func(*options)

type options struct {
	clear func(card.Layer) bool
	ctx   context.Context
}

// Until stops Analyse, with the context's error, when the context ends.
func Until(ctx context.Context) Option { return func(o *options) { o.ctx = ctx } }

// SeeThrough names the layers that dim but do not hide what is beneath, such
// as those cut from vellum or acetate.
func SeeThrough(is func(card.Layer) bool) Option { return func(o *options) { o.clear = is } }

// Analyse works out an image from its layers, lowest first, and the set they
// come from. The shown region of a layer is its outline minus the union of
// all opaque outlines above; a printed layer counts as covering, since what
// is seen there is the print.
func Analyse(layers []card.Layer, set kit.Set, opts ...Option) (Image, error) {
	o := options{clear: func(card.Layer) bool { return false }, ctx: context.Background()}
	for _, f := range opts {
		f(&o)
	}
	img := Image{Views: make([]View, len(layers))}
	for i, l := range layers {
		p, ok := set.Part(l.Part)
		if !ok {
			return Image{}, fmt.Errorf("layer %q, part %q of set %q: %w", l.Label, l.Part, set.Name, ErrPart)
		}
		g, problem, err := OutlineOf(l, p, set)
		if err != nil {
			return Image{}, err
		}
		img.Views[i] = View{Layer: l, Part: p, Outline: g, Area: g.Area(), Edge: g.Length(), Problem: problem}
	}
	if err := img.let(); err != nil {
		return Image{}, err
	}
	if err := img.show(o.ctx, o.clear); err != nil {
		return Image{}, err
	}
	img.seat()
	img.touch()
	return img, nil
}

// show fills in the shown regions, from the top down.
func (img *Image) show(ctx context.Context, clear func(card.Layer) bool) error {
	var above shape.Region
	for i := len(img.Views) - 1; i >= 0; i-- {
		if err := ctx.Err(); err != nil {
			return err
		}
		v := &img.Views[i]
		shown, cover, err := v.Outline.Under(above)
		if err != nil {
			return fmt.Errorf("what shows of layer %q: %w", v.Layer.Label, err)
		}
		v.Shown, v.Visible = shown, shown.Area()
		if clear(v.Layer) {
			if img.Silhouette, err = img.Silhouette.Union(v.Outline); err != nil {
				return fmt.Errorf("silhouette with layer %q: %w", v.Layer.Label, err)
			}
			continue
		}
		above = cover
	}
	var err error
	if img.Silhouette, err = img.Silhouette.Union(above); err != nil {
		return fmt.Errorf("silhouette: %w", err)
	}
	return nil
}

// seat settles what each layer sits on: the layer named in On; otherwise the
// topmost layer beneath that covers most of it.
func (img *Image) seat() {
	for i := range img.Views {
		v := &img.Views[i]
		v.Host = Ground
		if j := pieceParted(img.Views, i); j >= 0 && swapped(v.Layer) {
			v.Host = img.Views[j].Host // it lies beside the rest of its piece
			continue
		}
		if v.Layer.On != "" {
			v.Host = slices.IndexFunc(img.Views[:i], func(w View) bool { return w.Layer.ID == v.Layer.On })
			continue
		}
		v.Host = hostOf(img.Views[:i], v.Outline)
	}
}

// hostOf returns the index of the layer beneath that g lies on: the topmost of
// those that hold at least nine tenths as much of it as any. How much a layer
// holds is judged along rows across g, 24 of them.
func hostOf(beneath []View, g shape.Region) int {
	rows := rowsOf(g)
	var whole float64
	for _, r := range rows {
		whole += r.held(r.spans)
	}
	best, host := 0.0, Ground
	for j := len(beneath) - 1; j >= 0; j-- {
		if !beneath[j].Outline.Bounds().Meets(g.Bounds()) {
			continue
		}
		var held float64
		for _, r := range rows {
			held += r.held(beneath[j].Outline.Cross(r.y))
		}
		if held*9 > best*10 {
			best, host = held, j
		}
	}
	if best*4 < whole {
		return Ground
	}
	return host
}

// row is a line across a region and the stretches of it that lie inside.
type row struct {
	y     float64
	spans [][2]float64
}

func rowsOf(g shape.Region) []row {
	b := g.Bounds()
	out := make([]row, 24)
	for i := range out {
		y := b.Min.Y + (float64(i)+0.5)*b.H()/float64(len(out))
		out[i] = row{y, g.Cross(y)}
	}
	return out
}

// held is the length of the row, mm, that lies inside the given stretches too.
func (r row) held(in [][2]float64) float64 {
	var sum float64
	for _, a := range r.spans {
		for _, b := range in {
			sum += max(0, min(a[1], b[1])-max(a[0], b[0]))
		}
	}
	return sum
}

// touch lists the pairs of layers whose shown regions share an edge, and the
// layers whose edge is the silhouette's, which touch the panel.
func (img *Image) touch() {
	for j := range img.Views {
		if img.Views[j].Hidden() {
			continue
		}
		if l := img.Views[j].Shown.Shared(img.Silhouette, touchTolerance); l >= touchLength {
			img.Touches = append(img.Touches, Touch{Ground, j, l})
		}
		for i := range j {
			if img.Views[i].Hidden() {
				continue
			}
			if l := img.Views[i].Shown.Shared(img.Views[j].Shown, touchTolerance); l >= touchLength {
				img.Touches = append(img.Touches, Touch{i, j, l})
			}
		}
	}
}
