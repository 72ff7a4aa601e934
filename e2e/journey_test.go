package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A drawing of the tester's own: a lantern in five layers, in centimetres and
// with nested transforms, as a person might draw it.
const lantern = `<svg xmlns="http://www.w3.org/2000/svg" width="6cm" height="8cm" viewBox="0 0 600 800">
<g id="Frame"><path d="M100 120 L500 120 L540 720 L60 720 Z"/><circle cx="300" cy="90" r="60"/></g>
<g id="Glass" transform="translate(40 40)"><path d="M100 120 l320 0 l24 500 l-368 0 z"/></g>
<g id="Glow"><ellipse cx="300" cy="450" rx="130" ry="180"/></g>
<g id="Flame"><path d="M300 330 C360 420 380 480 300 560 C220 480 240 420 300 330 Z"/></g>
<g id="Wick"><rect x="286" y="500" width="28" height="60" rx="8"/></g>
</svg>`

const broken = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="80mm">
<g id="Frame">
<path id="rim" d="M10 10 L Q 40 banana"/>
</g></svg>`

// TestFromADrawingToASheet is the journey of a new user: empty stores, own
// inks and papers, a drawing of one's own, suggestions, play, a front with a
// mat, thickness, the printed sheet, the steps; and everything is still there
// after the program was closed and started again.
func TestFromADrawingToASheet(t *testing.T) {
	t.Parallel()
	fromADrawing(t, start(t, "serve", filepath.Join(t.TempDir(), "own.db")))
}

func fromADrawing(t *testing.T, p *program) {
	ctx := browser(t, 1280, 800)
	do(t, ctx, "an empty bench says what to do first", chromedp.Navigate(p.URL), says("First, tell Ochrestone what you own"), says("Cardstock"), button("Shut the guide"))

	for _, c := range []struct{ name, hex string }{{"Snow", "#f7f6f3"}, {"Slate", "#3c4248"}, {"Barley", "#d9c49a"}} {
		do(t, ctx, "add cardstock "+c.name, chromedp.Navigate(p.URL+"/stores/cardstock"), seen(`input[name=name]`),
			set(`input[name=name]`, c.name), set(`input[name=colour]`, c.hex), button("Add the paper"), says(c.name))
	}
	do(t, ctx, "open the ink drawer", chromedp.Navigate(p.URL+"/stores/inks"), seen(`input[name=name]`))
	for _, c := range []struct{ name, hex string }{{"Plum, pale", "#e3cfe0"}, {"Plum, soft", "#b692b3"}, {"Plum, full", "#7f5480"}, {"Plum, deep", "#452847"}, {"Wheat, pale", "#f2e3b4"}, {"Wheat, full", "#b98f34"}, {"Night, deep", "#20242b"}} {
		do(t, ctx, "add ink "+c.name, set(`input[name=name]`, c.name), set(`input[name=family]`, c.name[:4]), set(`input[name=dry]`, c.hex), button("Add the ink"),
			seen(fmt.Sprintf(`[aria-label^=%q]`, c.name)))
	}

	dir := t.TempDir()
	good, bad := filepath.Join(dir, "lantern.svg"), filepath.Join(dir, "broken.svg")
	require.NoError(t, os.WriteFile(good, []byte(lantern), 0o600))
	require.NoError(t, os.WriteFile(bad, []byte(broken), 0o600))
	do(t, ctx, "open the sets", chromedp.Navigate(p.URL+"/stores/sets"), seen(`input[type=file]`))
	do(t, ctx, "a bad drawing is refused with element and line",
		chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{bad}), button("Import the drawing"), says("line 3"), says("rim"), says("No sets yet"))
	quiet(ctx)
	do(t, ctx, "a good drawing comes in",
		chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{good}), button("Import the drawing"), says("die set, 5 parts"))

	do(t, ctx, "make a card from it", chromedp.Navigate(p.URL), seen(`input[name=title]`), set(`input[name=title]`, "For the lamp"), button("Make the card"),
		seen(`[aria-label="Strata"]`), says("5 layers"))
	do(t, ctx, "its size is honoured: 480 units of 0.1 mm", says("1 7⁄8 in wide"))

	do(t, ctx, "ask for inks", chromedp.KeyEvent("2"), says("From your drawer"), button("Suggest inks"), seen(`button[title^="Weakest pair"]`))
	do(t, ctx, "take the first", css(`button[title^="Weakest pair"]`), says("Saved, change 2"))
	weakest := read[float64](t, ctx, `fetch("/api/cards").then(r=>r.json()).then(l=>fetch("/api/cards/"+l[0].id)).then(r=>r.json()).then(v=>v.plan.motifs[0].colourways[0].weakest)`)
	assert.GreaterOrEqual(t, weakest, 8.0, "every layer reads")

	do(t, ctx, "see it wet and dried", button("Show wet"), says(", wet"), button("Show dried"), says(", dried"))
	do(t, ctx, "see the play of a layer", chromedp.KeyEvent("3"), seen(`[aria-label="The layer over its host"]`), says("at the tightest"))
	do(t, ctx, "drift shows when it is too far", pressMany("ArrowRight", 120), says("it shows"))

	do(t, ctx, "go to the front and add a mat", chromedp.KeyEvent("4"), button("Add a mat"), says("Mat 1"))
	do(t, ctx, "add a text strip", pressAdd("Text strip"), says("Strip “thank you”"))
	do(t, ctx, "select the image and move it by numbers", inHand("e1"), seen(`input[value="2 1⁄8"]`))
	do(t, ctx, "a slip of the pen is named", typeInto("Centre, down", "two inches"), says("Read length \"two inches\""))
	quiet(ctx)
	do(t, ctx, "and the mend is taken", changes(typeInto("Centre, down", "2 1/4")))
	do(t, ctx, "drag it over the edge", drag(`[aria-label^="The front of the card"] path`, 260, 0), says("hangs over the "))
	do(t, ctx, "and let the note mend it", css(`section[aria-label="Margin notes"] button[aria-expanded="false"]`), button("Move it in"), gone("hangs over the "))
	do(t, ctx, "undo brings it back, redo mends again", button("Undo"), says("hangs over the "), button("Redo"), gone("hangs over the panel"))

	do(t, ctx, "read thickness", chromedp.KeyEvent("5"), says("in thick"), says("Side view"))
	pdf := get(t, p.URL+path(t, ctx)+"/sheet.pdf")
	assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
	assert.Contains(t, string(get(t, p.URL+path(t, ctx)+"/front.svg")), "<svg")
	assert.True(t, bytes.HasPrefix(get(t, p.URL+path(t, ctx)+"/front.png"), []byte("\x89PNG")))

	do(t, ctx, "work: tick off two steps", chromedp.KeyEvent("7"), says("Step 1 of"), button("Done"), says("Step 2 of"), says("1 of"), pressMany(" ", 1), says("Step 3 of"))
	do(t, ctx, "millimetres", button("inches"), says("millimetres"))
	before := get(t, p.URL+path(t, ctx))

	p.stop()
	p.run()
	assert.JSONEq(t, string(before), string(get(t, p.URL+path(t, ctx))), "all is there after closing and starting again")
	do(t, ctx, "and the page shows it", chromedp.Reload(), says("Step 3 of"), says("millimetres"))

	do(t, ctx, "another colourway is in hand at once, under a name of its own", chromedp.KeyEvent("2"), says("From your drawer"), button("Add a colourway"), button("Its name"), seen(`input[value$=", again"]`))
	do(t, ctx, "and may be called otherwise", changes(typeInto("This colourway is called", "For the winter")), seen(`input[value="For the winter"]`))
	do(t, ctx, "the panel itself can be taken off", chromedp.KeyEvent("4"), inHand("panel"), changes(button("Take off")), waitFor(`!document.querySelector("#stratum-panel")`))
	left := read[string](t, ctx, `fetch("/api"+location.pathname.replace("/card/", "/cards/").replace("/front", "")).then(r=>r.json()).then(v=>v.card.elements.find(e=>e.inset).id)`)
	do(t, ctx, "and the last mat too", inHand(left), changes(button("Take off")), waitFor("!document.querySelector(`#stratum-"+left+"`)"))
}

// TestTwoTabs: the later save of a card that changed meanwhile is told so, and
// nothing is lost.
func TestTwoTabs(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "open the card", chromedp.Navigate(p.URL+"/card/five-beetles/front"), says("Saved, change 1"))
	body := get(t, p.URL+"/api/cards/five-beetles")
	var v struct {
		Card map[string]any `json:"card"`
	}
	require.NoError(t, json.Unmarshal(body, &v))
	v.Card["title"] = "Changed elsewhere"
	raw, _ := json.Marshal(v.Card)
	r, err := http.NewRequest(http.MethodPut, p.URL+"/api/cards/five-beetles", bytes.NewReader(raw))
	require.NoError(t, err)
	r.Header.Set("If-Match", `"1"`)
	r.Header.Set("Content-Type", "application/json")
	res, err := http.DefaultClient.Do(r)
	require.NoError(t, err)
	require.Equal(t, 200, res.StatusCode)
	_ = res.Body.Close()
	do(t, ctx, "the later change is refused in words", pressAdd("Text strip"), says("changed in another window"), says("Changed in another window"))
	quiet(ctx)
	do(t, ctx, "reading it again shows the other's change", button("Read it again"), says("Saved, change 2"))
	assert.Equal(t, "Changed elsewhere", read[string](t, ctx, `document.querySelector('[aria-label="Name of the card"]').value`))
}

// TestEveryViewIsAccessible runs axe-core on every main view, at the design
// size and on a tablet, and on Work on a phone.
func TestEveryViewIsAccessible(t *testing.T) {
	t.Parallel()
	axe, err := os.ReadFile(filepath.Join(root(t), "web", "node_modules", "axe-core", "axe.min.js"))
	require.NoError(t, err)
	views := []string{"/", "/stores/inks", "/stores/cardstock", "/stores/spacers", "/stores/adhesives", "/stores/envelopes", "/stores/machines", "/stores/to-buy", "/stores/sets", "/stores/data", "/looks-for",
		"/card/lamp-sitters/pieces", "/card/lamp-sitters/inks", "/card/lamp-sitters/register", "/card/lamp-sitters/front", "/card/lamp-sitters/depth", "/card/lamp-sitters/cut", "/card/lamp-sitters/work", "/card/lamp-sitters/log", "/card/five-beetles/inks"}
	for _, size := range [][2]int{{1280, 800}, {1024, 768}, {390, 844}} {
		if size[0] < 760 {
			views = []string{"/card/lamp-sitters/work", "/card/five-beetles/work", "/card/lamp-sitters/log"}
		}
		t.Run(fmt.Sprintf("%dx%d", size[0], size[1]), func(t *testing.T) {
			p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
			ctx := browser(t, size[0], size[1])
			for _, view := range views {
				accessible(t, ctx, string(axe), p.URL, view)
			}
		})
	}
}

// accessible runs axe-core on a view, with a layer chosen where there are layers.
func accessible(t *testing.T, ctx context.Context, axe, url, view string) {
	do(t, ctx, view, chromedp.Navigate(url+view), seen("h1"), settled(), eval(axe))
	if len(view) > 6 && view[:6] == "/card/" {
		do(t, ctx, view, eval(`document.querySelectorAll(".stratum")[2].dispatchEvent(new MouseEvent("click", {bubbles: true}))`), settled())
	}
	found, err := chromedp.Run(ctx, chromedp.Evaluate[string](`axe.run({runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]}).then(r =>
		r.violations.filter(v => v.impact === "serious" || v.impact === "critical").map(v => v.id + ": " + v.nodes.map(n => n.target + " " + n.failureSummary).slice(0, 3).join(" | ")).join("\n"))`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Empty(t, found, view)
	wide := read[bool](t, ctx, `document.documentElement.scrollWidth <= innerWidth + 1`)
	assert.True(t, wide, "%s scrolls sideways", view)
}

func path(t *testing.T, ctx context.Context) string {
	return read[string](t, ctx, `"/api/cards/" + location.pathname.split("/")[2]`)
}

func get(t *testing.T, url string) []byte {
	t.Helper()
	r, err := http.Get(url)
	require.NoError(t, err)
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	require.Equal(t, 200, r.StatusCode, "%s: %s", url, b)
	return b
}

// pressMany dispatches a key so many times.
func pressMany(key string, n int) step {
	return eval(fmt.Sprintf(`for (let i = 0; i < %d; i++) document.body.dispatchEvent(new KeyboardEvent("keydown", {key: %q, bubbles: true}))`, n, key))
}

// typeInto types into a length field and leaves it.
func typeInto(label, text string) step {
	return eval(fmt.Sprintf(`const l = [...document.querySelectorAll(".field")].find(x => x.textContent.startsWith(%q)); const i = l.querySelector("input");
		i.focus(); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(i, %q); i.dispatchEvent(new Event("input", {bubbles: true})); setTimeout(() => i.blur(), 30)`, label, text))
}

// drag presses on an element's middle and moves by dx, dy pixels.
func drag(sel string, dx, dy float64) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		at, err := chromedp.Evaluate[[]float64](fmt.Sprintf(`(() => {const r = document.querySelector(%q).getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]})()`, sel))(ctx, tg)
		if err != nil {
			return chromedp.Void{}, err
		}
		return chromedp.DragAndDropXY(at[0], at[1], at[0]+dx, at[1]+dy, 6)(ctx, tg)
	}
}
