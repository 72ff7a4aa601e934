package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// A sort of gem is put on its shelf, taken for a card that wants more of it, and what stands in is taken
// instead; what a thing is meant to do is said of it and judged; a hand's own number is typed.
func TestWhatIsMeantAndWhatIsOwned(t *testing.T) {
	t.Parallel()
	ctx, p, id := front(t, "Meant", "Square, 5")
	add := func(name, left string) step {
		return steps(typeInto("Name", name), typeInto("Left (empty: not counted)", left), button("Add the sort of gem"), says(name))
	}
	do(t, ctx, "two sorts of gems", chromedp.Navigate(p.URL+"/stores/gems"), says("Add a sort of gem"), add("Pearls, cream", "2"), add("Pearls, white", "40"))
	do(t, ctx, "the card again", chromedp.Navigate(p.URL+"/card/"+id+"/front"), says("The front"), says("% bare"))
	do(t, ctx, "three of the first", adds("Gems"), stratum("3 gems"), there("Of the stores"), changes(pickFrom("Of the stores", "Pearls, cream, 2 left")))
	do(t, ctx, "are one too many", chromedp.Navigate(p.URL+"/card/"+id+"/cut"), says("There are too few Pearls, cream"), notes(), button("Take Pearls, white"), gone("There are too few"))
	do(t, ctx, "an image and what it is meant to do", chromedp.Navigate(p.URL+"/card/"+id+"/front"), says("The front"), image("Hawk-moth"), stratum("Hawk-moth"), button("More"), there("It is meant to"),
		set2(`select:has(option[value="stay clear of"])`, "be hidden"), changes(button("Say so")), says("It does not"), says("100 % of it shows"))
	do(t, ctx, "is noted, and taken back", says("Hawk-moth is seen, and is to be hidden"), changes(button("Take back")), gone("is to be hidden"))
	assert.Empty(t, problems(t, ctx, id))
	do(t, ctx, "a hand of one's own", chromedp.Navigate(p.URL+"/card/"+id+"/register"), css(".stratum"), button("Hand"), says("Your own numbers"), typeInto("By eye, ± (in)", "0.014"), chromedp.KeyEvent("\t"),
		waitFor(`fetch("/api/fitting").then(r=>r.json()).then(f=>Math.abs((f.hands?.eye?.shift ?? 0) - 0.3556) < 0.01)`))
}
