package svgin

import (
	"math"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

func wrap(attrs, body string) []byte {
	return []byte(`<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ` + attrs + ">\n" + body + "\n</svg>")
}

func one(t *testing.T, attrs, body string) kit.Part {
	t.Helper()
	d, err := Read(wrap(attrs, body))
	require.NoError(t, err)
	require.Len(t, d.Parts, 1)
	return d.Parts[0]
}

// CSS: 96 px, 72 pt and 6 pc to the inch, exactly.
func TestUnits(t *testing.T) {
	for attrs, mm := range map[string]float64{
		``:                                 25.4 / 96 * 10,
		`width="100mm" height="50mm"`:      25.4 / 96 * 10,
		`width="96px" viewBox="0 0 96 96"`: 25.4 / 96 * 10,
		`width="1in" viewBox="0 0 96 96"`:  25.4 / 96 * 10,
		`width="50mm" height="50mm" viewBox="0 0 100 100"`: 5,
		`width="5cm" viewBox="-50 -50 100 100"`:            5,
		`width="72pt" viewBox="0 0 254 254"`:               1,
		`width="6pc" viewBox="0 0 254 254"`:                1,
		`width="100%" height="100%" viewBox="0 0 10 10"`:   25.4 / 96 * 10,
	} {
		p := one(t, attrs, `<rect width="10" height="10"/>`)
		assert.InDelta(t, mm, p.Outline.Bounds().W(), 2e-3, attrs)
		assert.InDelta(t, mm*mm, p.Outline.Area(), 2e-2*mm, attrs)
	}
	p := one(t, `width="100mm" viewBox="0 0 100 100"`, `<circle cx="50" cy="50" r="10mm"/>`)
	assert.InDelta(t, 2*10/(25.4/96), p.Outline.Bounds().W(), 0.05, "10 mm are 37.8 user units, here of 1 mm")
}

const mm = `width="100mm" height="100mm" viewBox="0 0 100 100"`

// Closed forms of the basic shapes, and the path-data commands of the SVG 1.1
// recommendation, chapter 8 (its triangle, its pie and its relative forms).
func TestShapesAgainstClosedForms(t *testing.T) {
	for body, area := range map[string]float64{
		`<circle cx="20" cy="20" r="10"/>`:                                           math.Pi * 100,
		`<ellipse cx="20" cy="20" rx="10" ry="5"/>`:                                  math.Pi * 50,
		`<rect x="1" y="1" width="20" height="10"/>`:                                 200,
		`<rect width="20" height="10" rx="2"/>`:                                      200 - 4*4 + math.Pi*4,
		`<polygon points="0,0 10,0 10,10"/>`:                                         50,
		`<path d="M 10 10 L 30 10 L 20 30 z"/>`:                                      200,
		`<path d="m10 10 20 0-10 20z"/>`:                                             200,
		`<path d="M10,10h20v10h-20Z"/>`:                                              200,
		`<path d="M40,40 h-15 a15,15 0 1,0 15,-15 z"/>`:                              0.75 * math.Pi * 225,
		`<path d="M0 0 H20 V20 H0 Z M5 5 V15 H15 V5 Z" fill-rule="evenodd"/>`:        300,
		`<path d="M0 0 H20 V20 H0 Z M5 5 H15 V15 H5 Z"/>`:                            400,
		`<path d="M0 0 H20 V20 H0 Z M5 5 H15 V15 H5 Z" style="fill-rule: evenodd"/>`: 300,
		`<path d="M0 0 H20 V20 H0 Z M5 5 V15 H15 V5 Z"/>`:                            300,
		`<path d="M10 10 Q20 -10 30 10 T50 10 L50 30 L10 30 Z"/>`:                    800 + 400.0/3/1 - 400.0/3/1,
	} {
		p := one(t, mm, body)
		assert.InEpsilon(t, area, p.Outline.Area(), 4e-3, body)
	}
}

func TestTransformsNest(t *testing.T) {
	p := one(t, mm, `<g transform="translate(10,20)"><g transform="scale(2) rotate(90)"><rect width="10" height="5"/></g></g>`)
	b := p.Outline.Bounds()
	assert.InDelta(t, 0, b.Min.X, 1e-3, "turned by a quarter clockwise on screen: x runs to -5·2")
	assert.InDelta(t, 10, b.Max.X, 1e-3)
	assert.InDelta(t, 20, b.Min.Y, 1e-3)
	assert.InDelta(t, 40, b.Max.Y, 1e-3)
	p = one(t, mm, `<rect width="10" height="10" transform="matrix(1 0 0.5 1 0 0)"/>`)
	assert.InDelta(t, 100, p.Outline.Area(), 0.01)
	assert.InDelta(t, 15, p.Outline.Bounds().W(), 1e-3)
	p = one(t, mm, `<rect width="10" height="10" transform="rotate(45 5 5), skewX(0)"/>`)
	assert.InDelta(t, 10*math.Sqrt2, p.Outline.Bounds().W(), 2e-3)
}

func TestLayersKeepTheirNamesAndGetAnOrder(t *testing.T) {
	body := `<g id="Ground"><rect x="10" y="10" width="80" height="80"/></g>
<path id="Middle" d="M20 20H80V80H20Z"/>
<g id="Pair"><circle cx="30" cy="30" r="4"/><circle cx="70" cy="30" r="4"/></g>
<g id="Little_one"><circle cx="50" cy="50" r="6"/></g>`
	for _, wrapped := range []string{body, `<g id="page"><g>` + body + `</g></g>`} {
		d, err := Read(wrap(mm, wrapped))
		require.NoError(t, err)
		var names []string
		host := map[string]string{}
		label := map[string]string{"": ""}
		for _, p := range d.Parts {
			label[p.ID] = p.Label
		}
		for _, p := range d.Parts {
			names = append(names, p.Label)
			host[p.Label] = label[p.Host]
		}
		assert.Equal(t, []string{"Ground", "Middle", "Pair", "Little one"}, names, "as drawn: what is drawn first lies lowest, the order of painting (SVG 2, 3.4)")
		assert.Equal(t, "Ground", host["Middle"])
		assert.Equal(t, "Middle", host["Little one"])
		assert.Equal(t, "Middle", host["Pair"])
		assert.Equal(t, []int{1, 2, 3, 3}, []int{d.Parts[0].Rank, d.Parts[1].Rank, d.Parts[2].Rank, d.Parts[3].Rank})
		assert.Equal(t, kit.FitWithin, d.Parts[2].Fit)
	}
	d, err := Read(wrap(mm, `<g id="A"><rect width="20" height="20"/></g><g id="A"><rect width="10" height="10"/></g>`))
	require.NoError(t, err)
	assert.Equal(t, "A 2", d.Parts[1].Label)
}

func TestBadDrawingsNameElementAndLine(t *testing.T) {
	for name, c := range map[string]struct {
		doc  []byte
		line int
		word string
	}{
		"script":        {wrap(mm, "<rect width=\"5\" height=\"5\"/>\n<script>alert(1)</script>"), 3, "script"},
		"handler":       {wrap(mm, `<rect width="5" height="5" onclick="x()"/>`), 2, "script"},
		"entity":        {[]byte("<?xml version=\"1.0\"?>\n<!DOCTYPE svg [<!ENTITY a \"aaaa\">]>\n<svg><text>&a;</text></svg>"), 2, "entities"},
		"other entity":  {wrap(mm, "<desc>&nbsp;</desc>"), 2, "entity"},
		"external":      {wrap(mm, `<image href="http://elsewhere.invalid/a.png"/>`), 2, "links"},
		"external css":  {wrap(mm, `<rect width="5" height="5" fill="url(http://x.invalid/#a)"/>`), 2, "links"},
		"negative":      {wrap(mm, `<rect width="-5" height="5"/>`), 2, "-5"},
		"negative size": {wrap(`width="-5mm" height="5mm"`, `<rect width="5" height="5"/>`), 1, "sheet"},
		"huge":          {wrap(`width="9000mm" viewBox="0 0 10 10"`, `<rect width="10" height="10"/>`), 0, "9000"},
		"nan":           {wrap(mm, `<circle cx="NaN" cy="1" r="4"/>`), 2, "circle"},
		"path":          {wrap(mm, `<path id="wing" d="M0 0 L 10 banana"/>`), 2, "wing"},
		"no move":       {wrap(mm, `<path d="L 10 10 20 0"/>`), 2, "begins with M"},
		"points":        {wrap(mm, `<polygon points="0,0 1"/>`), 2, "corners"},
		"unit":          {wrap(`width="5furlongs"`, `<rect width="5" height="5"/>`), 1, "furlongs"},
		"viewBox":       {wrap(`viewBox="0 0 0 0"`, `<rect width="5" height="5"/>`), 1, "viewBox"},
		"transform":     {wrap(mm, `<g transform="twist(4)"><rect width="5" height="5"/></g>`), 2, "twist"},
		"cut off":       {[]byte("<svg>\n<g>\n<rect width='5' height='5'/>"), 3, "well formed"},
		"not svg":       {[]byte("<html><body/></html>"), 1, "not an SVG"},
		"empty":         {nil, 0, "empty"},
		"binary":        {[]byte("\x89PNG\r\n\x1a\n\x00\x00"), 0, "well formed"},
		"nothing":       {wrap(mm, `<text>hello</text>`), 0, "no closed outline"},
		"deep":          {wrap(mm, strings.Repeat("<g>", 80)+strings.Repeat("</g>", 80)), 0, "64 deep"},
		"too long":      {append(wrap(mm, ""), make([]byte, MaxBytes)...), 0, "MB"},
	} {
		_, err := Read(c.doc)
		var p *Problem
		require.ErrorAs(t, err, &p, name)
		if c.line > 0 {
			assert.Equal(t, c.line, p.Line, "%s: %v", name, err)
		}
		assert.Contains(t, err.Error(), c.word, name)
		assert.NotEmpty(t, p.Mend, name)
	}
}

func TestWhatIsPassedOverIsNoted(t *testing.T) {
	d, err := Read(wrap(mm, `<rect id="a" width="30" height="30"/>
<path fill="none" stroke="black" d="M0 0 L 10 10 L 20 0"/>
<text>hi</text><g id="Empty"></g>
<use href="#a"/><rect id="speck" width="0.05" height="0.05"/>
<rect width="5" height="5" display="none"/>
<path id="bow" d="M50 50 L70 70 L70 50 L50 70 Z"/>`))
	require.NoError(t, err)
	notes := strings.Join(d.Notes, "\n")
	for _, w := range []string{"open line", "is text", "Empty has no closed outline", "a drawn once more", "speck has no closed outline", "hidden"} {
		assert.Contains(t, notes, w)
	}
	require.Len(t, d.Parts, 2)
	assert.InDelta(t, 200, d.Parts[1].Outline.Area(), 0.5, "a crossing outline is settled into its two wings")
}

// Of a switch the first child that its reader is meant to see is drawn, and no other (SVG 2, 5.9): not
// what needs an extension, nor what is in a language that is not read.
func TestOfASwitchOneIsDrawn(t *testing.T) {
	for name, c := range map[string]struct {
		body string
		area float64
	}{
		"the first":       {`<switch><rect id="a" width="10" height="10"/><rect id="b" width="20" height="20"/></switch>`, 100},
		"no extension":    {`<switch><foreignObject requiredExtensions="http://x.invalid/"><p/></foreignObject><rect id="b" width="20" height="20"/></switch>`, 400},
		"language":        {`<switch><g systemLanguage="de, fr"><rect width="10" height="10"/></g><g systemLanguage="fr,en-GB"><rect width="20" height="20"/></g><rect width="5" height="5"/></switch>`, 400},
		"what is named":   {`<switch><title>Two</title><rect width="10" height="10"/><rect width="20" height="20"/></switch>`, 100},
		"both in a group": {`<switch><g><rect width="10" height="10"/><rect x="30" width="20" height="20"/></g><rect width="5" height="5"/></switch>`, 500},
		"of its own":      {`<g><rect systemLanguage="de" width="10" height="10"/><rect x="30" width="20" height="20"/></g>`, 400},
	} {
		d, err := Read(wrap(mm, c.body))
		require.NoError(t, err, name)
		sum := 0.0
		for _, p := range d.Parts {
			sum += p.Outline.Area()
		}
		assert.InDelta(t, c.area, sum, 0.01, name)
	}
}

// The properties translate, rotate and scale act in this order before transform, about its origin (CSS
// Transforms 2, 5); attributes of such names do nothing.
func TestMovedByPropertiesOfTheirOwn(t *testing.T) {
	for name, c := range map[string]struct {
		style string
		left  float64
		top   float64
		right float64
		low   float64
	}{
		"larger":       {`style="scale: 2"`, 20, 0, 40, 20},
		"two numbers":  {`style="scale: 2 50%"`, 20, 0, 40, 5},
		"moved":        {`style="translate: 5px 3px"`, 15, 3, 25, 13},
		"a quarter":    {`style="rotate: 90deg"`, -10, 10, 0, 20},
		"in order":     {`style="scale: 2; translate: 5px"`, 25, 0, 45, 20},
		"and then":     {`style="scale: 2; transform: translate(5px, 0)"`, 30, 0, 50, 20},
		"its origin":   {`style="scale: 2; transform-origin: 10px 0px"`, 10, 0, 30, 20},
		"none":         {`style="scale: none; rotate: none"`, 10, 0, 20, 10},
		"an attribute": {`scale="2" rotate="90"`, 10, 0, 20, 10},
	} {
		d, err := Read(wrap(mm, `<rect x="-60" y="-60" width="5" height="5"/><g `+c.style+`><rect x="10" width="10" height="10"/></g>`))
		require.NoError(t, err, name)
		require.Len(t, d.Parts, 2, name)
		b, a := d.Parts[1].Outline.Bounds(), d.Parts[0].Outline.Bounds()
		for i, v := range [4][2]float64{{c.left, b.Min.X}, {c.top, b.Min.Y}, {c.right, b.Max.X}, {c.low, b.Max.Y}} {
			assert.InDelta(t, v[0], v[1]-[2]float64{a.Min.X + 60, a.Min.Y + 60}[i%2], 0.01, "%s, %d", name, i)
		}
	}
}

// The demo's own drawings come through the same door.
func TestDemoDrawingsReadWhole(t *testing.T) {
	for file, n := range map[string]int{"hawk-moth": 9, "beetle": 4} {
		raw, err := os.ReadFile("../../demo/art/" + file + ".svg")
		require.NoError(t, err)
		d, err := Read(raw)
		require.NoError(t, err)
		assert.Len(t, d.Parts, n)
		assert.Empty(t, d.Notes)
	}
}

func FuzzRead(f *testing.F) {
	f.Add(wrap(mm, `<g transform="rotate(3)"><path d="M0 0 C 1 2 3 4 5 6 a1 1 0 0 1 5 5z"/></g>`))
	f.Add([]byte("<svg viewBox='0 0 1'/>"))
	f.Fuzz(func(t *testing.T, b []byte) {
		d, err := Read(b)
		if err == nil && len(d.Parts) == 0 {
			t.Fatal("neither parts nor a problem")
		}
	})
}
