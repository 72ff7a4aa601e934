package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// Laid apart, no two layers share ground, each has its label under it, and they fill the
// table from edge to edge one way or the other.
func TestPiecesLaidApart(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	type box struct{ X, Y, W, H float64 }
	boxes := func(sel string) []box {
		return read[[]box](t, ctx, `[...document.querySelectorAll("[aria-label^='The pieces'] `+sel+`")].map(e => e.getBoundingClientRect()).map(r => ({X: r.x, Y: r.y, W: r.width, H: r.height}))`)
	}
	for _, card := range []string{"lamp-sitters", "five-beetles"} {
		do(t, ctx, "lay them apart", chromedp.Navigate(p.URL+"/card/"+card+"/pieces"), seen(`[aria-label^="The pieces"]`), slide("Lay the pieces apart", kb.End), says("Numbers are places in the stack"), still())
		pieces, labels := boxes("g.settle > path:first-of-type"), boxes("g.labels > text")
		all := read[box](t, ctx, `(r => ({X: r.x, Y: r.y, W: r.width, H: r.height}))(document.querySelector("[aria-label^='The pieces']").getBoundingClientRect())`)
		if !assert.Len(t, labels, len(pieces)) || !assert.NotEmpty(t, pieces) {
			return
		}
		right, low := 0.0, 0.0
		for i, a := range pieces {
			assert.GreaterOrEqual(t, labels[i].Y, a.Y+a.H-2, "the label of layer %d is under it", i+1)
			assert.InDelta(t, a.X+a.W/2, labels[i].X+labels[i].W/2, 2)
			for j, b := range append(pieces[:i:i], labels[:i]...) {
				assert.False(t, a.X < b.X+b.W-1 && b.X < a.X+a.W-1 && a.Y < b.Y+b.H-1 && b.Y < a.Y+a.H-1, "%s: layer %d over %d", card, i+1, j)
			}
			right, low = max(right, a.X+a.W, labels[i].X+labels[i].W), max(low, labels[i].Y+labels[i].H)
		}
		left, top := pieces[0].X, pieces[0].Y
		for _, a := range append(pieces, labels...) {
			left, top = min(left, a.X), min(top, a.Y)
		}
		assert.Greater(t, max((right-left)/all.W, (low-top)/all.H), 0.9, "%s fills the table", card)
	}
}
