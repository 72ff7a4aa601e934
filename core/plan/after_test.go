package plan_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/work"
	"ochrestone/demo"
)

// ring is an image of a disc that carries a print with a rim of 2 mm.
func ring(change func(*card.Motif)) (card.Card, kit.Kit) {
	k := kit.Kit{Papers: []kit.Cardstock{{ID: "p", Kind: kit.PaperCard, Colour: "#f6f5f1", GSM: 216, Caliper: 0.28}},
		Inks: []kit.Ink{{ID: "i", Name: "Mere, full", Kind: kit.Dye, Dry: "#43849c"}},
		Sets: []kit.Set{{ID: "s", Name: "Ring", Kind: kit.DieSet, Parts: []kit.Part{
			{ID: "a", Label: "Disc", Outline: shape.Disc(shape.Point{}, 14), Rank: 1, Copies: 1},
			{ID: "b", Label: "Middle", Outline: shape.Disc(shape.Point{}, 12), Rank: 2, Copies: 1, Host: "a", Fit: kit.FitEvenRim}}}}}
	c := card.New("Test", measure.Formats()[0], measure.FoldSide, k).AddSet(k.Sets[0], k)
	m := &c.Motifs[0]
	m.Layers[0].Make, m.Layers[1].Make, m.Layers[1].Fit = card.Cut, card.Printed, kit.FitEvenRim
	m.Colourways[0].Layers[m.Layers[1].ID] = card.Finish{Ink: "i"}
	change(m)
	return c, k
}

// Stamped first and cut out after: the print comes before the cut, and what is
// placed is the die.
func TestCutOutAfterItIsStamped(t *testing.T) {
	t.Parallel()
	c, k := ring(func(m *card.Motif) { m.Layers[0].After = true })
	require.NoError(t, c.Validate())
	p := warm.Of(c, k)
	order := []string{}
	for _, s := range p.Steps {
		for _, w := range []string{"Stamp Middle", "Cut Disc out", "Pop out Disc"} {
			if strings.HasPrefix(s.Title, w) {
				order = append(order, w)
			}
		}
	}
	assert.Equal(t, []string{"Stamp Middle", "Cut Disc out", "Pop out Disc"}, order)
	require.True(t, p.Motifs[0].Layers[0].Play.Judged)
	m := c.Motifs[0]
	got, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, m.Layers[0].ID, 8, 1)
	require.NoError(t, err)
	assert.InDelta(t, 2, got.Play.Rim, 0.03)
	assert.Contains(t, got.Sighting.Say, "white rim must be alike")
	assert.True(t, slices.ContainsFunc(got.Ways, func(w register.Prospect) bool { return w.ID == "lines" }), "ways for a die")
	h, err := place(plan.NewPlanner(), c, k, m.ID).Harm(m.Colourways[0].ID, m.Layers[0].ID, register.Placed{X: 0.5, Turn: 20})
	require.NoError(t, err)
	assert.InDelta(t, 1.5, h.RimLeast, 0.05)

	plain, k := ring(func(*card.Motif) {})
	for _, s := range warm.Of(plain, k).Steps {
		assert.NotContains(t, s.Title, "out ×", "cut first where it is not said otherwise")
	}
}

// A stencilled layer is laid by its etched lines; limits of its own replace the
// general ones, contrast or no.
func TestStencilledAndOwnLimits(t *testing.T) {
	t.Parallel()
	c, k := ring(func(m *card.Motif) {
		m.Layers[1].Make = card.Stencilled
		m.Layers[1].Forgive = &card.Forgive{Spill: 0.1, RimShare: 0.25, Gap: 0.1, Overlap: 0.1}
	})
	require.NoError(t, c.Validate())
	m := c.Motifs[0]
	got, err := place(plan.NewPlanner(), c, k, m.ID, plan.HingeAt(placing.Hinge{Side: placing.HingeTop, Far: 30})).Of(m.Colourways[0].ID, m.Layers[1].ID, 8, 1)
	require.NoError(t, err)
	assert.InDelta(t, 1.5, got.Play.Tight, 0.04, "a quarter of the rim of 2 mm must be left")
	assert.True(t, slices.ContainsFunc(got.Ways, func(w register.Prospect) bool { return w.ID == "etched" }))
	require.NotEmpty(t, got.Pivots)
	hinge := got.Pivots[len(got.Pivots)-1]
	assert.Equal(t, "the hinge", hinge.Name)
	// About a point 42 mm from its middle a disc of 12 in one of 13.5 may turn until
	// its middle has gone 1.5 mm: 2 asin(1.5/84).
	assert.InDelta(t, 2.046, hinge.Clock, 0.06)
	said := false
	for _, s := range warm.Of(c, k).Steps {
		said = said || strings.HasPrefix(s.Title, "Stencil Middle") && strings.Contains(s.Detail, "etched lines")
	}
	assert.True(t, said)
	c.Motifs[0].Layers[1].Forgive.RimShare = 2
	assert.ErrorContains(t, c.Validate(), "forgive")
}

// The person's own hand decides what is said of the play.
func TestOwnSpreadInFindings(t *testing.T) {
	t.Parallel()
	c, k := ring(func(*card.Motif) {})
	has := func(ways []register.Way) bool {
		return slices.ContainsFunc(warm.Of(c, k, plan.Hand(ways)).Findings, func(f foresee.Finding) bool { return strings.HasPrefix(f.ID, "play:") })
	}
	assert.False(t, has(register.Ways()))
	shaky := map[string][]register.Placed{}
	for _, w := range register.Ways() {
		for i := range 6 {
			shaky[w.ID] = append(shaky[w.ID], register.Placed{X: 2 * float64(1-2*(i%2)), Y: 2})
		}
	}
	assert.True(t, has(register.Own(register.Ways(), shaky)))
}

// A run of prints: every stamp is set once, the lightest first, and on one stamp
// the inks of several colourways go from light to dark (common practice, no
// source).
func TestARunKeepsItsStampsInPlace(t *testing.T) {
	t.Parallel()
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[1]
	m := c.Motifs[0]
	p, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, m.Layers[1].ID, 12, 1)
	require.NoError(t, err)
	require.Len(t, p.Printing.Strikes, len(m.Layers))
	assert.Equal(t, len(m.Layers), p.Printing.Settings)
	assert.Equal(t, 12*len(m.Layers), p.Printing.OneByOne)
	light := func(name string) float64 {
		i := slices.IndexFunc(k.Inks, func(i kit.Ink) bool { return i.Name == name })
		v, err := colour.ParseHex(k.Inks[i].Dry)
		require.NoError(t, err)
		return v.Lab().L
	}
	for _, s := range p.Printing.Strikes {
		for i := 1; i < len(s.Inks); i++ {
			assert.GreaterOrEqual(t, light(s.Inks[i-1]), light(s.Inks[i]), s.Label)
		}
		assert.GreaterOrEqual(t, s.Prints, 12)
	}
	assert.Contains(t, p.Printing.Say, "instead of 48")
}

// A bridge of half a millimetre and a slit of a third are told; sound shapes, and
// sharp corners, are not.
func TestTooFineToCutOrPick(t *testing.T) {
	t.Parallel()
	two, err := shape.UnionAll(shape.Rect(-14, -6, 10, 12), shape.Rect(4, -6, 10, 12), shape.Rect(-5, -0.25, 10, 0.5))
	require.NoError(t, err)
	slit, err := shape.Rect(-14, -6, 28, 12).Minus(shape.Rect(-5, -0.15, 10, 0.3))
	require.NoError(t, err)
	for want, g := range map[string]shape.Region{"thin:": two, "narrow:": slit, "": shape.Raw(shape.Ring{{X: -10, Y: 8}, {X: 0, Y: -12}, {X: 10, Y: 8}})} {
		c, k := ring(func(*card.Motif) {})
		k.Sets[0].Parts[0].Outline = g
		k.Sets[0].Parts[1].Outline = shape.Disc(shape.Point{X: -9}, 1.5)
		found := map[string]bool{}
		for _, f := range warm.Of(c, k).Findings {
			for _, id := range []string{"thin:", "narrow:"} {
				if strings.HasPrefix(f.ID, id) {
					found[id] = true
				}
			}
		}
		if want == "" {
			assert.Empty(t, found)
			continue
		}
		assert.Equal(t, map[string]bool{want: true}, found)
	}
}

// A light print over a dark one waits for it, whatever the school says.
func TestAPrintBeneathComesFirst(t *testing.T) {
	t.Parallel()
	c, k := ring(func(m *card.Motif) {
		m.School = card.LightGround
		m.Layers[0].Make = card.Printed
	})
	k.Inks = append(k.Inks, kit.Ink{ID: "pale", Name: "Fleece, pale", Kind: kit.Pigment, Dry: "#f1ead9"})
	m := &c.Motifs[0]
	m.Colourways[0].Layers[m.Layers[0].ID] = card.Finish{Ink: "i"}
	m.Colourways[0].Layers[m.Layers[1].ID] = card.Finish{Ink: "pale"}
	p, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, m.Layers[1].ID, 5, 1)
	require.NoError(t, err)
	require.Len(t, p.Printing.Strikes, 2)
	assert.Equal(t, "Disc", p.Printing.Strikes[0].Label)
}

// Card that is soaked dries before it is let out of its sheet: fifteen minutes, or as long as its
// ink takes; blends on it wait no longer than they do. TRADE.md, section 9: common practice, no
// source.
func TestSoakedCardDriesInItsSheet(t *testing.T) {
	t.Parallel()
	o := two(40, 70, func(c *card.Card, _ *kit.Kit) {
		f := c.Motifs[0].Colourways[0].Layers["b"]
		f.Soaked = true
		c.Motifs[0].Colourways[0].Layers["b"] = f
	})
	p := warm.Of(o.c, o.k)
	paint := slices.IndexFunc(p.Steps, func(a work.Act) bool { return a.ID.Verb == work.Ink && a.ID.Part == "b" })
	pop := slices.IndexFunc(p.Steps, func(a work.Act) bool { return a.ID.Verb == work.Pop })
	require.GreaterOrEqual(t, paint, 0)
	assert.Less(t, paint, pop)
	assert.Contains(t, p.Steps[paint].Title, "Paint ")
	assert.Contains(t, p.Steps[paint].Detail, "Wet card tears")
	assert.InDelta(t, 15, p.Steps[paint].Minutes, 1e-9)
	other := slices.IndexFunc(p.Steps, func(a work.Act) bool { return a.ID.Verb == work.Ink && a.ID.Part == "a" })
	require.GreaterOrEqual(t, other, 0)
	assert.NotContains(t, p.Steps[other].Detail, "tears")
	assert.Less(t, p.Steps[other].Minutes, 15.0)
}
