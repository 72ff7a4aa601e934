package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"ochrestone/demo/sim"
)

// TestAPictureOfTheFinishedImage: pieces that no edge places go where a pack's cover shows
// them, the picture is seen through them, another image's picture is refused and nothing lost,
// and what is kept has the colours shown.
func TestAPictureOfTheFinishedImage(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	sets, err := sim.Sets()
	require.NoError(t, err)
	laid, err := sim.Lay(sets[1], 280, 400, 0, 3)
	require.NoError(t, err)
	b, _, err := sim.Finished(sets[1], laid, 3)
	require.NoError(t, err)
	cam, g := sim.Held(3)
	jpeg, err := sim.JPEG(b.Photo(cam, g, 3), 72, 88)
	require.NoError(t, err)
	other := filepath.Join(t.TempDir(), "another image.jpg")
	require.NoError(t, os.WriteFile(other, jpeg, 0o600))

	long(t, ctx, "scan a cottage", chromedp.Navigate(p.URL+"/stores/sets/scan"), says("What does the picture show"), laidDown("Sluice cottage"), button("Use the simulated device"), says("6 pieces found"))
	long(t, ctx, "stack it by its edges", begins("Stack the 6"), says("The stack, top first"), says("Is there a picture of it finished?"))
	long(t, ctx, "another image's picture is refused", chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{other}), says("does not show these pieces put together"), says("or go on without one"), says("The stack, top first"))
	long(t, ctx, "go by its own", button("Simulated picture"), says("of 6 pieces were made out in it"))
	do(t, ctx, "see it through", tick("See it through the pieces"))
	axe(t, ctx, "the stack by a picture")
	do(t, ctx, "how a piece was placed", eval(`document.querySelectorAll("[aria-label^='Choose ']")[0].click()`), says("where the picture shows it"))
	do(t, ctx, "keep it", button("Keep the set"), says("9 sets"))
	onACard(t, ctx, p.URL, "Sluice cottage", "6 layers")
}
