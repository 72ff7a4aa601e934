// Package shelf reads and writes what is on the shelves of the stores as tables: cardstock,
// spacers, adhesives, envelopes and machines, one kind to a table.
package shelf

import (
	"fmt"
	"io"
	"math"
	"reflect"
	"strconv"
	"strings"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/exchange/table"
)

// most bounds a file.
const most = 5000

// Item is a thing that was read.
type Item struct {
	Name  string
	Value any // a kit.Cardstock, kit.Spacer, kit.Adhesive, kit.Envelope, kit.Gem or kit.Machine, without an id
}

// As is the thing with an id of its own.
func (i Item) As(id string) any {
	v := reflect.New(reflect.TypeOf(i.Value)).Elem()
	v.Set(reflect.ValueOf(i.Value))
	v.FieldByName("ID").SetString(id)
	return v.Interface()
}

// Table is how a kind of thing is written and read.
type Table struct {
	// Write writes what of the kind is in a kit.
	Write func(w io.Writer, k kit.Kit) error
	// Read reads a table with a heading; columns may stand in any order, unknown ones are passed
	// over, a length without a unit is in the unit its heading names, else in the one given.
	// Lines that cannot be taken are told in notes. An error says what is wrong with the file.
	Read func(data []byte, u measure.Unit) (items []Item, notes []string, err error)
	// Columns are the names of its columns.
	Columns []string
	// In gives the things of the kind that a kit has by the names they go by.
	In func(k kit.Kit) []string
}

// column is a field of a thing in a table: at gives its place.
type column[T any] struct {
	name   string
	length bool // in mm
	at     func(*T) any
}

func field[T any](name string, at func(*T) any) column[T]  { return column[T]{name, false, at} }
func length[T any](name string, at func(*T) any) column[T] { return column[T]{name, true, at} }

// heading is what a column is called in a table that is written.
func (c column[T]) heading() string {
	if c.length {
		return c.name + " mm"
	}
	return c.name
}

// Kinds are the kinds there are, by their names in the stores.
func Kinds() []string {
	return []string{"papers", "spacers", "adhesives", "envelopes", "gems", "machines"}
}

// Of gives the table of a kind, and whether there is one.
func Of(kind string) (Table, bool) {
	switch kind {
	case "papers":
		return tableOf(func(k kit.Kit) []kit.Cardstock { return k.Papers }, func(p *kit.Cardstock) {
			if p.Kind == "" {
				p.Kind = kit.PaperCard
			}
			if p.W == 0 && p.H == 0 {
				p.W, p.H = measure.Letter.W, measure.Letter.H
			}
		},
			field("name", func(p *kit.Cardstock) any { return &p.Name }), field("kind", func(p *kit.Cardstock) any { return &p.Kind }),
			field("colour", func(p *kit.Cardstock) any { return &p.Colour }), field("g/m2", func(p *kit.Cardstock) any { return &p.GSM }),
			length("thickness", func(p *kit.Cardstock) any { return &p.Caliper }), field("finish", func(p *kit.Cardstock) any { return &p.Finish }),
			field("sheets", func(p *kit.Cardstock) any { return &p.Sheets }), length("width", func(p *kit.Cardstock) any { return &p.W }),
			length("height", func(p *kit.Cardstock) any { return &p.H }), field("grain", func(p *kit.Cardstock) any { return &p.Grain }),
			field("where kept", func(p *kit.Cardstock) any { return &p.Where })), true
	case "spacers":
		return tableOf(func(k kit.Kit) []kit.Spacer { return k.Spacers }, func(s *kit.Spacer) {
			if s.Kind == "" {
				s.Kind = "square"
			}
		},
			field("name", func(s *kit.Spacer) any { return &s.Name }), field("kind", func(s *kit.Spacer) any { return &s.Kind }),
			length("thickness", func(s *kit.Spacer) any { return &s.Thickness }), length("width", func(s *kit.Spacer) any { return &s.W }),
			length("height", func(s *kit.Spacer) any { return &s.H }), field("left", func(s *kit.Spacer) any { return &s.Left }),
			field("where kept", func(s *kit.Spacer) any { return &s.Where })), true
	case "adhesives":
		return tableOf(func(k kit.Kit) []kit.Adhesive { return k.Adhesives }, func(a *kit.Adhesive) {
			if a.Kind == "" {
				a.Kind = "liquid"
			}
		},
			field("name", func(a *kit.Adhesive) any { return &a.Name }), field("kind", func(a *kit.Adhesive) any { return &a.Kind }),
			field("sets in minutes", func(a *kit.Adhesive) any { return &a.SetMinutes }), length("thickness", func(a *kit.Adhesive) any { return &a.Thickness }),
			field("time to move", func(a *kit.Adhesive) any { return &a.Wiggle }), field("shows through vellum", func(a *kit.Adhesive) any { return &a.Shows }),
			field("low", func(a *kit.Adhesive) any { return &a.Low }), field("where kept", func(a *kit.Adhesive) any { return &a.Where })), true
	case "envelopes":
		return tableOf(func(k kit.Kit) []kit.Envelope { return k.Envelopes }, func(*kit.Envelope) {},
			field("name", func(e *kit.Envelope) any { return &e.Name }), length("inside width", func(e *kit.Envelope) any { return &e.W }),
			length("inside height", func(e *kit.Envelope) any { return &e.H }), length("wall", func(e *kit.Envelope) any { return &e.Caliper }),
			length("padding", func(e *kit.Envelope) any { return &e.Padding }), length("box height", func(e *kit.Envelope) any { return &e.Depth }),
			field("weight g", func(e *kit.Envelope) any { return &e.Grams }), field("left", func(e *kit.Envelope) any { return &e.Left }),
			field("where kept", func(e *kit.Envelope) any { return &e.Where })), true
	case "gems":
		return tableOf(func(k kit.Kit) []kit.Gem { return k.Gems }, func(g *kit.Gem) {
			if g.Height == 0 {
				g.Height = g.Size / 2
			}
		},
			field("name", func(g *kit.Gem) any { return &g.Name }), length("across", func(g *kit.Gem) any { return &g.Size }),
			length("height", func(g *kit.Gem) any { return &g.Height }), field("colour", func(g *kit.Gem) any { return &g.Colour }),
			field("left", func(g *kit.Gem) any { return &g.Left }), field("where kept", func(g *kit.Gem) any { return &g.Where })), true
	case "machines":
		return tableOf(func(k kit.Kit) []kit.Machine { return k.Machines }, func(*kit.Machine) {},
			field("name", func(m *kit.Machine) any { return &m.Name }), length("plate width", func(m *kit.Machine) any { return &m.W }),
			length("plate length", func(m *kit.Machine) any { return &m.H }), length("cuts", func(m *kit.Machine) any { return &m.Most }),
			field("shims", func(m *kit.Machine) any { return &m.Shim }), field("where kept", func(m *kit.Machine) any { return &m.Where })), true
	}
	return Table{}, false
}

// tableOf is the table of a kind whose things a kit gives; usual fills in what a line leaves
// out.
func tableOf[T interface{ Validate() error }](in func(kit.Kit) []T, usual func(*T), columns ...column[T]) Table {
	var t Table
	for _, c := range columns {
		t.Columns = append(t.Columns, c.heading())
	}
	t.In = func(k kit.Kit) (names []string) {
		for _, v := range in(k) {
			names = append(names, *columns[0].at(&v).(*string))
		}
		return names
	}
	t.Write = func(w io.Writer, k kit.Kit) error {
		rows := [][]string{t.Columns}
		for _, v := range in(k) {
			row := make([]string, len(columns))
			for i, c := range columns {
				row[i] = written(c.at(&v))
			}
			rows = append(rows, row)
		}
		return table.Write(w, rows)
	}
	t.Read = func(data []byte, u measure.Unit) (items []Item, notes []string, err error) {
		notes, err = table.Each(data, most, strings.Join(t.Columns, ", "), func(get func(string) string, line int) error {
			var v T
			name := get("name")
			for _, c := range columns {
				if err := c.read(&v, get, u); err != nil {
					return fmt.Errorf("line %d, %s: %s is not right: %w; left out", line, name, c.name, err)
				}
			}
			usual(&v)
			if err := v.Validate(); err != nil {
				return fmt.Errorf("line %d, %s: %s; left out", line, name, strings.ReplaceAll(err.Error(), "\n", "; "))
			}
			items = append(items, Item{name, v})
			return nil
		})
		if err != nil {
			return nil, nil, err
		}
		if len(items) == 0 {
			what := "There is nothing in the file."
			if len(notes) > 0 {
				what = "Nothing could be read. The first trouble: " + notes[0] + "."
			}
			return nil, nil, &table.Problem{What: what, Mend: "Its columns are " + strings.Join(t.Columns, ", ") + ", one thing to a line."}
		}
		return items, notes, nil
	}
	return t
}

// written is a field as a cell.
func written(at any) string {
	switch v := reflect.ValueOf(at).Elem(); v.Kind() {
	case reflect.String:
		return v.String()
	case reflect.Float64:
		// To a millionth: a sixteenth of an inch in mm reads as people write it.
		return strconv.FormatFloat(math.Round(v.Float()*1e6)/1e6, 'f', -1, 64)
	case reflect.Int:
		return strconv.FormatInt(v.Int(), 10)
	case reflect.Bool:
		if v.Bool() {
			return "yes"
		}
	case reflect.Pointer:
		if !v.IsNil() {
			return strconv.FormatInt(v.Elem().Int(), 10)
		}
	}
	return ""
}

// read reads a field from its cell; an empty one leaves it as it is.
func (c column[T]) read(to *T, get func(string) string, u measure.Unit) error {
	cell := get(c.name)
	if c.length {
		for heading, unit := range map[string]measure.Unit{c.name + " mm": measure.Millimetres, c.name + " in": measure.Inches} {
			if s := get(heading); s != "" {
				cell, u = s, unit
			}
		}
	}
	if cell == "" {
		return nil
	}
	v := reflect.ValueOf(c.at(to)).Elem()
	switch {
	case c.length:
		mm, err := measure.Parse(cell, u)
		if err != nil {
			return err
		}
		v.SetFloat(float64(mm))
	case v.Kind() == reflect.String && c.name != "kind" && c.name != "grain":
		v.SetString(cell)
	case v.Kind() == reflect.String:
		v.SetString(strings.ToLower(cell))
	case v.Kind() == reflect.Bool:
		v.SetBool(table.Yes(cell))
	default:
		n, err := measure.ParseNumber(cell)
		if err != nil {
			return err
		}
		if v.Kind() == reflect.Float64 {
			v.SetFloat(n)
			return nil
		}
		if n != math.Trunc(n) || math.Abs(n) > 1e6 {
			return fmt.Errorf("%s is no whole number of them", cell)
		}
		if v.Kind() == reflect.Pointer {
			whole := int(n)
			v.Set(reflect.ValueOf(&whole))
			return nil
		}
		v.SetInt(int64(n))
	}
	return nil
}
