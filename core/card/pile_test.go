package card

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// piled is a card with two strips side by side on the panel, a tag on the first, and a bead of
// a sheet on the tag.
func piled(t *testing.T) Card {
	t.Helper()
	c := sound()
	c.Elements = c.Elements[:1]
	leaf := func(id, on string) Element {
		return Element{ID: id, Face: Front, On: on, Place: Place{X: 50, Y: 50}, Bonds: Glue("glue"), Sheet: &Sheet{Paper: "p", W: 20, H: 10}}
	}
	c.Elements = append(c.Elements, leaf("one", "panel"), leaf("tag", "one"), leaf("bead", "tag"), leaf("two", "panel"))
	require.NoError(t, c.Validate())
	return c
}

func order(c Card) (out []string) {
	for _, e := range c.Elements {
		out = append(out, e.ID)
	}
	return out
}

// What carries others goes up and down the pile with all of it, and what it carries stays among
// itself.
func TestASheetIsRaisedWithWhatItCarries(t *testing.T) {
	c := piled(t)
	up, err := c.Apply(kit.Kit{}, Edit{Shift: &Shift{Element: "one", By: 1}})
	require.NoError(t, err)
	assert.Equal(t, []string{"panel", "two", "one", "tag", "bead"}, order(up))
	down, err := up.Apply(kit.Kit{}, Edit{Shift: &Shift{Element: "one", By: -1}})
	require.NoError(t, err)
	assert.Equal(t, order(c), order(down))
	down, err = c.Apply(kit.Kit{}, Edit{Shift: &Shift{Element: "two", By: -1}})
	require.NoError(t, err)
	assert.Equal(t, []string{"panel", "two", "one", "tag", "bead"}, order(down), "past all that the other carries")
	same, err := c.Apply(kit.Kit{}, Edit{Shift: &Shift{Element: "tag", By: 1}})
	require.NoError(t, err)
	assert.Equal(t, order(c), order(same), "it is the highest on its sheet already")
	_, err = c.Apply(kit.Kit{}, Edit{Shift: &Shift{Element: "panel", By: 1}})
	assert.ErrorContains(t, err, "as they are nested")
}

// A sheet that is put inside takes what lies on it along, and brings it back.
func TestASheetGoesInsideWithWhatLiesOnIt(t *testing.T) {
	c := piled(t)
	face := InsideLeft
	for name, e := range map[string]Edit{"face": {Face: &SetFace{Element: "one", Face: InsideLeft}}, "sheet": {Sheet: &SetSheet{Element: "one", Face: &face}}} {
		in, err := c.Apply(kit.Kit{}, e)
		require.NoError(t, err, name)
		for _, id := range []string{"one", "tag", "bead"} {
			e, _ := in.Element(id)
			assert.Equal(t, InsideLeft, e.Face, "%s: %s", name, id)
		}
		tag, _ := in.Element("tag")
		assert.Equal(t, "one", tag.On, "it lies on it still")
		two, _ := in.Element("two")
		assert.Equal(t, Front, two.Face)
		back, err := in.Apply(kit.Kit{}, Edit{Face: &SetFace{Element: "one", Face: Front}})
		require.NoError(t, err, name)
		bead, _ := back.Element("bead")
		one, _ := back.Element("one")
		assert.Equal(t, [2]string{string(Front), "tag"}, [2]string{string(bead.Face), bead.On})
		assert.Equal(t, "panel", one.On)
	}
}

// A base is fitted round an uneven mat by all four of its borders: an offcut of 5 in by 3 3/4
// beneath a panel, an eighth left and right and a half above and a quarter below, is a base an
// eighth twice wider and three quarters higher.
func TestABaseRoundAnUnevenMat(t *testing.T) {
	c := sound()
	c.Elements = c.Elements[:1]
	mat := Element{ID: "mat", Face: Front, Inset: &Margins{Left: measure.Inch / 8, Right: measure.Inch / 8, Top: measure.Inch / 2, Bottom: measure.Inch / 4}, Bonds: Glue("glue"), Sheet: &Sheet{Paper: "p"}}
	c.Elements[0].On = "mat"
	c.Elements = append([]Element{mat}, c.Elements...)
	c, err := c.Apply(kit.Kit{}, Edit{Around: &Around{W: 100, H: 80, Border: 3}})
	require.NoError(t, err)
	assert.InDelta(t, 106+measure.Inch/4, c.Base.W, 1e-9)
	assert.InDelta(t, 86+measure.Inch*3/4, c.Base.H, 1e-9)
	leaves, err := c.Nest()
	require.NoError(t, err)
	assert.InDelta(t, 100, leaves[1].Size.W, 1e-9)
	assert.InDelta(t, 80, leaves[1].Size.H, 1e-9)
}
