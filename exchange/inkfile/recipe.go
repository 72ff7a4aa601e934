package inkfile

import (
	"fmt"
	"io"
	"strconv"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/work"
	"ochrestone/exchange/table"
)

// Recipe is one line of a card's colours: a layer of an image in a colourway.
type Recipe struct {
	Image, Colourway, Layer, Paper, Ink string
	Zone                                string // of a blend; all over for the first ink
	Used                                string // ink really used, where it was another
	Impressions                         int
	Dry, Wet                            string
	L                                   float64
	Known                               string
}

// Recipes lists the colours of a card, image by image, lowest layer first.
func Recipes(c card.Card, k kit.Kit, p plan.Plan, u Used) []Recipe {
	var out []Recipe
	for mi, m := range p.Motifs {
		if m.Problem != "" {
			continue
		}
		for wi, w := range m.Colourways {
			for li, l := range w.Layers {
				f := c.Motifs[mi].Colourways[wi].Layers[l.ID]
				r := Recipe{Image: m.Name, Colourway: w.Name, Layer: m.Layers[li].Label, Ink: l.InkName, Dry: l.Dry, Wet: l.Wet, L: l.L, Known: string(l.Source)}
				if paper, ok := k.Paper(f.Paper); ok {
					r.Paper = paper.Name
				}
				r.Zone, r.Used = string(card.AllOver), u.used(k, m.ID, w.ID, l.ID, card.Step{Verb: work.Ink}, card.Step{Verb: work.Print})
				if l.InkName != "" {
					r.Impressions = f.Strikes()
				}
				out = append(out, r)
				for n, b := range l.Blends {
					out = append(out, Recipe{Image: r.Image, Colourway: r.Colourway, Layer: r.Layer, Paper: r.Paper, Ink: b.InkName, Zone: string(b.Zone),
						Impressions: f.Blends[n].Strikes(), Dry: b.Dry, Wet: b.Wet, L: b.L, Known: string(colour.Estimated),
						Used: u.used(k, m.ID, w.ID, l.ID, card.Step{Verb: work.Blend, N: n + 1})})
				}
				if ink, ok := k.Ink(f.Edge); ok && l.Edge != "" {
					out = append(out, Recipe{Image: r.Image, Colourway: r.Colourway, Layer: r.Layer, Paper: r.Paper, Ink: ink.Name, Zone: "edge", Impressions: 1, Dry: l.Edge, Known: string(colour.Estimated), Used: u.used(k, m.ID, w.ID, l.ID, card.Step{Verb: work.Edge})})
				}
			}
		}
	}
	return out
}

// Used are the inks really used instead of those planned, by step.
type Used map[card.Step]string

// used names the ink really used in the first of the inking steps named that has
// one.
func (u Used) used(k kit.Kit, motif, colourway, layer string, steps ...card.Step) string {
	for _, s := range steps {
		s.Motif, s.Colourway, s.Part = motif, colourway, layer
		if ink, ok := k.Ink(u[s]); ok {
			return ink.Name
		}
	}
	return ""
}

// WriteRecipe writes the colours of a card as a table.
func WriteRecipe(w io.Writer, rs []Recipe) error {
	rows := [][]string{{"image", "colourway", "layer", "paper", "zone", "ink", "used", "impressions", "dried", "wet", "lightness", "known"}}
	for _, r := range rs {
		n := ""
		if r.Impressions > 0 {
			n = strconv.Itoa(r.Impressions)
		}
		rows = append(rows, []string{r.Image, r.Colourway, r.Layer, r.Paper, r.Zone, r.Ink, r.Used, n, r.Dry, r.Wet, strconv.FormatFloat(r.L, 'f', 1, 64), r.Known})
	}
	if err := table.Write(w, rows); err != nil {
		return fmt.Errorf("write the recipe: %w", err)
	}
	return nil
}

// Palette is the recipe's dried colours as inks to write as a palette.
func Palette(rs []Recipe) []kit.Ink {
	seen := map[string]bool{}
	var out []kit.Ink
	for _, r := range rs {
		name := r.Ink
		if name == "" {
			name = r.Paper
		}
		if key := name + r.Dry; !seen[key] && name != "" {
			seen[key] = true
			out = append(out, kit.Ink{Name: name, Dry: r.Dry})
		}
	}
	return out
}
