package proof_test

import (
	"context"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
)

// errors of one proof: shift mm and turn degrees per layer, and whether the
// stated uncertainty, twice, covers them.
func errorsOf(got proof.Result, off []register.Motion, ls []proof.Layer) (shift, turn []float64, covered, all int) {
	for i := 1; i < len(ls); i++ {
		c := ls[i].Region.Centroid()
		d := got.Layers[i].Shift.Sub(off[i].Point(c).Sub(c))
		e := math.Abs(math.Remainder(got.Layers[i].Turn-off[i].Turn, 360))
		shift, turn = append(shift, d.Len()), append(turn, e)
		for _, ok := range [3]bool{math.Abs(d.X) <= 2*got.Layers[i].SureShift, math.Abs(d.Y) <= 2*got.Layers[i].SureShift, e <= 2*got.Layers[i].SureTurn} {
			all++
			if ok {
				covered++
			}
		}
	}
	return shift, turn, covered, all
}

// one measures the only print of a scan.
func one(t testing.TB, p *picture.Picture, dpi float64, paper colour.Linear, ls []proof.Layer) (proof.Result, error) {
	plane, err := proof.Scan(p, dpi)
	require.NoError(t, err)
	got, err := proof.Measure(t.Context(), plane, paper, ls)
	if err != nil {
		return proof.Result{}, err
	}
	require.Len(t, got.Prints, 1, got.Notes)
	return got.Prints[0], nil
}

func scanned(t testing.TB, b sim.Bench, g sim.Grade, seed uint64) *picture.Picture {
	raw, err := sim.PNG(b.Scan(300, g, seed), 300)
	require.NoError(t, err)
	p, err := picture.Decode(raw)
	require.NoError(t, err)
	return p
}

func mild() sim.Grade {
	g := sim.Plain()
	g.Dust, g.Blotch = 0, 0.1
	return g
}

// One plain and one hard proof, within the limits asked of nine in ten layers;
// the turned sheet does not count as an error.
func TestProofsAreMeasured(t *testing.T) {
	layers, ls, paper := beetle(t)
	for _, c := range []struct {
		grade       sim.Grade
		shift, turn float64
	}{{mild(), 0.01, 0.05}, {sim.Hard(), 0.07, 0.25}} {
		bench, off := sim.Proof(layers, paper, 1.5, 2, 3, 41)
		got, err := one(t, scanned(t, bench, c.grade, 41), 300, paper, ls)
		require.NoError(t, err)
		shift, turn, covered, all := errorsOf(got, off, ls)
		for i := range shift {
			assert.Less(t, shift[i], c.shift)
			assert.Less(t, turn[i], c.turn)
		}
		assert.GreaterOrEqual(t, covered, all-1)
		assert.Greater(t, math.Abs(got.Sheet.Turn), 0.05, "the sheet lay askew, and that is told apart")
	}
}

func TestProofsThatCannotBeMeasured(t *testing.T) {
	layers, ls, paper := beetle(t)
	var bad *picture.Problem
	bench, _ := sim.Proof(layers, paper, 1, 1, 2, 5)

	_, err := one(t, scanned(t, sim.Bench{W: 60, H: 60, Sheet: paper}, mild(), 5), 300, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "Hardly any ink")

	_, err = one(t, scanned(t, sim.Bench{W: 60, H: 60, Sheet: sim.Black}, mild(), 5), 300, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "margins")

	// Upside down, and at a wrong number of dots to the inch: never a confident
	// wrong number.
	p := scanned(t, bench, mild(), 5)
	_, err = one(t, p, 200, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "dots to the inch")
	down := &picture.Picture{W: p.W, H: p.H, Pix: make([]uint8, len(p.Pix))}
	for i := 0; i < len(p.Pix); i += 3 {
		copy(down.Pix[len(p.Pix)-3-i:], p.Pix[i:i+3])
	}
	_, err = one(t, down, 300, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "right way up")

	_, err = one(t, p, 300, paper, ls[:1])
	require.ErrorAs(t, err, &bad)
	ctx, stop := context.WithCancel(context.Background())
	stop()
	plane, err := proof.Scan(p, 300)
	require.NoError(t, err)
	_, err = proof.Measure(ctx, plane, paper, ls)
	assert.ErrorIs(t, err, context.Canceled)
}

// A layer that was not printed is said to be missing, and the others are still
// measured.
func TestAMissingLayerIsSaid(t *testing.T) {
	layers, ls, paper := beetle(t)
	bench, off := sim.Proof(layers, paper, 0.6, 1, 2, 12)
	bench.Items = append(bench.Items[:2:2], bench.Items[3])
	got, err := one(t, scanned(t, bench, mild(), 12), 300, paper, ls)
	require.NoError(t, err)
	assert.True(t, got.Layers[2].Lost)
	require.Len(t, got.Notes, 1)
	assert.Contains(t, got.Notes[0], ls[2].Label)
	for _, i := range []int{1, 3} {
		c := ls[i].Region.Centroid()
		assert.False(t, got.Layers[i].Lost)
		assert.Less(t, got.Layers[i].Shift.Distance(off[i].Point(c).Sub(c)), 0.02, ls[i].Label)
	}
}

// A print 0.8 % too small, as from a copier, is told apart from layers out of
// place.
func TestAScaleIsToldApart(t *testing.T) {
	layers, ls, paper := beetle(t)
	small := slices.Clone(layers)
	for i := range small {
		small[i].Region = small[i].Region.ScaleBy(0.992)
	}
	bench, _ := sim.Proof(small, paper, 0, 0, 2, 21)
	got, err := one(t, scanned(t, bench, mild(), 21), 300, paper, ls)
	require.NoError(t, err)
	assert.InDelta(t, 0.992, got.Scale, 0.001)
	require.NotEmpty(t, got.Notes)
	assert.Contains(t, got.Notes[0], "0.8 % smaller")
	plain, _ := sim.Proof(layers, paper, 1, 1, 2, 22)
	got, err = one(t, scanned(t, plain, mild(), 22), 300, paper, ls)
	require.NoError(t, err)
	assert.InDelta(t, 1, got.Scale, 0.001)
	assert.Empty(t, got.Notes)
}

// The correction, applied, brings the next print into place: the motion said
// undoes the one there was.
func TestTheCorrectionUndoesTheError(t *testing.T) {
	layers, ls, paper := beetle(t)
	bench, off := sim.Proof(layers, paper, 1.2, 1.5, 2, 9)
	got, err := one(t, scanned(t, bench, mild(), 9), 300, paper, ls)
	require.NoError(t, err)
	for i := 1; i < len(ls); i++ {
		left := got.Layers[i].Motion.Inverse().After(off[i])
		c := ls[i].Region.Centroid()
		assert.Less(t, left.Point(c).Distance(c), 0.02)
		assert.Less(t, math.Abs(math.Remainder(left.Turn, 360)), 0.06)
	}
}
