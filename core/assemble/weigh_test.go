package assemble

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// What lies across from its twin for no other reason is never surer than the twin, and
// what it sits on counts once, however either was judged when all places were known.
func TestNoPieceIsSurerThanTheTwinItLiesAcrossFrom(t *testing.T) {
	base := shape.Rect(-30, -30, 60, 60)
	host := shape.Rect(-24, -24, 48, 48)
	left, err := shape.Rect(-20, 0, 8, 14).Union(shape.Rect(-20, 10, 12, 4))
	if err != nil {
		t.Fatal(err)
	}
	right := left.Mirror(0)
	on := shape.Rect(14, 2, 2, 3)
	for _, first := range []bool{false, true} {
		a := &assembler{pieces: []shape.Region{base, host, left, right, on}}
		a.out = []Placed{
			{Piece: 0, Outline: base, Host: -1, Sure: 1},
			{Piece: 1, Outline: host, Host: 0, Sure: 0.8, alone: 0.8, share: 1, Fit: kit.FitEvenRim, Rim: 6},
			// Part of its edge only, at a rim no other keeps: weighing lowers it.
			{Piece: 2, Outline: left, Host: 1, Sure: 0.72, alone: 0.9, share: 0.5, Fit: kit.FitWithin, Rim: 4},
			{Piece: 3, Outline: right, Host: 1, Sure: 0.648, alone: acrossSure, share: 1, Fit: kit.FitWithin, Rim: 4, twin: 3},
			{Piece: 4, Outline: on, Host: 3, Sure: 0.6, alone: 0.9, share: 1, Fit: kit.FitEvenRim, Rim: 1},
		}
		if first { // it may come before its twin, being a hair larger
			a.out[2], a.out[3] = a.out[3], a.out[2]
			a.out[2].twin, a.out[4].Host = 4, 2
		}
		a.weigh()
		by := map[int]Placed{}
		for _, p := range a.out {
			by[p.Piece] = p
		}
		assert.InDelta(t, 0.9*unborne*0.8, by[2].Sure, 1e-9)
		assert.InDelta(t, by[2].Sure*acrossSure, by[3].Sure, 1e-9, "the twin's, and a little less")
		assert.LessOrEqual(t, by[4].Sure, by[3].Sure)
	}
}
