package svgin

import (
	"context"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What draws nothing is no layer, and that is said; so is what cannot be followed.
func TestWhatIsNotSeenIsSaid(t *testing.T) {
	d, err := Read(wrap(mm, `<rect id="board" fill="none" width="100" height="100"/>
<rect id="ghost" opacity="0" width="50" height="50"/>
<g id="Masked" mask="url(#m)"><rect width="9" height="9"/></g>
<rect id="cut" clip-path="url(#gone)" x="20" width="9" height="9"/>
<path id="leg" stroke="#000" stroke-width="3" d="M40 40h20v20h-20z"/>`))
	require.NoError(t, err)
	require.Len(t, d.Parts, 3)
	assert.InDelta(t, 23*23, d.Parts[2].Outline.Area(), 0.1, "a wide line is part of the shape")
	notes := strings.Join(d.Notes, "\n")
	for _, w := range []string{"<rect> “board” has neither fill nor line", "<rect> “ghost” is wholly transparent", "is masked", "cannot be followed", "3.0 mm wide"} {
		assert.Contains(t, notes, w)
	}
}

// A clip path that is itself cut is the part both have (CSS Masking 1, 5.1).
func TestAClipPathThatIsCut(t *testing.T) {
	p := one(t, mm, `<clipPath id="a"><rect width="30" height="30"/></clipPath><clipPath id="b" clip-path="url(#a)"><rect x="20" y="20" width="30" height="30"/></clipPath><rect width="90" height="90" clip-path="url(#b)"/>`)
	assert.InDelta(t, 100, p.Outline.Area(), 0.01)
}

// The origin of a transform (CSS Transforms 1, 6): a turn by 180° about the middle
// of its own box leaves a rectangle where it is.
func TestTransformOrigin(t *testing.T) {
	plain := one(t, mm, `<rect x="10" y="20" width="30" height="10"/>`).Outline.Bounds()
	for _, css := range []string{
		`style="transform:rotate(180deg);transform-origin:25px 25px"`,
		`style="transform:rotate(0.5turn);transform-box:fill-box;transform-origin:center"`,
		`style="transform-box:fill-box;transform:rotate(3.14159265rad)"`,
		`transform="rotate(180)" transform-origin="25% 25%"`,
		`style="transform:translate(-10%, 0) translateX(10px)"`,
	} {
		b := one(t, mm, `<rect x="10" y="20" width="30" height="10" `+css+`/>`).Outline.Bounds()
		assert.InDelta(t, 0, b.Min.Distance(plain.Min)+b.Max.Distance(plain.Max), 2e-3, css)
	}
}

// Drawings far off the page are refused with the element and its line.
func TestFarOffIsRefused(t *testing.T) {
	_, err := Read(wrap(mm, "<rect width=\"5\" height=\"5\"/>\n<g transform=\"translate(100000 0)\"><rect id=\"wing\" width=\"5\" height=\"5\"/></g>"))
	var p *Problem
	require.ErrorAs(t, err, &p)
	assert.Equal(t, 3, p.Line)
	assert.Contains(t, p.Error(), "wing")
	assert.Contains(t, p.Error(), "100.0 m from the corner")
}

// Drawings meant to take a reader down are answered at once: none of these took
// less than ten seconds once, and some never ended.
func TestHostileDrawingsEnd(t *testing.T) {
	rnd := rand.New(rand.NewPCG(3, 4))
	var tens, dots, circles, tangle, rules, deep strings.Builder
	tens.WriteString(`<defs><rect id="l0" width="1" height="1"/>`)
	for i := range 10 {
		fmt.Fprintf(&tens, `<g id="l%d">`, i+1)
		for range 10 {
			fmt.Fprintf(&tens, `<use href="#l%d"/>`, i)
		}
		tens.WriteString("</g>")
	}
	tens.WriteString(`</defs><use href="#l10"/>`)
	dots.WriteString(`<g id="Dots">`)
	for i := range 800 {
		fmt.Fprintf(&dots, `<circle cx="%d" cy="%d" r="0.7"/>`, 2+i%40*2, 2+i/40*2)
	}
	dots.WriteString(`</g><rect x="90" width="5" height="5"/>`)
	circles.WriteString("<g>")
	for i := range 1000 {
		fmt.Fprintf(&circles, `<circle cx="%d" cy="%d" r="0.7"/>`, 2+i%40*2, 2+i/40*2)
	}
	circles.WriteString("</g>")
	tangle.WriteString(`<path d="M0 0`)
	for range 3000 {
		fmt.Fprintf(&tangle, "L%.3f %.3f", 90*rnd.Float64(), 90*rnd.Float64())
	}
	tangle.WriteString(`z"/>`)
	rules.WriteString("<style>")
	for i := range 20_000 {
		fmt.Fprintf(&rules, ".a%d{fill:#f00}", i)
	}
	rules.WriteString("</style>")
	for i := range 150 {
		fmt.Fprintf(&rules, `<rect class="a%d" x="%d" width="0.5" height="5"/>`, i, i)
	}
	deep.WriteString(strings.Repeat(`<g clip-path="url(#k)">`, 50) + `<rect width="9" height="9"/>` + strings.Repeat("</g>", 50) + `<clipPath id="k" clip-path="url(#k)"><rect width="8" height="8" clip-path="url(#k)"/></clipPath>`)
	many := ""
	for i := range 80 {
		many += fmt.Sprintf(`<rect x="%d" width="0.5" height="80"/><rect y="%d" width="80" height="0.5"/>`, i, i)
	}
	for name, c := range map[string]struct {
		body  string
		parts int    // when it is read
		says  string // when it is refused
	}{
		"ten levels of ten":         {tens.String(), 0, "elements"},
		"800 dots in a layer":       {dots.String(), 2, ""},
		"1,000 circles in a group":  {circles.String(), 1, ""},
		"a tangle":                  {tangle.String(), 0, "crosses itself too often"},
		"20,000 rules":              {rules.String(), 150, ""},
		"clips that cut each other": {deep.String(), 0, "cuts itself"},
		"crossing bars in a layer":  {"<g id=\"Bars\">" + many + "</g><rect width=\"5\" height=\"5\"/>", 0, "cross each other too often"},
	} {
		t.Run(name, func(t *testing.T) {
			ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
			defer cancel()
			d, err := ReadContext(ctx, wrap(mm, c.body))
			if c.says == "" {
				require.NoError(t, err)
				assert.Len(t, d.Parts, c.parts)
				return
			}
			var p *Problem
			require.ErrorAs(t, err, &p)
			assert.Contains(t, p.Error(), c.says)
		})
	}
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	_, err := ReadContext(ctx, wrap(mm, dots.String()))
	assert.ErrorIs(t, err, context.Canceled)
}
