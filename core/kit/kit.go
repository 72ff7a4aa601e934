// Package kit holds what a person owns: sets of dies and stamps, inks,
// cardstock, spacers, adhesives and envelopes, with the checks that keep each
// item usable.
package kit

import (
	"errors"
	"fmt"
	"strings"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
)

// SetKind tells dies from stamps, stencils and words.
type SetKind string

// Kinds of sets.
const (
	DieSet     SetKind = "die"
	StampSet   SetKind = "stamp"
	StencilSet SetKind = "stencil"
	WordSet    SetKind = "word"
)

// Fit says what must hold between a part and the one it sits on.
type Fit string

// Fits of a part to its host.
const (
	FitFree    Fit = "free"     // meant to be loose
	FitWithin  Fit = "within"   // must stay inside its host
	FitEvenRim Fit = "even rim" // the border round it must look even
	FitFills   Fit = "fills"    // meets a blank left for it
	FitOffset  Fit = "offset"   // offset on purpose
)

// Part is one piece or one step of a set.
type Part struct {
	ID      string       `json:"id"`
	Label   string       `json:"label" doc:"what the person calls it"`
	Outline shape.Region `json:"outline" doc:"region in mm in the set's own frame, as SVG path data with straight sides"`
	Order   int          `json:"order" doc:"place in the stack, 1 is lowest"`
	Rank    int          `json:"rank" doc:"tone rank, 1 is the first in the order of lightness"`
	Copies  int          `json:"copies" doc:"how many of it one image needs"`
	Fit     Fit          `json:"fit" enum:"free,within,even rim,fills,offset"`
	Host    string       `json:"host,omitempty" doc:"id of the part it sits on; empty for the lowest"`
	Lines   string       `json:"lines,omitempty" doc:"pressed, stitched or etched lines, path data of M and L in mm"`
	Colour  string       `json:"colour,omitempty" doc:"colour it was seen in when it was measured, #rrggbb"`
	Sure    float64      `json:"sure,omitempty" minimum:"0" maximum:"20" doc:"how near its outline the card's edge lies: 95 of 100 points within so much, mm; 0 where it is not known"`
	Missing bool         `json:"missing,omitempty" doc:"lost or not in the pack"`
	Stamp   string       `json:"stamp,omitempty" maxLength:"40" doc:"name of the stamp it is on, where several parts share one and with it its ink"`
	Variant string       `json:"variant,omitempty" maxLength:"40" doc:"the version it belongs to, such as one of two faces; empty for all"`
	Twice   bool         `json:"twice,omitempty" doc:"has two colour regions: cut it twice or mask it"`
}

// SameSize is how near a size comes to another that a die cuts both, mm; our own default.
const SameSize = 0.5

// Cuts reports whether the part is w by h mm.
func (p Part) Cuts(w, h float64) bool { return p.Outline.Bounds().Sized(w, h, SameSize) }

// Pressed are the lines pressed, stitched or etched into a part, each as points, mm; none
// where they cannot be read.
func (p Part) Pressed() [][]shape.Point {
	lines, err := shape.Lines(p.Lines)
	if err != nil {
		return nil
	}
	return lines
}

// seatClosed is how near the ends of a pressed line come where it counts as closed, mm,
// and leastSeat the area from which it is a seat and no ornament, mm².
const (
	seatClosed = 0.5
	leastSeat  = 60.0
)

// Seats are the places pressed into a background die, or left open in it, where images go:
// its openings and what its closed lines bound, in the frame of the set.
func (p Part) Seats() []shape.Region {
	var out []shape.Region
	for _, h := range p.Outline.Holes() {
		if h.Area() >= leastSeat {
			out = append(out, h)
		}
	}
	for _, line := range p.Pressed() {
		if len(line) < 4 || line[0].Distance(line[len(line)-1]) > seatClosed {
			continue
		}
		if g, err := shape.Settle(true, shape.Ring(line[:len(line)-1])); err == nil && g.Area() >= leastSeat {
			out = append(out, g)
		}
	}
	return out
}

// Set is a family of parts that make an image.
type Set struct {
	ID    string   `json:"id"`
	Name  string   `json:"name"`
	Kind  SetKind  `json:"kind" enum:"die,stamp,stencil,word"`
	Where string   `json:"where,omitempty" maxLength:"120" doc:"where it is kept"`
	Tags  []string `json:"tags,omitempty" maxItems:"20" doc:"words to find it by"`
	Away  bool     `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
	// Fresh stamps were never inked: they repel ink until they are primed.
	Fresh bool     `json:"fresh,omitempty" doc:"of stamps: never inked yet, so that they repel ink until they are primed"`
	Parts []Part   `json:"parts" nullable:"false"`
	Notes []string `json:"notes,omitempty" doc:"what was left out or changed at import"`
}

// Part finds a part by its id.
func (s Set) Part(id string) (Part, bool) {
	for _, p := range s.Parts {
		if p.ID == id {
			return p, true
		}
	}
	return Part{}, false
}

// InkKind is the sort of ink, which settles its default behaviour.
type InkKind string

// Kinds of ink.
const (
	Dye        InkKind = "dye"
	Pigment    InkKind = "pigment"
	Hybrid     InkKind = "hybrid"
	Waterproof InkKind = "waterproof"
	Embossing  InkKind = "embossing" // sticky ink for powder
	Alcohol    InkKind = "alcohol"
	Watercolor InkKind = "watercolour"
	Pencil     InkKind = "pencil"
)

// ByHand reports whether an ink goes on with its own tip or a brush, within the line: it is never
// stamped.
func (k InkKind) ByHand() bool { return k == Alcohol || k == Watercolor || k == Pencil }

// Behaviour is the default behaviour of a kind of ink. The numbers are our own
// defaults; the person's swatches replace them.
type Behaviour struct {
	Drying  colour.Drying
	Hide    float64
	Minutes float64
	Heat    bool
}

var behaviours = map[InkKind]Behaviour{
	Dye:        {colour.Drying{Lift: 0.08, Keep: 0.90}, 0.04, 2, false},
	Pigment:    {colour.Drying{Lift: 0.04, Keep: 0.95}, 0.45, 10, true},
	Hybrid:     {colour.Drying{Lift: 0.11, Keep: 0.86}, 0.22, 5, false},
	Waterproof: {colour.Drying{Lift: 0.06, Keep: 0.95}, 0.30, 3, false},
	Embossing:  {colour.Drying{Lift: 0, Keep: 1}, 0.85, 1, true},
	Alcohol:    {colour.Drying{Lift: 0.05, Keep: 0.95}, 0.02, 1, false},
	Watercolor: {colour.Drying{Lift: 0.14, Keep: 0.82}, 0.02, 15, false},
	Pencil:     {colour.Drying{Lift: 0, Keep: 1}, 0.25, 0, false},
}

// BehaviourOf returns the defaults of a kind; an unknown kind behaves like dye.
func BehaviourOf(k InkKind) Behaviour {
	if h, ok := behaviours[k]; ok {
		return h
	}
	return behaviours[Dye]
}

// Ink is one pad, marker or pencil.
type Ink struct {
	ID         string   `json:"id"`
	Name       string   `json:"name"`
	Family     string   `json:"family,omitempty"`
	Depth      string   `json:"depth,omitempty" doc:"pale, soft, full or deep"`
	Kind       InkKind  `json:"kind" enum:"dye,pigment,hybrid,waterproof,embossing,alcohol,watercolour,pencil"`
	Dry        string   `json:"dry,omitempty" doc:"dried colour of one impression on its paper, #rrggbb; empty when only the wet colour is known"`
	Wet        string   `json:"wet,omitempty" doc:"wet colour, #rrggbb; empty when not known"`
	Paper      string   `json:"paper,omitempty" doc:"cardstock the colours were seen on; empty for a plain white"`
	Hide       *float64 `json:"hide,omitempty" minimum:"0" maximum:"1" doc:"hiding power; empty takes the default of its kind"`
	DryMinutes *float64 `json:"dryMinutes,omitempty" minimum:"0" doc:"touch dry after, minutes; empty takes the default"`
	NeedsHeat  *bool    `json:"needsHeat,omitempty" doc:"must be heat set; empty takes the default"`
	Water      bool     `json:"water,omitempty" doc:"reacts with water"`
	Bleeds     bool     `json:"bleeds,omitempty" doc:"goes through the card"`
	Low        bool     `json:"low,omitempty" doc:"running out"`
	Gone       bool     `json:"gone,omitempty" doc:"empty, or not owned: never suggested"`
	Away       bool     `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
	Where      string   `json:"where,omitempty" maxLength:"120" doc:"where it is kept"`
	Measured   bool     `json:"measured,omitempty" doc:"the dried colour was read from a swatch"`
	TypedDry   string   `json:"typedDry,omitempty" doc:"dried colour as it was typed, kept when a swatch takes its place, #rrggbb"`
	TypedPaper string   `json:"typedPaper,omitempty" doc:"cardstock that colour was seen on; empty for a plain white"`
}

// Seen returns the ink with a swatch of one impression as its own colour. The
// first swatch takes the place of what was typed, which is kept beside it, and so
// does a new one on the same paper; a swatch on another paper changes nothing.
func (i Ink) Seen(dry, paper string) Ink {
	if i.Measured && i.Paper != paper {
		return i
	}
	if !i.Measured {
		i.TypedDry, i.TypedPaper = i.Dry, i.Paper
	}
	i.Dry, i.Paper, i.Measured = dry, paper, true
	return i
}

// AsTyped returns the ink as it was before any swatch was measured, or as it is
// where that is not known.
func (i Ink) AsTyped() Ink {
	if i.Measured && (i.TypedDry != "" || i.Wet != "") {
		i.Dry, i.Paper, i.Measured = i.TypedDry, i.TypedPaper, false
	}
	return i
}

// Lightness is the L* of one dried impression, as far as the ink alone tells.
func (i Ink) Lightness() (float64, bool) {
	c, ok := i.Shade()
	return c.L, ok
}

// Shade is the colour of one dried impression, as far as the ink alone tells.
func (i Ink) Shade() (colour.Lab, bool) {
	c, err := colour.ParseHex(i.Dry)
	if i.Dry == "" {
		var wet colour.Linear
		wet, err = colour.ParseHex(i.Wet)
		c = BehaviourOf(i.Kind).Drying.Dry(wet)
	}
	return c.Lab(), err == nil
}

// Heat reports whether the ink has to be heat set.
func (i Ink) Heat() bool {
	if i.NeedsHeat != nil {
		return *i.NeedsHeat
	}
	return BehaviourOf(i.Kind).Heat
}

// Minutes is the time until the ink is touch dry.
func (i Ink) Minutes() float64 {
	if i.DryMinutes != nil {
		return *i.DryMinutes
	}
	return BehaviourOf(i.Kind).Minutes
}

// PlainWhite is the paper an ink's colours were seen on when none is named.
const PlainWhite = "#f6f5f1"

// Film returns the ink as a filter, the dried colour it rests on, and how that
// is known. paper is the colour of the cardstock the swatch was made on.
func (i Ink) Film(paper colour.Linear) (colour.Film, colour.Source, error) {
	h := BehaviourOf(i.Kind)
	hide := h.Hide
	if i.Hide != nil {
		hide = *i.Hide
	}
	src := colour.Typed
	if i.Measured {
		src = colour.Measured
	}
	dry, err := colour.ParseHex(i.Dry)
	if i.Dry == "" {
		var wet colour.Linear
		wet, err = colour.ParseHex(i.Wet)
		dry, src = h.Drying.Dry(wet), colour.Estimated
	}
	if err != nil {
		return colour.Film{}, "", fmt.Errorf("ink %q: %w", i.Name, err)
	}
	return colour.FilmFrom(dry, paper, hide), src, nil
}

// PaperKind is the sort of sheet.
type PaperKind string

// Kinds of sheets.
const (
	PaperCard      PaperKind = "cardstock"
	PaperPatterned PaperKind = "patterned"
	PaperVellum    PaperKind = "vellum"
	PaperAcetate   PaperKind = "acetate"
	PaperFoil      PaperKind = "foil"
	PaperGlitter   PaperKind = "glitter"
	PaperFoam      PaperKind = "foam"
	PaperWater     PaperKind = "watercolour"
)

// Cardstock is a sheet one can cut and print.
type Cardstock struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Kind    PaperKind `json:"kind" enum:"cardstock,patterned,vellum,acetate,foil,glitter,foam,watercolour"`
	Colour  string    `json:"colour" doc:"#rrggbb"`
	GSM     float64   `json:"gsm" minimum:"0" maximum:"2000" doc:"weight, g/m²"`
	Caliper float64   `json:"caliper" minimum:"0" maximum:"10" doc:"thickness, mm"`
	Finish  string    `json:"finish,omitempty"`
	Sheets  int       `json:"sheets" minimum:"0" doc:"sheets on hand"`
	W       float64   `json:"w" minimum:"0" doc:"sheet width, mm"`
	H       float64   `json:"h" minimum:"0" doc:"sheet height, mm"`
	Grain   string    `json:"grain,omitempty" enum:"across,down" doc:"how the fibres of a sheet run; empty: nobody looked"`
	Offcuts []Offcut  `json:"offcuts,omitempty" maxItems:"200" doc:"what is left of sheets and worth keeping"`
	Where   string    `json:"where,omitempty" maxLength:"80" doc:"where it is kept"`
	Away    bool      `json:"away,omitempty" doc:"no longer in the stores: kept for the cards that use it, never offered"`
}

// Opaque reports whether the sheet hides what is beneath.
func (c Cardstock) Opaque() bool { return c.Kind != PaperVellum && c.Kind != PaperAcetate }

// Offcut is a rectangle that is left of a sheet.
type Offcut struct {
	W float64 `json:"w" minimum:"1" maximum:"2000" doc:"mm"`
	H float64 `json:"h" minimum:"1" maximum:"2000" doc:"mm"`
	N int     `json:"n,omitempty" minimum:"0" maximum:"1000" doc:"how many alike; 0 counts as one"`
}

// Count is how many there are of it.
func (o Offcut) Count() int { return max(1, o.N) }

// HeatShy reports whether a hot air tool warps the sheet.
func (c Cardstock) HeatShy() bool {
	return c.Kind == PaperVellum || c.Kind == PaperAcetate || c.Kind == PaperFoam
}

// Swatch is a measured or typed colour of an ink on one cardstock.
type Swatch struct {
	Ink         string `json:"ink"`
	Paper       string `json:"paper"`
	Impressions int    `json:"impressions" minimum:"1" maximum:"6"`
	Dry         string `json:"dry" doc:"#rrggbb"`
	On          string `json:"on,omitempty" doc:"the day it was measured, yyyy-mm-dd; none: nobody knows"`
}

// ID is what a swatch is kept under: its ink, its paper and its impressions.
func (s Swatch) ID() string { return fmt.Sprintf("%s/%s/%d", s.Ink, s.Paper, s.Impressions) }

// Validate checks a swatch.
func (s Swatch) Validate() error {
	var c check
	c.add(s.Ink == "" || s.Paper == "", "ink", "a swatch is of an ink on a paper")
	c.add(s.Impressions < 1 || s.Impressions > 6, "impressions", "it is of 1 to 6 impressions")
	_, err := colour.ParseHex(s.Dry)
	c.add(err != nil, "dry", "write the colour as #rrggbb")
	return c.done()
}

// Kit is everything a person owns.
type Kit struct {
	Sets      []Set       `json:"sets" nullable:"false"`
	Inks      []Ink       `json:"inks" nullable:"false"`
	Papers    []Cardstock `json:"papers" nullable:"false"`
	Spacers   []Spacer    `json:"spacers" nullable:"false"`
	Adhesives []Adhesive  `json:"adhesives" nullable:"false"`
	Envelopes []Envelope  `json:"envelopes" nullable:"false"`
	Gems      []Gem       `json:"gems" nullable:"false"`
	Machines  []Machine   `json:"machines" nullable:"false"`
	Swatches  []Swatch    `json:"swatches" nullable:"false"`
}

// Set, Ink, Paper, Spacer, Adhesive and Envelope find an item by its id.
func (k Kit) Set(id string) (Set, bool) { return find(k.Sets, func(s Set) bool { return s.ID == id }) }

// Ink finds an ink by its id.
func (k Kit) Ink(id string) (Ink, bool) { return find(k.Inks, func(s Ink) bool { return s.ID == id }) }

// Paper finds a cardstock by its id.
func (k Kit) Paper(id string) (Cardstock, bool) {
	return find(k.Papers, func(s Cardstock) bool { return s.ID == id })
}

// Spacer finds a spacer by its id.
func (k Kit) Spacer(id string) (Spacer, bool) {
	return find(k.Spacers, func(s Spacer) bool { return s.ID == id })
}

// Adhesive finds an adhesive by its id.
func (k Kit) Adhesive(id string) (Adhesive, bool) {
	return find(k.Adhesives, func(s Adhesive) bool { return s.ID == id })
}

// Envelope finds an envelope by its id.
func (k Kit) Envelope(id string) (Envelope, bool) {
	return find(k.Envelopes, func(s Envelope) bool { return s.ID == id })
}

func find[T any](items []T, is func(T) bool) (T, bool) {
	for _, it := range items {
		if is(it) {
			return it, true
		}
	}
	var none T
	return none, false
}

// Problem is one thing wrong with an item, with the path of the field.
type Problem struct {
	Path string
	What string
}

func (p Problem) Error() string { return p.Path + ": " + p.What }

// check collects problems.
type check struct{ errs []error }

func (c *check) add(bad bool, path, what string) {
	if bad {
		c.errs = append(c.errs, Problem{path, what})
	}
}

func (c *check) colour(path, hex string, optional bool) {
	if hex == "" && optional {
		return
	}
	if _, err := colour.ParseHex(hex); err != nil {
		c.add(true, path, "write the colour as #rrggbb")
	}
}

// mostWide is the width of the largest die or stamp, mm.
const mostWide = 2000.0

func (c *check) outline(path string, g shape.Region) {
	if err := g.Storable(); err != nil {
		c.add(true, path, err.Error())
		return
	}
	b := g.Bounds()
	c.add(!g.Empty() && (b.W() > mostWide || b.H() > mostWide), path, fmt.Sprintf("it is %.0f × %.0f mm; no die is larger than two metres", b.W(), b.H()))
	c.add(shape.CrossingsOf(shape.MostCrossings, g) > shape.MostCrossings, path, "its sides cross too often to be cut; simplify it")
}

func (c *check) done() error { return errors.Join(c.errs...) }

// Validate checks an ink.
func (i Ink) Validate() error {
	var c check
	c.add(strings.TrimSpace(i.Name) == "", "name", "give the ink a name")
	c.add(i.Dry == "" && i.Wet == "", "dry", "give the dried colour, or the wet one to estimate from")
	c.colour("dry", i.Dry, true)
	c.colour("wet", i.Wet, true)
	c.colour("typedDry", i.TypedDry, true)
	_, known := behaviours[i.Kind]
	c.add(!known, "kind", fmt.Sprintf("%q is not a kind of ink", i.Kind))
	c.add(i.Hide != nil && !(*i.Hide >= 0 && *i.Hide <= 1), "hide", "hiding power lies between 0 and 1")
	c.add(i.DryMinutes != nil && !(*i.DryMinutes >= 0 && *i.DryMinutes <= 10_080), "dryMinutes", "an ink dries within 0 and 10,080 minutes, a week")
	c.add(len([]rune(i.Name)) > 120, "name", "a name has at most 120 letters")
	return c.done()
}

// Validate checks a cardstock.
func (p Cardstock) Validate() error {
	var c check
	c.add(strings.TrimSpace(p.Name) == "", "name", "give the paper a name")
	c.colour("colour", p.Colour, false)
	c.add(!(p.Caliper > 0 && p.Caliper <= 10), "caliper", "thickness lies between 0 and 10 mm")
	c.add(!(p.GSM > 0 && p.GSM <= 2000), "gsm", "weight lies between 0 and 2000 g/m²")
	return c.done()
}

// Validate checks a set and its parts.
func (s Set) Validate() error {
	var c check
	c.add(strings.TrimSpace(s.Name) == "", "name", "give the set a name")
	c.add(len(s.Parts) == 0, "parts", "a set has at least one part")
	c.add(len(s.Parts) > 200, "parts", "a set has at most 200 parts")
	c.add(len([]rune(s.Name)) > 120, "name", "a name has at most 120 letters")
	seen := map[string]bool{}
	corners := 0
	for i, p := range s.Parts {
		at := fmt.Sprintf("parts[%d]", i)
		c.add(p.ID == "" || seen[p.ID], at+".id", "every part has an id of its own")
		c.add(p.Outline.Empty(), at+".outline", fmt.Sprintf("part %q has no outline", p.Label))
		c.add(p.Copies < 1 || p.Copies > 99, at+".copies", "1 to 99 copies")
		c.add(p.Rank < 1 || p.Rank > 99, at+".rank", "tone ranks run from 1 to 99")
		c.outline(at+".outline", p.Outline)
		corners += p.Outline.Points()
		seen[p.ID] = true
	}
	c.add(corners > shape.MaxCorners, "parts", fmt.Sprintf("the outlines have %d corners in all, at most %d can be worked with; simplify them", corners, shape.MaxCorners))
	for i, p := range s.Parts {
		c.add(p.Host != "" && (!seen[p.Host] || p.Host == p.ID), fmt.Sprintf("parts[%d].host", i), "sits on a part that is not in the set")
	}
	return c.done()
}
