package bundle

import (
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// State says how a thing of a bundle stands to the stores it comes into.
type State string

// States of a thing.
const (
	New     State = "new"     // nothing of its id is there
	Same    State = "same"    // it is there already
	Differs State = "differs" // something of its id is there that is not the same
)

// Choice is what is done with a thing that differs.
type Choice string

// Choices; the first is made where none is.
const (
	Mine   Choice = "mine"   // the card takes what is there
	Theirs Choice = "theirs" // it takes the place of what is there, on all cards
	Both   Choice = "both"   // it is kept beside what is there, under a name of its own
)

// Compared is a thing of a bundle against the stores.
type Compared struct {
	Kind   string   `json:"kind" enum:"sets,inks,papers,spacers,adhesives,envelopes"`
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	State  State    `json:"state" enum:"new,same,differs"`
	Here   string   `json:"here,omitempty" doc:"name of what is there of its id"`
	Unlike []Unlike `json:"unlike" nullable:"false" doc:"in what it differs"`
}

// Unlike is a field in which two things differ, with what each says of it; where that is not
// short, nothing.
type Unlike struct {
	Word  string `json:"word" doc:"what it is called"`
	Mine  string `json:"mine"`
	Their string `json:"their"`
	Unit  string `json:"unit,omitempty" doc:"of numbers: mm, g/m², g, min"`
}

// words are what fields are called, and their units, where the document has a shorter word.
var words = map[string][2]string{
	"caliper": {"thickness", "mm"}, "thickness": {"thickness", "mm"}, "w": {"width", "mm"}, "h": {"height", "mm"}, "padding": {"padding", "mm"}, "depth": {"depth", "mm"},
	"gsm": {"weight", "g/m²"}, "grams": {"weight", "g"}, "setMinutes": {"setting time", "min"}, "dryMinutes": {"drying time", "min"},
	"dry": {"dried colour", ""}, "wet": {"wet colour", ""}, "where": {"place", ""}, "hide": {"hiding power", ""}, "low": {"running low", ""}, "gone": {"empty", ""},
	"measured": {"measured", ""}, "wiggle": {"time to move", ""}, "shows": {"showing through vellum", ""},
}

func unlikeIn(key string, mine, their any) Unlike {
	u := Unlike{Word: key, Mine: short(mine), Their: short(their)}
	if w, ok := words[key]; ok {
		u.Word, u.Unit = w[0], w[1]
	}
	for _, v := range []any{mine, their} {
		if _, number := v.(float64); !number && v != nil {
			u.Unit = ""
		}
	}
	return u
}

// Compare holds a bundle against the stores it would come into.
func Compare(b Bundle, k kit.Kit) ([]Compared, error) {
	have, err := items(k)
	if err != nil {
		return nil, err
	}
	out := []Compared{}
	for _, it := range b.Items {
		c := Compared{Kind: it.Kind, ID: it.ID, Name: it.Name, State: New, Unlike: []Unlike{}}
		if i := slices.IndexFunc(have, func(h Item) bool { return h.Kind == it.Kind && h.ID == it.ID }); i >= 0 {
			c.Here = have[i].Name
			if c.Unlike, err = unlike(it.Doc, have[i].Doc); err != nil {
				return nil, fmt.Errorf("compare %s %q: %w", it.Kind, it.Name, err)
			}
			c.State = Same
			if len(c.Unlike) > 0 {
				c.State = Differs
			}
		}
		out = append(out, c)
	}
	return out, nil
}

// unlike lists in what a document, theirs, differs from another, mine.
func unlike(a, b []byte) ([]Unlike, error) {
	var v, w map[string]any
	if err := json.Unmarshal(a, &v); err != nil {
		return nil, err
	}
	if err := json.Unmarshal(b, &w); err != nil {
		return nil, err
	}
	out := []Unlike{}
	for key := range v {
		if !reflect.DeepEqual(v[key], w[key]) {
			out = append(out, unlikeIn(key, w[key], v[key]))
		}
	}
	for key := range w {
		if _, is := v[key]; !is {
			out = append(out, unlikeIn(key, w[key], nil))
		}
	}
	slices.SortFunc(out, func(a, b Unlike) int { return strings.Compare(a.Word, b.Word) })
	return out, nil
}

// short is a value in a few letters; what is not short is nothing.
func short(v any) string {
	var s string
	switch v := v.(type) {
	case string:
		s = v
	case bool:
		s = map[bool]string{true: "yes", false: "no"}[v]
	case float64:
		s = strconv.FormatFloat(math.Round(v*1e4)/1e4, 'f', -1, 64)
	}
	if len([]rune(s)) > 40 {
		return ""
	}
	return s
}

// Take makes of a bundle the card as it comes onto the bench, and what comes into the stores
// for it. choices are by kind and id ("inks plum"); fresh gives an id that is not taken.
func Take(b Bundle, k kit.Kit, choices map[string]Choice, fresh func() string) (card.Card, []Item, error) {
	all, err := Compare(b, k)
	if err != nil {
		return card.Card{}, nil, err
	}
	renamed := map[string]string{}
	var put []Item
	for i, c := range all {
		it := b.Items[i]
		choice := choices[c.Kind+" "+c.ID]
		switch {
		case c.State == Same || c.State == Differs && choice != Theirs && choice != Both:
			continue
		case c.State == Differs && choice == Both:
			id := fresh()
			renamed[c.Kind+" "+c.ID] = id
			if it.Doc, err = underAnother(it.Doc, id); err != nil {
				return card.Card{}, nil, fmt.Errorf("keep %q beside yours: %w", it.Name, err)
			}
			it.ID, it.Name = id, beside(it.Name)
		}
		put = append(put, it)
	}
	rename := func(kind, id string) string {
		if to, is := renamed[kind+" "+id]; is {
			return to
		}
		return id
	}
	doc, err := json.Marshal(b.Card)
	if err == nil {
		doc, err = walk(doc, rename)
	}
	if err != nil {
		return card.Card{}, nil, fmt.Errorf("take the card in: %w", err)
	}
	for i := range put {
		if put[i].Doc, err = walk(put[i].Doc, rename); err != nil {
			return card.Card{}, nil, fmt.Errorf("take %q in: %w", put[i].Name, err)
		}
	}
	c, err := card.Read(doc)
	if err != nil {
		return card.Card{}, nil, err
	}
	measured, err := swatches(b, k, all, choices, rename)
	if err != nil {
		return card.Card{}, nil, err
	}
	return c, append(put, measured...), nil
}

// swatches are those of a bundle that come into the stores: of inks and papers that are theirs or
// the same here, where there is none of the kind yet.
func swatches(b Bundle, k kit.Kit, all []Compared, choices map[string]Choice, rename func(kind, id string) string) (out []Item, err error) {
	mine := map[string]bool{}
	for _, c := range all {
		choice := choices[c.Kind+" "+c.ID]
		mine[c.Kind+" "+c.ID] = c.State == Differs && choice != Theirs && choice != Both
	}
	for _, s := range b.Swatches {
		if mine["inks "+s.Ink] || mine["papers "+s.Paper] {
			continue
		}
		s.Ink, s.Paper = rename("inks", s.Ink), rename("papers", s.Paper)
		if slices.ContainsFunc(k.Swatches, func(o kit.Swatch) bool {
			return o.Ink == s.Ink && o.Paper == s.Paper && o.Impressions == s.Impressions
		}) {
			continue
		}
		doc, err := json.Marshal(s)
		if err != nil {
			return nil, fmt.Errorf("take a swatch of %q in: %w", s.Ink, err)
		}
		out = append(out, Item{"swatches", s.ID(), "a swatch", doc})
	}
	return out, nil
}

// beside is the name of what is kept beside something of the same name.
func beside(name string) string {
	const add = ", brought in"
	if strings.HasSuffix(name, add) {
		return name
	}
	return name + add
}

func underAnother(doc []byte, id string) ([]byte, error) {
	var v map[string]json.RawMessage
	if err := json.Unmarshal(doc, &v); err != nil {
		return nil, err
	}
	var name string
	if err := json.Unmarshal(v["name"], &name); err != nil {
		return nil, err
	}
	for key, text := range map[string]string{"id": id, "name": beside(name)} {
		raw, err := json.Marshal(text)
		if err != nil {
			return nil, err
		}
		v[key] = raw
	}
	return json.Marshal(v)
}
