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

	noPlay := chromedp.WaitNotPresent(chromedp.CSS(`svg path[fill="#f3f3f1cc"]`)) // nothing that tells where it goes
	do(t, ctx, "practise", button("Practise"), says("by eye, with the keys or by dragging"), noPlay, pressMany("ArrowLeft", 3), button("There"), says("allowed that way"), button("There"), says("(from 2 tries)"))
	axe(t, ctx, "the practice")
	do(t, ctx, "end it", button("End the practice"), says("In its place"))

	do(t, ctx, "a jig", button("Turning jig"), says("Turn 45° each time"), says("Print the jig"))
	axe(t, ctx, "the jig")
	href := read[string](t, ctx, `document.querySelector('a[href^="/api/jig.pdf"]').getAttribute("href")`)
	assert.Contains(t, string(get(t, p.URL+href)[:5]), "%PDF")
	do(t, ctx, "too large", set2(`input[max="200"][step="0.5"]`, "150"), chromedp.Sleep(200*time.Millisecond), says("does not fit on a page"))
}

// TestAProofIsMeasured: a scan that is no proof is refused and says what to do;
// a simulated proof is measured layer by layer with its certainty, and the
// correction, applied, brings the next one inside the play.
func TestAProofIsMeasured(t *testing.T) {
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "open Register", chromedp.Navigate(p.URL+"/card/five-beetles/register"), says("Where to look"), button("Measure a print"), says("A print, measured"))
	long(t, ctx, "a picture of nothing", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{badPicture(t)}), button("Measure it"), says("not the paper this image is printed on"))
	long(t, ctx, "a simulated proof", button("Simulated scan"), says("Looking for every layer"), says("askew, which is left out"), says("for this strike"))
	axe(t, ctx, "a print measured")
	off := read[float64](t, ctx, `Number(/Off ([\d.]+) mm/.exec(document.body.textContent)[1])`)
	assert.Greater(t, off, 0.0)
	do(t, ctx, "shown where it lies", button("Show it"), says("Off by"))
	sizes := `[...document.body.textContent.matchAll(/Off ([\d.]+) mm \w+ and ([\d.]+) mm/g)].reduce((m, x) => Math.max(m, Number(x[1]), Number(x[2])), 0)`
	was := read[float64](t, ctx, sizes)
	long(t, ctx, "the next one, the paper moved as said", button("Simulated scan, the paper moved so"), says("Looking for every layer"), says("askew, which is left out"))
	assert.Greater(t, was, 0.25, "some layer was off by more than a hand's step")
	assert.Less(t, read[float64](t, ctx, sizes), 0.12, "what is left is less than a hand can move")
	assert.Zero(t, read[int](t, ctx, `document.body.textContent.split("it shows Show it").length - 1`))
}
