package sheet

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"image/png"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/demo"
)

func moth(t *testing.T) (card.Card, kit.Kit, plan.Plan) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[0]
	return c, k, plan.Of(c, k)
}

// The size is read back from the PDF by poppler, a program that is not ours,
// where it is installed; the MediaBox itself is always checked.
func TestGuideIsTrueSizeAndNamesEverything(t *testing.T) {
	c, k, pl := moth(t)
	var b bytes.Buffer
	require.NoError(t, Guide(&b, c, k, pl, Page(measure.Letter)))
	require.True(t, bytes.HasPrefix(b.Bytes(), []byte("%PDF-")))
	assert.Regexp(t, regexp.MustCompile(`MediaBox\s*\[0 0 612(\.0*)? 792(\.0*)?\]`), b.String(), "8.5 x 11 in at 72 points")

	tool, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("poppler-utils is not installed: the words of the PDF are not read back")
	}
	file := filepath.Join(t.TempDir(), "guide.pdf")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command(tool, "-layout", file, "-").Output()
	require.NoError(t, err)
	words := string(out)
	for _, l := range pl.Motifs[0].Layers {
		assert.Contains(t, words, l.Label)
	}
	for _, l := range pl.Motifs[0].Colourways[0].Layers {
		if l.InkName != "" {
			assert.Contains(t, words, l.InkName)
		}
	}
	for _, s := range pl.Steps {
		assert.Contains(t, words, fmt.Sprintf("%d", s.Number))
		assert.Contains(t, words, strings.Fields(s.Title)[0])
	}
	assert.Contains(t, words, "Care: ")
	assert.Contains(t, words, "100 mm")
}

func TestFrontPNGHasTheSizeOfTheCard(t *testing.T) {
	c, k, pl := moth(t)
	var b bytes.Buffer
	require.NoError(t, FrontPNG(&b, c, k, pl, 100))
	img, err := png.Decode(&b)
	require.NoError(t, err)
	assert.InDelta(t, 425, img.Bounds().Dx(), 1, "4 1/4 in at 100 dpi")
	assert.InDelta(t, 550, img.Bounds().Dy(), 1)
	// The middle of the fore wing shows the dried ink the plan computed.
	for _, l := range pl.Motifs[0].Colourways[0].Layers {
		if l.InkName == "Bracken, soft" {
			r, g, bl, _ := img.At(int((c.Base.W/2+20)/25.4*100), 189).RGBA()
			assert.Equal(t, l.Dry, fmt.Sprintf("#%02x%02x%02x", r>>8, g>>8, bl>>8))
		}
	}
}

func TestFrontSVGIsWellFormedAndInMillimetres(t *testing.T) {
	c, k, pl := moth(t)
	var b bytes.Buffer
	require.NoError(t, FrontSVG(&b, c, k, pl))
	head := b.String()[:200]
	assert.Contains(t, head, `width="107.95mm"`)
	d := xml.NewDecoder(&b)
	for {
		if _, err := d.Token(); err == io.EOF {
			break
		} else if err != nil {
			t.Fatal(err)
		}
	}
}
