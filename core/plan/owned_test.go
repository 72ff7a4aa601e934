package plan_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// A card on which no ink was chosen yet has one note about it, not one a layer.
func TestNothingChosenIsOneNote(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	for _, s := range k.Sets {
		if len(s.Parts) == 1 {
			continue // plain card alone is a finished image
		}
		c := card.New("Fresh", measure.Formats()[0], measure.FoldSide, k).AddSet(s, k)
		p := warm.Of(c, k)
		inks := 0
		for _, f := range p.Findings {
			if f.Station == "inks" {
				inks++
			}
		}
		assert.Equal(t, 1, inks, "%s: %v", s.Name, p.Findings)
		require.NotNil(t, finding(p, "noink:"))
		m := &c.Motifs[0]
		for i, l := range m.Layers {
			m.Colourways[0].Layers[l.ID] = card.Finish{Paper: "chalk", Ink: k.Inks[4*i+3].ID, Impressions: 1}
		}
		assert.Nil(t, finding(warm.Of(c, k), "noink:"))
	}
}

// A colourway that is not on the card is not talked about.
func TestOnlyWhatIsOnTheCardIsNoted(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	m := &c.Motifs[0]
	spare := card.Colourway{ID: "spare", Name: "Spare", Layers: map[string]card.Finish{}}
	for id, f := range m.Colourways[0].Layers {
		f.Ink = "loam-deep"
		spare.Layers[id] = f
	}
	m.Colourways = append(m.Colourways, spare)
	about := func() (n int) {
		for _, f := range warm.Of(c, k).Findings {
			if f.Colourway == "spare" {
				n++
			}
		}
		return n
	}
	assert.Zero(t, about())
	c.Elements[2].Image.Colourway = "spare"
	assert.Positive(t, about(), "and it is once it is placed")
}

// The white rim of a print that is cut out lies white on white on purpose; a plain
// piece without a print on it does vanish.
func TestAWhiteRimIsNoError(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	set := setOf(t, k, kit.StampSet)
	c := card.New("Print", measure.Formats()[0], measure.FoldSide, k).AddSet(set, k)
	for _, m := range c.Mats() {
		m.Sheet.Paper = "chalk"
	}
	m := &c.Motifs[0]
	m.Layers[0].Make = card.Cut
	for i, l := range m.Layers {
		m.Colourways[0].Layers[l.ID] = card.Finish{Paper: "chalk", Ink: k.Inks[4*i+2].ID, Impressions: 1}
		if i > 0 {
			m.Layers[i].On = m.Layers[0].ID
		}
	}
	m.Colourways[0].Layers[m.Layers[0].ID] = card.Finish{Paper: "chalk"}
	for _, f := range warm.Of(c, k).Findings {
		assert.NotContains(t, f.What, "vanishes on the panel")
	}
	for i := 1; i < len(m.Layers); i++ {
		m.Layers[i].On = ""
		m.Layers[i].Make = card.Cut
	}
	found := false
	for _, f := range warm.Of(c, k).Findings {
		found = found || strings.Contains(f.What, "vanishes on the panel")
	}
	assert.True(t, found, "a plain white piece with nothing printed on it does")
}

// What the stores no longer hold is said: an empty ink, a paper without sheets, a part
// that is lost; and nothing of it when they do.
func TestWhatIsNoLongerOwnedIsSaid(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	p := warm.Of(c, k)
	for _, id := range []string{"gone:", "out:", "lost:"} {
		assert.Nil(t, finding(p, id))
	}
	for i := range k.Inks {
		k.Inks[i].Gone = k.Inks[i].ID == "loam-full"
	}
	for i := range k.Papers {
		if k.Papers[i].ID == "chalk" {
			k.Papers[i].Sheets = 0
		}
	}
	for i, s := range k.Sets {
		if s.ID == c.Motifs[0].Set {
			parts := append([]kit.Part{}, s.Parts...)
			parts[2].Missing = true
			k.Sets[i].Parts = parts
		}
	}
	p = warm.Of(c, k)
	assert.Contains(t, finding(p, "gone:").What, "Loam, full is marked empty")
	assert.Contains(t, finding(p, "out:").What, "no sheet of Chalk, 80 lb left")
	assert.Contains(t, finding(p, "lost:").What, "marked missing")
}

// Plies are glued into one before the piece goes on, each copy counted.
func TestPliesAreGluedFirst(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	c.Motifs[0].Layers[1].Copies = 3
	p := warm.Of(c, k)
	plies, s := step(p, "plies/")
	require.NotNil(t, s)
	assert.Contains(t, s.Title, "3 plies")
	glue, _ := step(p, "glue//moth/bracken/"+c.Motifs[0].Layers[1].ID)
	pop, _ := step(p, "pop//moth/bracken/")
	assert.Less(t, pop, plies)
	assert.Less(t, plies, glue)
}

// Lightness that runs against the ranks by what nobody sees is no note.
func TestOneUnitOfLightnessIsNoOrder(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	assert.Nil(t, finding(warm.Of(c, k), "order:"), "the demo's bands and wings are one unit apart")
}

// A mend is tried with the blends the layer has, so that pressing it settles the note
// (it changes the ink alone).
func TestAMendKeepsTheBlendsAndSettlesTheNote(t *testing.T) {
	t.Parallel()
	tried := 0
	for _, with := range []string{"bracken-full", "loam-full", "fleece-deep", "madder-full", "soot-soft"} {
		c, k := moth(t)
		w := c.Motifs[0].Colourways[0].Layers
		bands := ""
		for _, l := range c.Motifs[0].Layers {
			if l.Label == "Fore-wing bands" {
				bands = l.ID
			}
		}
		f := w[bands]
		f.Ink, f.Blends = "bracken-soft", []card.Blend{{Ink: with, Zone: card.Tip}}
		w[bands] = f
		hit := finding(warm.Of(c, k), "one:moth:bracken:")
		if hit == nil || hit.Mend == nil {
			continue
		}
		tried++
		got, err := c.Apply(k, hit.Mend.Edits...)
		require.NoError(t, err)
		if hit.Layer == bands {
			assert.Equal(t, f.Blends, got.Motifs[0].Colourways[0].Layers[bands].Blends)
		}
		for _, left := range warm.Of(got, k).Findings {
			assert.NotEqual(t, hit.ID, left.ID, "its mend leaves it standing: %s", left.Why)
		}
	}
	assert.Positive(t, tried, "there was a mend to press")
}

// The ink between two steps of a blend is another one than the blend's own.
func TestTheInkBetweenIsAnother(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	w := c.Motifs[0].Colourways[0].Layers
	id := c.Motifs[0].Layers[1].ID
	k.Inks = slices.DeleteFunc(slices.Clone(k.Inks), func(i kit.Ink) bool { return i.Family == "Madder" && (i.Depth == "soft" || i.Depth == "full") })
	w[id] = card.Finish{Paper: "chalk", Ink: "madder-pale", Impressions: 1, Blends: []card.Blend{{Ink: "madder-deep", Zone: card.Foot, Impressions: 3}}}
	said := false
	for _, f := range warm.Of(c, k).Findings {
		if strings.HasPrefix(f.ID, "blend:") {
			said = true
			assert.NotContains(t, f.Do, "Madder, deep", "laid on thrice it is darker than once, but it is the same ink")
		}
	}
	assert.True(t, said, "the step is too large")
}
