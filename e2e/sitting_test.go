package e2e

import (
	"context"
	"fmt"
	"net/http"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// next waits until the next step is shown after doing something, by its number and title.
func next(t testing.TB, ctx context.Context, what step) {
	t.Helper()
	// The number of what is done, and not that of the step at hand: with another ink the rest may come in
	// another order, and then a step is followed by one of a lower number.
	done := `(document.querySelector(".work").innerText.match(/(\d+) of \d+ done/) ?? ["", "none"])[1]`
	was := read[string](t, ctx, done)
	do(t, ctx, "after "+was+" done", what, waitFor(fmt.Sprintf(`%s !== %q || /All steps/.test(document.body.innerText)`, done, was)))
}

// A run of twelve beetle cards in four colourways and one moth, on a window as large as a
// tablet's: the cut list printed, sheets taken out once, followed to the end with another ink
// and a step left out; the card is changed meanwhile and the run keeps to what it began with;
// the figures stand beside those of doing it card by card; a second run begins with nothing
// ticked and goes by the person's own times.
func TestARunOfTwelveInFourColourways(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1024, 768)
	const sitting = `fetch("/api/cards/five-beetles/sitting").then(r=>r.json())`
	do(t, ctx, "at the cut", chromedp.Navigate(p.URL+"/card/five-beetles/cut"), says("Whole sheets for one card"), typeInto("Cards in one sitting", "12"), says("for 12 cards"))
	do(t, ctx, "a sort for each colourway", begins("Sitting: 12"), button("One sort for each colourway"), seen(`fieldset[aria-label="Heather"]`))
	do(t, ctx, "laid out", waitFor(`!document.querySelector("[aria-busy=true]")`))
	axe(t, ctx, "the sitting")
	do(t, ctx, "four of them", button("Take sort 5 away"), none(`fieldset[aria-label="Heather"]`), typeInto("Cards of sort 3", "3"), typeInto("Cards of sort 4", "3"))
	do(t, ctx, "and a moth", tick("Moth night"), button("Close"), says("for 13 cards"), says("card by card, each from fresh sheets"))
	assert.Equal(t, 13, read[int](t, ctx, sitting+`.then(s=>s.cards.reduce((n,c)=>n+c.copies,0))`))
	assert.True(t, strings.HasPrefix(string(get(t, p.URL+"/api/cards/five-beetles/cutting.pdf")), "%PDF"))
	assert.Contains(t, string(get(t, p.URL+"/api/cards/five-beetles/cutting.csv")), "Moth night: ", "the other card's pieces are called by its name")
	do(t, ctx, "cut and taken out, once", waitFor(`document.querySelector(".work, main") && [...document.querySelectorAll("button")].some(b => b.innerText === "I cut these")`),
		button("I cut these"), button("Take them out"), says("Cut, and taken out of the stores on"))
	stock := read[string](t, ctx, `fetch("/api/cards/five-beetles/cutting").then(r=>r.json()).then(c=>c.stocks.find(s=>s.taken).stock)`)
	again, err := http.Post(p.URL+"/api/cards/five-beetles/cutting/taken", "application/json", strings.NewReader(fmt.Sprintf(`{"stock":%q}`, stock)))
	require.NoError(t, err)
	assert.Equal(t, http.StatusConflict, again.StatusCode, "nothing is taken twice")
	_ = again.Body.Close()

	do(t, ctx, "at work", chromedp.Navigate(p.URL+"/card/five-beetles/work"), says("Step 1 of"), says("on 12 cards"), says("Card by card it would be"), says("Usual times, not yet your own."))
	axe(t, ctx, "a sitting at work")
	type times struct {
		Setups, Washes int
		Wall           float64
	}
	both := read[struct{ Run, Alone times }](t, ctx, sitting+`.then(s=>({Run:s.time.run,Alone:s.alone}))`)
	assert.Less(t, both.Run.Setups, both.Alone.Setups)
	assert.LessOrEqual(t, both.Run.Washes, both.Alone.Washes)
	assert.Less(t, both.Run.Wall, both.Alone.Wall)
	steps := read[int](t, ctx, sitting+`.then(s=>s.steps.length)`)

	// To the first print, which is done with another ink; the next is left out.
	for range steps {
		if read[bool](t, ctx, `!!document.querySelector('[aria-label="Ink really used"]')`) {
			break
		}
		next(t, ctx, css(`.work h1 ~ div button`))
	}
	do(t, ctx, "all is kept", says("Saved, change"), eval(`document.activeElement?.blur()`))
	assert.Eventually(t, func() bool {
		return read[int](t, ctx, sitting+`.then(s=>s.run.done.length)`) == read[int](t, ctx, `Number(document.body.innerText.match(/(\d+) of \d+ done/)[1])`)
	}, 30*time.Second, time.Second/10)
	before := read[string](t, ctx, sitting+`.then(s=>s.now.step+" of "+s.steps.length)`)
	do(t, ctx, "another ink", pickFrom("Ink really used", "Bracken, soft"), waitFor(`document.querySelector('[aria-label="Ink really used"]').selectedOptions[0].text === "Bracken, soft"`))
	assert.Equal(t, before, read[string](t, ctx, sitting+`.then(s=>s.now.step+" of "+s.steps.length)`), "steps keep their numbers")
	assert.Equal(t, 1, read[int](t, ctx, sitting+`.then(s=>s.run.used.length)`))
	next(t, ctx, css(`.work h1 ~ div button`))
	do(t, ctx, "the bench stands so", seen(".standing"), css(".standing summary"), says("Bracken, soft on it"))
	axe(t, ctx, "how the bench stands")
	next(t, ctx, button("Leave it out"))

	// The card is changed meanwhile: the run goes on as it was, and says so.
	v := read[int](t, ctx, `fetch("/api/cards/five-beetles").then(r=>r.json()).then(v=>v.version)`)
	status := read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/five-beetles/edits",{method:"POST",headers:{"Content-Type":"application/json","If-Match":'"%d"'},body:JSON.stringify({edits:[{remove:{element:"s1"}}]})}).then(r=>r.status)`, v))
	require.Equal(t, 200, status)
	do(t, ctx, "told so", chromedp.Navigate(p.URL+"/card/five-beetles/work"), says("The card was changed since this run began"), says("gone: "))
	assert.Equal(t, steps, read[int](t, ctx, sitting+`.then(s=>s.steps.length)`), "the run keeps its card")
	axe(t, ctx, "a run whose card was changed")

	// A step taken back after what followed is told.
	first := read[string](t, ctx, sitting+`.then(s=>JSON.stringify(s.steps[0].id))`)
	read[int](t, ctx, fmt.Sprintf(`fetch("/api/cards/five-beetles/run/done",{method:"POST",headers:{"Content-Type":"application/json"},body:JSON.stringify({done:false,steps:[%s]})}).then(r=>r.status)`, first))
	do(t, ctx, "to the end", chromedp.Navigate(p.URL+"/card/five-beetles/work"), says("Step 1 of"))
	for range steps + 1 {
		if read[bool](t, ctx, `/All steps are done/.test(document.body.innerText)`) {
			break
		}
		next(t, ctx, css(`.work h1 ~ div button`))
	}
	do(t, ctx, "all done, planned beside as it went", says("All steps are done"), says("As it went"), says("left out"), says("Bracken, soft"))
	axe(t, ctx, "a run that is done")

	do(t, ctx, "the next day", button("Begin another run"), says("Step 1 of"), gone("The card was changed since this run began"))
	assert.Less(t, read[int](t, ctx, sitting+`.then(s=>s.steps.length)`), steps, "another run makes the card as it is now")
	assert.Equal(t, 1, read[int](t, ctx, sitting+`.then(s=>s.past.filter(p=>p.ended && p.left===1 && p.other===1).length)`), "the first run is remembered")
	assert.True(t, strings.HasPrefix(string(get(t, p.URL+"/api/cards/five-beetles/sheet.pdf")), "%PDF"))
}
