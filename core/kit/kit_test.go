package kit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

func ptr[T any](v T) *T { return &v }

// problems lists the paths an item is refused for.
func problems(err error) (paths []string) {
	if err == nil {
		return nil
	}
	for _, line := range strings.Split(err.Error(), "\n") {
		path, what, _ := strings.Cut(line, ": ")
		if what != "" {
			paths = append(paths, path)
		}
	}
	return paths
}

func TestItemsAreRefusedByField(t *testing.T) {
	box := shape.Rect(0, 0, 10, 10)
	for name, c := range map[string]struct {
		item interface{ Validate() error }
		want []string
	}{
		"good ink":            {kit.Ink{Name: "Gorse", Kind: kit.Dye, Dry: "#e9c957"}, nil},
		"ink by its wet look": {kit.Ink{Name: "Gorse", Kind: kit.Dye, Wet: "#e9c957"}, nil},
		"nameless ink":        {kit.Ink{Name: " ", Kind: kit.Dye, Dry: "#e9c957"}, []string{"name"}},
		"colourless ink":      {kit.Ink{Name: "Gorse", Kind: kit.Dye}, []string{"dry"}},
		"ink of plum":         {kit.Ink{Name: "Gorse", Kind: kit.Dye, Dry: "plum", Wet: "#12"}, []string{"dry", "wet"}},
		"ink of lava":         {kit.Ink{Name: "Gorse", Kind: "lava", Dry: "#e9c957"}, []string{"kind"}},
		"ink that hides all":  {kit.Ink{Name: "Gorse", Kind: kit.Dye, Dry: "#e9c957", Hide: ptr(1.2)}, []string{"hide"}},
		"good paper":          {kit.Cardstock{Name: "Chalk", Colour: "#f6f5f1", Caliper: 0.28, GSM: 216}, nil},
		"paper without sizes": {kit.Cardstock{Name: "Chalk", Colour: "#f6f5f1"}, []string{"caliper", "gsm"}},
		"paper of air":        {kit.Cardstock{Name: "Chalk", Colour: "", Caliper: 11, GSM: -1}, []string{"colour", "caliper", "gsm"}},
		"good foam":           {kit.Spacer{Name: "Foam", Thickness: 2}, nil},
		"flat foam":           {kit.Spacer{Name: "Foam"}, []string{"thickness"}},
		"good glue":           {kit.Adhesive{Name: "Glue", Thickness: 0.02}, nil},
		"glue like a board":   {kit.Adhesive{Name: "", Thickness: 3}, []string{"name", "thickness"}},
		"good envelope":       {kit.Envelope{Name: "A2", W: 111, H: 146}, nil},
		"envelope of nothing": {kit.Envelope{Name: "A2", W: 111}, []string{"w"}},
		"good set":            {kit.Set{Name: "Set", Parts: []kit.Part{{ID: "a", Outline: box, Copies: 1, Rank: 1}}}, nil},
		"empty set":           {kit.Set{Name: "Set"}, []string{"parts"}},
		"twins by id": {kit.Set{Name: "Set", Parts: []kit.Part{{ID: "a", Outline: box, Copies: 1, Rank: 1}, {ID: "a", Outline: box, Copies: 1, Rank: 1}}},
			[]string{"parts[1].id"}},
		"no outline, no copies, no rank": {kit.Set{Name: "Set", Parts: []kit.Part{{ID: "a"}}}, []string{"parts[0].outline", "parts[0].copies", "parts[0].rank"}},
		"sits on itself":                 {kit.Set{Name: "Set", Parts: []kit.Part{{ID: "a", Outline: box, Copies: 1, Rank: 1, Host: "a"}}}, []string{"parts[0].host"}},
		"sits on nothing":                {kit.Set{Name: "Set", Parts: []kit.Part{{ID: "a", Outline: box, Copies: 1, Rank: 1, Host: "z"}}}, []string{"parts[0].host"}},
	} {
		assert.Equal(t, c.want, problems(c.item.Validate()), name)
	}
}

func TestSetsHaveAtMostTwoHundredParts(t *testing.T) {
	var s kit.Set
	s.Name = "Many"
	for i := range 201 {
		s.Parts = append(s.Parts, kit.Part{ID: strings.Repeat("x", i+1), Outline: shape.Rect(0, 0, 1, 1), Copies: 1, Rank: 1})
	}
	assert.Contains(t, problems(s.Validate()), "parts")
}

func TestKindsSettleWhatIsNotSaid(t *testing.T) {
	pigment, dye := kit.Ink{Kind: kit.Pigment}, kit.Ink{Kind: kit.Dye}
	assert.True(t, pigment.Heat(), "pigment inks are heat set")
	assert.False(t, dye.Heat())
	assert.False(t, kit.Ink{Kind: kit.Pigment, NeedsHeat: ptr(false)}.Heat(), "the person's word goes first")
	assert.Greater(t, pigment.Minutes(), dye.Minutes(), "pigment dries slower than dye (common practice, no source)")
	assert.Equal(t, 3.5, kit.Ink{Kind: kit.Dye, DryMinutes: ptr(3.5)}.Minutes())
	assert.Equal(t, kit.BehaviourOf(kit.Dye), kit.BehaviourOf("unheard of"))
	for _, k := range []kit.InkKind{kit.Dye, kit.Pigment, kit.Hybrid, kit.Waterproof, kit.Embossing, kit.Alcohol, kit.Watercolor, kit.Pencil} {
		h := kit.BehaviourOf(k)
		assert.True(t, h.Hide >= 0 && h.Hide <= 1 && h.Minutes >= 0, k)
	}
}

func TestFilmSaysHowItsColourIsKnown(t *testing.T) {
	white, err := colour.ParseHex(kit.PlainWhite)
	require.NoError(t, err)
	for _, c := range []struct {
		ink  kit.Ink
		want colour.Source
	}{
		{kit.Ink{Kind: kit.Dye, Dry: "#b4524f"}, colour.Typed},
		{kit.Ink{Kind: kit.Dye, Dry: "#b4524f", Measured: true}, colour.Measured},
		{kit.Ink{Kind: kit.Dye, Wet: "#b4524f"}, colour.Estimated},
	} {
		f, src, err := c.ink.Film(white)
		require.NoError(t, err)
		assert.Equal(t, c.want, src)
		if c.ink.Dry != "" {
			assert.Equal(t, c.ink.Dry, f.Over(white, 1).Hex(), "the swatch is met on its own paper")
		} else {
			wet, _ := colour.ParseHex(c.ink.Wet)
			assert.Greater(t, f.Over(white, 1).Lab().L, wet.Lab().L, "dye dries lighter (common practice, no source)")
		}
	}
	_, _, err = kit.Ink{Name: "Bad", Kind: kit.Dye, Dry: "plum"}.Film(white)
	assert.ErrorContains(t, err, "Bad")
}

func TestPapersAndFoamUnderHeatAndLight(t *testing.T) {
	for kind, c := range map[kit.PaperKind]struct{ opaque, shy bool }{
		kit.PaperCard: {true, false}, kit.PaperVellum: {false, true}, kit.PaperAcetate: {false, true}, kit.PaperFoam: {true, true}, kit.PaperGlitter: {true, false},
	} {
		p := kit.Cardstock{Kind: kind}
		assert.Equal(t, c.opaque, p.Opaque(), kind)
		assert.Equal(t, c.shy, p.HeatShy(), kind)
	}
	assert.True(t, kit.Spacer{Kind: "square"}.Foam())
	assert.False(t, kit.Spacer{Kind: "board"}.Foam())
}

func TestThingsAreFoundById(t *testing.T) {
	k := kit.Kit{Sets: []kit.Set{{ID: "s", Parts: []kit.Part{{ID: "p", Label: "Wing"}}}}, Inks: []kit.Ink{{ID: "i"}}, Papers: []kit.Cardstock{{ID: "c"}},
		Spacers: []kit.Spacer{{ID: "f"}}, Adhesives: []kit.Adhesive{{ID: "g"}}, Envelopes: []kit.Envelope{{ID: "e", Name: "Wide", W: 120, H: 160}}}
	set, ok := k.Set("s")
	require.True(t, ok)
	part, ok := set.Part("p")
	assert.True(t, ok)
	assert.Equal(t, "Wing", part.Label)
	_, ok = set.Part("q")
	assert.False(t, ok)
	env, ok := k.Envelope("e")
	assert.True(t, ok)
	assert.Equal(t, 160.0, env.Size().Size.H)
	found := func(ok bool) { assert.True(t, ok) }
	_, ok = k.Ink("i")
	found(ok)
	_, ok = k.Paper("c")
	found(ok)
	_, ok = k.Spacer("f")
	found(ok)
	_, ok = k.Adhesive("g")
	found(ok)
	_, ok = k.Paper("none")
	assert.False(t, ok)
}
