package svgin

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestClassesAndElementStylesCount(t *testing.T) {
	d, err := Read(wrap(mm, `<style type="text/css"><![CDATA[ /* as programs write it */ .st0 { fill: none; stroke:#000 } .st1,.st2{display:none} #keep { fill-rule:evenodd } path.eo{fill-rule:evenodd !important} ]]></style>
<path id="keep" d="M0 0 H20 V20 H0 Z M5 5 H15 V15 H5 Z"/>
<path class="eo other" d="M30 0 H50 V20 H30 Z M35 5 H45 V15 H35 Z"/>
<rect class="st2" x="60" width="9" height="9"/>
<path class="st0" d="M70 70 L80 80 L90 70"/>`))
	require.NoError(t, err)
	require.Len(t, d.Parts, 2)
	for _, p := range d.Parts {
		assert.InDelta(t, 300, p.Outline.Area(), 0.1, "even-odd by the style sheet leaves the hole")
	}
	notes := strings.Join(d.Notes, "\n")
	assert.Contains(t, notes, "is hidden")
	assert.Contains(t, notes, "open line")
}

func TestUseDrawsWhatItPointsAt(t *testing.T) {
	d, err := Read(wrap(mm, `<defs><g id="petal"><circle cx="0" cy="0" r="5"/></g><symbol id="seed"><rect width="4" height="2"/></symbol></defs>
<g id="Flower"><use xlink:href="#petal" x="20" y="20"/><use href="#petal" transform="translate(40 20) scale(2)"/></g>
<use id="Seed" href="#seed" x="60" y="60"/>`))
	require.NoError(t, err)
	require.Len(t, d.Parts, 2)
	assert.Equal(t, "Flower", d.Parts[0].Label)
	assert.InDelta(t, math.Pi*(25+100), d.Parts[0].Outline.Area(), 0.6)
	assert.Equal(t, "Seed", d.Parts[1].Label)
	assert.InDelta(t, 60, d.Parts[1].Outline.Bounds().Min.X, 1e-3)
	assert.InDelta(t, 8, d.Parts[1].Outline.Area(), 1e-2)
}

func TestUseThatGoesInCirclesIsRefused(t *testing.T) {
	for _, body := range []string{
		`<g id="a"><use href="#a"/></g>`,
		`<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>`,
	} {
		_, err := Read(wrap(mm, body))
		var p *Problem
		require.ErrorAs(t, err, &p, body)
		assert.Contains(t, p.What, "repeats itself")
	}
	d, err := Read(wrap(mm, `<rect width="20" height="20"/><use href="#nowhere"/>`))
	require.NoError(t, err)
	assert.Contains(t, strings.Join(d.Notes, "\n"), `repeats "nowhere"`)
}

// A problem inside what a use points at names the line it stands on.
func TestProblemsInCopiesKeepTheirLine(t *testing.T) {
	_, err := Read(wrap(mm, "<defs>\n<path id=\"bad\" d=\"M1 1 L banana\"/>\n</defs>\n<g><use href=\"#bad\"/></g>"))
	var p *Problem
	require.ErrorAs(t, err, &p)
	assert.Equal(t, 3, p.Line)
}

func TestCutLinesBoundHoles(t *testing.T) {
	d, err := Read(wrap(mm, `<g id="Window" fill="none" stroke="#f00" stroke-width="0.01"><rect x="10" y="10" width="40" height="30"/><circle cx="30" cy="25" r="8"/></g><g id="Pane"><rect x="70" width="9" height="9"/></g>`))
	require.NoError(t, err)
	require.Len(t, d.Parts, 2)
	assert.InDelta(t, 1200-math.Pi*64, d.Parts[0].Outline.Area(), 0.5, "the line within is a hole")
	assert.Len(t, d.Parts[0].Outline.Rings(), 2)
}

func TestWhatIsDrawnTwiceCountsOnce(t *testing.T) {
	d, err := Read(wrap(mm, `<rect id="A" width="20" height="20"/><path id="B" d="M0 0H20V20.03H0Z"/><rect id="C" x="1" width="20" height="20"/>`))
	require.NoError(t, err)
	require.Len(t, d.Parts, 2, "a millimetre aside is another part")
	assert.Contains(t, strings.Join(d.Notes, "\n"), "B is A drawn once more")
}

func TestOddScalesAreNoticedAndOffered(t *testing.T) {
	tiny, err := Read(wrap(`width="4mm" height="4mm" viewBox="0 0 4 4"`, `<rect width="3.5" height="2.5"/>`))
	require.NoError(t, err)
	require.NotEmpty(t, tiny.Odd)
	assert.InDelta(t, 25.4, tiny.Odd[0].Factor, 1e-9, "inches written as millimetres")
	assert.Contains(t, strings.Join(tiny.Notes, "\n"), "88.9 × 63.5 mm")
	huge, err := Read(wrap(`width="900mm" height="900mm" viewBox="0 0 900 900"`, `<rect width="400" height="200"/>`))
	require.NoError(t, err)
	assert.NotEmpty(t, huge.Odd)
	px, err := Read(wrap(`width="400" height="400"`, `<rect width="300" height="200"/>`))
	require.NoError(t, err)
	require.NotEmpty(t, px.Odd, "pixels are a guess")
	assert.InDelta(t, 96.0/72, px.Odd[0].Factor, 1e-9)
	assert.Empty(t, px.Notes, "but a likely one: no note")
	plain, err := Read(wrap(mm, `<rect width="80" height="60"/>`))
	require.NoError(t, err)
	assert.Empty(t, plain.Odd)
}
