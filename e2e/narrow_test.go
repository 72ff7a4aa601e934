package e2e

import (
	"fmt"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// The path shows every station at every width, and on a phone nothing is wider than the phone and
// the thing that is made is to be seen.
func TestNarrowScreensLoseNothing(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	for _, w := range []int{1280, 1024, 820, 390} {
		h := map[int]int{1280: 800, 1024: 768, 820: 1180, 390: 844}[w]
		ctx := browser(t, w, h)
		for _, at := range []string{"/", "/card/lamp-sitters/front", "/card/lamp-sitters/inks", "/card/lamp-sitters/pieces", "/card/lamp-sitters/work", "/card/lamp-sitters/log"} {
			where := fmt.Sprintf("%s at %d", at, w)
			do(t, ctx, where, chromedp.Navigate(p.URL+at), waitFor(`document.readyState==="complete" && !!document.querySelector("main, [role=main], .tile, .table, nav")`), settled())
			if at == "/" {
				do(t, ctx, where, says("Lamp-sitters"))
			} else {
				do(t, ctx, where, waitFor(`document.querySelectorAll(".stone, nav[aria-label] a").length > 7`))
			}
			shot(t, ctx, fmt.Sprintf("narrow-%d-%s", w, strings.ReplaceAll(at, "/", "_")))
			wide := read[float64](t, ctx, `document.scrollingElement.scrollWidth`)
			assert.LessOrEqual(t, wide, float64(w), "%s runs out of the window", where)
			if at == "/" {
				continue
			}
			out := read[[]string](t, ctx, `[...document.querySelectorAll(".stone, nav[aria-label] a")].filter(a => { const r = a.getBoundingClientRect(); return r.width === 0 || r.right > innerWidth + 1 || r.left < -1 }).map(a => a.textContent)`)
			assert.Empty(t, out, "%s: stones that cannot be seen", where)
			if at == "/card/lamp-sitters/front" || at == "/card/lamp-sitters/inks" {
				high := read[float64](t, ctx, `Math.max(0, ...[...document.querySelectorAll("svg[role=group]")].map(s => { const r = s.getBoundingClientRect(); return Math.min(r.width, r.height) }))`)
				assert.Greater(t, high, 150.0, "%s: its picture", where)
			}
		}
	}
}
