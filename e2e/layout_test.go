package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A ring is proposed with its count before one is laid, laid in one change, and undone in
// one; a radius too small is said with what is wrong.
func TestARingIsLaid(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	count := `fetch("/api/cards/lamp-sitters").then(r=>r.json()).then(v=>v.card.elements.length)`
	do(t, ctx, "gems in hand", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), pressAdd("Gems"), says("Saved, change 2"),
		eval(`[...document.querySelectorAll(".stratum")].at(-1).dispatchEvent(new MouseEvent("click", {bubbles: true}))`), says("How many"))
	was := read[int](t, ctx, count)
	do(t, ctx, "what a ring takes", button("Several"), says("Lay several in"), says("close the ring"))
	axe(t, ctx, "several")
	do(t, ctx, "too small a ring", typeInto("Radius", "1 mm"), says("the ring is too small"))
	quiet(ctx)
	do(t, ctx, "eight of them", typeInto("Radius", "1 1/2"), settled(), typeInto("How many, 0", "8"), says("8 close the ring"), changes(button("Lay 8")))
	assert.Equal(t, was+7, read[int](t, ctx, count))
	do(t, ctx, "one undo", chromedp.KeyEvent(kb.Escape), changes(button("Undo")))
	assert.Equal(t, was, read[int](t, ctx, count))
}
