// Command tests reads what go test -json prints: it passes on what is said of each package and all
// that failed tests printed, lists the ten slowest tests and the packages over two minutes at the
// end, and fails where a test did.
package main

import (
	"bufio"
	"cmp"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"
)

func main() {
	ok, err := read(os.Stdin, os.Stdout)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
	}
	if !ok || err != nil {
		os.Exit(1)
	}
}

// event is a line of go test -json.
type event struct {
	Action      string
	Package     string
	ImportPath  string // of what would not build
	Test        string
	Output      string
	Elapsed     float64 // seconds
	FailedBuild string
}

// What is listed at the end.
const (
	mostListed = 10
	slowly     = 120.0 // seconds that a package may take
)

// timed is a test or a package with the seconds it took.
type timed struct {
	name string
	took float64
}

// read passes on what there is to say of the tests, and whether all went well; nothing at all to
// read is not well. The error is that of reading.
func read(r io.Reader, w io.Writer) (ok bool, err error) {
	lines := bufio.NewScanner(r)
	lines.Buffer(nil, 64<<20)
	said := map[string][]string{} // what a test printed, by package and name
	var tests, packages []timed
	ok = true
	some := false
	for lines.Scan() {
		var e event
		if json.Unmarshal(lines.Bytes(), &e) != nil {
			fmt.Fprintln(w, lines.Text()) // such as what a download says
			continue
		}
		some = true
		of := e.Package + " " + e.Test
		switch e.Action {
		case "build-output":
			fmt.Fprint(w, e.Output)
		case "build-fail":
			ok = false
		case "output":
			if said[of] = append(said[of], e.Output); e.Test == "" && (strings.HasPrefix(e.Output, "ok") || strings.HasPrefix(e.Output, "FAIL\t")) {
				fmt.Fprint(w, e.Output)
			}
		case "pass", "skip", "fail":
			if e.Action == "fail" {
				ok = false
				fmt.Fprint(w, strings.Join(said[of], ""))
			}
			delete(said, of)
			if t := (timed{strings.TrimPrefix(e.Package, "ochrestone/"), e.Elapsed}); e.Test == "" {
				packages = append(packages, t)
			} else if !strings.Contains(e.Test, "/") {
				tests = append(tests, timed{t.name + " " + e.Test, e.Elapsed})
			}
		}
	}
	slowest := func(all []timed) []timed {
		slices.SortStableFunc(all, func(a, b timed) int { return cmp.Compare(b.took, a.took) })
		return all[:min(mostListed, len(all))]
	}
	if len(tests) > 0 {
		fmt.Fprintln(w, "\nThe slowest tests:")
		for _, t := range slowest(tests) {
			fmt.Fprintf(w, "%7.1f s  %s\n", t.took, t.name)
		}
	}
	for _, p := range slowest(packages) {
		if p.took > slowly {
			fmt.Fprintf(w, "%s took %.0f s: over two minutes.\n", p.name, p.took)
		}
	}
	return ok && some, lines.Err()
}
