package plan_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
)

// hard swatches: on some papers every ink came out other than its film foretells.
func swatched(t *rapid.T, k kit.Kit) kit.Kit {
	for _, i := range k.Inks {
		if i.Dry == "" {
			continue
		}
		for _, paper := range []string{"chalk", "oat", "kraft"} {
			if !rapid.Bool().Draw(t, "swatched") {
				continue
			}
			c, _ := colour.ParseHex(i.Dry)
			l := c.Lab()
			l.L = min(97, max(4, l.L+rapid.Float64Range(-9, 9).Draw(t, "off")))
			k.Swatches = append(k.Swatches, kit.Swatch{Ink: i.ID, Paper: paper, Impressions: 1, Dry: l.Linear().Hex()})
		}
	}
	return k
}

// What the search for inks promises is what the plan shows: the weakest pair it
// gives is the weakest pair of the plan, and the order of lightness holds, with
// swatches on several papers.
func TestTheSearchAndThePlanSeeTheSameColours(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("not in a short run")
	}
	_, base := moth(t)
	for _, ink := range base.Inks {
		require.NotEmpty(t, ink.ID)
	}
	maker := plan.NewPlanner()
	rapid.Check(t, func(t *rapid.T) {
		k := base
		k.Inks = k.Inks[:rapid.IntRange(8, 16).Draw(t, "inks")]
		k.Swatches = nil
		k = swatched(t, k)
		set := k.Sets[0]
		for _, s := range k.Sets {
			if len(s.Parts) < len(set.Parts) {
				set = s
			}
		}
		c := card.New("Any", measure.Formats()[0], measure.FoldSide, k).AddSet(set, k)
		m := &c.Motifs[0]
		for id, f := range m.Colourways[0].Layers {
			if f.Paper != "" {
				f.Paper = rapid.SampledFrom([]string{"chalk", "oat", "kraft"}).Draw(t, "paper")
				m.Colourways[0].Layers[id] = f
			}
		}
		ways, _, err := coloured(maker, c, k, advise.Ask{Motif: m.ID, Colourway: m.Colourways[0].ID, School: card.LightGround, Best: 2}).Suggest(context.Background(), advise.Ask{Motif: m.ID, Colourway: m.Colourways[0].ID, School: card.LightGround, Best: 2})
		if err != nil {
			return // the drawer cannot keep the order
		}
		m.School = card.LightGround
		for n, w := range ways {
			m.Colourways[0].Layers = w.Finishes
			p := maker.Of(c, k)
			got := p.Motifs[0].Colourways[0]
			for i, l := range got.Layers {
				if d := w.Look.Layers[i]; d.Dry != l.Dry {
					t.Fatalf("answer %d, layer %s: suggested %s, planned %s", n, l.ID, d.Dry, l.Dry)
				}
			}
			if f := finding(p, "order:"); f != nil {
				t.Fatalf("answer %d breaks the order it was asked to keep: %s", n, f.Why)
			}
		}
	})
}

// Keeping a swatch keeps what was typed, so that the drawer's typed error compares
// a swatch with what was typed and not with itself.
func TestTheDrawerComparesWithWhatWasTyped(t *testing.T) {
	t.Parallel()
	ink := kit.Ink{ID: "i", Name: "Madder", Kind: kit.Dye, Dry: "#d98f86"}
	seen := ink.Seen("#c0655c", "chalk")
	assert.Equal(t, "#c0655c", seen.Dry)
	assert.Equal(t, "#d98f86", seen.AsTyped().Dry)
	again := seen.Seen("#bf665d", "chalk")
	assert.Equal(t, "#bf665d", again.Dry)
	assert.Equal(t, "#d98f86", again.AsTyped().Dry, "and still what was typed")
	assert.Equal(t, "#bf665d", again.Seen("#8a4a40", "kraft").Dry, "another paper is not its own")

	_, k := moth(t)
	k.Inks = []kit.Ink{again}
	k.Swatches = []kit.Swatch{{Ink: "i", Paper: "chalk", Impressions: 1, Dry: "#bf665d"}, {Ink: "i", Paper: "kraft", Impressions: 1, Dry: "#8a4a40"}}
	d := look.KnowledgeOf(k)
	assert.Equal(t, 2, d.HeldBack)
	a, _ := colour.ParseHex("#d98f86")
	b, _ := colour.ParseHex("#bf665d")
	assert.Greater(t, d.Default, colour.Difference(a.Lab(), b.Lab())/2, "the swatch on chalk counts with its full error")
}

// Inks of a kind that hide on kraft, by the person's own swatches, tell that another
// of that kind, never swatched there, will hide too.
func TestSwatchesTellOfOtherInksOfTheirKind(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	kraft, err := colour.ParseHex("#b58f66")
	require.NoError(t, err)
	truth := func(i kit.Ink) colour.Linear {
		c, err := colour.ParseHex(i.Dry)
		require.NoError(t, err)
		white, _ := colour.ParseHex(kit.PlainWhite)
		return colour.FilmFrom(c, white, 0.6).Over(kraft, 1) // these dyes hide as no dye should
	}
	var asked kit.Ink
	n := 0
	for _, i := range k.Inks {
		if i.Kind != kit.Dye || i.Depth != "soft" {
			continue
		}
		if n++; n > 4 {
			asked = i
			break
		}
		k.Swatches = append(k.Swatches, kit.Swatch{Ink: i.ID, Paper: "kraft", Impressions: 1, Dry: truth(i).Hex()}, kit.Swatch{Ink: i.ID, Paper: "chalk", Impressions: 1, Dry: i.Dry})
	}
	require.NotEmpty(t, asked.ID)
	c, _ := moth(t)
	off := func(k kit.Kit) float64 {
		w := c.Motifs[0].Colourways[0].Layers
		id := c.Motifs[0].Layers[1].ID
		w[id] = card.Finish{Paper: "kraft", Ink: asked.ID, Impressions: 1}
		dry, err := colour.ParseHex(warm.Of(c, k).Motifs[0].Colourways[0].Layers[1].Dry)
		require.NoError(t, err)
		return colour.Difference(dry.Lab(), truth(asked).Lab())
	}
	with := off(k)
	k.Swatches = nil
	without := off(k)
	assert.Less(t, with, without/2, "learned from its kin")
	assert.Greater(t, without, 2.0)
}

// Strong ink on strong card of which no swatch was made is said to be a guess where
// a pair hangs on it, and is no more once it is swatched.
func TestAGuessIsSaid(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	m := &c.Motifs[0]
	var a, b string
	for _, p := range warm.Of(c, k).Motifs[0].Colourways[0].Pairs {
		if p.A != "" && p.Length > 5 {
			a, b = p.A, p.B
		}
	}
	require.NotEmpty(t, a)
	w := m.Colourways[0].Layers
	for id := range w {
		w[id] = card.Finish{Paper: "chalk", Ink: "loam-deep", Impressions: 1}
	}
	for i := range m.Layers {
		if m.Layers[i].ID == a || m.Layers[i].ID == b {
			m.Layers[i].Make = card.Cut
		}
	}
	w[a], w[b] = card.Finish{Paper: "rosehip"}, card.Finish{Paper: "rosehip", Ink: "madder-full", Impressions: 1}
	p := warm.Of(c, k)
	f := finding(p, "guess:")
	require.NotNil(t, f)
	assert.Contains(t, f.What, "Madder, full on Rosehip")
	assert.Equal(t, b, f.Layer)
	k.Swatches = append(k.Swatches, kit.Swatch{Ink: "madder-full", Paper: "rosehip", Impressions: 1, Dry: "#9a3136"})
	if f := finding(warm.Of(c, k), "guess:"); f != nil {
		assert.NotEqual(t, b, f.Layer)
	}
}
