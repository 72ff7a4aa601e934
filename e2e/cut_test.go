package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// For twelve cards: what to cut from which sheet, the sheets one by one with their cuts in
// order, the list on paper and as a table; cut, they are taken out of the stores.
func TestWhatToCutForTwelve(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	const plan = `fetch("/api/cards/lamp-sitters/cutting").then(r=>r.json())`
	do(t, ctx, "for one", chromedp.Navigate(p.URL+"/card/lamp-sitters/cut"), says("Whole sheets for one card"), says("Card base"), seen("[data-piece]"))
	axe(t, ctx, "cut")
	one := read[int](t, ctx, plan+`.then(p=>p.stocks.reduce((n,s)=>n+s.needs,0))`)
	do(t, ctx, "for twelve", typeInto("Cards in one sitting", "12"), says("for 12 cards"), says("each from fresh sheets"))
	assert.Greater(t, 12*one, read[int](t, ctx, plan+`.then(p=>p.stocks.reduce((n,s)=>n+s.needs,0))`))
	// What the page draws of a sheet is what the plan laid on it.
	drawn := read[int](t, ctx, `document.querySelector("section[aria-label^=Flint] svg").querySelectorAll("[data-piece]").length`)
	assert.Equal(t, read[int](t, ctx, plan+`.then(p=>p.stocks.find(s=>s.name.startsWith("Flint")).sheets[0].placed.length)`), drawn)
	do(t, ctx, "the second sheet", eval(`[...document.querySelectorAll("section[aria-label^=Oat] button")].find(x=>x.textContent==="Sheet 2").click()`), says("cut across, 5 1⁄2 in from its top"))
	for _, file := range []string{"cutting.pdf", "cutting.csv", "cutting/flint/1"} {
		assert.NotEmpty(t, get(t, p.URL+"/api/cards/lamp-sitters/"+file), file)
	}
	has := read[int](t, ctx, `fetch("/api/state").then(r=>r.json()).then(s=>s.kit.papers.find(p=>p.name.startsWith("Flint")).sheets)`)
	do(t, ctx, "cut them", css(`section[aria-label^=Flint] button`), says("worth keeping"), button("Take them out"), says("sorts of offcuts kept"))
	assert.Equal(t, has-2, read[int](t, ctx, `fetch("/api/state").then(r=>r.json()).then(s=>s.kit.papers.find(p=>p.name.startsWith("Flint")).sheets)`))
	do(t, ctx, "more than there is", typeInto("Cards in one sitting", "90"), says("There is too little"), css2(`section[aria-label="Margin notes"] button[aria-expanded="false"]`), begins("Make "), gone("There is too little"))
}

// A number of cards nobody can make in one sitting is brought back in bounds.
func TestHowManyCards(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "none, or too many", chromedp.Navigate(p.URL+"/card/lamp-sitters/cut"), says("Whole sheets for one card"), typeInto("Cards in one sitting", "500"), says("Whole sheets for 200 cards"), typeInto("Cards in one sitting", "0"), says("Whole sheets for one card"))
}

// A piece is moved by hand on its sheet: it stays there, the others are laid round it; let
// go, all lie as they came.
func TestAPieceIsLaidByHand(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	const flint = `fetch("/api/cards/lamp-sitters/cutting").then(r=>r.json()).then(p=>p.stocks.find(s=>s.name.startsWith("Flint")).sheets[0].placed[0])`
	do(t, ctx, "the silhouette on its sheet", chromedp.Navigate(p.URL+"/card/lamp-sitters/cut"), says("Drag a piece"), waitFor(`!!document.querySelector("section[aria-label^=Flint] path[role=button]")`),
		eval(`document.querySelector("section[aria-label^=Flint]").scrollIntoView()`))
	was := read[float64](t, ctx, flint+`.then(p=>p.y)`)
	do(t, ctx, "dragged down", drag(`section[aria-label^=Flint] path[role=button]`, 0, 90), says("Saved, change 2"), seen(`section[aria-label^=Flint] path[data-hand]`))
	now := read[float64](t, ctx, flint+`.then(p=>p.y)`)
	assert.Greater(t, now, was+50, "90 points of the screen are more than 50 mm of the sheet")
	do(t, ctx, "a millimetre by a key", eval(`document.querySelector("section[aria-label^=Flint] path[data-hand]").focus()`), chromedp.KeyEvent(kb.ArrowDown), says("Saved, change 3"))
	assert.InDelta(t, now+1, read[float64](t, ctx, flint+`.then(p=>p.y)`), 1e-6)
	axe(t, ctx, "laid by hand")
	do(t, ctx, "as they come", button("Lay all as they come"), says("Saved, change 4"), none(`section[aria-label^=Flint] path[data-hand]`))
	assert.InDelta(t, was, read[float64](t, ctx, flint+`.then(p=>p.y)`), 1e-6)
}
