package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// The bench: a run under way that waits, cards kept under words, one begun as another is but for
// its words, a card put away, one from a model, and one thrown out.
func TestTheBench(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "the bench", chromedp.Navigate(p.URL), says("Planned, "))
	step := `fetch("/api/cards/lantern/sitting").then(r => r.json()).then(s => Promise.all([["done", {done: true, steps: [s.steps[0].id]}], ["timers", {minutes: 25, step: s.steps[0].id}]].map(([at, body]) => fetch("/api/cards/lantern/run/" + at, {method: "POST", headers: {"Content-Type": "application/json"}, body: JSON.stringify(body)})))).then(() => 1)`
	read[int](t, ctx, step)
	do(t, ctx, "one waits", chromedp.Navigate(p.URL), says("Waiting, 1 of "), seen(`[aria-label="Waits under way"]`), says("waiting, 1"))
	axe(t, ctx, "the bench")

	do(t, ctx, "kept under words", chromedp.Click(chromedp.CSS(`[aria-label="Keep…: Ring of toadstools"]`)), set2(`[role=dialog] input`, "autumn, for Ada"), button("Keep it so"), waitFor(`!document.querySelector("[role=dialog]")`), says("Kept under autumn, for Ada"))
	shot(t, ctx, "bench")
	do(t, ctx, "the cards of a word", button("for Ada"), waitFor(`document.querySelectorAll("h2").length === 2`))
	do(t, ctx, "all again", button("for Ada"), says("Lamp-sitters' thanks"))
	do(t, ctx, "put away", chromedp.Click(chromedp.CSS(`[aria-label="Keep…: Ring of toadstools"]`)), button("Put it away"), waitFor(`!document.querySelector("[role=dialog]")`), says("put away, 1"), gone("Kept under autumn"))
	do(t, ctx, "seen when asked for", button("put away, 1"), says("Put away "), says("Kept under autumn"))
	do(t, ctx, "a model for others", chromedp.Click(chromedp.CSS(`[aria-label="Keep…: Ring of toadstools"]`)), seen("[role=dialog] .check"))
	axe(t, ctx, "keeping a card")
	do(t, ctx, "so it is", css(`[role=dialog] .check`), waitFor(`!document.querySelector("[role=dialog]")`))
	do(t, ctx, "begun from it", set2(`input[name=title]`, "For Ada"), set2(`select:has(optgroup[label="As a card of yours"])`, "as toadstools"), button("Make the card"), waitFor(`document.querySelector('input[aria-label="Name of the card"]')?.value === "For Ada"`))

	do(t, ctx, "as that one, but for its words", chromedp.Navigate(p.URL), chromedp.Click(chromedp.CSS(`[aria-label^="As this one, but for…: Lamp-sitters"]`)), says("Says, for “thank you for watching”"))
	axe(t, ctx, "as this one")
	shot(t, ctx, "as")
	do(t, ctx, "and it is", set2(`[role=dialog] input`, "Ada's thanks"), set2(`[role=dialog] .field:nth-of-type(2) input`, "thank you, Ada"), button("Begin it"), waitFor(`document.querySelector('input[aria-label="Name of the card"]')?.value === "Ada's thanks"`), chromedp.KeyEvent("4"), says("thank you, Ada"))

	do(t, ctx, "thrown out after asking", chromedp.Navigate(p.URL), chromedp.Click(chromedp.CSS(`[aria-label="Keep…: For Ada"]`)), button("Throw it out…"), says("its log and its photographs"), button("Throw For Ada out"), waitFor(`!document.querySelector("[role=dialog]")`), gone("For Ada"))
	do(t, ctx, "shut by Escape", chromedp.Click(chromedp.CSS(`[aria-label^="Keep…: Lamp-sitters"]`)), seen("[role=dialog]"), chromedp.KeyEvent(kb.Escape), waitFor(`!document.querySelector("[role=dialog]")`))
	assert.Equal(t, 7, read[int](t, ctx, `fetch("/api/cards").then(r => r.json()).then(c => c.length)`), "six of the demo and the one for Ada's thanks")
}
