package sheet

import (
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/cut"
	"ochrestone/core/shape"
)

func cutOne() cut.Plan {
	return cut.Plan{Copies: 2, Stocks: []cut.Stock{{Stock: "oat", Name: "Oat & co", Owned: true, Needs: 1, Has: 3,
		Wants: []cut.Want{{Name: "Card base", W: 200, H: 100, Each: 1, N: 2, By: "trimmer", Fold: "down"}, {Name: "=Moth, wing", Motif: "m", Part: "w", W: 20, H: 20, Each: 1, N: 1, By: "die"}},
		Sheets: []cut.Sheet{{W: 216, H: 279, Kind: "sheet", Placed: []cut.Place{
			{Want: 0, X: 100, Y: 50, Path: shape.Rect(0, 0, 200, 100).Path()}, {Want: 0, X: 100, Y: 150, Path: shape.Rect(0, 100, 200, 100).Path()},
			{Want: 1, X: 20, Y: 240, Path: shape.Rect(10, 230, 20, 20).Path()}},
			Cuts: []cut.Slice{{W: 216, H: 279, At: 100}}, Left: []cut.Area{}}}}}}
}

// The sheet as SVG is in mm, its straight cuts, outlines and scores in layers of their own;
// the fold of a base lies in its middle.
func TestASheetForAnElectronicCutter(t *testing.T) {
	p := cutOne()
	var b bytes.Buffer
	require.NoError(t, WriteCuttingSheet(&b, p.Stocks[0], p.Stocks[0].Sheets[0]))
	require.NoError(t, xml.Unmarshal(b.Bytes(), new(struct{})))
	s := b.String()
	assert.Contains(t, s, `width="216.000mm"`)
	straight, rest, _ := strings.Cut(s, `id="cut-outlines"`)
	outlines, score, _ := strings.Cut(rest, `id="score"`)
	assert.Equal(t, 2, strings.Count(straight, "<path"))
	assert.Equal(t, 1, strings.Count(outlines, "<path"))
	assert.Equal(t, 2, strings.Count(score, "<path"))
	assert.Contains(t, score, "M100.000 0.000V100.000")
}

// The list as a table: a cell that a table program would run is made safe.
func TestTheCutListAsATable(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, WriteCutList(&b, cutOne()))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, []string{"Oat & co", "Card base", "1", "2", "0", "200.0", "100.0", "trimmer", "1", "3"}, rows[1])
	assert.Equal(t, "'=Moth, wing", rows[2][1])
}

// The list and one page as large as the sheet for each sheet.
func TestTheCutListOnPaper(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, WriteCutting(&b, "x", cutOne()))
	assert.Equal(t, 2, bytes.Count(b.Bytes(), []byte("/MediaBox")), "a list and a sheet")
}
