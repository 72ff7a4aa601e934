package e2e

import (
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A fault in one station leaves the rest of the page standing, and the station comes
// back when the fault is gone; a part of the page that cannot be fetched says so.
func TestAFaultStaysInItsStation(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	station := func(s string) step { return css(`nav[aria-label="Stations"] a[href$="/` + s + `"]`) }
	do(t, ctx, "a fault while Depth is drawn", chromedp.Navigate(p.URL+"/card/lamp-sitters/inks"), says("dried"),
		eval(`window.kept = Number.prototype.toFixed; Number.prototype.toFixed = () => { throw new Error("no figures today") }`),
		station("depth"), says("Depth could not be drawn"), says("every change that shows as saved is kept"), says("no figures today"),
		seen(`nav[aria-label="Stations"]`))
	do(t, ctx, "it comes back", eval(`Number.prototype.toFixed = window.kept`), button("Try again"), says("thick"), gone("could not be drawn"))
	quiet(ctx, "no figures today")
	do(t, ctx, "the bench", css(`header a[href="/"]`), says("Cards in hand"))
	p.stop()
	do(t, ctx, "a part of the page that cannot be fetched", css(`a[href="/stores"]`), says("A part of the page is not there any more"), says("start Ochrestone again first"))
	p.run()
	do(t, ctx, "the page anew", button("Open the page anew"), seen(`nav[aria-label="Shelves"]`), gone("not there any more"))
	quiet(ctx, "ERR_CONNECTION_REFUSED", "dynamically imported module")
}

// While the program does not answer, what is done stays in the picture, the page says so in
// words, and all of it is saved when the program answers again.
func TestWhatIsDoneWaitsForTheProgram(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	place := moth + `.then(v=>v.card.elements.find(e=>e.id==="e2").place.x)`
	do(t, ctx, "take the strip in hand", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), seen(".front-form"),
		inHand("e2"), says("Words"))
	was := read[float64](t, ctx, place)
	do(t, ctx, "all stations are here", chromedp.WaitVisible(chromedp.CSS(`button[aria-haspopup=menu]`)), fetched())
	p.stop()
	do(t, ctx, "move it", pressMany("ArrowRight", 3), says("Ochrestone does not answer: 2 changes wait here"), says("leave this page open"))
	do(t, ctx, "and tick a step", chromedp.KeyEvent("7"), says("Step 1 of"), button("Done"), says("Step 2 of"), says("3 changes wait here"))
	p.run()
	do(t, ctx, "all is saved", says("Saved, change 3"), gone("does not answer"))
	assert.InDelta(t, was+3*25.4/16, read[float64](t, ctx, place), 1e-6)
	assert.Equal(t, 1, read[int](t, ctx, moth+`.then(v=>v.run.done.length)`))
	quiet(ctx, "ERR_CONNECTION_REFUSED")
}

// A step ticked while the program does not answer, and the page shut before it does: the tick is
// sent when the card is opened again.
func TestTicksOutliveThePage(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1024, 768)
	do(t, ctx, "at work", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), says("0 of 33 done"), chromedp.WaitVisible(chromedp.CSS(`button[aria-haspopup=menu]`)), fetched(), eval(`window.addEventListener("beforeunload", e => e.stopImmediatePropagation(), true)`))
	p.stop()
	do(t, ctx, "two ticks and one taken back", button("Done"), says("1 of 33 done"), button("Done"), says("2 of 33 done"), press(`//li//button[contains(., "2 Cut the mat")]`), button("Not done after all"), says("1 of 33 done"), says("wait here"))
	do(t, ctx, "the page is shut", chromedp.Navigate("about:blank"))
	quiet(ctx, "ERR_CONNECTION_REFUSED")
	p.run()
	assert.Equal(t, 0, len(strings.Split(string(get(t, p.URL+"/api/cards/lamp-sitters/run")), `"verb"`))-1, "nothing of it came yet")
	do(t, ctx, "and opened again", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), says("1 of 33 done"))
	require.Eventually(t, func() bool {
		return strings.Count(string(get(t, p.URL+"/api/cards/lamp-sitters/run")), `"verb"`) == 1
	}, 10*time.Second, 50*time.Millisecond, "it is there, the one taken back is not")
	do(t, ctx, "and nothing waits any more", waitFor(`!Object.keys(localStorage).some(k => k.startsWith("ticks "))`))
}
