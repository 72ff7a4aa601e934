package e2e

import (
	"context"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pickFrom takes one of a list by what it is called.
func pickFrom(label, option string) step {
	return steps(there(label), eval(fmt.Sprintf(`const all = [...document.querySelectorAll("select")].filter(s => (s.getAttribute("aria-label") ?? s.closest(".field")?.querySelector("label")?.textContent ?? "").startsWith(%q));
		const s = all.at(-1); const o = [...s.options].find(x => x.textContent.trim().startsWith(%q)); if (!o) throw new Error("no " + %q + " in " + [...s.options].map(x => x.textContent));
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(s, o.value); s.dispatchEvent(new Event("change", {bubbles: true}))`, label, option, option)))
}

// there waits until a list of that name is on the page.
func there(label string) step {
	return named("wait for the list "+label, until(fmt.Sprintf(`[...document.querySelectorAll("select")].some(s => (s.getAttribute("aria-label") ?? s.closest(".field")?.querySelector("label")?.textContent ?? "").startsWith(%q))`, label)))
}

// tick presses a box by its label.
func tick(label string) step {
	return press(`//label[contains(@class, "check")][normalize-space(.)="` + label + `"]`)
}

// stratum takes the first stratum in hand whose words begin so, once it is there.
func stratum(name string) step {
	find := fmt.Sprintf(`[...document.querySelectorAll(".stratum")].find(x => x.textContent.replace(/^\d+ ?/, "").startsWith(%q))`, name)
	return steps(waitFor("!!"+find), eval(find+`.dispatchEvent(new MouseEvent("click", {bubbles: true}))`))
}

// inHand takes the thing of an id in hand, once its stratum is there.
func inHand(id string) step {
	find := fmt.Sprintf(`document.querySelector("#stratum-%s")`, id)
	return steps(waitFor("!!"+find), eval(find+`.dispatchEvent(new MouseEvent("click", {bubbles: true}))`))
}

// adds puts something on the front by what the list of things calls it.
func adds(what string) step {
	return changes(pressAdd(what))
}

// pressAdd opens Add and presses one of its buttons, once the sheet it is on stands still:
// it moves while its pictures come in.
func pressAdd(what string) step {
	still := until(`(() => {
			const r = document.querySelector(".popover")?.getBoundingClientRect();
			const now = r ? [r.x, r.y, r.width, r.height].join() : "";
			if (now !== window.stoodAt) { window.stoodAt = now; window.stoodFor = 0; }
			return now !== "" && ++window.stoodFor > 4;
		})()`)
	return steps(button("Add"), seen(".popover"), settled(), still, button(what))
}

// adding an image is a picture with a name of its own.
func image(set string) step {
	return steps(button("Add"), seen(".popover"), settled(), changes(css(fmt.Sprintf(`[aria-label="Add an image from %s"]`, set))))
}

// notes opens the shelf of notes where it is shut.
func notes() step {
	return eval(`const b = [...document.querySelectorAll("button[aria-expanded=false]")].find(x => /\d+ notes?/.test(x.textContent)); b?.click()`)
}

// front begins a card of a size from nothing in the demo's stores.
func front(t *testing.T, title, size string) (context.Context, *program, string) {
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "a new card", chromedp.Navigate(p.URL), seen(`input[name=title]`), set(`input[name=title]`, title), pickFrom("Size", size), pickFrom("Begin with", "nothing yet"), button("Make the card"), says("No image on this card yet"))
	do(t, ctx, "its front", chromedp.KeyEvent("4"), says("The front"), seen(".front-form"))
	return ctx, p, read[string](t, ctx, `location.pathname.split("/")[2]`)
}

// printed fetches the work sheet and the drawings of a card; with FRONTS=dir they are kept
// to be looked at.
func printed(t *testing.T, p *program, id, name string) {
	for _, file := range []string{"sheet.pdf", "handout.pdf", "layout.pdf", "placement.pdf", "front.svg", "front.png", "cut.svg"} {
		r, err := http.Get(p.URL + "/api/cards/" + id + "/" + file)
		require.NoError(t, err)
		assert.Equal(t, 200, r.StatusCode, file)
		if dir := os.Getenv("FRONTS"); dir != "" {
			b := get(t, p.URL+"/api/cards/"+id+"/"+file)
			require.NoError(t, os.WriteFile(filepath.Join(dir, name+"-"+file), b, 0o600))
		}
		_ = r.Body.Close()
	}
}

// shot keeps a picture of the page where FRONTS asks for it.
func shot(t *testing.T, ctx context.Context, name string) {
	dir := os.Getenv("FRONTS")
	if dir == "" {
		return
	}
	b, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(dir, name+".png"), b, 0o600))
}

func problems(t *testing.T, ctx context.Context, id string) []string {
	return read[[]string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.findings.filter(f=>f.severity==="spoils"&&!f.aside).map(f=>f.what))`, id))
}

// A ring printed on a panel that is turned: eight strikes in two colours, on a blended
// ground, with words on a disc in its middle.
func TestAFrontWithATurnedRing(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "A ring", "Square, 5")
	do(t, ctx, "an image to print", image("Toadstool, four steps"), says("Toadstool"), chromedp.KeyEvent("2"), says("From your drawer"))
	long(t, ctx, "its inks", button("Suggest inks"), seen(`button[title^="Weakest pair"]`), changes(css(`button[title^="Weakest pair"]`)), chromedp.KeyEvent("4"), says("The front"))
	do(t, ctx, "the panel in hand", stratum("Panel"), says("Border of the sheet beneath"))
	do(t, ctx, "turned on it", button("Done to it"), says("Plain card so far"), changes(pickFrom("Do more to it", "An image in turns")), says("in turns"))
	do(t, ctx, "eight turns, further out", changes(typeInto("Turns", "8")), changes(typeInto("Right of middle", "0")), changes(typeInto("Below middle", "-1 1/2")), says("8 in all"))
	axe(t, ctx, "treatments")
	do(t, ctx, "ink blended beneath", changes(pickFrom("Do more to it", "Ink, blended")), changes(pickFrom("From", "middle")), changes(button("Earlier")), chromedp.KeyEvent(kb.Escape), button("Done to it: 2"), says("1. Ink, blended"), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "the image itself lies nowhere", stratum("Toadstool"), changes(button("Take off")))
	do(t, ctx, "a disc with words", adds("Circle"), stratum("Circle"), button("Done to it"), changes(pickFrom("Do more to it", "Words, stamped")), chromedp.KeyEvent(kb.Escape), says("Done to it: 1"))
	assert.Empty(t, problems(t, ctx, id))
	films := read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.front.sheets.at(-1).drawn[0].films.length)`, id))
	assert.Greater(t, films, 8*3, "eight prints of several layers, on the blend")
	steps := read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.steps.filter(s=>/strike \d of 8/.test(s.title)).length)`, id))
	assert.Equal(t, 0, steps%8)
	assert.Positive(t, steps)
	shot(t, ctx, "1-ring")
	printed(t, p, id, "1-ring")
}

// A moth that breaks out of its frame: some of its parts over it, set by pointing at one of
// them and by a list, the rest beneath.
func TestAFrontThatBreaksOutOfItsFrame(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Breaking out", "A2")
	do(t, ctx, "a moth and a frame", image("Hawk-moth"), adds("Frame"), stratum("Hawk-moth"), says("Held by"))
	do(t, ctx, "what lies over it", button("Over and under"), says("Lies beneath Frame"), says("These parts go over it"))
	axe(t, ctx, "over and under")
	do(t, ctx, "the fore wings over the frame", changes(tick("Fore wings")))
	up := fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>JSON.stringify([v.plan.front.upward.map(u=>u.element), v.plan.front.crossings.length]))`, id)
	assert.Contains(t, read[string](t, ctx, up), ",1]")
	do(t, ctx, "pointing at another", button("Point at them in the picture"), says("Point at the parts that cross Frame"), chromedp.KeyEvent(kb.Escape))
	// On a wing's tip, where nothing else lies: the silhouette's rim.
	do(t, ctx, "at the hind wings", changes(eval(`const w = document.querySelectorAll('#thing-e1 g.settle')[1]; w.dispatchEvent(new MouseEvent("click", {bubbles: true}))`)), button("Done"), gone("Point at the parts"))
	assert.Contains(t, read[string](t, ctx, up), ",2]")
	steps := read[string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.steps.map(s=>s.detail).join(" "))`, id))
	assert.Contains(t, steps, "Slip it beneath")
	assert.Contains(t, steps, "is slipped beneath it later")
	do(t, ctx, "built up step by step", button("Build"), says("Nothing is stuck yet"), slide("Stuck down so far", kb.ArrowRight), says("1 of 3"), button("Lay out"), gone("1 of 3"))
	assert.Empty(t, problems(t, ctx, id))
	shot(t, ctx, "2-frame")
	printed(t, p, id, "2-frame")
}

// A word cut from card, stacked, with gems in its openings, on a banded ground that adds up.
func TestAFrontWithAWordOnBands(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "A word", "A2")
	do(t, ctx, "bands on the panel", stratum("Panel"), button("Done to it"), changes(pickFrom("Do more to it", "Masked bands")), says("They fill it"))
	do(t, ctx, "one too wide", changes(typeInto("Wide", "3")), says("more than there is"), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "and mended from the note", says("do not fit"), notes(), changes(button("Share the room out")), gone("do not fit on the panel"))
	do(t, ctx, "a word", adds("Letters cut from card"), stratum("Letters"), changes(typeInto("Words", "boo")), button("How they are cut"), says("3 letters"), says("islands"))
	axe(t, ctx, "letters")
	do(t, ctx, "three plies on a shadow", changes(typeInto("Stacked", "3")), says("9 pieces"), changes(tick("on a shadow")), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "a gem for its openings", adds("Gems"), stratum("3 gems"), says("How many"), changes(typeInto("How many", "2")), changes(typeInto("Across", "3 mm")))
	assert.Empty(t, problems(t, ctx, id))
	shot(t, ctx, "3-word")
	printed(t, p, id, "3-word")
}

// A drift of shells that fills the panel, trimmed at its edges, with a cord and a bow.
func TestAFrontFullOfShells(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Shells", "A2")
	do(t, ctx, "three sorts", image("Fan shell"), image("Whelk"), image("Cockle"), stratum("Fan shell"), says("Held by"))
	do(t, ctx, "a field", button("Several"), pickFrom("Lay several in", "a field"), says("Filled with these too"), tick("Whelk"), tick("Cockle"), says("fill the panel"), says("Cockle"))
	do(t, ctx, "laid", changes(eval(`[...document.querySelectorAll(".popover button")].at(-1).click()`)), chromedp.KeyEvent(kb.Escape))
	n := read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.card.elements.length)`, id))
	assert.Greater(t, n, 12)
	do(t, ctx, "trimmed from the note", notes(), changes(button("Trim them flush")), settled())
	do(t, ctx, "a cord with a bow", adds("Cord or ribbon"), stratum("Cord"), changes(pickFrom("Tied", "with a bow")), says("Cord with a bow"))
	steps := read[string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.steps.map(s=>s.title).join("|"))`, id))
	assert.Contains(t, steps, "Trim the overhang")
	assert.Regexp(t, `Trim the overhang.*Lay Cord`, steps, "no blade through the cord")
	shot(t, ctx, "4-shells")
	printed(t, p, id, "4-shells")
}

// A leaf of vellum with words over a panel printed all over; something inside, too.
func TestAFrontBehindVellum(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Behind vellum", "A2")
	do(t, ctx, "an image to print", image("Beetle, four steps"), stratum("Panel"), button("Done to it"), changes(pickFrom("Do more to it", "An image, printed")), changes(tick("again and again over the sheet")), says("no ink yet"), chromedp.KeyEvent(kb.Escape), chromedp.KeyEvent("2"), says("From your drawer"))
	long(t, ctx, "its inks", button("Suggest inks"), seen(`button[title^="Weakest pair"]`), changes(css(`button[title^="Weakest pair"]`)), chromedp.KeyEvent("4"), says("The front"))
	do(t, ctx, "printed all over", stratum("Panel"), button("Done to it: 1"), says("in all"), says("runs over the edge"), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "the image itself lies nowhere", stratum("Beetle"), changes(button("Take off")))
	do(t, ctx, "a leaf in front", adds("Vellum leaf in front"), stratum("Vellum leaf"), says("by its flap"), button("Outline and openings"), says("Flap"))
	axe(t, ctx, "outline and openings")
	do(t, ctx, "words on it", chromedp.KeyEvent(kb.Escape), button("Done to it"), changes(pickFrom("Do more to it", "Words, stamped")), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "a panel inside", adds("Plain sheet"), stratum("Plain sheet"), button("More"), changes(pickFrom("Lies", "inside, right")), chromedp.KeyEvent(kb.Escape), pickFrom("Face of the card", "Inside, right"), says("Inside, right"), seen(`[aria-label="Inside, right of the card"] path`))
	steps := read[string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.steps.map(s=>s.title+": "+s.detail).join("|"))`, id))
	assert.Contains(t, steps, "inside, on the right")
	assert.Contains(t, steps, "beneath the panel, between two sheets")
	do(t, ctx, "back to the front", pickFrom("Face of the card", "The front"), says("The front"))
	assert.Empty(t, problems(t, ctx, id))
	shot(t, ctx, "5-vellum")
	printed(t, p, id, "5-vellum")
}

// Nine beetles in a grid, in four colourways so that neighbours differ.
func TestAFrontWithAGridOfNine(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Nine", "Square, 5")
	do(t, ctx, "a beetle", image("Beetle, four steps"), stratum("Beetle"))
	do(t, ctx, "inks for four", chromedp.KeyEvent("2"), says("From your drawer"))
	long(t, ctx, "a set of four", set(`input[aria-label="How many colourways"]`, "4"), button("A set of"), says("4 colourways"))
	do(t, ctx, "take them", changes(button("Add all 4")), chromedp.KeyEvent("4"), says("The front"))
	do(t, ctx, "smaller, in a grid", stratum("Beetle"), button("Several"), pickFrom("Lay several in", "a grid"), says("9 in all"), changes(button("Lay 9")), chromedp.KeyEvent(kb.Escape))
	alike := read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>{const w=v.card.elements.filter(e=>e.image).map(e=>e.image.colourway); let n=0; for(let i=0;i<9;i++){ if(i%%3<2&&w[i]===w[i+1])n++; if(i<6&&w[i]===w[i+3])n++ } return n})`, id))
	assert.Zero(t, alike, "no two neighbours are alike")
	assert.Empty(t, problems(t, ctx, id))
	shot(t, ctx, "6-grid")
	printed(t, p, id, "6-grid")
}
