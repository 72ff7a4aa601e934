package assemble

import (
	"math"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// What makes a place less sure once all are known; our own defaults.
const (
	nearlyAll = 0.9  // of its edge that follows: such a piece needs no other to bear it out
	sameRim   = 0.12 // mm
	unborne   = 0.55 // left of the certainty of a piece whose rim no other keeps
	muchOf    = 0.25 // of the smaller of two on one host that must not be shared
	inTheWay  = 0.5  // left where it is
)

// weigh judges all places together. The makers of a set keep to one rim or two: a piece
// that goes by part of its edge, at a rim no other piece keeps, may only have come to rest
// there, as a band does that slides down a tower until its foot is as far from the
// edge as its sides. Two on one piece that claim the same room cannot both be right. And
// nothing is surer than what it sits on.
func (a *assembler) weigh() {
	alone := make([]float64, len(a.out))
	for i, p := range a.out {
		alone[i] = p.alone
		if p.Host < 0 || p.shown || p.Fit == kit.FitFree || p.Fit == kit.FitFills {
			continue
		}
		if !a.borneOut(i) {
			switch {
			case round(a.pieces[p.Piece]) && round(a.pieces[a.out[p.Host].Piece]):
				// Any disc lies evenly on any larger one.
				alone[i] = math.Min(alone[i], atMostGuess)
			case p.share < nearlyAll:
				alone[i] *= unborne
			}
		}
	}
	for i, p := range a.out {
		for j, q := range a.out[:i] {
			if p.shown || q.shown || p.Host <= 0 && q.Host <= 0 || p.Host != q.Host || p.Fit == kit.FitFree || q.Fit == kit.FitFree {
				continue
			}
			both, err := p.Outline.Intersect(q.Outline)
			if err != nil || both.Area() < muchOf*math.Min(p.Outline.Area(), q.Outline.Area()) {
				continue
			}
			alone[i], alone[j] = alone[i]*inTheWay, alone[j]*inTheWay
		}
	}
	known := make([]bool, len(a.out))
	for i := range a.out {
		a.hang(i, alone, known)
	}
}

// hang makes a piece as sure as it is by itself and what it goes by is: its host, or the
// twin it lies across the axis from, which came to its own host first.
func (a *assembler) hang(i int, alone []float64, known []bool) float64 {
	p := &a.out[i]
	if known[i] || p.Host < 0 {
		return p.Sure
	}
	known[i] = true
	if p.shown { // where it lies whatever it lies on
		p.Sure = p.alone
		return p.Sure
	}
	by := p.Host
	if p.twin > 0 {
		by = p.twin - 1
	}
	if sure := a.hang(by, alone, known); p.alone > 0 {
		p.Sure = alone[i] * sure
	}
	return p.Sure
}

// round reports whether a piece is about a disc: what its outline encloses is nearly the
// most that an outline so long can.
func round(g shape.Region) bool {
	own := g.Filled()
	l := own.Length()
	return 4*math.Pi*own.Area() > 0.95*l*l
}

// borneOut reports whether another piece, no twin of it, keeps the rim of piece i.
func (a *assembler) borneOut(i int) bool {
	p := a.out[i]
	for j, q := range a.out {
		if j != i && q.Host >= 0 && q.share > 0 && q.Fit != kit.FitFree && math.Abs(q.Rim-p.Rim) < sameRim &&
			Twins(a.pieces[p.Piece], a.pieces[q.Piece]) == NotTwins {
			return true
		}
	}
	return false
}
