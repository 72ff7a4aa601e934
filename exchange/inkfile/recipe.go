package inkfile

import (
	"fmt"
	"io"
	"maps"
	"slices"
	"strconv"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/plan"
	"ochrestone/core/work"
	"ochrestone/exchange/table"
)

// Recipe is one line of a card's colours: a layer of an image in a colourway, or an ink laid on a
// sheet.
type Recipe struct {
	Image, Colourway, Layer, Paper, Ink string
	Zone                                string // of a blend; all over for the first ink
	Used                                string // ink really used, where it was another; several where strikes differ
	UsedDry, UsedWet                    string // how the first of those dries there, and looks wet
	Impressions                         int
	Dry, Wet                            string
	L                                   float64
	Known                               string
}

// Recipes lists the colours of a card, image by image, lowest layer first, and after them all else
// that holds ink.
func Recipes(c card.Card, k kit.Kit, p plan.Plan, u Used) []Recipe {
	var out []Recipe
	stock := look.NewStock(k)
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
				r.Zone = string(card.AllOver)
				if l.InkName != "" {
					r.Impressions = f.Strikes()
				}
				r.was(stock, l.Paper, u.inks(k, p, m.ID, w.ID, l.ID)...)
				out = append(out, r)
				for n, b := range l.Blends {
					line := Recipe{Image: r.Image, Colourway: r.Colourway, Layer: r.Layer, Paper: r.Paper, Ink: b.InkName, Zone: string(b.Zone),
						Impressions: f.Blends[n].Strikes(), Dry: b.Dry, Wet: b.Wet, L: b.L, Known: string(colour.Estimated)}
					line.was(stock, l.Paper, u.step(k, card.Step{Verb: work.Blend, Motif: m.ID, Colourway: w.ID, Part: l.ID, N: n + 1})...)
					out = append(out, line)
				}
				if ink, ok := k.Ink(f.Edge); ok && l.Edge != "" {
					line := Recipe{Image: r.Image, Colourway: r.Colourway, Layer: r.Layer, Paper: r.Paper, Ink: ink.Name, Zone: "edge", Impressions: 1, Dry: l.Edge, Known: string(colour.Estimated)}
					line.was(stock, l.Paper, u.step(k, card.Step{Verb: work.Edge, Motif: m.ID, Colourway: w.ID, Part: l.ID})...)
					out = append(out, line)
				}
				if ink, ok := k.Ink(f.Back); ok {
					line := Recipe{Image: r.Image, Colourway: r.Colourway, Layer: r.Layer, Paper: r.Paper, Ink: ink.Name, Zone: "back", Impressions: 1, Known: string(colour.Estimated)}
					line.dries(stock, f.Paper, ink.ID)
					line.was(stock, l.Paper, u.step(k, card.Step{Verb: work.Back, Motif: m.ID, Colourway: w.ID, Part: l.ID})...)
					out = append(out, line)
				}
			}
		}
	}
	return append(out, onSheets(c, k, p, u, stock)...)
}

// onSheets are the lines of what is laid on sheets, on the front of the base and on letters beside
// the layers of images: words, blends, bands, stencils, edges; each ink of a thing once for what is
// done with it.
func onSheets(c card.Card, k kit.Kit, p plan.Plan, u Used, stock look.Stock) (out []Recipe) {
	at := map[Recipe]int{}
	for _, a := range p.Steps {
		ink, ok := k.Ink(a.Ink)
		if m, _, _ := a.Layer(); !ok || m != "" || a.ID.Motif != "" || a.Kind == work.HeatAct {
			continue
		}
		r := Recipe{Image: "Card front", Layer: done[a.ID.Verb], Ink: ink.Name, Zone: string(card.AllOver), Impressions: 1, Known: string(colour.Estimated)}
		paper := c.Base.Paper
		if e, ok := c.Element(a.ID.Element); ok {
			r.Image = build.Name(c, e)
			switch {
			case e.Sheet != nil:
				paper = e.Sheet.Paper
			case e.Letters != nil:
				paper = e.Letters.Paper
			}
		}
		if on, ok := k.Paper(paper); ok {
			r.Paper = on.Name
		}
		if r.Layer == "" {
			r.Layer = a.ID.Verb
		}
		r.dries(stock, paper, ink.ID)
		used := u.step(k, a.ID)
		if i, had := at[r]; had {
			out[i].was(stock, stock.PaperColour(paper).Hex(), used...)
			continue
		}
		at[r] = len(out)
		r.was(stock, stock.PaperColour(paper).Hex(), used...)
		out = append(out, r)
	}
	return append(out, shades(c, k, stock)...)
}

// shades are the second inks of words in two tones, dabbed on over the first.
func shades(c card.Card, k kit.Kit, stock look.Stock) (out []Recipe) {
	add := func(name, paper string, all []card.Treatment) {
		for _, t := range all {
			if t.Words == nil {
				continue
			}
			ink, ok := k.Ink(t.Words.Shade)
			if !ok {
				continue
			}
			r := Recipe{Image: name, Layer: done[work.Print], Paper: stock.PaperName(paper), Ink: ink.Name, Zone: string(card.Foot), Impressions: 1, Known: string(colour.Estimated)}
			r.dries(stock, paper, ink.ID)
			out = append(out, r)
		}
	}
	add("Card front", c.Base.Paper, c.Base.Treatments)
	for _, e := range c.Elements {
		if e.Sheet != nil {
			add(build.Name(c, e), e.Sheet.Paper, e.Sheet.Treatments)
		}
	}
	return out
}

// done says what an ink is laid down as, by the verb of its step.
var done = map[string]string{work.Print: "print", work.Blend: "blend", work.Edge: "edge", work.Back: "back", work.Ink: "ink", work.Splash: "splash", work.Paint: "stroke"}

// dries fills in how an ink dries on a bare card.
func (r *Recipe) dries(s look.Stock, paper, ink string) {
	if d, ok := s.Dried(card.Finish{Ink: ink, Impressions: r.Impressions}, s.PaperColour(paper), paper); ok {
		r.Dry, r.Wet, r.L, r.Known = d.Dry.Hex(), d.Wet.Hex(), d.Dry.Lab().L, string(d.Source)
	}
}

// Used are the inks really used instead of those planned, by step.
type Used map[card.Step]string

// step are the inks really used in a step, on whichever lots of a sitting.
func (u Used) step(k kit.Kit, step card.Step) (out []kit.Ink) {
	for _, s := range slices.SortedFunc(maps.Keys(u), card.Step.Compare) {
		of := s
		if of.Lot = ""; of == step {
			if ink, ok := k.Ink(u[s]); ok && !slices.ContainsFunc(out, func(o kit.Ink) bool { return o.ID == ink.ID }) {
				out = append(out, ink)
			}
		}
	}
	return out
}

// inks are the inks really used for a layer in a colourway, in whichever steps it is laid down:
// as a piece or a print of its image, or on sheets, once or on each strike of a pattern.
func (u Used) inks(k kit.Kit, p plan.Plan, motif, colourway, layer string) (out []kit.Ink) {
	if len(u) == 0 {
		return nil
	}
	for _, a := range p.Steps {
		if m, w, l := a.Layer(); m != motif || w != colourway || l != layer {
			continue
		}
		for _, ink := range u.step(k, a.ID) {
			if !slices.ContainsFunc(out, func(o kit.Ink) bool { return o.ID == ink.ID }) {
				out = append(out, ink)
			}
		}
	}
	return out
}

// was notes what was used instead, and how the first of it looks on the card of the layer,
// whose colour is body.
func (r *Recipe) was(s look.Stock, body string, inks ...kit.Ink) {
	if len(inks) == 0 {
		return
	}
	var names []string
	for _, i := range inks {
		names = append(names, i.Name)
	}
	r.Used = strings.Join(names, ", ")
	under, err := colour.ParseHex(body)
	if err != nil {
		return
	}
	if d, ok := s.Dried(card.Finish{Ink: inks[0].ID, Impressions: r.Impressions}, under, ""); ok {
		r.UsedDry, r.UsedWet = d.Dry.Hex(), d.Wet.Hex()
	}
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
