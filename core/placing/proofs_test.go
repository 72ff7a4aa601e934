package placing_test

import (
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is said at the positioner, rounded to what hands can do: the paper goes
// the way the print went wrong, since the stamp stays where it is (common
// practice, no source).
func TestWhatToDoAboutAProof(t *testing.T) {
	play, err := register.Of(shape.Disc(shape.Point{}, 10), shape.Disc(shape.Point{}, 11), kit.FitWithin, register.Limits{})
	require.NoError(t, err)
	p := placing.Print{Layer: "l", Label: "Shade", Play: play}
	v := placing.Judge(p, shape.Point{X: -0.62, Y: 1.34}, 0.43, 0.01, 0.02, measure.Metric)
	assert.False(t, v.Good, "1.5 mm is more than the 1 mm there is")
	assert.Equal(t, "Move the paper 0.60 mm left and 1.30 mm down, turn it 0.4° clockwise for this strike.", v.Say)
	v = placing.Judge(p, shape.Point{X: 0.2}, -0.5, 0.01, 0.02, measure.Metric)
	assert.True(t, v.Good)
	assert.Equal(t, "It does not show. For a truer one, move the paper 0.20 mm right, turn it 0.6° anticlockwise for this strike.", v.Say)
	v = placing.Judge(p, shape.Point{X: 0.03, Y: -0.04}, 0.05, 0.01, 0.02, measure.Metric)
	assert.Contains(t, v.Say, "Leave it")
	v = placing.Judge(p, shape.Point{X: 0.03, Y: -0.04}, 0.9, 0.01, 1.3, measure.Metric)
	assert.Contains(t, v.Say, "Leave it", "a disc's turn is within what the picture can tell")
	assert.Zero(t, v.TurnBy)
	v = placing.Judge(placing.Print{}, shape.Point{X: 3}, 0, 0.01, 0.02, measure.Metric)
	assert.True(t, v.Good, "where nothing has to meet nothing is wrong")
	assert.False(t, v.Judged)
}

// verdicts of a run of one layer, off as given.
func runOf(off ...register.Placed) [][]placing.Verdict {
	var out [][]placing.Verdict
	for _, o := range off {
		out = append(out, []placing.Verdict{{Layer: "l", Label: "Spots", X: o.X, Y: o.Y, Turn: o.Turn, Judged: true, Good: true}})
	}
	return out
}

// What a run tells: a drift, a steady lean, plain scatter, or too little.
func TestWhatARunTells(t *testing.T) {
	drift := placing.JudgeRun(runOf(register.Placed{X: 0.02}, register.Placed{X: 0.19}, register.Placed{X: 0.41}, register.Placed{X: 0.58}, register.Placed{X: 0.81}, register.Placed{X: 1.01}), measure.Metric)[0]
	assert.Equal(t, 6, drift.N)
	assert.InDelta(t, 0.2, drift.DriftX, 0.01)
	assert.Zero(t, drift.DriftY)
	assert.Contains(t, drift.Say, "It drifts 0.20 mm right from each print to the next")

	lean := placing.JudgeRun(runOf(register.Placed{X: 0.5, Y: -0.3}, register.Placed{X: 0.52, Y: -0.31}, register.Placed{X: 0.49, Y: -0.33}, register.Placed{X: 0.53, Y: -0.28}, register.Placed{X: 0.5, Y: -0.3}), measure.Metric)[0]
	assert.Zero(t, lean.DriftX)
	assert.InDelta(t, 0.508, lean.MeanX, 0.001)
	assert.Less(t, lean.Spread, 0.03)
	assert.Contains(t, lean.Say, "off by 0.59 mm the same way each time")

	scatter := placing.JudgeRun(runOf(register.Placed{X: 0.2}, register.Placed{X: -0.2}, register.Placed{X: 0.21}, register.Placed{X: -0.19}, register.Placed{X: 0.18}, register.Placed{X: -0.2}), measure.Metric)[0]
	assert.Contains(t, scatter.Say, "No drift; it scatters by")
	assert.InDelta(t, 0.15, scatter.Spread, 0.02, "0.21 mm along one axis and none along the other, pooled")

	assert.Contains(t, placing.JudgeRun(runOf(register.Placed{X: 1}, register.Placed{X: 2}), measure.Metric)[0].Say, "Too few prints to tell a drift")
	gone := [][]placing.Verdict{{{Layer: "l", Label: "Spots", Lost: true}}, {{Layer: "l", Label: "Spots", Lost: true}}}
	assert.Contains(t, placing.JudgeRun(gone, measure.Metric)[0].Say, "made out on none")
	turns := placing.JudgeRun(runOf(register.Placed{Turn: 0.1}, register.Placed{Turn: -0.31}, register.Placed{Turn: -0.7}, register.Placed{Turn: -1.12}, register.Placed{Turn: -1.5}), measure.Metric)[0]
	assert.Contains(t, turns.Say, "0.40° anticlockwise")
}
