package setsvg_test

import (
	"bytes"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/exchange/setsvg"
	"ochrestone/exchange/svgin"
)

// A dashed line is pressed into the piece it stands with, and comes back as it was written;
// closed ones of some size are seats.
func TestDashedLinesArePressed(t *testing.T) {
	const doc = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">
<g id="Tray"><rect x="2" y="2" width="56" height="36"/><circle cx="16" cy="20" r="10" fill="none" stroke="#000" stroke-dasharray="1 1"/>
<path d="M40 6V34" style="fill:none;stroke:#000;stroke-dasharray:2"/></g>
<g id="Lid"><rect x="2" y="2" width="10" height="10"/></g></svg>`
	d, err := svgin.Read([]byte(doc))
	require.NoError(t, err)
	require.Len(t, d.Parts, 2)
	tray := d.Parts[0]
	assert.InDelta(t, 56*36, tray.Outline.Area(), 0.01, "no hole is cut")
	lines := tray.Pressed()
	require.Len(t, lines, 2)
	assert.Empty(t, d.Parts[1].Lines)
	seats := tray.Seats()
	require.Len(t, seats, 1)
	assert.InEpsilon(t, math.Pi*100, seats[0].Area(), 1e-3)
	var out bytes.Buffer
	require.NoError(t, setsvg.Write(&out, kit.Set{Name: "Tray", Parts: d.Parts}))
	again, err := svgin.Read(out.Bytes())
	require.NoError(t, err)
	require.Len(t, again.Parts, 2)
	assert.Len(t, again.Parts[0].Pressed(), 2)
	assert.InDelta(t, seats[0].Area(), again.Parts[0].Seats()[0].Area(), 0.05)
	// Solid, it is a cut line as ever.
	solid, err := svgin.Read([]byte(strings.ReplaceAll(doc, ` stroke-dasharray="1 1"`, "")))
	require.NoError(t, err)
	assert.Empty(t, solid.Parts[0].Seats())
}
