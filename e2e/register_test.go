package e2e

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// TestPlayDragPracticeAndJig: how far a layer may drift, where to look and which
// way to place it; dragged out it shows; a practice run is graded; a turning jig
// comes as a PDF, and one too large for the page says so.
func TestPlayDragPracticeAndJig(t *testing.T) {
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	stratum := eval(`document.querySelectorAll(".stratum")[5].dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	do(t, ctx, "open Register", chromedp.Navigate(p.URL+"/card/lamp-sitters/register"), says("Where to look"), stratum, says("For each of its pieces: Bring 1"), says("back into its own hole"))
	axe(t, ctx, "placing")
	do(t, ctx, "a longer run wants more blanks", set2(`[aria-label="Wanted in the run"]`, "50"), says("for 50 at 95 %"))
	do(t, ctx, "it drifts and does not show", pressMany("ArrowRight", 2), says("it does not show"))
	do(t, ctx, "it drifts further and shows", pressMany("ArrowRight", 9), says("it shows"))
	do(t, ctx, "back", button("Back in place"), says("In its place"))

	do(t, ctx, "practise", button("Practise"), says("by eye, with the keys or by dragging"), pressMany("ArrowLeft", 3), button("There"), says("allowed that way"), button("There"), says("(from 2 tries)"))
	axe(t, ctx, "the practice")
	do(t, ctx, "end it", button("End the practice"), says("In its place"))

	do(t, ctx, "a jig", button("Turning jig"), says("Turn 45° each time"), says("Print the jig"))
	axe(t, ctx, "the jig")
	href := read[string](t, ctx, `document.querySelector('a[href^="/api/jig.pdf"]').getAttribute("href")`)
	assert.Contains(t, string(get(t, p.URL+href)[:5]), "%PDF")
	do(t, ctx, "too large", set2(`input[max="200"][step="0.5"]`, "150"), chromedp.Sleep(200*time.Millisecond), says("does not fit on a page"))
}
