package e2e

import (
	"context"
	"fmt"
	"time"

	"github.com/chromedp/chromedp"
)

// until asks the page every few hundredths of a second whether an expression is true, as long as
// the test has. It asks by the clock and not before each picture: a page on a busy machine draws
// few, and one that asks sixty times a second keeps the machine busy.
func until(js string) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		_, err := chromedp.Poll[bool](js, chromedp.WithPollingInterval(30*time.Millisecond), chromedp.WithPollingTimeout(0))(ctx, tg)
		return chromedp.Void{}, err
	}
}

// waitFor waits until an expression on the page is true, and names it if it never is.
func waitFor(js string) step { return named("wait for "+js, until(js)) }

// says waits until the page holds the words.
func says(words string) step {
	return named(fmt.Sprintf("wait for the words %q", words), until(fmt.Sprintf("document.body.innerText.includes(%q)", words)))
}

// gone waits until the page no longer holds the words.
func gone(words string) step {
	return named(fmt.Sprintf("wait until %q is gone", words), until(fmt.Sprintf("!document.body.innerText.includes(%q)", words)))
}

// none waits until nothing is found by a selector.
func none(sel string) step {
	return named("wait until there is no "+sel, until(fmt.Sprintf("!document.querySelector(%q)", sel)))
}

// seen waits until what a selector finds can be seen.
func seen(sel string) step { return named("see "+sel, chromedp.WaitVisible(chromedp.CSS(sel))) }

// named says what failed.
func named(what string, s step) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		_, err := s(ctx, tg)
		if err != nil {
			err = fmt.Errorf("%s: %w", what, err)
		}
		return chromedp.Void{}, err
	}
}

// steps are several one after another.
func steps(all ...step) step {
	return func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		for _, s := range all {
			if _, err := s(ctx, t); err != nil {
				return chromedp.Void{}, err
			}
		}
		return chromedp.Void{}, nil
	}
}

// css clicks on the first that a selector finds, once it stands still.
func css(sel string) step {
	return steady(fmt.Sprintf("[document.querySelector(%q)].filter(Boolean)", sel), chromedp.Click(chromedp.CSS(sel), chromedp.NodeVisible))
}

func button(text string) step {
	return press(`//button[normalize-space(.)="` + text + `"]`)
}

// press clicks on the first that an XPath finds, once it stands still.
func press(xpath string) step {
	return steady(fmt.Sprintf("((found) => Array.from({length: found.snapshotLength}, (_, i) => found.snapshotItem(i)))(document.evaluate(%q, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE))", xpath), chromedp.Click(chromedp.Search(xpath), chromedp.NodeVisible))
}

// steady clicks on what is found once it stands still: a page that is drawn anew as the mouse goes down
// moves the thing from under it, and the click is lost. One that never came to the thing, where the same
// page is still there, is made again, as a hand would.
func steady(found string, click step) step {
	still := fmt.Sprintf(`(() => {
		for (const e of %s) {
			const r = e.getBoundingClientRect();
			if (!r.width || e.disabled) continue;
			const at = [r.x, r.y, r.width, document.body.innerText.length].join(), was = globalThis.stoodAt ?? {at: "", times: 0};
			globalThis.stoodAt = {at, times: was.at === at ? was.times + 1 : 0};
			if (globalThis.stoodAt.times <= 3) return false;
			globalThis.clicked = false;
			// What opens or shuts as it is touched may be gone before the click; of all else only that counts.
			const touched = e.hasAttribute("aria-haspopup") || e.getAttribute("role") === "menuitem";
			for (const kind of touched ? ["click", "pointerdown"] : ["click"]) e.addEventListener(kind, () => { globalThis.clicked = true; }, {capture: true, once: true});
			return true;
		}
		return false;
	})()`, found)
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		for range 4 {
			if v, err := steps(waitFor(still), click)(ctx, tg); err != nil {
				return v, err
			}
			if missed, err := chromedp.Evaluate[bool]("globalThis.clicked === false")(ctx, tg); err != nil || !missed {
				break
			}
		}
		return chromedp.Void{}, nil
	}
}

// still waits until nothing on the page moves.
func still() step {
	return waitFor(`document.getAnimations().every(a => a.playState !== "running")`)
}

// fetched waits until the page has fetched nothing for a while: what it loads ahead is there.
func fetched() step {
	return waitFor(`document.readyState === "complete" && performance.now() - Math.max(0, ...performance.getEntriesByType("resource").map(r => r.responseEnd)) > 400`)
}

// leads does something that leads to another page, and waits until that is there.
func leads(what step) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		none := chromedp.Void{}
		if _, err := chromedp.Evaluate[any]("window.left = true; null")(ctx, tg); err != nil {
			return none, fmt.Errorf("mark a page: %w", err)
		}
		if _, err := what(ctx, tg); err != nil {
			return none, err
		}
		for {
			// While pages change there is none to ask.
			if there, err := chromedp.Evaluate[bool](`!window.left && document.readyState === "complete"`)(ctx, tg); err == nil && there {
				return none, nil
			}
			select {
			case <-ctx.Done():
				return none, fmt.Errorf("wait for another page: %w", ctx.Err())
			case <-time.After(20 * time.Millisecond):
			}
		}
	}
}

// settled waits until the page has drawn what it has been told, with its fonts.
func settled() step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		_, err := chromedp.Evaluate[bool](`document.fonts.ready.then(() => new Promise(r => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => r(true), 0)))))`, chromedp.EvalAwaitPromise)(ctx, tg)
		return chromedp.Void{}, err
	}
}

// changes does something and waits until it is saved as another change of the card.
func changes(what step) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		number := `Number((document.body.innerText.match(/Saved, change (\d+)/) ?? [0, -1])[1])`
		was, err := chromedp.Evaluate[int](number)(ctx, tg)
		if err != nil {
			return chromedp.Void{}, err
		}
		if _, err := what(ctx, tg); err != nil {
			return chromedp.Void{}, err
		}
		return named(fmt.Sprintf("wait for a change after %d", was), until(fmt.Sprintf("%s > %d", number, was)))(ctx, tg)
	}
}
