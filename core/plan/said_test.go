package plan_test

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

func inUnit(u measure.Unit, den int) plan.Option {
	return plan.Writing(measure.Writing{Unit: u, Den: den})
}

// A note set aside stays aside in either unit, and counts no more.
func TestNotesSetAsideStayAsideInEitherUnit(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	c.Elements[2].Place.X = 10 // hangs over the edge, said with a length
	inches := warm.Of(c, k, inUnit(measure.Inches, 16))
	require.NotNil(t, finding(inches, "edge:e1"))
	for _, f := range inches.Findings {
		c.SetAside = append(c.SetAside, card.Aside{Finding: f.ID, Cause: f.Cause, Reason: "meant so"})
	}
	for _, u := range []measure.Unit{measure.Inches, measure.Millimetres} {
		all, spoils := foresee.Open(warm.Of(c, k, inUnit(u, 32)).Findings)
		assert.Zero(t, all, u)
		assert.Zero(t, spoils, u)
	}
	c.Elements[2].Place.X = 6
	f := finding(warm.Of(c, k, inUnit(measure.Millimetres, 16)), "edge:e1")
	require.NotNil(t, f)
	assert.Empty(t, f.Aside, "further over the edge is another cause")
}

// A note set aside when its cause was a sentence stays aside in that unit.
func TestNotesSetAsideBySentenceAreKept(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	c.Elements[2].Place.X = 10
	f := finding(warm.Of(c, k, inUnit(measure.Inches, 16)), "edge:e1")
	c.SetAside = []card.Aside{{Finding: f.ID, Cause: f.What + "|" + f.Why, Reason: "meant so"}}
	assert.Equal(t, "meant so", finding(warm.Of(c, k, inUnit(measure.Inches, 16)), "edge:e1").Aside)
}

func setOf(t *testing.T, k kit.Kit, kind kit.SetKind) kit.Set {
	i := slices.IndexFunc(k.Sets, func(s kit.Set) bool { return s.Kind == kind })
	require.GreaterOrEqual(t, i, 0)
	return k.Sets[i]
}

func step(p plan.Plan, prefix string) (int, *work.Act) {
	for i := range p.Steps {
		if strings.HasPrefix(p.Steps[i].Key, prefix) {
			return i, &p.Steps[i]
		}
	}
	return -1, nil
}

// The layers of a stencil set are stencilled, and done before anything raised is
// put beside them.
func TestStencilsAreStencilledBeforeRaisedWork(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	s := setOf(t, k, kit.StampSet)
	s.ID, s.Kind = "openings", kit.StencilSet
	k.Sets = append(k.Sets, s)
	c := card.New("Stencil", measure.Formats()[0], measure.FoldSide, k).AddSet(s, k)
	for i, l := range c.Motifs[0].Layers {
		require.Equal(t, card.Stencilled, l.Make, l.Label)
		c.Motifs[0].Colourways[0].Layers[l.ID] = card.Finish{Ink: k.Inks[i].ID, Impressions: 1}
	}
	c.Elements = append(c.Elements, card.Element{ID: "s", Face: card.Front, On: c.Mats()[0].ID, Place: card.Place{X: 20, Y: 20}, Bonds: card.Foam("foam", 1),
		Sheet: &card.Sheet{Paper: "chalk", W: 20, H: 8, Treatments: []card.Treatment{{Words: &card.Words{Text: "hi", Ink: "soot-deep", Letter: 3}}}}})
	p := warm.Of(c, k)
	raised, _ := step(p, "place/s/")
	require.Greater(t, raised, 0)
	for i, st := range p.Steps {
		if st.Kind == work.PrintAct && st.ID.Motif != "" {
			assert.Less(t, i, raised, "%s after raised work", st.Title)
			assert.Contains(t, p.Steps[raised].After, work.Need{Key: st.Key, Rule: "beside raised", Why: "stamping beside raised work goes wrong"})
		}
	}
}

// A mat that is too wide is one note, in words of the bench, and the rest of the
// card is still planned.
func TestAMatTooWideIsOneNote(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	c.Elements[0].Inset = card.Even(90)
	p := warm.Of(c, k)
	f := finding(p, "mats")
	require.NotNil(t, f)
	assert.Nil(t, finding(p, "steps"), "nothing waits for anything")
	assert.Contains(t, f.Why, "the mat")
	assert.NotContains(t, f.Why, "lay out")
	assert.Equal(t, "front", f.Station)
	_, put := step(p, "place/e1/")
	require.NotNil(t, put)
	assert.Contains(t, put.Title, "onto the card front")
	err := c.Validate()
	require.Error(t, err)
	assert.NotContains(t, err.Error(), "lay out the mats")
	assert.Contains(t, err.Error(), "elements[0].inset")
}

// A piece glued on a print of the panel is on it before the panel is mounted.
func TestAPieceOnAPrintIsGluedBeforeMounting(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	s := setOf(t, k, kit.StampSet)
	c := card.New("Beetle", measure.Formats()[0], measure.FoldSide, k).AddSet(s, k)
	m := &c.Motifs[0]
	last := &m.Layers[len(m.Layers)-1]
	last.Make, last.On = card.Cut, m.Layers[0].ID
	for i, l := range m.Layers {
		m.Colourways[0].Layers[l.ID] = card.Finish{Paper: "chalk", Ink: k.Inks[i].ID, Impressions: 1}
	}
	p := warm.Of(c, k)
	glued, _ := step(p, "glue/")
	mounted, st := step(p, "mount/panel/")
	require.GreaterOrEqual(t, glued, 0)
	assert.Less(t, glued, mounted)
	assert.True(t, slices.ContainsFunc(st.After, func(n work.Need) bool { return n.Key == p.Steps[glued].Key }), "and it has to be")
}

// Powder rests a moment before the excess is flicked off (common practice, no
// source), on strips and on the panel alike.
func TestPowderRestsBeforeItIsFlicked(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	s := setOf(t, k, kit.StampSet)
	c := card.New("Powder", measure.Formats()[0], measure.FoldSide, k).AddSet(s, k)
	c.Motifs[0].Colourways[0].Layers[c.Motifs[0].Layers[0].ID] = card.Finish{Ink: "clear-emboss", Impressions: 1}
	c.Elements = append(c.Elements, card.Element{ID: "s", Face: card.Front, On: c.Mats()[0].ID, Place: card.Place{X: 50, Y: 20}, Bonds: card.Glue(""),
		Sheet: &card.Sheet{Paper: "chalk", W: 20, H: 8, Treatments: []card.Treatment{{Words: &card.Words{Text: "hi", Ink: "clear-emboss", Letter: 3, Emboss: true}}}}})
	hot, told := 0, 0
	for _, st := range warm.Of(c, k).Steps {
		told += strings.Count(strings.Join(st.Cautions, " "), "not for breathing")
		if st.Kind != work.HeatAct {
			continue
		}
		hot++
		rest, flick := strings.Index(st.Detail, "rest"), strings.Index(st.Detail, "flick")
		assert.True(t, rest > 0 && flick > rest, st.Detail)
		assert.Positive(t, told, "said before the powder is first melted")
	}
	assert.Equal(t, 1, told, "and said once")
	assert.Equal(t, 2, hot, "the strip and the print on the panel")
}

// A die is spoken of only where one goes round a print.
func TestADieIsLaidRoundAPrintOnlyWhereThereIsOne(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	m := &c.Motifs[0]
	at := -1
	for i, l := range m.Layers {
		if l.Make == card.Cut && i > 0 && !slices.ContainsFunc(m.Layers, func(o card.Layer) bool { return o.On == l.ID && o.Make != card.Cut }) {
			at = i
		}
	}
	require.Positive(t, at)
	m.Layers[at].After = true
	p := warm.Of(c, k)
	for _, st := range p.Steps {
		if st.ID.Part == m.Layers[at].ID {
			assert.NotContains(t, st.Detail, "round the print", st.Title)
		}
	}
	pl, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, m.Layers[at].ID, 1, 1)
	require.NoError(t, err)
	assert.NotContains(t, pl.Sighting.Say, "Look through the die")
	lowest, err := place(plan.NewPlanner(), c, k, m.ID).Of(m.Colourways[0].ID, m.Layers[0].ID, 1, 1)
	require.NoError(t, err)
	assert.NotContains(t, lowest.Sighting.Say, "mark on the panel")
}

var nothing = regexp.MustCompile(`(^|[^0-9⁄.])0 (in|mm)\b`)

// Whatever the card, no step and no note speaks of a length of nothing.
func TestNoStepSpeaksOfNothing(t *testing.T) {
	t.Parallel()
	k := manySets(t)
	k.Sets = slices.DeleteFunc(k.Sets, func(s kit.Set) bool { return len(s.Parts) > 4 })
	maker := plan.NewPlanner()
	rapid.Check(t, func(t *rapid.T) {
		c := clone(anyCard(t, k))
		for i := range c.Elements {
			if c.Elements[i].Inset == nil {
				continue
			}
			c.Elements[i].Inset = card.Even(rapid.SampledFrom([]float64{0, 0.3, 0.02, 3}).Draw(t, "border"))
		}
		for _, l := range c.Motifs[0].Layers {
			f := c.Motifs[0].Colourways[0].Layers[l.ID]
			f.Blends = []card.Blend{{Ink: "madder-deep", Zone: rapid.SampledFrom(card.Zones).Draw(t, "zone")}}
			c.Motifs[0].Colourways[0].Layers[l.ID] = f
		}
		for _, u := range []plan.Option{inUnit(measure.Inches, 16), inUnit(measure.Millimetres, 16)} {
			p := maker.Of(c, k, u)
			for _, s := range p.Steps {
				if nothing.MatchString(s.Title + " " + s.Detail) {
					t.Fatalf("%s: %s", s.Title, s.Detail)
				}
			}
			for _, f := range p.Findings {
				if nothing.MatchString(f.What + " " + f.Why + " " + f.Do) {
					t.Fatalf("%s: %s %s", f.What, f.Why, f.Do)
				}
			}
		}
	})
}

// Overlapping images without any ink yet have nothing to mask.
func TestNothingIsMaskedThatIsNotPrinted(t *testing.T) {
	t.Parallel()
	c, k := beetles(t)
	for i := range c.Elements {
		if c.Elements[i].Image != nil {
			c.Elements[i].Place.X, c.Elements[i].Place.Y = 60+6*float64(i), 40
		}
	}
	_, with := step(warm.Of(c, k), "mask/")
	assert.NotNil(t, with)
	for i := range c.Motifs[0].Colourways {
		for id := range c.Motifs[0].Colourways[i].Layers {
			c.Motifs[0].Colourways[i].Layers[id] = card.Finish{}
		}
	}
	_, without := step(warm.Of(c, k), "mask/")
	assert.Nil(t, without)
}

// A pane of vellum is there to be looked through: that it looks like what lies behind it
// is no note, and inked all over it is.
func TestAPaneIsMeantToBeSeenThrough(t *testing.T) {
	t.Parallel()
	c, k := trial.Card("vellum"), trial.Kit()
	assert.Nil(t, finding(warm.Of(c, k), "one:m1:w1:back:glass"))
	c.Motifs[0].Colourways[0].Layers["glass"] = card.Finish{Paper: "vellum", Ink: "fleece-pale", Impressions: 1}
	c.Motifs[0].Colourways[0].Layers["back"] = card.Finish{Paper: "vellum", Ink: "fleece-pale", Impressions: 1}
	assert.NotNil(t, finding(warm.Of(c, k), "one:m1:w1:back:glass"))
}

// The islands of a word are counted once: where it is cut, on its line, and in the list of what is
// used beside paper, all plies.
func TestIslandsAreCountedOnce(t *testing.T) {
	o := two(40, 70, func(c *card.Card, _ *kit.Kit) {
		panel, _ := c.Panel()
		c.Elements = append(c.Elements, card.Element{ID: "word", Face: card.Front, On: panel, Place: card.Place{X: 50, Y: 40}, Bonds: card.Glue(hidden), Letters: &card.Letters{Text: "brood", Size: 14, Gap: 1, Paper: "oat", Plies: 3}})
	})
	p := warm.Of(o.c, o.k, plan.Typeface(trial.Blocks{}))
	require.Empty(t, p.Failed)
	i := slices.IndexFunc(p.Steps, func(a work.Act) bool { return a.ID.Verb == work.Cut && a.ID.Element == "word" })
	assert.Contains(t, p.Steps[i].Detail, "6 loose islands", "o and o, each three times")
	counted := cut.Of(t.Context(), []cut.Job{{Build: &p.Build, Stood: p.Stood, Copies: 2}}).Counts
	j := slices.IndexFunc(counted, func(c cut.Count) bool { return c.Name == "Loose islands of letters" })
	require.GreaterOrEqual(t, j, 0)
	assert.Equal(t, []int{6, 12}, []int{counted[j].Each, counted[j].N})
}
