package trial

import (
	"fmt"
	"strings"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
)

// drawer is what the strangers own: card, inks dried on a plain white, foam, glue, envelopes.
func drawer() kit.Kit {
	k := kit.Kit{Sets: []kit.Set{}, Swatches: []kit.Swatch{}}
	paper := func(id, colour string, kind kit.PaperKind, gsm, caliper float64) {
		k.Papers = append(k.Papers, kit.Cardstock{ID: id, Name: strings.ToUpper(id[:1]) + id[1:], Kind: kind, Colour: colour, GSM: gsm, Caliper: caliper, Sheets: 9, W: 215.9, H: 279.4})
	}
	paper("white80", "#F7F6F2", kit.PaperCard, 216, 0.28)
	paper("white110", "#F7F6F2", kit.PaperCard, 300, 0.38)
	paper("light60", "#F7F6F2", kit.PaperCard, 160, 0.20)
	for _, c := range [][2]string{{"cream", "#F1E8D2"}, {"kraft", "#B8956C"}, {"pink", "#F2D3D4"}, {"redcard", "#B5333C"}, {"greencard", "#7FA66B"}, {"palegreen", "#BFD6A8"}, {"bluecard", "#C4DAE6"},
		{"sand", "#DCC9A3"}, {"night", "#26303F"}, {"greycard", "#8A8D90"}, {"mirror", "#C9A95B"}, {"black", "#1E1E20"}} {
		paper(c[0], c[1], kit.PaperCard, 216, 0.28)
	}
	paper("pattern", "#E4DED2", kit.PaperPatterned, 120, 0.15)
	paper("glitter", "#C9A95B", kit.PaperGlitter, 300, 0.38)
	paper("vellum", "#EFEFEA", kit.PaperVellum, 100, 0.10)
	paper("acetate", "#F4F6F8", kit.PaperAcetate, 280, 0.20)
	steps := map[string][4]string{
		"blue": {"#CFE0EA", "#9FC3DA", "#5B93BC", "#2A5680"}, "green": {"#D6E5C4", "#A9C98A", "#6C9C52", "#38602F"}, "red": {"#F3CBCB", "#E39A9A", "#C65A5C", "#8C2B34"},
		"amber": {"#F7E3B0", "#EFC66B", "#D99A2B", "#A2661A"}, "violet": {"#DDD3E8", "#BBA6D2", "#8A6BB0", "#553B7C"}, "brown": {"#E3D3C0", "#C2A385", "#8E6A4C", "#54392A"}, "grey": {"#DADCDD", "#ABAEB1", "#77797C", "#45474A"},
	}
	depths := [4]string{"pale", "soft", "full", "deep"}
	ink := func(id, family, depth, dry string, kind kit.InkKind, hide, minutes float64) {
		name := family
		if depth != "" {
			name += ", " + depth
		}
		heat := false
		k.Inks = append(k.Inks, kit.Ink{ID: id, Name: name, Family: family, Depth: depth, Kind: kind, Dry: dry, Wet: darker(dry, 8), Hide: &hide, DryMinutes: &minutes, NeedsHeat: &heat})
	}
	for _, f := range []string{"blue", "green", "red", "amber", "violet", "brown", "grey"} {
		for i, hide := range [4]float64{0.04, 0.06, 0.4, 0.75} {
			name := strings.ToUpper(f[:1]) + f[1:]
			ink(fmt.Sprintf("%s-%d", f, i+1), name, depths[i], steps[f][i], kit.Dye, hide, 2)
			ink(fmt.Sprintf("m-%s-%d", f, i+1), "Marker "+f, depths[i], steps[f][i], kit.Alcohol, hide, 1)
			k.Inks[len(k.Inks)-1].Bleeds = true
		}
	}
	for _, f := range []string{"brown", "red"} {
		ink("p-"+f+"-2", "Pencil "+f, "soft", steps[f][1], kit.Pencil, 0.06, 0)
	}
	ink("black", "Black", "", "#1E1E20", kit.Waterproof, 0.9, 5)
	ink("black-b", "Black that runs", "", "#1E1E20", kit.Dye, 0.9, 2)
	ink("clear", "Clear", "", "#F7F6F2", kit.Embossing, 0.9, 1)
	spacer := func(id, name, kind string, thick, w, h float64) {
		k.Spacers = append(k.Spacers, kit.Spacer{ID: id, Name: name, Kind: kind, Thickness: thick, W: w, H: h})
	}
	spacer("foam2", "Foam dots, 2 mm", "square", 2, 6, 6)
	spacer("foam1", "Foam dots, 1 mm", "square", 1, 6, 6)
	spacer("foam2-mini", "Small foam dots, 2 mm", "mini", 2, 3, 3)
	spacer("foam2-strip", "Foam strip, 2 mm", "tape", 2, 6, 100)
	spacer("craft2", "Craft foam sheet", "sheet", 2, 215.9, 279.4)
	glue := func(id, name, kind string, set float64, wiggle bool) {
		k.Adhesives = append(k.Adhesives, kit.Adhesive{ID: id, Name: name, Kind: kind, SetMinutes: set, Wiggle: wiggle, Shows: kind == "liquid"})
	}
	glue("liquid", "Liquid glue", "liquid", 10, true)
	glue("tape", "Double-sided tape", "double-sided", 0, false)
	glue("runner", "Tape runner", "tape runner", 0, false)
	glue("spray", "Spray glue", "spray", 5, false)
	glue("matte", "Matte medium", "dots", 10, false)
	k.Envelopes = []kit.Envelope{{ID: "a2", Name: "Envelope 4 3/8 x 5 3/4 in", W: 146.05, H: 111.13, Caliper: 0.1}, {ID: "slim", Name: "Slim envelope", W: 225.43, H: 98.43, Caliper: 0.1}}
	k.Machines = []kit.Machine{{ID: "small", Name: "Small platform", W: 152.4, H: 330, Most: 1.5}}
	return k
}

// darker is a colour so much less light, L*.
func darker(hex string, by float64) string {
	c, err := colour.ParseHex(hex)
	if err != nil {
		panic(err)
	}
	l := c.Lab()
	l.L = max(0, l.L-by)
	return l.Linear().Hex()
}
