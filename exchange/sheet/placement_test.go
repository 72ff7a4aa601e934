package sheet

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"image"
	"image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

// words reads a PDF back with poppler, a program that is not ours.
func shownWords(t *testing.T, pdf []byte) string {
	tool, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("poppler-utils is not installed: the words of the PDF are not read back")
	}
	file := filepath.Join(t.TempDir(), "out.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.Command(tool, "-raw", file, "-").Output()
	require.NoError(t, err)
	return strings.Join(strings.Fields(string(out)), " ")
}

// A strip of 2 by 1 in in the middle of a panel of 4 by 5 1/4 in stands 1 in from its left
// edge and 2 1/8 in from its upper one, by hand.
func TestTheLayoutSaysWhatARulerWould(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := card.New("Ruler", measure.Formats()[0], measure.FoldSide, k)
	on, _ := c.Panel()
	c.Elements = append(c.Elements, card.Element{ID: "s", Name: "Label", Face: card.Front, On: on, Place: card.Place{X: c.Base.W / 2, Y: c.Base.H / 2}, Sheet: &card.Sheet{Paper: "oat", W: 2 * measure.Inch, H: measure.Inch}})
	var b bytes.Buffer
	in := Writing(measure.Writing{Unit: measure.Inches, Den: 16})
	require.NoError(t, WriteLayout(&b, plan.Of(c, k), in))
	assert.Contains(t, shownWords(t, b.Bytes()), "1 Label 1 in 2 1⁄8 in 2 in × 1 in")
	b.Reset()
	require.NoError(t, WritePlacement(&b, plan.Of(c, k), 0.4, true, in))
	assert.Contains(t, shownWords(t, b.Bytes()), "exchanged")
	c.Elements = c.Elements[:1]
	var jig *ErrJig
	assert.ErrorAs(t, WriteLayout(&b, plan.Of(c, k)), &jig)
	assert.ErrorAs(t, WritePlacement(&b, plan.Of(c, k), 0.4, false), &jig)
}

// The cut lines are well-formed XML, one group for every leaf that is cut, at true size:
// librsvg draws a sheet of 50 by 30 mm with an opening as wide and high as that.
func TestCutLinesAtTrueSize(t *testing.T) {
	k := trial.Kit()
	c := card.New("Cut & keep", measure.Formats()[0], measure.FoldSide, k)
	c.Elements = []card.Element{{ID: "s", Name: `Frame "a"`, Face: card.Front, Place: card.Place{X: 50, Y: 60}, Sheet: &card.Sheet{Paper: "oat", W: 50, H: 30,
		Openings: []card.Opening{{Outline: card.Outline{Kind: card.Rectangle}, W: 40, H: 20}}}}}
	var b bytes.Buffer
	require.NoError(t, CutLines(&b, plan.Of(c, k)))
	require.NoError(t, xml.Unmarshal(b.Bytes(), new(struct{ XMLName xml.Name })))
	assert.Equal(t, 1, strings.Count(b.String(), "<g "))
	tool, err := exec.LookPath("rsvg-convert")
	if err != nil {
		t.Skip("librsvg2-bin is not installed: drawings are not compared with a renderer")
	}
	cmd := exec.Command(tool, "--dpi-x", "254", "--dpi-y", "254", "-b", "white")
	cmd.Stdin = bytes.NewReader(b.Bytes())
	raw, err := cmd.Output()
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	first, last, crossed := -1, -1, 0
	y := img.Bounds().Dy() / 2
	dark := false
	for x := range img.Bounds().Dx() {
		g, _, _, _ := img.At(x, y).RGBA()
		if now := g < 0xc000; now && !dark {
			crossed++
			if last = x; first < 0 {
				first = x
			}
			dark = true
		} else if !now {
			dark = false
		}
	}
	assert.Equal(t, 4, crossed, "two edges of the sheet and two of its opening")
	assert.InDelta(t, 500, last-first, 3, "50 mm at ten dots a millimetre")
	full := trial.Everything()
	b.Reset()
	pl := plan.Of(full, trial.Kit(), plan.Typeface(Face{}))
	require.NoError(t, CutLines(&b, pl))
	require.NoError(t, xml.Unmarshal(b.Bytes(), new(struct{ XMLName xml.Name })))
	want := 0
	for _, th := range pl.Build.Things {
		for _, p := range th.Drawn {
			if p.Stock != "" && th.Element.Image == nil {
				want++
			}
		}
	}
	assert.Equal(t, want, strings.Count(b.String(), "<g "))
	assert.Contains(t, b.String(), "score", "the flap's fold")
}

// The front as SVG, drawn by librsvg, is the front as our own picture shows it: every card
// of the demo, and the one with every treatment.
func TestTheFrontAsAnotherRendererSeesIt(t *testing.T) {
	tool, err := exec.LookPath("rsvg-convert")
	if err != nil {
		t.Skip("librsvg2-bin is not installed: drawings are not compared with a renderer")
	}
	k, err := demo.Kit()
	require.NoError(t, err)
	type one struct {
		c card.Card
		k kit.Kit
	}
	all := []one{{trial.Everything(), trial.Kit()}, {trial.Woven(), trial.Kit()}}
	for _, c := range demo.Cards(k) {
		all = append(all, one{c, k})
	}
	for _, o := range all {
		t.Run(o.c.Title, func(t *testing.T) {
			t.Parallel()
			pl := plan.Of(o.c, o.k, plan.Typeface(Face{}))
			var ours, theirs bytes.Buffer
			const dpi = 72
			require.NoError(t, FrontPNG(&ours, o.c, o.k, pl, dpi))
			require.NoError(t, FrontSVG(&theirs, o.c, o.k, pl))
			cmd := exec.Command(tool, "--dpi-x", fmt.Sprint(dpi), "--dpi-y", fmt.Sprint(dpi), "--unlimited")
			cmd.Stdin = &theirs
			raw, err := cmd.Output()
			require.NoError(t, err)
			a, err := png.Decode(&ours)
			require.NoError(t, err)
			b, err := png.Decode(bytes.NewReader(raw))
			require.NoError(t, err)
			mean, bad := apart(a, b)
			assert.Less(t, mean, 2.0, "of 255, on the whole")
			assert.Less(t, bad, 0.02, "share of dots far apart")
		})
	}
}

// apart is how far two pictures are from each other on the whole, of 255, and the share of
// dots that are far apart.
func apart(a, b image.Image) (mean, bad float64) {
	w, h := min(a.Bounds().Dx(), b.Bounds().Dx()), min(a.Bounds().Dy(), b.Bounds().Dy())
	for y := range h {
		for x := range w {
			r0, g0, b0, a0 := a.At(x, y).RGBA()
			r1, g1, b1, a1 := b.At(x, y).RGBA()
			d := 0.0
			for _, p := range [][3]uint32{{r0, r1, 0}, {g0, g1, 0}, {b0, b1, 0}} {
				// Both on white, whatever is behind them.
				u, v := float64(p[0])+65535-float64(a0), float64(p[1])+65535-float64(a1)
				d = max(d, math.Abs(u-v)/257)
			}
			mean += d
			if d > 40 {
				bad++
			}
		}
	}
	n := float64(w * h)
	return mean / n, bad / n
}

// A vellum leaf dims what lies behind it and does not hide it: the lantern's glow is paler
// with the leaf than without, and still there.
func TestVellumDimsAndDoesNotHide(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[3]
	picture := func(c card.Card) image.Image {
		var b bytes.Buffer
		require.NoError(t, FrontPNG(&b, c, k, plan.Of(c, k, plan.Typeface(Face{})), 72))
		img, err := png.Decode(&b)
		require.NoError(t, err)
		return img
	}
	with := picture(c)
	c.Elements = c.Elements[:len(c.Elements)-1]
	without := picture(c)
	at := func(img image.Image) float64 {
		r, _, b, _ := img.At(img.Bounds().Dx()/2+20, 198).RGBA()
		return float64(r)/257 - float64(b)/257 // how yellow
	}
	assert.Greater(t, at(without), at(with)+5)
	assert.Greater(t, at(with), 20.0)
}
