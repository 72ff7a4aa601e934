package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// program is the built program, running.
type program struct {
	t     testing.TB
	bin   string
	args  []string
	URL   string
	cmd   *exec.Cmd
	dress func(*exec.Cmd) // how the command is started, if not plainly
	out   bytes.Buffer
}

func root(t testing.TB) string {
	wd, err := os.Getwd()
	require.NoError(t, err)
	return filepath.Dir(wd)
}

// demoFile is a data file of the demo as the program leaves it after a look at the bench, so that
// not every test waits until all its cards are worked out; made by the first that asks.
var demoFile struct {
	sync.Once
	doc []byte
}

func ofTheDemo(t testing.TB) []byte {
	demoFile.Do(func() {
		data := filepath.Join(t.TempDir(), "of-all.db")
		p := begin(t, "demo", data)
		require.Eventually(t, func() bool {
			r, err := http.Get(p.URL + "/api/bench?n=0")
			if err != nil {
				return false
			}
			defer r.Body.Close()
			var b struct{ Stale int }
			return json.NewDecoder(r.Body).Decode(&b) == nil && b.Stale == 0
		}, time.Minute, 100*time.Millisecond)
		p.stop()
		var err error
		demoFile.doc, err = os.ReadFile(data)
		require.NoError(t, err)
	})
	return demoFile.doc
}

// start runs the built program on a free port with its own data file; that of the demo begins as
// it is after a look at the bench.
func start(t testing.TB, command, data string) *program {
	if _, err := os.Stat(data); command == "demo" && err != nil {
		require.NoError(t, os.WriteFile(data, ofTheDemo(t), 0o600))
	}
	return begin(t, command, data)
}

// begin runs the built program on a free port with a data file as it is.
func begin(t testing.TB, command, data string) *program {
	bin := filepath.Join(root(t), "bin", "ochrestone")
	if _, err := os.Stat(bin); err != nil {
		t.Fatal("bin/ochrestone is missing: run make build first")
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	port := l.Addr().(*net.TCPAddr).Port
	require.NoError(t, l.Close())
	p := &program{t: t, bin: bin, args: []string{command, "--data", data, "--port", fmt.Sprint(port)}, URL: fmt.Sprintf("http://127.0.0.1:%d", port)}
	p.run()
	t.Cleanup(p.stop)
	return p
}

func (p *program) run() {
	p.cmd = exec.Command(p.bin, p.args...)
	if p.dress != nil {
		p.dress(p.cmd)
	}
	p.cmd.Stdout, p.cmd.Stderr = &p.out, &p.out
	require.NoError(p.t, p.cmd.Start())
	require.Eventually(p.t, func() bool {
		r, err := http.Get(p.URL + "/api/state")
		if err != nil {
			return false
		}
		_ = r.Body.Close()
		return r.StatusCode == http.StatusOK
	}, 20*time.Second, 50*time.Millisecond, "the program does not answer: %s", &p.out)
}

func (p *program) stop() {
	if p.cmd.ProcessState == nil {
		_ = p.cmd.Process.Signal(os.Interrupt)
		_ = p.cmd.Wait()
	}
}

// step is a browser action that gives nothing back.
type step = chromedp.Action[chromedp.Void]

// solids lets the browser draw solids by its own software, which it does not by itself
// without a graphics card.
var solids = []chromedp.ExecAllocatorOption{chromedp.Flag("use-angle", "swiftshader"), chromedp.Flag("enable-unsafe-swiftshader", true)}

// hasty spares the browser the work of compiling for a long stay: a page of a test is left in seconds.
// What measures the page's speed does without.
var hasty = chromedp.Flag("js-flags", "--no-opt --no-maglev")

// chromium begins headless Chromium with an empty profile, which what is given back ends.
func chromium(more ...chromedp.ExecAllocatorOption) (context.Context, func(), error) {
	exe, err := exec.LookPath("chromium-headless-shell")
	if err != nil {
		return nil, nil, errors.New("the shell of Chromium is not installed: make test installs it")
	}
	profile, err := os.MkdirTemp("", "ochrestone-e2e-*")
	if err != nil {
		return nil, nil, err
	}
	opts := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(exe), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.WindowSize(1280, 800),
		chromedp.UserDataDir(profile),
		chromedp.Flag("disable-quic", true), chromedp.Flag("no-first-run", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true), chromedp.Flag("hide-scrollbars", false))
	alloc, stopAlloc := chromedp.NewExecAllocator(context.Background(), append(opts, more...)...)
	ctx, stop := chromedp.NewContext(alloc)
	end := func() {
		stop()
		stopAlloc()
		_ = os.RemoveAll(profile)
	}
	if err := chromedp.Do(ctx); err != nil {
		end()
		return nil, nil, err
	}
	return ctx, end, nil
}

// one is the Chromium that all tests share, begun by the first that asks.
var one struct {
	sync.Once
	ctx context.Context
	end func()
	err error
}

func TestMain(m *testing.M) {
	code := m.Run()
	if one.end != nil {
		one.end()
	}
	os.Exit(code)
}

// browser opens a window of headless Chromium at the design size, with cookies and storage of its
// own; any console error or uncaught exception fails the test. With options of its own it is a
// Chromium of its own.
func browser(t testing.TB, w, h int, more ...chromedp.ExecAllocatorOption) context.Context {
	var ctx context.Context
	var stop func()
	if len(more) > 0 {
		var err error
		ctx, stop, err = chromium(more...)
		require.NoError(t, err)
	} else {
		one.Do(func() {
			if _, bench := t.(*testing.B); bench {
				one.ctx, one.end, one.err = chromium()
			} else {
				one.ctx, one.end, one.err = chromium(hasty)
			}
		})
		require.NoError(t, one.err)
		ctx, stop = chromedp.NewContext(one.ctx, chromedp.WithNewBrowserContext(), chromedp.WithNewWindow(true))
	}
	ctx, late := context.WithTimeout(ctx, 700*time.Second)
	var mu sync.Mutex
	var errs []string
	var expected []string
	ctx = context.WithValue(ctx, quietKey{}, func(asked []string) {
		mu.Lock()
		defer mu.Unlock()
		// The browser tells of an answer when it comes to it, on a busy machine seconds later.
		expected = append(append(expected, "status of 422", "status of 412"), asked...)
	})
	t.Cleanup(func() {
		late()
		stop()
		mu.Lock()
		defer mu.Unlock()
		for _, e := range errs {
			if !slices.ContainsFunc(expected, func(a string) bool { return strings.Contains(e, a) }) {
				t.Errorf("console error: %s", e)
			}
		}
	})
	// A page of a test has the focus as one in front of a person has.
	focused := chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
		return err
	})
	require.NoError(t, chromedp.Do(ctx, chromedp.EmulateViewport(int64(w), int64(h)), focused))
	messages := chromedp.Console(ctx)
	go func() {
		for m, err := range messages {
			if err != nil {
				return
			}
			if m.Type == chromedp.ConsoleError || m.IsException() {
				mu.Lock()
				errs = append(errs, m.String())
				mu.Unlock()
			}
		}
	}()
	return ctx
}

type quietKey struct{}

// quiet says that the test asks for refusals: the browser's log lines about answers 412 and
// 422 do not fail it, nor do those that hold what it asks for besides. Every other error does.
func quiet(ctx context.Context, asked ...string) { ctx.Value(quietKey{}).(func([]string))(asked) }

// do runs browser actions with a limit of its own, so that a missing element
// names itself soon.
func do(t testing.TB, ctx context.Context, what string, steps ...step) {
	t.Helper()
	within(t, ctx, 90*time.Second, what, steps...)
}

// long is do for work that takes a while on a busy machine: a simulated
// picture, its outlines, its stack.
func long(t testing.TB, ctx context.Context, what string, steps ...step) {
	t.Helper()
	within(t, ctx, 400*time.Second, what, steps...)
}

func within(t testing.TB, ctx context.Context, limit time.Duration, what string, steps ...step) {
	t.Helper()
	sub, cancel := context.WithTimeout(ctx, limit)
	defer cancel()
	if err := chromedp.Do(sub, steps...); err != nil {
		// The head says which page it is, the tail what it said last: the middle is lists.
		text, _ := chromedp.Run(ctx, chromedp.Evaluate[string]("(t => location.pathname + '\\n' + (t.length < 3000 ? t : t.slice(0, 600) + '\\n[…]\\n' + t.slice(-2400)))(document.body.innerText)"))
		t.Fatalf("%s: %v\non the page:\n%s", what, err, text)
	}
}

// eval runs a script for its effect.
func eval(js string) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		_, err := chromedp.Evaluate[any]("(() => {"+js+"; return null})()")(ctx, tg)
		return chromedp.Void{}, err
	}
}

// set gives a field a value as typing would.
func set(sel, value string) step {
	return eval(fmt.Sprintf(`const e = document.querySelector(%q); e.focus(); 
		Object.getOwnPropertyDescriptor(Object.getPrototypeOf(e), "value").set.call(e, %q);
		e.dispatchEvent(new Event("input", {bubbles: true})); e.dispatchEvent(new Event("change", {bubbles: true}));`, sel, value))
}

// slide presses a key on a slider.
func slide(label, key string) step {
	return func(ctx context.Context, tg *chromedp.Target) (chromedp.Void, error) {
		if _, err := eval(fmt.Sprintf(`document.querySelector('[role=slider][aria-label=%q]').focus()`, label))(ctx, tg); err != nil {
			return chromedp.Void{}, err
		}
		return chromedp.KeyEvent(key)(ctx, tg)
	}
}

// read evaluates an expression.
func read[T any](t testing.TB, ctx context.Context, js string) T {
	t.Helper()
	v, err := chromedp.Run(ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	require.NoError(t, err, js)
	return v
}
