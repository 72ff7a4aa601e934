package e2e

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const noUnits = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200"><rect id="Ground" width="288" height="144" fill="#333"/><circle id="Moon" cx="100" cy="70" r="36" fill="#eee"/></svg>`

// A drawing that does not say its size: each size it may have stands beside a
// ruler, and the one chosen is the one kept.
func TestHowLargeADrawingIs(t *testing.T) {
	t.Parallel()
	p := start(t, "serve", filepath.Join(t.TempDir(), "a.db"))
	ctx := browser(t, 1280, 800)
	file := filepath.Join(t.TempDir(), "moon.svg")
	require.NoError(t, os.WriteFile(file, []byte(noUnits), 0o600))
	do(t, ctx, "import it", chromedp.Navigate(p.URL+"/stores/sets"), seen(`input[type=file]`),
		chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{file}), button("Import the drawing"), says("How large is moon?"), says("72 units to the inch"))
	do(t, ctx, "at 72 to the inch it is four inches wide", says("4 in × 2 in"), chromedp.Click(chromedp.Search(`//div[contains(., "72 units") and button]/button[.="It is this large"]`), chromedp.NodeVisible), gone("How large is moon?"), says("die set, 2 parts"))
	w := read[float64](t, ctx, `fetch("/api/state").then(r=>r.json()).then(s=>{const x=s.kit.sets[0].parts.flatMap(p=>p.outline.match(/[ML](-?[\d.]+)/g).map(v=>+v.slice(1)));return Math.max(...x)-Math.min(...x)})`)
	require.InDelta(t, 101.6, w, 0.05)
}

// A backup is saved, the data changes, and the backup is brought back, all on the
// page.
func TestYourDataOnThePage(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "open it", chromedp.Navigate(p.URL+"/stores/data"), says("Your data"), button("Check the file"), says("everything in it can be read"))
	r, err := http.Get(p.URL + "/api/data/backup.db")
	require.NoError(t, err)
	raw, err := io.ReadAll(r.Body)
	require.NoError(t, r.Body.Close())
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "backup.db")
	require.NoError(t, os.WriteFile(file, raw, 0o600))
	remove, err := http.NewRequest(http.MethodDelete, p.URL+"/api/cards/five-beetles", nil)
	require.NoError(t, err)
	d, err := http.DefaultClient.Do(remove)
	require.NoError(t, err)
	require.NoError(t, d.Body.Close())
	do(t, ctx, "a card made since", chromedp.Navigate(p.URL), seen(`input[name=title]`), set(`input[name=title]`, "Made since"), button("Make the card"), seen(`[aria-label="Strata"]`))
	do(t, ctx, "look into it first", chromedp.Navigate(p.URL+"/stores/data"), says("Your data"), chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{file}),
		says("In backup.db: 6 cards"), says("Five beetles"), says("gone from here once it is brought back: Made since"))
	axe(t, ctx, "a backup looked into")
	do(t, ctx, "leave it, then bring it back", button("Leave it"), gone("In backup.db"), chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{file}), button("Bring it back"), says("as it was in the backup"))
	do(t, ctx, "the card is there again", chromedp.Navigate(p.URL), says("Five beetles"))
	bad := filepath.Join(t.TempDir(), "bad.db")
	require.NoError(t, os.WriteFile(bad, []byte("a shopping list, not a backup"), 0o600))
	do(t, ctx, "what is no backup is refused", chromedp.Navigate(p.URL+"/stores/data"), says("Your data"),
		chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{bad}), says("Nothing was changed"))
	quiet(ctx)
}

// One's own data is copied every day by itself; a day's copy is looked into and brought back.
func TestTheDaysCopyOnThePage(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "own.db")
	p := start(t, "serve", data)
	ctx := browser(t, 1280, 800)
	today := filepath.Join(filepath.Dir(data), "own-copies", time.Now().Format("2006-01-02")+".db")
	require.Eventually(t, func() bool { _, err := os.Stat(today); return err == nil }, 10*time.Second, 50*time.Millisecond, "a copy is made at the start")
	do(t, ctx, "a cardstock since", chromedp.Navigate(p.URL+"/stores/cardstock"), seen(`input[name=name]`), set(`input[name=name]`, "Since"), set(`input[name=colour]`, "#303030"), button("Add the paper"), says("Since"))
	do(t, ctx, "the copy", chromedp.Navigate(p.URL+"/stores/data"), says("one a day"), says("own-copies"), says("This is Ochrestone"), css(`[data-copy]`), says("In the copy of "), says("0 things in the stores"))
	axe(t, ctx, "copies")
	do(t, ctx, "brought back", button("Bring it back"), says("as it was in the backup"), chromedp.Navigate(p.URL+"/stores/cardstock"), seen(`input[name=name]`), gone("Since"))
}

// A card carried to another machine: saved here, brought in there, where one of its papers is
// another; both are kept, and what is no card is refused.
func TestACardIsCarriedElsewhere(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	dir := t.TempDir()
	file, bad := filepath.Join(dir, "thanks.ochre"), filepath.Join(dir, "list.ochre")
	require.NoError(t, os.WriteFile(file, get(t, p.URL+"/api/cards/lamp-sitters/card.ochre"), 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("a shopping list"), 0o600))
	ctx := browser(t, 1280, 800)
	var state struct {
		Kit struct {
			Papers []map[string]any `json:"papers"`
		} `json:"kit"`
	}
	require.NoError(t, json.Unmarshal(get(t, p.URL+"/api/state"), &state))
	for _, paper := range state.Kit.Papers {
		if paper["name"] != "Oat, 110 lb" {
			continue
		}
		paper["caliper"] = paper["caliper"].(float64) + 0.03
		raw, err := json.Marshal(paper)
		require.NoError(t, err)
		put, err := http.NewRequest(http.MethodPut, p.URL+"/api/kit/papers/"+paper["id"].(string), bytes.NewReader(raw))
		require.NoError(t, err)
		put.Header.Set("Content-Type", "application/json")
		r, err := http.DefaultClient.Do(put)
		require.NoError(t, err)
		require.Equal(t, http.StatusOK, r.StatusCode)
		require.NoError(t, r.Body.Close())
	}
	do(t, ctx, "the bench", chromedp.Navigate(p.URL), says("Bring in a card"))
	do(t, ctx, "what is no card", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{bad}), says("This is not a card of Ochrestone"), says("Nothing was changed"))
	quiet(ctx)
	do(t, ctx, "look into it", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{file}), says("Bring in “Lamp-sitters' thanks”"), says("just the same"), says("Oat, 110 lb: thickness 0.017 in here, 0.015 in there"))
	axe(t, ctx, "a card brought in")
	shot(t, ctx, "bring")
	do(t, ctx, "keep both", pickFrom("Oat, 110 lb: thickness 0.017 in here, 0.015 in there", "both: keep theirs beside mine"), button("Put it on the bench"), seen(`[aria-label="Strata"]`))
	assert.Contains(t, string(get(t, p.URL+"/api/state")), "Oat, 110 lb, brought in")
	do(t, ctx, "the other screen of the page says so", chromedp.Navigate(p.URL+"/stores/cardstock"), says("Oat, 110 lb, brought in"))
}
