package plan_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// planned is the plan of a trial card after edits.
func planned(t *testing.T, c card.Card, edits ...card.Edit) (card.Card, plan.Plan) {
	t.Helper()
	k := trial.Kit()
	out, err := c.Apply(k, edits...)
	require.NoError(t, err)
	p := warm.Of(out, k, plan.Typeface(trial.Blocks{}))
	require.Empty(t, p.Failed)
	return out, p
}

// Every step has a name of its own, or a tick would be two, whatever an image is printed on and
// wherever that lies.
func TestNoTwoStepsAreOne(t *testing.T) {
	k := trial.Kit()
	for _, n := range trial.Cards() {
		for _, face := range []card.Face{"", card.Front, card.InsideRight} {
			c := n.Card
			if len(c.Motifs) == 0 && face != "" {
				continue
			}
			if face != "" {
				m := c.Motifs[len(c.Motifs)-1]
				c.Elements = append(slices.Clone(c.Elements),
					card.Element{ID: "leaf2", Name: "Another leaf", Face: face, Place: card.Place{X: 50, Y: 50}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "oat", W: 80, H: 60}},
					card.Element{ID: "again2", Face: face, On: "leaf2", Place: card.Place{X: 50, Y: 50}, Image: &card.Image{Motif: m.ID, Colourway: m.Colourways[0].ID}})
			}
			p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
			require.Empty(t, p.Failed, "%s, and %s", n.Name, face)
			seen := map[card.Step]string{}
			for _, a := range p.Steps {
				assert.Empty(t, seen[a.ID], "%s, and %s: %v is “%s” and “%s”", n.Name, face, a.ID, seen[a.ID], a.Title)
				seen[a.ID] = a.Title
			}
			sat := plan.NewPlanner().Sitting([]plan.Job{{Card: c}}, k, plan.Did{}, plan.Typeface(trial.Blocks{}))
			assert.Len(t, sat.Steps, len(p.Steps), "%s, and %s", n.Name, face)
		}
	}
}

// stepsBy are the steps of a plan with a verb.
func stepsBy(p plan.Plan, verb string) (out []work.Act) {
	for _, a := range p.Steps {
		if a.ID.Verb == verb {
			out = append(out, a)
		}
	}
	return out
}

// Of two patterns turned on one sheet each is printed as it is itself.
func TestTwoPatternsOnOneSheet(t *testing.T) {
	c := trial.Card("turned")
	_, one := planned(t, c)
	at := slices.IndexFunc(c.Elements, func(e card.Element) bool { return e.Sheet != nil && e.Sheet.Turned() != nil })
	e := c.Elements[at]
	second := *e.Sheet.Turned()
	second.Turns, second.X, second.Y, second.Turn = 3, 2, -4, 10
	with, two := planned(t, c, card.Edit{Treat: &card.Treat{Element: e.ID, Add: card.DidTurned}})
	got, _ := with.Element(e.ID)
	n := len(got.Sheet.Treatments) - 1
	_, two = planned(t, with, card.Edit{Treat: &card.Treat{Element: e.ID, At: n, Treatment: &card.Treatment{Turned: &second}}})
	require.Len(t, two.Patterns, 2)
	assert.Equal(t, one.Patterns[0].Strikes, two.Patterns[0].Strikes, "the first is as it was")
	assert.Equal(t, n, two.Patterns[1].At)
	require.Len(t, two.Patterns[1].Strikes, 3)
	first := two.Patterns[1].Strikes[0]
	assert.InDelta(t, math.Hypot(2, 4), math.Hypot(first.X, first.Y), 1e-9, "as far from the middle as it was asked for")
	assert.InDelta(t, 120, two.Patterns[1].Step, 1e-9)
	layers := len(stepsBy(one, work.Print)) / e.Sheet.Turned().Turns
	assert.Len(t, stepsBy(two, work.Print), len(stepsBy(one, work.Print))+3*layers, "each of its strikes is a step")
}

// What is blended into a stamp is seen and said wherever it is printed.
func TestBlendsOfPrintsOnSheets(t *testing.T) {
	c := trial.Card("row")
	m := c.Motifs[0]
	at := slices.IndexFunc(m.Layers, func(l card.Layer) bool { return l.Make == card.Printed })
	panel, _ := c.Panel()
	plainCard, _ := planned(t, c, card.Edit{Treat: &card.Treat{Element: panel, Add: card.DidPrint, Motif: m.ID}})
	f := m.Colourways[0].Layers[m.Layers[at].ID]
	f.Ink, f.Blends = "gorse-pale", []card.Blend{{Zone: card.Foot, Ink: "soot-deep"}}
	set := card.Edit{Finish: &card.SetFinish{Motif: m.ID, Colourway: m.Colourways[0].ID, Layers: map[string]card.Finish{m.Layers[at].ID: f}}}
	_, p := planned(t, plainCard, set)
	dabs := 0
	for _, a := range stepsBy(p, work.Print) {
		if a.ID.Element == panel && strings.HasPrefix(a.ID.Part, m.Layers[at].ID+" ") || a.ID.Part == m.Layers[at].ID && a.ID.Motif == "" {
			dabs++
			assert.Contains(t, a.Detail, "dabbed on the foot")
		}
	}
	assert.NotZero(t, dabs)
	f.Blends = nil
	set.Finish.Layers[m.Layers[at].ID] = f
	_, q := planned(t, plainCard, set)
	colours := func(p plan.Plan) map[string]bool {
		out := map[string]bool{}
		for _, s := range p.Build.Things {
			if s.Element.ID != panel {
				continue
			}
			for _, d := range s.Drawn {
				for _, film := range d.Films {
					out[film.Colour] = true
				}
			}
		}
		return out
	}
	assert.Greater(t, len(colours(p)), len(colours(q)), "the blend is drawn in tones of its own")
}

// A colour region that only has a blend is inked all the same.
func TestARegionWithABlendAlone(t *testing.T) {
	c := trial.Again()
	m := c.Motifs[0]
	for _, l := range m.Layers {
		if l.Region == nil || l.Region.By != card.Masked {
			continue
		}
		f := m.Colourways[0].Layers[l.ID]
		f.Ink, f.Blends = "", []card.Blend{{Zone: card.Tip, Ink: "dusk-soft"}}
		_, p := planned(t, c, card.Edit{Finish: &card.SetFinish{Motif: m.ID, Colourway: m.Colourways[0].ID, Layers: map[string]card.Finish{l.ID: f}}})
		at := slices.IndexFunc(p.Steps, func(a work.Act) bool { return a.ID.Verb == work.Print && a.ID.Part == l.ID })
		require.GreaterOrEqual(t, at, 0)
		assert.Equal(t, "dusk-soft", p.Steps[at].Ink)
		assert.Contains(t, p.Steps[at].Detail, "blended into its tip")
		return
	}
	t.Fatal("the card has no masked region")
}

// What goes wrong in a colourway that is on the card only by a print is found: here, that its ink
// is empty.
func TestAColourwayThatIsOnlyPrinted(t *testing.T) {
	c, k := trial.Card("row"), trial.Kit()
	m := c.Motifs[0]
	at := slices.IndexFunc(m.Layers, func(l card.Layer) bool { return l.Make == card.Printed })
	way := card.Colourway{ID: "other", Name: "Other", Layers: map[string]card.Finish{}}
	for id, f := range m.Colourways[0].Layers {
		way.Layers[id] = f
	}
	for i := range k.Inks {
		if k.Inks[i].ID == "heather-soft" {
			k.Inks[i].Gone = true
		}
	}
	f := way.Layers[m.Layers[at].ID]
	f.Ink = "heather-soft"
	way.Layers[m.Layers[at].ID] = f
	c.Motifs[0].Colourways = append(c.Motifs[0].Colourways, way)
	panel, _ := c.Panel()
	says := func(c card.Card) bool {
		return slices.ContainsFunc(warm.Of(c, k, plan.Typeface(trial.Blocks{})).Findings, func(f foresee.Finding) bool { return f.Rule == "gone" && f.Colourway == "other" })
	}
	assert.False(t, says(c), "it is nowhere on the card")
	for _, tr := range []card.Treatment{{Print: &card.Print{Motif: m.ID, Colourways: []string{"other"}}}, {Turned: &card.Turned{Motif: m.ID, Colourways: []string{m.Colourways[0].ID, "other"}, Turns: 2, Start: 1}}} {
		on, _ := planned(t, c, card.Edit{Treat: &card.Treat{Element: panel, Add: card.DidPrint, Motif: m.ID}})
		e, _ := on.Element(panel)
		on, _ = planned(t, on, card.Edit{Treat: &card.Treat{Element: panel, At: len(e.Sheet.Treatments) - 1, Treatment: &tr}})
		assert.True(t, says(on))
	}
}

// pathBox is the box of path data.
func pathBox(t *testing.T, path string) shape.Box {
	t.Helper()
	var g shape.Region
	require.NoError(t, g.UnmarshalText([]byte(path)))
	return g.Bounds()
}
