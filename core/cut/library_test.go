package cut

import (
	"bytes"
	"context"
	"encoding/json"
	"math/rand/v2"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Against a packing library of the npm registry in the same run, which need not cut from
// edge to edge: over 60 random lots and sheets sliced to pieces by chance, whose optimum is
// known, as few sheets in all.
func TestGuillotineAgainstALibrary(t *testing.T) {
	node, err := exec.LookPath("node")
	if err != nil {
		t.Skip("no node here: make test has it")
	}
	type lot struct {
		W     float64      `json:"w"`
		H     float64      `json:"h"`
		Rects [][2]float64 `json:"rects"`
		best  int
	}
	rng := rand.New(rand.NewPCG(11, 4))
	var lots []lot
	for range 60 {
		l := lot{W: 216, H: 279}
		for range 10 + rng.IntN(40) {
			l.Rects = append(l.Rects, [2]float64{float64(15 + rng.IntN(120)), float64(15 + rng.IntN(120))})
		}
		lots = append(lots, l)
	}
	for range 20 {
		l := lot{W: 200, H: 280, best: 3}
		for range l.best {
			l.Rects = append(l.Rects, sliced(rng, 200, 280, 4)...)
		}
		lots = append(lots, l)
	}
	in, err := json.Marshal(lots)
	require.NoError(t, err)
	run := exec.Command(node, "scripts/pack.mjs")
	run.Dir, run.Stdin = "../../web", bytes.NewReader(in)
	out, err := run.Output()
	require.NoError(t, err)
	var theirs []int
	require.NoError(t, json.Unmarshal(out, &theirs))
	ours, all, known, sum := 0, 0, 0, 0
	for i, l := range lots {
		var rects []Rect
		for _, r := range l.Rects {
			rects = append(rects, Rect{r[0], r[1], true})
		}
		bins := make([]Bin, len(rects))
		for k := range bins {
			bins[k] = Bin{l.W, l.H, 1}
		}
		got := Guillotine(context.Background(), rects, bins, 0, 240, 1)
		sound(t, rects, bins, 0, got)
		require.Zero(t, got.Lacks)
		ours, all = ours+int(got.Cost+0.5), all+theirs[i]
		if l.best > 0 {
			known, sum = known+l.best, sum+int(got.Cost+0.5)
		}
	}
	t.Logf("%d sheets, the library %d; of those with a known optimum %d, the optimum %d", ours, all, sum, known)
	assert.LessOrEqual(t, ours, all)
	assert.LessOrEqual(t, float64(sum), 1.35*float64(known))
}

// sliced cuts a rectangle to pieces from edge to edge.
func sliced(rng *rand.Rand, w, h float64, deep int) [][2]float64 {
	if deep == 0 || max(w, h) < 60 {
		return [][2]float64{{w, h}}
	}
	at := float64(int((0.3 + 0.4*rng.Float64()) * max(w, h)))
	if w > h {
		return append(sliced(rng, at, h, deep-1), sliced(rng, w-at, h, deep-1)...)
	}
	return append(sliced(rng, w, at, deep-1), sliced(rng, w, h-at, deep-1)...)
}
