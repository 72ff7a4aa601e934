package advise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// behind is a build of things one above the other, a window uppermost.
func behind(things ...build.Thing) (*build.Build, int) {
	things = append(things, build.Thing{Name: "Frame", Element: card.Element{ID: "e9", Sheet: &card.Sheet{}}})
	return &build.Build{Things: things}, len(things) - 1
}

func scene(g shape.Region) build.Thing {
	return build.Thing{Name: "Sky", Element: card.Element{ID: "e1", Face: card.Front, Sheet: &card.Sheet{}}, Outline: g}
}

func image(g shape.Region) build.Thing {
	return build.Thing{Name: "Kite", Element: card.Element{ID: "e2", Face: card.Front, Image: &card.Image{}}, Outline: g}
}

// A rectangle behind a window: its share and what is lost at each side are differences of
// coordinates.
func TestWhatAWindowShowsOfARectangle(t *testing.T) {
	window := shape.Rect(20, 30, 60, 40) // to 80 by 70
	b, at := behind(scene(shape.Rect(0, 0, 100, 100)), image(shape.Rect(10, 50, 40, 30)))
	seen, _ := throughWindow(b, at, window)
	require.Len(t, seen, 1)
	assert.InDelta(t, 30.0*20/(40*30), seen[0].Share, 1e-6)
	assert.InDeltaSlice(t, []float64{10, 0, 0, 10}, []float64{seen[0].Left, seen[0].Right, seen[0].Top, seen[0].Foot}, 1e-6)

	b, at = behind(image(shape.Rect(30, 40, 10, 10)), image(shape.Rect(90, 40, 10, 10)))
	seen, crop := throughWindow(b, at, window)
	require.Len(t, seen, 1, "what lies beside the window is not seen through it")
	assert.InDelta(t, 1, seen[0].Share, 1e-9)
	assert.Nil(t, crop, "nothing lies behind it all")

	// Of a disc of which the window's edge takes half, half is left.
	b, at = behind(image(shape.Disc(shape.Point{X: 20, Y: 50}, 8)))
	seen, _ = throughWindow(b, at, window)
	require.Len(t, seen, 1)
	assert.InDelta(t, 0.5, seen[0].Share, 0.002)
	assert.InDelta(t, 8, seen[0].Left, 0.05)
}

// What lies over the window is not behind it.
func TestAWindowDoesNotShowWhatLiesOverIt(t *testing.T) {
	b, _ := behind(scene(shape.Rect(0, 0, 100, 100)))
	b.Things = append(b.Things, image(shape.Rect(30, 40, 10, 10)))
	seen, crop := throughWindow(b, 1, shape.Rect(20, 30, 60, 40))
	assert.Empty(t, seen)
	assert.NotNil(t, crop)
}

// A scene is cut down to its window and a quarter inch of card all round, and no further
// than it reaches.
func TestASceneIsCroppedToItsWindow(t *testing.T) {
	const margin = 25.4 / 4 // the crop keeps it to be glued by
	b, at := behind(scene(shape.Rect(-10, 25, 200, 150)))
	_, crop := throughWindow(b, at, shape.Rect(20, 30, 60, 40))
	require.NotNil(t, crop)
	assert.InDelta(t, 30-margin, crop.Left, 1e-9)
	assert.InDelta(t, 0, crop.Top, 1e-9, "only 5 mm stand above the window")
	assert.InDelta(t, 60+2*margin, crop.W, 1e-9)
	assert.InDelta(t, 5+40+margin, crop.H, 1e-9)
	assert.Less(t, crop.W*crop.H, 200.0*150)

	b, at = behind(scene(shape.Rect(20-margin, 30-margin, 60+2*margin, 40+2*margin)))
	_, crop = throughWindow(b, at, shape.Rect(20, 30, 60, 40))
	assert.Nil(t, crop, "it has that size already")
}
