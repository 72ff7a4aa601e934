package sheet

import (
	"bytes"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/look"
	"ochrestone/core/plan"
)

// Turned a quarter clockwise, the tip of an image points to the right; turned
// half way its foot is up.
func TestZonesTurnWithTheImage(t *testing.T) {
	in := []look.Blend{{Zone: card.Tip}, {Zone: card.Left}, {Zone: card.Rim}, {Zone: card.AllOver}}
	zones := func(deg float64) (out []card.Zone) {
		for _, b := range turnedZones(in, card.Place{Turn: deg}) {
			out = append(out, b.Zone)
		}
		return out
	}
	assert.Equal(t, []card.Zone{card.Tip, card.Left, card.Rim, card.AllOver}, zones(20))
	assert.Equal(t, []card.Zone{card.Right, card.Tip, card.Rim, card.AllOver}, zones(90))
	assert.Equal(t, []card.Zone{card.Foot, card.Right, card.Rim, card.AllOver}, zones(-180))
	assert.Equal(t, []card.Zone{card.Left, card.Foot, card.Rim, card.AllOver}, zones(270))
	assert.Equal(t, card.Tip, in[0].Zone, "the plan is not touched")
}

// A foot worked in black darkens the front from the middle of the piece down, and
// the guide names it.
func TestBlendsArePrinted(t *testing.T) {
	c, k, _ := moth(t)
	layer := c.Motifs[0].Layers[0].ID
	w := c.Motifs[0].Colourways[0]
	mean := func() float64 {
		var b bytes.Buffer
		require.NoError(t, FrontPNG(&b, c, k, plan.Of(c, k), 60))
		img, err := png.Decode(&b)
		require.NoError(t, err)
		sum := 0.0
		for y := range img.Bounds().Dy() {
			for x := range img.Bounds().Dx() {
				r, g, bl, _ := img.At(x, y).RGBA()
				sum += float64(r+g+bl) / 3
			}
		}
		return sum
	}
	f := w.Layers[layer]
	f.Paper = "chalk"
	w.Layers[layer] = f
	before := mean()
	f.Blends = []card.Blend{{Ink: "soot-deep", Zone: card.Foot}, {Ink: "soot-deep", Zone: card.Rim}}
	w.Layers[layer] = f
	assert.Less(t, mean(), before*0.999)

	tool, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("poppler-utils is not installed: the words of the PDF are not read back")
	}
	var b bytes.Buffer
	require.NoError(t, Guide(&b, c, k, plan.Of(c, k)))
	file := filepath.Join(t.TempDir(), "guide.pdf")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command(tool, "-layout", file, "-").Output()
	require.NoError(t, err)
	assert.Contains(t, string(out), "Blend the foot of Silhouette")
	assert.Contains(t, string(out), "at the foot")
}
