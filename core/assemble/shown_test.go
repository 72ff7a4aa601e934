package assemble_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/assemble"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
)

// house is a base with one axis, a panel 2 mm within it, and a small disc that no edge tells
// the place of; all lie loose.
func house(t *testing.T) (loose, home []shape.Region, sights []assemble.Sight) {
	base, err := shape.Rect(-20, -10, 40, 40).Union(shape.New(true, shape.Ring{{X: -20, Y: -10}, {X: 0, Y: -30}, {X: 20, Y: -10}}))
	require.NoError(t, err)
	panel, err := base.Offset(-2)
	require.NoError(t, err)
	home = []shape.Region{base, panel, shape.Disc(shape.Point{X: -9, Y: 14}, 2.2)}
	lies := []register.Motion{{Turn: 17, Move: shape.Point{X: 40, Y: 50}}, {Turn: -33, Move: shape.Point{X: 120, Y: 45}}, {Turn: 5, Move: shape.Point{X: 90, Y: 140}}}
	for i, m := range lies {
		loose = append(loose, m.Of(home[i]))
		sights = append(sights, assemble.Sight{Piece: i, At: lies[0].After(m.Inverse()), Sure: 0.9})
	}
	return loose, home, sights
}

func byPiece(ps []assemble.Placed) map[int]assemble.Placed {
	out := map[int]assemble.Placed{}
	for _, p := range ps {
		out[p.Piece] = p
	}
	return out
}

// What no edge tells goes where the picture shows it; what follows an edge near there is
// drawn to that.
func TestPiecesGoWhereThePictureShowsThem(t *testing.T) {
	loose, home, sights := house(t)
	sights[1].At = register.Motion{Move: shape.Point{X: 0.3, Y: -0.2}}.After(sights[1].At) // a picture is not so exact
	got, err := assemble.Pieces(context.Background(), loose, assemble.Shown(sights, 17))
	require.NoError(t, err)
	by := byPiece(got)
	frame := by[0].Outline.Centroid().Sub(home[0].Centroid())
	for i := range home {
		assert.Less(t, apart(by[i].Outline, home[i].Move(frame)), 0.15, "piece %d: %s", i, by[i].Why)
		if i > 0 {
			assert.GreaterOrEqual(t, by[i].Sure, 0.75)
			assert.Contains(t, by[i].Why, "where the picture shows it")
		}
	}
	assert.Equal(t, kit.FitEvenRim, by[1].Fit)
	assert.InDelta(t, 2, by[1].Rim, 0.1)
	assert.Equal(t, 1, got[by[2].Host].Piece, "it lies on the panel")
	// Without the picture nothing tells where the disc goes.
	blind, err := assemble.Pieces(context.Background(), loose)
	require.NoError(t, err)
	assert.Less(t, byPiece(blind)[2].Sure, 0.4)
}

// The image stands as the picture shows it, though its axis would do the other way up too;
// and a larger piece comes after a smaller one that slips under it.
func TestTheImageStandsAsShownAndInItsOrder(t *testing.T) {
	loose, _, sights := house(t)
	got, err := assemble.Pieces(context.Background(), loose, assemble.Shown(sights, 17+180))
	require.NoError(t, err)
	assert.InDelta(t, 180, math.Abs(math.Remainder(got[0].Motion.Turn+17, 360)), 0.6, "upside down, as shown")
	sights[1], sights[2] = sights[2], sights[1]
	got, err = assemble.Pieces(context.Background(), loose, assemble.Shown(sights, 17))
	require.NoError(t, err)
	assert.Equal(t, []int{0, 2, 1}, []int{got[0].Piece, got[1].Piece, got[2].Piece})
}

// Sights that are not of these pieces change nothing; one hardly sure leaves its piece to
// its edges.
func TestSightsThatCannotBeAreNotUsed(t *testing.T) {
	loose, _, sights := house(t)
	plain, err := assemble.Pieces(context.Background(), loose)
	require.NoError(t, err)
	twice := []assemble.Sight{sights[0], sights[1], sights[1]}
	strange := []assemble.Sight{sights[0], sights[1], {Piece: 9}}
	for _, s := range [][]assemble.Sight{nil, sights[:2], {sights[1], sights[0], sights[2]}, twice, strange} {
		got, err := assemble.Pieces(context.Background(), loose, assemble.Shown(s, 120))
		require.NoError(t, err)
		assert.Equal(t, plain[1].Motion, got[1].Motion)
	}
	sights[1].Sure = 0.2
	got, err := assemble.Pieces(context.Background(), loose, assemble.Shown(sights, 17))
	require.NoError(t, err)
	assert.NotContains(t, byPiece(got)[1].Why, "picture")
	assert.Equal(t, kit.FitEvenRim, byPiece(got)[1].Fit)
}
