package plan

import (
	"fmt"
	"math"

	"ochrestone/core/advise"
	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/work"
)

// ladders notes blends that will not show, leave a line, or go from dark to
// light.
func (b *builder) ladders(pm *Motif, m card.Motif, wi int) {
	w := pm.Colourways[wi]
	for li, l := range w.Layers {
		f := m.Colourways[wi].Layers[l.ID]
		from := l.L
		for n, bl := range l.Blends {
			if bl.Missing {
				b.add(Finding{ID: fmt.Sprintf("missing:%s:%s:%s:%d", pm.ID, w.ID, l.ID, n), Station: "inks", Severity: Spoils, Motif: pm.ID, Colourway: w.ID, Layer: l.ID,
					What: fmt.Sprintf("%s has no ink for its %s", pm.Layers[li].Label, bl.Zone), Why: "What it names is not in the stores.", Do: "Choose one you own."}, f.Blends[n].Ink)
				continue
			}
			if bl.Zone == card.AllOver {
				continue
			}
			step := from - bl.L
			id := fmt.Sprintf("blend:%s:%s:%s:%d", pm.ID, w.ID, l.ID, n)
			num := map[string]float64{"from": from, "to": bl.L}
			switch {
			case math.Abs(step) < blend.LeastRung:
				b.add(Finding{ID: id, Station: "inks", Severity: Wastes, Motif: pm.ID, Colourway: w.ID, Layer: l.ID, Numbers: num,
					What: fmt.Sprintf("%s at the %s of %s will not show", bl.InkName, bl.Zone, pm.Layers[li].Label),
					Why:  fmt.Sprintf("It takes the lightness there from %.0f to %.0f; less than %.0f is not seen as a blend.", from, bl.L, blend.LeastRung),
					Do:   "Take a deeper ink, or leave it out."}, f.Blends[n].Ink)
			case step > blend.MostRung:
				do := "Put an ink between them first."
				if mid := advise.Between(b.kit, from, bl.L, f.Blends[n].Ink); mid != "" {
					do = fmt.Sprintf("Work in %s between them first.", mid)
				}
				b.add(Finding{ID: id, Station: "inks", Severity: Shows, Motif: pm.ID, Colourway: w.ID, Layer: l.ID, Numbers: num,
					What: fmt.Sprintf("%s at the %s of %s will leave a line", bl.InkName, bl.Zone, pm.Layers[li].Label),
					Why:  fmt.Sprintf("It drops the lightness from %.0f to %.0f at once; steps up to %.0f soften.", from, bl.L, blend.MostRung), Do: do}, f.Blends[n].Ink)
			}
			from = bl.L
		}
	}
}

// blends adds the steps of working inks into the zones of a layer, and of its
// edge and back, after the step given; it returns the last.
func (k *maker) blends(i int, f card.Finish, after string) string {
	where := k.name(i)
	last := f.Ink != "" && f.Return && len(f.Blends) > 0
	add := func(what, title, detail, ink string) {
		id := k.id(what, i)
		s := k.inked(work.Step{ID: id, Kind: work.InkStep, Title: title, Detail: detail}, card.Finish{Ink: ink})
		k.l.Add(phaseInk, k.step(s, i), work.Need{Step: after, Why: whyLightFirst})
		after = id
	}
	for n, bl := range f.Blends {
		passes := ""
		if bl.Strikes() > 1 {
			passes = fmt.Sprintf(", %d passes", bl.Strikes())
		}
		reach := blend.Reach(k.pm.img.Shapes.Views[i].Outline, bl.Zone, earlier(f.Blends[:n], bl.Zone))
		detail := fmt.Sprintf("%s%s, fading out over %s. Start off the piece, little ink, small circles.", k.b.kit.InkName(bl.Ink), passes, k.b.o.format(reach))
		if bl.Zone == card.AllOver {
			detail = k.b.kit.InkName(bl.Ink) + passes + ", over the whole of it."
		}
		add(fmt.Sprintf("blend%d", n+1), fmt.Sprintf("Blend the %s of %s", bl.Zone, where), detail, bl.Ink)
	}
	if last {
		add("return", "Go back over "+where, fmt.Sprintf("%s once more, over the joins, to soften them.", k.b.kit.InkName(f.Ink)), f.Ink)
	}
	if f.Edge != "" {
		add("edge", "Ink the edge of "+where, k.b.kit.InkName(f.Edge)+", run along the cut edge, so that no white core shows.", f.Edge)
	}
	if f.Back != "" {
		add("back", "Ink the back of "+where, k.b.kit.InkName(f.Back)+", where it will be seen.", f.Back)
	}
	return after
}

// hottest is the finish with, in place of its ink, the first of all its inks that
// needs heat: one blend that does is enough for the piece to be heat set.
func (k *maker) hottest(f card.Finish) card.Finish {
	inks := []string{f.Ink}
	for _, b := range f.Blends {
		inks = append(inks, b.Ink)
	}
	for _, id := range append(inks, f.Edge, f.Back) {
		if ink, ok := k.b.kit.Ink(id); ok && ink.Heat() {
			return card.Finish{Ink: id}
		}
	}
	return f
}

// dabbed says what else goes on a stamp before it is pressed.
func (k *maker) dabbed(f card.Finish) string {
	out := ""
	for _, bl := range f.Blends {
		out += fmt.Sprintf(", then %s dabbed on the %s of the stamp", k.b.kit.InkName(bl.Ink), bl.Zone)
	}
	if out != "" && f.Return {
		out += ", then " + k.b.kit.InkName(f.Ink) + " over the joins"
	}
	return out
}

// earlier counts the blends before in the same zone.
func earlier(bs []card.Blend, z card.Zone) (n int) {
	for _, b := range bs {
		if b.Zone == z {
			n++
		}
	}
	return n
}
