package e2e

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const standingOf = `fetch("/api/cards/lamp-sitters/standing").then(r=>r.json())`

func lookAt(how string) step { return set2(`select[aria-label="Look at"]`, how) }

// A strip on foam across something that stands higher: the trouble is said and marked on
// the picture, its mend is pressed, the trouble is gone and the step says so.
func TestAStripAcrossARaisedPart(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "lay the strip across the moth", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), seen(".front-form"),
		inHand("e2"), says("Words"), typeInto("Centre, down", "2 3/4"), says("Saved, change 2"))
	do(t, ctx, "its trouble is seen", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Strip"), seen("[data-trouble]"), says("off its pads"))
	axe(t, ctx, "a trouble in depth")
	do(t, ctx, "its mend is pressed", button("Pads that bring it level"), gone("off its pads"), none("[data-trouble]"))
	z := read[float64](t, ctx, standingOf+`.then(s=>{const p=s.pieces.find(p=>p.element=="e2"); return Math.hypot(p.sx,p.sy)})`)
	assert.InDelta(t, 0, z, 1e-3, "it lies level")
	do(t, ctx, "and is in the steps", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), says("Work"), says("high"))
}

// The pads of a part are seen from the back, dragged, turned, cut, taken off and proposed anew.
func TestPadsAreLaidByHand(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	pads := standingOf + `.then(s=>s.pieces.find(p=>p.element=="e2").supports.map(h=>h.pad))`
	do(t, ctx, "look from the back", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Side view"),
		inHand("e2"), lookAt("back"), says("left and right swapped"), seen("[data-pad]"))
	axe(t, ctx, "pads from the back")
	type pad struct{ X, Y, W, H, Turn float64 }
	before := read[[]pad](t, ctx, pads)
	require.NotEmpty(t, before)
	do(t, ctx, "drag one", drag(`rect[data-pad="1"]`, 0, 6), says("Pads as proposed"))
	after := read[[]pad](t, ctx, pads)
	require.Len(t, after, len(before))
	assert.Greater(t, after[0].Y, before[0].Y+1)
	assert.InDelta(t, before[0].X, after[0].X, 1)
	do(t, ctx, "turn it and cut it", eval(`document.querySelector('rect[data-pad="1"]').focus()`), chromedp.KeyEvent("t"), says("Saved, change 3"),
		eval(`document.querySelector('rect[data-pad="1"]').focus()`), chromedp.KeyEvent("x"), says("Saved, change 4"))
	cut := read[[]pad](t, ctx, pads)
	assert.InDelta(t, 15, cut[0].Turn, 1e-9)
	assert.InDelta(t, before[0].W*before[0].H/2, cut[0].W*cut[0].H, 0.1)
	do(t, ctx, "propose them anew", button("Pads as proposed"), gone("Pads as proposed"))
	assert.Equal(t, before, read[[]pad](t, ctx, pads))
	do(t, ctx, "another way to its height", button("Other ways to its height"), says("within"), begins("on 2 scraps"), says("Saved, change 6"))
}

// The cut is dragged and turned, the side view follows; heights are seen as shades, the
// card turned in the hand.
func TestTheCutIsTurned(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "the side view", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Side view"), seen("[data-slice]"))
	wide := read[float64](t, ctx, `document.querySelectorAll("[data-slice]").length`)
	do(t, ctx, "drag the cut to the strip", drag(`[data-cut=move]`, 0, 110), says("from the top"))
	assert.NotEqual(t, wide, read[float64](t, ctx, `document.querySelectorAll("[data-slice]").length`), "it goes through other things")
	// What the side view draws of the strip is as thick and as high as the plan has it.
	got := read[[]float64](t, ctx, standingOf+`.then(s=>{
		const p=s.pieces.find(p=>p.element=="e2");
		const g=document.querySelector('[data-slice=e2]');
		const card=[...g.querySelectorAll("path")].find(x=>!x.dataset.pad&&x.getAttribute("fill")==p.body).getBBox();
		const base=document.querySelector("[data-slice]").parentNode.querySelector("rect[x='0']").getBBox();
		const mag=base.height/(s.base/2);
		return [card.height/mag, p.thick, (base.y+base.height-card.y)/mag, p.z+p.thick]})`)
	require.Len(t, got, 4)
	assert.InDelta(t, got[1], got[0], 0.01, "as thick")
	assert.InDelta(t, got[3], got[2], 0.02, "as high")
	do(t, ctx, "turn it", drag(`[data-cut=turn]`, 90, -120), says("°, through"))
	do(t, ctx, "heights as shades", lookAt("heights"), seen(`[aria-label="Heights of the front as shades"]`))
	axe(t, ctx, "heights")
	do(t, ctx, "turned in the hand", lookAt("aslant"), seen(`[aria-label="The card turned in the hand"]`))
}

// A shaker from nothing: its troubles are said, their mends pressed, the steps are there.
func TestAShakerIsBuilt(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "add it", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), seen(".front-form"), pressAdd("Shaker"), says("Saved, change 2"),
		eval(`[...document.querySelectorAll(".stratum")].find(x => x.textContent.includes("Shaker")).dispatchEvent(new MouseEvent("click", {bubbles: true}))`),
		button("Window and filling"), says("What is in it"), says("not for children under three"))
	axe(t, ctx, "a shaker")
	do(t, ctx, "a tall window", typeInto("High", "3 in"), says("Saved, change 3"), typeInto("Wide", "1 1/4 in"), says("Saved, change 4"))
	do(t, ctx, "its wall is not closed", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Side view"), says("is not closed"))
	do(t, ctx, "a larger front", eval(`document.querySelector('section[aria-label="Margin notes"] button[aria-expanded="false"]')?.click()`), begins("Make its front"), gone("is not closed"))
	do(t, ctx, "baffles", says("lies at the foot"), button("Put baffles in"), gone("lies at the foot"))
	do(t, ctx, "its steps", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), says("The wall of shaker"), says("Fill shaker"), says("Close shaker"))
}

// How it goes by post, whose figures those are, and what one level less would change.
func TestOneLevelLessByPost(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "by post", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Side view"), button("By post"), says("United Kingdom"), says("Check the carrier's current rules"), says("One level less"))
	axe(t, ctx, "by post")
	was := read[float64](t, ctx, standingOf+`.then(s=>s.total)`)
	do(t, ctx, "one level less", button("Take it so"), says("Saved, change 2"))
	assert.Less(t, read[float64](t, ctx, standingOf+`.then(s=>s.total)`), was)
}

// A shell half on a raised one, from nothing: it does not lie level; pads under its low end
// bring it so, and the step says so.
func TestAShellHalfOnARaisedPart(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Half on", "A2")
	do(t, ctx, "a raised shell", image("Fan shell"), stratum("Fan shell"), changes(pickFrom("Held by", "Foam squares")))
	do(t, ctx, "another half on it", image("Whelk"), stratum("Whelk"), changes(typeInto("Centre, across", "3 in")))
	do(t, ctx, "it does not lie level", chromedp.Navigate(p.URL+"/card/"+id+"/depth"), says("Side view"), seen("[data-trouble]"), says("Whelk"))
	axe(t, ctx, "half on a raised part")
	do(t, ctx, "its mend", eval(`document.querySelector('section[aria-label="Margin notes"] button[aria-expanded="false"]')?.click()`), begins("Pads that bring it level"), none("[data-trouble]"))
	assert.True(t, read[bool](t, ctx, `fetch("/api/cards/`+id+`").then(r=>r.json()).then(v=>v.plan.steps.some(s=>s.title.startsWith("Whelk onto")&&s.detail.includes("It grabs at once")))`), "is in the steps")
	printed(t, p, id, "7-half-on")
}

// Where the browser draws solids the card is one in the hand, turned by keys; its picture
// then is another.
func TestTheCardInTheHandIsSolid(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800, solids...)
	do(t, ctx, "turned in the hand", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Side view"), lookAt("aslant"), seen("canvas[data-drawn]"))
	axe(t, ctx, "in the hand")
	before, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	require.NoError(t, err)
	do(t, ctx, "turn it", eval(`document.querySelector("canvas[data-drawn]").focus()`), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight))
	after, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	require.NoError(t, err)
	assert.NotEqual(t, before, after)
}

// What is left of a spacer is counted in the stores; where it is too little for the card, the
// ways that take it come last and say so. A box says how much room is left over the card.
func TestSpacersAreCountedAndABoxIsTaken(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	count := func(name, n string) step {
		return steps(set(fmt.Sprintf(`input[aria-label="%s, left"]`, name), n), eval(fmt.Sprintf(`document.querySelector('input[aria-label="%s, left"]').blur()`, name)))
	}
	do(t, ctx, "count them", chromedp.Navigate(p.URL+"/stores/spacers"), says("Foam and board"), eval(`document.querySelector('input[aria-label="Thin foam squares, left"]').focus()`), count("Thin foam squares", "1"), waitFor(`document.querySelector('input[aria-label="Thin foam squares, left"]').defaultValue === "1"`))
	do(t, ctx, "a box", chromedp.Navigate(p.URL+"/stores/envelopes"), says("Add an envelope"), set("input[name=name]", "Mailing box"), typeInto("A box: high inside", "1/2"), waitFor(`Number(document.querySelector("input[name=depth]").value) > 12`), button("Add the envelope"), says("Mailing box"), says("high"))
	axe(t, ctx, "envelopes")
	do(t, ctx, "too few for a way", chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("Side view"),
		inHand("e2"), button("Other ways to its height"), says("within"), says("on "))
	assert.NotContains(t, read[string](t, ctx, `[...document.querySelectorAll(".popover button")].find(x => x.textContent.startsWith("on ")).textContent`), "thin foam squares", "of which there are too few")
	do(t, ctx, "in the box", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Saved, change 1"), seen(".front-form"), pickFrom("Envelope", "Mailing box"), says("Saved, change 2"),
		chromedp.Navigate(p.URL+"/card/lamp-sitters/depth"), says("It goes into its box"), says("left over it"))
}
