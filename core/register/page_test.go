package register

import (
	"encoding/json"
	"flag"
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

// renew writes the table anew: go test ./core/register -run Page -renew.
var renew = flag.Bool("renew", false, "write the table for the page's test anew")

// lies is a layer off its place, and whether it shows.
type lies struct {
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	Turn float64 `json:"t"`
	Good bool    `json:"good"`
}

// The page looks a drag up in the table of the play that the plan sends. This writes what
// Holds says of many places, and web/src/stations/register/play.test.ts holds the page to
// it; places within a hundredth of the limit are left out.
func TestWhatThePageIsHeldTo(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	type table struct {
		Name string `json:"name"`
		Play Play   `json:"play"`
		Lies []lies `json:"lies"`
	}
	var all []table
	for _, c := range []struct {
		name        string
		layer, host shape.Region
		fit         kit.Fit
		turns       bool
	}{
		{"disc in disc", shape.Disc(shape.Point{}, 12), shape.Disc(shape.Point{}, 15), kit.FitWithin, false},
		{"square in square", shape.Rect(-10, -10, 20, 20), shape.Rect(-12, -12, 24, 24), kit.FitWithin, false},
		{"off the middle", shape.Rect(-9, -10, 20, 20), shape.Rect(-12, -12, 26, 24), kit.FitEvenRim, false},
		{"square, with its turns", shape.Rect(-10, -10, 20, 20), shape.Rect(-12, -12, 24, 24), kit.FitWithin, true},
	} {
		p, err := Of(c.layer, c.host, c.fit, Defaults())
		require.NoError(t, err)
		if c.turns {
			p, err = p.WithTurns(Within{c.layer, c.host})
			require.NoError(t, err)
		}
		out := table{Name: c.name, Play: p}
		for len(out.Lies) < 120 {
			a, d, turn := 2*math.Pi*r.Float64(), 1.4*p.Loose*r.Float64(), (r.Float64()*2-1)*12
			at := func(k float64) bool {
				return p.Holds(shape.Point{X: k * d * math.Cos(a), Y: k * d * math.Sin(a)}, k*turn)
			}
			if at(0.99) == at(1.01) {
				out.Lies = append(out.Lies, lies{d * math.Cos(a), d * math.Sin(a), turn, at(1)})
			}
		}
		all = append(all, out)
	}
	raw, err := json.MarshalIndent(all, "", " ")
	require.NoError(t, err)
	const file = "testdata/page.json"
	if *renew {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(file, append(raw, '\n'), 0o644))
	}
	was, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.JSONEq(t, string(raw), string(was), "run with -renew after a change that is meant")
}
