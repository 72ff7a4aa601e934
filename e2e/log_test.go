package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A card is made and remembered: what was ticked is in the log, how many came out and what to do
// otherwise is said, a photograph is kept, the card is changed, and it is made again as it was.
func TestACardIsRemembered(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	photo := filepath.Join(t.TempDir(), "mine.png")
	require.NoError(t, os.WriteFile(photo, get(t, p.URL+"/api/cards/lamp-sitters/front.png"), 0o600))

	do(t, ctx, "nothing yet", chromedp.Navigate(p.URL+"/card/lamp-sitters/log"), says("Nothing made yet"), seen(`a[aria-current=page] svg[aria-label^="untouched"]`))
	axe(t, ctx, "the log, empty")
	do(t, ctx, "three steps at work", chromedp.KeyEvent("7"), says("0 of 33 done"), button("Done"), says("1 of 33 done"), button("Done"), says("2 of 33 done"), button("Done"), says("3 of 33 done"))
	do(t, ctx, "they are in the log", chromedp.KeyEvent("8"), says("One run"), says("3 done"), says("Under way"), says("The card is as it was then"))
	do(t, ctx, "what to remember", set2(".log textarea", "Less ink on the wings"), eval(`document.querySelector(".log textarea").blur()`), set2(`.log select`, "1"))
	do(t, ctx, "a photograph", set2(`.log input`, "The lamp-sitters on the blue card"), chromedp.SetUploadFiles(chromedp.CSS(`.log input[type=file]`), []string{photo}), seen(`img[alt="The lamp-sitters on the blue card"]`))
	shot(t, ctx, "log")
	axe(t, ctx, "the log")
	do(t, ctx, "seen large", css(".photograph"), seen(`[role=dialog] img`), waitFor(`document.querySelector("[role=dialog] img").naturalWidth > 600`))
	axe(t, ctx, "a photograph")
	do(t, ctx, "shut", chromedp.KeyEvent(kb.Escape), waitFor(`!document.querySelector("[role=dialog]")`))
	entries := read[[]struct {
		Well int    `json:"well"`
		Note string `json:"note"`
	}](t, ctx, `fetch("/api/cards/lamp-sitters/entries").then(r => r.json())`)
	require.Len(t, entries, 1)
	assert.Equal(t, 1, entries[0].Well)
	assert.Equal(t, "Less ink on the wings", entries[0].Note)

	do(t, ctx, "the card is changed", changes(steps(set(`input[aria-label="Name of the card"]`, "Beetles in spring"), eval(`document.querySelector('input[aria-label="Name of the card"]').blur()`))))
	do(t, ctx, "and the log says so", says("It was called "))
	do(t, ctx, "the run is ended", eval(`fetch("/api/cards/lamp-sitters/run/another", {method: "POST"}).then(() => { window.ended = true })`), waitFor(`window.ended === true`), chromedp.Navigate(p.URL+"/card/lamp-sitters/log"), says("It was called "))
	do(t, ctx, "made again", button("Make it again"), says("0 of 33 done"))
	assert.Contains(t, read[string](t, ctx, `location.pathname`), "/work")
	do(t, ctx, "its first step", button("Done"), says("1 of 33 done"), chromedp.KeyEvent("8"), says("2 runs"))
	do(t, ctx, "the run before is there with its picture", chromedp.Click(chromedp.CSS(".run-line img")), says("1 of 1"), seen(`img[alt="The lamp-sitters on the blue card"]`))
	do(t, ctx, "a card from it", button("A card from it"), waitFor(`location.pathname.endsWith("/pieces")`), waitFor(`document.querySelector('input[aria-label="Name of the card"]')?.value.includes("again")`))

	do(t, ctx, "what was learned, of nothing", chromedp.Navigate(p.URL+"/card/moth-night/log"), button("What was learned"), says("Tick steps at Work as you do them"), button("What was made"))
	do(t, ctx, "made without ticking", button("Note one that was made"), says("Its steps were not ticked"))
}

// Three evenings of the past: what each took, in what order, and what was learned of them.
func TestWhatWasLearnedOverTime(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", evenings(t))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "the runs", chromedp.Navigate(p.URL+"/card/toadstools/log"), says("3 runs"), says("Oct 3, 2026"), says("1 of 1"), says("Printing, "), says("How exactly the layers lie"), says("past its play"))
	shot(t, ctx, "runs")
	do(t, ctx, "the first", chromedp.Click(chromedp.Search(`//button[contains(., "Mar 7, 2026")]`)), says("0 of 1"), waitFor(`document.querySelector(".log textarea")?.value.startsWith("The caps dried")`))
	do(t, ctx, "found by the words of its note", chromedp.Navigate(p.URL), says("Ring of toadstools"), button("Find"), seen("[role=dialog] input"), set2("[role=dialog] input", "flat patch"), says("Ring of toadstools, Mar 7, 2026"), chromedp.Click(chromedp.Search(`//button[contains(., "Mar 7, 2026")]`)), says("0 of 1"))
	do(t, ctx, "what was learned", button("What was learned"), seen(`svg[aria-label^="How exactly layers are placed: 3 times"]`), seen(`svg[aria-label^="How long steps take: 3 times"]`), seen(`svg[aria-label^="How well the drawer is known"]`))
	axe(t, ctx, "what was learned")
	shot(t, ctx, "learned")
	phone := browser(t, 390, 844)
	do(t, phone, "on a phone", chromedp.Navigate(p.URL+"/card/toadstools/log"), says("3 runs"), says("Planned, and as it went"))
	axe(t, phone, "the log on a phone")
	assert.True(t, read[bool](t, phone, `document.documentElement.scrollWidth <= innerWidth + 1`), "it scrolls sideways on a phone")
	shot(t, phone, "log-phone")
	learned := read[struct {
		Hand []struct{ Off, Low, High float64 }
		Pace []struct{ Factor float64 }
	}](t, ctx, `fetch("/api/learned").then(r => r.json())`)
	require.Len(t, learned.Hand, 3)
	for i, off := range []float64{0.45, 0.3, 0.2} {
		assert.InDelta(t, off, learned.Hand[i].Off, 0.4*off, "the spread that the hand was given, from eight placements")
		assert.Less(t, learned.Hand[i].Low, off*1.2)
	}
	require.Len(t, learned.Pace, 3)
	assert.Greater(t, learned.Pace[0].Factor, learned.Pace[1].Factor)
	assert.Greater(t, learned.Pace[1].Factor, learned.Pace[2].Factor, "each evening was quicker")
}
