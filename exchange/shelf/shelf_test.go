package shelf

import (
	"bytes"
	"encoding/csv"
	"errors"
	"math"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/demo"
	"ochrestone/exchange/table"
)

// bare forgets what a table does not hold: ids, the offcuts of cardstock, and what is less than a
// millionth of a number.
func bare(v any) any {
	p := reflect.New(reflect.TypeOf(v))
	p.Elem().Set(reflect.ValueOf(v))
	p.Elem().FieldByName("ID").SetString("")
	if c, ok := p.Interface().(*kit.Cardstock); ok {
		c.Offcuts = nil
	}
	for i := range p.Elem().NumField() {
		if f := p.Elem().Field(i); f.Kind() == reflect.Float64 {
			f.SetFloat(math.Round(f.Float()*1e6) / 1e6)
		}
	}
	return p.Elem().Interface()
}

// What goes out as a table comes in as the same things, field by field, whatever the person's
// unit; and another reader of tables sees what is written.
func TestEveryShelfGoesOutAndComesIn(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	left := 17
	k.Papers = append(k.Papers, kit.Cardstock{ID: "x", Name: `=Odd; "quoted", paper`, Kind: kit.PaperVellum, Colour: "#aabbcc", GSM: 123.5, Caliper: 0.123, Finish: "smooth", Sheets: 3, W: 210, H: 297, Grain: "down", Where: "drawer 3"})
	k.Spacers = append(k.Spacers, kit.Spacer{ID: "x", Name: "Counted", Kind: "tape", Thickness: 1.5, W: 6, H: 1000, Left: &left, Where: "tin"})
	k.Adhesives = append(k.Adhesives, kit.Adhesive{ID: "x", Name: "Glue", Kind: "spray", SetMinutes: 2.5, Thickness: 0.01, Wiggle: true, Low: true, Where: "shelf"})
	k.Envelopes = append(k.Envelopes, kit.Envelope{ID: "x", Name: "Box", W: 120, H: 160, Caliper: 0.4, Padding: 1, Depth: 20, Grams: 14.5, Left: &left})
	k.Gems = append(k.Gems, kit.Gem{ID: "x", Name: "Shells", Size: 5, Height: 4.5, Colour: "#d99b2a", Left: &left, Where: "jar"})
	k.Machines = append(k.Machines, kit.Machine{ID: "x", Name: "Mine", W: 152.4, H: 330, Most: 0.7, Shim: "two sheets", Where: "attic"})
	for _, kind := range Kinds() {
		tab, ok := Of(kind)
		require.True(t, ok)
		var b bytes.Buffer
		require.NoError(t, tab.Write(&b, k))
		rows, err := csv.NewReader(bytes.NewReader(b.Bytes())).ReadAll()
		require.NoError(t, err)
		was := map[string]reflect.Value{"papers": reflect.ValueOf(k.Papers), "spacers": reflect.ValueOf(k.Spacers), "adhesives": reflect.ValueOf(k.Adhesives), "envelopes": reflect.ValueOf(k.Envelopes), "gems": reflect.ValueOf(k.Gems), "machines": reflect.ValueOf(k.Machines)}[kind]
		require.Len(t, rows, was.Len()+1, kind)
		assert.Equal(t, tab.Columns, rows[0])
		assert.Len(t, tab.In(k), was.Len())
		for _, u := range []measure.Unit{measure.Inches, measure.Millimetres} {
			got, notes, err := tab.Read(b.Bytes(), u)
			require.NoError(t, err)
			assert.Empty(t, notes)
			require.Len(t, got, was.Len())
			for i := range got {
				assert.Equal(t, bare(was.Index(i).Interface()), bare(got[i].Value), "%s, %s", kind, got[i].Name)
			}
		}
	}
	_, ok := Of("inks")
	assert.False(t, ok, "inks have a table of their own")
}

// Tables as people write them: semicolons, inches, columns in any order, and lines that cannot
// be taken, each named with its line.
func TestTablesAsPeopleWriteThem(t *testing.T) {
	tab, _ := Of("papers")
	got, notes, err := tab.Read([]byte("Thickness;Name;Colour;Width;Height;g/m2;Sheets\n0.011;Snow;#ffffff;8 1/2;11;216;12\n0,3 mm;Coal;#101010;210 mm;29,7 cm;300;\nthick;Odd;#ffffff;;;200;1\n0.01;Half;#ffffff;;;200;1.5\n0.01;Plum;plum;;;200;1\n"), measure.Inches)
	require.NoError(t, err)
	require.Len(t, got, 2)
	snow, coal := got[0].Value.(kit.Cardstock), got[1].Value.(kit.Cardstock)
	assert.InDelta(t, 215.9, snow.W, 1e-9, "8 1/2 inches, an inch being 25.4 mm exactly")
	assert.InDelta(t, 0.2794, snow.Caliper, 1e-9)
	assert.Equal(t, 12, snow.Sheets)
	assert.InDelta(t, 297, coal.H, 1e-9)
	assert.InDelta(t, 0.3, coal.Caliper, 1e-9)
	require.Len(t, notes, 3)
	assert.Contains(t, notes[0], "line 4, Odd: thickness is not right")
	assert.Contains(t, notes[1], "line 5, Half: sheets is not right: 1.5 is no whole number")
	assert.Contains(t, notes[2], "line 6, Plum: ")
	for file, want := range map[string]string{
		"":                                       "The table is empty.",
		"colour,width\n#fff,3\n":                 "There is no column called name.",
		"name,colour\nA,plum\n":                  "Nothing could be read. The first trouble: line 2, A",
		"name,colour\n":                          "There is nothing in the file.",
		"name\n\"open\nand so on":                "a quotation mark is open",
		"PK\x03\x04and other bits":               "save it as CSV",
		"name\n" + strings.Repeat("a\n", most+1): "more than 5000 lines",
	} {
		_, _, err := tab.Read([]byte(file), measure.Inches)
		var p *table.Problem
		require.True(t, errors.As(err, &p), "%q", file)
		assert.Contains(t, err.Error(), want)
		assert.NotEmpty(t, p.Mend)
	}
}

// Whatever is read is sound, and goes out and comes in as it is.
func FuzzRead(f *testing.F) {
	k, err := demo.Kit()
	require.NoError(f, err)
	for _, kind := range Kinds() {
		tab, _ := Of(kind)
		var b bytes.Buffer
		require.NoError(f, tab.Write(&b, k))
		f.Add(kind, b.Bytes())
	}
	f.Fuzz(func(t *testing.T, kind string, data []byte) {
		tab, ok := Of(kind)
		if !ok {
			return
		}
		got, _, err := tab.Read(data, measure.Inches)
		if err != nil {
			return
		}
		for _, i := range got {
			if err := i.Value.(interface{ Validate() error }).Validate(); err != nil {
				t.Errorf("%s %q is taken in and is not sound: %v", kind, i.Name, err)
			}
		}
	})
}
