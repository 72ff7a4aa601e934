package e2e

import (
	"context"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAnotherScreen: a tablet joins by code, ticks steps while the first goes on planning, loses
// its connection, ticks on and catches up; without the code it gets nothing, and once taken back
// nothing again.
func TestAnotherScreen(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "at work", chromedp.Navigate(p.URL+"/card/lamp-sitters/work"), says("Step 1 of"), button("Show on another screen"), says("answers to nobody but this machine"))
	axe(t, ctx, "before a screen is let in")
	do(t, ctx, "let one in", button("Let a screen in"), says("Each code lets one device in"))
	axe(t, ctx, "the code")
	shot(t, ctx, "screens")
	code := read[string](t, ctx, `document.querySelector("[data-code]").dataset.code`)
	door := "http://" + strings.Fields(read[string](t, ctx, `[...document.querySelectorAll("[role=dialog] div")].map(d => d.textContent).find(s => /^\d+\.\d+\.\d+\.\d+:\d+$/.test(s))`))[0]
	r, err := http.Get(door + "/api/cards")
	require.NoError(t, err)
	require.NoError(t, r.Body.Close())
	assert.Equal(t, http.StatusUnauthorized, r.StatusCode, "without the code it gets nothing")

	tablet := browser(t, 1024, 768)
	do(t, tablet, "the door", chromedp.Navigate(door+"/card/lamp-sitters/work"), says("Ochrestone shows a code where it runs"))
	axe(t, tablet, "the door")
	do(t, tablet, "a wrong code", set2(`input[name=code]`, "WRONGONE"), leads(button("Let this screen in")))
	do(t, tablet, "is refused", says("that is not the code shown"))
	quiet(tablet, "403")
	do(t, tablet, "the right one", set2(`input[name=code]`, code), leads(button("Let this screen in")))
	do(t, tablet, "lets it in", says("Cards in hand"))
	do(t, tablet, "the cards alone", gone("The stores"), gone("Make the card"), chromedp.Navigate(door+"/card/lamp-sitters/front"), says("Step 1 of"), gone("Undo"))
	axe(t, tablet, "work on another screen")
	do(t, ctx, "the first sees it join", says("Screen 1, in since"), chromedp.KeyEvent("\x1b"), says("1 other screen"))

	do(t, tablet, "it ticks a step", button("Done"), says("Step 2 of"))
	do(t, ctx, "which the first sees, who plans on", says("Step 2 of"), chromedp.KeyEvent("4"), seen(`[aria-label^="The front of the card"]`), pressAdd("Text strip"), says("Strip “thank you”"))
	do(t, tablet, "and the tablet follows the plan", says("Strip “thank you”"), fetched())

	offline := func(off bool) {
		cut := chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			rules := []*network.Conditions{}
			if off {
				rules = append(rules, &network.Conditions{Offline: true, DownloadThroughput: -1, UploadThroughput: -1})
			}
			_, err := cdp.Call(ctx, t, network.EmulateNetworkConditionsByRule, network.EmulateNetworkConditionsByRuleParams{MatchedNetworkConditions: rules})
			return err
		})
		require.NoError(t, chromedp.Do(tablet, cut))
	}
	offline(true)
	do(t, tablet, "without a connection it ticks on", button("Done"), says("Step 3 of"), button("Done"), says("Step 4 of"), says("wait"))
	assert.NotContains(t, string(get(t, p.URL+"/api/cards/lamp-sitters/now")), "nothing")
	offline(false)
	do(t, ctx, "and catches up", chromedp.KeyEvent("7"), says("Step 4 of"))
	quiet(tablet, "ERR_INTERNET_DISCONNECTED")

	photo := filepath.Join(t.TempDir(), "finished.png")
	require.NoError(t, os.WriteFile(photo, get(t, p.URL+"/api/cards/lamp-sitters/front.png"), 0o600))
	do(t, tablet, "it writes the log", chromedp.Click(chromedp.Search(`//nav//a[contains(., "Log")]`)), says("One run"), says("For the next time"), gone("Make it again"), set2(".log textarea", "From the tablet"), eval(`document.querySelector(".log textarea").blur()`), set2(".log input", "The card on the table"), chromedp.SetUploadFiles(chromedp.CSS(".log input[type=file]"), []string{photo}), seen(`img[alt="The card on the table"]`))
	axe(t, tablet, "the log on another screen")
	do(t, ctx, "which the first sees", chromedp.KeyEvent("8"), seen(`img[alt="The card on the table"]`), waitFor(`document.querySelector(".log textarea")?.value === "From the tablet"`), chromedp.KeyEvent("7"), says("Step 4 of"))

	do(t, ctx, "taken back", button("1 other screen"), button("Take back"), gone("Screen 1, in since"))
	do(t, tablet, "it gets nothing", chromedp.Navigate(door+"/card/lamp-sitters/work"), says("Ochrestone shows a code where it runs"))
	quiet(tablet, "401")
	do(t, ctx, "shut", button("Shut all out"), says("answers to nobody but this machine"))
	_, err = http.Get(door + "/api/cards")
	assert.Error(t, err, "nobody listens")
}
