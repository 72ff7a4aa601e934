package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/shape"
	"ochrestone/demo/sim"
)

// TestNewViewsOnATablet: bringing in a set and the stores at 1024 by 768,
// checked by axe, without scrolling sideways.
func TestNewViewsOnATablet(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1024, 768)
	do(t, ctx, "the picture", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"))
	axe(t, ctx, "the picture on a tablet")
	long(t, ctx, "the simulated scanner", laidDown("Marsh mallow"), button("Use the simulated device"), says("4 pieces found"))
	axe(t, ctx, "the pieces on a tablet")
	long(t, ctx, "stack them", begins("Stack the 4"), says("The stack, top first"))
	axe(t, ctx, "the stack on a tablet")
	do(t, ctx, "choose a piece", eval(`document.querySelectorAll("[aria-label^='Choose ']")[0].click()`), says("Quarter turn"))
	axe(t, ctx, "a chosen piece on a tablet")
	do(t, ctx, "the sets", chromedp.Navigate(p.URL+"/stores/sets"), says("Draw basic dies"), button("Open"), says("True width of the set"))
	axe(t, ctx, "the sets on a tablet")
	do(t, ctx, "the drawer", chromedp.Navigate(p.URL+"/stores/inks"), says("Measure your inks"))
	axe(t, ctx, "the drawer on a tablet")
}

// TestLongWorkCanBeStopped: a stack of many pieces is being worked out when the
// person stops it; nothing is kept and the pieces are still there.
func TestLongWorkCanBeStopped(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	long(t, ctx, "the simulated scanner", chromedp.Navigate(p.URL+"/stores/sets/scan"), laidDown("Hawk-moth"), button("Use the simulated device"), says("23 pieces found"))
	do(t, ctx, "begin and stop", begins("Stack the 23"), says("Trying which piece goes where"), button("Stop"), says("Stopped. Nothing was kept"), says("23 pieces found"))
	do(t, ctx, "the sets are as they were", chromedp.Navigate(p.URL+"/stores/sets"), says("8 sets"))
}

// TestInksAfterAPicture: an image coloured after a photograph, taken, undone.
func TestInksAfterAPicture(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	b := sim.Bench{W: 40, H: 30, Sheet: sim.Papers[2], Items: []sim.Item{{Outline: shape.Rect(0, 0, 12, 30), Colour: sim.Papers[3], Print: true}, {Outline: shape.Rect(30, 0, 10, 30), Colour: sim.Papers[0], Print: true}}}
	raw, err := sim.PNG(b.Scan(150, sim.Grade{Tone: 1}, 1), 150)
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), "petal.png")
	require.NoError(t, os.WriteFile(name, raw, 0o600))
	words := filepath.Join(t.TempDir(), "words.png")
	require.NoError(t, os.WriteFile(words, []byte("no picture"), 0o600))
	file := chromedp.CSS(`input[type=file]`)
	do(t, ctx, "a file that is no picture", chromedp.Navigate(p.URL+"/card/lamp-sitters/inks"), says("From your drawer"), chromedp.SetUploadFiles(file, []string{words}), says("not a picture that can be read"))
	quiet(ctx)
	do(t, ctx, "a picture", chromedp.SetUploadFiles(file, []string{name}), says("After the picture"))
	before := string(get(t, p.URL+"/api/cards/lamp-sitters"))
	do(t, ctx, "take it", eval(`[...document.querySelectorAll("button")].find(b => b.textContent.includes("After the picture")).click()`), says("Saved, change 2"))
	assert.NotEqual(t, before, string(get(t, p.URL+"/api/cards/lamp-sitters")))
	axe(t, ctx, "inks after a picture")
	do(t, ctx, "undo", button("Undo"), says("Saved, change 3"))
	recipe := string(get(t, p.URL+"/api/cards/lamp-sitters/recipe.csv"))
	assert.Contains(t, recipe, "Hawk-moth,Bracken and Madder,Hind wings")
	do(t, ctx, "only one family", css(`[aria-haspopup=dialog]`), seen(`select`), eval(`const s = [...document.querySelectorAll(".field")].find(x => x.textContent.startsWith("Families")).querySelector("select");
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(s, "Soot"); s.dispatchEvent(new Event("change", {bubbles: true}))`), button("Suggest inks"), waitFor(`/An ink that dries to a lightness of|weakest pair|not enough lightnesses/.test(document.body.innerText)`))
	text := read[string](t, ctx, "document.body.innerText")
	assert.Regexp(t, `An ink that dries to a lightness of|weakest pair|not enough lightnesses`, text, "an answer, or what is missing")
	quiet(ctx)
}
