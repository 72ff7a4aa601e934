package e2e

import (
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A field for a length takes sums and pasted forms, says what it understood, steps by a
// sixteenth of an inch or half a millimetre, and keeps what it cannot read.
func TestALengthAsPeopleTypeIt(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	x := `[...document.querySelectorAll(".field")].find(l => l.textContent.startsWith("Centre, across")).querySelector("input")`
	is := func(v string) step { return seen(`input[value="` + v + `"]`) }
	do(t, ctx, "choose the moth", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("The front"), css(".place h1"),
		eval(`document.querySelectorAll(".stratum")[4].dispatchEvent(new MouseEvent("click", {bubbles: true}))`), says("Centre, across"))
	do(t, ctx, "a sum", changes(typeInto("Centre, across", "2 1/4 - 1/16")), is("2 3⁄16"), says("2 1/4 - 1/16 is 2 3⁄16 in"))
	do(t, ctx, "another unit", changes(typeInto("Centre, across", "57,15 mm")), is("2 1⁄4"), says("57,15 mm is 2 1⁄4 in"))
	do(t, ctx, "an arrow key", eval(x+`.focus()`), changes(chromedp.KeyEvent(kb.ArrowUp)), is("2 5⁄16"), changes(chromedp.KeyEvent(kb.ArrowDown)), is("2 1⁄4"))
	do(t, ctx, "a size is not a length", typeInto("Centre, across", "5 1/2x4"), says("two lengths where one goes"))
	assert.Equal(t, "5 1/2x4", read[string](t, ctx, x+".value"))
	quiet(ctx)
	do(t, ctx, "in millimetres", changes(typeInto("Centre, across", "57.2 mm")), eval(`document.activeElement.blur()`), button("inches"), says("Centre, across (mm)"), is("57.2"),
		eval(x+`.focus()`), changes(chromedp.KeyEvent(kb.ArrowUp)), is("57.5"))
}

// The menu of files is worked by keys alone: opened, walked and closed, the focus comes
// back to its button.
func TestTheMenuOfFilesByKeys(t *testing.T) {
	t.Parallel()
	p := start(t, "demo", filepath.Join(t.TempDir(), "demo.db"))
	ctx := browser(t, 1280, 800)
	lit := func(n string) step { return seen(`[role=menuitem]:nth-child(` + n + `)[data-highlighted]`) }
	do(t, ctx, "open it", chromedp.Navigate(p.URL+"/card/lamp-sitters/front"), says("Print and save"), css(".place h1"), seen(`button[aria-haspopup=menu]`),
		eval(`document.querySelector("button[aria-haspopup=menu]").focus()`), settled(), chromedp.KeyEvent(kb.ArrowDown), lit("1"))
	do(t, ctx, "walk it", chromedp.KeyEvent(kb.End), lit("14"), chromedp.KeyEvent(kb.ArrowUp), lit("13"))
	axeOf(t, ctx, "the menu of files", "[role=menu]")
	do(t, ctx, "close it", chromedp.KeyEvent(kb.Escape), seen(`button[aria-haspopup=menu]:focus`), seen(`button[aria-expanded=false][aria-haspopup=menu]`))
}
