package plan

import (
	"fmt"
	"math"

	"ochrestone/core/blend"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/work"
)

// BlendLook is one ink worked into a zone of a layer, where it is fullest.
type BlendLook struct {
	Zone    card.Zone `json:"zone" enum:"all over,rim,foot,tip,left side,right side"`
	InkName string    `json:"inkName"`
	Dry     string    `json:"dry" doc:"dried colour where it covers fully, #rrggbb"`
	Wet     string    `json:"wet" doc:"the same while wet, #rrggbb"`
	L       float64   `json:"l" doc:"its lightness, CIE L*"`
	Reach   float64   `json:"reach" doc:"how far it goes before it has faded out, mm"`
	Missing bool      `json:"missing,omitempty" doc:"the stores do not hold the ink"`
}

// blended adds the blends of a finish to the look of a layer. It returns the
// dried colour all over, which is the base's unless a blend goes all over, and
// the fullest colours of the other blends with their zones.
// paper is the id of the bare card beneath, or empty.
func (b *builder) blended(look *LayerLook, v motif.View, f card.Finish, base colour.Linear, paper string) (colour.Linear, []toned) {
	var tones []toned
	nth := map[card.Zone]int{}
	look.Blends = []BlendLook{}
	all := base
	for _, bl := range f.Blends {
		out := BlendLook{Zone: bl.Zone, Reach: blend.Reach(v.Outline, bl.Zone, nth[bl.Zone])}
		nth[bl.Zone]++
		under := all
		// A further ink in a zone lies on the one before it.
		for _, t := range tones {
			if t.zone == bl.Zone {
				under = t.dry
			}
		}
		ink, ok := b.kit.ink[bl.Ink]
		if !ok {
			out.Missing = true
			look.Blends = append(look.Blends, out)
			continue
		}
		film, _, err := b.film(ink)
		if err != nil {
			continue
		}
		on := paper
		if f.Ink != "" || under != base {
			on = ""
		}
		dry, _, _ := b.kit.on(ink, film, under, on, bl.Strikes())
		if f.Return {
			if first, ok := b.kit.ink[f.Ink]; ok {
				if over, _, err := b.film(first); err == nil {
					dry = over.Over(dry, 1)
				}
			}
		}
		wet := kit.HabitOf(ink.Kind).Drying.Wet(dry)
		out.InkName, out.Dry, out.Wet, out.L = ink.Name, dry.Hex(), wet.Hex(), dry.Lab().L
		look.Blends = append(look.Blends, out)
		if bl.Zone == card.AllOver {
			all = dry
			look.Wet, look.WetL = wet.Hex(), wet.Lab().L
			continue
		}
		tones = append(tones, toned{bl.Zone, dry})
	}
	if i, ok := b.kit.ink[f.Edge]; ok && v.Layer.Make == card.Cut {
		if film, _, err := b.film(i); err == nil {
			edge, _, _ := b.kit.on(i, film, b.paperColour(f.Paper), f.Paper, 1)
			look.Edge = edge.Hex()
		}
	}
	return all, tones
}

// toned is a zone of a layer and its fullest dried colour.
type toned struct {
	zone card.Zone
	dry  colour.Linear
}

// atEdge lists the colours a layer may show along its own edge: the rim's where
// there is one, else the base's, and those of the sides.
func atEdge(base colour.Lab, tones []toned) []colour.Lab {
	out := []colour.Lab{base}
	for _, t := range tones {
		if t.zone == card.Rim {
			out[0] = t.dry.Lab()
		}
	}
	for _, t := range tones {
		if t.zone != card.Rim {
			out = append(out, t.dry.Lab())
		}
	}
	return out
}

// within lists the colours a layer may show away from its edge.
func within(base colour.Lab, tones []toned) []colour.Lab {
	out := []colour.Lab{base}
	for _, t := range tones {
		if t.zone != card.Rim {
			out = append(out, t.dry.Lab())
		}
	}
	return out
}

// closest is the smallest difference between any of two sets of colours: the
// worst that may meet somewhere along an edge.
func closest(a, b []colour.Lab) float64 {
	d := math.Inf(1)
	for _, p := range a {
		for _, q := range b {
			d = math.Min(d, colour.Difference(p, q))
		}
	}
	return d
}

// Steps of lightness within a ladder; our own defaults.
const (
	leastRung = 5.0  // less is not seen as a blend
	mostRung  = 34.0 // more leaves a line that will not soften
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
			case math.Abs(step) < leastRung:
				b.add(Finding{ID: id, Station: "inks", Severity: Wastes, Motif: pm.ID, Colourway: w.ID, Layer: l.ID, Numbers: num,
					What: fmt.Sprintf("%s at the %s of %s will not show", bl.InkName, bl.Zone, pm.Layers[li].Label),
					Why:  fmt.Sprintf("It takes the lightness there from %.0f to %.0f; less than %.0f is not seen as a blend.", from, bl.L, leastRung),
					Do:   "Take a deeper ink, or leave it out."}, f.Blends[n].Ink)
			case step > mostRung:
				do := "Put an ink between them first."
				if mid := b.between(from, bl.L, f.Blends[n].Ink); mid != "" {
					do = fmt.Sprintf("Work in %s between them first.", mid)
				}
				b.add(Finding{ID: id, Station: "inks", Severity: Shows, Motif: pm.ID, Colourway: w.ID, Layer: l.ID, Numbers: num,
					What: fmt.Sprintf("%s at the %s of %s will leave a line", bl.InkName, bl.Zone, pm.Layers[li].Label),
					Why:  fmt.Sprintf("It drops the lightness from %.0f to %.0f at once; steps up to %.0f soften.", from, bl.L, mostRung), Do: do}, f.Blends[n].Ink)
			}
			from = bl.L
		}
	}
}

// between names an owned ink of the family of another whose lightness on white
// lies between two values, the nearest to the middle; empty when there is none.
func (b *builder) between(hi, lo float64, like string) string {
	best, off := "", math.Inf(1)
	for i := range b.kit.Inks {
		ink := &b.kit.Inks[i]
		if ink.ID == like || ink.Gone || b.kit.ink[like] == nil || ink.Family != b.kit.ink[like].Family {
			continue
		}
		c, err := colour.ParseHex(ink.Dry)
		if err != nil {
			continue
		}
		l := c.Lab().L
		if d := math.Abs(l - (hi+lo)/2); l < hi-leastRung && l > lo+leastRung && d < off {
			best, off = ink.Name, d
		}
	}
	return best
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
		reach := blend.Reach(k.pm.img.Views[i].Outline, bl.Zone, earlier(f.Blends[:n], bl.Zone))
		detail := fmt.Sprintf("%s%s, fading out over %s. Start off the piece, little ink, small circles.", k.b.inkName(bl.Ink), passes, k.b.o.format(reach))
		if bl.Zone == card.AllOver {
			detail = k.b.inkName(bl.Ink) + passes + ", over the whole of it."
		}
		add(fmt.Sprintf("blend%d", n+1), fmt.Sprintf("Blend the %s of %s", bl.Zone, where), detail, bl.Ink)
	}
	if last {
		add("return", "Go back over "+where, fmt.Sprintf("%s once more, over the joins, to soften them.", k.b.inkName(f.Ink)), f.Ink)
	}
	if f.Edge != "" {
		add("edge", "Ink the edge of "+where, k.b.inkName(f.Edge)+", run along the cut edge, so that no white core shows.", f.Edge)
	}
	if f.Back != "" {
		add("back", "Ink the back of "+where, k.b.inkName(f.Back)+", where it will be seen.", f.Back)
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
		if ink, ok := k.b.kit.ink[id]; ok && ink.Heat() {
			return card.Finish{Ink: id}
		}
	}
	return f
}

// dabbed says what else goes on a stamp before it is pressed.
func (k *maker) dabbed(f card.Finish) string {
	out := ""
	for _, bl := range f.Blends {
		out += fmt.Sprintf(", then %s dabbed on the %s of the stamp", k.b.inkName(bl.Ink), bl.Zone)
	}
	if out != "" && f.Return {
		out += ", then " + k.b.inkName(f.Ink) + " over the joins"
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
