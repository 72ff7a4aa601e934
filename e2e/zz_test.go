package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

func TestZZ(t *testing.T) {
	bash := "/tmp/p/shots"
	os.MkdirAll(bash, 0o755)
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	shot := func(name, path string, steps ...step) {
		if only := os.Getenv("ONLY"); only != "" && only != name {
			return
		}
		long(t, ctx, name, append([]step{chromedp.Navigate(p.URL + path), seen("h1"), chromedp.Sleep(700 * time.Millisecond)}, steps...)...)
		do(t, ctx, name, chromedp.Sleep(600*time.Millisecond))
		png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(bash, name+".png"), png, 0o644))
	}
	stratum := func(n string) step {
		return eval(`document.querySelectorAll(".stratum")[` + n + `].dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	}
	shot("place", "/card/five-beetles/register", stratum("1"), says("Where to look"), pressMany("ArrowRight", 12), pressMany("]", 4), says("It runs"))
	shot("run", "/card/five-beetles/register", says("Where to look"), button("Measure"), button("Simulated run of six"), says("The run of 6"))
	shot("point", "/card/five-beetles/register", says("Where to look"), button("Measure"), button("Simulated scan"), says("askew, which is left out"), button("Point by hand"), says("Click it in the picture"))
	shot("jig", "/card/five-beetles/register", says("Where to look"), button("Sheets"), says("Turn 45"), set2(`input[aria-label], .field input[max="200"]`, "20"))
	shot("turns", "/card/five-beetles/register", says("Where to look"), button("Turns"), begins("Turn "), says("4 strikes"))
}
