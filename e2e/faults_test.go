package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
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
	p.stop()
	do(t, ctx, "a part of the page that cannot be fetched", station("front"), says("A part of the page is not there any more"), says("start Ochrestone again first"))
	p.run()
	do(t, ctx, "the page anew", button("Open the page anew"), seen(`.place svg`), gone("not there any more"))
	quiet(ctx, "ERR_CONNECTION_REFUSED", "dynamically imported module")
}
