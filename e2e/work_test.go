package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

const runOf = `fetch("/api/cards/five-beetles/run").then(r=>r.json())`

// A run of three: a step counted card by card, a wait that runs on while the program is
// ended and begun again, an ink used otherwise; when all is done another run begins with
// nothing ticked, the times beside those of doing it card by card.
func TestARunOfThree(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "three in one sitting", chromedp.Navigate(p.URL+"/card/five-beetles/cut"), says("Whole sheets for one card"), typeInto("Cards in one sitting", "3"), says("for 3 cards"))
	do(t, ctx, "at work", chromedp.Navigate(p.URL+"/card/five-beetles/work"), says("Step 1 of"), says("Card by card it would be"), says("0 of 3"))
	axe(t, ctx, "a run")
	do(t, ctx, "card by card", button("One more card"), says("1 of 3"), button("One more card"), says("2 of 3"), button("One more card"), says("Step 2 of"))
	assert.Equal(t, 1, read[int](t, ctx, runOf+`.then(r=>r.done.length)`))
	assert.Zero(t, read[int](t, ctx, runOf+`.then(r=>r.counts.length)`))
	do(t, ctx, "a print", press(`//li//button[contains(., "3 Stamp Step 1")]`), says("Keep."), says("Leave the stamp where it is until step"), begins("Wait "), seen(`[aria-label="Waits under way"]`), button("One more card"), says("1 of 3"))
	axe(t, ctx, "waits under way")
	until := read[string](t, ctx, runOf+`.then(r=>r.timers[0].until)`)
	p.stop()
	p.run()
	do(t, ctx, "ended and begun again", chromedp.Navigate(p.URL+"/card/five-beetles/work"), seen(`[aria-label="Waits under way"]`), says("Stamp Step 1"))
	assert.Equal(t, until, read[string](t, ctx, runOf+`.then(r=>r.timers[0].until)`), "it ran on")
	assert.Equal(t, 1, read[int](t, ctx, runOf+`.then(r=>r.counts[0].n)`))
	do(t, ctx, "stopped", css(`[aria-label="Waits under way"] button`), none(`[aria-label="Waits under way"]`))
	do(t, ctx, "a wash is told", press(`//li//button[contains(., "4 Stamp Step 1")]`), says("Wash the stamp"))
	do(t, ctx, "another ink, and the rest planned with it", pickFrom("Ink really used", "Bracken, soft"), button("Plan the rest with it"), says("Saved, change 3"))
	do(t, ctx, "left out", press(`//li//button[contains(., "5 Stamp Step 1")]`), button("Leave it out"), press(`//li//button[contains(., "5 Stamp Step 1")]`), says("Left out."), says("Not done after all"))
	assert.Equal(t, 1, read[int](t, ctx, runOf+`.then(r=>r.left.length)`))
	all := read[int](t, ctx, `fetch("/api/cards/five-beetles").then(r=>r.json()).then(v=>fetch("/api/cards/five-beetles/run/done",{method:"POST",headers:{"Content-Type":"application/json"},body:JSON.stringify({done:true,steps:v.plan.steps.map(s=>s.id)})}).then(r=>r.json())).then(r=>r.done.length)`)
	assert.Positive(t, all)
	do(t, ctx, "to the end, and another", chromedp.Navigate(p.URL+"/card/five-beetles/work"), says("All steps are done"), button("Begin another run"), says("Step 1 of"))
	assert.Zero(t, read[int](t, ctx, runOf+`.then(r=>r.done.length)`))
}

// The picture of a step comes before its words: what it is about lit, what lies in its place whole, and
// the next two as small ones. Going on, more lies in its place.
func TestEachStepIsAPicture(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	label := `[...document.querySelectorAll("svg[data-picture]")].map(x => x.getAttribute("aria-label"))`
	do(t, ctx, "a print", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), press(`//li//button[contains(., "13 Ink Fore wings")]`), waitFor(label+`[0]?.startsWith("The card at step 13: 0 of ")`))
	assert.Equal(t, 3, read[int](t, ctx, label+`.length`), "this one and the next two")
	assert.Contains(t, read[string](t, ctx, label+`[0]`), "1 in hand")
	assert.True(t, read[bool](t, ctx, `document.querySelector("svg[data-picture]").compareDocumentPosition([...document.querySelectorAll("h1")].find(h => h.innerText.startsWith("Ink Fore"))) === Node.DOCUMENT_POSITION_FOLLOWING`), "the picture comes first")
	do(t, ctx, "what follows the moth", press(`//li//button[contains(., "30 Strip")]`), waitFor(label+`[0] === "The card at step 30: 9 of 12 parts in place, 1 in hand"`))
	assert.Len(t, read[[]string](t, ctx, `[...document.querySelectorAll("svg[data-picture] .way text")].map(x => x.textContent)`), 2, "how far it lies from two edges")
	axe(t, ctx, "a step's picture")
	do(t, ctx, "a step back", eval("document.activeElement.blur()"), chromedp.KeyEvent(kb.ArrowLeft), waitFor(label+`[0].startsWith("The card at step 29: ")`), says("To step 1, the next to do"))
	do(t, ctx, "to the end by the slider", slide("Through the making", kb.End), waitFor(label+`.length === 1`), says("Step 33 of 33"))
	do(t, ctx, "and to where the work is", button("To step 1, the next to do"), waitFor(label+`[0].startsWith("The card at step 1: ")`))
}
