package sheet

import (
	"bytes"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// runs lists the lengths of all unbroken dark lines along rows, longest first per
// row, in pixels, that are at least so long.
func longest(img *picture.Picture, least int) (rows []int, lengths []int) {
	for y := range img.H {
		run, best := 0, 0
		for x := range img.W {
			if _, _, v := img.At(x, y); v < 0x80 {
				run++
				best = max(best, run)
			} else {
				run = 0
			}
		}
		if best >= least {
			rows, lengths = append(rows, y), append(lengths, best)
		}
	}
	return rows, lengths
}

func wordsOf(t *testing.T, raw []byte) string {
	t.Helper()
	cmd := exec.Command("pdftotext", "-layout", "-", "-")
	cmd.Stdin = bytes.NewReader(raw)
	out, err := cmd.Output()
	require.NoError(t, err)
	return string(out)
}

// The corner jig measures true: the paper is drawn at its size beside rails of
// 8 mm, as poppler renders it.
func TestCornerJigMeasuresTrue(t *testing.T) {
	var b bytes.Buffer
	c := Corner{Paper: measure.Size{W: 120, H: 80}, Image: shape.Rect(0, 0, 30, 20), X: 60, Y: 40, Name: "Beetle"}
	require.NoError(t, WriteCorner(&b, c))
	const perMM = 8
	rows, lengths := longest(rendered(t, b.Bytes(), perMM), 118*perMM)
	require.NotEmpty(t, rows)
	for _, l := range lengths {
		assert.True(t, l > 119*perMM && l < 129*perMM, "a line of the paper, or of paper and rail")
	}
	// The first long line is the rail's, the last the paper's foot.
	assert.InDelta(t, 88, float64(rows[len(rows)-1]-rows[0])/perMM, 0.5)
	assert.Contains(t, wordsOf(t, b.Bytes()), "Paper 120 mm × 80 mm")

	c.X = 5
	var bad *ErrJig
	require.ErrorAs(t, WriteCorner(&b, c), &bad)
	assert.Contains(t, bad.What, "over the edge")
	c = Corner{Paper: measure.Size{W: 400, H: 80}, Image: shape.Rect(0, 0, 30, 20), X: 60, Y: 40}
	require.ErrorAs(t, WriteCorner(&b, c), &bad)
	assert.Contains(t, bad.What, "the page has room")
}

// Windows for letters are larger than the letters all round by what is asked, and
// the text says the passes.
func TestWindowTemplate(t *testing.T) {
	bar := func(rune) (shape.Region, bool) { return shape.Rect(0, -60, 40, 60), true }
	line, err := layout.SetLine("III", bar, layout.Setting{Gap: 3})
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, WriteWords(&b, "III", line, 0.5))
	const perMM = 8
	img := rendered(t, b.Bytes(), perMM)
	rows, lengths := longest(img, 30*perMM)
	found := false
	for i := range rows {
		found = found || lengths[i] >= 326 && lengths[i] <= 332
	}
	assert.True(t, found, "the top of a window is 41 mm long: %v", lengths)
	said := wordsOf(t, b.Bytes())
	assert.Contains(t, said, "3 passes (I comes")
	assert.Contains(t, said, "0.5 mm larger")
	require.Error(t, WriteWords(&b, "", layout.Line{}, 0.3))
}

func TestDieGuideAndMasks(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, WriteDieGuide(&b, DieGuide{Die: shape.Rect(0, 0, 90, 60), Layers: []shape.Region{shape.Rect(5, 5, 40, 40)}, Labels: []string{"Wash"}, Name: "Beetle"}))
	_, lengths := longest(rendered(t, b.Bytes(), 8), 89*8)
	assert.NotEmpty(t, lengths)
	assert.Contains(t, wordsOf(t, b.Bytes()), "Wash")
	var bad *ErrJig
	require.ErrorAs(t, WriteDieGuide(&b, DieGuide{}), &bad)

	b.Reset()
	masks := []Mask{{Label: "Front beetle", Region: shape.Rect(40, 90, 60, 30), Over: []string{"Second", "Third"}}, {Label: "Second", Region: shape.Rect(10, 10, 110, 30), Over: []string{"Third"}}, {Label: "x", Region: shape.Rect(0, 0, 90, 20)}}
	require.NoError(t, WriteMasks(&b, masks, 0.4))
	said := wordsOf(t, b.Bytes())
	assert.Contains(t, said, "then print: Second, Third")
	assert.Contains(t, said, "0.4 mm smaller")
	_, lengths = longest(rendered(t, b.Bytes(), 8), 109*8)
	require.NotEmpty(t, lengths)
	for _, l := range lengths {
		assert.InDelta(t, 110, float64(l)/8, 0.6)
	}
	require.ErrorAs(t, WriteMasks(&b, nil, 0.4), &bad)
	assert.Contains(t, bad.What, "No printed images overlap")
}
