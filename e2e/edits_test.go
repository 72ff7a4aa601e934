package e2e

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

const moth = `fetch("/api/cards/lamp-sitters").then(r=>r.json())`

// A key held down moves the part as far as the presses say, in one step to undo, and the
// picture waits for no answer.
func TestAKeyHeldDown(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "open the front", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), seen(".front-form"))
	do(t, ctx, "take the strip in hand", inHand("e2"), seen(`[aria-label^="The front of the card"]`), says("Words"))
	was := read[float64](t, ctx, moth+`.then(v=>v.card.elements.find(e=>e.id==="e2").place.y)`)
	// Sixty presses in one go, as fast as the page takes them; what is drawn is looked at before any answer can have come.
	moved := read[float64](t, ctx, `(async () => {
		const at = () => new DOMMatrix(getComputedStyle(document.querySelector("#thing-e2")).transform).f;
		const from = at();
		for (let i = 0; i < 60; i++) window.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowUp", bubbles: true, repeat: i > 0 }));
		await new Promise(r => requestAnimationFrame(() => requestAnimationFrame(r)));
		return from - at();
	})()`)
	assert.InDelta(t, 60*25.4/16, moved, 1, "drawn at once")
	do(t, ctx, "all is saved", says("Saved, change"), gone("Saving"))
	now := read[float64](t, ctx, moth+`.then(v=>v.card.elements.find(e=>e.id==="e2").place.y)`)
	assert.InDelta(t, was-60*25.4/16, now, 1e-6, "every press is kept")
	do(t, ctx, "one undo takes all of it back", button("Undo"), gone("Saving"))
	assert.Eventually(t, func() bool {
		return read[float64](t, ctx, moth+`.then(v=>v.card.elements.find(e=>e.id==="e2").place.y)`) == was
	}, 10e9, 1e8)
	// Pressed while the answer to a move is still out, an undo waits its turn.
	do(t, ctx, "a move and its undo at one go", eval(`window.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown", bubbles: true })); document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "z", ctrlKey: true, bubbles: true }))`), gone("Saving"))
	got := ""
	assert.Eventually(t, func() bool {
		got = read[string](t, ctx, moth+`.then(v=>v.version+" "+v.card.elements.find(e=>e.id==="e2").place.y)`)
		return got == fmt.Sprintf("%d %g", 6, was)
	}, 10e9, 1e8)
	assert.Equal(t, fmt.Sprintf("%d %g", 6, was), got)
	do(t, ctx, "gems are added, counted and drawn", pressAdd("Gems"), says("3 gems"), seen(`[aria-label^="The front of the card"] path[fill="#e8e2d4"]`))
}
