package proof_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
)

// near asserts that every layer was found within so many mm.
func near(t *testing.T, got proof.Result, off []register.Motion, ls []proof.Layer, mm float64) {
	t.Helper()
	for i := 1; i < len(ls); i++ {
		c := ls[i].Region.Centroid()
		assert.False(t, got.Layers[i].Lost, ls[i].Label)
		assert.Less(t, got.Layers[i].Shift.Distance(off[i].Point(c).Sub(c)), mm, ls[i].Label)
	}
}

// Several prints of a run in one scan are each measured, in reading order; one
// that is cut off is said, and so is something else beside them.
func TestASheetOfPrints(t *testing.T) {
	layers, ls, paper := beetle(t)
	var sheets []sim.Bench
	var offs [][]register.Motion
	for seed := uint64(1); seed <= 4; seed++ {
		s, off := sim.Proof(layers, paper, 1.2, 1.5, 2, seed)
		sheets, offs = append(sheets, s), append(offs, off)
	}
	all := sim.Together(sheets, 2)
	// Half of a fifth print at the foot, and a small mark in a corner.
	w, h := all.W, all.H
	all.H += sheets[0].H / 2
	for _, it := range sheets[0].Items {
		it.Outline = it.Outline.Move(shape.Point{Y: h})
		all.Items = append(all.Items, it)
	}
	mark := sheets[0].Items[3]
	mark.Outline = shape.Rect(w-16, h+8, 8, 12)
	all.Items = append(all.Items, mark)
	plane, err := proof.Scan(scanned(t, all, mild(), 3), 300)
	require.NoError(t, err)
	var shares []float64
	got, err := proof.Measure(t.Context(), plane, paper, ls, proof.Progress(func(share float64, what string) {
		shares = append(shares, share)
		assert.NotEmpty(t, what)
	}))
	require.NoError(t, err)
	require.Len(t, got.Prints, 4)
	for i, r := range got.Prints {
		require.NoError(t, r.Err)
		near(t, r, offs[i], ls, 0.02)
	}
	said := strings.Join(got.Notes, " ")
	assert.Contains(t, said, "cut off by the edge")
	assert.Contains(t, said, "Something else is printed")
	assert.True(t, slices.IsSorted(shares), shares)
	assert.Greater(t, len(shares), 12, "progress is told by print and step")
}

// A card on a dark bed, lid up, and one photographed on the measuring mat.
func TestCardsOnADarkBedAndOnTheMat(t *testing.T) {
	layers, ls, paper := beetle(t)
	s, off := sim.Proof(layers, paper, 1.2, 1.5, 2, 14)
	plane, err := proof.Scan(scanned(t, sim.Framed(s, sim.Black, 25, 7), mild(), 14), 300)
	require.NoError(t, err)
	got, err := proof.Measure(t.Context(), plane, paper, ls)
	require.NoError(t, err)
	require.Len(t, got.Prints, 1)
	near(t, got.Prints[0], off, ls, 0.02)
	assert.Greater(t, math.Abs(got.Prints[0].Sheet.Turn), 4.0, "the card lay askew")

	photo, err := proof.OnMat(photographed(t, s, 14))
	require.NoError(t, err)
	got, err = proof.Measure(t.Context(), photo, paper, ls)
	require.NoError(t, err)
	require.Len(t, got.Prints, 1)
	near(t, got.Prints[0], off, ls, 0.05)
	_, err = proof.OnMat(scanned(t, s, mild(), 14))
	var bad *picture.Problem
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "mat")
}

// Layers in one ink are told apart by their outlines, and it is said; twins in
// ink and outline cannot be.
func TestLayersInOneInk(t *testing.T) {
	layers, ls, paper := beetle(t)
	layers[2].Film, ls[2].Film = layers[1].Film, layers[1].Film
	bench, off := sim.Proof(layers, paper, 1, 1, 2, 5)
	got, err := one(t, scanned(t, bench, mild(), 5), 300, paper, ls)
	require.NoError(t, err)
	near(t, got, off, ls, 0.03)
	assert.Contains(t, strings.Join(got.Notes, " "), "told apart by their outlines alone")

	layers, ls = layers[:2:2], ls[:2:2]
	for i, move := range []float64{-3, 3} {
		twin := shape.Disc(shape.Point{X: move, Y: 0}, 6)
		layers = append(layers, sim.Layer{Region: twin, Film: layers[1].Film})
		ls = append(ls, proof.Layer{Label: []string{"Left ring", "Right ring"}[i], Region: twin, Film: layers[1].Film, Strikes: 1})
	}
	bench, off = sim.Proof(layers, paper, 1, 1, 2, 6)
	got, err = one(t, scanned(t, bench, mild(), 6), 300, paper, ls)
	require.NoError(t, err)
	assert.True(t, got.Layers[2].Lost && got.Layers[3].Lost)
	assert.Contains(t, strings.Join(got.Notes, " "), "Left ring and Right ring cannot be told apart")
	near(t, got, off, ls[:2], 0.03)
}

// What is wrong with a picture is said, and what can still be measured is.
func TestTroublesOfAPrint(t *testing.T) {
	layers, ls, paper := beetle(t)
	var bad *picture.Problem

	// Struck twice, a millimetre and a half apart.
	bench, _ := sim.Proof(layers, paper, 0.5, 1, 2, 7)
	twice := bench
	for _, it := range bench.Items {
		it.Outline = it.Outline.Move(shape.Point{X: 1.2, Y: 1})
		twice.Items = append(twice.Items, it)
	}
	got, err := one(t, scanned(t, twice, mild(), 7), 300, paper, ls)
	if err == nil {
		assert.Contains(t, strings.Join(got.Notes, " "), "struck twice")
	} else {
		require.ErrorAs(t, err, &bad)
	}

	// Another set's print.
	other, _ := design(t, "sim-fish", 3, "mere-pale", "gorse-soft", "dusk-full")
	fish, _ := sim.Proof(other, paper, 0.5, 1, 2, 8)
	_, err = one(t, scanned(t, fish, mild(), 8), 300, paper, ls)
	require.ErrorAs(t, err, &bad)

	// Mirrored.
	p := scanned(t, bench, mild(), 7)
	back := &picture.Picture{W: p.W, H: p.H, Pix: make([]uint8, len(p.Pix))}
	for y := range p.H {
		for x := range p.W {
			copy(back.Pix[3*(y*p.W+x):][:3], p.Pix[3*(y*p.W+p.W-1-x):])
		}
	}
	// The beetle is its own mirror image: mirrored, its layers are off the other way,
	// and it is said that this cannot be noticed.
	plane, err := proof.Scan(back, 300)
	require.NoError(t, err)
	sheet, err := proof.Measure(t.Context(), plane, paper, ls)
	require.NoError(t, err)
	assert.Contains(t, strings.Join(sheet.Notes, " "), "own mirror image")
	mirrored := sheet.Prints[0]
	straight, err := one(t, p, 300, paper, ls)
	require.NoError(t, err)
	assert.InDelta(t, -straight.Layers[2].Shift.X, mirrored.Layers[2].Shift.X, 0.05)
	fishLayers, fishLs := design(t, "sim-fish", 3, "mere-pale", "gorse-soft", "dusk-full")
	fish, _ = sim.Proof(fishLayers, paper, 0.5, 1, 2, 8)
	p = scanned(t, fish, mild(), 8)
	for y := range p.H {
		for x := range p.W / 2 {
			a, b := 3*(y*p.W+x), 3*(y*p.W+p.W-1-x)
			for c := range 3 {
				p.Pix[a+c], p.Pix[b+c] = p.Pix[b+c], p.Pix[a+c]
			}
		}
	}
	_, err = one(t, p, 300, paper, fishLs)
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "mirrored")
	assert.NotContains(t, bad.What, "own mirror image")

	// Overexposed: the paper and the pale inks are all white.
	p = scanned(t, bench, mild(), 7)
	for i, v := range p.Pix {
		p.Pix[i] = uint8(min(255, int(float64(v)*1.9)))
	}
	_, err = one(t, p, 300, paper, ls)
	require.ErrorAs(t, err, &bad, "never a confident wrong number")
}

// Inks nobody knows are learned from the print: the layers are found as well as
// with their inks named, and one too narrow to tell is said.
func TestInksNobodyKnows(t *testing.T) {
	layers, ls, paper := beetle(t)
	bench, off := sim.Proof(layers, paper, 1.2, 1.5, 2, 31)
	unknown := slices.Clone(ls)
	for i := range unknown {
		unknown[i].Film = colour.Film{}
	}
	plane, err := proof.Scan(scanned(t, bench, sim.Hard(), 31), 300)
	require.NoError(t, err)
	got, err := proof.Measure(t.Context(), plane, paper, unknown, proof.UnknownInks())
	require.NoError(t, err)
	require.Len(t, got.Prints, 1)
	near(t, got.Prints[0], off, ls, 0.07)

	hair := slices.Clone(unknown)
	hair[3].Region = shape.Rect(hair[0].Region.Centroid().X, hair[0].Region.Centroid().Y, 0.5, 8)
	plane, err = proof.Scan(scanned(t, bench, mild(), 31), 300)
	require.NoError(t, err)
	_, err = proof.Measure(t.Context(), plane, paper, hair, proof.UnknownInks())
	var bad *picture.Problem
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.What, "too narrow")
	assert.Contains(t, bad.Mend, "colours")
}

// Too few dots to the inch are refused before anything is looked for; a finer
// scan than needed is brought down, and says the same.
func TestResolutionOfAScan(t *testing.T) {
	layers, ls, paper := beetle(t)
	bench, off := sim.Proof(layers, paper, 1, 1, 1, 33)
	p := scanned(t, bench, mild(), 33)
	_, err := proof.Scan(p, 72)
	var bad *picture.Problem
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "200 dpi or more")

	raw, err := sim.PNG(bench.Scan(600, mild(), 33), 600)
	require.NoError(t, err)
	fine, err := picture.Decode(raw)
	require.NoError(t, err)
	plane, err := proof.Scan(fine, 600)
	require.NoError(t, err)
	w, h := plane.Size()
	assert.InDelta(t, bench.W, w, 0.2)
	assert.InDelta(t, bench.H, h, 0.2)
	got, err := proof.Measure(t.Context(), plane, paper, ls)
	require.NoError(t, err)
	near(t, got.Prints[0], off, ls, 0.01)
}
