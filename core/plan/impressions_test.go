package plan_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/cover"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
	"ochrestone/core/work"
)

// impression is what a plan says of the layers of an image: for each, in which ink it is laid down
// with which hand, what dries how long, what is minded, what else goes on it, what is heat set.
func impression(p plan.Plan, motif string) map[string]string {
	out := map[string]string{}
	for _, a := range p.Steps {
		m, _, l := a.Layer()
		mind := slices.Sorted(slices.Values(a.Mind))
		if a.ID.Verb == work.Blend {
			// What is drawn over a print by hand goes by its ink and its zone.
			zone, _, _ := strings.Cut(a.Title, " of ")
			key := fmt.Sprint(a.Ink, " ", strings.HasPrefix(zone, "Colour the"), " ", a.Detail)
			out[key] += fmt.Sprintf("; %s, %.0f min, mind %v", a.Kind, a.Minutes, mind)
			continue
		}
		if m != motif {
			continue
		}
		load := a.Detail
		for _, cut := range []string{" on ", " through its", ". ", ", by hand", " by hand"} {
			load, _, _ = strings.Cut(load, cut)
		}
		if strings.HasPrefix(a.Detail, "As it lies. ") || strings.HasPrefix(a.Detail, "Corner ") || strings.HasPrefix(a.Detail, "Turn ") {
			_, load, _ = strings.Cut(a.Detail, ". ")
			load, _, _ = strings.Cut(load, ". ")
			load, _, _ = strings.Cut(load, " on ")
		}
		if _, had := out[l]; had {
			continue // a further strike of a pattern
		}
		out[l] = fmt.Sprintf("%s, %s %s, %.0f min, mind %v", a.Kind, a.Ink, load, a.Minutes, mind)
	}
	return out
}

// One impression: by whatever way an image comes to be printed on a card, its layers are laid down
// in the same inks, by the same hand, dry as long, mind the same and are heat set as often; the same
// is found of its colours, and the stores are asked for the same.
func TestAnImageIsPrintedAlikeByAnyRoute(t *testing.T) {
	t.Parallel()
	for seed := range uint64(12) {
		c, k := trial.Printed(rand.New(rand.NewPCG(seed, 29)), 6)
		require.NoError(t, c.Validate())
		m := c.Motifs[0].ID
		was := warm.Of(c, k)
		want := impression(was, m)
		about := func(p plan.Plan) (out []string) {
			for _, f := range p.Findings {
				if f.Motif == m && slices.Contains([]string{"one", "order", "hue", "jars", "blend", "runs", "dulls", "smears", "stamp", "noink", "uncoloured", "bleeds", "missing", "gone"}, f.Rule) {
					out = append(out, f.ID)
				}
			}
			slices.Sort(out)
			return out
		}
		heats := func(p plan.Plan) (n int) {
			for _, a := range p.Steps {
				if a.ID.Verb == work.Heat {
					n++
				}
			}
			return n
		}
		for name, lay := range trial.Routes {
			other, err := card.Read(mustDoc(t, c))
			require.NoError(t, err)
			lay(&other)
			if !assert.NoError(t, other.Validate(), "%s, card %d", name, seed) {
				continue
			}
			p := warm.Of(other, k)
			say := fmt.Sprintf("%s, card %d", name, seed)
			assert.Equal(t, want, impression(p, m), say)
			assert.Equal(t, about(was), about(p), say)
			assert.Equal(t, heats(was), heats(p), say)
			for _, a := range p.Steps {
				assert.False(t, (a.ID.Verb == work.Glue || a.ID.Verb == work.Place) && a.ID.Element == c.Elements[len(c.Elements)-1].ID && name != "cut out", "%s: what is printed is not glued: %s", say, a.Title)
			}
			used := map[string]bool{}
			for _, u := range other.Uses() {
				used[u.Key()] = true
			}
			for _, u := range c.Uses() {
				assert.True(t, u.Kind != kit.KindInk || used[u.Key()], "%s: %s", say, u.Key())
			}
			assert.False(t, math.IsNaN(p.Depth.Total))
		}
	}
}

func mustDoc(t *testing.T, c card.Card) []byte {
	t.Helper()
	doc, err := c.MarshalJSON()
	require.NoError(t, err)
	return doc
}

// One impression: where its prints cross one another it dries to the same colours by whatever way it
// comes to be on the front. Looked at every millimetre; along the edges of prints a cell may go to
// either side.
func TestAnImageDriesAlikeByAnyRoute(t *testing.T) {
	t.Parallel()
	tinted, banded := 0, 0
	for seed := range uint64(36) {
		c, k := trial.Printed(rand.New(rand.NewPCG(seed, 31)), 30)
		for id, f := range c.Motifs[0].Colourways[0].Layers {
			// What fades is painted by zone on an image and by steps on a sheet.
			f.Blends = slices.DeleteFunc(f.Blends, func(b card.Blend) bool { return b.Zone != card.AllOver })
			c.Motifs[0].Colourways[0].Layers[id] = f
		}
		ways := []string{"sheet", "treatment", "repeat", "base", "cut out"}
		if seed%3 == 0 {
			// On a panel that has bands already.
			ways = []string{"treatment", "repeat"}
			c.Elements[0].Sheet.Treatments = []card.Treatment{{Bands: &card.Bands{Bands: []card.Band{{Ink: "ink0", W: 85}, {Ink: "ink1", W: 100}}}}}
		}
		was := warm.Of(c, k)
		for _, l := range was.Motifs[0].Colourways[0].Layers {
			tinted += len(l.Tints)
		}
		for _, e := range was.Front.Elements {
			banded += len(e.Tinted)
		}
		want := cover.Seen(&was.Build)
		for _, name := range ways {
			other, err := card.Read(mustDoc(t, c))
			require.NoError(t, err)
			trial.Routes[name](&other)
			p := warm.Of(other, k)
			got := cover.Seen(&p.Build)
			n, off := 0, 0
			for x := -25.0; x <= 25; x++ {
				for y := -25.0; y <= 25; y++ {
					at := shape.Point{X: c.Base.W/2 + x, Y: c.Base.H/2 + y}
					a, _ := want.At(at)
					b, _ := got.At(at)
					n++
					if colour.Difference(a.Colour, b.Colour) > 2.5 {
						off++
					}
				}
			}
			assert.Less(t, float64(off)/float64(n), 0.03, "%s, card %d", name, seed)
		}
	}
	assert.Greater(t, tinted, 4, "cards whose prints cross")
	assert.Greater(t, banded, 2, "prints over bands")
}

// Of two images that overlap the one in front is printed first and masked while the other is printed,
// on whatever face or leaf both of them lie; on card of their own there is nothing to mask.
func TestPrintsAreMaskedAlikeOnAnyFace(t *testing.T) {
	t.Parallel()
	masked := 0
	for seed := range uint64(12) {
		c, k := trial.Printed(rand.New(rand.NewPCG(seed, 37)), 6)
		said := func(p plan.Plan) (out []string) {
			for _, a := range p.Steps {
				if a.ID.Verb == work.Mask || a.ID.Verb == work.Print {
					out = append(out, fmt.Sprint(a.ID.Verb, a.ID.Element, a.ID.Part))
				}
			}
			ms, err := p.Build.Masks(0.4)
			require.NoError(t, err)
			for _, m := range ms {
				out = append(out, fmt.Sprintf("%s %.1f %v", m.Element, m.Region.Area(), m.Over))
			}
			return out
		}
		want := []string{}
		for i, name := range []string{"element", "sheet", "inside", "envelope", "cut out"} {
			other, err := card.Read(mustDoc(t, c))
			require.NoError(t, err)
			trial.Routes[name](&other)
			again := other.Elements[len(other.Elements)-1]
			again.ID, again.Place.X = "front1", again.Place.X+8
			other.Elements = append(other.Elements, again)
			p := warm.Of(other, k)
			require.Empty(t, p.Failed)
			got := said(p)
			switch {
			case i == 0:
				want = got
				masked += len(stepsBy(p, work.Mask))
			case name == "cut out":
				assert.Empty(t, stepsBy(p, work.Mask), "card %d", seed)
			default:
				assert.Equal(t, want, got, "%s, card %d", name, seed)
			}
		}
	}
	assert.Greater(t, masked, 6, "cards with prints over prints")
}
