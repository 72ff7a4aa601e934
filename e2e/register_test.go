package e2e

import (
	"fmt"
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
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	stratum := eval(`document.querySelectorAll(".stratum")[5].dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	do(t, ctx, "open Register", chromedp.Navigate(p.URL+"/card/lamp-sitters/register"), says("Where to look"), button("inches"), says("millimetres"), stratum, says("For each of its pieces: Bring 1"), says("back into its own hole"))
	axe(t, ctx, "placing")
	do(t, ctx, "a longer run wants more blanks", set2(`[aria-label="Wanted in the run"]`, "50"), says("for 50 at 95 %"))
	do(t, ctx, "it drifts and does not show", pressMany("ArrowRight", 2), says("it does not show"))
	do(t, ctx, "it drifts further and shows", pressMany("ArrowRight", 9), says("it shows"))
	do(t, ctx, "back", button("Back in place"), says("In its place"))

	noPlay := chromedp.WaitNotPresent(chromedp.CSS(`svg path[fill="#f3f3f1cc"]`)) // nothing that tells where it goes
	do(t, ctx, "practise", button("Practise"), says("Bring the layer into its place by eye"), noPlay, pressMany("ArrowLeft", 3), button("There"), says("came out"), button("There"), says("(from 2 tries)"), button("There"), button("Keep 3 tries"), says("3 tries kept in the log"))
	axe(t, ctx, "the practice")
	do(t, ctx, "turned, too", button("End the practice"), says("In its place"), pressMany("]", 3), says("turned 0.6° clockwise"))
	do(t, ctx, "what it does", pressMany("ArrowRight", 15), says("It runs"))
	do(t, ctx, "end it", button("Back in place"), says("In its place"))

	do(t, ctx, "a jig", button("Sheets"), says("Turn 45° each time"), says("Print the jig"))
	axe(t, ctx, "the jig")
	href := read[string](t, ctx, `document.querySelector('a[href^="/api/jig.pdf"]').getAttribute("href")`)
	assert.Contains(t, string(get(t, p.URL+href)[:5]), "%PDF")
	do(t, ctx, "a second ring between", typeInto("Width of the image", "20 mm"), settled(), typeInto("Second ring, width", "6 mm"), says("half a step on"))
	do(t, ctx, "too large", typeInto("Width of the image", "150 mm"), says("does not fit on a page"))
}

// TestAProofIsMeasured: a scan that is no proof is refused and says what to do;
// a simulated proof is measured layer by layer with its certainty, and the
// correction, applied, brings the next one inside the play.
func TestAProofIsMeasured(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "open Register", chromedp.Navigate(p.URL+"/card/five-beetles/register"), says("Where to look"), button("inches"), says("millimetres"), button("Measure"), says("Picture of one print"))
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

// TestPointsHandAndTurns: points set by hand on the picture measure a print and
// go to the log, where they can be taken back; own limits widen the play; a
// pattern of quarter turns shows its strikes, and they stand as steps in Work.
func TestPointsHandAndTurns(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	long(t, ctx, "a run of six", chromedp.Navigate(p.URL+"/card/five-beetles/register"), says("Where to look"), button("inches"), says("millimetres"), button("Measure"), button("Simulated run of six"), says("The run of 6"), says("drifts"))
	axe(t, ctx, "a run")
	long(t, ctx, "a scan to point at", button("Simulated scan"), says("the paper moved so"), button("Point by hand"), says("Click it in the picture"))
	axe(t, ctx, "pointing")
	// Corners somewhere about where they are: what is measured is as good as that.
	point := func(x, y float64) step {
		return eval(fmt.Sprintf(`(() => { const i = document.querySelector('img[alt="The print"]'), r = i.getBoundingClientRect();
			i.dispatchEvent(new PointerEvent("pointerup", {bubbles: true, clientX: r.left + r.width * %g, clientY: r.top + r.height * %g})) })()`, x, y))
	}
	do(t, ctx, "point", point(0.62, 0.4), point(0.4, 0.42), point(0.5, 0.78), point(0.42, 0.36), point(0.62, 0.45), point(0.4, 0.45), eval(`document.querySelector('[aria-label^="The print: arrow"]').focus()`), pressMany("ArrowLeft", 3), button("Measure by these points"), says("The points on Step 1, wash fit to"), says("Off "))
	do(t, ctx, "keep it", button("Keep in the log"), says("kept; "))
	do(t, ctx, "the hand", button("Hand"), says("Logged"), says("until then"))
	axe(t, ctx, "the hand")
	do(t, ctx, "take it back", button("Take back"), says("Nothing is logged yet"))

	tight := `Number(/May drift ([\d.]+) mm/.exec(document.body.textContent)[1])`
	was := read[float64](t, ctx, tight)
	do(t, ctx, "limits", button("Limits"), says("What the eye forgives"), button("Set its own limits"), says("Go by the general limits again"))
	axe(t, ctx, "the limits")
	do(t, ctx, "more spill", eval(`const i = document.querySelector('fieldset[aria-label="this layer"] input'); i.focus(); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(i, "1.5"); i.dispatchEvent(new Event("input", {bubbles: true})); setTimeout(() => i.blur(), 30)`), says("set for this layer"))
	assert.Eventually(t, func() bool { return read[float64](t, ctx, tight) > was }, 10*time.Second, 200*time.Millisecond, "the play widens")

	do(t, ctx, "turns", button("Turns"), begins("Turn "), says("Turn the sheet 90° clockwise after each strike"))
	axe(t, ctx, "a pattern")
	do(t, ctx, "in Work", chromedp.KeyEvent("7"), says("strike 2 of 4"))
}
