package plan_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/work"
	"ochrestone/demo"
)

// family lists the owned inks of one family of the demo drawer, lightest first.
func family(k kit.Kit, name string) (out []kit.Ink) {
	for _, i := range k.Inks {
		if i.Family == name && i.Dry != "" && !i.Gone {
			out = append(out, i)
		}
	}
	return out
}

func lightness(t *testing.T, hex string) float64 {
	c, err := colour.ParseHex(hex)
	require.NoError(t, err)
	return c.Lab().L
}

// A rim worked in darker changes the colour that meets the neighbours, adds
// steps after the first ink and before popping out, and shows its reach.
func TestABlendIsSeenWorkedAndTimed(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	way := c.Motifs[0].Colourways[0]
	layer := c.Motifs[0].Layers[1]
	f := way.Layers[layer.ID]
	before := warm.Of(c, k)
	ink, ok := k.Ink(f.Ink)
	require.True(t, ok)
	var deep kit.Ink
	for _, i := range family(k, ink.Family) {
		if lightness(t, i.Dry) < lightness(t, ink.Dry)-8 && (deep.ID == "" || lightness(t, i.Dry) > lightness(t, deep.Dry)) {
			deep = i
		}
	}
	require.NotEmpty(t, deep.ID, "the demo drawer has a deeper one of the family")
	f.Blends = []card.Blend{{Ink: deep.ID, Zone: card.Rim}, {Ink: deep.ID, Zone: card.Foot}}
	f.Return = true
	f.Edge = deep.ID
	way.Layers[layer.ID] = f
	require.NoError(t, c.Validate())
	p := warm.Of(c, k)
	look := p.Motifs[0].Colourways[0].Layers[1]
	require.Len(t, look.Blends, 2)
	assert.Equal(t, before.Motifs[0].Colourways[0].Layers[1].Dry, look.Dry, "the middle stays as it was")
	assert.Less(t, look.Blends[0].L, look.L-5)
	assert.Greater(t, look.Blends[0].Reach, 1.0)
	assert.NotEmpty(t, look.Edge)

	// Touching pairs of that layer are judged by what meets there.
	edgeDiff := func(p plan.Plan) float64 {
		for _, q := range p.Motifs[0].Colourways[0].Pairs {
			if q.A == c.Motifs[0].Layers[0].ID && q.B == layer.ID {
				return q.Diff
			}
		}
		t.Fatal("no such pair")
		return 0
	}
	host, err := colour.ParseHex(look0(p).Dry)
	require.NoError(t, err)
	least := math.Inf(1)
	for _, b := range look.Blends {
		x, err := colour.ParseHex(b.Dry)
		require.NoError(t, err)
		least = math.Min(least, colour.Difference(x.Lab(), host.Lab()))
	}
	assert.InDelta(t, least, edgeDiff(p), 0.4, "to the rounding of a hex colour")
	assert.NotEqual(t, edgeDiff(before), edgeDiff(p))

	at := map[string]int{}
	for i, s := range p.Steps {
		switch {
		case s.ID.Verb == work.Pop:
			at[work.Pop] = i + 1
		case s.ID.N > 0:
			at[fmt.Sprint(s.ID.Verb, s.ID.N)] = i + 1
		case s.ID.Part == layer.ID:
			at[s.ID.Verb] = i + 1
		}
	}
	order := []string{"cut", "ink", "blend1", "blend2", "return", "edge", "pop"}
	for i := 1; i < len(order); i++ {
		require.NotZero(t, at[order[i]], order[i])
		assert.Less(t, at[order[i-1]], at[order[i]], "%s comes before %s", order[i-1], order[i])
	}

	c.Motifs[0].Colourways[0].Layers[layer.ID] = card.Finish{Paper: f.Paper, Ink: f.Ink, Blends: []card.Blend{{Ink: deep.ID, Zone: "corner"}}}
	assert.ErrorContains(t, c.Validate(), "not a zone")
}

// One blend that needs heat is enough for the piece to be heat set before it is
// popped out.
func TestABlendThatNeedsHeatIsSet(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	layer := c.Motifs[0].Layers[1].ID
	f := c.Motifs[0].Colourways[0].Layers[layer]
	has := func() bool {
		for _, s := range warm.Of(c, k).Steps {
			if s.ID.Verb == work.Heat && s.ID.Part == layer {
				return true
			}
		}
		return false
	}
	require.False(t, has(), "its own ink dries by itself")
	yes := true
	k.Inks = append(k.Inks, kit.Ink{ID: "hot", Name: "Hot", Kind: kit.Pigment, Dry: "#402010", NeedsHeat: &yes})
	f.Blends = []card.Blend{{Ink: "hot", Zone: card.Rim}}
	c.Motifs[0].Colourways[0].Layers[layer] = f
	assert.True(t, has())
}

func look0(p plan.Plan) look.Layer { return p.Motifs[0].Colourways[0].Layers[0] }

// Common practice, no source: a step too small is not seen, one too great
// leaves a line; the note names an owned ink that goes between.
func TestLaddersAreJudged(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	way := c.Motifs[0].Colourways[0]
	layer := c.Motifs[0].Layers[1]
	f := way.Layers[layer.ID]
	var pale, deep kit.Ink
	for _, i := range k.Inks {
		if i.Dry == "" || i.Family == "" || i.Gone {
			continue
		}
		if pale.ID == "" || lightness(t, i.Dry) > lightness(t, pale.Dry) {
			pale = i
		}
	}
	for _, i := range family(k, pale.Family) {
		if deep.ID == "" || lightness(t, i.Dry) < lightness(t, deep.Dry) {
			deep = i
		}
	}
	f.Ink, f.Blends = pale.ID, []card.Blend{{Ink: deep.ID, Zone: card.Tip}}
	way.Layers[layer.ID] = f
	n := finding(warm.Of(c, k), "blend:")
	require.NotNil(t, n)
	assert.Contains(t, n.What, "will leave a line")
	assert.Regexp(t, "Work in .* between them first", n.Do)

	f.Blends = []card.Blend{{Ink: pale.ID, Zone: card.Tip}}
	way.Layers[layer.ID] = f
	n = finding(warm.Of(c, k), "blend:")
	require.NotNil(t, n)
	assert.Contains(t, n.What, "will not show")

	f.Blends = []card.Blend{{Ink: "gone", Zone: card.Tip}}
	way.Layers[layer.ID] = f
	n = finding(warm.Of(c, k), "missing:")
	require.NotNil(t, n)
}

// Light, middle and dark of one family within every piece.
func TestEveryPieceRunsFromLightToDark(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.EveryPiece, Zone: card.Foot, Best: 3}
	ways, _, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	require.NoError(t, err)
	require.NotEmpty(t, ways)
	for n, w := range ways {
		if n > 0 {
			assert.LessOrEqual(t, w.Look.Weakest, ways[n-1].Look.Weakest, "the clearest first")
		}
		for i, l := range w.Look.Layers {
			f := w.Finishes[c.Motifs[0].Layers[i].ID]
			if len(f.Blends) == 0 || c.Motifs[0].Layers[i].Make != card.Cut {
				continue // nothing of it shows, or it lies on another's blend
			}
			require.Len(t, l.Blends, 2)
			assert.Greater(t, l.L, l.Blends[0].L)
			assert.Greater(t, l.Blends[0].L, l.Blends[1].L)
			assert.Greater(t, l.Blends[0].Reach, l.Blends[1].Reach, "the dark stops sooner")
			a, _ := k.Ink(f.Ink)
			for _, b := range f.Blends {
				x, _ := k.Ink(b.Ink)
				assert.Equal(t, a.Family, x.Family)
				assert.Equal(t, card.Foot, b.Zone)
			}
		}
	}
}

// A wish for quieter or warmer inks is kept layer by layer where the drawer can.
func TestLeaning(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	c.Motifs[0].School = card.LocalColour
	mean := func(w look.Colourway, of func(colour.Lab) float64) (m float64) {
		for _, l := range w.Layers {
			x, err := colour.ParseHex(l.Dry)
			require.NoError(t, err)
			m += of(x.Lab()) / float64(len(w.Layers))
		}
		return m
	}
	now := warm.Of(c, k).Motifs[0].Colourways[0]
	warmth := func(l colour.Lab) float64 { return l.A*0.5 + l.B*math.Sqrt(3)/2 }
	for _, wish := range []struct {
		lean advise.Lean
		of   func(colour.Lab) float64
		more bool
	}{{advise.Warmer, warmth, true}, {advise.Cooler, warmth, false}, {advise.Quieter, colour.Lab.Chroma, false}, {advise.Livelier, colour.Lab.Chroma, true}} {
		ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: now.ID, School: card.LocalColour, Lean: wish.lean, Best: 1}
		ways, _, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
		require.NoError(t, err, wish.lean)
		d := mean(ways[0].Look, wish.of) - mean(now, wish.of)
		assert.Equal(t, wish.more, d > 0, "%s: %.1f", wish.lean, d)
	}
}

// Five beetles come out clearly different and equally readable.
func TestASetOfFive(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	var c card.Card
	for _, x := range demo.Cards(k) {
		if strings.Contains(x.Motifs[0].Name, "eetle") {
			c = x
		}
	}
	require.NotEmpty(t, c.Motifs)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: c.Motifs[0].School}
	ways, least, err := coloured(plan.NewPlanner(), c, k, ask).Colourways(context.Background(), ask, 5)
	require.NoError(t, err)
	require.Len(t, ways, 5)
	assert.Greater(t, least, 11.0, "any two differ at a glance")
	for _, w := range ways {
		assert.GreaterOrEqual(t, w.Look.Weakest, look.Readable/2, w.Name)
	}
}

// pillar is a red card the demo does not have.
var pillar = kit.Cardstock{ID: "pillar", Name: "Pillar, 80 lb", Kind: kit.PaperCard, Colour: "#b23a35", GSM: 216, Caliper: 0.3, Sheets: 4, W: 216, H: 279}

// A drawer of 200 inks brought in from elsewhere: every school finds choices
// that keep its rule and read, on white and on a red card, and the same choice
// looks another on the other card.
func TestEverySchoolFromADrawerOf200(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("not in a short run")
	}
	c, k := moth(t)
	k.Inks, k.Swatches = nil, nil
	k.Papers = append(k.Papers, pillar)
	for h := range 20 {
		for l := range 10 {
			a := 2 * math.Pi * float64(h) / 20
			lab := colour.Lab{L: 12 + 8.2*float64(l), A: 38 * math.Cos(a), B: 38 * math.Sin(a)}
			k.Inks = append(k.Inks, kit.Ink{ID: fmt.Sprintf("i%d-%d", h, l), Name: fmt.Sprintf("Hue %d, %d", h, l), Family: fmt.Sprintf("Hue %d", h), Kind: kit.Dye, Dry: lab.Linear().Hex()})
		}
	}
	m := &c.Motifs[0]
	for _, l := range m.Layers {
		if f := m.Colourways[0].Layers[l.ID]; l.Make == card.Cut {
			f.Paper = "chalk"
			m.Colourways[0].Layers[l.ID] = f
		}
	}
	for _, school := range []card.School{card.LightGround, card.DarkGround, card.LocalColour, card.EveryPiece} {
		m.School = school
		ask := advise.Ask{Motif: m.ID, Colourway: m.Colourways[0].ID, School: school, Best: 1}
		ways, _, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
		require.NoError(t, err, school)
		require.Len(t, ways, 1, school)
		assert.GreaterOrEqual(t, ways[0].Look.Weakest, look.Readable, "%s", school)
		m.Colourways[0].Layers = ways[0].Finishes
		p := warm.Of(c, k)
		assert.Nil(t, finding(p, "order:"), school)
		assert.Nil(t, finding(p, "one:"), school)
		was := p.Motifs[0].Colourways[0].Layers[1].Dry
		f := m.Colourways[0].Layers[m.Layers[1].ID]
		f.Paper = "pillar"
		m.Colourways[0].Layers[m.Layers[1].ID] = f
		assert.NotEqual(t, was, warm.Of(c, k).Motifs[0].Colourways[0].Layers[1].Dry)
		f.Paper = "chalk"
		m.Colourways[0].Layers[m.Layers[1].ID] = f
	}
}

// The red that vanishes on red card is foreseen, and the mend reads.
func TestRedOnRedIsForeseen(t *testing.T) {
	t.Parallel()
	var beetle card.Card
	_, k := moth(t)
	for _, x := range demo.Cards(k) {
		if strings.Contains(x.Motifs[0].Name, "eetle") {
			beetle = x
		}
	}
	k.Papers = append(k.Papers, pillar)
	beetle.Mats()[0].Sheet.Paper = "pillar"
	p := warm.Of(beetle, k)
	var n *foresee.Finding
	for i, f := range p.Findings {
		if strings.Contains(f.What, "vanishes on the panel") && f.Colourway == beetle.Motifs[0].Colourways[0].ID {
			n = &p.Findings[i]
		}
	}
	require.NotNil(t, n, "a pale translucent red on red card cannot be seen")
	ask := advise.Ask{Motif: beetle.Motifs[0].ID, Colourway: beetle.Motifs[0].Colourways[0].ID, School: card.DarkGround, Best: 1}
	ways, _, err := coloured(plan.NewPlanner(), beetle, k, ask).Suggest(context.Background(), ask)
	require.NoError(t, err)
	assert.Greater(t, ways[0].Look.Weakest, n.Numbers["difference"])
}

// A rim alone is what meets the neighbours along a layer's own edge: its colour
// counts there, and the colour of the middle does not.
func TestOnlyTheRimMeetsAtTheEdge(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	layer := c.Motifs[0].Layers[1]
	way := c.Motifs[0].Colourways[0]
	diff := func(p plan.Plan) float64 {
		for _, q := range p.Motifs[0].Colourways[0].Pairs {
			if q.A == c.Motifs[0].Layers[0].ID && q.B == layer.ID {
				return q.Diff
			}
		}
		t.Fatal("no such pair")
		return 0
	}
	middle := diff(warm.Of(c, k))
	for _, ink := range []string{"soot-deep", "gorse-pale"} {
		f := way.Layers[layer.ID]
		f.Blends = []card.Blend{{Ink: ink, Zone: card.Rim, Impressions: 2}}
		way.Layers[layer.ID] = f
		p := warm.Of(c, k)
		host, err := colour.ParseHex(look0(p).Dry)
		require.NoError(t, err)
		rim, err := colour.ParseHex(p.Motifs[0].Colourways[0].Layers[1].Blends[0].Dry)
		require.NoError(t, err)
		want := colour.Difference(rim.Lab(), host.Lab())
		assert.InDelta(t, want, diff(p), 0.4, "%s: to the rounding of a hex colour", ink)
		assert.Greater(t, math.Abs(want-middle), 1.0, "%s: told from the middle", ink)
	}
}
