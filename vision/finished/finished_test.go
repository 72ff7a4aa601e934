package finished_test

import (
	"context"
	"image"
	"image/color"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/demo/drawn"
	"ochrestone/demo/sim"
	"ochrestone/vision/finished"
	"ochrestone/vision/picture"
)

func named(t testing.TB, name string) kit.Set {
	for _, of := range []func() ([]kit.Set, error){drawn.Sets, drawn.HeldBack} {
		sets, err := of()
		require.NoError(t, err)
		for _, s := range sets {
			if s.Name == name {
				return s
			}
		}
	}
	t.Fatalf("no set %s", name)
	return kit.Set{}
}

// A photograph of a church put together by hand: every piece is found to within what the
// hand and a phone are exact to, in order, with scale and colours as they were.
func TestAFinishedImageIsRead(t *testing.T) {
	s := shoot(t, named(t, "Church"), 5)
	p, err := picture.Decode(s.jpeg)
	require.NoError(t, err)
	var told []float64
	r, err := finished.Read(context.Background(), p, s.pieces, finished.Progress(func(f float64) { told = append(told, f) }))
	require.NoError(t, err)
	require.Len(t, r.Seen, len(s.pieces))
	assert.IsNonDecreasing(t, told)
	assert.InDelta(t, 1, told[len(told)-1], 1e-9)
	cam, _ := sim.Held(5)
	assert.InDelta(t, cam.Fill*float64(cam.H)/190, r.Scale, 0.15, "a bench of 190 mm fills so much of the picture's height")
	assert.Less(t, r.Fit, 0.4)
	for i, v := range r.Seen {
		assert.GreaterOrEqual(t, v.Sure, 0.4, "piece %d", v.Piece)
		assert.Less(t, s.off(r, v), 0.45, "piece %d", v.Piece)
		if i > 0 {
			assert.LessOrEqual(t, s.pieces[v.Piece].Filled().Area(), s.pieces[r.Seen[0].Piece].Filled().Area(), "the largest first")
		}
		// The camera takes some of the light, of all about alike; lightness is kept to some units.
		if v.Shown > 20 {
			assert.InDelta(t, s.colour[v.Piece].Lab().L, v.Colour.Lab().L, 9, "lightness of piece %d", v.Piece)
		}
	}
	again, err := finished.Read(context.Background(), p, s.pieces)
	require.NoError(t, err)
	assert.Equal(t, r.Seen, again.Seen, "the same picture says the same")
	assert.Equal(t, r.Flat.W, r.Flat.Image().Rect.Dx())
}

// A piece slipped under a larger one is seen beneath it.
func TestWhatSlipsUnderIsSeenBeneath(t *testing.T) {
	big := shape.Rect(-30, -30, 60, 60)
	band := shape.Rect(-24, -10, 48, 20)                                      // larger
	tab, err := shape.Rect(-5, -22, 10, 30).Union(shape.Rect(-9, -22, 18, 6)) // smaller, its foot beneath the band
	require.NoError(t, err)
	set := kit.Set{ID: "t", Name: "Tab", Kind: kit.DieSet, Parts: []kit.Part{
		{ID: "p1", Label: "Base", Outline: big, Copies: 1}, {ID: "p2", Label: "Tab", Outline: tab, Copies: 1}, {ID: "p3", Label: "Band", Outline: band, Copies: 1},
	}}
	s := shoot(t, set, 9)
	p, err := picture.Decode(s.jpeg)
	require.NoError(t, err)
	r, err := finished.Read(context.Background(), p, s.pieces)
	require.NoError(t, err)
	var order []string
	for _, v := range r.Seen {
		order = append(order, s.laid[v.Piece].Part)
	}
	assert.Equal(t, []string{"p1", "p2", "p3"}, order)
}

// Pictures of something else, of nothing, and pieces that make no image are refused, each
// with what to do.
func TestOtherPicturesAreRefused(t *testing.T) {
	church := shoot(t, named(t, "Church"), 5)
	read := func(jpeg []byte, pieces []shape.Region) *picture.Problem {
		t.Helper()
		p, err := picture.Decode(jpeg)
		require.NoError(t, err)
		_, err = finished.Read(context.Background(), p, pieces)
		require.Error(t, err)
		w, ok := picture.AsProblem(err)
		require.True(t, ok, "%v", err)
		assert.NotEmpty(t, w.Mend)
		return w
	}
	assert.Contains(t, read(shoot(t, named(t, "Rabbit"), 6).jpeg, church.pieces).What, "does not show these pieces")
	plain := image.NewRGBA(image.Rect(0, 0, 400, 300))
	for i := range plain.Pix {
		plain.Pix[i] = 200
	}
	jpeg, err := sim.JPEG(plain, 72, 90)
	require.NoError(t, err)
	assert.Contains(t, read(jpeg, church.pieces).What, "stands out")
	assert.Contains(t, read(church.jpeg, church.pieces[:1]).What, "only one piece")
	assert.Contains(t, read(church.jpeg, make([]shape.Region, 61)).What, "61 pieces")
	assert.Contains(t, read(church.jpeg, append([]shape.Region{{}}, church.pieces...)).What, "next to no area")
	for y := range 40 { // a speck is no image
		for x := range 40 {
			plain.Set(100+x, 100+y, color.Black)
		}
	}
	jpeg, err = sim.JPEG(plain, 72, 90)
	require.NoError(t, err)
	read(jpeg, church.pieces)

	p, err := picture.Decode(church.jpeg)
	require.NoError(t, err)
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err = finished.Read(ctx, p, church.pieces)
	require.ErrorIs(t, err, context.Canceled)
}
