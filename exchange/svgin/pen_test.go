package svgin

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A line is what it covers: its area, box and holes are those that another renderer,
// librsvg, draws, for open and closed lines, with every cap, corner and dash.
func TestLinesComeInAsARendererDrawsThem(t *testing.T) {
	for name, body := range map[string]string{
		"ring":         `<circle id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="2.4" cx="50" cy="40" r="20"/>`,
		"open butt":    `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="3" d="M10 10L60 30L20 60"/>`,
		"open round":   `<path id="c_ff0000" style="fill:none;stroke:#ff0000;stroke-width:3;stroke-linecap:round;stroke-linejoin:round" d="M10 10L60 30L20 60"/>`,
		"open square":  `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="3" stroke-linecap="square" stroke-linejoin="bevel" d="M10 10L60 30L20 60"/>`,
		"line":         `<line id="c_ff0000" stroke="#ff0000" stroke-width="2" x1="10" y1="10" x2="80" y2="50"/>`,
		"polyline":     `<polyline id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="2" points="10,10 80,50"/>`,
		"dashes":       `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="2" stroke-dasharray="6 3" d="M10 10H80V60"/>`,
		"dashes moved": `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="2" stroke-dasharray="6 3" stroke-dashoffset="4" d="M10 10H80V60"/>`,
		"sharp corner": `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="3" d="M10 20L70 24L10 28"/>`,
		"filled too":   `<path id="c_ff0000" fill="#ff0000" stroke="#ff0000" stroke-width="4" d="M20 20H60V50H20z"/>`,
		"curve":        `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="5" d="M10 60C10 0 90 0 90 60"/>`,
		"crossing":     `<path id="c_ff0000" fill="none" stroke="#ff0000" stroke-width="2" d="M10 10L70 60M70 10L10 60"/>`,
		"scaled":       `<g id="c_ff0000" transform="scale(2 1)" fill="none" stroke="#ff0000" stroke-width="2"><circle cx="25" cy="40" r="15"/></g>`,
		"cut by":       `<clipPath id="k"><rect x="0" y="0" width="50" height="80"/></clipPath><circle id="c_ff0000" clip-path="url(#k)" fill="none" stroke="#ff0000" stroke-width="4" cx="50" cy="40" r="20"/>`,
	} {
		t.Run(name, func(t *testing.T) {
			doc := `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80">` + body + `</svg>`
			file := filepath.Join(t.TempDir(), "line.svg")
			require.NoError(t, os.WriteFile(file, []byte(doc), 0o600))
			box, area := seen(rendered(t, file), "ff0000")
			for _, how := range [][]Option{nil, {Inked()}} {
				if how == nil && strings.HasPrefix(name, "dashes") {
					continue // on a die they are pressed
				}
				d, err := Read([]byte(doc), how...)
				require.NoError(t, err)
				require.Len(t, d.Parts, 1)
				got := d.Parts[0].Outline
				assert.InDelta(t, area, got.Area(), 0.005*area+0.06*got.Length(), "area")
				b := got.Bounds()
				for _, side := range [][2]float64{{box.Min.X, b.Min.X}, {box.Min.Y, b.Min.Y}, {box.Max.X, b.Max.X}, {box.Max.Y, b.Max.Y}} {
					assert.InDelta(t, side[0], side[1], 0.2, "side")
				}
				assert.NotEmpty(t, d.Notes, "each such reading is said")
			}
		})
	}
}

// A narrow line is the blade's path on a die and ink on a stamp; a hairline, as this
// program and others write outlines, is an outline on both.
func TestANarrowLineIsABladesPathOrInk(t *testing.T) {
	ring := wrap(mm, `<rect fill="none" stroke="#000" stroke-width="0.4" width="40" height="30"/>`)
	die, err := Read(ring)
	require.NoError(t, err)
	assert.InDelta(t, 1200, die.Parts[0].Outline.Area(), 0.01)
	stamp, err := Read(ring, Inked())
	require.NoError(t, err)
	assert.InDelta(t, 40.4*30.4-39.6*29.6, stamp.Parts[0].Outline.Area(), 0.05)
	assert.Contains(t, strings.Join(stamp.Notes, "\n"), "a line 0.4 mm wide")
	thin, err := Read(wrap(mm, `<rect fill="none" stroke="#000" stroke-width="0.01" width="40" height="30"/>`), Inked())
	require.NoError(t, err)
	assert.InDelta(t, 1200, thin.Parts[0].Outline.Area(), 0.01)
}

// What is drawn later lies higher, whatever its size.
func TestTheOrderIsTheDrawings(t *testing.T) {
	d, err := Read(wrap(mm, `<circle id="Small" cx="20" cy="20" r="4"/><rect id="Large" x="30" width="60" height="60"/><circle id="Dot" cx="60" cy="30" r="9"/>`))
	require.NoError(t, err)
	var names []string
	for _, p := range d.Parts {
		names = append(names, p.Label)
	}
	assert.Equal(t, []string{"Small", "Large", "Dot"}, names)
	assert.Equal(t, []int{1, 2, 3}, []int{d.Parts[0].Order, d.Parts[1].Order, d.Parts[2].Order})
	assert.Equal(t, d.Parts[1].ID, d.Parts[2].Host)
}

// One group of shapes that nobody named is one die, however its ids were numbered; named
// shapes, groups, and what a drawing program calls a layer are parts each.
func TestOneGroupOfShapesIsOneDie(t *testing.T) {
	shapes := `<circle %s cx="20" cy="20" r="8"/><rect %s x="40" y="10" width="20" height="20"/><path %s d="M70 10H90V30z"/>`
	fill := func(a, b, c string) string {
		s := shapes
		for _, v := range []string{a, b, c} {
			s = strings.Replace(s, "%s", v, 1)
		}
		return s
	}
	plain, numbers := fill("", "", ""), fill(`id="circle12"`, `id="rect3"`, `id="path7-4"`)
	own := fill(`id="Wing"`, `id="path3"`, `id="path4"`)
	for body, parts := range map[string]int{
		`<g id="Berries">` + plain + `</g>`:                    1,
		`<g>` + numbers + `</g>`:                               1,
		`<g id="g10">` + numbers + `</g>`:                      1,
		plain:                                                  3,
		`<g id="Page">` + own + `</g>`:                         3,
		`<g id="Layer_1">` + numbers + `</g>`:                  3,
		`<g groupmode="layer" id="layer1">` + numbers + `</g>`: 3,
		`<g id="Page"><g id="a">` + plain + `</g><g id="b" transform="translate(0 40)">` + numbers + `</g></g>`: 2,
	} {
		d, err := Read(wrap(mm, body))
		require.NoError(t, err)
		assert.Len(t, d.Parts, parts, body)
		assert.Equal(t, parts == 1, strings.Contains(strings.Join(d.Notes, "\n"), "read as one part"), body)
	}
}
