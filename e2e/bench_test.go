package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// The page's own speed, from the browser's clock: the first picture, a tap to its
// picture, a drag's frames, a drop to its picture. Run alone on the machine.

// painted is a script that waits until what was done is on the screen: the frame
// after the next one has begun.
const painted = `const painted = () => new Promise(r => requestAnimationFrame(() => { const c = new MessageChannel(); c.port1.onmessage = () => r(performance.now()); c.port2.postMessage(0) }));`

// profile sums what React's profiler told since the last call; a build without it
// tells nothing.
const profile = `(() => { const p = window.__profile ?? []; window.__profile = []; return [p.length, p.reduce((n, x) => n + x.actual, 0)] })()`

func BenchmarkPage(b *testing.B) {
	if testing.Short() {
		b.Skip("needs a browser")
	}
	p := start(b, "demo", filepath.Join(b.TempDir(), "demo.db"))
	ctx := browser(b, 1280, 800)
	open := func(path string) {
		do(b, ctx, path, chromedp.Navigate(p.URL+path), seen(".stratum"), chromedp.Sleep(800*time.Millisecond))
	}
	// The thing being made is on the table: the frame after its outlines are there.
	watch := `new MutationObserver((_, o) => { if (document.querySelector(".place svg path")) { o.disconnect(); requestAnimationFrame(() => setTimeout(() => { window.__useful = performance.now() })) } }).observe(document, { childList: true, subtree: true })`
	do(b, ctx, "watch", chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: watch})
		return err
	}))
	b.Run("first picture", func(b *testing.B) {
		for range b.N {
			do(b, ctx, "away", chromedp.Navigate("about:blank"))
			do(b, ctx, "open", chromedp.Navigate(p.URL+"/card/lamp-sitters/pieces"), seen(".stratum"))
			useful := read[float64](b, ctx, "window.__useful")
			b.ReportMetric(useful, "ms-useful-paint")
			b.ReportMetric(0, "ns/op")
		}
	})
	taps := func(b *testing.B, path string) {
		open(path)
		read[[]float64](b, ctx, profile)
		all := read[[]float64](b, ctx, `(async () => {`+painted+`
			const all = [];
			for (let i = 0; i < 24; i++) {
				const s = [...document.querySelectorAll(".stratum")];
				await painted();
				const from = performance.now();
				s[i % s.length].dispatchEvent(new MouseEvent("click", { bubbles: true }));
				all.push(await painted() - from);
			}
			return all })()`)
		told(b, ctx, all, "tap")
	}
	for _, at := range []string{"pieces", "inks", "register", "front", "depth", "cut", "work"} {
		b.Run("tap/moth/"+at, func(b *testing.B) {
			for range b.N {
				taps(b, "/card/lamp-sitters/"+at)
			}
		})
	}
	drag := func(b *testing.B, path, sel string) {
		open(path)
		at := read[[]float64](b, ctx, fmt.Sprintf(`(() => { const r = document.querySelector(%q).getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`, sel))
		read[[]float64](b, ctx, profile)
		// The moves are made in the page, one a frame, as a hand's are handed to it.
		all := read[[]float64](b, ctx, fmt.Sprintf(`(async () => { const [x, y] = [%g, %g];
			const el = document.elementFromPoint(x, y);
			const send = (type, dx, dy) => el.dispatchEvent(new PointerEvent(type, { bubbles: true, clientX: x + dx, clientY: y + dy, pointerId: 1, button: 0, buttons: 1, isPrimary: true }));
			const frame = () => new Promise(r => requestAnimationFrame(r));
			Element.prototype.setPointerCapture = () => {};
			send("pointerdown", 0, 0);
			await frame(); await frame();
			const all = []; let last = await frame();
			for (let i = 1; i <= 90; i++) {
				send("pointermove", 40 * Math.sin(i / 14), 30 * Math.sin(i / 9));
				const now = await frame();
				all.push(now - last); last = now;
			}
			const from = performance.now();
			send("pointerup", 0, 0);
			await frame();
			window.__drop = performance.now() - from;
			return all })()`, at[0], at[1]))
		told(b, ctx, all, "frame")
	}
	b.Run("drag/moth", func(b *testing.B) {
		for range b.N {
			drag(b, "/card/lamp-sitters/front", `svg[aria-label^="The front of the card"] g[style*="move"] path`)
		}
	})
	b.Run("cut/moth", func(b *testing.B) {
		for range b.N {
			drag(b, "/card/lamp-sitters/depth", `[data-cut=move]`)
		}
	})
	full(b, p.URL)
	b.Run("cut/60 elements", func(b *testing.B) {
		for range b.N {
			drag(b, "/card/five-beetles/depth", `[data-cut=move]`)
		}
	})
	for _, at := range []string{"front", "depth", "work"} {
		b.Run("tap/60 elements/"+at, func(b *testing.B) {
			for range b.N {
				taps(b, "/card/five-beetles/"+at)
			}
		})
	}
	b.Run("drag/60 elements", func(b *testing.B) {
		for range b.N {
			drag(b, "/card/five-beetles/front", `svg[aria-label^="The front of the card"] g[style*="move"]:last-of-type path`)
		}
	})
}

// told reports the middle and the worst of a list of milliseconds.
func told(b *testing.B, ctx context.Context, all []float64, what string) {
	slices.Sort(all)
	b.ReportMetric(all[len(all)/2], "ms-middle-"+what)
	b.ReportMetric(all[len(all)*95/100], "ms-p95-"+what)
	b.ReportMetric(all[len(all)-1], "ms-worst-"+what)
	b.ReportMetric(0, "ns/op")
	if p := read[[]float64](b, ctx, profile); p[0] > 0 {
		b.ReportMetric(p[1]/float64(len(all)), "ms-react/"+what)
		b.ReportMetric(p[0]/float64(len(all)), "commits/"+what)
	}
}

// full brings the beetles to sixty elements.
func full(b *testing.B, url string) {
	at := url + "/api/cards/five-beetles"
	var v struct {
		Version int
		Card    struct {
			Elements []struct {
				ID    string
				Image *struct{} `json:",omitempty"`
			}
		}
	}
	r, err := http.Get(at)
	require.NoError(b, err)
	require.NoError(b, json.NewDecoder(r.Body).Decode(&v))
	_ = r.Body.Close()
	var of []string
	for _, e := range v.Card.Elements {
		if e.Image != nil {
			of = append(of, e.ID)
		}
	}
	var edits []map[string]any
	for n := len(v.Card.Elements); n < 60; n++ {
		edits = append(edits, map[string]any{"repeat": map[string]any{"element": of[n%len(of)]}})
	}
	body, _ := json.Marshal(map[string]any{"edits": edits})
	q, _ := http.NewRequest(http.MethodPost, at+"/edits", bytes.NewReader(body))
	q.Header.Set("Content-Type", "application/json")
	q.Header.Set("If-Match", fmt.Sprintf(`"%d"`, v.Version))
	a, err := http.DefaultClient.Do(q)
	require.NoError(b, err)
	defer a.Body.Close()
	require.Equal(b, http.StatusOK, a.StatusCode)
}
