package plan

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/placing"
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

// mostShapes is how many images a Planner remembers.
const mostShapes = 64

// shapeKey is everything the shapes of an image depend on.
func shapeKey(mo card.Motif, set kit.Set, clear map[string]bool, lim register.Limits) [32]byte {
	h := sha256.New()
	fmt.Fprintln(h, lim, set.ID)
	for _, l := range mo.Layers {
		fmt.Fprintln(h, l.ID, l.Part, l.Label, l.Make, l.On, l.Fit, l.After, clear[l.ID])
		if l.Traced != 0 || l.Shifted != 0 || l.Region != nil {
			fmt.Fprintln(h, l.Traced, l.Shifted)
			if l.Region != nil {
				fmt.Fprintln(h, *l.Region)
				if p, ok := set.Part(l.Region.Part); ok {
					t, _ := p.Outline.MarshalText()
					h.Write(t)
				}
			}
		}
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
	if l.Play, err = placing.PlayOf(img, i, host, placing.Forgiven(v.Layer, lim)); err != nil {
		return l, fmt.Errorf("play of layer %q: %w", v.Layer.Label, err)
	}
	if v.Layer.Make == card.Cut {
		if l.Detail, err = placing.DetailOf(v.Outline); err != nil {
			return l, fmt.Errorf("detail of layer %q: %w", v.Layer.Label, err)
		}
	}
	return l, nil
}
