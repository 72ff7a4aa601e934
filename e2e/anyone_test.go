package e2e

import (
	"archive/tar"
	"compress/gzip"
	"errors"
	"fmt"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// unpacked makes the Linux archive as it is given away and unpacks it, and nothing else, into
// an empty folder. It returns that and the archive's own folder in it.
func unpacked(t *testing.T) (empty, folder string) {
	out := t.TempDir()
	build := exec.Command("go", "run", "./tools/dist", "-only", "linux/amd64", "-out", out)
	build.Dir = root(t)
	said, err := build.CombinedOutput()
	require.NoError(t, err, "%s", said)
	archives, err := filepath.Glob(filepath.Join(out, "*.tar.gz"))
	require.NoError(t, err)
	require.Len(t, archives, 1)
	f, err := os.Open(archives[0])
	require.NoError(t, err)
	defer f.Close()
	z, err := gzip.NewReader(f)
	require.NoError(t, err)
	empty = t.TempDir()
	for r := tar.NewReader(z); ; {
		h, err := r.Next()
		if errors.Is(err, io.EOF) {
			break
		}
		require.NoError(t, err)
		to := filepath.Join(empty, h.Name)
		folder = filepath.Dir(h.Name)
		require.NoError(t, os.MkdirAll(filepath.Dir(to), 0o755))
		data, err := io.ReadAll(r)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(to, data, os.FileMode(h.Mode)))
	}
	return empty, folder
}

// TestInAnEmptyRoot: on a system that holds nothing but the unpacked Linux archive (no Go,
// no Node, no libraries, no folder for passing files), the program starts and someone's
// first card comes to its printed sheet; the browser stands outside.
func TestInAnEmptyRoot(t *testing.T) {
	t.Parallel()
	empty, folder := unpacked(t)
	licences, err := os.ReadFile(filepath.Join(empty, folder, "LICENCES.txt"))
	require.NoError(t, err)
	for _, part := range []string{"The Go language", "modernc.org/sqlite", "github.com/gin-gonic/gin", "react ", "@chakra-ui/react", "three ", "@fontsource/atkinson-hyperlegible-next"} {
		assert.Contains(t, string(licences), part)
	}
	readme, err := os.ReadFile(filepath.Join(empty, folder, "READ ME.txt"))
	require.NoError(t, err)
	assert.NotContains(t, string(readme), "{{")

	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	port := l.Addr().(*net.TCPAddr).Port
	require.NoError(t, l.Close())
	p := &program{t: t, bin: "/" + folder + "/ochrestone", args: []string{"serve", "--port", fmt.Sprint(port)}, URL: fmt.Sprintf("http://127.0.0.1:%d", port)}
	p.dress = func(c *exec.Cmd) {
		c.Env, c.Dir = []string{"HOME=/home/me"}, "/"
		c.SysProcAttr = &syscall.SysProcAttr{Chroot: empty}
		if os.Getuid() != 0 { // a root of one's own
			c.SysProcAttr.Cloneflags = syscall.CLONE_NEWUSER
			c.SysProcAttr.UidMappings = []syscall.SysProcIDMap{{ContainerID: 0, HostID: os.Getuid(), Size: 1}}
			c.SysProcAttr.GidMappings = []syscall.SysProcIDMap{{ContainerID: 0, HostID: os.Getgid(), Size: 1}}
		}
	}
	p.run()
	t.Cleanup(p.stop)
	fromADrawing(t, p)
	assert.FileExists(t, filepath.Join(empty, "home", "me", ".local", "share", "ochrestone", "ochrestone.db"), "where this system keeps data")
	assert.NotEmpty(t, get(t, p.URL+"/api/data/backup.db"), "a backup needs no folder for passing files")
	assert.NotEmpty(t, get(t, p.URL+"/api/data/everything.zip"))
	assert.Contains(t, string(get(t, p.URL+"/api/about")), strings.TrimPrefix(folder, "ochrestone-"))
}

// TestASecondStart: it finds the one that runs with the same data and says where; with other
// data it is another program, on a port of its own; and a note left by one that was ended hard
// keeps nobody out.
func TestASecondStart(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	data := filepath.Join(dir, "own.db")
	p := start(t, "serve", data)
	second := func(data string) string {
		c := exec.Command(p.bin, "serve", "--data", data)
		c.Env = append(os.Environ(), "PORT=")
		var out strings.Builder
		c.Stdout, c.Stderr = &out, &out
		require.NoError(t, c.Start())
		ended := make(chan error, 1)
		go func() { ended <- c.Wait() }()
		select {
		case <-ended:
		case <-time.After(6 * time.Second):
			require.NoError(t, c.Process.Signal(os.Interrupt))
			<-ended
		}
		return out.String()
	}
	assert.Contains(t, second(data), "runs already, at "+p.URL)
	other := second(filepath.Join(dir, "other.db"))
	assert.NotContains(t, other, "already")
	assert.Contains(t, other, "is at http://127.0.0.1:")
	require.NoError(t, p.cmd.Process.Kill())
	_ = p.cmd.Wait()
	assert.FileExists(t, data+".at", "ended hard, it left its note")
	assert.NotContains(t, second(data), "already")
	assert.NoFileExists(t, data+".at", "ended softly, it takes it away")
}

// TestAStarterShelf: someone with nothing measured begins with usual values, marked as such,
// and needs inks and a set for a first card; what they measured since is not put back.
func TestAStarterShelf(t *testing.T) {
	t.Parallel()
	p := start(t, "serve", filepath.Join(t.TempDir(), "own.db"))
	ctx := browser(t, 1280, 800)
	do(t, ctx, "an empty bench", chromedp.Navigate(p.URL), says("First, tell Ochrestone what you own"), button("Begin with a starter shelf"), gone("Begin with a starter shelf"))
	axe(t, ctx, "the bench with a starter shelf")
	do(t, ctx, "the cardstock", chromedp.Navigate(p.URL+"/stores/cardstock"), says("White card, 110 lb (usual values, measure yours)"))
	axe(t, ctx, "usual cardstock")
	shot(t, ctx, "starter")
	do(t, ctx, "a first card", chromedp.Navigate(p.URL), seen(`input[name=title]`), set(`input[name=title]`, "First"), button("Make the card"), seen(`[aria-label="Strata"]`), chromedp.KeyEvent("5"), says("in thick"))
}

// TestLedThroughAFirstCard: someone with nothing is led by the page from empty stores to the
// printed sheet, on things of their own; the guide is shut at once by who wants none.
func TestLedThroughAFirstCard(t *testing.T) {
	t.Parallel()
	p := start(t, "serve", filepath.Join(t.TempDir(), "own.db"))
	ctx := browser(t, 1280, 800)
	led := func(n int, title string) step { return says(fmt.Sprintf("A first card, %d of 8: %s.", n, title)) }
	do(t, ctx, "an empty bench", chromedp.Navigate(p.URL), led(1, "What you cut from"), button("Begin with a starter shelf"), led(2, "Your inks"))
	axe(t, ctx, "led")
	shot(t, ctx, "led")
	do(t, ctx, "to the inks", chromedp.Click(chromedp.Search(`//aside//a[.="Inks"]`)), seen(`input[name=name]`))
	for _, c := range [][2]string{{"Plum, pale", "#e3cfe0"}, {"Plum, full", "#7f5480"}, {"Wheat, full", "#b98f34"}, {"Wheat, pale", "#f2e3b4"}, {"Night, deep", "#20242b"}} {
		do(t, ctx, c[0], set(`input[name=name]`, c[0]), set(`input[name=family]`, c[0][:4]), set(`input[name=dry]`, c[1]), button("Add the ink"), seen(fmt.Sprintf(`[aria-label^=%q]`, c[0])))
	}
	drawing := filepath.Join(t.TempDir(), "lantern.svg")
	require.NoError(t, os.WriteFile(drawing, []byte(lantern), 0o600))
	do(t, ctx, "to a set", led(3, "A set"), chromedp.Click(chromedp.Search(`//aside//a[.="Sets"]`)), seen(`input[type=file]`), fetched(), chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{drawing}), says("lantern.svg"), button("Import the drawing"), led(4, "A card"))
	do(t, ctx, "to a card", chromedp.Click(chromedp.Search(`//aside//a[.="The bench"]`)), seen(`input[name=title]`), set(`input[name=title]`, "For the lamp"), button("Make the card"), led(5, "Its inks"))
	shot(t, ctx, "led-card")
	do(t, ctx, "its inks", chromedp.Click(chromedp.Search(`//aside//a[.="Inks of the card"]`)), button("Suggest inks"), seen(`button[title^="Weakest pair"]`), css(`button[title^="Weakest pair"]`), says("Saved, change 2"))
	do(t, ctx, "the sheet: nothing would spoil it, and a card of that size has its envelope", led(8, "The sheet for the bench"))
	pdf := read[string](t, ctx, `document.querySelector("aside a").getAttribute("href")`)
	assert.True(t, strings.HasPrefix(string(get(t, p.URL+pdf)), "%PDF-"))
	do(t, ctx, "printed, the guide is done", chromedp.Click(chromedp.CSS(`aside a`)), none("aside[aria-label='A first card']"), chromedp.Reload(), says("From your drawer"), none("aside[aria-label='A first card']"))

	other := browser(t, 1280, 800)
	q := start(t, "serve", filepath.Join(t.TempDir(), "none.db"))
	do(t, other, "shut at once", chromedp.Navigate(q.URL), led(1, "What you cut from"), button("Shut the guide"), none("aside[aria-label='A first card']"), chromedp.Reload(), says("First, tell Ochrestone what you own"), none("aside[aria-label='A first card']"))
	do(t, other, "called again from the keys and words", chromedp.Click(chromedp.CSS(`[aria-label="Keys and words"]`)), button("Lead me through a card"), led(1, "What you cut from"))
}
