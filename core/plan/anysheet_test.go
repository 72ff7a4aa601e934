package plan_test

import (
	"testing"

	"pgregory.net/rapid"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/core/trial"
)

// anySheet draws a sheet of any outline with any openings and treatments, however absurd.
func anySheet(t *rapid.T, motif card.Motif) *card.Sheet {
	mm := func(name string, lo, hi float64) float64 {
		return rapid.OneOf(rapid.Float64Range(lo, hi), rapid.SampledFrom([]float64{lo, hi, min(hi, max(lo, 0)), min(hi, max(lo, 1))})).Draw(t, name)
	}
	ink := func() string {
		return rapid.SampledFrom([]string{"mere-soft", "soot-deep", "no such ink", ""}).Draw(t, "ink")
	}
	outline := func() card.Outline {
		o := card.Outline{Kind: rapid.SampledFrom(card.Outlineds).Draw(t, "kind"), Pitch: mm("pitch", 0, 200), Depth: mm("depth", 0, 200)}
		if o.Kind == card.DiePart {
			o.Set, o.Part = "badge", rapid.SampledFrom([]string{"star", "gone"}).Draw(t, "part")
		}
		if rapid.Bool().Draw(t, "one side") {
			o.Sides = []card.Side{rapid.SampledFrom(card.Sides).Draw(t, "side")}
		}
		return o
	}
	spot := card.Spot{X: mm("x", -400, 400), Y: mm("y", -400, 400), Turn: mm("turn", -360, 360)}
	if rapid.Bool().Draw(t, "near") {
		spot.X, spot.Y = spot.X/40, spot.Y/40
	}
	s := &card.Sheet{Paper: rapid.SampledFrom([]string{"chalk", "vellum", "gone"}).Draw(t, "paper"), W: mm("w", 1, 400), H: mm("h", 1, 400)}
	if rapid.Bool().Draw(t, "shaped") {
		o := outline()
		s.Shape = &o
	}
	for range rapid.IntRange(0, 2).Draw(t, "openings") {
		o := card.Opening{Outline: outline(), W: mm("ow", 0.5, 400), H: mm("oh", 0.5, 400), X: spot.X / 10, Y: spot.Y / 10}
		if rapid.Bool().Draw(t, "letters") {
			o = card.Opening{Text: rapid.SampledFrom([]string{"oho", "感", " "}).Draw(t, "text"), H: mm("oh", 0.5, 60), Islands: rapid.Bool().Draw(t, "islands")}
		}
		s.Openings = append(s.Openings, o)
	}
	way := []string{motif.Colourways[0].ID}
	for range rapid.IntRange(1, 3).Draw(t, "treatments") {
		s.Treatments = append(s.Treatments, rapid.SampledFrom([]card.Treatment{
			{Words: &card.Words{Text: rapid.SampledFrom([]string{"oh", "", "感"}).Draw(t, "words"), Ink: ink(), Letter: mm("letter", 0.5, 100), Bend: mm("bend", -1000, 1000), Emboss: true, Spot: spot}},
			{Print: &card.Print{Motif: motif.ID, Colourways: way, Spot: spot, Rows: &card.Rows{Across: mm("across", 2, 400), Down: mm("down", 2, 400), Shift: 0.5, Turn: 30}}},
			{Fade: &card.Fade{From: rapid.SampledFrom(card.Froms).Draw(t, "from"), Inks: []string{ink(), ink()}, Reach: mm("reach", 1, 600), Spot: spot}},
			{Bands: &card.Bands{Bands: []card.Band{{Ink: ink(), W: mm("band", 0.5, 400)}, {Ink: ink(), W: 5}}, Gap: mm("gap", 0, 100), Start: mm("start", -400, 400), Up: true}},
			{Stencil: &card.Stencil{Set: "cloud", Part: rapid.SampledFrom([]string{"bank", "gone"}).Draw(t, "part"), Ink: ink(), Spot: spot, Paste: true, Shifts: []card.Shifted{{X: mm("sx", -400, 400), Flip: true}}}},
			{Splash: &card.Splash{Ink: ink(), Drops: rapid.IntRange(1, 60).Draw(t, "drops"), Size: mm("size", 0.2, 20), Reach: mm("within", 0, 400), Spot: spot}},
			{Stroke: &card.Stroke{Ink: ink(), W: mm("stroke", 0.2, 100), Points: []card.Offset{{X: spot.X}, {Y: spot.Y}, {Y: spot.Y}}}},
			{Pressed: &card.Pressed{Relief: rapid.SampledFrom([]card.Relief{card.Ribs, card.Dots, card.Weave}).Draw(t, "relief"), Pitch: mm("step", 1, 50)}},
			{Edged: &card.Edged{Ink: ink(), W: mm("edge", 0.3, 60)}},
			{Glaze: &card.Glaze{Kind: card.Shimmer, Reach: mm("glaze", 0, 400), Spot: spot}},
		}).Draw(t, "treatment"))
	}
	return s
}

// Whatever is asked of a sheet, of letters and of a cord, the card is planned: what cannot
// be is said, no ink lies off its sheet, and the rest of the card is as it was.
func TestAnySheetIsPlannedSoundly(t *testing.T) {
	t.Parallel()
	k := trial.Kit()
	m := plan.NewPlanner()
	rapid.Check(t, func(t *rapid.T) {
		c := trial.Card("turned")
		c.Elements = append(c.Elements,
			card.Element{ID: "any", Name: "Any", Face: card.Front, On: "panel", Place: card.Place{X: 50, Y: 60, Turn: rapid.Float64Range(-180, 180).Draw(t, "turn"), Mirror: rapid.Bool().Draw(t, "mirror")}, Flush: rapid.Bool().Draw(t, "flush"), Sheet: anySheet(t, c.Motifs[0])},
			card.Element{ID: "word", Face: card.Front, On: "panel", Place: card.Place{X: 50, Y: 90}, Letters: &card.Letters{Text: rapid.SampledFrom([]string{"oh", "感", "a b"}).Draw(t, "word"), Size: rapid.Float64Range(2, 150).Draw(t, "size"),
				Fit: rapid.SampledFrom([]float64{0, 1, 80, 400}).Draw(t, "fit"), Gap: rapid.Float64Range(-20, 50).Draw(t, "letter gap"), Bend: rapid.SampledFrom([]float64{0, 5, -9, 1000}).Draw(t, "arc"), Paper: "night", Plies: 3,
				Shadow: &card.Shadow{Paper: "chalk", By: rapid.Float64Range(0.3, 20).Draw(t, "by")}}},
			card.Element{ID: "cord", Face: card.Front, On: "panel", Place: card.Place{X: 50, Y: 30}, Ribbon: &card.Ribbon{W: rapid.Float64Range(0.3, 60).Draw(t, "cord"), Thick: 1, Colour: "#888888", Wrapped: true, Tied: card.Bow, At: 0.5,
				Points: []card.Offset{{X: rapid.Float64Range(-400, 400).Draw(t, "to")}, {}, {}}}},
		)
		if err := c.Validate(); err != nil {
			t.Skip(err)
		}
		p := m.Of(c, k, plan.Typeface(trial.Blocks{}))
		for _, th := range p.Build.Things {
			for _, d := range th.Drawn {
				for _, f := range d.Films {
					off, err := f.Region.Minus(d.Local)
					if err != nil {
						t.Fatalf("%s: %v", th.Name, err)
					}
					if off.Area() > 0.02*d.Local.Area()+0.5 {
						t.Fatalf("%g mm² of ink lie off %s", off.Area(), th.Name)
					}
				}
			}
			for _, q := range p.Build.Pieces[th.From:th.To] {
				if err := q.Outline.Storable(); err != nil && !q.Outline.Empty() {
					t.Fatalf("%s: %v", th.Name, err)
				}
			}
		}
		if len(p.Steps) == 0 || p.Build.Things[0].Outline.Path() != shape.Rect(0, 0, 0, 0).Path() && p.Build.Things[0].Outline.Empty() {
			t.Fatal("the rest of the card is not planned")
		}
	})
}
