// Command mutate breaks lines of the core, one at a time, and tells which of them no test of the
// core notices. A condition is turned round; a statement is left out. All breaks are built in at
// once, each behind a switch (package on), so that the tests are built once; which one is on is
// told to them by MUTANT.
package main

import (
	"bytes"
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"log"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"ochrestone/core/together"
)

// broken is a line that can be broken.
type broken struct {
	n          int
	file       string
	line       int
	what       string
	begin, end int // in the file, bytes
	stmt       bool
}

func main() {
	count := flag.Int("n", 300, "how many lines to break, drawn from all")
	seed := flag.Uint64("seed", 1, "of the draw")
	of := flag.String("of", "build,work,foresee,depth,cut,cover,look,placing,card", "packages of the core whose lines are broken")
	by := flag.String("by", "", "packages of the core whose tests look; none: the line's own, then plan")
	patience := flag.Duration("patience", 5*time.Minute, "after which a test run counts as having noticed")
	flag.Parse()
	if err := run(*count, *seed, strings.Split(*of, ","), *by, *patience); err != nil {
		log.Fatal(err)
	}
}

func run(count int, seed uint64, of []string, by string, patience time.Duration) error {
	dir, err := os.MkdirTemp("", "mutate-*")
	if err != nil {
		return fmt.Errorf("make a place for the broken build: %w", err)
	}
	defer os.RemoveAll(dir)
	all, sources, err := lines(of)
	if err != nil {
		return err
	}
	r := rand.New(rand.NewPCG(seed, 0))
	r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	all = all[:min(count, len(all))]
	for i := range all {
		all[i].n = i + 1
	}
	overlay, err := build(dir, all, sources)
	if err != nil {
		return err
	}
	tests := map[string]string{} // binaries by package
	for _, pkg := range append(slices.Clone(of), "plan") {
		bin := filepath.Join(dir, pkg+".test")
		if out, err := exec.Command("go", "test", "-c", "-overlay", overlay, "-o", bin, "./core/"+pkg).CombinedOutput(); err != nil {
			return fmt.Errorf("build the tests of core/%s: %w\n%s", pkg, err, out)
		}
		if _, err := os.Stat(bin); err == nil {
			tests[pkg] = bin
		}
	}
	for pkg, bin := range tests { // whole, they are all content
		if noticed(bin, pkg, 0, patience) {
			return fmt.Errorf("the tests of core/%s fail with nothing broken", pkg)
		}
	}
	missed := make([]bool, len(all))
	together.By(len(all), func(i int) {
		look := []string{filepath.Base(filepath.Dir(all[i].file)), "plan"}
		if by != "" {
			look = strings.Split(by, ",")
		}
		missed[i] = !slices.ContainsFunc(look, func(pkg string) bool { return tests[pkg] != "" && noticed(tests[pkg], pkg, all[i].n, patience) })
		if missed[i] {
			fmt.Printf("nothing notices %s:%d: %s\n", all[i].file, all[i].line, all[i].what)
		}
	})
	n := 0
	for _, m := range missed {
		if !m {
			n++
		}
	}
	fmt.Printf("%d of %d broken lines were noticed: %.0f %%\n", n, len(all), 100*float64(n)/float64(max(1, len(all))))
	return nil
}

// noticed runs the tests of a package with a line broken, and reports whether any failed or
// did not come to an end.
func noticed(bin, pkg string, n int, patience time.Duration) bool {
	ctx, stop := context.WithTimeout(context.Background(), patience)
	defer stop()
	cmd := exec.CommandContext(ctx, bin, "-test.short", "-test.failfast")
	cmd.Dir = filepath.Join("core", pkg)
	cmd.Env = append(os.Environ(), fmt.Sprint("MUTANT=", n))
	return cmd.Run() != nil
}

// lines are all lines of packages that can be broken, with their sources by file.
func lines(of []string) (out []broken, sources map[string][]byte, err error) {
	sources = map[string][]byte{}
	for _, pkg := range of {
		files, err := filepath.Glob(filepath.Join("core", pkg, "*.go"))
		if err != nil || len(files) == 0 {
			return nil, nil, fmt.Errorf("core/%s has no files", pkg)
		}
		for _, file := range files {
			if strings.HasSuffix(file, "_test.go") {
				continue
			}
			src, err := os.ReadFile(file)
			if err != nil {
				return nil, nil, fmt.Errorf("read %s: %w", file, err)
			}
			set := token.NewFileSet()
			f, err := parser.ParseFile(set, file, src, parser.SkipObjectResolution)
			if err != nil {
				return nil, nil, fmt.Errorf("read %s: %w", file, err)
			}
			sources[file] = src
			at := func(n ast.Node, stmt bool) {
				b, e := set.Position(n.Pos()), set.Position(n.End())
				out = append(out, broken{file: file, line: b.Line, what: short(string(src[b.Offset:e.Offset])), begin: b.Offset, end: e.Offset, stmt: stmt})
			}
			ast.Inspect(f, func(n ast.Node) bool {
				switch n := n.(type) {
				case *ast.GenDecl:
					return n.Tok == token.VAR // constants are not worked out as the program runs
				case *ast.IfStmt:
					at(n.Cond, false)
				case *ast.BlockStmt:
					for _, s := range n.List {
						switch s := s.(type) {
						case *ast.ExprStmt:
							if !panics(s) { // what comes after it is not meant to be reached
								at(s, true)
							}
						case *ast.AssignStmt:
							if s.Tok != token.DEFINE {
								at(s, true)
							}
						case *ast.IncDecStmt, *ast.BranchStmt:
							if b, ok := s.(*ast.BranchStmt); ok && b.Tok != token.CONTINUE {
								continue
							}
							at(s, true)
						}
					}
				}
				return true
			})
		}
	}
	return out, sources, nil
}

func panics(s *ast.ExprStmt) bool {
	c, ok := s.X.(*ast.CallExpr)
	if !ok {
		return false
	}
	f, ok := c.Fun.(*ast.Ident)
	return ok && f.Name == "panic"
}

// short is a line as it is told.
func short(s string) string {
	s = strings.Join(strings.Fields(s), " ")
	if r := []rune(s); len(r) > 90 {
		s = string(r[:90]) + "…"
	}
	return s
}

// build writes the files with all breaks in them, and the overlay that puts them in the place
// of the whole ones.
func build(dir string, all []broken, sources map[string][]byte) (overlay string, err error) {
	replace := map[string]string{}
	for file, src := range sources {
		mine := slices.DeleteFunc(slices.Clone(all), func(b broken) bool { return b.file != file })
		if len(mine) == 0 {
			continue
		}
		// What lies within another is written first: from the last to the first, the inner before the outer.
		type put struct {
			at    int
			text  string
			inner int
		}
		var puts []put
		for _, b := range mine {
			open, shut := fmt.Sprintf("(brokenLine.Now(%d) != (", b.n), "))"
			if b.stmt {
				open, shut = fmt.Sprintf("if !brokenLine.Now(%d) { ", b.n), " }"
			}
			puts = append(puts, put{b.begin, open, b.end}, put{b.end, shut, -b.begin})
		}
		slices.SortStableFunc(puts, func(p, q put) int {
			if p.at != q.at {
				return q.at - p.at
			}
			return p.inner - q.inner
		})
		text := string(src)
		for _, p := range puts {
			text = text[:p.at] + p.text + text[p.at:]
		}
		i := strings.Index(text, "\npackage ")
		if strings.HasPrefix(text, "package ") {
			i = -1
		}
		end := i + 1 + strings.Index(text[i+1:], "\n")
		text = text[:end] + "; import brokenLine \"ochrestone/tools/mutate/on\"" + text[end:]
		to := filepath.Join(dir, strings.ReplaceAll(file, string(filepath.Separator), "_"))
		if err := os.WriteFile(to, []byte(text), 0o600); err != nil {
			return "", fmt.Errorf("write the broken %s: %w", file, err)
		}
		full, err := filepath.Abs(file)
		if err != nil {
			return "", fmt.Errorf("find %s: %w", file, err)
		}
		replace[full] = to
	}
	var b bytes.Buffer
	if err := json.NewEncoder(&b).Encode(map[string]any{"Replace": replace}); err != nil {
		return "", fmt.Errorf("list the broken files: %w", err)
	}
	overlay = filepath.Join(dir, "overlay.json")
	if err := os.WriteFile(overlay, b.Bytes(), 0o600); err != nil {
		return "", fmt.Errorf("list the broken files: %w", err)
	}
	return overlay, nil
}
