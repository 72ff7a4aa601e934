package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
)

// dot is a card with a stamp of a square of 20 mm in four colourways.
func dot(change func(*card.Sheet, *card.Turned)) (card.Card, kit.Kit) {
	k := kit.Kit{Papers: []kit.Cardstock{{ID: "p", Kind: kit.PaperCard, Colour: "#f6f5f1", GSM: 216, Caliper: 0.28}},
		Sets: []kit.Set{{ID: "s", Name: "Dot", Kind: kit.StampSet, Parts: []kit.Part{{ID: "a", Label: "Square", Outline: shape.Rect(0, 0, 20, 20), Rank: 1, Copies: 1}}}}}
	c := card.New("Test", measure.Formats()[0], measure.FoldSide, k).AddSet(k.Sets[0], k)
	m := &c.Motifs[0]
	m.Layers[0].Make = card.Printed
	m.Colourways = nil
	sh := card.Sheet{Paper: "p", W: 100, H: 100}
	p := card.Turned{Motif: m.ID, Turns: 4, Start: 1, X: -20, Y: -20}
	for _, n := range []string{"pale", "soft", "full", "deep"} {
		k.Inks = append(k.Inks, kit.Ink{ID: n, Name: "Mere, " + n, Kind: kit.Dye, Dry: "#43849c"})
		m.Colourways = append(m.Colourways, card.Colourway{ID: "w" + n, Name: n, Layers: map[string]card.Finish{m.Layers[0].ID: {Ink: n}}})
		p.Colourways = append(p.Colourways, "w"+n)
	}
	change(&sh, &p)
	sh.Treatments = []card.Treatment{{Turned: &p}}
	c.Elements = []card.Element{{ID: "q", Name: "Quarters", Face: card.Beside, Sheet: &sh}}
	return c, k
}

// Four quarter turns in four inks: each print lies a quarter on, the count and the
// direction are steps, and the trim takes what lies past it.
func TestQuarterTurns(t *testing.T) {
	t.Parallel()
	c, k := dot(func(s *card.Sheet, _ *card.Turned) { s.Trim = 25 })
	require.NoError(t, c.Validate())
	p := warm.Of(c, k)
	q := p.Patterns[0]
	require.Empty(t, q.Problem)
	require.Len(t, q.Strikes, 4)
	assert.InDelta(t, 90, q.Step, 1e-12, "four turns of 90 degrees (common practice, no source)")
	// The panel turned clockwise: on it the second print lies a quarter back.
	assert.InDelta(t, -20, q.Strikes[1].X, 1e-9)
	assert.InDelta(t, 20, q.Strikes[1].Y, 1e-9)
	assert.Equal(t, []int{1, 4, 3, 2}, []int{q.Strikes[0].Corner, q.Strikes[1].Corner, q.Strikes[2].Corner, q.Strikes[3].Corner})
	assert.Equal(t, "wdeep", q.Strikes[3].Colourway)
	// Each square reaches from 10 to 30 mm off the middle both ways; of a panel
	// trimmed to 25 mm each way (15/20)² of it is left.
	assert.InDelta(t, 1-0.75*0.75, q.Lost, 1e-6)
	assert.Zero(t, q.Overlap)
	assert.InDelta(t, 141.42, q.Clear, 0.01, "a square needs its diagonal clear (common practice, no source)")
	assert.Contains(t, strings.Join(q.Notes, " "), "The trim of 25 mm a side takes 44 %")
	var said []string
	for _, s := range p.Steps {
		if s.ID.Element == "q" {
			said = append(said, s.Title+" "+s.Detail)
		}
	}
	require.Len(t, said, 6, "cut, four strikes, trim")
	assert.Contains(t, said[2], "strike 2 of 4 Turn the sheet 90° clockwise first: corner 4 to the top left. Mere, soft")
	assert.Contains(t, said[5], "leaves 50 mm")
}

func TestPatternsTurnTheOtherWayAndOverlap(t *testing.T) {
	t.Parallel()
	c, k := dot(func(_ *card.Sheet, p *card.Turned) { p.Anti, p.Start, p.Turns, p.X, p.Y = true, 2, 8, 0, -15 })
	q := warm.Of(c, k).Patterns[0]
	require.Len(t, q.Strikes, 8)
	assert.InDelta(t, 45, q.Step, 1e-12)
	assert.InDelta(t, 15, q.Strikes[0].X, 1e-9, "corner 2 at the top left: the top of the stamp lies at the panel's right")
	assert.Equal(t, 2, q.Strikes[0].Corner)
	assert.Zero(t, q.Strikes[1].Corner, "between corners")
	assert.Equal(t, 3, q.Strikes[2].Corner)
	assert.Greater(t, q.Overlap, 50.0, "20 mm squares at 15 mm from the middle overlap")
	assert.Zero(t, q.Lost)

	c.Motifs[0].Layers[0].Make = card.Cut
	assert.Contains(t, warm.Of(c, k).Patterns[0].Problem, "no layer that is stamped")

	for field, spoil := range map[string]func(*card.Sheet, *card.Turned){
		"treatments[0].turned.motif": func(_ *card.Sheet, p *card.Turned) { p.Motif = "gone" }, "treatments[0].turned.turns": func(_ *card.Sheet, p *card.Turned) { p.Turns = 1 },
		"trim": func(s *card.Sheet, _ *card.Turned) { s.Trim = 50 }, "treatments[0].turned.colourway": func(_ *card.Sheet, p *card.Turned) { p.Colourways[0] = "gone" },
		"treatments[0].turned.start": func(_ *card.Sheet, p *card.Turned) { p.Start = 0 },
	} {
		c, _ := dot(spoil)
		assert.ErrorContains(t, c.Validate(), "elements[0].sheet."+field)
	}
}

// Of prints that overlap on the panel the one in front is printed and masked
// first; its mask is its outline, inset.
func TestMasksInPrintingOrder(t *testing.T) {
	t.Parallel()
	c, k := dot(func(*card.Sheet, *card.Turned) {})
	c.Elements = nil
	m := c.Motifs[0]
	for i, x := range []float64{40, 50, 90} {
		c.Elements = append(c.Elements, card.Element{ID: []string{"e1", "e2", "e3"}[i], Face: card.Front, Image: &card.Image{Motif: m.ID, Colourway: m.Colourways[0].ID}, Place: card.Place{X: x, Y: 60}})
	}
	b := plan.NewPlanner().Build(c, k)
	masks, err := b.Masks(0.5)
	require.NoError(t, err)
	require.Len(t, masks, 1, "only the second stands before another")
	assert.Equal(t, "e2", masks[0].Element)
	assert.Len(t, masks[0].Over, 1)
	assert.InDelta(t, 19*19, masks[0].Region.Area(), 0.1)
}
