// Package work says what there is to do at the bench for a card, and in what order: the
// acts come from the card as it is built, the rules of their order stand apart from
// them, and the proposed order keeps every rule.
package work

import (
	"cmp"
	"fmt"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// Kind is the sort of an act.
type Kind string

// Kinds of acts.
const (
	CutAct   Kind = "cut"
	InkAct   Kind = "ink"
	PrintAct Kind = "print"
	MaskAct  Kind = "mask"
	HeatAct  Kind = "heat"
	PopAct   Kind = "pop out"
	GlueAct  Kind = "glue"
	FoamAct  Kind = "foam"
	CheckAct Kind = "check"
)

// Verbs of acts, as their ids name them.
const (
	Fold      = "fold"      // cut and score the base
	Cut       = "cut"       // a sheet, or a piece by its die
	Trim      = "trim"      // a sheet, when all is printed
	CutOut    = "cut out"   // a print on card of its own
	Elsewhere = "elsewhere" // inside, or on the envelope
	TrimEdge  = "trim edge" // what hangs over the panel
	Ink       = "ink"       // a piece or its sheet
	Blend     = "blend"     // an ink into a zone of a piece
	Return    = "return"    // once more over the joins of blends
	Edge      = "edge"      // ink the cut edge
	Back      = "back"      // ink the back
	Print     = "print"     // stamp or stencil
	Mask      = "mask"      // what stands in front
	Heat      = "heat"      // set ink, melt powder
	Pop       = "pop"       // pieces out of their sheets
	Plies     = "plies"     // glue copies into one
	Glue      = "glue"      // a piece onto another
	Place     = "place"     // an element onto what carries it
	Mount     = "mount"     // a mat or the panel
	Finish    = "finish"    // the inside and the envelope
	wordsOf   = "words"     // the part of a sheet that is its words
)

// Thing is something acts are done to: a leaf of card, or the ink of a layer on one. A
// sheet goes by its element; a piece or a print of an image by the image, its colourway
// and the layer, and by an element too where each is done by itself; the base by none.
type Thing struct{ Element, Motif, Colourway, Part string }

// Act is one thing to do at the bench.
type Act struct {
	ID       card.Step `json:"id"`
	Key      string    `json:"key" doc:"the id as one word, for lists"`
	Number   int       `json:"number"`
	Kind     Kind      `json:"kind" enum:"cut,ink,print,mask,heat,pop out,glue,foam,check"`
	Group    Group     `json:"group" enum:"cut,ink and print,stack the images,build the front,finish" doc:"the stretch of work it belongs to"`
	Title    string    `json:"title"`
	Detail   string    `json:"detail"`
	Cautions []string  `json:"cautions" nullable:"false"`
	Mind     []string  `json:"mind" nullable:"false" doc:"what is to be minded of ink and card, each once"`
	Minutes  float64   `json:"minutes" doc:"waiting time that starts with this act, minutes"`
	Ink      string    `json:"ink,omitempty" doc:"ink id"`
	After    []Need    `json:"after" nullable:"false" doc:"acts that must come before"`
	Keep     string    `json:"keep,omitempty" doc:"what has to stay where it is, and until when"`
	Final    string    `json:"final,omitempty" doc:"what can no longer be done after this"`
	Cards    int       `json:"cards,omitempty" doc:"of a sitting: on how many cards it is done; 0: on all"`
	For      string    `json:"for,omitempty" doc:"of a sitting whose cards differ: on which"`
	Alike    string    `json:"alike,omitempty" doc:"how it is done the same on every card"`

	facts
}

// facts are what the rules of order go by.
type facts struct {
	phase   int
	leaf    Thing   // the leaf of card it is done on; of a joining, what is put on
	inks    []Thing // layers it lays ink on
	over    []Thing // layers that those lie on
	heats   []Thing // layers it heats
	pops    []Thing // leaves it takes out of their sheets
	onto    Thing   // what a leaf is put onto
	from    Thing   // the treated sheet it is cut out of
	raised  bool    // on foam
	shy     bool    // of a stock that heat warps
	cutsOut bool    // cuts after everything on its leaf is printed
	seq     int     // its turn among those of its series
	series  Thing   // acts that go in turn
	rank    int     // tone rank of a print; 0 for those outside any order
	stack   int     // how high in its pile what is put on lies
	outline shape.Region
	treats  int          // which treatment of its sheet it is part of, from 1; 0 for none
	mark    shape.Region // where on the front it lays ink, where that is not all of its leaf
	masks   string       // the element it covers
	masked  []string     // elements that have to be masked before it
	makes   string       // the element whose prints it makes, where each is done by itself
	tool                 // what stands in the hand
	tone    colour.Lab   // of its ink, dried
	hole    bool         // of a print: on a piece that is cut already
	spots   int          // of a print: places on its leaf the stamp is set to one after another; 0 counts as one
	times   int          // how often on one card; 0 counts as once
	left    int          // of those: how often left for right
	lots    []share      // of a sitting: for which lots it is done
	film    []string     // of an arrangement that is lifted with film: its elements
	bulky   bool         // of a ribbon: it has a knot or a bow
	blades  []blade      // of a trimming: where it cuts
	laid    string       // of a stencil on a sheet: where it lies; the same word is the same place
	of      Thing        // of a print on a sheet: the image, its colourway and the layer it prints
	turn    int          // of its ink among those its stamp takes, so that it is washed least
}

// Layer is the layer of an image, in a colourway, that an act lays the first ink of, wherever it
// is done; empty where it does something else.
func (a Act) Layer() (motif, colourway, layer string) {
	switch {
	case a.of.Motif != "":
		return a.of.Motif, a.of.Colourway, a.of.Part
	case a.ID.Motif != "" && (a.ID.Verb == Ink || a.ID.Verb == Print):
		return a.ID.Motif, a.ID.Colourway, a.ID.Part
	}
	return "", "", ""
}

// tool is a stamp or a stencil: one thing in the hand, whichever image or sheet it is used for.
type tool struct {
	stamp   string // which it is
	called  string // what a person calls it
	stencil bool
	fresh   bool // a stamp that was never inked
}

// tool is the stamp or stencil a layer is laid down with.
func (k *maker) tool(m card.Motif, l card.Layer) tool {
	out := tool{stamp: m.ID + "/" + l.ID, called: l.Label, stencil: l.Make == card.Stencilled}
	if s, ok := k.Stock.Set(m.Set); ok {
		if p, ok := s.Part(l.Part); ok {
			out.stamp, out.called = s.ID+"/"+cmp.Or(p.Stamp, p.ID), cmp.Or(p.Stamp, p.Label, l.Label)
			out.fresh = s.Fresh && !out.stencil
		}
	}
	return out
}

// Need is an act that must come first, and why.
type Need struct {
	Key  string `json:"key" doc:"of the act"`
	Rule string `json:"rule" doc:"id of the rule"`
	Why  string `json:"why"`
}

// key is an id as one word.
func key(id card.Step) string {
	k := fmt.Sprintf("%s/%s/%s/%s/%s/%d", id.Verb, id.Element, id.Motif, id.Colourway, id.Part, id.N)
	if id.Card != "" || id.Lot != "" {
		k += "/" + id.Card + "/" + id.Lot
	}
	return k
}

// Phases of the work: acts that like to be done together. They only break ties.
const (
	phaseCut = iota
	phaseInk
	phaseHeat
	phasePop
	phaseStack
	phaseFlat
	phaseRaise
	phaseMount
	phaseEnd
)

// maker collects the acts of a card.
type maker struct {
	*build.Build
	patterns map[patternKey]build.Pattern
	format   func(mm float64) string
	acts     []Act
	laps     map[int][]int  // overlapped, by thing
	film     []build.Lifted // what is lifted with film
}

// patternKey names a pattern: the element of its sheet, and which treatment of it.
type patternKey struct {
	element string
	at      int
}

// Acts lists what there is to do for a card, in the order it is thought of, without
// anything that must come before. patterns are those turned on its sheets, by element;
// format writes lengths in sentences.
func Acts(b *build.Build, patterns []build.Pattern, format func(mm float64) string) []Act {
	k := maker{Build: b, patterns: map[patternKey]build.Pattern{}, format: format, laps: map[int][]int{}, film: b.Lifted()}
	for _, p := range patterns {
		k.patterns[patternKey{p.ID, p.At}] = p
	}
	k.base()
	for _, kind := range kinds {
		kind(&k)
	}
	k.finish()
	k.snipped()
	return k.acts
}

// kinds add the acts of the sorts of things on a card, in the order they are thought of.
var kinds = []func(*maker){makeSheets, makeImages, buildShakers, putDown, liftFilms, tieRibbons, trimEdges, mountSheets, stickGems, elsewhere}

// makeSheets makes what is cut before anything else is done to it.
func makeSheets(k *maker) {
	for _, t := range k.Things {
		if t.Element.Sheet != nil && first(t) && (t.Element.Face == card.Front || t.Element.Face == card.Beside) {
			k.sheet(t)
		}
	}
}

// makeImages makes the images, each once for all its places.
func makeImages(k *maker) {
	for i := range k.Made {
		k.image(&k.Made[i])
	}
}

// putDown lays strips and images on what carries them.
func putDown(k *maker) {
	for i, t := range k.Things {
		if (t.Element.Sheet != nil || t.Element.Image != nil || t.Element.Letters != nil) && t.Element.Face == card.Front && t.Leaf == nil && !t.Outline.Empty() {
			k.put(i)
		}
	}
}

func (k *maker) add(phase int, a Act, f facts) {
	f.phase = phase
	if f.fresh {
		a.Mind = append(a.Mind, fmt.Sprintf("The stamp of %s is new and repels ink: strike it on scrap until it covers, and expect a second strike.", f.called))
	}
	a.facts, a.Key, a.After = f, key(a.ID), []Need{}
	a.Cautions = append(cautions(a.Kind), a.Cautions...)
	k.acts = append(k.acts, a)
}

// cautions are the usual ones for a kind of act; the product's label and local rules go
// first.
func cautions(k Kind) []string {
	switch k {
	case HeatAct:
		return []string{"A hot air tool burns skin and warps plastic: keep hands, foam and acetate away. The tool's own label goes first."}
	case CutAct:
		return []string{"Keep fingers clear of blades and of the die machine's rollers; cut away from your hands."}
	case PopAct:
		return []string{"Picks are sharp: push away from your hands. Small die-cut bits are not for children under three."}
	}
	return []string{}
}
