package e2e

import (
	"context"
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// depthOf goes to the card's depth.
func depthOf(p *program, id string) step {
	return steps(chromedp.Navigate(p.URL+"/card/"+id+"/depth"), says("Side view"), css2(`section[aria-label="Margin notes"] button[aria-expanded="false"]`))
}

// css2 presses what a selector finds, where there is one.
func css2(sel string) step {
	return eval(fmt.Sprintf(`document.querySelector(%q)?.click()`, sel))
}

// stepsOf are the steps of a card, with what they say.
func stepsOf(t *testing.T, ctx context.Context, id string) string {
	return read[string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.steps.map(s=>s.title+": "+s.detail).join("|"))`, id))
}

// A lantern and two beside it slip behind a wall-top that stands on foam. One pad too many,
// put by hand, is in the way; its mend leaves room, and the steps say what slips in.
func TestLanternsBehindAFoamedWall(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Lanterns", "A2")
	do(t, ctx, "a wall-top on foam", adds("Plain sheet"), stratum("Plain sheet"), changes(pickFrom("Held by", "Foam squares")), changes(typeInto("Width", "3 3/4")), changes(typeInto("Height", "1 1/4")), changes(typeInto("Centre, down", "4 1/4")))
	do(t, ctx, "a lantern behind it", image("Storm lantern"), stratum("Storm lantern"), button("Over and under"), says("These parts go beneath it"),
		changes(tick("Lantern")), changes(tick("Glass")), changes(tick("Foot")), chromedp.KeyEvent(kb.Escape))
	for n, at := range []string{"5/8", "3 5/8"} {
		do(t, ctx, "a small one beside it", image("Whelk"), inHand(fmt.Sprintf("e%d", n+2)), settled(),
			changes(typeInto("Centre, across", at)), changes(typeInto("Centre, down", "3 1/4")), button("Over and under"), says("These parts go beneath it"), changes(tick("Shell")), chromedp.KeyEvent(kb.Escape))
	}
	do(t, ctx, "a pad too many", depthOf(p, id), stratum("Plain sheet"), changes(button("One more pad")), says("Foam is in the way of Storm lantern"))
	axe(t, ctx, "foam in the way")
	shot(t, ctx, "scene-lanterns")
	do(t, ctx, "its mend", begins("Pads with a pocket for it"), gone("Foam is in the way"))
	shot(t, ctx, "scene-lanterns-2")
	do(t, ctx, "nothing rocks, and it gets in", none("[data-trouble]"), begins("Leave a pocket for it"), gone("cannot get beneath"))
	assert.Contains(t, stepsOf(t, ctx, id), "Glue nothing along the edge where lantern, glass and foot of Storm lantern go in beneath")
	printed(t, p, id, "scene-lanterns")
}

// An owl of two layers whose feet meet a beam on foam leans on it; pads under its other end
// bring it level, and the step says which.
func TestAnOwlOnARaisedBeam(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Owl", "A2")
	do(t, ctx, "a beam on foam", adds("Plain sheet"), stratum("Plain sheet"), changes(pickFrom("Held by", "Foam squares")), changes(typeInto("Width", "3 3/4")), changes(typeInto("Height", "1/2")), changes(typeInto("Centre, down", "3 3/4")))
	do(t, ctx, "what sits on it", image("Whelk"))
	do(t, ctx, "it leans", depthOf(p, id), says("leans by"), seen(`[data-trouble="leans"]`))
	axe(t, ctx, "a part that leans")
	do(t, ctx, "its mend", begins("Pads that bring it level"), gone("leans by"), none("[data-trouble]"))
	z := read[float64](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s/standing").then(r=>r.json()).then(s=>{const p=s.pieces.find(p=>p.motif&&p.thick>0); return Math.hypot(p.sx,p.sy)})`, id))
	assert.InDelta(t, 0, z, 1e-3)
	assert.Contains(t, stepsOf(t, ctx, id), "and a scrap of")
	printed(t, p, id, "scene-owl")
}

// Reeds are to go in behind a hut that is glued all over: no way in; a pocket is left, and
// the steps keep that side open.
func TestReedsBehindAHut(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Hut", "A2")
	do(t, ctx, "a hut", adds("Plain sheet"), stratum("Plain sheet"), changes(typeInto("Width", "2 1/4")), changes(typeInto("Height", "2")))
	do(t, ctx, "reeds beside it", adds("Letters cut from card"), stratum("Letters"), changes(typeInto("Words", "lll")), changes(typeInto("Centre, across", "1 1/8")), button("Over and under"), says("These parts go beneath it"))
	read[int](t, ctx, `document.querySelectorAll(".popover label.check").length`)
	do(t, ctx, "they go beneath", changes(eval(`[...document.querySelectorAll(".popover label.check")].at(-1).click()`)), chromedp.KeyEvent(kb.Escape))
	do(t, ctx, "no way in", depthOf(p, id), says("cannot get beneath"))
	axe(t, ctx, "no way in")
	do(t, ctx, "its mend", begins("Leave a pocket for it"), gone("cannot get beneath"))
	assert.Contains(t, stepsOf(t, ctx, id), "open")
	printed(t, p, id, "scene-hut")
}

// A beetle of card half on a fungus of card that stands on foam.
func TestABeetleHalfOnARaisedFungus(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Fungus", "A2")
	do(t, ctx, "a fungus of its own card on foam", image("Toadstool, four steps"), stratum("Toadstool"), button("More"), changes(tick("printed on card of its own and cut out")), chromedp.KeyEvent(kb.Escape), changes(pickFrom("Held by", "Foam squares")), changes(typeInto("Centre, across", "1 1/2")))
	do(t, ctx, "a beetle half on it", image("Beetle, four steps"), stratum("Beetle"), button("More"), changes(tick("printed on card of its own and cut out")), chromedp.KeyEvent(kb.Escape), changes(typeInto("Centre, across", "2 3/4")))
	do(t, ctx, "it does not lie level", depthOf(p, id), seen("[data-trouble]"), says("Beetle"))
	do(t, ctx, "its mend", begins("Pads that bring it level"), none("[data-trouble]"))
	assert.Contains(t, stepsOf(t, ctx, id), "It grabs at once")
	printed(t, p, id, "scene-fungus")
}

// A leaf of vellum over a lantern shows its glue; only behind what is opaque it does not.
func TestAVellumLeafOverALantern(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Vellum", "A2")
	do(t, ctx, "a leaf of vellum", adds("Plain sheet"), stratum("Plain sheet"), changes(pickFrom("Paper", "Vellum")), changes(pickFrom("Held by", "Liquid glue")))
	do(t, ctx, "a lantern on it", image("Storm lantern"))
	do(t, ctx, "its glue shows", depthOf(p, id), says("will show through"))
	axe(t, ctx, "glue that shows")
	do(t, ctx, "its mend", begins("Only behind what is opaque"), gone("will show through"))
	assert.Contains(t, stepsOf(t, ctx, id), "behind")
	printed(t, p, id, "scene-vellum")
}
