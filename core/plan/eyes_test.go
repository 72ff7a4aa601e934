package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/demo"
)

func ink(c card.Card, way int, label, id string) string {
	m := &c.Motifs[0]
	for _, l := range m.Layers {
		if l.Label == label {
			f := m.Colourways[way].Layers[l.ID]
			f.Ink = id
			m.Colourways[way].Layers[l.ID] = f
			return l.ID
		}
	}
	panic(label)
}

func beetles(t testing.TB) (card.Card, kit.Kit) {
	c, k := moth(t)
	_ = c
	return demoCards(t)[1], k
}

// A red and a green of one lightness read to most eyes and to few others: the
// note names the pair, and stepping one lighter settles it.
func TestPairsThatOnlyHueParts(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	k.Inks = append(k.Inks,
		kit.Ink{ID: "r", Name: "Red", Kind: kit.Dye, Dry: colour.Lab{L: 55, A: 42, B: 22}.Linear().Hex()},
		kit.Ink{ID: "g", Name: "Green", Kind: kit.Dye, Dry: colour.Lab{L: 55, A: -36, B: 28}.Linear().Hex()},
		kit.Ink{ID: "pale", Name: "Pale green", Kind: kit.Dye, Dry: colour.Lab{L: 82, A: -20, B: 18}.Linear().Hex()})
	ink(c, 0, "Fore wings", "r")
	ink(c, 0, "Fore-wing bands", "g")
	p := warm.Of(c, k)
	f := finding(p, "hue:")
	require.NotNil(t, f)
	assert.Contains(t, f.What, "Fore-wing bands")
	assert.Greater(t, f.Numbers["difference"], 30.0)
	assert.Less(t, f.Numbers["other"], 4.0)
	require.Len(t, p.Motifs[0].Colourways[0].Eyes, 4)
	ink(c, 0, "Fore-wing bands", "pale")
	if f = finding(warm.Of(c, k), "hue:"); f != nil {
		assert.NotContains(t, f.What, "Fore-wing bands", "what is left is another pair")
	}
}

func TestSmallDetailsMayJar(t *testing.T) {
	t.Parallel()
	c, k := moth(t)
	k.Inks = append(k.Inks, kit.Ink{ID: "lemon", Name: "Lemon", Kind: kit.Pigment, Hide: f64(1), Dry: "#fff25a"}, kit.Ink{ID: "night", Name: "Night", Kind: kit.Dye, Dry: "#140f2e"})
	ink(c, 0, "Pupils", "lemon")
	ink(c, 0, "Eyespots", "night")
	f := finding(warm.Of(c, k), "jars:")
	require.NotNil(t, f)
	assert.Contains(t, f.What, "Pupils may jar on Eyespots")
	assert.Less(t, f.Numbers["share"], 0.03)
	ink(c, 0, "Pupils", "heather-full")
	assert.Nil(t, finding(warm.Of(c, k), "jars:"))
}

func f64(v float64) *float64 { return &v }

// Common practice, no source: several parts on one stamp share its ink.
func TestPartsOfOneStampWantOneInk(t *testing.T) {
	t.Parallel()
	c, k := beetles(t)
	assert.Nil(t, finding(warm.Of(c, k), "stamp:"))
	for i := range k.Sets[1].Parts {
		if p := &k.Sets[1].Parts[i]; strings.HasPrefix(p.Label, "Step 2") || strings.HasPrefix(p.Label, "Step 3") {
			p.Stamp = "middle"
		}
	}
	p := warm.Of(c, k)
	f := finding(p, "stamp:")
	require.NotNil(t, f)
	assert.Nil(t, f.Mend, "in one ink these two would read as one: no mend that makes another note")
	n := 0
	for _, x := range p.Findings {
		if strings.HasPrefix(x.ID, "stamp:") {
			n++
		}
	}
	assert.Equal(t, 1, n, "once for the stamp, with its colourways")
	assert.Contains(t, f.Why, "So it is in ")
}

// Common practice, no source: adjacent images in a row should not share a
// colour.
func TestImagesBesideThemselves(t *testing.T) {
	t.Parallel()
	c, k := beetles(t)
	assert.Nil(t, finding(warm.Of(c, k), "beside:"), "five in a row, five colourways")
	c.Elements[3].Image.Colourway = c.Elements[2].Image.Colourway
	f := finding(warm.Of(c, k), "beside:")
	require.NotNil(t, f)
	assert.Equal(t, c.Elements[3].ID, f.Element)
	c.Elements[3].Image.Colourway = c.Elements[1].Image.Colourway
	assert.Nil(t, finding(warm.Of(c, k), "beside:"), "two places on they may repeat")
	for i := range c.Elements {
		if c.Elements[i].Image != nil {
			c.Elements[i].Image.Colourway = c.Elements[1].Image.Colourway
		}
	}
	assert.Nil(t, finding(warm.Of(c, k), "beside:"), "all alike is a choice")
}

// The demo's own cards carry no note that they should not.
func TestDemoCardsStayQuiet(t *testing.T) {
	t.Parallel()
	_, k := moth(t)
	for _, c := range demoCards(t) {
		for _, f := range warm.Of(c, k).Findings {
			for _, id := range []string{"jars:", "stamp:", "beside:"} {
				assert.False(t, strings.HasPrefix(f.ID, id), "%s: %s", c.Title, f.What)
			}
		}
	}
}

func demoCards(t testing.TB) []card.Card {
	_, k := moth(t)
	return demo.Cards(k)
}
