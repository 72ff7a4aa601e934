package proof_test

import (
	"context"
	"fmt"
	"math"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/demo"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
)

// beetle is the layered stamp of the demo in the inks of its first colourway.
func beetle(t testing.TB) ([]sim.Layer, []proof.Layer, colour.Linear) {
	k, err := demo.Kit()
	require.NoError(t, err)
	white, err := colour.ParseHex(kit.PlainWhite)
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	m := c.Motifs[0]
	set := k.Sets[slices.IndexFunc(k.Sets, func(s kit.Set) bool { return s.ID == m.Set })]
	var a []sim.Layer
	var b []proof.Layer
	for _, l := range m.Layers {
		part, _ := set.Part(l.Part)
		ink, ok := k.Ink(m.Colourways[0].Layers[l.ID].Ink)
		require.True(t, ok)
		film, _, err := ink.Film(white)
		require.NoError(t, err)
		a = append(a, sim.Layer{Region: part.Outline, Film: film})
		b = append(b, proof.Layer{Label: l.Label, Region: part.Outline, Film: film, Strikes: 1})
	}
	return a, b, white
}

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

// BenchmarkProofAccuracy prints how near proofs are measured; the seeds are in
// the table.
func BenchmarkProofAccuracy(b *testing.B) {
	layers, ls, paper := beetle(b)
	for b.Loop() {
		fmt.Printf("\n%-8s %6s %10s %10s %10s %10s %8s %8s\n", "grade", "seeds", "90% mm", "worst mm", "90% deg", "worst deg", "covered", "time")
		for _, g := range []struct {
			name  string
			grade sim.Grade
		}{{"plain", mild()}, {"hard", sim.Hard()}} {
			var shift, turn []float64
			covered, all := 0, 0
			var took time.Duration
			const seeds = 12
			for seed := uint64(1); seed <= seeds; seed++ {
				bench, off := sim.Proof(layers, paper, 1.5, 2, 3, seed)
				p := scanned(b, bench, g.grade, seed)
				st := time.Now()
				got, err := proof.Measure(context.Background(), p, 300, paper, ls)
				took += time.Since(st)
				if err != nil {
					b.Log(g.name, seed, err)
					continue
				}
				s, t, c, a := errorsOf(got, off, ls)
				if testing.Verbose() {
					fmt.Printf("   %d: %.3f mm %.3f deg, miss %.3f sure %.4f\n", seed, s, t, got.Miss, got.Layers[1].SureShift)
				}
				shift, turn, covered, all = append(shift, s...), append(turn, t...), covered+c, all+a
			}
			slices.Sort(shift)
			slices.Sort(turn)
			fmt.Printf("%-8s 1..%-3d %10.3f %10.3f %10.3f %10.3f %7.0f%% %8s\n", g.name, seeds, shift[len(shift)*9/10], shift[len(shift)-1], turn[len(turn)*9/10], turn[len(turn)-1], 100*float64(covered)/float64(all), (took / seeds).Round(time.Millisecond))
		}
	}
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
		got, err := proof.Measure(context.Background(), scanned(t, bench, c.grade, 41), 300, paper, ls)
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

	same := slices.Clone(ls)
	same[2].Film = same[1].Film
	_, err := proof.Measure(context.Background(), scanned(t, bench, mild(), 5), 300, paper, same)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "too nearly alike")

	_, err = proof.Measure(context.Background(), scanned(t, sim.Bench{W: 60, H: 60, Sheet: paper}, mild(), 5), 300, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "Hardly any ink")

	_, err = proof.Measure(context.Background(), scanned(t, sim.Bench{W: 60, H: 60, Sheet: sim.Black}, mild(), 5), 300, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "margins")

	// Upside down, and at a wrong number of dots to the inch: never a confident
	// wrong number.
	p := scanned(t, bench, mild(), 5)
	_, err = proof.Measure(context.Background(), p, 200, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "dots to the inch")
	down := &picture.Picture{W: p.W, H: p.H, Pix: make([]uint8, len(p.Pix))}
	for i := 0; i < len(p.Pix); i += 3 {
		copy(down.Pix[len(p.Pix)-3-i:], p.Pix[i:i+3])
	}
	_, err = proof.Measure(context.Background(), down, 300, paper, ls)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "right way up")

	_, err = proof.Measure(context.Background(), p, 300, paper, ls[:1])
	require.ErrorAs(t, err, &bad)
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err = proof.Measure(ctx, p, 300, paper, ls)
	assert.ErrorIs(t, err, context.Canceled)
}

// A layer that was not printed is said to be missing, and the others are still
// measured.
func TestAMissingLayerIsSaid(t *testing.T) {
	layers, ls, paper := beetle(t)
	bench, off := sim.Proof(layers, paper, 0.6, 1, 2, 12)
	bench.Items = append(bench.Items[:2:2], bench.Items[3])
	got, err := proof.Measure(context.Background(), scanned(t, bench, mild(), 12), 300, paper, ls)
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
	got, err := proof.Measure(context.Background(), scanned(t, bench, mild(), 21), 300, paper, ls)
	require.NoError(t, err)
	assert.InDelta(t, 0.992, got.Scale, 0.001)
	require.NotEmpty(t, got.Notes)
	assert.Contains(t, got.Notes[0], "0.8 % smaller")
	plain, _ := sim.Proof(layers, paper, 1, 1, 2, 22)
	got, err = proof.Measure(context.Background(), scanned(t, plain, mild(), 22), 300, paper, ls)
	require.NoError(t, err)
	assert.InDelta(t, 1, got.Scale, 0.001)
	assert.Empty(t, got.Notes)
}

// The correction, applied, brings the next print into place: the motion said
// undoes the one there was.
func TestTheCorrectionUndoesTheError(t *testing.T) {
	layers, ls, paper := beetle(t)
	bench, off := sim.Proof(layers, paper, 1.2, 1.5, 2, 9)
	got, err := proof.Measure(context.Background(), scanned(t, bench, mild(), 9), 300, paper, ls)
	require.NoError(t, err)
	for i := 1; i < len(ls); i++ {
		left := got.Layers[i].Motion.Inverse().After(off[i])
		c := ls[i].Region.Centroid()
		assert.Less(t, left.Point(c).Distance(c), 0.02)
		assert.Less(t, math.Abs(math.Remainder(left.Turn, 360)), 0.06)
	}
}
