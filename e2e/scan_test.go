package e2e

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/demo/sim"
)

// axe checks the page in hand for serious faults of accessibility.
func axe(t *testing.T, ctx context.Context, what string) {
	t.Helper()
	axeOf(t, ctx, what, "html")
}

// axeOf checks a part of it, as of what lies over the rest.
func axeOf(t *testing.T, ctx context.Context, what, sel string) {
	t.Helper()
	js, err := os.ReadFile(filepath.Join(root(t), "web", "node_modules", "axe-core", "axe.min.js"))
	require.NoError(t, err)
	do(t, ctx, what, settled(), eval(string(js)))
	found, err := chromedp.Run(ctx, chromedp.Evaluate[string](fmt.Sprintf(`axe.run(document.querySelector(%q), {runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]}).then(r =>
		r.violations.filter(v => v.impact === "serious" || v.impact === "critical").map(v => v.id + ": " + v.nodes.map(n => n.target + " " + n.failureSummary).slice(0, 3).join(" | ")).join("\n"))`, sel), chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Empty(t, found, what)
	assert.True(t, read[bool](t, ctx, `document.documentElement.scrollWidth <= innerWidth + 1`), "%s scrolls sideways", what)
}

// begins clicks the first button whose words begin so.
func begins(words string) step {
	return press(`//button[starts-with(normalize-space(.), "` + words + `")]`)
}

func choose(as string) step { return chromedp.Click(chromedp.CSS(`input[name=as][value=` + as + `]`)) }

// laidDown chooses a set in the list that has it, once it is there.
func laidDown(set string) step {
	pick := eval(`const s = [...document.querySelectorAll("select")].find(x => [...x.options].some(o => o.text === "` + set + `"));
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(s, [...s.options].find(o => o.text === "` + set + `").value);
		s.dispatchEvent(new Event("change", {bubbles: true}))`)
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		if _, err := says(set)(ctx, tg); err != nil {
			return chromedp.Void{}, err
		}
		return pick(ctx, tg)
	}
}

// badPicture is a black sheet with nothing on it.
func badPicture(t *testing.T) string {
	raw, err := sim.PNG(sim.Bench{W: 60, H: 60, Sheet: sim.Black}.Scan(200, sim.Plain(), 1), 200)
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), "nothing.png")
	require.NoError(t, os.WriteFile(name, raw, 0o600))
	return name
}

// onACard makes a card from the set of that name and sees its layers.
func onACard(t *testing.T, ctx context.Context, url, set, layers string) {
	do(t, ctx, "make a card from "+set, chromedp.Navigate(url), seen(`input[name=title]`), set2(`input[name=title]`, "From "+set), laidDown(set), button("Make the card"),
		seen(`[aria-label="Strata"]`), says(layers))
	do(t, ctx, "ask for inks", chromedp.KeyEvent("2"), says("From your drawer"), button("Suggest inks"), seen(`button[title^="Weakest pair"]`))
}

var set2 = set

// TestFromAScanToACard: a scan of a set that is in nobody's stores becomes
// outlines, a stack, a set and an inked card.
func TestFromAScanToACard(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "open the sets", chromedp.Navigate(p.URL+"/stores/sets"), says("8 sets"), chromedp.Click(chromedp.CSS("a.main-link")), says("What does the picture show"))
	axe(t, ctx, "the picture")
	do(t, ctx, "a picture of nothing is refused", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{badPicture(t)}), button("Find the pieces"), says("No pieces can be told from the sheet"))
	long(t, ctx, "the simulated scanner", laidDown("Toadstool"), button("Use the simulated device"), says("5 pieces found"), says("300 dots to the inch"))
	axe(t, ctx, "the pieces")
	do(t, ctx, "leave one out and take it in again", eval(`document.querySelectorAll("button.row")[4].click()`), button("Leave 5 out"), says("left out"), begins("Take 5 in again"))
	do(t, ctx, "cut by numbers", button("Cut 5 apart"), says("Draw the cut on the sheet"), button("Cut"), says("6 pieces found"))
	do(t, ctx, "leave the halves out", eval(`document.querySelectorAll("button.row")[5].click()`), button("Leave 6 out"), eval(`document.querySelectorAll("button.row")[4].click()`), button("Leave 5 out"))
	long(t, ctx, "stack them", begins("Stack the 4"), says("The stack, top first"))
	axe(t, ctx, "the stack")
	do(t, ctx, "choose a layer", eval(`document.querySelectorAll("[aria-label^='Choose ']")[0].click()`), says("follows"))
	do(t, ctx, "in millimetres", button("inches"), says("Across (mm)"))
	across := func() float64 {
		do(t, ctx, "let the field follow", settled())
		return read[float64](t, ctx, `Number([...document.querySelectorAll(".field")].find(l => l.textContent.startsWith("Across")).querySelector("input").value)`)
	}
	x := across()
	do(t, ctx, "nudge it with the keys", pressMany("ArrowRight", 12), says("put by hand"))
	assert.InDelta(t, x+1.2, across(), 0.11)
	do(t, ctx, "snap it back", button("Snap"), says("snapped: "))
	assert.InDelta(t, x, across(), 0.11, "the edge it follows is where it was")
	type place struct{ X, Y float64 }
	at := read[place](t, ctx, `(() => { const r = [...document.querySelectorAll("svg path")].find(p => p.style.cursor === "grab" && Number(p.getAttribute("stroke-width")) * 2 > Math.max(...[...document.querySelectorAll("svg path")].filter(q => q.style.cursor === "grab").map(q => Number(q.getAttribute("stroke-width"))))).getBoundingClientRect(); return { X: r.x + r.width / 2, Y: r.y + r.height / 2 } })()`)
	do(t, ctx, "turn it away and tap where it goes", typeInto("Turn (degrees)", "140"), says("put by hand"), button("Put by a tap"), says("Tap where it goes"),
		chromedp.MouseClickXY(at.X, at.Y), says("tapped: "))
	assert.InDelta(t, x, across(), 0.3, "it turned and found its edge")
	do(t, ctx, "keep it", button("Keep the set"), says("9 sets"))
	onACard(t, ctx, p.URL, "Toadstool", "4 layers")
}

// TestFromAMatToACard: the same from a tilted photograph on the measuring mat.
func TestFromAMatToACard(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "choose the mat", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"), choose("mat"), says("Print the mat:"))
	do(t, ctx, "a picture without the mat is refused", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{badPicture(t)}), button("Find the pieces"), says("measuring mat cannot be found"))
	long(t, ctx, "the simulated camera", laidDown("Hedge snail"), button("Use the simulated device"), says("pieces found"))
	do(t, ctx, "how sure it is", says("5 pieces found"), says("marks seen"), says("the scale is sure to"))
	long(t, ctx, "stack them", begins("Stack the 5"), says("The stack, top first"))
	do(t, ctx, "keep it", button("Keep the set"), says("9 sets"))
	onACard(t, ctx, p.URL, "Hedge snail", "5 layers")
}

// TestFromAStampedSheetToACard: every step of a layering stamp, printed apart.
func TestFromAStampedSheetToACard(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "choose the stamped sheet", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"), choose("stamps"))
	do(t, ctx, "an empty sheet is refused", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{badPicture(t)}), button("Find the pieces"), says("No pieces can be told from the sheet"))
	long(t, ctx, "the simulated scanner", laidDown("Beetle, four steps"), button("Use the simulated device"), says("4 prints found"))
	long(t, ctx, "stack them", begins("Stack the 4"), says("The stack, top first"))
	do(t, ctx, "name it and keep it", set2(`input[maxlength="80"]`, "Beetle from paper"), button("Keep the set"), says("9 sets"), says("stamp set, 4 parts"))
	onACard(t, ctx, p.URL, "Beetle from paper", "4 layers")
}

// TestDrawnSets: basic dies and words from their measures, found again, marked
// missing and brought to their true width.
func TestDrawnSets(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "draw circles", chromedp.Navigate(p.URL+"/stores/sets"), says("Draw basic dies"), button("Draw them"), says("Circle"), says("9 sets"))
	do(t, ctx, "draw words", set2(`input[name=text]`, "hello"), button("Draw the words"), says("10 sets"), says("word set, 3 parts"))
	do(t, ctx, "find them", set2(`main input`, "moth drawer"), says("1 of 10 sets"))
	do(t, ctx, "open the set", button("Open"), says("Hind wings"), eval(`[...document.querySelectorAll("li label")].find(l => l.textContent === "missing").click()`), says("1 part missing"))
	axe(t, ctx, "the sets")
	do(t, ctx, "true width", typeInto("True width", "4"), says("4 in × "))
}

// TestFromAStencilToASet: openings as parts, and the line etched round them as
// a guide.
func TestFromAStencilToASet(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "choose the stencil", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"), choose("stencil"))
	do(t, ctx, "a sheet without a stencil is refused", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{badPicture(t)}), button("Find the pieces"), says("No pieces can be told from the sheet"))
	long(t, ctx, "the simulated scanner", laidDown("Beech leaf"), button("Use the simulated device"), says("openings found"), says("Lines etched into the plate were found"))
	long(t, ctx, "stack them", begins("Stack "), says("The stack, top first"))
	axe(t, ctx, "the openings")
	do(t, ctx, "keep it", button("Keep the set"), says("9 sets"), says("stencil set"))
	kept := string(get(t, p.URL+"/api/state"))
	assert.Contains(t, kept, `"lines":"M`, "the guide is kept with the set")
}
