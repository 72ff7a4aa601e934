package e2e

import (
	"context"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/demo"
	"ochrestone/store"
)

// evenings is a data file with the demo in it and three evenings of the past: the toadstools
// made each time, quicker and placed more exactly from one to the next, and swatches read twice.
func evenings(t *testing.T) string {
	ctx := context.Background()
	data := filepath.Join(t.TempDir(), "demo.db")
	now := time.Date(2026, 3, 7, 18, 30, 0, 0, time.UTC)
	st, err := store.Open(ctx, data, store.Clock(func() time.Time { return now }))
	require.NoError(t, err)
	k, err := demo.Kit()
	require.NoError(t, err)
	require.NoError(t, st.Fill(ctx, k, []string{"lamp-sitters", "five-beetles", "toadstools", "lantern", "moth-night", "coast-night"}, demo.Cards(k)))
	require.NoError(t, st.Set(ctx, "demo", "1"))
	card := demo.Cards(k)[2]
	sat := plan.NewPlanner().Sitting([]plan.Job{{Card: card}}, k, plan.Did{})
	require.NotEmpty(t, sat.Steps)
	took := sat.Minutes()
	rng := rand.New(rand.NewPCG(7, 7))
	for n, e := range []struct {
		day  time.Time
		pace float64
		off  float64
		note string
	}{
		{now, 1.7, 0.45, "The caps dried into one flat patch: leave ten minutes between them."},
		{time.Date(2026, 5, 16, 19, 0, 0, 0, time.UTC), 1.3, 0.3, "Better with the window template."},
		{time.Date(2026, 10, 3, 17, 45, 0, 0, time.UTC), 1.1, 0.2, "Foam under the small one next time."},
	} {
		now = e.day
		var ps []store.Placement
		for i := range 8 {
			ps = append(ps, store.Placement{Card: "toadstools", Motif: card.Motifs[0].ID, Layer: card.Motifs[0].Layers[i%2].ID, Label: fmt.Sprint("Layer ", i%2+1), Way: "eye", Source: store.FromPrint,
				X: e.off * rng.NormFloat64(), Y: e.off * rng.NormFloat64(), Turn: 0.4 * rng.NormFloat64(), Good: i%3 > 0})
		}
		_, err := st.Log(ctx, ps)
		require.NoError(t, err)
		var run store.Run
		for i, a := range sat.Steps {
			minutes := took[i] * e.pace * (0.8 + 0.4*rng.Float64())
			if i == 9 {
				minutes = 45 // a pause
			}
			now = now.Add(time.Duration(minutes * float64(time.Minute)))
			if run, err = st.Tick(ctx, "toadstools", true, store.Mark{Step: a.ID, Kind: string(a.Kind), Cards: max(1, a.Cards)}); err != nil {
				break
			}
		}
		require.NoError(t, err)
		require.NoError(t, st.Remember(ctx, "toadstools", run.ID, min(1, n), e.note))
		_, err = st.Another(ctx, "toadstools")
		require.NoError(t, err)
	}
	for n, paper := range []string{k.Papers[0].ID, k.Papers[1].ID} {
		for _, ink := range k.Inks[:16] {
			dry, err := colour.ParseHex(ink.Dry)
			require.NoError(t, err)
			lab := dry.Lab()
			lab.L += 2 * rng.NormFloat64()
			w := kit.Swatch{Ink: ink.ID, Paper: paper, Impressions: 1, Dry: lab.Linear().Hex(), On: []string{"2026-04-11", "2026-09-05"}[n]}
			require.NoError(t, st.Put(ctx, store.KindSwatch, fmt.Sprintf("%s/%s/1", ink.ID, paper), w))
		}
	}
	require.NoError(t, st.Close())
	return data
}
