package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestDrawerFromATableToMeasuredColours: inks from a table, found, marked; a
// swatch sheet laid out, filled and scanned by the simulated device, read and
// kept; suggestions then use what was measured.
func TestDrawerFromATableToMeasuredColours(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "mine.csv"), filepath.Join(dir, "bad.csv")
	require.NoError(t, os.WriteFile(good, []byte("name,family,dry\n\"Bilberry, pale\",Bilberry,#cfc6dd\n\"Bilberry, full\",Bilberry,#5d4a80\n\"Madder, soft\",Madder,#d98f86\nOdd,,plum\n"), 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("ink,colour\na,#112233\n"), 0o600))
	do(t, ctx, "open the drawer", chromedp.Navigate(p.URL+"/stores/inks"), says("The ink drawer: 49 inks"))
	file := chromedp.CSS(`input[accept=".csv,.gpl,.txt"]`)
	do(t, ctx, "a table without names is refused", chromedp.SetUploadFiles(file, []string{bad}), button("Take them in"), says("no column called name"))
	quiet(ctx)
	do(t, ctx, "a good one comes in, with notes", chromedp.SetUploadFiles(file, []string{good}), button("Take them in"), says("2 inks taken in"), says("Madder, soft is in the drawer already"), says("Odd: the colour is not written"), says("The ink drawer: 51 inks"))
	do(t, ctx, "find them", set2(`main input`, "bilberry"), says("2 of 51 inks"))
	do(t, ctx, "mark one empty", eval(`document.querySelector('[aria-label^="Bilberry, full"]').dispatchEvent(new MouseEvent("click", {bubbles: true}))`), says("running low"), eval(`[...document.querySelectorAll("label")].find(l => l.textContent === "empty").click()`))
	do(t, ctx, "all again", set2(`main input`, ""), says("The ink drawer: 51 inks"))
	axe(t, ctx, "the drawer")

	do(t, ctx, "lay out a sheet", button("Lay out a sheet"), says("Print sheet 1"))
	pdf := get(t, p.URL+"/api/swatches/sheets/1/sheet.pdf")
	assert.Equal(t, "%PDF-", string(pdf[:5]))
	do(t, ctx, "a picture without the sheet is refused", chromedp.SetUploadFiles(chromedp.CSS(`input[accept^="image/png"]`), []string{badPicture(t)}), button("Read the sheet"), says("measuring mat cannot be found"))
	quiet(ctx)
	long(t, ctx, "fill and scan it", button("Fill and scan it with the simulated scanner"), says("50 of 50 cells read, dry"))
	axe(t, ctx, "the cells")
	do(t, ctx, "keep them", button("Keep the 50 colours"), says("50 of 51 inks measured"))
	do(t, ctx, "a second paper", set2(`main select:has(option[value="kraft"])`, "kraft"), button("Lay out a sheet"), says("Print sheet 2"))
	long(t, ctx, "fill and scan it", button("Fill and scan it with the simulated scanner"), says("cells read, dry"))
	do(t, ctx, "keep them", begins("Keep the "), says("apart on average on papers you have not swatched"))
	do(t, ctx, "an ink says it is measured", eval(`document.querySelector("[aria-label^=\"Madder, full\"]").dispatchEvent(new MouseEvent("click", {bubbles: true}))`), says("(measured)"), says("Kraft, 80 lb"))
}

// TestInksByHandAndInSets: a school that shades every piece, blends by hand on
// the rail, an edge inked, the step that was done with another ink, and the
// recipe that says so; then five colourways in one go, shared out.
func TestInksByHandAndInSets(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "shade each piece", chromedp.Navigate(p.URL+"/card/lamp-sitters/inks"), says("From your drawer"),
		css(`[aria-haspopup=dialog]`), seen(`.popover select`), set2(`.popover select`, "every piece"), says("Every piece runs from light to dark"), seen(`.popover .field:nth-child(4) select`), set2(`.popover .field:nth-child(4) select`, "foot"), chromedp.KeyEvent(kb.Escape), gone("Where pieces darken"))
	long(t, ctx, "suggest", button("Suggest inks"), seen(`button[title^="Weakest pair"]`))
	do(t, ctx, "take the first", css(`button[title^="Weakest pair"]`), says("Saved, change 3"))
	do(t, ctx, "its blends", eval(`document.querySelectorAll(".stratum")[0].dispatchEvent(new MouseEvent("click", {bubbles: true}))`), begins("2 blends"), says("fades out over"))
	axe(t, ctx, "the blends")
	do(t, ctx, "one more, and one less", button("Work in a darker ink"), seen(`select[aria-label="Ink of blend 3"]`), css(`button[aria-label="Take away blend 3"]`), says("2 blends"))
	do(t, ctx, "the edge", set2(`select[aria-label="Ink of the edge"]`, "soot-deep"), says("Saved, change 6"))
	do(t, ctx, "undo and redo", changes(button("Undo")), changes(button("Redo")))
	do(t, ctx, "the step is there", chromedp.KeyEvent("7"), says("Ink the edge of"), press(`//li//button[contains(., "Ink the edge of")]`), says("run along the cut edge"))
	do(t, ctx, "another ink was used", set2(`select[aria-label="Ink really used"]`, "loam-deep"))
	recipe := ""
	require.Eventually(t, func() bool {
		recipe = string(get(t, p.URL+"/api/cards/lamp-sitters/recipe.csv"))
		return strings.Contains(recipe, `"Loam, deep",1`)
	}, 10*time.Second, 50*time.Millisecond)
	assert.Contains(t, recipe, ",foot,")
	assert.Contains(t, recipe, `edge,"Soot, deep","Loam, deep",1`)

	do(t, ctx, "five beetles", chromedp.Navigate(p.URL+"/card/five-beetles/inks"), says("From your drawer"))
	long(t, ctx, "a set of five", button("A set of"), says("5 colourways; the two most alike are"))
	do(t, ctx, "add them and share them out", button("Add all 5"), says("Saved, change 2"), button("Share them out"), says("no two neighbours are alike"))
	axe(t, ctx, "a set of colourways")
}
