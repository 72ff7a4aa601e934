package main

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/adrg/xdg"
	"github.com/pkg/browser"

	"ochrestone/server"
)

// version is set when the program is built to be given away.
var version = "development"

// usualData is the data file when none is named: one in a folder "data" beside which the
// program is started, as in its source, else where this system keeps what programs store.
func usualData(isDemo bool) string {
	file := "ochrestone.db"
	if isDemo {
		file = "demo.db"
	}
	if near := filepath.Join("data", file); exists(near) {
		return near
	}
	return filepath.Join(xdg.DataHome, "ochrestone", file)
}

func exists(path string) bool {
	_, err := os.Stat(path)
	return err == nil
}

func absolute(path string) string {
	if full, err := filepath.Abs(path); err == nil {
		return full
	}
	return path
}

// where is the note beside a data file that says at which address a program serves it.
func where(data string) string { return data + ".at" }

// sayWhere leaves that note; what comes back takes it away. That it cannot be written, as
// beside a file on a full disk, keeps nobody from working.
func sayWhere(data, url string) (forget func()) {
	_ = os.WriteFile(where(data), []byte(url+"\n"), 0o600)
	return func() { _ = os.Remove(where(data)) }
}

// running is the address of a program that serves a data file, if one does: it is asked, as
// a note may be left from one that was ended hard.
func running(ctx context.Context, data string) (url string, is bool) {
	note, err := os.ReadFile(where(data))
	url = strings.TrimSpace(string(note))
	if err != nil || !strings.HasPrefix(url, "http://127.0.0.1:") {
		return "", false
	}
	ctx, stop := context.WithTimeout(ctx, 2*time.Second)
	defer stop()
	r, err := http.NewRequestWithContext(ctx, http.MethodGet, url+"/api/about", nil)
	if err != nil {
		return "", false
	}
	res, err := http.DefaultClient.Do(r)
	if err != nil {
		return "", false
	}
	defer res.Body.Close()
	var a server.About
	if json.NewDecoder(io.LimitReader(res.Body, 1<<16)).Decode(&a) != nil || a.Name != server.Name {
		return "", false
	}
	mine, err := os.Stat(data)
	if err != nil {
		return "", false
	}
	its, err := os.Stat(a.Data)
	return url, err == nil && os.SameFile(mine, its)
}

// show opens the page in the browser of this machine; where there is none the address
// stands on the screen.
func show(url string, open bool) {
	if !open {
		return
	}
	browser.Stdout, browser.Stderr = io.Discard, io.Discard
	if err := browser.OpenURL(url); err != nil {
		fmt.Printf("No browser could be opened from here: go to %s in yours.\n", url)
	}
}

// holdWindow keeps what was said on the screen when the window would close with the program.
func holdWindow() {
	if st, err := os.Stdin.Stat(); err != nil || st.Mode()&os.ModeCharDevice == 0 {
		return
	}
	fmt.Fprintln(os.Stderr, "Press Enter to close.")
	_, _ = bufio.NewReader(os.Stdin).ReadString('\n')
}
