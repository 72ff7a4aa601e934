// Package foresee says what will go wrong on a card, and why, before the glue is out. Each
// rule looks for one thing; what it finds has a cause made of facts, and a mend that is
// an edit of the card.
package foresee

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"ochrestone/core/advise"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/cut"
	"ochrestone/core/depth"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/meant"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/work"
)

// Severity ranks findings.
type Severity string

// Severities, worst first.
const (
	Spoils Severity = "spoils"
	Shows  Severity = "shows"
	Wastes Severity = "wastes"
	Tip    Severity = "tip"
)

// severities orders them.
var severities = []Severity{Spoils, Shows, Wastes, Tip}

// Stations of the page that findings belong to.
const (
	Pieces   = "pieces"
	Inks     = "inks"
	Register = "register"
	Front    = "front"
	Depth    = "depth"
	Cut      = "cut"
	Work     = "work"
	Stores   = "stores"
)

// Finding is something foreseen.
type Finding struct {
	ID        string             `json:"id" doc:"stable for the same thing in the same place"`
	Rule      string             `json:"rule" doc:"id of the rule that found it"`
	Station   string             `json:"station" enum:"pieces,inks,register,front,depth,cut,work,stores"`
	Severity  Severity           `json:"severity" enum:"spoils,shows,wastes,tip"`
	What      string             `json:"what"`
	Why       string             `json:"why"`
	Do        string             `json:"do"`
	Motif     string             `json:"motif,omitempty"`
	Colourway string             `json:"colourway,omitempty"`
	Layer     string             `json:"layer,omitempty"`
	Element   string             `json:"element,omitempty"`
	Places    []string           `json:"places,omitempty" doc:"further elements that the same is found of"`
	Step      string             `json:"step,omitempty" doc:"key of the step"`
	Numbers   map[string]float64 `json:"numbers,omitempty" doc:"the numbers behind it"`
	Cause     string             `json:"cause" doc:"changes when the cause changes, so that a note set aside comes back"`
	Aside     string             `json:"aside,omitempty" doc:"the reason it was set aside for"`
	Mend      *Mend              `json:"mend,omitempty"`
}

// IDs are the ids that tell it from the others of its rule.
func (f Finding) IDs() []string { return strings.Split(f.ID, ":")[1:] }

// Mend is a change of the card that settles a finding and makes none worse.
type Mend struct {
	Label string      `json:"label"`
	Edits []card.Edit `json:"edits" nullable:"false"`
}

// Hit is where a rule applies.
type Hit struct {
	Key      []string // tells it from the others of its rule
	Severity Severity // empty: that of the rule
	At       At
	Numbers  map[string]float64
	Facts    []string // what else caused it, such as ids of inks
	What     string
	Why      string
	Do       string
	Mend     *Mend
}

// At is the place of a hit: ids of what it is about, as far as it is about them.
type At struct{ Motif, Colourway, Layer, Element, Step string }

// Limit is a number that a rule goes by.
type Limit struct {
	Name  string  `json:"name"`
	Value float64 `json:"value"`
	Unit  string  `json:"unit" doc:"mm, mm², minutes, share, CIEDE2000, L* or none"`
	Set   string  `json:"set,omitempty" doc:"where the person can set it; empty: it is fixed"`
}

// Rule looks for one thing that may go wrong.
type Rule struct {
	ID       string   `json:"id"`
	Station  string   `json:"station"`
	Severity Severity `json:"severity" enum:"spoils,shows,wastes,tip" doc:"the worst it comes to"`
	Source   string   `json:"source" doc:"where it comes from"`
	Limits   []Limit  `json:"limits,omitempty" doc:"the numbers it goes by, our own defaults"`

	check func(v *View, add func(Hit))
}

// Rules lists every rule, by station, with the numbers as they come.
func Rules() []Rule { return Under(register.Defaults()) }

// Under lists every rule with what a person has set for the eye to forgive.
func Under(forgiven register.Limits) []Rule {
	return slices.Concat(pieceRules(), inkRules(), fitRules(forgiven), frontRules(), seenRules(), smallRules(), severalRules(), edgeRules(), reachRules(), meantRules(), trimRules(), sheetRules(), lightRules(), []Rule{uncolouredRule(), sparedRule()}, dieRules(), mediaRules(), depthRules(), rippleRules(), countRules(), standRules(), shakerRules(), workRules(), storeRules())
}

// practice is the source of most rules.
const practice = "common practice, no source"

// Image is an image of the card as the rules see it.
type Image struct {
	build.Image
	Plays   []register.Play  // by layer
	Details []placing.Detail // by layer
	used    map[string]bool  // colourways of it that are on the card
}

// View is everything the rules look at.
type View struct {
	Card     card.Card
	Stock    look.Stock
	Build    *build.Build
	Patterns []build.Pattern
	Images   []Image // by the card's motifs
	Stood    []depth.Stood
	Pads     *depth.Memory
	Total    float64 // greatest thickness of the closed card, mm
	Highest  string  // what reaches it
	Post     depth.Post
	Acts     []work.Act
	Slots    []work.Slot // when each is done, for all cards
	Proposed []work.Act  // in the proposed order; Acts stand in the person's own where there is one
	Breaches []work.Breach
	Circle   error // acts wait for each other
	Hand     placing.Hand
	Readable float64 // CIEDE2000 under which touching layers read as one
	Format   func(mm float64) string
	Write    measure.Writing
	// Face draws the letters of words; nil where no typeface is at hand.
	Face layout.Typeface
	// Sheets lays out what so many of the card take of a cardstock, and tells whether there are
	// too few sheets of it; nil: papers are not counted.
	Sheets func(stock string, copies int) (cut.Stock, bool)

	// Meant is how what things are meant to do stands.
	Meant []meant.Kept

	// Front gives the card's front as it is seen; nil: it is drawn when it is asked for.
	Front func() *cover.Map

	// Tally leaves the ways to mend that have to be searched for out: what is found is the same.
	Tally bool
	mends int  // looked for so far
	trial bool // it is looked at what other inks would do
}

// mostMends is how many findings of one plan get a mend looked for in the drawer; it
// takes trying every ink. The others get theirs when these are settled.
const mostMends = 6

// Of lists what the rules find, worst first, those set aside marked with their reason.
func Of(v View) []Finding {
	if v.Tally {
		v.mends = mostMends
	}
	for i := range v.Images {
		v.Images[i].used = v.onCard(v.Images[i].Motif)
	}
	asides := map[string]card.Aside{}
	for _, a := range v.Card.SetAside {
		asides[a.Finding] = a
	}
	out := []Finding{}
	for _, r := range Rules() {
		r.check(&v, func(h Hit) {
			f := r.finding(h)
			if v.onPurpose(f) {
				return
			}
			if a, ok := asides[f.ID]; ok && (a.Cause == f.Cause || a.Cause == prose(f)) {
				if f.Aside = a.Reason; f.Aside == "" {
					f.Aside = "no reason given"
				}
			}
			out = append(out, f)
		})
	}
	out = v.once(out)
	slices.SortStableFunc(out, func(a, b Finding) int {
		return slices.Index(severities, a.Severity) - slices.Index(severities, b.Severity)
	})
	return out
}

// Unplanned is what is said of a card that could not be worked out at all. It is no rule:
// nothing is looked for, the plan itself went wrong.
func Unplanned() Finding {
	return Finding{ID: "unplanned", Rule: "unplanned", Station: Front, Severity: Spoils, Cause: "unplanned",
		What: "This card could not be worked out.",
		Why:  "The program met something on it that it does not understand. The card itself is kept as it is, and the others are not touched.",
		Do:   "Undo the last change, or take off what was laid last; its pictures and steps come back when it can be worked out."}
}

// finding writes a hit down. Its cause is made of what caused it, never of how that is
// worded or in which unit: the numbers behind it, rounded to what a person could tell
// apart, and the facts.
func (r Rule) finding(h Hit) Finding {
	f := Finding{ID: strings.Join(append([]string{r.ID}, h.Key...), ":"), Rule: r.ID, Station: r.Station, Severity: r.Severity, What: h.What, Why: h.Why, Do: h.Do,
		Motif: h.At.Motif, Colourway: h.At.Colourway, Layer: h.At.Layer, Element: h.At.Element, Step: h.At.Step, Numbers: h.Numbers, Mend: h.Mend}
	if h.Severity != "" {
		f.Severity = h.Severity
	}
	var parts []string
	for _, n := range slices.Sorted(maps.Keys(h.Numbers)) {
		parts = append(parts, fmt.Sprintf("%s=%.1f", n, h.Numbers[n]+0)) // +0: no minus nought
	}
	f.Cause = strings.Join(append(append(parts, string(f.Severity)), h.Facts...), " ")
	return f
}

// prose is by which notes were set aside before causes were facts.
func prose(f Finding) string { return fmt.Sprintf("%s|%v", f.What, f.Why) }

// Open counts the findings that are not set aside, and those of them that would spoil
// the card.
func Open(fs []Finding) (all, spoils int) {
	for _, f := range fs {
		if f.Aside != "" {
			continue
		}
		all++
		if f.Severity == Spoils {
			spoils++
		}
	}
	return all, spoils
}

// onCard tells which colourways of an image are on the card, by itself, in patterns or in prints,
// on any face and the base. An image that is not placed anywhere has all of them looked at.
func (v *View) onCard(m card.Motif) map[string]bool {
	used := map[string]bool{}
	for _, w := range v.Card.Ways(m.ID) {
		used[w] = true
	}
	if len(used) == 0 {
		for _, w := range m.Colourways {
			used[w.ID] = true
		}
	}
	return used
}

// images runs a check on every image that can be worked out.
func images(check func(v *View, m *Image, add func(Hit))) func(*View, func(Hit)) {
	return func(v *View, add func(Hit)) {
		for i := range v.Images {
			if m := &v.Images[i]; m.Problem == "" {
				check(v, m, add)
			}
		}
	}
}

// colourways runs a check on every colourway on the card of every image.
func colourways(check func(v *View, m *Image, wi int, add func(Hit))) func(*View, func(Hit)) {
	return images(func(v *View, m *Image, add func(Hit)) {
		for wi, w := range m.Colourways {
			if m.used[w.ID] {
				check(v, m, wi, add)
			}
		}
	})
}

// inked runs a check on the colourways in which something was chosen already.
func inked(check func(v *View, m *Image, wi int, add func(Hit))) func(*View, func(Hit)) {
	return colourways(func(v *View, m *Image, wi int, add func(Hit)) {
		if !m.bare(wi) {
			check(v, m, wi, add)
		}
	})
}

// bare reports whether nothing was chosen yet in a colourway: no layer has an ink, and
// all are cut from one card.
func (m *Image) bare(wi int) bool {
	w := m.Colourways[wi]
	papers := map[string]bool{}
	own := 0 // layers that are not one made once more
	for _, l := range m.Layers {
		if l.Traced == 0 && l.Shifted == 0 {
			own++
		}
		f := w.Layers[l.ID]
		if f.Ink != "" || len(f.Blends) > 0 {
			return false
		}
		if l.Make == card.Cut {
			papers[f.Paper] = true
		}
	}
	return own >= 2 && len(papers) <= 1
}

// advice is the study of an image's colours.
func (v *View) advice(m *Image) advise.Study {
	return advise.Study{Stock: v.Stock, Image: m.Image.Image, Readable: v.Readable, Step: v.Hand.Step}
}
