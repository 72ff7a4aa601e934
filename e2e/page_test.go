package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// The page in a dark room and with large letters: chosen once, kept by the browser, readable
// everywhere, and nothing runs out of the window.
func TestADarkRoomAndLargeLetters(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "choose both", chromedp.Navigate(p.URL), says("The bench"), chromedp.Click(chromedp.CSS(`header button[aria-keyshortcuts="?"], header button:last-of-type`)), says("Keys and words"),
		set2(`[role=dialog] .field:nth-of-type(1) select`, "dark"), set2(`[role=dialog] .field:nth-of-type(2) select`, "large"), waitFor(`document.documentElement.dataset.room === "dark"`))
	axe(t, ctx, "keys and words in the dark")
	do(t, ctx, "shut", chromedp.KeyEvent(kb.Escape), waitFor(`!document.querySelector("[role=dialog]")`))
	for _, at := range []string{"/", "/card/lamp-sitters/pieces", "/card/lamp-sitters/inks", "/card/lamp-sitters/front", "/card/lamp-sitters/depth", "/card/lamp-sitters/cut", "/card/lamp-sitters/work", "/card/lamp-sitters/log", "/stores/inks", "/stores/cardstock"} {
		do(t, ctx, at, chromedp.Navigate(p.URL+at), seen("h1"), waitFor(`getComputedStyle(document.body).fontSize === "18px" && document.documentElement.dataset.room === "dark"`), fetched(), still())
		axe(t, ctx, "dark and large: "+at)
		assert.LessOrEqual(t, read[float64](t, ctx, `document.documentElement.scrollWidth - innerWidth`), 0.0, "%s stays in its window", at)
	}
	assert.Contains(t, read[string](t, ctx, `fetch("/").then(() => document.documentElement.style.colorScheme)`), "dark")
	label := steps(chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), waitFor(`document.querySelector('svg[role=group]')?.getAttribute("aria-label")?.includes("Hawk-moth, 9 layers, from the top: Body stripes Fleece, pale")`))
	do(t, ctx, "who does not see it hears what lies on the front", label)
}
