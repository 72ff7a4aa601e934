package sheet_test

import (
	"bytes"
	"context"
	"errors"
	"io"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/standing"
	"ochrestone/core/trial"
	"ochrestone/demo"
	"ochrestone/exchange/sheet"
)

// made is a card with the kit it is made from.
type made struct {
	name string
	c    card.Card
	k    kit.Kit
}

// everyCard are all demo and trial cards, a slimline one, and one whose image is printed on
// the front and inside too.
func everyCard(t *testing.T) (out []made) {
	t.Helper()
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, c := range demo.Cards(k) {
		out = append(out, made{c.Title, c, k})
	}
	tk := trial.Kit()
	for _, n := range trial.Cards() {
		out = append(out, made{n.Name, n.Card, tk})
	}
	row := trial.Card("row")
	way := row.Motifs[0].Colourways[0].ID
	row.Elements = append(row.Elements,
		card.Element{ID: "in", Name: "Inside", Face: card.InsideRight, Place: card.Place{X: 54, Y: 70}, Bonds: card.Glue("liquid"), Sheet: &card.Sheet{Paper: "chalk", W: 90, H: 120}},
		card.Element{ID: "in-print", Face: card.InsideRight, On: "in", Place: card.Place{X: 54, Y: 70}, Image: &card.Image{Motif: row.Motifs[0].ID, Colourway: way}})
	out = append(out, made{"row, inside too", row, tk})
	slim := card.New("Slim", measure.Formats()[1], measure.FoldSide, tk)
	for _, f := range measure.Formats() {
		if f.Size.H > 210 {
			slim = card.New("Slim", f, measure.FoldSide, tk)
		}
	}
	if s, ok := tk.Set(tk.Sets[0].ID); ok {
		slim = slim.AddSet(s, tk)
	}
	out = append(out, made{"slim", slim, tk})
	for _, m := range out[:2] {
		c := m.c
		mo := c.Motifs[0]
		c.Elements = append(append([]card.Element{}, c.Elements...), card.Element{ID: "inside", Face: card.InsideRight, Place: card.Place{X: 50, Y: 50}, Bonds: card.Glue(""), Sheet: &card.Sheet{Paper: c.Base.Paper, W: 80, H: 60}},
			card.Element{ID: "inside-print", Face: card.InsideRight, On: "inside", Place: card.Place{X: 50, Y: 50}, Image: &card.Image{Motif: mo.ID, Colourway: mo.Colourways[0].ID}})
		out = append(out, made{m.name + ", inside too", c, m.k})
	}
	return out
}

// Every page that can be printed of every card is made, on Letter and on A4. What a page
// refuses is refused in words.
func TestEveryPageOfEveryCard(t *testing.T) {
	for _, m := range everyCard(t) {
		t.Run(m.name, func(t *testing.T) {
			t.Parallel()
			planner := plan.NewPlanner()
			face := plan.Typeface(sheet.Face{})
			p := planner.Of(m.c, m.k, face)
			require.Empty(t, p.Failed)
			sat := planner.Sitting([]plan.Job{{Card: m.c}}, m.k, plan.Did{}, face)
			st := planner.Standing(p, face)
			cuts := planner.Cutting(context.Background(), []plan.Job{{Card: m.c}}, m.k, nil, face)
			for name, size := range map[string]measure.Size{"letter": measure.Letter, "a4": measure.A4} {
				page := sheet.Page(size)
				masks, err := p.Build.Masks(0.4)
				require.NoError(t, err, "the masks")
				ms := make([]sheet.Mask, len(masks))
				for i, k := range masks {
					ms[i] = sheet.Mask{Label: k.Label, Region: k.Region, Over: k.Over}
				}
				pages := map[string]func(io.Writer) error{
					"sheet":              func(w io.Writer) error { return sheet.Guide(w, m.c, m.k, p, page, sheet.Sitting(sat)) },
					"layout":             func(w io.Writer) error { return sheet.WriteLayout(w, p, page) },
					"placement":          func(w io.Writer) error { return sheet.WritePlacement(w, p, 0.4, false, page) },
					"placement mirrored": func(w io.Writer) error { return sheet.WritePlacement(w, p, 0.4, true, page) },
					"pads":               func(w io.Writer) error { return sheet.WritePads(w, p, st, false, page) },
					"pads mirrored":      func(w io.Writer) error { return sheet.WritePads(w, p, st, true, page) },
					"cut list":           func(w io.Writer) error { return sheet.WriteCutting(w, m.c.Title, cuts, page) },
					"masks":              func(w io.Writer) error { return sheet.WriteMasks(w, ms, 0.4, page) },
				}
				for what, write := range pages {
					var b bytes.Buffer
					err := write(&b)
					var jig *sheet.ErrJig
					if errors.As(err, &jig) {
						// What there is nothing of has no page; what there is has one.
						assert.Empty(t, wanted(what, p, st), "%s on %s: %v", what, name, err)
						continue
					}
					require.NoError(t, err, "%s on %s", what, name)
					assert.True(t, bytes.HasPrefix(b.Bytes(), []byte("%PDF-")), "%s on %s", what, name)
				}
			}
			for what, write := range map[string]func(io.Writer) error{
				"cut lines": func(w io.Writer) error { return sheet.CutLines(w, p) },
				"pad lines": func(w io.Writer) error { return sheet.PadLines(w, p, st, false) },
				"front":     func(w io.Writer) error { return sheet.FrontSVG(w, m.c, m.k, p) },
				"picture":   func(w io.Writer) error { return sheet.FrontPNG(w, m.c, m.k, p, 60) },
			} {
				var b bytes.Buffer
				err := write(&b)
				if jig := (*sheet.ErrJig)(nil); errors.As(err, &jig) {
					assert.Empty(t, wanted(what, p, st), "%s: %v", what, err)
					continue
				}
				require.NoError(t, err, what)
				assert.NotZero(t, b.Len(), what)
			}
		})
	}
}

// wanted is what of a plan a page is about: with any of it the page has to be made.
func wanted(page string, p plan.Plan, st standing.Card) string {
	switch page {
	case "masks":
		if m, err := p.Build.Masks(0.4); err == nil && len(m) > 0 {
			return "there are masks"
		}
	case "placement", "placement mirrored", "layout":
		for _, t := range p.Build.Things {
			if t.Leaf == nil && t.Element.Face == card.Front && !t.Outline.Empty() {
				return "there are things to lay"
			}
		}
	case "pads", "pads mirrored", "pad lines":
		for _, l := range st.Pieces {
			for _, s := range l.Supports {
				if s.Raised && l.Thick > 0 {
					return "there are pads"
				}
			}
		}
	case "cut lines":
		for _, t := range p.Build.Things {
			if t.Element.Image == nil && len(t.Drawn) > 0 && t.Drawn[0].Stock != "" {
				return "there are leaves to cut"
			}
		}
	default:
		return page
	}
	return ""
}
