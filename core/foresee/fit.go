package foresee

import (
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/placing"
	"ochrestone/core/register"
)

// unevenRim is by how much the widest rim may pass the narrowest; our own default.
const unevenRim = 2.5

func fitRules(forgiven register.Limits) []Rule {
	return []Rule{
		{ID: "outside", Station: Register, Severity: Shows, Source: practice,
			Limits: []Limit{{"spill forgiven", forgiven.Spill, "mm", "Register, under What the eye forgives"}}, check: images(outside)},
		{ID: "rim", Station: Register, Severity: Tip, Source: practice, Limits: []Limit{{"widest to narrowest", unevenRim, "none", ""}}, check: images(rims)},
		{ID: "play", Station: Register, Severity: Shows, Source: "Rayleigh's law over the play; the spreads are ours until your own are measured", check: images(play)},
		{ID: "thin", Station: Register, Severity: Tip, Source: practice, Limits: []Limit{{"thinnest bridge", placing.Thinnest, "mm", ""}}, check: images(thin)},
		{ID: "door", Station: Register, Severity: Tip, Source: practice, check: longerThanTheDoor},
		{ID: "narrow", Station: Register, Severity: Tip, Source: practice, Limits: []Limit{{"narrowest gap", placing.Narrowest, "mm", ""}}, check: images(narrow)},
	}
}

// judged runs over the layers whose fit can be judged.
func judged(m *Image, each func(i int, host string, p register.Play)) {
	for i, w := range m.Shapes.Views {
		if p := m.Plays[i]; p.Judged && w.Host >= 0 {
			each(i, m.Shapes.Views[w.Host].Layer.Label, p)
		}
	}
}

func (m *Image) atLayer(i int) (key []string, at At) {
	id := m.Shapes.Views[i].Layer.ID
	return []string{m.ID, id}, At{Motif: m.ID, Layer: id}
}

func outside(v *View, m *Image, add func(Hit)) {
	judged(m, func(i int, host string, p register.Play) {
		if p.Outside <= 0 {
			return
		}
		key, at := m.atLayer(i)
		add(Hit{Key: key, At: at, What: fmt.Sprintf("%s runs over %s", m.Shapes.Views[i].Layer.Label, host),
			Why: fmt.Sprintf("%s lie past what is forgiven, as designed.", v.Write.Area(p.Outside)),
			Do:  "Set its fit to free if it is meant to stand over, or choose another layer for it to sit on.", Numbers: map[string]float64{"outside": p.Outside}})
	})
}

func rims(v *View, m *Image, add func(Hit)) {
	judged(m, func(i int, _ string, p register.Play) {
		if p.Outside > 0 || p.Fit != kit.FitEvenRim || p.Rim <= 0 || p.RimWide <= unevenRim*p.Rim {
			return
		}
		key, at := m.atLayer(i)
		add(Hit{Key: key, At: at, What: fmt.Sprintf("The rim round %s is uneven as designed", m.Shapes.Views[i].Layer.Label),
			Why: fmt.Sprintf("It goes from %s to %s, and its fit says that it must look even.", v.Write.Thin(p.Rim), v.Write.Thin(p.RimWide)),
			Do:  "Move it in its set until the rim is even, or set its fit to within in Pieces.", Numbers: map[string]float64{"narrow": p.Rim, "wide": p.RimWide}})
	})
}

func play(v *View, m *Image, add func(Hit)) {
	judged(m, func(i int, host string, p register.Play) {
		way := register.Steadiest(placing.PieceOf(m.Shapes, i), v.Hand.Ways)
		if p.Outside > 0 || p.Tight >= way.Spread.Shift {
			return
		}
		key, at := m.atLayer(i)
		add(Hit{Key: key, At: at, What: fmt.Sprintf("%s can hardly be placed on %s", m.Shapes.Views[i].Layer.Label, host),
			Why: fmt.Sprintf("It may drift %s at the tightest; placed %s, the steadiest way for it, a hand repeats to %s.", v.Write.Thin(p.Tight), way.Name, v.Write.Thin(way.Spread.Shift)),
			Do:  "Prepare spare blanks (Register counts them), let it run over a little more, or give it a wider rim.", Numbers: map[string]float64{"play": p.Tight, "spread": way.Spread.Shift}})
	})
}

func thin(v *View, m *Image, add func(Hit)) {
	for i, w := range m.Shapes.Views {
		d := m.Details[i]
		if w.Layer.Make != card.Cut || d.Thin <= 0 {
			continue
		}
		key, at := m.atLayer(i)
		box := w.Outline.Bounds()
		add(Hit{Key: key, At: at, What: fmt.Sprintf("%s has bridges thinner than %s", w.Layer.Label, v.Write.Thin(placing.Thinnest)),
			Why: fmt.Sprintf("%s of it hang on them, the most %s from its left and %s from its top. Thin card tears when it is popped out.", v.Write.Area(d.Thin), v.Format(d.ThinX-box.Min.X), v.Format(d.ThinY-box.Min.Y)),
			Do:  "Leave it in its sheet until it is glued, lift it with tape, or cut it from heavier card.", Numbers: map[string]float64{"area": d.Thin}})
	}
}

func narrow(v *View, m *Image, add func(Hit)) {
	for i, w := range m.Shapes.Views {
		d := m.Details[i]
		if w.Layer.Make != card.Cut || d.Narrow <= 0 {
			continue
		}
		key, at := m.atLayer(i)
		add(Hit{Key: key, At: at, What: fmt.Sprintf("%s has gaps narrower than %s", w.Layer.Label, v.Write.Thin(placing.Narrowest)),
			Why: fmt.Sprintf("%s of waste sit in them, too narrow for a pick.", v.Write.Area(d.Narrow)),
			Do:  "Run it through twice, and push the waste out from the back; away from your hand.", Numbers: map[string]float64{"area": d.Narrow}})
	}
}
