package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo"
)

// What is said at the positioner, rounded to what hands can do: the paper goes
// the way the print went wrong, since the stamp stays where it is (common
// practice, no source).
func TestWhatToDoAboutAProof(t *testing.T) {
	play, err := register.Of(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 11), kit.FitWithin, register.Limits{})
	require.NoError(t, err)
	p := plan.Print{Layer: "l", Label: "Shade", Play: play}
	v := plan.Judge(p, shape.Point{X: -0.62, Y: 1.34}, 0.43, 0.01, 0.02)
	assert.False(t, v.Good, "1.5 mm is more than the 1 mm there is")
	assert.Equal(t, "Move the paper 0.6 mm left and 1.3 mm down, turn it 0.4° clockwise for this strike.", v.Say)
	v = plan.Judge(p, shape.Point{X: 0.2}, -0.5, 0.01, 0.02)
	assert.True(t, v.Good)
	assert.Equal(t, "It does not show. For a truer one, move the paper 0.2 mm right, turn it 0.6° anticlockwise for this strike.", v.Say)
	v = plan.Judge(p, shape.Point{X: 0.03, Y: -0.04}, 0.05, 0.01, 0.02)
	assert.Contains(t, v.Say, "Leave it")
	v = plan.Judge(plan.Print{}, shape.Point{X: 3}, 0, 0.01, 0.02)
	assert.True(t, v.Good, "where nothing has to meet nothing is wrong")
	assert.False(t, v.Judged)
}

func TestPrintsOfAnImage(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	beetles := demo.Cards(k)[1]
	m := beetles.Motifs[0]
	mk := plan.NewMaker()
	ps, paper, err := mk.Prints(beetles, k, m.ID, m.Colourways[0].ID)
	require.NoError(t, err)
	require.Len(t, ps, 4)
	panel, ok := k.Paper(beetles.Sheets[len(beetles.Sheets)-1].Paper)
	require.True(t, ok)
	assert.Equal(t, panel.Colour, paper.Hex())
	for i, p := range ps {
		assert.Equal(t, m.Layers[i].ID, p.Layer)
		assert.Equal(t, 1, p.Strikes)
	}
	// A step left plain is not part of the proof.
	f := m.Colourways[0].Layers[m.Layers[2].ID]
	f.Ink = ""
	m.Colourways[0].Layers[m.Layers[2].ID] = f
	ps, _, err = mk.Prints(beetles, k, m.ID, m.Colourways[0].ID)
	require.NoError(t, err)
	assert.Len(t, ps, 3)

	c, _ := moth(t)
	for i := range c.Motifs[0].Layers {
		c.Motifs[0].Layers[i].Make = card.Cut
	}
	ps, _, err = mk.Prints(c, k, c.Motifs[0].ID, c.Motifs[0].Colourways[0].ID)
	require.NoError(t, err)
	assert.Empty(t, ps, "cut pieces are no prints")
}

// An outline in black, first or last: under a hiding ink it fades, so last is
// better; under watercolour a dye would run.
func TestLineFirstOrLast(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	m := &c.Motifs[0]
	wash, lines := m.Layers[0].ID, m.Layers[len(m.Layers)-1].ID
	look := func() *plan.LineLook {
		p := plan.Of(c, k)
		ls := p.Motifs[0].Colourways[0].Layers
		return ls[len(ls)-1].Line
	}
	w := m.Colourways[0]
	black := w.Layers[lines]
	set := func(hide float64, kind kit.InkKind) {
		h := hide
		for i := range k.Inks {
			if k.Inks[i].ID == w.Layers[wash].Ink {
				k.Inks[i].Hide, k.Inks[i].Kind = &h, kind
			}
		}
	}
	require.NotEmpty(t, black.Ink)
	// A fine ring on the wash, half a mm wide, in place of the last step.
	for i := range k.Sets {
		if k.Sets[i].ID == m.Set {
			ps := k.Sets[i].Parts
			ps[len(ps)-1].Outline = shape.RingDisc(ps[0].Outline.Centroid(), 5, 4.5)
		}
	}
	m.Layers[len(m.Layers)-1].On = wash
	set(0.8, kit.Pigment)
	l := look()
	require.NotNil(t, l)
	assert.Greater(t, l.LastDiff, l.FirstDiff)
	assert.Contains(t, l.Say, "Print it last")
	for i := range k.Inks {
		if k.Inks[i].ID == black.Ink {
			k.Inks[i].Kind = kit.Dye
		}
	}
	set(0.02, kit.Watercolor)
	assert.Contains(t, look().Say, "may run")
}

// verdicts of a run of one layer, off as given.
func runOf(off ...register.Placed) [][]plan.Verdict {
	var out [][]plan.Verdict
	for _, o := range off {
		out = append(out, []plan.Verdict{{Layer: "l", Label: "Spots", X: o.X, Y: o.Y, Turn: o.Turn, Judged: true, Good: true}})
	}
	return out
}

// What a run tells: a drift, a steady lean, plain scatter, or too little.
func TestWhatARunTells(t *testing.T) {
	drift := plan.JudgeRun(runOf(register.Placed{X: 0.02}, register.Placed{X: 0.19}, register.Placed{X: 0.41}, register.Placed{X: 0.58}, register.Placed{X: 0.81}, register.Placed{X: 1.01}))[0]
	assert.Equal(t, 6, drift.N)
	assert.InDelta(t, 0.2, drift.DriftX, 0.01)
	assert.Zero(t, drift.DriftY)
	assert.Contains(t, drift.Say, "It drifts 0.20 mm right from each print to the next")

	lean := plan.JudgeRun(runOf(register.Placed{X: 0.5, Y: -0.3}, register.Placed{X: 0.52, Y: -0.31}, register.Placed{X: 0.49, Y: -0.33}, register.Placed{X: 0.53, Y: -0.28}, register.Placed{X: 0.5, Y: -0.3}))[0]
	assert.Zero(t, lean.DriftX)
	assert.InDelta(t, 0.508, lean.MeanX, 0.001)
	assert.Less(t, lean.Spread, 0.03)
	assert.Contains(t, lean.Say, "off by 0.59 mm the same way each time")

	scatter := plan.JudgeRun(runOf(register.Placed{X: 0.2}, register.Placed{X: -0.2}, register.Placed{X: 0.21}, register.Placed{X: -0.19}, register.Placed{X: 0.18}, register.Placed{X: -0.2}))[0]
	assert.Contains(t, scatter.Say, "No drift; it scatters by")
	assert.InDelta(t, 0.15, scatter.Spread, 0.02, "0.21 mm along one axis and none along the other, pooled")

	assert.Contains(t, plan.JudgeRun(runOf(register.Placed{X: 1}, register.Placed{X: 2}))[0].Say, "Too few prints to tell a drift")
	gone := [][]plan.Verdict{{{Layer: "l", Label: "Spots", Lost: true}}, {{Layer: "l", Label: "Spots", Lost: true}}}
	assert.Contains(t, plan.JudgeRun(gone)[0].Say, "made out on none")
	turns := plan.JudgeRun(runOf(register.Placed{Turn: 0.1}, register.Placed{Turn: -0.31}, register.Placed{Turn: -0.7}, register.Placed{Turn: -1.12}, register.Placed{Turn: -1.5}))[0]
	assert.Contains(t, turns.Say, "0.40° anticlockwise")
}
