// Command hostile throws files and requests at a running Ochrestone that are meant
// to take it down, and says what became of it: it starts the built program on an
// empty folder, tries every case, and looks at time, memory and what was kept.
//
//	go run ./tools/hostile [-bin bin/ochrestone] [-only WORD] [-v]
//
// It ends with 0 when every case was answered within the time, the program still
// answers, its memory came back under 300 MB and nothing is half imported.
package main

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"
)

// attack is one request.
type attack struct {
	name, method, path, mime string
	body                     func() []byte
	together                 int // sent so many at once; 0 counts as 1
	most                     time.Duration
}

// Limits that must hold.
const (
	usual    = 5 * time.Second
	mostRSS  = 1024.0 // MB, at any time
	mostLeft = 300.0  // MB, at the end
)

type outcome struct {
	name   string
	status int
	took   time.Duration
	err    error
}

func main() {
	bin := flag.String("bin", "bin/ochrestone", "the built program")
	only := flag.String("only", "", "only cases whose name holds this")
	verbose := flag.Bool("v", false, "a line for every case")
	flag.Parse()
	if err := run(*bin, *only, *verbose); err != nil {
		fmt.Fprintln(os.Stderr, "hostile:", err)
		os.Exit(1)
	}
}

func run(bin, only string, verbose bool) error {
	dir, err := os.MkdirTemp("", "hostile-*")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return err
	}
	port := l.Addr().(*net.TCPAddr).Port
	l.Close()
	p := exec.Command(bin, "demo", "--data", filepath.Join(dir, "demo.db"), "--port", strconv.Itoa(port))
	var log bytes.Buffer
	p.Stderr = &log
	if err := p.Start(); err != nil {
		return err
	}
	ended := make(chan error, 1)
	go func() { ended <- p.Wait() }()
	defer func() { _ = p.Process.Kill() }()
	base := fmt.Sprintf("http://127.0.0.1:%d", port)
	if err := up(base, 20*time.Second); err != nil {
		return err
	}
	all := attacks()
	peak := 0.0
	stop := make(chan struct{})
	var watch sync.WaitGroup
	watch.Go(func() {
		for {
			select {
			case <-stop:
				return
			case <-time.After(20 * time.Millisecond):
				peak = max(peak, rss(p.Process.Pid))
			}
		}
	})
	var bad []string
	counts := map[string]int{}
	done := 0
	var slowest []outcome
	for _, a := range all {
		if !strings.Contains(a.name, only) {
			continue
		}
		for _, o := range send(base, a) {
			done++
			slowest = append(slowest, o)
			most := a.most
			if most == 0 {
				most = usual
			}
			switch {
			case o.err != nil:
				counts["no answer"]++
				bad = append(bad, fmt.Sprintf("%s: no answer: %v", o.name, o.err))
			case o.status >= 500 && o.status != http.StatusServiceUnavailable:
				counts["went wrong"]++
				bad = append(bad, fmt.Sprintf("%s: status %d", o.name, o.status))
			case o.took > most:
				counts["slow"]++
				bad = append(bad, fmt.Sprintf("%s: took %.1f s", o.name, o.took.Seconds()))
			case o.status < 300:
				counts["taken in"]++
			default:
				counts["refused in words"]++
			}
			if verbose {
				fmt.Printf("%-46s %d  %6.2f s  %5.0f MB\n", o.name, o.status, o.took.Seconds(), rss(p.Process.Pid))
			}
		}
		select {
		case err := <-ended:
			return fmt.Errorf("the program ended after %q: %v\n%s", a.name, err, tail(log.String()))
		default:
		}
	}
	close(stop)
	watch.Wait()
	if err := whole(base); err != nil {
		bad = append(bad, err.Error())
	}
	time.Sleep(500 * time.Millisecond)
	left := rss(p.Process.Pid)
	fmt.Printf("%d requests: ", done)
	for _, k := range []string{"taken in", "refused in words", "slow", "went wrong", "no answer"} {
		fmt.Printf("%d %s, ", counts[k], k)
	}
	fmt.Printf("\nmemory: most %.0f MB, %.0f MB at the end\n", peak, left)
	slices.SortFunc(slowest, func(a, b outcome) int { return int(b.took - a.took) })
	for _, o := range slowest[:min(6, len(slowest))] {
		fmt.Printf("slowest: %-46s %.2f s (%d)\n", o.name, o.took.Seconds(), o.status)
	}
	if peak > mostRSS {
		bad = append(bad, fmt.Sprintf("memory went to %.0f MB", peak))
	}
	if left > mostLeft {
		bad = append(bad, fmt.Sprintf("%.0f MB are still held", left))
	}
	for _, b := range bad {
		fmt.Println("BAD:", b)
	}
	if len(bad) > 0 {
		return fmt.Errorf("%d cases went wrong", len(bad))
	}
	return nil
}

func tail(s string) string { return s[max(0, len(s)-2000):] }

func up(base string, wait time.Duration) error {
	for end := time.Now().Add(wait); ; time.Sleep(50 * time.Millisecond) {
		r, err := http.Get(base + "/api/state")
		if err == nil {
			r.Body.Close()
			if r.StatusCode == http.StatusOK {
				return nil
			}
		}
		if time.Now().After(end) {
			return fmt.Errorf("the program does not answer: %v", err)
		}
	}
}

func send(base string, a attack) []outcome {
	body := a.body()
	n := max(1, a.together)
	out := make([]outcome, n)
	var wg sync.WaitGroup
	for i := range n {
		wg.Go(func() {
			o := outcome{name: a.name}
			begin := time.Now()
			req, err := http.NewRequest(a.method, base+a.path, bytes.NewReader(body))
			if err == nil {
				req.Header.Set("Content-Type", a.mime)
				if a.method == http.MethodPut && strings.HasPrefix(a.path, "/api/cards/") {
					req.Header.Set("If-Match", `"1"`)
				}
				client := http.Client{Timeout: 3 * time.Minute}
				var r *http.Response
				if r, err = client.Do(req); err == nil {
					o.status = r.StatusCode
					_, err = io.Copy(io.Discard, r.Body)
					r.Body.Close()
				}
			}
			o.took, o.err = time.Since(begin), err
			out[i] = o
		})
	}
	wg.Wait()
	return out
}

// whole looks at everything kept: it can be read, planned, checked and drawn.
func whole(base string) error {
	get := func(path string, v any) error {
		r, err := http.Get(base + path)
		if err != nil {
			return fmt.Errorf("%s: %w", path, err)
		}
		defer r.Body.Close()
		raw, err := io.ReadAll(r.Body)
		if err != nil || r.StatusCode != http.StatusOK {
			return fmt.Errorf("%s answers %d: %.200s (%v)", path, r.StatusCode, raw, err)
		}
		if v != nil {
			return json.Unmarshal(raw, v)
		}
		return nil
	}
	var cards []struct{ ID string }
	if err := get("/api/cards", &cards); err != nil {
		return err
	}
	for _, c := range cards {
		if err := get("/api/cards/"+c.ID, nil); err != nil {
			return err
		}
	}
	var state struct {
		Kit struct {
			Sets []struct {
				ID, Name string
				Parts    []struct{ Outline string }
			}
		}
	}
	if err := get("/api/state", &state); err != nil {
		return err
	}
	for _, s := range state.Kit.Sets {
		if len(s.Parts) == 0 {
			return fmt.Errorf("the set %q is half imported: it has no parts", s.Name)
		}
		if err := get("/api/sets/"+s.ID+"/set.svg", nil); err != nil {
			return err
		}
	}
	var check struct {
		Problems []string
		Apart    []any
	}
	if err := get("/api/data/check", &check); err != nil {
		return err
	}
	if len(check.Problems)+len(check.Apart) > 0 {
		return fmt.Errorf("the data file is not sound: %v %v", check.Problems, check.Apart)
	}
	return nil
}

// rss is the memory a process holds, MB.
func rss(pid int) float64 {
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	if err != nil {
		return 0
	}
	for _, line := range strings.Split(string(raw), "\n") {
		if v, ok := strings.CutPrefix(line, "VmRSS:"); ok {
			kb, _ := strconv.ParseFloat(strings.Fields(v)[0], 64)
			return kb / 1024
		}
	}
	return 0
}
