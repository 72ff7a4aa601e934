package svgin

import (
	"cmp"
	"encoding/xml"
	"regexp"
	"slices"
	"strings"
)

// sheet is what a drawing's style sheets say, found by what a rule asks of the
// element itself: an id, else a class, else an element name.
type sheet struct {
	rules  map[string][]cssRule // by "#id", ".class", "name" or "*"
	n      int
	passed int // selectors that were not understood
}

// cssRule is one compound selector, such as rect.a.b#c, with its declarations.
type cssRule struct {
	name    string // element name, or "" for any
	classes []string
	id      string
	weight  int // ids, classes and names by CSS 2.1, 6.4.3
	order   int
	set     []declaration
}

type declaration struct {
	name, value string
	important   bool
}

// mostRules bounds the rules taken.
const mostRules = 20_000

var (
	comment  = regexp.MustCompile(`(?s)/\*.*?\*/|<!--|-->`)
	compound = regexp.MustCompile(`^(\*|[a-zA-Z][\w-]*)?((?:[.#][\w-]+)*)$`)
	hooks    = regexp.MustCompile(`[.#][\w-]+`)
)

// read takes in a style sheet (CSS 2.1): compound selectors of element names,
// classes and ids. Rules within @media screen or all are taken; selectors that
// look at other elements are counted and passed over.
func (s *sheet) read(text string) { s.within(text, 0) }

// mostNested is how deep blocks of a style sheet may lie in each other.
const mostNested = 6

func (s *sheet) within(text string, depth int) {
	if depth > mostNested {
		s.passed++
		return
	}
	if s.rules == nil {
		s.rules = map[string][]cssRule{}
	}
	text = comment.ReplaceAllString(text, "")
	for text != "" && s.n < mostRules {
		open := strings.IndexByte(text, '{')
		if open < 0 {
			return
		}
		head := strings.TrimSpace(text[:open])
		if i := strings.LastIndexByte(head, ';'); i >= 0 { // @import and the like, which end before
			head = strings.TrimSpace(head[i+1:])
		}
		if strings.HasPrefix(head, "@") {
			body, rest := block(text[open:])
			if strings.HasPrefix(head, "@media") && !strings.Contains(head, "print") {
				s.within(body, depth+1)
			}
			text = rest
			continue
		}
		body, rest := block(text[open:])
		set := declarations(body)
		for _, sel := range strings.Split(head, ",") {
			s.add(strings.TrimSpace(sel), set)
		}
		text = rest
	}
}

// block splits what follows an open brace from what comes after its end.
func block(text string) (body, rest string) {
	depth := 0
	for i := range len(text) {
		switch text[i] {
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 {
				return text[1:i], text[i+1:]
			}
		}
	}
	return text[1:], ""
}

func (s *sheet) add(sel string, set []declaration) {
	if sel == "" || s.n >= mostRules {
		return
	}
	sel = strings.TrimPrefix(sel, "svg ") // all there is lies in the drawing
	m := compound.FindStringSubmatch(sel)
	if m == nil {
		s.passed++
		return
	}
	r := cssRule{name: m[1], order: s.n, set: set}
	s.n++
	for _, part := range hooks.FindAllString(m[2], -1) {
		if part[0] == '#' {
			r.id = part[1:]
			r.weight += 10_000
		} else {
			r.classes = append(r.classes, part[1:])
			r.weight += 100
		}
	}
	if r.name == "*" {
		r.name = ""
	} else if r.name != "" {
		r.weight++
	}
	key := "*"
	switch {
	case r.id != "":
		key = "#" + r.id
	case len(r.classes) > 0:
		key = "." + r.classes[0]
	case r.name != "":
		key = r.name
	}
	s.rules[key] = append(s.rules[key], r)
}

func declarations(text string) (out []declaration) {
	for _, d := range strings.Split(text, ";") {
		k, v, ok := strings.Cut(d, ":")
		if !ok {
			continue
		}
		v = strings.TrimSpace(v)
		w := strings.TrimSpace(strings.TrimSuffix(v, "!important"))
		out = append(out, declaration{strings.ToLower(strings.TrimSpace(k)), w, w != v})
	}
	return out
}

// presented are the presentation attributes that count here (SVG 1.1, 6.1).
var presented = []string{"fill", "fill-opacity", "fill-rule", "clip-rule", "clip-path", "mask", "stroke", "stroke-opacity", "stroke-width", "stroke-dasharray", "stroke-dashoffset", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit", "opacity", "display", "visibility", "overflow"}

// styles are the properties of an element, each as the cascade leaves it: its
// presentation attributes, the style sheets, its own style, then what is important.
func (s *sheet) styles(t xml.StartElement) map[string]string {
	out := map[string]string{}
	for _, k := range presented {
		if v := attr(t, k); v != "" {
			out[k] = v
		}
	}
	var hits []cssRule
	if s.n > 0 {
		classes, id := strings.Fields(attr(t, "class")), attr(t, "id")
		keys := []string{"*", t.Name.Local}
		for _, c := range classes {
			keys = append(keys, "."+c)
		}
		if id != "" {
			keys = append(keys, "#"+id)
		}
		for _, k := range keys {
			for _, r := range s.rules[k] {
				if (r.name == "" || r.name == t.Name.Local) && (r.id == "" || r.id == id) && !slices.ContainsFunc(r.classes, func(c string) bool { return !slices.Contains(classes, c) }) {
					hits = append(hits, r)
				}
			}
		}
		slices.SortStableFunc(hits, func(a, b cssRule) int {
			return cmp.Or(cmp.Compare(a.weight, b.weight), cmp.Compare(a.order, b.order))
		})
	}
	own := declarations(attr(t, "style"))
	for _, important := range []bool{false, true} {
		for _, h := range hits {
			for _, d := range h.set {
				if d.important == important {
					out[d.name] = d.value
				}
			}
		}
		for _, d := range own {
			if d.important == important {
				out[d.name] = d.value
			}
		}
	}
	return out
}
