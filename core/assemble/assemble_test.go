package assemble_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/assemble"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

func named(t *testing.T, name string) kit.Set {
	for _, s := range allSets(t) {
		if s.Name == name {
			return s
		}
	}
	t.Fatal(name)
	return kit.Set{}
}

// Pieces cut from sets whose design is known, turned and shuffled: those with
// an edge or a hole to go by come back to within 0.3 mm.
func TestPiecesComeBackToTheirPlace(t *testing.T) {
	if testing.Short() {
		t.Skip("not in a short run")
	}
	for _, name := range []string{"Toadstool", "Marsh mallow", "Hedge snail", "Night lantern"} {
		r := try(t, named(t, name), 30, 5)
		assert.Equal(t, r.pairs, r.ordered, name)
		assert.GreaterOrEqual(t, r.right, 3, "%s: %v", name, r.lines)
		assert.Zero(t, r.wrong, "%s is never sure of a wrong place: %v", name, r.lines)
	}
}

// A plate with an off-centre hole and two loose pieces: closed forms for where
// everything goes.
func TestRimAndHoleInClosedForm(t *testing.T) {
	plate, err := shape.Rect(0, 0, 60, 40).Minus(shape.Disc(shape.Point{X: 15, Y: 25}, 6))
	require.NoError(t, err)
	lid := shape.Rect(100, 0, 56, 36).Turn(20, shape.Point{X: 100})
	plug := shape.Disc(shape.Point{X: 200, Y: 90}, 5.9)
	lid, err = lid.Minus(shape.Disc(lid.Centroid().Add(shape.Point{X: 3, Y: 2}), 4))
	require.NoError(t, err)
	got, err := assemble.Pieces(context.Background(), []shape.Region{plug, plate, lid})
	require.NoError(t, err)
	require.Len(t, got, 3)
	assert.Equal(t, 1, got[0].Piece, "the largest is the base")
	assert.Equal(t, -1, got[0].Host)
	byPiece := map[int]assemble.Placed{}
	for _, p := range got {
		byPiece[p.Piece] = p
	}
	assert.Equal(t, kit.FitEvenRim, byPiece[2].Fit)
	assert.InDelta(t, 2, byPiece[2].Rim, 0.05)
	assert.Equal(t, kit.FitFills, byPiece[0].Fit)
	hole := got[0].Motion.Point(shape.Point{X: 15, Y: 25})
	assert.Less(t, byPiece[0].Outline.Centroid().Distance(hole), 0.15)
}

func TestTwinsAndAxes(t *testing.T) {
	l := shape.New(true, shape.Ring{{X: 0, Y: 0}, {X: 20, Y: 0}, {X: 20, Y: 5}, {X: 6, Y: 5}, {X: 6, Y: 14}, {X: 0, Y: 14}})
	var flipped shape.Ring
	for _, p := range l.Rings()[0] {
		flipped = append(flipped, shape.Point{X: 50 - p.X, Y: p.Y})
	}
	m := shape.New(true, flipped)
	assert.Equal(t, assemble.Same, assemble.Twins(l, l.Turn(77, shape.Point{X: 3}).Move(shape.Point{X: 90})))
	assert.Equal(t, assemble.Mirror, assemble.Twins(l, m))
	assert.Equal(t, assemble.NotTwins, assemble.Twins(l, shape.Rect(0, 0, 20, 8)))
	assert.Equal(t, assemble.NotTwins, assemble.Twins(l, l.ScaleBy(1.06)))

	box := shape.Rect(0, 0, 30, 12).Turn(25, shape.Point{})
	a, ok := assemble.Axis(box)
	require.True(t, ok)
	assert.InDelta(t, 115, a.Deg, 0.2, "of its two axes the one nearer to upright")
	_, ok = assemble.Axis(l)
	assert.False(t, ok, "an L of unequal arms has none")
}

// A rectangle keeps 3 mm from its host on three sides; the fourth is free.
func TestFollowsMeasuresShareAndRim(t *testing.T) {
	host := shape.Rect(0, 0, 60, 40)
	share, rim := assemble.Follows(shape.Rect(3, 3, 30, 34), host)
	assert.InDelta(t, 3, rim, 0.05)
	assert.InDelta(t, (30+30+34)/float64(2*30+2*34), share, 0.04)
	share, _ = assemble.Follows(shape.Rect(20, 15, 10, 9), host)
	assert.Less(t, share, 0.5)
}

func TestSmallPiecesWithNothingToGoByLieBeside(t *testing.T) {
	base := shape.Rect(0, 0, 80, 60)
	odd := shape.New(true, shape.Ring{{X: 0, Y: 100}, {X: 9, Y: 103}, {X: 4, Y: 109}, {X: 2, Y: 104}})
	got, err := assemble.Pieces(context.Background(), []shape.Region{base, odd})
	require.NoError(t, err)
	assert.Less(t, got[1].Sure, 0.4)
	assert.Greater(t, got[1].Outline.Bounds().Min.Y, got[0].Outline.Bounds().Max.Y, "beside, not on top of the rest")
	assert.Contains(t, got[1].Why, "put it in place")
}

func TestPuttingTogetherCanBeStopped(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err := assemble.Pieces(ctx, []shape.Region{shape.Rect(0, 0, 9, 9)})
	assert.ErrorIs(t, err, context.Canceled)
}

func TestProgressRises(t *testing.T) {
	last := -1.0
	_, err := assemble.Pieces(context.Background(), []shape.Region{shape.Rect(0, 0, 50, 40), shape.Rect(60, 0, 46, 36)}, assemble.Progress(func(s float64) {
		assert.GreaterOrEqual(t, s, last)
		last = s
	}), assemble.Upright())
	require.NoError(t, err)
	assert.Equal(t, 1.0, last)
}
