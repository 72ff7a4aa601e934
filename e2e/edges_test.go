package e2e

import (
	"encoding/json"
	picture "image"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
)

// onDisk writes a simulated scan where the browser can take it from.
func onDisk(t *testing.T, name string, img picture.Image, dpi float64) string {
	raw, err := sim.PNG(img, dpi)
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, raw, 0o600))
	return path
}

// send posts a file and returns what is answered.
func send(t *testing.T, url, file string) (int, string) {
	f, err := os.Open(file)
	require.NoError(t, err)
	defer f.Close()
	r, err := http.Post(url, "application/octet-stream", f)
	require.NoError(t, err)
	defer r.Body.Close()
	body, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	return r.StatusCode, string(body)
}

// The same two leaves, of card as light as the shadow it throws: on the lid, and scanned again
// on a dark sheet.
func leaves(sheet [3]float64) sim.Bench {
	grey := [3]float64{0.5, 0.5, 0.47}
	return sim.Bench{W: 90, H: 60, Sheet: sheet, Items: []sim.Item{
		{Outline: shape.Disc(shape.Point{X: 28, Y: 28}, 16), Colour: grey},
		{Outline: shape.Disc(shape.Point{X: 68, Y: 28}, 9), Colour: [3]float64{0.1, 0.12, 0.3}},
	}}
}

// TestAScannerIsMeasured: by a bank card, once, with a page that is none refused; what is
// scanned on it afterwards is said to be corrected, and that of another is not.
func TestAScannerIsMeasured(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 900)
	square := onDisk(t, "square.png", sim.Bench{W: 140, H: 130, Sheet: sim.Black, Items: []sim.Item{{Outline: shape.Rect(20, 20, 90, 90), Colour: [3]float64{0.5, 0.5, 0.5}}}}.Scan(200, sim.Plain(), 1), 200)
	card := onDisk(t, "card.png", sim.BankCard().Scan(200, sim.Plain(), 2), 200)
	pieces := onDisk(t, "pieces.png", leaves(sim.Black).Scan(300, sim.Plain(), 3), 300)
	second := func(file string) step {
		return steps(eval(`document.querySelectorAll("input[type=file]")[1].id = "scan-of-it"`), chromedp.SetUploadFiles(chromedp.CSS(`#scan-of-it`), []string{file}))
	}
	do(t, ctx, "open", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("Measure your scanner"))
	axe(t, ctx, "measuring a scanner")
	do(t, ctx, "millimetres", button("inches"), typeInto("Name of the scanner", "Hall flatbed"))
	status, why := send(t, p.URL+"/api/scanners?name=Hall&from=card", square)
	assert.Equal(t, http.StatusUnprocessableEntity, status, "a page that is none")
	assert.Contains(t, why, "no bank card")
	assert.Contains(t, why, "Take a bank card")
	long(t, ctx, "the card", second(card), button("Measure it"), says("Measured by a bank card"), says("Sizes are sure to 0.15 %"), says("Scans are corrected for Hall flatbed"))
	long(t, ctx, "a scan on it", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{pieces}), button("Find the pieces"), says("2 pieces found"), says("Corrected for Hall flatbed"), says("this is 300, so sizes are sure to 0.25 % only"))
	do(t, ctx, "forget it", begins("Another picture"), says("Measure your scanner"), button("Forget Hall flatbed"), gone("Measured by a bank card"))
	long(t, ctx, "a scan on another", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{pieces}), button("Find the pieces"), says("trusted to 0.4 %"))
}

// TestADoubtfulOutline: the doubt is seen on the picture and told, and kept with the set where
// the outline is accepted; scanned again on a dark sheet it is gone.
func TestADoubtfulOutline(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 900)
	deep := sim.Plain()
	deep.Shadow, deep.Cast = 0.45, &sim.Cast{Far: 0.5, Soft: 0.2, Side: 90}
	doubtful := onDisk(t, "lid.png", leaves(sim.White).Scan(300, deep, 5), 300)
	again := onDisk(t, "dark.png", leaves(sim.Black).Scan(300, sim.Plain(), 6), 300)
	do(t, ctx, "open", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"), button("inches"))
	long(t, ctx, "on the lid", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{doubtful}), button("Find the pieces"), says("2 pieces found"), says("in doubt"), says("white core of a card does not show"))
	do(t, ctx, "where", seen("path.doubt"), eval(`document.querySelectorAll("button.row")[0].click()`), says("in doubt where the line is broken"), says("or scan it again"))
	axe(t, ctx, "a doubtful outline")
	long(t, ctx, "accepted and stacked", begins("Stack the 2"), says("The stack, top first"))
	do(t, ctx, "mended by hand and kept", eval(`document.querySelectorAll("[aria-label^='Choose ']")[0].click()`), pressMany("ArrowRight", 3), says("put by hand"), set2(`input[maxlength="80"]`, "Doubtful leaves"), button("Keep the set"), says("9 sets"))
	var state struct{ Kit kit.Kit }
	require.NoError(t, json.Unmarshal(get(t, p.URL+"/api/state"), &state))
	most := 0.0
	for _, s := range state.Kit.Sets {
		for _, part := range s.Parts {
			most = max(most, part.Sure)
		}
	}
	assert.Greater(t, most, 0.06, "the set keeps how sure its outlines are")
	do(t, ctx, "again", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"))
	long(t, ctx, "on a dark sheet", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{again}), button("Find the pieces"), says("2 pieces found"))
	assert.False(t, read[bool](t, ctx, `!!document.querySelector("path.doubt")`), "nothing is in doubt any more")
}

// TestASheetWithTwoInksSwapped: photographed with automatic levels; the swap is asked about,
// not kept, and set right by a press.
func TestASheetWithTwoInksSwapped(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 900)
	do(t, ctx, "lay a sheet out", chromedp.Navigate(p.URL+"/stores/inks"), says("Measure your inks"), button("Lay out a sheet"), says("Print sheet 1"))
	var state struct{ Kit kit.Kit }
	require.NoError(t, json.Unmarshal(get(t, p.URL+"/api/state"), &state))
	k := state.Kit
	var sheets []struct {
		Paper string
		Cells []struct {
			Ink         string
			Impressions int
		}
	}
	require.NoError(t, json.Unmarshal(get(t, p.URL+"/api/swatches/sheets"), &sheets))
	stock, ok := k.Paper(sheets[0].Paper)
	require.True(t, ok)
	paper, err := colour.ParseHex(stock.Colour)
	require.NoError(t, err)
	var cells []*colour.Linear
	for _, c := range sheets[0].Cells {
		ink, ok := k.Ink(c.Ink)
		require.True(t, ok)
		own := paper
		if of, ok := k.Paper(ink.Paper); ok {
			own, _ = colour.ParseHex(of.Colour)
		}
		film, _, err := ink.Film(own)
		require.NoError(t, err)
		v := film.Over(paper, c.Impressions)
		cells = append(cells, &v)
	}
	// The darkest and the lightest ink in each other's cell.
	lo, hi := 0, 0
	for i, c := range cells {
		if c.Lab().L < cells[lo].Lab().L {
			lo = i
		}
		if c.Lab().L > cells[hi].Lab().L && c.Lab().L < 80 {
			hi = i
		}
	}
	cells[lo], cells[hi] = cells[hi], cells[lo]
	cam := sim.Phone()
	cam.W, cam.H = cam.W*3/4, cam.H*3/4
	cam.Tilt, cam.Lean, cam.Bend, cam.Fill = 7, 50, 0.01, 0.84
	g := sim.Plain()
	g.Blotch, g.Shadow = 0.05, 0
	img := sim.Filled(mat.For(measure.Letter, false), paper, cells, 4).Photo(cam, g, 4)
	for i, v := range img.Pix { // what automatic levels do
		if i%4 < 3 {
			img.Pix[i] = uint8(min(255, max(0, (float64(v)-28)*255/(255-28))))
		}
	}
	file := onDisk(t, "sheet.png", img, 72)
	long(t, ctx, "read it", eval(`[...document.querySelectorAll("input[type=file]")].find(i => i.accept.includes("png")).id = "filled-sheet"`), chromedp.SetUploadFiles(chromedp.CSS(`#filled-sheet`), []string{file}), button("Read the sheet"), says("cells read, dry"))
	do(t, ctx, "the question", says("were the two swapped?"))
	axe(t, ctx, "a sheet with a question")
	was := read[int](t, ctx, `[...document.querySelectorAll("button")].filter(b => b.textContent === "They were").length`)
	assert.Equal(t, 2, was, "the pair and no other")
	do(t, ctx, "they were", eval(`[...document.querySelectorAll("button")].find(b => b.textContent === "They were").click()`), gone("were the two swapped?"))
}
