package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// Crossing marks stand where what is in hand crosses another thing, say which goes over,
// and turn it round at a tap.
func TestCrossingMarksTurnWhatGoesOver(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "the moth in its frame", chromedp.Navigate(p.URL+"/card/moth-night/front"), says("Saved, change 1"), stratum("Hawk-moth"), seen(".crossing"))
	said := `[...document.querySelectorAll(".crossing title")].map(x => x.textContent).join("|")`
	before := read[string](t, ctx, said)
	assert.Contains(t, before, "Hind wings goes beneath Frame")
	assert.Regexp(t, `(Fore wings|Fore-wing bands) goes over Frame`, before)
	do(t, ctx, "the hind wings over it too", changes(eval(`[...document.querySelectorAll(".crossing")].find(g => g.textContent.startsWith("Hind wings")).dispatchEvent(new MouseEvent("click", {bubbles: true}))`)), settled())
	up := `fetch("/api/cards/moth-night").then(r=>r.json()).then(v=>v.card.elements.find(e=>e.id==="m1").tucks.length)`
	assert.Equal(t, 2, read[int](t, ctx, up))
	do(t, ctx, "and back", changes(button("Undo")))
	assert.Equal(t, 1, read[int](t, ctx, up))
}

// Several things are taken together, made a group, moved, laid again and mirrored by keys.
func TestSeveralThingsInHand(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	card := `fetch("/api/cards/five-beetles").then(r=>r.json()).then(v=>v.card.elements)`
	press := func(id string, shift bool) step {
		also := "false"
		if shift {
			also = "true"
		}
		return steps(waitFor(`!!document.querySelector("#thing-`+id+`")`), eval(`Element.prototype.setPointerCapture = () => {}; const g = document.querySelector("#thing-`+id+`"); for (const type of ["pointerdown", "pointerup"]) g.dispatchEvent(new PointerEvent(type, {bubbles: true, shiftKey: `+also+`, pointerId: 1}))`))
	}
	do(t, ctx, "two beetles", chromedp.Navigate(p.URL+"/card/five-beetles/front"), says("Saved, change 1"), press("b1", false), says("Colourway"), press("b2", true), says("2 things in hand"))
	axe(t, ctx, "several in hand")
	was := read[float64](t, ctx, card+`.then(es=>es.find(e=>e.id==="b1").place.x)`)
	do(t, ctx, "a group, moved by a key", changes(button("Make a group")), changes(chromedp.KeyEvent(kb.ArrowRight)))
	assert.InDelta(t, was+25.4/16, read[float64](t, ctx, card+`.then(es=>es.find(e=>e.id==="b1").place.x)`), 1e-6)
	assert.True(t, read[bool](t, ctx, card+`.then(es=>es.find(e=>e.id==="b1").group === es.find(e=>e.id==="b2").group && es.find(e=>e.id==="b1").group !== undefined)`))
	do(t, ctx, "one taken, both in hand", press("b4", false), settled(), press("b1", false), says("2 things in hand"))
	n := read[int](t, ctx, card+`.then(es=>es.length)`)
	do(t, ctx, "another of each, mirrored", changes(chromedp.KeyEvent("d")), changes(chromedp.KeyEvent("m")))
	assert.Equal(t, n+2, read[int](t, ctx, card+`.then(es=>es.length)`))
	assert.Equal(t, 2, read[int](t, ctx, card+`.then(es=>es.filter(e=>e.place.mirror).length)`))
	do(t, ctx, "a stamp prints one way", says("printed left for right"))
}

// A drag is drawn to the middle of the panel when it comes near, and says so.
func TestADragIsDrawnToTheMiddle(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "the strip off the middle", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), stratum("Strip"), says("Words"), changes(typeInto("Centre, across", "1 7/8")), settled())
	got := read[string](t, ctx, `(async () => { Element.prototype.setPointerCapture = () => {};
		const g = document.querySelector("#thing-e2"), r = g.getBoundingClientRect(), x = r.x + r.width / 2, y = r.y + r.height / 2;
		const scale = r.width / 76.2, send = (type, dx) => g.dispatchEvent(new PointerEvent(type, {bubbles: true, clientX: x + dx, clientY: y, pointerId: 1}));
		const frame = () => new Promise(r => setTimeout(() => requestAnimationFrame(r), 60));
		for (let i = 0; i < 40 && !(await fetch("/api/cards/lamp-sitters/snaps?element=e2").then(r => r.ok)); i++) await frame();
		await frame(); send("pointerdown", 0); await frame(); send("pointermove", 5.7 * scale); await frame();
		const said = document.querySelector('[aria-label^="The front of the card"]').textContent; send("pointerup", 0); return said })()`)
	assert.Contains(t, got, "middle of the panel")
	do(t, ctx, "it lies there", settled(), says("Saved, change 3"))
	assert.InDelta(t, 4.25*25.4/2, read[float64](t, ctx, `fetch("/api/cards/lamp-sitters").then(r=>r.json()).then(v=>v.card.elements.find(e=>e.id==="e2").place.x)`), 0.01)
}

// The envelope shows where the address is read; a mark laid there is noted, and mended.
func TestTheEnvelopeKeepsItsAddressClear(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "a sticker", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), adds("Sticker"), stratum("Sticker"), button("More"), changes(pickFrom("Lies", "on the envelope")), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "the envelope", pickFrom("Face of the card", "The envelope"), says("The envelope"), says("address is read here"), says("lies where the address is read"))
	do(t, ctx, "moved clear", notes(), changes(button("To the top left")), gone("lies where the address is read"))
}

// The card base itself is treated, its front leaf shaped, and made into something else.
func TestTheBaseIsTreatedAndShaped(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "an inked edge on the base", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), button("Done to it"), says("Plain card so far"), changes(pickFrom("Do more to it", "An inked edge")), says("1. An inked edge"), chromedp.KeyEvent(kb.Escape), says("Done to it: 1"))
	plan := `fetch("/api/cards/lamp-sitters").then(r=>r.json()).then(v=>v.plan)`
	assert.Equal(t, 1, read[int](t, ctx, plan+`.then(p=>p.front.base[0].films.length)`))
	assert.Contains(t, read[string](t, ctx, plan+`.then(p=>p.steps.map(s=>s.title).join("|"))`), "Ink the edge of the card front")
	do(t, ctx, "a wavy front leaf, a little shorter", button("Make of it"), changes(pickFrom("Front leaf", "wavy edge")), changes(typeInto("Front leaf shorter", "1/2")), says("Deep"))
	axe(t, ctx, "make of it")
	assert.NotEmpty(t, read[string](t, ctx, plan+`.then(p=>p.front.leaf)`))
	do(t, ctx, "a holder", changes(pickFrom("Made into", "a holder")), says("Pocket"), changes(typeInto("Pocket", "2")), chromedp.KeyEvent(kb.Escape))
	assert.Contains(t, read[string](t, ctx, plan+`.then(p=>p.steps.map(s=>s.title+s.detail).join("|"))`), "leave its upper edge open")
	do(t, ctx, "sized to a panel that is cut", button("Fit a panel"), says("The panel is cut already"), settled(), typeInto("Panel, wide", "3"), settled(), typeInto("Panel, high", "4"), settled(), changes(button("Size the base to it")), chromedp.KeyEvent(kb.Escape))
	assert.Greater(t, read[float64](t, ctx, `fetch("/api/cards/lamp-sitters").then(r=>r.json()).then(v=>v.card.base.w)`), 3*25.4)
}
