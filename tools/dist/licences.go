package main

import (
	"bytes"
	"cmp"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
)

// part is something of somebody else's that is in the program.
type part struct {
	name, version string
	texts         []string // of its licence and notices
}

// everything lists the parts: the modules the program is built from, the packages the page
// is, and the fonts.
func everything() ([]part, error) {
	mods, err := modules()
	if err != nil {
		return nil, err
	}
	pkgs, err := packages()
	if err != nil {
		return nil, err
	}
	all := append(mods, pkgs...)
	for _, p := range all {
		if len(p.texts) == 0 {
			return nil, fmt.Errorf("%s %s has no licence that could be found: it cannot be given away", p.name, p.version)
		}
	}
	slices.SortFunc(all, func(a, b part) int { return cmp.Compare(a.name, b.name) })
	return all, nil
}

//go:embed kept/ftl.txt
var freeType string

// kept are licences that a module names without bringing them.
var kept = map[string]string{
	"github.com/srwiley/scanx": "Of its two licences the first is chosen. Copyright 2010 The Freetype-Go Authors.\nPortions of this software are copyright The FreeType Project (www.freetype.org). All rights reserved.\n\n" + freeType,
}

var licenceName = regexp.MustCompile(`(?i)^(licen[cs]e|copying|notice|unlicense|ofl)([-._].*)?$`)

// texts are the licences in a folder.
func texts(dir string) (out []string, err error) {
	es, err := os.ReadDir(dir)
	if err != nil {
		return nil, err
	}
	for _, e := range es {
		if e.IsDir() || !licenceName.MatchString(e.Name()) || strings.HasSuffix(e.Name(), ".go") {
			continue
		}
		b, err := os.ReadFile(filepath.Join(dir, e.Name()))
		if err != nil {
			return nil, err
		}
		out = append(out, strings.TrimSpace(string(b)))
	}
	return out, nil
}

// modules are those of the program on any system it is made for, and the language's own
// library.
func modules() ([]part, error) {
	seen := map[string]bool{}
	var out []part
	for _, t := range targets {
		list := exec.Command("go", "list", "-deps", "-json=Module", "./cmd/ochrestone")
		list.Env = append(os.Environ(), "CGO_ENABLED=0", "GOOS="+t.os, "GOARCH="+t.arch)
		b, err := list.Output()
		if err != nil {
			return nil, fmt.Errorf("list what the program is built from: %w", err)
		}
		for d := json.NewDecoder(bytes.NewReader(b)); ; {
			var p struct {
				Module *struct {
					Path, Version, Dir string
					Main               bool
				}
			}
			if err := d.Decode(&p); errors.Is(err, io.EOF) {
				break
			} else if err != nil {
				return nil, fmt.Errorf("read what the program is built from: %w", err)
			}
			m := p.Module
			if m == nil || m.Main || seen[m.Path] {
				continue
			}
			seen[m.Path] = true
			ts, err := texts(m.Dir)
			if err != nil {
				return nil, err
			}
			if k, is := kept[m.Path]; is && len(ts) == 0 {
				ts = []string{k}
			}
			out = append(out, part{m.Path, m.Version, ts})
		}
	}
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return nil, fmt.Errorf("find the language: %w", err)
	}
	v, err := exec.Command("go", "env", "GOVERSION").Output()
	if err != nil {
		return nil, fmt.Errorf("find the language's version: %w", err)
	}
	ts, err := texts(strings.TrimSpace(string(root)))
	if len(ts) == 0 { // some packagings keep it elsewhere; every module of the language bears the same
		dir, e := exec.Command("go", "list", "-m", "-f", "{{.Dir}}", "golang.org/x/image").Output()
		if e != nil {
			return nil, errors.Join(err, e)
		}
		if ts, err = texts(strings.TrimSpace(string(dir))); err != nil {
			return nil, err
		}
	}
	return append(out, part{"The Go language and its library", strings.TrimSpace(strings.TrimPrefix(string(v), "go")), ts}), nil
}

// packages are those of the page that are not for its making alone.
func packages() ([]part, error) {
	b, err := os.ReadFile(filepath.Join("web", "package-lock.json"))
	if err != nil {
		return nil, err
	}
	var lock struct {
		Packages map[string]struct {
			Version  string
			Dev      bool
			Optional bool
			Licence  string `json:"license"`
		}
	}
	if err := json.Unmarshal(b, &lock); err != nil {
		return nil, fmt.Errorf("read web/package-lock.json: %w", err)
	}
	var out []part
	for path, p := range lock.Packages {
		_, name, is := strings.Cut(path, "node_modules/")
		if !is || p.Dev || p.Optional || strings.HasPrefix(name, "@types/") || name == "csstype" {
			continue
		}
		if i := strings.LastIndex(name, "node_modules/"); i >= 0 {
			name = name[i+len("node_modules/"):]
		}
		ts, err := texts(filepath.Join("web", path))
		if err != nil {
			return nil, fmt.Errorf("find the licence of %s; npm install brings it: %w", name, err)
		}
		if len(ts) == 0 && p.Licence != "" {
			ts = []string{"Licence as its package says: " + p.Licence}
		}
		out = append(out, part{name, p.Version, ts})
	}
	return out, nil
}

// list writes the parts down, each licence's text once.
func list(parts []part) string {
	var b strings.Builder
	b.WriteString("Ochrestone is made with the work of others. What is in the program, and under which licences:\n\n")
	of := map[string][]string{}
	var order []string
	for _, p := range parts {
		for _, t := range p.texts {
			if of[t] == nil {
				order = append(order, t)
			}
			of[t] = append(of[t], p.name+" "+p.version)
		}
	}
	for _, t := range order {
		for _, n := range of[t] {
			b.WriteString(n + "\n")
		}
		b.WriteString("\n" + t + "\n\n" + strings.Repeat("-", 76) + "\n\n")
	}
	return b.String()
}
