package e2e

import (
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// TestShots takes the pictures of docs/screenshots; it runs only under make
// shots, which sets SHOTS.
func TestShots(t *testing.T) {
	dir := os.Getenv("SHOTS")
	if dir == "" {
		t.Skip("make shots takes the pictures")
	}
	require.NoError(t, os.MkdirAll(dir, 0o755))
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	past := start(t, "demo", evenings(t))
	ctx := browser(t, 1280, 800)
	only := os.Getenv("ONLY")
	shot := func(name, path string, steps ...step) {
		if only != "" && only != name {
			return
		}
		long(t, ctx, name, append([]step{chromedp.Navigate(p.URL + path), seen("h1"), chromedp.Sleep(700 * time.Millisecond)}, steps...)...)
		do(t, ctx, name, chromedp.Sleep(600*time.Millisecond))
		png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name+".png"), png, 0o644))
	}
	at := p.URL
	photo := filepath.Join(t.TempDir(), "finished.png")
	require.NoError(t, os.WriteFile(photo, get(t, p.URL+"/api/cards/toadstools/front.png"), 0o600))
	p.URL = past.URL // three evenings of the past
	shot("log", "/card/toadstools/log", says("3 runs"), says("Planned, and as it went"), set2(`.log input`, "The ring, on the windowsill"), chromedp.SetUploadFiles(chromedp.CSS(`.log input[type=file]`), []string{photo}), seen(`.photograph img`))
	p.URL = at
	shot("bench", "/", until(`document.images.length > 5 && [...document.images].every(i => i.complete && i.naturalWidth > 0)`))
	shot("stores-inks", "/stores/inks")
	shot("stores-sets", "/stores/sets")
	stratum := func(n string) step {
		return eval(`document.querySelectorAll(".stratum")[` + n + `].dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	}
	shot("pieces", "/card/lamp-sitters/pieces", stratum("1"))
	shot("inks", "/card/lamp-sitters/inks", button("Suggest inks"), seen(`button[title^="Weakest pair"]`), stratum("5"))
	shot("register", "/card/lamp-sitters/register", stratum("5"))
	shot("register-proof", "/card/five-beetles/register", says("Where to look"), button("Measure"), button("Simulated scan"), says("askew, which is left out"))
	shot("inks-set", "/card/five-beetles/inks", button("A set of"), says("most alike"))
	named := func(n string) step {
		return eval(`[...document.querySelectorAll(".stratum")].find(x => x.textContent.includes("` + n + `")).dispatchEvent(new MouseEvent("click", {bubbles: true}))`)
	}
	shot("front", "/card/moth-night/front", named("Hawk-moth"), seen(".crossing"))
	shot("front-shells", "/card/coast-night/front", named("Cord"))
	shot("depth", "/card/lamp-sitters/depth")
	shot("cut", "/card/lamp-sitters/cut", typeInto("Cards in one sitting", "12"), says("for 12 cards"))
	shot("work", "/card/lamp-sitters/work", press(`//li//button[contains(., "Stamp Eyespots")]`))
	shot("work-tuck", "/card/moth-night/work", press(`//li//button[contains(., "Frame onto")]`))
	if only == "" || only == "handout" {
		file := filepath.Join(t.TempDir(), "handout.pdf")
		require.NoError(t, os.WriteFile(file, get(t, p.URL+"/api/cards/moth-night/handout.pdf"), 0o600))
		require.NoError(t, exec.Command("pdftoppm", "-r", "100", "-f", "4", "-l", "4", "-singlefile", "-png", file, filepath.Join(dir, "handout")).Run())
	}
	shot("scan-stack", "/stores/sets/scan", laidDown("Toadstool"), button("Use the simulated device"), says("5 pieces found"), begins("Stack the 5"), says("The stack, top first"),
		eval(`document.querySelectorAll("[aria-label^='Choose ']")[1].click()`))
	shot("swatches", "/stores/inks", button("Lay out a sheet"), says("Print sheet 1"), button("Fill and scan it with the simulated scanner"), says("cells read, dry"), eval(`scrollTo(0, 1e5)`))
	ctx = browser(t, 820, 1180)
	shot("work-tablet", "/card/coast-night/work", press(`//li//button[contains(., "Cockle")]`))
}
