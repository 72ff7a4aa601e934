package foresee

import (
	"fmt"

	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/measure"
	"ochrestone/core/words"
)

func depthRules() []Rule {
	return []Rule{
		{ID: "thick", Station: Depth, Severity: Spoils, Source: "USPS Domestic Mail Manual 101", Limits: []Limit{{"letter at most", measure.LetterMaxThickness, "mm", ""}}, check: tooThick},
		{ID: "envelope", Station: Depth, Severity: Spoils, Source: "geometry", check: tooLarge},
		{ID: "loose", Station: Depth, Severity: Tip, Source: practice, Limits: []Limit{{"room over the card at most", rattles, "mm", ""}}, check: loose},
		{ID: "glue", Station: Depth, Severity: Shows, Source: practice, check: glueShows},
		{ID: "joint", Station: Depth, Severity: Shows, Source: practice, Limits: []Limit{{"held at least", jointShare, "share", ""}, {"and at least", jointLeast, "mm²", ""}}, check: joint},
		{ID: "flush", Station: Depth, Severity: Tip, Source: practice, Limits: []Limit{{"border under", flushBy, "mm", ""}}, check: flush},
	}
}

func tooThick(v *View, add func(Hit)) {
	if v.Post.Class != measure.ClassTooThick {
		return
	}
	h := Hit{What: "Thicker than a letter may be",
		Why:     fmt.Sprintf("In its envelope it is %s, a US letter at most %s. %s is the highest. The carrier's current rules go first.", v.Write.Thin(v.Post.Filled), v.Write.Thin(v.Post.Limit), words.Capital(v.Highest)),
		Do:      fmt.Sprintf("Take %s off: glue a foamed part flat, or use thinner foam. Or send it as a parcel.", v.Write.Thin(v.Post.Filled-v.Post.Limit)),
		Numbers: map[string]float64{"filled": v.Post.Filled, "limit": v.Post.Limit}, Facts: []string{v.Highest}}
	if h.Mend = v.thinner(v.Post.Filled - v.Post.Limit); h.Mend != nil {
		h.Do = fmt.Sprintf("Take %s off: %s. Or send it as a parcel.", v.Write.Thin(v.Post.Filled-v.Post.Limit), words.Small(h.Mend.Label))
	}
	add(h)
}

func tooLarge(v *View, add func(Hit)) {
	if v.Post.Envelope == "" || v.Post.Fits {
		return
	}
	b := v.Card.Base
	if v.Post.Box && v.Post.Room < 0 {
		add(Hit{What: "The box does not shut", Why: fmt.Sprintf("The card is %s thick, %s more than there is room for.", v.Write.Thin(v.Total), v.Write.Thin(-v.Post.Room)),
			Do: "Choose a higher box in Front, or make the card flatter.", Numbers: map[string]float64{"over": -v.Post.Room}, Facts: []string{b.Envelope}})
		return
	}
	add(Hit{What: "The envelope is too small",
		Why: fmt.Sprintf("The card is %s × %s and %s thick; wrapped round, it takes up %s × %s of the inside.", v.Format(b.W), v.Format(b.H), v.Write.Thin(v.Total), v.Format(v.Post.NeedsW), v.Format(v.Post.NeedsH)),
		Do:  "Choose a larger envelope in Front, or make the card flatter.", Numbers: map[string]float64{"total": v.Total, "needsW": v.Post.NeedsW, "needsH": v.Post.NeedsH}, Facts: []string{b.Envelope}})
}

// rattles is how much height, mm, may be left over a card in its box; our own default.
const rattles = 5.0

func loose(v *View, add func(Hit)) {
	if !v.Post.Box || v.Post.Room <= rattles {
		return
	}
	add(Hit{What: "The card lies loose in its box", Why: fmt.Sprintf("%s are left over it: it knocks about, and raised parts come off.", v.Write.Thin(v.Post.Room)),
		Do: "Lay folded tissue or foam on it, clear of what is fine, or take a lower box.", Numbers: map[string]float64{"room": v.Post.Room}, Facts: []string{v.Card.Base.Envelope}})
}

// shownBy is how much, mm², of a glue or a pad may be seen through a leaf.
const shownBy = 4.0

// glueShows notes what is see-through and held by something that is seen through it.
func glueShows(v *View, add func(Hit)) {
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		if !s.Clear || len(s.Holds) == 0 {
			return Hit{}, false
		}
		for k, h := range s.Holds {
			name := "the foam"
			if !h.Raised {
				if h.Glue == nil || !h.Glue.Shows {
					continue
				}
				name = h.Glue.Name
			}
			seen, at := v.Pads.Seen(v.Build, v.Stood, i, k)
			if seen < shownBy {
				continue
			}
			hit := Hit{What: fmt.Sprintf("%s will show through %s", words.Capital(name), v.pieceName(i)),
				Why:     fmt.Sprintf("It is see-through, and %s of it lie behind nothing opaque: %s.", v.Write.Area(seen), v.where(at)),
				Do:      "Take one that does not show, glue only behind something opaque, or back it with a second cut.",
				Numbers: map[string]float64{"seen": seen}, Facts: []string{name}}
			bonds := make([]card.Bond, len(s.Holds))
			for n, o := range s.Holds {
				bonds[n] = o.Bond
			}
			bonds[k].Zone, bonds[k].Pads, bonds[k].Open = card.BondOpaque, nil, nil
			if v.settles(i, bonds) {
				hit.Mend = &Mend{"Only behind what is opaque", v.held(i, bonds)}
			} else if a := v.hides(); a != "" {
				bonds[k] = card.Bond{Adhesive: a}
				hit.Mend = &Mend{"Take a glue that does not show", v.held(i, bonds)}
			}
			return hit, true
		}
		return Hit{}, false
	}, add)
}

// settles reports whether bonds hold a piece with nothing of them seen through it.
func (v *View) settles(i int, bonds []card.Bond) bool {
	again := v.Pads.Again(v.Build, v.Stood, i, build.HoldsOf(v.Stock, bonds))
	stood := slices.Clone(v.Stood)
	stood[i] = again
	held := 0.0
	for k := range again.Holds {
		if seen, _ := v.Pads.Seen(v.Build, stood, i, k); seen >= shownBy {
			return false
		}
	}
	for _, s := range v.Pads.HeldBy(v.Build, stood, i) {
		held += s.Area.Area()
	}
	return held >= jointShare*again.Outline.Area() && again.Trouble() == depth.None
}

// hides is a glue of the stores that does not show; empty where there is none.
func (v *View) hides() string {
	for _, a := range v.Stock.Adhesives {
		if !a.Shows && !a.Away && a.Kind != "repositionable" {
			return a.ID
		}
	}
	return ""
}

// A joint that holds: our own defaults.
const (
	jointShare = 0.03 // of the part's area
	jointLeast = 4.0  // mm²
	spotShare  = 0.01 // of the part's area, where it is glued in spots: a dot spreads as it is pressed
)

// joint notes parts held by too little.
func joint(v *View, add func(Hit)) {
	v.each(func(i int) (Hit, bool) {
		s := v.Stood[i]
		if len(s.Holds) == 0 || s.Plies == 0 || !slices.ContainsFunc(s.Holds, partly) {
			return Hit{}, false
		}
		lasts, held := false, 0.0
		for _, h := range s.Holds {
			lasts = lasts || h.Raised || h.Glue == nil || h.Glue.Kind != "repositionable"
		}
		part, share := s.Outline.Area(), jointShare
		if !slices.ContainsFunc(s.Holds, func(h build.Hold) bool { return h.Bond.Zone != card.BondSpots || h.Raised }) {
			share = spotShare
		}
		for _, p := range v.Pads.HeldBy(v.Build, v.Stood, i) {
			held += p.Area.Area()
		}
		whole := make([]card.Bond, len(s.Holds))
		for n, h := range s.Holds {
			whole[n] = h.Bond
			whole[n].Zone, whole[n].Pads, whole[n].Open, whole[n].Inset = "", nil, nil, 0
		}
		switch {
		case !lasts:
			for n := range whole {
				whole[n] = card.Bond{Adhesive: v.hides()}
			}
			return Hit{What: fmt.Sprintf("%s is held by something that lets go", v.pieceName(i)), Why: "Repositionable adhesive is for trying; by and by the part comes off.",
				Do: "Glue it for good when it lies right.", Facts: []string{"repositionable"}, Mend: &Mend{"Glue it for good", v.held(i, whole)}}, true
		case part >= jointLeast && held < max(jointLeast, share*part) && (held > 0 || !slices.ContainsFunc(s.Holds, func(h build.Hold) bool { return h.Raised })):
			return Hit{What: fmt.Sprintf("%s is held by too little", v.pieceName(i)), Why: fmt.Sprintf("%s hold %s of card; it takes %.0f %% of it, and %s at least.", v.Write.Area(held), v.Write.Area(part), 100*share, v.Write.Area(jointLeast)),
				Do: "Glue more of it, or put more pads behind it.", Numbers: map[string]float64{"held": held, "part": part}, Mend: &Mend{"Hold it all over", v.held(i, whole)}}, true
		}
		return Hit{}, false
	}, add)
}

// partly reports whether a bond may hold less of a part than there is to hold, or not for
// good.
func partly(h build.Hold) bool {
	b := h.Bond
	return b.Zone != "" && b.Zone != card.BondAllOver || len(b.Pads) > 0 || len(b.Open) > 0 || b.Inset > 0 || h.Glue != nil && h.Glue.Kind == "repositionable"
}

// A flush sheet: our own defaults.
const (
	flushBy    = 1.0    // mm of border under which every skew shows
	flushLarge = 4000.0 // mm²
)

// flush notes large sheets as large as what carries them, on a tape that grabs.
func flush(v *View, add func(Hit)) {
	for _, t := range v.Build.Things {
		e := t.Element
		if e.Inset == nil || e.Face != card.Front || e.Inset.Least() >= flushBy || t.From == t.To || len(e.Bonds) == 0 {
			continue
		}
		s := v.Stood[t.From]
		if s.Outline.Area() < flushLarge || slices.ContainsFunc(s.Holds, func(h build.Hold) bool { return h.Raised || h.Glue == nil || h.Glue.Wiggle }) {
			continue
		}
		h := Hit{Key: []string{e.ID}, At: At{Element: e.ID}, What: fmt.Sprintf("%s wants a glue that leaves time", words.Capital(t.Name)),
			Why: fmt.Sprintf("It is as large as what carries it, to %s: every skew shows, and %s grabs at once.", v.Format(flushBy), s.Holds[0].Glue.Name),
			Do:  "Take a liquid glue, set it down on two edges first, and slide it true.", Facts: []string{s.Holds[0].Glue.ID}}
		for _, a := range v.Stock.Adhesives {
			if a.Wiggle && !a.Away {
				h.Mend = &Mend{"Take " + a.Name, []card.Edit{{Hold: &card.Hold{Element: e.ID, Bonds: card.Glue(a.ID)}}}}
				break
			}
		}
		add(h)
	}
}
