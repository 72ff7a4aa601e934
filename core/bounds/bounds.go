// Package bounds is the one list of how long names are and how many of a thing there may be,
// whichever way it comes in: by the page, with a card from elsewhere, in a table, or in a data
// file. What a struct says of its fields in maxLength and maxItems goes first, as the interface
// goes by the same; what it says nothing of has the usual bounds here.
package bounds

import (
	"encoding"
	"fmt"
	"reflect"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"ochrestone/core/words"
)

// The usual bounds; our own defaults.
const (
	MostLetters = 200       // of a name, a title, a label
	MostID      = 100       // letters of an id
	MostWords   = 20_000    // letters of a note, or of any other text
	MostPath    = 4_000_000 // letters of an outline
	MostItems   = 50_000    // things in a list
)

// Excess says what is longer, or more, than it may be, and where.
type Excess struct {
	Path string // of the field, as in the document
	What string
}

func (e *Excess) Error() string { return e.Path + " " + e.What }

// Check returns an Excess for the first field of a value that is out of bounds, nil where all
// are within. Values that read themselves from text, such as outlines, are passed over: they
// have bounds of their own. An id may not hold a slash or a letter nobody sees, as it stands in
// addresses.
func Check(v any) error { return walk(reflect.ValueOf(v), "", "", "") }

var textual = reflect.TypeFor[encoding.TextUnmarshaler]()

func walk(v reflect.Value, path, name string, tag reflect.StructTag) error {
	if !v.IsValid() {
		return nil
	}
	t := v.Type()
	if reflect.PointerTo(t).Implements(textual) {
		return nil
	}
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		if v.IsNil() {
			return nil
		}
		return walk(v.Elem(), path, name, tag)
	case reflect.Struct:
		for i := range t.NumField() {
			f := t.Field(i)
			if !f.IsExported() {
				continue
			}
			n, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			at := path
			if !f.Anonymous || n != "" {
				if n == "" || n == "-" {
					n = f.Name
				}
				at = join(path, n)
			}
			if err := walk(v.Field(i), at, n, f.Tag); err != nil {
				return err
			}
		}
	case reflect.Slice, reflect.Array:
		if t.Elem().Kind() == reflect.Uint8 {
			return length(path, v.Len(), MostPath)
		}
		if most := given(tag, "maxItems", MostItems); v.Len() > most {
			return &Excess{path, fmt.Sprintf("has %d entries; at most %d", v.Len(), most)}
		}
		for i := range v.Len() {
			if err := walk(v.Index(i), fmt.Sprintf("%s[%d]", path, i), name, ""); err != nil {
				return err
			}
		}
	case reflect.Map:
		if most := given(tag, "maxProperties", MostItems); v.Len() > most {
			return &Excess{path, fmt.Sprintf("has %d entries; at most %d", v.Len(), most)}
		}
		for it := v.MapRange(); it.Next(); {
			if it.Key().Kind() == reflect.String {
				if err := length(path, utf8.RuneCountInString(it.Key().String()), MostLetters); err != nil {
					return err
				}
			}
			if err := walk(it.Value(), join(path, shortly(fmt.Sprint(it.Key()))), "", ""); err != nil {
				return err
			}
		}
	case reflect.String:
		return text(path, name, v.String(), tag)
	}
	return nil
}

func text(path, name, s string, tag reflect.StructTag) error {
	most := MostWords
	switch name {
	case "name", "title", "label", "where", "family":
		most = MostLetters
	case "lines", "path", "outline":
		most = MostPath
	case "id":
		most = MostID
		for _, r := range s {
			if r == '/' || r == '\\' || r == utf8.RuneError || !unicode.IsPrint(r) {
				return &Excess{path, fmt.Sprintf("is %q: an id has no slash in it and no letter that cannot be seen", shortly(s))}
			}
		}
	}
	return length(path, utf8.RuneCountInString(s), given(tag, "maxLength", most))
}

func length(path string, n, most int) error {
	if n > most {
		return &Excess{path, fmt.Sprintf("has %s; at most %d", words.Count(n, "letter"), most)}
	}
	return nil
}

func given(tag reflect.StructTag, name string, or int) int {
	if n, err := strconv.Atoi(tag.Get(name)); err == nil {
		return n
	}
	return or
}

func join(path, name string) string {
	if path == "" {
		return name
	}
	return path + "." + name
}

func shortly(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40]) + "…"
	}
	return s
}
