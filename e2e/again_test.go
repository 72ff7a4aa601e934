package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A second colour on one piece: its line is drawn by dragging, its mask printed, its ink an
// act of its own; a back is traced round another piece.
func TestASecondColourIsParted(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	layer := `fetch("/api/cards/lamp-sitters").then(r=>r.json()).then(v=>v.card.motifs[0].layers.find(l=>l.label==="Silhouette, second colour"))`
	do(t, ctx, "the rest is masked", chromedp.Navigate(p.URL+"/card/lamp-sitters/pieces"), says("Saved, change 1"), stratum("Silhouette"), button("Use it again"), says("One region of it"))
	axe(t, ctx, "use it again")
	do(t, ctx, "a region of its own", changes(button("Mask the rest")), chromedp.KeyEvent(kb.Escape), stratum("Silhouette, second colour"), seen("[data-point='2']"))
	was := read[float64](t, ctx, layer+`.then(l=>l.region.line[1].y)`)
	do(t, ctx, "its line is drawn", changes(drag("[data-point='2']", 0, 60)), settled())
	assert.Greater(t, read[float64](t, ctx, layer+`.then(l=>l.region.line[1].y)`), was+5)
	do(t, ctx, "a third point by its numbers", button("Use it again"), changes(button("One more after it")), says("Point 3, across"), changes(typeInto("Point 2, across", "1")))
	assert.InDelta(t, 25.4, read[float64](t, ctx, layer+`.then(l=>l.region.line[1].x)`), 1e-6)
	do(t, ctx, "the other side", changes(tick("the other side")), chromedp.KeyEvent(kb.Escape))
	assert.Contains(t, string(get(t, p.URL+"/api/cards/lamp-sitters/masks.pdf")[:8]), "%PDF")
	do(t, ctx, "a region kept as it is", stratum("Body"), button("Use it again"), changes(button("Keep it as it is")), chromedp.KeyEvent(kb.Escape), notes(), says("a region of it is to stay as it is"), changes(button("Cover it with a mask")), gone("a region of it is to stay as it is"))
	do(t, ctx, "a back", stratum("Fore wings"), button("Use it again"), changes(button("Trace a back")), chromedp.KeyEvent(kb.Escape), says("Back of Fore wings"))
	do(t, ctx, "as steps", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), says("Trace and cut Back of Fore wings"))
}

// Letters are cut out of a banded sheet beside the card, so that its bands run on.
func TestLettersAreCutOutOfABandedSheet(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "a sheet beside the card", chromedp.Navigate(p.URL+"/card/lantern/front"), says("Saved, change 1"), adds("Plain sheet"), says("Outline and openings"), changes(typeInto("Width", "4")), settled(), changes(typeInto("Height", "2")),
		button("Done to it"), says("Plain card so far"), changes(pickFrom("Do more to it", "Masked bands")), says("1. Masked bands"), chromedp.KeyEvent(kb.Escape), button("More"), changes(pickFrom("Lies", "beside")), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "a word out of it", adds("Letters cut from card"), stratum("Letters"), button("How they are cut"), changes(pickFrom("Cut out of", "Plain sheet")), says("Right of its middle"))
	axe(t, ctx, "cut out of")
	films := `fetch("/api/cards/lantern").then(r=>r.json()).then(v=>v.plan.front.elements.at(-1).drawn.reduce((n,d)=>n+d.films.length,0))`
	assert.Greater(t, read[int](t, ctx, films), 5)
	do(t, ctx, "it does not fit there", changes(typeInto("Right of its middle", "3")), chromedp.KeyEvent(kb.Escape), says("cannot be made so"))
	do(t, ctx, "back in its middle", changes(button("Undo")), gone("cannot be made so"))
	steps := read[string](t, ctx, `fetch("/api/cards/lantern").then(r=>r.json()).then(v=>v.plan.steps.map(s=>s.title+": "+s.detail).join("|"))`)
	assert.Regexp(t, `Ink bands of plain sheet.*Cut the letters of “hello”: From Plain sheet, when it is dry: lay the dies on it in reading order`, steps)
}

// Shells go into the seats of a tray: which fits, by how much, laid in by a press.
func TestShellsGoIntoTheirSeats(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "a tray", chromedp.Navigate(p.URL+"/card/coast-night/front"), says("Saved, change 1"), adds("Plain sheet"), stratum("Plain sheet"), button("Outline and openings"), changes(pickFrom("Outline", "a die of the stores")), changes(pickFrom("Part", "Tray")), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "its seats", button("Seats and windows"), says("Seat at the top"), says("to spare"))
	axe(t, ctx, "seats")
	moved := `fetch("/api/cards/coast-night").then(r=>r.json()).then(v=>v.plan.front.elements.map(e=>e.id+Math.round(v.card.elements.find(x=>x.id===e.id).place.y)).join())`
	was := read[string](t, ctx, moved)
	do(t, ctx, "laid in", changes(button("Lay it in")), says("lies in it"))
	assert.NotEqual(t, was, read[string](t, ctx, moved))
}

// Light falls from one side: a mirrored twin is shaded on the other, and its mend pressed.
func TestLightFallsFromOneSide(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "light from the right", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), changes(pickFrom("Light from", "the right")))
	do(t, ctx, "a wing shaded on its left", chromedp.Navigate(p.URL+"/card/lamp-sitters/inks"), says("Saved, change 2"))
	id := read[string](t, ctx, `fetch("/api/cards/lamp-sitters").then(r=>r.json()).then(async v => { const m = v.card.motifs[0], w = m.colourways[0], l = m.layers.find(x=>x.label==="Fore wings"), f = w.layers[l.id];
		const ink = (await fetch("/api/state").then(r=>r.json())).kit.inks.find(i=>i.id==="soot-deep").id;
		const r = await fetch("/api/cards/lamp-sitters/edits", {method: "POST", headers: {"Content-Type": "application/json", "If-Match": '"'+v.version+'"'}, body: JSON.stringify({edits: [{finish: {motif: m.id, colourway: w.id, layers: {[l.id]: {...f, blends: [{ink, zone: "right side"}]}}}}]})});
		return r.status+"" })`)
	assert.Equal(t, "200", id)
	do(t, ctx, "said", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 3"), says("where the light comes from"))
	do(t, ctx, "mended", notes(), changes(button("Shade its other side")), gone("where the light comes from"))
	do(t, ctx, "which side", stratum("Hawk-moth"), says("Shaded on its left"))
}
