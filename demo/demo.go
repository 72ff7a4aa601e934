// Package demo holds the invented kit and cards of the Quillmarsh Moth Night:
// inks, papers, spacers, the hawk-moth die set, the beetle layering stamps and
// two cards ready made.
package demo

import (
	"embed"
	"fmt"
	"strings"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/exchange/svgin"
)

//go:embed art/*.svg
var art embed.FS

// families are the demo's inks: a name and four dried colours on plain white,
// pale to deep, with the kind of ink.
var families = []struct {
	name string
	kind kit.InkKind
	dry  [4]string
}{
	{"Madder", kit.Dye, [4]string{"#efc6bd", "#d98f86", "#b4524f", "#74282c"}},
	{"Ember", kit.Dye, [4]string{"#f4cdaa", "#e39c63", "#c2662c", "#83401c"}},
	{"Gorse", kit.Dye, [4]string{"#f6e7a6", "#e9c957", "#c99a24", "#8d6a1c"}},
	{"Bracken", kit.Hybrid, [4]string{"#e3d2b0", "#c3a473", "#93713f", "#5d4526"}},
	{"Lichen", kit.Dye, [4]string{"#d7e0c0", "#a9bd83", "#71894a", "#42552b"}},
	{"Sedge", kit.Dye, [4]string{"#bfe0cd", "#7fba9c", "#3f8668", "#1f5241"}},
	{"Mere", kit.Dye, [4]string{"#c3dfe6", "#86b8c8", "#43849c", "#1f5166"}},
	{"Dusk", kit.Pigment, [4]string{"#c9d2e8", "#92a2cd", "#55689f", "#2d3a66"}},
	{"Heather", kit.Dye, [4]string{"#dfcde4", "#b597c2", "#815b92", "#4c3059"}},
	{"Fleece", kit.Hybrid, [4]string{"#f1ead9", "#dccfb5", "#b3a384", "#7f7159"}},
	{"Loam", kit.Pigment, [4]string{"#d8c8bd", "#a98e7e", "#735749", "#43302a"}},
	{"Soot", kit.Waterproof, [4]string{"#c9cacb", "#8f9294", "#55585b", "#26282b"}},
}

var depths = [4]string{"pale", "soft", "full", "deep"}

func inks() []kit.Ink {
	var out []kit.Ink
	for _, f := range families {
		for i, hex := range f.dry {
			c, _ := colour.ParseHex(hex)
			kind := f.kind
			if f.name == "Soot" && i < 3 {
				kind = kit.Dye // only the deepest is a waterproof outline
			}
			out = append(out, kit.Ink{ID: strings.ToLower(f.name) + "-" + depths[i], Name: f.name + ", " + depths[i], Family: f.name, Depth: depths[i],
				Kind: kind, Dry: hex, Wet: kit.BehaviourOf(kind).Drying.Wet(c).Hex()})
		}
	}
	heat := true
	out = append(out, kit.Ink{ID: "clear-emboss", Name: "Clear, for powder", Kind: kit.Embossing, Dry: "#f2f0ea", NeedsHeat: &heat})
	return out
}

func pounds(lb float64, b measure.Basis) float64 {
	g, _ := measure.Grammage(lb, b)
	return float64(int(g + 0.5))
}

func papers() []kit.Cardstock {
	w, h := measure.Letter.W, measure.Letter.H
	stock := func(id, name, hex string, kind kit.PaperKind, gsm, caliper float64, finish string, n int) kit.Cardstock {
		return kit.Cardstock{ID: id, Name: name, Kind: kind, Colour: hex, GSM: gsm, Caliper: caliper, Finish: finish, Sheets: n, W: w, H: h}
	}
	c80, c110 := pounds(80, measure.Cover), pounds(110, measure.Cover)
	return []kit.Cardstock{
		stock("chalk", "Chalk, 80 lb", "#f6f5f1", kit.PaperCard, c80, 0.28, "smooth", 40),
		stock("chalk-heavy", "Chalk, 110 lb", "#f6f5f1", kit.PaperCard, c110, 0.38, "smooth", 25),
		stock("oat", "Oat, 80 lb", "#e9dfca", kit.PaperCard, c80, 0.28, "smooth", 14),
		stock("oat-heavy", "Oat, 110 lb", "#e9dfca", kit.PaperCard, c110, 0.39, "smooth", 10),
		stock("flint", "Flint, 80 lb", "#3b3d40", kit.PaperCard, c80, 0.27, "smooth", 12),
		stock("peat", "Peat, 80 lb", "#4a382e", kit.PaperCard, c80, 0.28, "smooth", 8),
		stock("mist", "Mist, 80 lb", "#cfd6d6", kit.PaperCard, c80, 0.28, "smooth", 9),
		stock("moss", "Moss, 80 lb", "#6d7a4c", kit.PaperCard, c80, 0.29, "felt", 7),
		stock("rosehip", "Rosehip, 80 lb", "#a8373b", kit.PaperCard, c80, 0.28, "smooth", 6),
		stock("night", "Night, 100 lb", "#263249", kit.PaperCard, pounds(100, measure.Cover), 0.34, "smooth", 11),
		stock("kraft", "Kraft, 80 lb", "#b58f66", kit.PaperCard, c80, 0.31, "toothy", 18),
		stock("water", "Rag, for water, 140 lb", "#f3f0e6", kit.PaperWater, 300, 0.50, "cold pressed", 5),
		stock("reed", "Reed stripe", "#c9cfae", kit.PaperPatterned, 170, 0.22, "printed", 6),
		stock("vellum", "Vellum, clear", "#e8e8e3", kit.PaperVellum, 110, 0.11, "clear", 6),
		stock("acetate", "Acetate, clear", "#eef1f2", kit.PaperAcetate, 180, 0.13, "clear", 4),
		stock("glimmer", "Glimmer, pale", "#dcd3bd", kit.PaperGlitter, 250, 0.40, "glitter", 3),
	}
}

// Kit is the whole demo kit.
func Kit() (kit.Kit, error) {
	k := kit.Kit{Inks: inks(), Papers: papers(), Swatches: []kit.Swatch{},
		Spacers: []kit.Spacer{
			{ID: "foam-thin", Name: "Thin foam squares", Kind: "square", Thickness: 1, W: 6, H: 6},
			{ID: "foam", Name: "Foam squares", Kind: "square", Thickness: 2, W: 12, H: 12},
			{ID: "foam-mini", Name: "Mini foam squares", Kind: "mini", Thickness: 2, W: 4, H: 4},
			{ID: "foam-tape", Name: "Foam tape", Kind: "tape", Thickness: 1.6, W: 12, H: 4000},
			{ID: "craft-foam", Name: "Craft-foam sheet", Kind: "sheet", Thickness: 2, W: 210, H: 297},
			{ID: "scrap", Name: "Scrap board", Kind: "board", Thickness: 0.76, W: 100, H: 140},
		},
		Adhesives: []kit.Adhesive{
			{ID: "liquid", Name: "Liquid glue", Kind: "liquid", SetMinutes: 10, Thickness: 0.02, Wiggle: true, Shows: true},
			{ID: "runner", Name: "Tape runner", Kind: "tape runner", Thickness: 0.06, Shows: true},
			{ID: "double", Name: "Double-sided tape", Kind: "double-sided", Thickness: 0.09, Shows: true},
			{ID: "dots", Name: "Dots of matte medium", Kind: "dots", SetMinutes: 15, Thickness: 0.03, Wiggle: true},
			{ID: "spray", Name: "Spray adhesive", Kind: "spray", SetMinutes: 3, Thickness: 0.01},
		},
		Envelopes: []kit.Envelope{},
		Gems:      []kit.Gem{},
		Machines:  []kit.Machine{{ID: "bench-press", Name: "Table machine", W: 150, H: 320, Most: 0.6}},
	}
	for _, e := range measure.Envelopes() {
		k.Envelopes = append(k.Envelopes, kit.Envelope{ID: e.ID, Name: e.Name, W: e.Size.W, H: e.Size.H, Caliper: 0.11})
	}
	for _, s := range []struct {
		file, id, name string
		kind           kit.SetKind
		where          string
		tune           func([]kit.Part)
	}{
		{"hawk-moth", "hawk-moth", "Hawk-moth", kit.DieSet, "Die drawer, left", tuneMoth},
		{"beetle", "beetle", "Beetle, four steps", kit.StampSet, "Stamp box two", tuneBeetle},
		{"toadstool", "toadstool", "Toadstool, four steps", kit.StampSet, "Stamp box two", tuneToadstool},
		{"lantern", "lantern", "Storm lantern", kit.DieSet, "Die drawer, right", tuneLantern},
		{"fan-shell", "fan-shell", "Fan shell", kit.DieSet, "Die drawer, right", tuneShell("Ribs", kit.FitEvenRim)},
		{"cockle", "cockle", "Cockle", kit.DieSet, "Die drawer, right", tuneShell("Ribs", kit.FitEvenRim)},
		{"whelk", "whelk", "Whelk", kit.DieSet, "Die drawer, right", tuneShell("Whorls", kit.FitWithin)},
		{"tide-tray", "tide-tray", "Tide tray", kit.DieSet, "Die drawer, left", func([]kit.Part) {}},
	} {
		raw, err := art.ReadFile("art/" + s.file + ".svg")
		if err != nil {
			return k, fmt.Errorf("read the demo's %s: %w", s.file, err)
		}
		d, err := svgin.Read(raw)
		if err != nil {
			return k, fmt.Errorf("import the demo's %s: %w", s.file, err)
		}
		s.tune(d.Parts)
		k.Sets = append(k.Sets, kit.Set{ID: s.id, Name: s.name, Kind: s.kind, Where: s.where, Parts: d.Parts})
	}
	return k, nil
}

// layerPlan is how a person would settle a part after the import.
type layerPlan struct {
	label string
	rank  int
	fit   kit.Fit
	host  string
}

func tune(parts []kit.Part, order []layerPlan) {
	by := map[string]kit.Part{}
	for _, p := range parts {
		by[p.Label] = p
	}
	for i, l := range order {
		p := by[l.label]
		p.Rank, p.Fit, p.Order, p.Host = l.rank, l.fit, i+1, by[l.host].ID
		parts[i] = p
	}
}

func tuneMoth(parts []kit.Part) {
	tune(parts, []layerPlan{
		{"Silhouette", 1, kit.FitFree, ""},
		{"Hind wings", 3, kit.FitEvenRim, "Silhouette"},
		{"Hind-wing patches", 5, kit.FitEvenRim, "Hind wings"},
		{"Eyespots", 2, kit.FitWithin, "Hind-wing patches"},
		{"Pupils", 1, kit.FitEvenRim, "Eyespots"},
		{"Fore wings", 4, kit.FitEvenRim, "Silhouette"},
		{"Fore-wing bands", 5, kit.FitWithin, "Fore wings"},
		{"Body", 2, kit.FitFree, "Fore wings"},
		{"Body stripes", 6, kit.FitWithin, "Body"},
	})
}

func tuneBeetle(parts []kit.Part) {
	tune(parts, []layerPlan{
		{"Step 1, wash", 1, kit.FitFree, ""},
		{"Step 2, shade", 2, kit.FitWithin, "Step 1, wash"},
		{"Step 3, spots", 3, kit.FitWithin, "Step 1, wash"},
		{"Step 4, lines and legs", 4, kit.FitFree, "Step 1, wash"},
	})
}

func tuneToadstool(parts []kit.Part) {
	tune(parts, []layerPlan{
		{"Step 1, stem", 1, kit.FitFree, ""},
		{"Step 2, cap", 2, kit.FitFree, ""},
		{"Step 3, shade", 3, kit.FitFree, "Step 2, cap"},
		{"Step 4, lines and grass", 4, kit.FitFree, "Step 1, stem"},
	})
}

func tuneLantern(parts []kit.Part) {
	tune(parts, []layerPlan{
		{"Lantern", 1, kit.FitFree, ""},
		{"Glass", 6, kit.FitFree, ""},
		{"Roof", 2, kit.FitWithin, "Lantern"},
		{"Foot", 2, kit.FitWithin, "Lantern"},
		{"Flame", 4, kit.FitWithin, "Glass"},
		{"Heart of the flame", 6, kit.FitWithin, "Flame"},
	})
}

// tuneShell settles a shell in two layers.
func tuneShell(upper string, fit kit.Fit) func([]kit.Part) {
	return func(parts []kit.Part) {
		tune(parts, []layerPlan{{"Shell", 1, kit.FitFree, ""}, {upper, 3, fit, "Shell"}})
	}
}
