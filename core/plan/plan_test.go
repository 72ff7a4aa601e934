package plan_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/cover"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/ramp"
	"ochrestone/core/shape"
	"ochrestone/core/work"
	"ochrestone/demo"
)

func moth(t testing.TB) (card.Card, kit.Kit) {
	k, err := demo.Kit()
	require.NoError(t, err)
	return demo.Cards(k)[0], k
}

func finding(p plan.Plan, prefix string) *foresee.Finding {
	for i, f := range p.Findings {
		if strings.HasPrefix(f.ID, prefix) {
			return &p.Findings[i]
		}
	}
	return nil
}

func TestPlanIsAPureFunction(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	before, _ := json.Marshal(c)
	a, _ := json.Marshal(warm.Of(c, k))
	m := plan.NewPlanner()
	b, _ := json.Marshal(m.Of(c, k))
	again, _ := json.Marshal(m.Of(c, k))
	assert.Equal(t, a, b)
	assert.Equal(t, a, again, "what is remembered changes nothing")
	after, _ := json.Marshal(c)
	assert.Equal(t, before, after)
}

func TestLayersThatReadAsOneAndTheMend(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	set := func(label, ink string) string {
		for _, l := range c.Motifs[0].Layers {
			if l.Label == label {
				f := c.Motifs[0].Colourways[0].Layers[l.ID]
				f.Ink = ink
				c.Motifs[0].Colourways[0].Layers[l.ID] = f
				return l.ID
			}
		}
		t.Fatal(label)
		return ""
	}
	id := set("Fore-wing bands", "bracken-soft")
	f := finding(warm.Of(c, k), "one:")
	require.NotNil(t, f, "the same ink on bands and wings")
	assert.Contains(t, f.What, "Fore-wing bands")
	assert.InDelta(t, 0, f.Numbers["difference"], 1e-9)
	require.NotNil(t, f.Mend)
	fin := c.Motifs[0].Colourways[0].Layers[id]
	require.Equal(t, id, f.Layer)
	fin.Ink = f.Mend.Edits[0].Finish.Layers[id].Ink
	c.Motifs[0].Colourways[0].Layers[id] = fin
	p := warm.Of(c, k)
	assert.Nil(t, finding(p, "one:"), "the mend settles it")

	set("Silhouette", "")
	way := c.Motifs[0].Colourways[0]
	for _, l := range c.Motifs[0].Layers {
		if l.Label == "Silhouette" {
			way.Layers[l.ID] = card.Finish{Paper: "mist"}
		}
	}
	p = warm.Of(c, k)
	f = finding(p, "one:moth:bracken::")
	require.NotNil(t, f, "a silhouette of the panel's own paper")
	assert.Contains(t, f.What, "vanishes on the panel")
	assert.NotNil(t, finding(p, "order:"), "and the order is broken")
}

func TestNotesSetAsideComeBackWhenTheCauseChanges(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	f := finding(warm.Of(c, k), "one:")
	require.NotNil(t, f, "the demo's bands are close to its wings")
	c.SetAside = []card.Aside{{Finding: f.ID, Cause: f.Cause, Reason: "meant so"}}
	f = finding(warm.Of(c, k), "one:")
	assert.Equal(t, "meant so", f.Aside)
	for id, fin := range c.Motifs[0].Colourways[0].Layers {
		if fin.Ink == "fleece-full" {
			fin.Impressions = 2
			c.Motifs[0].Colourways[0].Layers[id] = fin
		}
	}
	if f = finding(warm.Of(c, k), "one:"); f != nil {
		assert.Empty(t, f.Aside)
	}
}

func TestFrontDepthAndPostFindings(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	c.Elements[2].Place.X = 10
	p := warm.Of(c, k)
	f := finding(p, "edge:e1")
	require.NotNil(t, f)
	require.NotNil(t, f.Mend)
	c, err := c.Apply(k, f.Mend.Edits...)
	require.NoError(t, err)
	assert.Nil(t, finding(warm.Of(c, k), "edge:e1"), "the mend brings it in")

	c.Elements[3].Bonds = card.Foam("foam", 3)
	p = warm.Of(c, k)
	f = finding(p, "thick")
	require.NotNil(t, f, "three levels of 2 mm foam")
	// Base 2 x 0.39, mat and panel with tape, three foams, the strip, two walls.
	want := 2*0.39 + 0.06 + 0.34 + 0.06 + 0.28 + 6 + 0.28 + 2*0.11
	assert.InDelta(t, want, f.Numbers["filled"], 1e-9, "added up by hand")
	c.Base.Envelope = "square4"
	assert.NotNil(t, finding(warm.Of(c, k), "envelope"))
}

func TestHiddenMissingAndHeat(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	m := &c.Motifs[0]
	last := m.Layers[0]
	m.Layers = append(m.Layers[1:], last) // the silhouette on top hides the rest
	for i := range m.Layers {
		m.Layers[i].On = ""
	}
	p := warm.Of(c, k)
	assert.NotNil(t, finding(p, "hidden:"))
	for id, f := range m.Colourways[0].Layers {
		if f.Ink == "loam-full" {
			f.Paper = "acetate"
			m.Colourways[0].Layers[id] = f
		}
	}
	f := finding(warm.Of(c, k), "hot:")
	require.NotNil(t, f, "pigment ink on acetate")
	assert.Equal(t, foresee.Spoils, f.Severity)
	k.Inks = nil
	assert.NotNil(t, finding(warm.Of(c, k), "missing:"))
	k.Sets = nil
	assert.NotNil(t, finding(warm.Of(c, k), "image:"))
}

func TestStepsAreInAnOrderThatWorks(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	p := warm.Of(c, k)
	at := map[string]int{}
	for _, s := range p.Steps {
		at[s.Key] = s.Number
	}
	require.Len(t, at, len(p.Steps), "ids are unique")
	for _, s := range p.Steps {
		for _, n := range s.After {
			assert.Less(t, at[n.Key], s.Number, "%s needs %s", s.Title, n.Key)
		}
	}
	lastHeat, firstFoam := 0, math.MaxInt
	for _, s := range p.Steps {
		if s.Kind == work.HeatAct {
			lastHeat = max(lastHeat, s.Number)
			assert.NotEmpty(t, s.Cautions)
		}
		if s.Kind == work.FoamAct {
			firstFoam = min(firstFoam, s.Number)
		}
	}
	assert.Positive(t, lastHeat)
	assert.Less(t, lastHeat, firstFoam, "heat before foam")
	assert.Equal(t, work.Finish, p.Steps[len(p.Steps)-1].ID.Verb)
	assert.Less(t, at["mount/panel////0"], at["mount/mat////0"], "panel on its mat, then both on the base")

	var heat, foam work.Act
	for _, s := range p.Steps {
		if s.Number == lastHeat {
			heat = s
		}
		if s.Number == firstFoam {
			foam = s
		}
	}
	c.Order = []card.Step{foam.ID, heat.ID}
	p = warm.Of(c, k)
	f := finding(p, "step:"+foam.Key+":"+heat.Key)
	require.NotNil(t, f, "moved by hand: heat after foam")
	assert.Contains(t, f.What, "after foam")
}

func TestSuggestionsKeepTheirPromises(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("not in a short run")
	}
	c, k := moth(t)
	m := plan.NewPlanner()
	for _, school := range []card.School{card.LightGround, card.DarkGround, card.LocalColour} {
		got, _, err := coloured(m, c, k, advise.Ask{Motif: "moth", Colourway: "bracken", School: school}).Suggest(context.Background(), advise.Ask{Motif: "moth", Colourway: "bracken", School: school})
		require.NoError(t, err, school)
		require.Len(t, got, 5, school)
		c2 := c
		c2.Motifs = []card.Motif{c.Motifs[0]}
		c2.Motifs[0].School = school
		for _, s := range got {
			assert.GreaterOrEqual(t, s.Look.Weakest, look.Readable, "%s: %s", school, s.Name)
			way := c.Motifs[0].Colourways[0]
			way.Layers = s.Finishes
			c2.Motifs[0].Colourways = []card.Colourway{way}
			p := warm.Of(c2, k)
			assert.Nil(t, finding(p, "one:"), "%s: %s", school, s.Name)
			assert.Nil(t, finding(p, "order:"), "%s: %s", school, s.Name)
		}
	}
	k.Inks = k.Inks[:2]
	_, _, err := coloured(m, c, k, advise.Ask{Motif: "moth", Colourway: "bracken", School: card.DarkGround}).Suggest(context.Background(), advise.Ask{Motif: "moth", Colourway: "bracken", School: card.DarkGround})
	assert.ErrorIs(t, err, ramp.ErrNoAnswer)
	_, _, err = coloured(m, c, k, advise.Ask{Motif: "none"}).Suggest(context.Background(), advise.Ask{Motif: "none"})
	assert.Error(t, err)
}

// A measured swatch of the ink on that very paper wins over the model.
func TestMeasuredSwatchWins(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	k.Swatches = []kit.Swatch{{Ink: "bracken-soft", Paper: "chalk", Impressions: 1, Dry: "#ab9060"}}
	for _, l := range warm.Of(c, k).Motifs[0].Colourways[0].Layers {
		if l.InkName == "Bracken, soft" {
			assert.Equal(t, "#ab9060", l.Dry)
			assert.EqualValues(t, "measured", l.Source)
		}
	}
}

// scene is a card of 60 images and 300 layers: six sets of five layers, each
// set placed ten times.
func scene() (card.Card, kit.Kit) {
	k, _ := demo.Kit()
	c := card.New("many", measure.Formats()[4], measure.FoldSide, k)
	for s := range 6 {
		set := kit.Set{ID: fmt.Sprint("set", s), Name: fmt.Sprint("Set ", s)}
		for i := range 5 {
			var r shape.Ring
			for a := range 60 {
				t := 2 * math.Pi * float64(a) / 60
				rad := (9 - 1.6*float64(i)) * (1 + 0.1*math.Sin(float64(s+3)*t))
				r = append(r, shape.Point{X: rad * math.Cos(t), Y: rad * math.Sin(t)})
			}
			set.Parts = append(set.Parts, kit.Part{ID: fmt.Sprint(i), Label: fmt.Sprint("Layer ", i), Outline: shape.New(true, r), Rank: i + 1, Copies: 1, Fit: kit.FitEvenRim})
		}
		k.Sets = append(k.Sets, set)
		c = c.AddSet(set, k)
		m := &c.Motifs[s]
		for i, l := range m.Layers {
			m.Colourways[0].Layers[l.ID] = card.Finish{Paper: "chalk", Ink: k.Inks[(s*4+i)%48].ID}
		}
		for n := range 9 {
			e := c.Elements[len(c.Elements)-1]
			e.ID = fmt.Sprintf("x%d-%d", s, n)
			c.Elements = append(c.Elements, e)
		}
	}
	for i := range c.Elements[1:] {
		c.Elements[i+1].Place = card.Place{X: 12 + float64(i%6)*20, Y: 10 + float64(i/6)*17}
	}
	return c, k
}

func BenchmarkPlan60x300(b *testing.B) {
	c, k := scene()
	n := 0
	for _, e := range c.Elements {
		if e.Image != nil {
			m, _ := c.Motif(e.Image.Motif)
			n += len(m.Layers)
		}
	}
	if len(c.Elements) != 61 || n != 300 {
		b.Fatal(len(c.Elements), n)
	}
	b.Run("cold", func(b *testing.B) {
		for b.Loop() {
			plan.Of(c, k)
		}
	})
	b.Run("after an edit", func(b *testing.B) {
		m := plan.NewPlanner()
		m.Of(c, k)
		for n := 0; b.Loop(); n++ {
			c, err := c.Apply(k, card.Edit{Move: &card.Move{Element: c.Elements[1+n%60].ID, DX: 0.5}})
			if err != nil {
				b.Fatal(err)
			}
			m.Of(c, k)
		}
	})
}

func BenchmarkMothCold(b *testing.B) {
	c, k := moth(b)
	for b.Loop() {
		plan.Of(c, k)
	}
}

// With a hole in the drawer the advice names a lightness that, once there,
// really makes it.
func TestAdviceNamesTheMissingLightness(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	ask := advise.Ask{Motif: c.Motifs[0].ID, Colourway: c.Motifs[0].Colourways[0].ID, School: card.DarkGround, Best: 1}
	_, advice, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	require.NoError(t, err)
	assert.Empty(t, advice, "the whole drawer lacks nothing")

	ask.Families = []string{"Soot"}
	var few []kit.Ink
	for _, i := range k.Inks {
		i.Kind = kit.Dye
		if i.Family == "Soot" {
			few = append(few, i)
		}
	}
	k.Inks = few
	for i := range c.Motifs[0].Layers { // three ranks of cut pieces, from four greys
		l := &c.Motifs[0].Layers[i]
		l.Rank = 1 + i%4
	}
	ways, advice, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	if err == nil {
		require.NotEmpty(t, ways)
		if ways[0].Look.Weakest >= look.Readable {
			assert.Empty(t, advice)
			return
		}
	}
	require.NotEmpty(t, advice, "%v", err)
	var lo, hi float64
	_, scan := fmt.Sscanf(advice[strings.Index(advice, "lightness of"):], "lightness of %f to %f", &lo, &hi)
	require.NoError(t, scan, advice)
	grey := colour.Lab{L: (lo + hi) / 2}.Linear().Hex()
	k.Inks = append(k.Inks, kit.Ink{ID: "new", Name: "New grey", Family: "Soot", Kind: kit.Dye, Dry: grey})
	better, _, err := coloured(plan.NewPlanner(), c, k, ask).Suggest(context.Background(), ask)
	require.NoError(t, err)
	if len(ways) > 0 {
		assert.Greater(t, better[0].Look.Weakest, ways[0].Look.Weakest)
	}
}

// The model fitted to swatches foretells a swatch held back better than the
// typed colour does.
func TestDrawerForetellsHeldBackSwatches(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	d := look.KnowledgeOf(k)
	assert.Zero(t, d.Swatches)
	assert.Zero(t, d.HeldBack)
	for n := range 12 {
		ink := &k.Inks[n*3]
		white, err := colour.ParseHex(kit.PlainWhite)
		require.NoError(t, err)
		film, _, err := ink.Film(white)
		require.NoError(t, err)
		film.Hide = math.Min(1, film.Hide+0.25) // chalkier than its kind
		for _, id := range []string{"chalk", "kraft", "moss", "flint"} {
			p, ok := k.Paper(id)
			require.True(t, ok)
			under, err := colour.ParseHex(p.Colour)
			require.NoError(t, err)
			k.Swatches = append(k.Swatches, kit.Swatch{Ink: ink.ID, Paper: id, Impressions: 1, Dry: film.Over(under, 1).Hex()})
		}
	}
	d = look.KnowledgeOf(k)
	assert.Equal(t, 48, d.Swatches)
	assert.Equal(t, 12, d.Measured)
	assert.Equal(t, 48, d.HeldBack)
	assert.Greater(t, d.Default, 4.0, "the kind's hiding power is wrong for these")
	assert.Less(t, d.Error, d.Default/2)
}

// BenchmarkMap is the map of the front alone, of 60 elements of 300 layers.
func BenchmarkMap(b *testing.B) {
	c, k := scene()
	built := plan.Of(c, k).Build
	for b.Loop() {
		cover.Seen(&built)
	}
}
