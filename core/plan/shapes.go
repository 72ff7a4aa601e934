package plan

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
)

// shapes is what is worked out from the outlines of an image alone.
type shapes struct {
	img        motif.Image
	silhouette string
	layers     []Layer
	touches    []Touch
}

// mostShapes is how many images a Maker remembers.
const mostShapes = 64

// shapeKey is everything the shapes of an image depend on.
func shapeKey(mo card.Motif, set kit.Set, clear map[string]bool, lim register.Limits) [32]byte {
	h := sha256.New()
	fmt.Fprintln(h, lim, set.ID)
	for _, l := range mo.Layers {
		fmt.Fprintln(h, l.ID, l.Part, l.Label, l.Make, l.On, l.Fit, l.After, clear[l.ID])
		if l.Forgive != nil {
			fmt.Fprintln(h, *l.Forgive)
		}
		if p, ok := set.Part(l.Part); ok {
			t, _ := p.Outline.MarshalText()
			h.Write(t)
		}
	}
	return [32]byte(h.Sum(nil))
}

func newShapes(ctx context.Context, mo card.Motif, set kit.Set, clear map[string]bool, lim register.Limits) (*shapes, error) {
	img, err := motif.Analyse(mo.Layers, set, motif.SeeThrough(func(l card.Layer) bool { return clear[l.ID] }), motif.Until(ctx))
	if err != nil {
		return nil, err
	}
	s := &shapes{img: img, silhouette: img.Silhouette.Path(), touches: []Touch{}}
	s.layers = make([]Layer, len(img.Views))
	// Layers are worked out side by side: each writes only its own place.
	errs := make([]error, len(img.Views))
	together.By(len(img.Views), func(i int) {
		if errs[i] = ctx.Err(); errs[i] == nil {
			s.layers[i], errs[i] = newLayer(img, i, lim)
		}
	})
	if err := errors.Join(errs...); err != nil {
		return nil, err
	}
	for _, t := range img.Touches {
		a := ""
		if t.A >= 0 {
			a = img.Views[t.A].Layer.ID
		}
		s.touches = append(s.touches, Touch{a, img.Views[t.B].Layer.ID, t.Length})
	}
	return s, nil
}

func newLayer(img motif.Image, i int, lim register.Limits) (Layer, error) {
	v := img.Views[i]
	b := v.Outline.Bounds()
	l := Layer{ID: v.Layer.ID, Label: v.Layer.Label, Outline: v.Outline.Path(), Shown: v.Shown.Path(), Area: v.Area,
		Visible: v.Visible, Share: v.Share(), Pieces: len(v.Outline.Pieces()), W: b.W(), H: b.H()}
	host := shape.Region{}
	if v.Host >= 0 {
		l.Host, host = img.Views[v.Host].Layer.ID, img.Views[v.Host].Outline
	}
	var err error
	if l.Play, err = playOf(img, i, host, forgiven(v.Layer, lim)); err != nil {
		return l, fmt.Errorf("play of layer %q: %w", v.Layer.Label, err)
	}
	if v.Layer.Make == card.Cut {
		if l.Detail, err = detailOf(v.Outline); err != nil {
			return l, fmt.Errorf("detail of layer %q: %w", v.Layer.Label, err)
		}
	}
	return l, nil
}

// forgiven is what the eye forgives of a layer: the person's own for it, or the
// general limits.
func forgiven(l card.Layer, lim register.Limits) register.Limits {
	if f := l.Forgive; f != nil {
		return register.Limits{Spill: f.Spill, RimShare: f.RimShare, Gap: f.Gap, Overlap: f.Overlap}
	}
	return lim
}

// placed is what a hand places for a layer: the die, where it goes round a print.
func placed(img motif.Image, i int) register.Piece {
	v := img.Views[i]
	switch {
	case v.Layer.Make == card.Stencilled:
		return register.Stencil
	case v.Layer.Make == card.Printed:
		return register.Stamping
	case v.Layer.After && slices.ContainsFunc(img.Views, func(w motif.View) bool { return w.Host == i && w.Layer.Make != card.Cut }):
		return register.DieRound
	}
	return register.CutPiece
}

// printsOn is all that is printed on a layer, one print on the other included.
func printsOn(img motif.Image, i int) (shape.Region, error) {
	on := map[int]bool{i: true}
	var gs []shape.Region
	for j, v := range img.Views {
		if v.Layer.Make != card.Cut && v.Host >= 0 && on[v.Host] {
			on[j] = true
			gs = append(gs, v.Outline)
		}
	}
	if len(gs) == 0 {
		return shape.Region{}, nil
	}
	return shape.UnionAll(gs...)
}

// playOf is the play of a layer: a print moves as one, cut pieces are placed
// one by one and the touchiest counts. Of one that is cut out after it was
// printed on, it is the play of the die round the print.
func playOf(img motif.Image, i int, host shape.Region, lim register.Limits) (register.Play, error) {
	v := img.Views[i]
	if placed(img, i) == register.DieRound {
		print, err := printsOn(img, i)
		if err != nil {
			return register.Play{}, fmt.Errorf("gather the prints: %w", err)
		}
		if !print.Empty() {
			return register.Round(print, v.Outline, lim)
		}
	}
	pieces := v.Outline.Pieces()
	if v.Layer.Make != card.Cut || len(pieces) < 2 {
		return register.Of(v.Outline, host, v.Layer.Fit, lim)
	}
	each := make([]register.Play, len(pieces))
	var err error
	for i, g := range pieces {
		if each[i], err = register.Of(g, host, v.Layer.Fit, lim); err != nil {
			return register.Play{}, err
		}
	}
	return register.Join(each), nil
}
