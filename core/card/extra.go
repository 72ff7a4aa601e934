package card

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// extra holds the fields of an object that this version does not know. They are
// written again as they were read, so that a card made by a later version loses
// nothing here.
type extra map[string]json.RawMessage

// known are the names of the JSON fields of a type, in small letters as encoding/json
// takes them.
var known sync.Map // reflect.Type to map[string]reflect.Type

// fieldsOf gives the types of the fields by their names, those of embedded structs with
// them; nil for names that have no value to look into.
func fieldsOf(t reflect.Type) map[string]reflect.Type {
	if names, ok := known.Load(t); ok {
		return names.(map[string]reflect.Type)
	}
	names := map[string]reflect.Type{}
	for i := range t.NumField() {
		f := t.Field(i)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if f.Anonymous && name == "" {
			maps.Copy(names, fieldsOf(f.Type))
			continue
		}
		names[strings.ToLower(name)] = f.Type
	}
	known.Store(t, names)
	return names
}

// read decodes an object into a plain struct and gives the fields it has no place for,
// those of objects within it that have no extra of their own by their path ("shape.kind").
func read[T any](b []byte, into *T) (extra, error) {
	if err := json.Unmarshal(b, into); err != nil {
		return nil, err
	}
	var x extra
	if err := x.gather(b, reflect.TypeFor[T](), ""); err != nil {
		return nil, err
	}
	return x, nil
}

var own = reflect.TypeFor[json.Unmarshaler]()

// gather adds what of an object a type has no place for.
func (x *extra) gather(b []byte, t reflect.Type, under string) error {
	var all map[string]json.RawMessage
	if err := json.Unmarshal(b, &all); err != nil {
		return err
	}
	names := fieldsOf(t)
	for name, v := range all {
		f, known := names[strings.ToLower(name)]
		switch {
		case !known:
			if *x == nil {
				*x = extra{}
			}
			(*x)[under+name] = v
		case f == nil || string(v) == "null":
		case f.Kind() == reflect.Pointer && plainStruct(f.Elem()):
			if err := x.gather(v, f.Elem(), under+name+"."); err != nil {
				return err
			}
		case plainStruct(f):
			if err := x.gather(v, f, under+name+"."); err != nil {
				return err
			}
		case f.Kind() == reflect.Slice && plainStruct(f.Elem()):
			var list []json.RawMessage
			if err := json.Unmarshal(v, &list); err != nil {
				return err
			}
			for i, one := range list {
				if string(one) == "null" {
					continue
				}
				if err := x.gather(one, f.Elem(), fmt.Sprintf("%s%s.%d.", under, name, i)); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// plainStruct reports whether a type is an object that does not keep unknown fields itself.
func plainStruct(t reflect.Type) bool {
	return t.Kind() == reflect.Struct && !reflect.PointerTo(t).Implements(own)
}

// write encodes a plain struct with the fields it had no place for. What belongs into an
// object that is not there any more goes with it.
func write(v any, x extra) ([]byte, error) {
	b, err := json.Marshal(v)
	if err != nil || len(x) == 0 {
		return b, err
	}
	return x.into(b)
}

func (x extra) into(b []byte) ([]byte, error) {
	within := map[string]extra{}
	here := extra{}
	for path, v := range x {
		if head, rest, deep := strings.Cut(path, "."); deep {
			if within[head] == nil {
				within[head] = extra{}
			}
			within[head][rest] = v
			continue
		}
		here[path] = v
	}
	if b[0] == '[' {
		// Of a list: what lies within its objects, by their turn; what went with them is gone.
		var list []json.RawMessage
		if err := json.Unmarshal(b, &list); err != nil {
			return nil, err
		}
		for turn, inner := range within {
			i, err := strconv.Atoi(turn)
			if err != nil || i >= len(list) {
				continue
			}
			if list[i], err = inner.into(list[i]); err != nil {
				return nil, err
			}
		}
		return json.Marshal(list)
	}
	if len(within) > 0 {
		var all map[string]json.RawMessage
		if err := json.Unmarshal(b, &all); err != nil {
			return nil, err
		}
		for head, inner := range within {
			if all[head] == nil {
				continue
			}
			got, err := inner.into(all[head])
			if err != nil {
				return nil, err
			}
			// The order of the fields is kept: only what stands in this one is exchanged.
			b = bytes.Replace(b, append([]byte(strconv.Quote(head)+":"), all[head]...), append([]byte(strconv.Quote(head)+":"), got...), 1)
		}
	}
	var out bytes.Buffer
	out.Write(b[:len(b)-1])
	for _, name := range slices.Sorted(maps.Keys(here)) {
		if out.Len() > 1 {
			out.WriteByte(',')
		}
		fmt.Fprintf(&out, "%q:%s", name, here[name])
	}
	out.WriteByte('}')
	return out.Bytes(), nil
}

// UnmarshalJSON keeps the fields it does not know.
func (c *Card) UnmarshalJSON(doc []byte) (err error) {
	type plain Card
	c.extra, err = read(doc, (*plain)(c))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (c Card) MarshalJSON() ([]byte, error) {
	type plain Card
	return write(plain(c), c.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (b *Base) UnmarshalJSON(doc []byte) (err error) {
	type plain Base
	b.extra, err = read(doc, (*plain)(b))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (b Base) MarshalJSON() ([]byte, error) {
	type plain Base
	return write(plain(b), b.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (a *Aside) UnmarshalJSON(doc []byte) (err error) {
	type plain Aside
	a.extra, err = read(doc, (*plain)(a))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (a Aside) MarshalJSON() ([]byte, error) {
	type plain Aside
	return write(plain(a), a.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (m *Motif) UnmarshalJSON(doc []byte) (err error) {
	type plain Motif
	m.extra, err = read(doc, (*plain)(m))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (m Motif) MarshalJSON() ([]byte, error) {
	type plain Motif
	return write(plain(m), m.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (l *Layer) UnmarshalJSON(doc []byte) (err error) {
	type plain Layer
	l.extra, err = read(doc, (*plain)(l))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (l Layer) MarshalJSON() ([]byte, error) {
	type plain Layer
	return write(plain(l), l.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (c *Colourway) UnmarshalJSON(doc []byte) (err error) {
	type plain Colourway
	c.extra, err = read(doc, (*plain)(c))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (c Colourway) MarshalJSON() ([]byte, error) {
	type plain Colourway
	return write(plain(c), c.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (f *Finish) UnmarshalJSON(doc []byte) (err error) {
	type plain Finish
	f.extra, err = read(doc, (*plain)(f))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (f Finish) MarshalJSON() ([]byte, error) {
	type plain Finish
	return write(plain(f), f.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (b *Blend) UnmarshalJSON(doc []byte) (err error) {
	type plain Blend
	b.extra, err = read(doc, (*plain)(b))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (b Blend) MarshalJSON() ([]byte, error) {
	type plain Blend
	return write(plain(b), b.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (e *Element) UnmarshalJSON(doc []byte) (err error) {
	type plain Element
	e.extra, err = read(doc, (*plain)(e))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (e Element) MarshalJSON() ([]byte, error) {
	type plain Element
	return write(plain(e), e.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (p *Place) UnmarshalJSON(doc []byte) (err error) {
	type plain Place
	p.extra, err = read(doc, (*plain)(p))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (p Place) MarshalJSON() ([]byte, error) {
	type plain Place
	return write(plain(p), p.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (b *Bond) UnmarshalJSON(doc []byte) (err error) {
	type plain Bond
	b.extra, err = read(doc, (*plain)(b))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (b Bond) MarshalJSON() ([]byte, error) {
	type plain Bond
	return write(plain(b), b.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (s *Sheet) UnmarshalJSON(doc []byte) (err error) {
	type plain Sheet
	s.extra, err = read(doc, (*plain)(s))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (s Sheet) MarshalJSON() ([]byte, error) {
	type plain Sheet
	return write(plain(s), s.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (t *Treatment) UnmarshalJSON(doc []byte) (err error) {
	type plain Treatment
	t.extra, err = read(doc, (*plain)(t))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (t Treatment) MarshalJSON() ([]byte, error) {
	type plain Treatment
	return write(plain(t), t.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (w *Words) UnmarshalJSON(doc []byte) (err error) {
	type plain Words
	w.extra, err = read(doc, (*plain)(w))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (w Words) MarshalJSON() ([]byte, error) {
	type plain Words
	return write(plain(w), w.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (t *Turned) UnmarshalJSON(doc []byte) (err error) {
	type plain Turned
	t.extra, err = read(doc, (*plain)(t))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (t Turned) MarshalJSON() ([]byte, error) {
	type plain Turned
	return write(plain(t), t.extra)
}

// UnmarshalJSON keeps the fields it does not know.
func (i *Image) UnmarshalJSON(doc []byte) (err error) {
	type plain Image
	i.extra, err = read(doc, (*plain)(i))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (i Image) MarshalJSON() ([]byte, error) {
	type plain Image
	return write(plain(i), i.extra)
}
