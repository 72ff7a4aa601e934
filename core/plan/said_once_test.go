package plan_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// A pencil and a brush are no stamps: what they colour is coloured by hand, sets up nothing, and
// is not said to be stamped.
func TestWhatIsColouredByHandIsNotStamped(t *testing.T) {
	for kind, hand := range map[kit.InkKind]bool{kit.Pencil: true, kit.Alcohol: true, kit.Watercolor: true, kit.Dye: false, kit.Pigment: false} {
		c, k := trial.Card("row"), trial.Kit()
		for i := range k.Inks {
			k.Inks[i].Kind = kind
		}
		p := warm.Of(c, k)
		prints := stepsBy(p, work.Print)
		require.NotEmpty(t, prints)
		for _, a := range prints {
			assert.Equal(t, hand, a.Kind == work.InkAct, "%s: %s", kind, a.Title)
			assert.Equal(t, hand, strings.HasPrefix(a.Title, "Colour ") || strings.HasPrefix(a.Title, "Write "), "%s: %s", kind, a.Title)
			assert.NotContains(t, a.Detail, map[bool]string{true: "stamp", false: "by hand"}[hand], kind)
		}
		assert.Equal(t, hand, p.Time.Run.Setups == 0, "%s sets up %d", kind, p.Time.Run.Setups)
	}
}

// What is printed inside is printed: there is no step that glues it.
func TestAPrintInsideIsNotGlued(t *testing.T) {
	c := trial.Card("row")
	way := c.Motifs[0].Colourways[0].ID
	c.Elements = append(c.Elements, card.Element{ID: "in", Name: "In", Face: card.InsideRight, Place: card.Place{X: 54, Y: 70}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "chalk", W: 90, H: 120}},
		card.Element{ID: "in-print", Face: card.InsideRight, On: "in", Place: card.Place{X: 54, Y: 70}, Bonds: card.Glue("liquid"), Image: &card.Image{Motif: c.Motifs[0].ID, Colourway: way}},
		card.Element{ID: "cut-out", Face: card.InsideRight, On: "in", Place: card.Place{X: 54, Y: 100}, Bonds: card.Glue("liquid"), Image: &card.Image{Motif: c.Motifs[0].ID, Colourway: way, Cutout: &card.Cutout{Paper: "oat"}}})
	p := warm.Of(c, trial.Kit())
	var put []string
	for _, a := range stepsBy(p, work.Elsewhere) {
		put = append(put, a.ID.Element)
	}
	assert.ElementsMatch(t, []string{"in", "cut-out"}, put, "the sheet, and what is on card of its own")
	assert.True(t, slices.ContainsFunc(stepsBy(p, work.Print), func(a work.Act) bool { return strings.Contains(a.Detail, "In") }), "it is printed on it")
}

// A back that is traced by hand is cut by hand, and takes no room on the machine's plate.
func TestATracedBackIsCutByHand(t *testing.T) {
	p := warm.Of(trial.Again(), trial.Kit(), plan.Typeface(trial.Blocks{}))
	traced := 0
	for _, c := range p.Build.Cuts() {
		for _, l := range p.Build.Card.Motifs[0].Layers {
			if c.Motif != p.Build.Card.Motifs[0].ID || c.ID.Part != l.ID {
				continue
			}
			want := build.Die
			if l.Traced != 0 {
				want = build.Scissors
				traced++
			}
			assert.Equal(t, want, c.By, l.Label)
		}
	}
	assert.Positive(t, traced)
}

// A stencil that is laid again in another place is taken up between: nothing says that it stays.
func TestAStencilThatMovesDoesNotStay(t *testing.T) {
	c := trial.Card("mats")
	panel, _ := c.Panel()
	lay := func(shifts []card.Shifted, at ...card.Spot) plan.Plan {
		out := c
		out.Elements = slices.Clone(c.Elements)
		for i := range out.Elements {
			if out.Elements[i].ID == panel {
				s := *out.Elements[i].Sheet
				s.Treatments = nil
				for _, spot := range at {
					s.Treatments = append(s.Treatments, card.Treatment{Stencil: &card.Stencil{Set: "cloud", Part: "bank", Ink: "dusk-soft", Spot: spot, Shifts: shifts}})
				}
				out.Elements[i].Sheet = &s
			}
		}
		return warm.Of(out, trial.Kit())
	}
	kept := func(p plan.Plan) (n int) {
		for _, a := range p.Steps {
			if a.Keep != "" {
				n++
				assert.Contains(t, a.Keep, "the stencil where it is")
			}
		}
		return n
	}
	assert.Equal(t, 1, kept(lay(nil, card.Spot{}, card.Spot{})), "twice at one place")
	assert.Zero(t, kept(lay(nil, card.Spot{}, card.Spot{Y: 20}, card.Spot{Y: 40})), "at three places")
	assert.Zero(t, kept(lay([]card.Shifted{{X: 9}}, card.Spot{}, card.Spot{})), "shifted in between")
}

// A leaf that is held by its flap has its glue there, and no more; dots of glue hold what is fine.
func TestGlueIsWhereItIs(t *testing.T) {
	c, k := trial.Everything(), trial.Kit()
	for i := range c.Elements {
		if c.Elements[i].ID == "leaf" {
			c.Elements[i].Bonds = card.Glue("double")
		}
		if c.Elements[i].ID == "letters" {
			c.Elements[i].Bonds = []card.Bond{{Adhesive: "dots", Zone: card.BondSpots}}
		}
	}
	p := warm.Of(c, k, plan.Typeface(trial.Blocks{}))
	m := plan.NewPlanner()
	st := m.Standing(p, plan.Typeface(trial.Blocks{}))
	leaf := false
	for _, q := range st.Pieces {
		for _, s := range q.Supports {
			if q.Element == "leaf" {
				leaf = true
				assert.Contains(t, []string{"leaf"}, q.Element)
				b := p.Stood[slices.IndexFunc(p.Build.Pieces, func(x build.Piece) bool { return x.ID.Element == "leaf" })].Outline.Bounds()
				assert.LessOrEqual(t, pathBox(t, s.Path).Max.Y, b.Min.Y+12+0.1, "the flap is 12 mm deep")
			}
		}
	}
	assert.True(t, leaf)
	for _, f := range p.Findings {
		assert.False(t, f.Rule == "joint" && f.Element == "letters", "%s: %s", f.What, f.Why)
		assert.False(t, f.Rule == "flush" && f.Element == "leaf")
	}
}

// What has no ink is not printed: nothing is said of how it reads, and what lies beneath it is
// seen as it is.
func TestWhatIsNotPrintedIsNotSeen(t *testing.T) {
	s := trial.StrangerBy("K")
	p := warm.Of(s.Card, s.Kit, plan.Typeface(trial.Blocks{}))
	for _, f := range p.Findings {
		if f.Rule == "one" || f.Rule == "jars" || f.Rule == "hue" {
			assert.NotContains(t, []string{"arms", "feet"}, f.Layer, f.What)
		}
	}
	assert.True(t, slices.ContainsFunc(p.Findings, func(f foresee.Finding) bool { return f.Rule == "uncoloured" }))
	bare := 0
	for _, q := range p.Build.Pieces {
		if q.Bare {
			bare++
			assert.Contains(t, []string{"arms", "feet"}, q.ID.Part)
		}
	}
	assert.Equal(t, 2, bare)
}
