package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The shelves: a table taken in with what cannot be told, a thing changed and found by where it
// is kept, a table taken out, and what is to be bought for the bench.
func TestTheShelves(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "paper.csv"), filepath.Join(dir, "bad.csv")
	require.NoError(t, os.WriteFile(good, []byte("name;colour;g/m2;thickness;width;height;sheets;where kept\nSnow, heavy;#fdfdfb;300;0.016 in;8 1/2 in;11 in;4;blue box\nOdd;plum;200;0.3 mm;;;1;\n"), 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("what,colour\nSnow,#ffffff\n"), 0o600))
	file := chromedp.CSS(`input[aria-label="Choose a table (CSV)"]`)
	do(t, ctx, "a table that is none", chromedp.Navigate(p.URL+"/stores/cardstock"), says("Cardstock: "), chromedp.SetUploadFiles(file, []string{bad}), says("There is no column called name"))
	quiet(ctx)
	do(t, ctx, "a good one", chromedp.SetUploadFiles(file, []string{good}), says("1 taken in."), says("line 3, Odd"), says("Snow, heavy"), says("blue box"))
	axe(t, ctx, "the cardstock")
	shot(t, ctx, "cardstock")
	do(t, ctx, "changed", chromedp.Click(chromedp.CSS(`[aria-label="Change Snow, heavy"]`)), seen(`[role=dialog] input[name=where]`), set2(`[role=dialog] input[name=where]`, "red box"))
	axe(t, ctx, "changing a paper")
	shot(t, ctx, "change")
	do(t, ctx, "kept so", button("Keep it so"), waitFor(`!document.querySelector("[role=dialog]")`), says("red box"), gone("blue box"))
	do(t, ctx, "found by where it is", set2(`main input`, "red box"), waitFor(`document.querySelectorAll(".things tr").length === 1`))
	snow := read[struct{ Caliper, W float64 }](t, ctx, `fetch("/api/state").then(r => r.json()).then(s => s.kit.papers.find(p => p.name === "Snow, heavy"))`)
	assert.InDelta(t, 0.4064, snow.Caliper, 1e-9, "0.016 of an inch, kept as it was when the place was changed")
	assert.InDelta(t, 215.9, snow.W, 1e-9)
	csv := string(get(t, p.URL+"/api/shelf/papers.csv"))
	assert.Contains(t, csv, `"Snow, heavy",cardstock,#fdfdfb,300,0.4064,,4,215.9,279.4,,red box`)

	do(t, ctx, "pads are counted", chromedp.Navigate(p.URL+"/stores/spacers"), seen(`input[aria-label="Thin foam squares, left"]`), eval(`document.querySelector('input[aria-label="Thin foam squares, left"]').focus()`),
		eval(`const i = document.querySelector('input[aria-label="Thin foam squares, left"]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(i, "1"); i.blur()`), waitFor(`fetch("/api/state").then(r => r.json()).then(s => s.kit.spacers.find(p => p.name === "Thin foam squares").left === 1)`))
	do(t, ctx, "what to buy", chromedp.Click(chromedp.Search(`//nav//a[.="to buy"]`)), says("To buy: "), says("Thin foam squares: 1 there; for "), says("For Lamp-sitters"))
	axe(t, ctx, "to buy")
	shot(t, ctx, "tobuy")
}

// A folder of drawings, one of them none and one known: each becomes a set by the name of its
// file, and what does not is told.
func TestManyDrawingsAtOnce(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	dir := t.TempDir()
	var files []string
	for name, text := range map[string]string{
		"Leaf": `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><path d="M0 0h40v30H0z"/></svg>`,
		"Pear": `<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="30mm" viewBox="0 0 30 30"><circle cx="15" cy="15" r="14"/><circle cx="15" cy="15" r="6"/></svg>`,
		"Torn": `<svg xmlns="http://www.w3.org/2000/svg"><path d="M0`, "Hawk-moth": `<svg/>`,
	} {
		files = append(files, filepath.Join(dir, name+".svg"))
		require.NoError(t, os.WriteFile(files[len(files)-1], []byte(text), 0o600))
	}
	sets := `fetch("/api/state").then(r => r.json()).then(s => s.kit.sets.length)`
	do(t, ctx, "the sets", chromedp.Navigate(p.URL+"/stores/sets"), says("Many drawings at once"))
	before := read[int](t, ctx, sets)
	do(t, ctx, "four files", chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="Many drawings at once"]`), files), says("2 sets taken in, each named as its file"), says("Hawk-moth: is there already"), says("Torn: "))
	quiet(ctx)
	assert.Equal(t, before+2, read[int](t, ctx, sets))
	axe(t, ctx, "many drawings")
}
