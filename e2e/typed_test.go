package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// types puts words into a field as a hand does, and leaves it as it is: not sent, not left.
func types(label, words string) step {
	return steps(eval(fmt.Sprintf(`const f = [...document.querySelectorAll(".field")].find(x => x.querySelector("label")?.textContent.startsWith(%q)); const e = f.querySelector("input"); e.focus(); e.select()`, label)), typing(words))
}

// typing presses the keys of some words where the focus is.
func typing(words string) step { return chromedp.KeyEvent(words) }

// placeOf is where an element of a card lies, in mm.
func element(id, name string) string {
	return fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>JSON.stringify(v.card.elements.find(e=>%s)))`, id, name)
}

// What is typed belongs to the thing it was typed for, and is taken by Enter, by Tab, by leaving
// and by choosing something else.
func TestWhatIsTypedBelongsToItsThing(t *testing.T) {
	t.Parallel()
	ctx, _, id := front(t, "Typed", "A2")
	do(t, ctx, "a circle, a tag and letters", adds("Circle"), adds("Tag"), adds("Letters cut from card"))
	before := read[string](t, ctx, element(id, `e.name==="Tag"`))
	do(t, ctx, "a width for the circle, and a tap on the tag", stratum("Circle"), says("Held by"), types("Width", "2"), changes(stratum("Tag")), says("Held by"))
	assert.Equal(t, before, read[string](t, ctx, element(id, `e.name==="Tag"`)), "the tag is as it was")
	circle := read[string](t, ctx, element(id, `e.name==="Circle"`))
	assert.Regexp(t, `"w":50\.8`, circle, "the circle took it")
	do(t, ctx, "words for the letters, and a tap on the circle", stratum("Letters"), says("How they are cut"), types("Words", "gorse"), changes(stratum("Circle")))
	assert.Contains(t, read[string](t, ctx, element(id, `!!e.letters`)), `"text":"gorse"`)
	do(t, ctx, "words and Enter", stratum("Letters"), says("How they are cut"), types("Words", "heath"), changes(chromedp.KeyEvent(kb.Enter)))
	assert.Contains(t, read[string](t, ctx, element(id, `!!e.letters`)), `"text":"heath"`)
	do(t, ctx, "words and Escape", types("Words", "never"), chromedp.KeyEvent(kb.Escape), stratum("Circle"), says("Outline and openings"))
	assert.Contains(t, read[string](t, ctx, element(id, `!!e.letters`)), `"text":"heath"`, "given up")
	do(t, ctx, "a height and Tab", types("Height", "1 1/2"), changes(chromedp.KeyEvent(kb.Tab)))
	assert.Regexp(t, `"h":38\.(1|09)`, read[string](t, ctx, element(id, `e.name==="Circle"`)))
}

// A strip's words are taken by Enter and by a tap elsewhere.
func TestWordsOfAStrip(t *testing.T) {
	t.Parallel()
	ctx, _, id := front(t, "Strip", "A2")
	words := func() string {
		return read[string](t, ctx, element(id, `e.sheet?.treatments?.some(t=>t.words)`))
	}
	do(t, ctx, "a strip", adds("Text strip"))
	strip := read[string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.card.elements.at(-1).id)`, id))
	do(t, ctx, "its words", inHand(strip), says("Heat embossed"), types("Words", "for the lamps"), changes(chromedp.KeyEvent(kb.Enter)))
	assert.Contains(t, words(), "for the lamps")
	do(t, ctx, "a tap on the panel", types("Words", "for the night"), changes(stratum("Panel")))
	assert.Contains(t, words(), "for the night")
}

// A sheet with letters cut out of it is changed like any other.
func TestASheetWithLettersCutOutChanges(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Cut out", "A2")
	do(t, ctx, "a sheet", adds("Circle"))
	sheet := read[string](t, ctx, element(id, `e.name==="Circle"`))
	at := read[string](t, ctx, fmt.Sprintf(`JSON.parse(%q).id`, sheet))
	send := func(edits string) int {
		return read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/%[1]s").then(r=>r.json()).then(v=>fetch("/api/cards/%[1]s/edits",{method:"POST",headers:{"Content-Type":"application/json","If-Match":'"'+v.version+'"'},body:JSON.stringify({edits:(%[2]s)(v)})})).then(r=>r.status)`, id, edits))
	}
	assert.Equal(t, 200, send(fmt.Sprintf(`v=>[{addOpening:{element:%q,text:"hi"}}]`, at)))
	assert.Equal(t, 200, send(fmt.Sprintf(`v=>{const e=v.card.elements.find(e=>e.id===%q);return [{sheet:{element:e.id,sheet:{...e.sheet,w:50}}}]}`, at)), "the whole of it, as it was read")
	_ = p
	do(t, ctx, "and on the page", chromedp.Navigate(p.URL+"/card/"+id+"/front"), seen(".front-form"), stratum("Circle"), says("Outline and openings"), types("Width", "2"), changes(chromedp.KeyEvent(kb.Enter)))
}

// A refused change goes alone: what was done after it is kept.
func TestARefusedChangeTakesNothingAlong(t *testing.T) {
	t.Parallel()
	ctx, _, id := front(t, "Refused", "A2")
	do(t, ctx, "nothing to undo", eval(`document.activeElement?.blur()`))
	do(t, ctx, "a circle", adds("Circle"), stratum("Circle"), says("Held by"))
	quiet(ctx, "409") // several undos at once run past the first change
	for range 3 {
		do(t, ctx, "undo", chromedp.KeyEvent("z", chromedp.KeyModifiers(2)))
	}
	do(t, ctx, "nothing more to undo is no failure", waitFor(`!document.body.innerText.includes("Not saved")`), adds("Tag"), stratum("Tag"), says("Held by"))
	assert.Contains(t, read[string](t, ctx, element(id, `e.name==="Tag"`)), "Tag")
}

// A removal from the stores asks where cards use the thing, and is undone by a press.
func TestARemovalIsAskedAndUndone(t *testing.T) {
	t.Parallel()
	_, p, id := front(t, "Papers", "A2")
	ctx := browser(t, 1280, 800)
	do(t, ctx, "the shelf", chromedp.Navigate(p.URL+"/stores/cardstock"), says("Cardstock:"))
	paper := read[string](t, ctx, fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(async v=>{const st=await fetch("/api/state").then(r=>r.json());const e=v.card.elements.find(e=>e.inset);return st.kit.papers.find(p=>p.id===e.sheet.paper).name})`, id))
	do(t, ctx, "remove what a card uses", css(fmt.Sprintf(`button[aria-label="Remove %s"]`, paper)), says("out of the stores?"), says("cards use it"))
	axe(t, ctx, "removal")
	do(t, ctx, "take it out", button("Take it out"), says("No longer in the stores"), says("is no longer in the stores;"))
	note := fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.findings.filter(f=>f.rule==="away").length)`, id)
	assert.Equal(t, 1, read[int](t, ctx, note))
	do(t, ctx, "undo", button("Undo"), waitFor(fmt.Sprintf(`!!document.querySelector('button[aria-label="Remove %s"]')`, paper)))
	assert.Equal(t, 0, read[int](t, ctx, note))
}
