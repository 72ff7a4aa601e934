package trace_test

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

func find(t *testing.T, b sim.Bench, opts ...trace.Option) trace.Result {
	t.Helper()
	res, err := trace.Find(context.Background(), scan(t, b, 7), trace.DPI(300), opts...)
	require.NoError(t, err)
	return res
}

func hexed(h string) colour.Linear { c, _ := colour.ParseHex(h); return c }

func said(r trace.Result, word string) bool {
	return strings.Contains(strings.Join(r.Notes, "\n"), word)
}

// Two pieces that touch or overlap are never taken for one in silence: the same
// card or another, overlapping by little or by much.
func TestPiecesThatTouchAreSaid(t *testing.T) {
	cream, red, blue := hexed("#f1ead9"), hexed("#b4524f"), hexed("#43849c")
	disc := func(x, y, r float64) shape.Region { return shape.Disc(shape.Point{X: x, Y: y}, r) }
	leaf := func(x, y, turn float64) shape.Region {
		a := disc(0, -9, 15)
		g, err := a.Intersect(disc(0, 9, 15))
		require.NoError(t, err)
		return g.Turn(turn, shape.Point{}).Move(shape.Point{X: x, Y: y})
	}
	for name, items := range map[string][]sim.Item{
		"discs that touch":              {{Outline: disc(25, 30, 10), Colour: cream}, {Outline: disc(44.8, 30, 10), Colour: cream}},
		"discs, a third over":           {{Outline: disc(25, 30, 10), Colour: cream}, {Outline: disc(39, 30, 10), Colour: cream}},
		"square and disc":               {{Outline: shape.Rect(15, 20, 20, 20), Colour: cream}, {Outline: disc(40, 30, 9), Colour: cream}},
		"two bars crossed":              {{Outline: shape.Rect(12, 26, 40, 9), Colour: cream}, {Outline: shape.Rect(28, 10, 9, 40), Colour: cream}},
		"leaves":                        {{Outline: leaf(26, 30, 0), Colour: cream}, {Outline: leaf(40, 34, 60), Colour: cream}},
		"two colours, edge to edge":     {{Outline: shape.Rect(15, 20, 18, 20), Colour: red}, {Outline: shape.Rect(33, 20, 18, 20), Colour: blue}},
		"two colours, one on the other": {{Outline: shape.Rect(12, 12, 40, 40), Colour: cream}, {Outline: disc(30, 30, 10), Colour: red}},
		"two colours, half over":        {{Outline: disc(28, 30, 13), Colour: blue}, {Outline: disc(38, 30, 11), Colour: cream}},
	} {
		for ground, sheet := range map[string]colour.Linear{"black": sim.Black, "white": sim.White} {
			if ground == "white" {
				for i := range items {
					if items[i].Colour == cream {
						items[i].Colour = hexed("#6d7a4c")
					}
				}
			}
			r := find(t, sim.Bench{W: 66, H: 66, Sheet: sheet, Items: items})
			assert.True(t, said(r, "touch or overlap") || len(r.Pieces) >= 2, "%s on %s: %d found, %v", name, ground, len(r.Pieces), r.Notes)
		}
	}
}

// Honest pieces are not asked about: round ones, toothed ones, striped ones, ones
// with windows.
func TestHonestPiecesAreNotDoubted(t *testing.T) {
	cream, red := hexed("#f1ead9"), hexed("#b4524f")
	frame, err := shape.Rect(10, 10, 40, 40).Minus(shape.Rect(17, 17, 26, 26))
	require.NoError(t, err)
	heart := shape.New(true, shape.Ring{{X: 30, Y: 50}, {X: 12, Y: 30}, {X: 14, Y: 18}, {X: 22, Y: 14}, {X: 30, Y: 22}, {X: 38, Y: 14}, {X: 46, Y: 18}, {X: 48, Y: 30}})
	for name, it := range map[string]sim.Item{
		"a disc": {Outline: shape.Disc(shape.Point{X: 30, Y: 30}, 15), Colour: cream}, "a frame": {Outline: frame, Colour: cream}, "a heart": {Outline: heart, Colour: red},
		"stripes": {Outline: shape.Rect(12, 12, 34, 30), Colour: cream, Stripe: &red},
	} {
		r := find(t, sim.Bench{W: 62, H: 62, Sheet: sim.Black, Items: []sim.Item{it}})
		assert.Len(t, r.Pieces, 1, name)
		assert.Empty(t, r.Notes, name)
	}
	for _, set := range demoSets(t)[:1] {
		laid, err := sim.Lay(set, 200, 200, 20, 5)
		require.NoError(t, err)
		r := find(t, sim.Bench{W: 200, H: 200, Sheet: sim.Black, Items: sim.Pieces(laid, true)})
		doubted := 0
		for _, p := range r.Pieces {
			if p.Touches {
				doubted++
			}
		}
		assert.LessOrEqual(t, doubted, 2, "%s: %v", set.Name, r.Notes)
	}
}

// A black sheet smaller than the glass, with the page's defaults: the pieces on it
// come out, in their place, and the sheet is not one of them.
func TestASmallSheetOnTheGlass(t *testing.T) {
	for name, colours := range map[string][3]string{"many colours": {"#b4524f", "#e9c957", "#7fba9c"}, "white card": {"#f6f5f1", "#f1ead9", "#ffffff"}} {
		sheet := shape.Rect(20, 25, 110, 90).Turn(2, shape.Point{X: 75, Y: 70})
		pieces := []shape.Region{shape.Disc(shape.Point{X: 50, Y: 60}, 12), shape.Rect(80, 45, 26, 18), shape.Disc(shape.Point{X: 95, Y: 90}, 9)}
		b := sim.Bench{W: 160, H: 150, Sheet: hexed("#f4f4f2"), Items: []sim.Item{{Outline: sheet, Colour: sim.Black}}}
		for i, g := range pieces {
			b.Items = append(b.Items, sim.Item{Outline: g, Colour: hexed(colours[i])})
		}
		r := find(t, b)
		require.Len(t, r.Pieces, 3, "%s: %v", name, r.Notes)
		assert.True(t, said(r, "sheet of 110 × 90 mm"), "%v", r.Notes)
		for i, g := range []shape.Region{pieces[1], pieces[0], pieces[2]} {
			assert.InDelta(t, g.Area(), r.Pieces[i].Region.Area(), 0.02*g.Area(), name)
			assert.InDelta(t, 0, r.Pieces[i].Region.Centroid().Distance(g.Centroid()), 0.1)
			assert.False(t, r.Pieces[i].Cut)
		}
	}
}

// A small sheet in the corner of a large glass, and a black mat with its window, which
// is a piece.
func TestASheetOrAMat(t *testing.T) {
	sheet := shape.Rect(20, 25, 90, 60).Turn(1.5, shape.Point{X: 60, Y: 50})
	b := sim.Bench{W: 210, H: 200, Sheet: hexed("#f4f4f2"), Items: []sim.Item{{Outline: sheet, Colour: sim.Black},
		{Outline: shape.Disc(shape.Point{X: 45, Y: 50}, 12), Colour: hexed("#b4524f")}, {Outline: shape.Disc(shape.Point{X: 85, Y: 60}, 9), Colour: hexed("#f6f5f1")}}}
	r := find(t, b)
	assert.Len(t, r.Pieces, 2, "%v", r.Notes)
	mat, err := shape.Rect(20, 20, 102, 133).Minus(shape.Rect(32, 32, 78, 109))
	require.NoError(t, err)
	r = find(t, sim.Bench{W: 150, H: 175, Sheet: hexed("#f4f4f2"), Items: []sim.Item{{Outline: mat, Colour: sim.Black}}})
	require.Len(t, r.Pieces, 1)
	assert.InDelta(t, mat.Area(), r.Pieces[0].Region.Area(), 0.02*mat.Area(), "%v", r.Notes)
}

// A picture with a dark frame round it: a piece that runs into the frame is said
// to be cut off.
func TestPiecesCutByAFrame(t *testing.T) {
	page, err := shape.Rect(-5, -5, 170, 160).Minus(shape.Rect(8, 8, 144, 134))
	require.NoError(t, err)
	b := sim.Bench{W: 160, H: 150, Sheet: hexed("#f4f4f2"), Items: []sim.Item{
		{Outline: shape.Disc(shape.Point{X: 60, Y: 60}, 15), Colour: hexed("#71894a")},
		{Outline: shape.Rect(130, 60, 40, 20), Colour: hexed("#b4524f")},
		{Outline: page, Colour: sim.Black, Print: true},
	}}
	r := find(t, b)
	cut := 0
	for _, p := range r.Pieces {
		if p.Cut {
			cut++
		}
	}
	assert.Positive(t, cut, "%d pieces, %v", len(r.Pieces), r.Notes)
	assert.True(t, said(r, "edge of the picture"))
}

// Card hardly darker or lighter than its sheet is said to be doubtful, or at least
// that something lies there.
func TestLowContrastIsSaid(t *testing.T) {
	black := sim.Black.Hex()
	for _, c := range []string{"#2a2a2c", "#333436", "#26282a"} {
		b := sim.Bench{W: 90, H: 90, Sheet: sim.Black, Items: []sim.Item{
			{Outline: shape.Rect(10, 10, 25, 25), Colour: hexed("#e9c957")}, {Outline: shape.Rect(50, 45, 30, 30), Colour: hexed(c)}}}
		r := find(t, b)
		assert.True(t, said(r, "near in colour to") || said(r, "hardly stands off"), "%s on %s: %d found, %v", c, black, len(r.Pieces), r.Notes)
	}
}

// A picture full of specks is refused, and not followed for minutes.
func TestSpecksAreRefused(t *testing.T) {
	p := &picture.Picture{W: 1600, H: 1600, Pix: make([]uint8, 3*1600*1600), DPI: 300, Reduced: 1}
	for i := range p.Pix {
		p.Pix[i] = 240
	}
	for y := 4; y < 1596; y += 12 {
		for x := 4; x < 1596; x += 12 {
			for d := range 25 {
				i := 3 * ((y+d/5)*1600 + x + d%5)
				p.Pix[i], p.Pix[i+1], p.Pix[i+2] = 20, 20, 20
			}
		}
	}
	_, err := trace.Find(context.Background(), p, trace.DPI(300), trace.Prints())
	var pic *picture.Problem
	require.ErrorAs(t, err, &pic)
	assert.Contains(t, pic.What, "full of specks")
}
