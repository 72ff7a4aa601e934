package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// A print kept clear of its ground, on a sheet that carries it; one layer left bare on purpose.
func TestAPrintMaskedOnWhatCarriesIt(t *testing.T) {
	t.Parallel()
	ctx, _, id := front(t, "Masked", "Square, 5")
	steps := func(words string) string {
		return fmt.Sprintf(`fetch("/api/cards/%s").then(r=>r.json()).then(v=>v.plan.steps.map(s=>s.title+" "+s.detail).join("\n").includes(%q))`, id, words)
	}
	do(t, ctx, "an image to print", image("Toadstool, four steps"), says("Toadstool"))
	do(t, ctx, "a sheet it lies on", stratum("Panel"), says("Border of the sheet beneath"), button("Done to it"), says("Plain card so far"), changes(pickFrom("Do more to it", "Ink, blended")), chromedp.KeyEvent("\x1b"))
	do(t, ctx, "masked while that is inked", stratum("Toadstool"), button("More"), says("what bears most of it"), changes(tick("masked while its ground is inked")), chromedp.KeyEvent("\x1b"))
	do(t, ctx, "an ink for it", chromedp.KeyEvent("2"), says("From your drawer"), button("Suggest inks"), seen(`button[title^="Weakest pair"]`), changes(css(`button[title^="Weakest pair"]`)))
	assert.True(t, read[bool](t, ctx, steps("the blend")), "the mask says what it is for")
	do(t, ctx, "one layer left bare on purpose", css(".stratum"), says("strikes"), changes(pickFrom("Ink", "left bare on purpose")), says("left bare on purpose"))
	do(t, ctx, "and taken back", button("Undo"), gone("left bare on purpose,"))
}
