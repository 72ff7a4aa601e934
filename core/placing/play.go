package placing

import (
	"fmt"
	"ochrestone/core/card"
	"ochrestone/core/motif"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"slices"
)

// Forgiven is what the eye forgives of a layer: the person's own for it, or the
// general limits.
func Forgiven(l card.Layer, lim register.Limits) register.Limits {
	if f := l.Forgive; f != nil {
		return register.Limits{Spill: f.Spill, RimShare: f.RimShare, Gap: f.Gap, Overlap: f.Overlap}
	}
	return lim
}

// PieceOf is what a hand places for a layer: the die, where it goes round a print.
func PieceOf(img motif.Image, i int) register.Piece {
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

// PlayOf is the play of a layer: a print moves as one, cut pieces are placed
// one by one and the touchiest counts. Of one that is cut out after it was
// printed on, it is the play of the die round the print.
func PlayOf(img motif.Image, i int, host shape.Region, lim register.Limits) (register.Play, error) {
	v := img.Views[i]
	lim = lim.Doubted(v.Part.Sure, sureOf(img, v.Host))
	if PieceOf(img, i) == register.DieRound {
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

// sureOf is how near the outline of a view its edge lies, mm; 0 for the ground.
func sureOf(img motif.Image, i int) float64 {
	if i < 0 {
		return 0
	}
	return img.Views[i].Part.Sure
}

// DieRoundPrints is the largest cut layer of an image that carries prints, whose die goes
// round them, and those prints; -1 where there is none.
func DieRoundPrints(img motif.Image) (die int, prints []int) {
	die = -1
	for i, v := range img.Views {
		if v.Layer.Make != card.Cut || die >= 0 && v.Area <= img.Views[die].Area {
			continue
		}
		var on []int
		for j, w := range img.Views {
			if w.Layer.Make != card.Cut && w.Host == i {
				on = append(on, j)
			}
		}
		if len(on) > 0 {
			die, prints = i, on
		}
	}
	return die, prints
}
