// Package bundle carries one card to another machine: the card with the sets, inks, papers and
// whatever else of the stores it is made of, in one file (.ochre), and takes it in there
// beside what is in those stores already.
package bundle

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"reflect"
	"slices"
	"strings"
	"time"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// Version is of the form written here; files of a higher one are refused.
const Version = 1

// Limits of a bundle that is taken in.
const (
	MaxBytes = 32 << 20
	maxOpen  = 96 << 20 // bytes once unpacked
	maxFiles = 2000
)

// ErrForeign is returned for what is no bundle.
var ErrForeign = errors.New("this is not a card of Ochrestone (.ochre)")

// Bundle is a card and what it is made of.
type Bundle struct {
	Card  card.Card
	Items []Item
	// Swatches are what its inks were measured to dry to on its papers.
	Swatches []kit.Swatch
}

// Item is one thing of the stores.
type Item struct {
	Kind string // as the stores name it: sets, inks, papers …
	ID   string
	Name string
	Doc  json.RawMessage
}

// head is what a bundle says of itself.
type head struct {
	Ochre int    `json:"ochre"`
	Title string `json:"title"`
	Made  string `json:"made"`
}

type kind struct {
	name  string
	words []string
	list  func(k kit.Kit) any
}

// kinds of what a card may name, and by which words of its document, some of them words of several
// kinds; sets know no more, inks
// name the paper they were swatched on.
var kinds = []kind{
	{"sets", []string{"set"}, func(k kit.Kit) any { return k.Sets }},
	{"inks", []string{"ink", "inks", "edge", "back"}, func(k kit.Kit) any { return k.Inks }},
	{"papers", []string{"paper", "stock", "film", "backing"}, func(k kit.Kit) any { return k.Papers }},
	{"spacers", []string{"spacer", "wall", "backing"}, func(k kit.Kit) any { return k.Spacers }},
	{"adhesives", []string{"adhesive", "backing"}, func(k kit.Kit) any { return k.Adhesives }},
	{"envelopes", []string{"envelope"}, func(k kit.Kit) any { return k.Envelopes }},
	{"gems", []string{"gem"}, func(k kit.Kit) any { return k.Gems }},
}

func kindOf(word string) (of []string) {
	for _, k := range kinds {
		if slices.Contains(k.words, word) {
			of = append(of, k.name)
		}
	}
	return of
}

// Of gathers what a card is made of out of the stores. What it names and the stores lack is
// left out: the card says so wherever it is opened.
func Of(c card.Card, k kit.Kit) (Bundle, error) {
	all, err := items(k)
	if err != nil {
		return Bundle{}, err
	}
	doc, err := json.Marshal(c)
	if err != nil {
		return Bundle{}, fmt.Errorf("bundle the card: %w", err)
	}
	named := map[string]bool{}
	b := Bundle{Card: c, Items: []Item{}}
	// What is named names more in turn, as an ink its paper.
	for more := [][]byte{doc}; len(more) > 0; {
		var next [][]byte
		for _, d := range more {
			if _, err := walk(d, func(kind, id string) string {
				if i := slices.IndexFunc(all, func(it Item) bool { return it.Kind == kind && it.ID == id }); i >= 0 && !named[kind+" "+id] {
					named[kind+" "+id] = true
					next = append(next, all[i].Doc)
				}
				return id
			}); err != nil {
				return Bundle{}, fmt.Errorf("bundle the card: %w", err)
			}
		}
		more = next
	}
	for _, it := range all {
		if named[it.Kind+" "+it.ID] {
			b.Items = append(b.Items, it)
		}
	}
	for _, s := range k.Swatches {
		if named["inks "+s.Ink] && named["papers "+s.Paper] {
			b.Swatches = append(b.Swatches, s)
		}
	}
	return b, nil
}

// items lists the stores.
func items(k kit.Kit) (out []Item, err error) {
	for _, kd := range kinds {
		list := reflect.ValueOf(kd.list(k))
		for i := range list.Len() {
			doc, err := json.Marshal(list.Index(i).Interface())
			if err != nil {
				return nil, fmt.Errorf("write one of the %s: %w", kd.name, err)
			}
			it, err := item(kd.name, doc)
			if err != nil {
				return nil, err
			}
			out = append(out, it)
		}
	}
	return out, nil
}

func item(kind string, doc []byte) (Item, error) {
	var v struct{ ID, Name string }
	if err := json.Unmarshal(doc, &v); err != nil {
		return Item{}, fmt.Errorf("read one of the %s: %w", kind, err)
	}
	return Item{kind, v.ID, v.Name, doc}, nil
}

// walk rewrites the names of things of the stores in a document; rename gets the kind and the
// id and gives what stands there then.
func walk(doc []byte, rename func(kind, id string) string) ([]byte, error) {
	d := json.NewDecoder(bytes.NewReader(doc))
	d.UseNumber() // numbers stay as they are written
	var v any
	if err := d.Decode(&v); err != nil {
		return nil, err
	}
	var go_ func(v any, kinds []string) any
	go_ = func(v any, kinds []string) any {
		switch v := v.(type) {
		case string:
			for _, kind := range kinds {
				if v == "" {
					break
				}
				if to := rename(kind, v); to != v {
					return to // a backing is of one kind or the other
				}
			}
		case []any:
			for i := range v {
				if _, is := v[i].(string); !is {
					kinds = nil // a list of things, not of names
				}
				v[i] = go_(v[i], kinds)
			}
		case map[string]any:
			for key := range v {
				v[key] = go_(v[key], kindOf(key))
			}
		}
		return v
	}
	return json.Marshal(go_(v, nil))
}

// Write writes a bundle, with a picture of the front for whoever opens it with something else.
func Write(w io.Writer, b Bundle, front []byte, at time.Time) error {
	z := zip.NewWriter(w)
	put := func(name string, data []byte) error {
		f, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: at})
		if err == nil {
			_, err = f.Write(data)
		}
		if err != nil {
			return fmt.Errorf("write %s of the bundle: %w", name, err)
		}
		return nil
	}
	h, err := json.Marshal(head{Version, b.Card.Title, at.UTC().Format(time.RFC3339)})
	if err != nil {
		return fmt.Errorf("write the bundle: %w", err)
	}
	doc, err := json.Marshal(b.Card)
	if err != nil {
		return fmt.Errorf("write the bundle: %w", err)
	}
	if err := errors.Join(put("ochre.json", h), put("card.json", doc), put("front.svg", front)); err != nil {
		return err
	}
	for i, it := range b.Items {
		if err := put(fmt.Sprintf("stores/%s/%03d.json", it.Kind, i+1), it.Doc); err != nil {
			return err
		}
	}
	if len(b.Swatches) > 0 {
		doc, err := json.Marshal(b.Swatches)
		if err == nil {
			err = put(swatchFile, doc)
		}
		if err != nil {
			return fmt.Errorf("write the bundle: %w", err)
		}
	}
	if err := z.Close(); err != nil {
		return fmt.Errorf("write the bundle: %w", err)
	}
	return nil
}

// swatchFile holds the swatches of a bundle.
const swatchFile = "stores/swatches.json"

// Read reads a bundle. What is no bundle, of a newer form, too large or not whole is refused
// with an error that says so.
func Read(data []byte) (Bundle, error) {
	if len(data) > MaxBytes {
		return Bundle{}, fmt.Errorf("the file has %d MB; a card has %d at most", len(data)>>20, MaxBytes>>20)
	}
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return Bundle{}, ErrForeign
	}
	if len(z.File) > maxFiles {
		return Bundle{}, fmt.Errorf("there are %d files in it; a card has %d at most", len(z.File), maxFiles)
	}
	left := int64(maxOpen)
	open := func(f *zip.File) ([]byte, error) {
		r, err := f.Open()
		if err != nil {
			return nil, fmt.Errorf("%s in it cannot be opened: it is not whole. Save it once more where it was made", f.Name)
		}
		defer r.Close()
		b, err := io.ReadAll(io.LimitReader(r, left+1))
		if err != nil {
			return nil, fmt.Errorf("%s in it cannot be read: it is not whole. Save it once more where it was made", f.Name)
		}
		if left -= int64(len(b)); left < 0 {
			return nil, fmt.Errorf("unpacked it has more than %d MB: that is no card", maxOpen>>20)
		}
		return b, nil
	}
	var b Bundle
	var doc []byte
	var h head
	for _, f := range z.File {
		of, is := strings.CutPrefix(f.Name, "stores/")
		of, _, _ = strings.Cut(of, "/")
		switch {
		case f.Name == "ochre.json":
			raw, err := open(f)
			if err != nil {
				return Bundle{}, err
			}
			if err := json.Unmarshal(raw, &h); err != nil {
				return Bundle{}, ErrForeign
			}
		case f.Name == "card.json":
			if doc, err = open(f); err != nil {
				return Bundle{}, err
			}
		case f.Name == swatchFile:
			raw, err := open(f)
			if err != nil {
				return Bundle{}, err
			}
			if err := json.Unmarshal(raw, &b.Swatches); err != nil {
				return Bundle{}, fmt.Errorf("%s in it are no swatches", f.Name)
			}
		case is && slices.ContainsFunc(kinds, func(k kind) bool { return k.name == of }):
			raw, err := open(f)
			if err != nil {
				return Bundle{}, err
			}
			it, err := item(of, raw)
			if err != nil || it.ID == "" {
				return Bundle{}, fmt.Errorf("%s in it is not one of the %s", f.Name, of)
			}
			b.Items = append(b.Items, it)
		}
	}
	if h.Ochre == 0 || doc == nil {
		return Bundle{}, ErrForeign
	}
	if h.Ochre > Version {
		return Bundle{}, fmt.Errorf("it was saved by a newer Ochrestone (form %d; this one reads %d): bring this program up to date", h.Ochre, Version)
	}
	if b.Card, err = card.Read(doc); err != nil {
		return Bundle{}, err
	}
	return b, nil
}
