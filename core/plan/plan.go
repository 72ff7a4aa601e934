// Package plan turns a card and a kit into the plan: what shows and what
// hides, how each layer dries, how exactly it must be placed, how high
// everything stands, in what order to work, and what will go wrong.
//
// Of is a pure function: no clock, no database, no network.
package plan

import (
	"context"
	"errors"
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/depth"
	"ochrestone/core/front"
	"ochrestone/core/kit"
	"ochrestone/core/motif"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
	"ochrestone/core/work"
)

// Plan is everything computed for a card.
type Plan struct {
	Motifs   []Motif     `json:"motifs" nullable:"false"`
	Front    Front       `json:"front"`
	Depth    Depth       `json:"depth"`
	Patterns []Pattern   `json:"patterns" nullable:"false"`
	Steps    []work.Step `json:"steps" nullable:"false"`
	Findings []Finding   `json:"findings" nullable:"false"`

	Stood []depth.Stood `json:"-"`
}

// Motif is the plan of one layered image.
type Motif struct {
	ID         string      `json:"id"`
	Name       string      `json:"name"`
	MinX       float64     `json:"minX" doc:"box of the image, mm"`
	MinY       float64     `json:"minY" doc:"mm"`
	W          float64     `json:"w" doc:"mm"`
	H          float64     `json:"h" doc:"mm"`
	Silhouette string      `json:"silhouette" doc:"path data in mm"`
	Layers     []Layer     `json:"layers" nullable:"false"`
	Touches    []Touch     `json:"touches" nullable:"false"`
	Colourways []Colourway `json:"colourways" nullable:"false"`
	Problem    string      `json:"problem,omitempty" doc:"why the image could not be worked out"`

	img motif.Image
	key [32]byte // of everything the shapes depend on
}

// Layer is the plan of one layer, whatever its colours.
type Layer struct {
	ID      string        `json:"id"`
	Label   string        `json:"label"`
	Outline string        `json:"outline" doc:"path data in mm"`
	Shown   string        `json:"shown" doc:"what shows, path data in mm"`
	Area    float64       `json:"area" doc:"mm²"`
	Visible float64       `json:"visible" doc:"shown area, mm²"`
	Share   float64       `json:"share" doc:"share of the area that shows, 0 to 1"`
	Pieces  int           `json:"pieces" doc:"separate pieces of the outline"`
	W       float64       `json:"w" doc:"mm"`
	H       float64       `json:"h" doc:"mm"`
	Host    string        `json:"host" doc:"layer it sits on; empty for the panel"`
	Play    register.Play `json:"play"`
	Detail  Detail        `json:"detail" doc:"what of a cut layer is too fine"`
}

// Touch is a pair of layers that share an edge; A is empty for the panel.
type Touch struct {
	A      string  `json:"a"`
	B      string  `json:"b"`
	Length float64 `json:"length" doc:"mm"`
}

// Front is the laid-out face.
type Front struct {
	Sheets   []Sheet  `json:"sheets" nullable:"false"`
	Elements []Placed `json:"elements" nullable:"false"`
}

// Sheet is a mat or the panel in place.
type Sheet struct {
	ID     string  `json:"id"`
	Panel  bool    `json:"panel"`
	Colour string  `json:"colour"`
	X      float64 `json:"x" doc:"mm"`
	Y      float64 `json:"y" doc:"mm"`
	W      float64 `json:"w" doc:"mm"`
	H      float64 `json:"h" doc:"mm"`
	Z0     float64 `json:"z0" doc:"underside, mm above the table"`
	Z1     float64 `json:"z1" doc:"top, mm"`
}

// Placed is an element in place.
type Placed struct {
	ID      string        `json:"id"`
	Label   string        `json:"label"`
	Margins front.Margins `json:"margins"`
	Over    bool          `json:"over" doc:"hangs over the panel"`
	Z0      float64       `json:"z0" doc:"underside, mm above the table"`
	Z1      float64       `json:"z1" doc:"top, mm"`
	W       float64       `json:"w" doc:"box as turned, mm"`
	H       float64       `json:"h" doc:"mm"`
}

// Depth is the height of the card and how it goes by post.
type Depth struct {
	Total  float64    `json:"total" doc:"greatest thickness of the closed card, mm"`
	Base   float64    `json:"base" doc:"thickness of the two leaves of the base, mm"`
	At     string     `json:"at" doc:"what reaches the greatest height"`
	AtY    float64    `json:"atY" doc:"where on the front, mm from the top"`
	Weight float64    `json:"weight" doc:"card without envelope, g"`
	Post   depth.Post `json:"post"`
}

// ErrMissing is returned inside findings for things a card names that the kit
// does not hold.
var ErrMissing = errors.New("not in the stores")

// ErrUnknown is returned when a card has no image, colourway or layer of the name
// asked for.
var ErrUnknown = errors.New("not on this card")

// Option changes what Of assumes.
type Option func(*options)

type options struct {
	limits register.Limits
	ways   []register.Way
	hinge  Hinge
	// practised is the hand as practised on the screen.
	practised *register.Way
	readable  float64
	step      float64
	format    func(mm float64) string
	letters   func(rune) bool
	ctx       context.Context
}

// assumed are the defaults with the options over them.
func assumed(opts []Option) options {
	o := options{limits: register.Defaults(), ways: register.Ways(), hinge: Hinge{Side: HingeLeft, Far: 40}, readable: Readable, step: LightStep, ctx: context.Background(), letters: func(rune) bool { return true },
		format: func(mm float64) string { return fmt.Sprintf("%.1f mm", mm) }}
	for _, f := range opts {
		f(&o)
	}
	return o
}

// Limits sets what the eye forgives in fit.
func Limits(l register.Limits) Option { return func(o *options) { o.limits = l } }

// Hand sets the ways of placing, with the person's own spreads.
func Hand(ways []register.Way) Option { return func(o *options) { o.ways = ways } }

// Practised sets how the person placed in practice.
func Practised(h register.Habit) Option {
	return func(o *options) {
		if h.N >= register.FewestOwn {
			o.practised = &register.Way{ID: "practice", Name: "as you practised", Spread: h.Spread, Own: true, From: h.N}
		}
	}
}

// Typeface tells which letters the printed sheets and pictures can draw; without it
// all can.
func Typeface(has func(rune) bool) Option { return func(o *options) { o.letters = has } }

// Until stops the work when the context ends: images not worked out by then have
// a Problem, and nothing of them is remembered. Look at the context before using
// such a plan.
func Until(ctx context.Context) Option { return func(o *options) { o.ctx = ctx } }

// Lengths sets how lengths are written in the sentences of the plan.
func Lengths(f func(mm float64) string) Option { return func(o *options) { o.format = f } }

// Readable is the CIEDE2000 difference under which touching layers read as one
// at arm's length: our own default.
const Readable = 8.0

// LightStep is the least difference of L* between tone ranks: our own default.
const LightStep = 4.0

// Maker makes plans and remembers the shapes it has worked out, so that a card
// that is planned again and again is quick. A Maker is safe for use by several
// goroutines; its plans are the same as those of Of.
type Maker struct {
	shapes memo[[32]byte, *shapes]
	plays  memo[playKey, register.Play]
	tried  memo[chanceKey, float64]
}

// NewMaker returns a Maker with an empty memory.
func NewMaker() *Maker { return &Maker{} }

// Of returns the plan of a card with a kit.
func Of(c card.Card, k kit.Kit, opts ...Option) Plan { return NewMaker().Of(c, k, opts...) }

// Of returns the plan of a card with a kit, like the function Of.
func (m *Maker) Of(c card.Card, k kit.Kit, opts ...Option) Plan {
	b := &builder{Maker: m, card: c, kit: newStock(k), o: assumed(opts)}
	b.plan = Plan{Motifs: []Motif{}, Steps: []work.Step{}, Findings: []Finding{},
		Front: Front{Sheets: []Sheet{}, Elements: []Placed{}}}
	b.motifs()
	b.colours()
	b.layOut()
	b.patterns()
	b.steps()
	b.findings()
	return b.plan
}

// builder carries a plan through its stages.
type builder struct {
	*Maker
	card card.Card
	kit  stock
	o    options
	plan Plan

	sheets   []card.Sheet   // mats and panel as far as they can be laid; none when they do not fit
	outlines []shape.Region // of the elements, in place
	mends    int            // looked for so far
	rough    []shape.Region // the same, simplified
	onPanel  []string       // steps that print on the panel itself, or heat it
	breaches []work.Breach
	ordered  []work.Step
}

// motifs works out the shapes of every image on the card, side by side.
func (b *builder) motifs() {
	b.plan.Motifs = make([]Motif, len(b.card.Motifs))
	together.By(len(b.card.Motifs), func(i int) { b.plan.Motifs[i] = b.motif(b.card.Motifs[i]) })
}

func (b *builder) motif(m card.Motif) (out Motif) {
	out = Motif{ID: m.ID, Name: m.Name, Layers: []Layer{}, Touches: []Touch{}, Colourways: []Colourway{}}
	defer func() {
		// An outline that geometry cannot stomach costs its image, not the program.
		if v := recover(); v != nil {
			out.Problem = fmt.Sprintf("%s has an outline that cannot be worked out. Draw it again, or take it off the card.", m.Name)
			out.Layers, out.Touches, out.Colourways = []Layer{}, []Touch{}, []Colourway{}
		}
	}()
	set, ok := b.kit.set[m.Set]
	if !ok {
		out.Problem = fmt.Sprintf("The set of %q is not in the stores. Import it again, or take the image off the card.", m.Name)
		return out
	}
	clear := b.seeThrough(m)
	out.key = shapeKey(m, *set, clear, b.o.limits)
	s, err := b.shapes.of(out.key, mostShapes, func() (*shapes, error) { return newShapes(b.o.ctx, m, *set, clear, b.o.limits) })
	if err != nil {
		out.Problem = fmt.Sprintf("%s could not be worked out: %v.", m.Name, err)
		return out
	}
	// What is remembered is shapes; copies, joints, ranks and stamps are today's.
	out.img = s.img.With(m.Layers, *set)
	box := s.img.Silhouette.Bounds()
	out.MinX, out.MinY, out.W, out.H = box.Min.X, box.Min.Y, box.W(), box.H()
	out.Silhouette, out.Layers, out.Touches = s.silhouette, s.layers, s.touches
	return out
}

// seeThrough tells which layers of a motif are of vellum or acetate in the
// first colourway that names a paper for them.
func (b *builder) seeThrough(m card.Motif) map[string]bool {
	clear := map[string]bool{}
	for _, l := range m.Layers {
		for _, w := range m.Colourways {
			if p, ok := b.kit.paper[w.Layers[l.ID].Paper]; ok && l.Make == card.Cut {
				clear[l.ID] = !p.Opaque()
				break
			}
		}
	}
	return clear
}

// stock is a kit with its items by id.
type stock struct {
	kit.Kit
	set      map[string]*kit.Set
	ink      map[string]*kit.Ink
	paper    map[string]*kit.Cardstock
	spacer   map[string]*kit.Spacer
	adhesive map[string]*kit.Adhesive
	swatch   map[swatchKey]string
	byInk    map[string][]kit.Swatch
	fitted   map[string]colour.Film  // inks with swatches, by id
	hides    map[kit.InkKind]float64 // how much inks of a kind hide, by the person's own swatches on card
}

type swatchKey struct {
	ink, paper string
	n          int
}

func newStock(k kit.Kit) stock {
	s := stock{Kit: k, swatch: map[swatchKey]string{}, byInk: map[string][]kit.Swatch{}}
	s.set = byID(k.Sets, func(v *kit.Set) string { return v.ID })
	s.ink = byID(k.Inks, func(v *kit.Ink) string { return v.ID })
	s.paper = byID(k.Papers, func(v *kit.Cardstock) string { return v.ID })
	s.spacer = byID(k.Spacers, func(v *kit.Spacer) string { return v.ID })
	s.adhesive = byID(k.Adhesives, func(v *kit.Adhesive) string { return v.ID })
	for _, w := range k.Swatches {
		s.swatch[swatchKey{w.Ink, w.Paper, w.Impressions}] = w.Dry
		s.byInk[w.Ink] = append(s.byInk[w.Ink], w)
	}
	s.fit()
	return s
}

func byID[T any](items []T, id func(*T) string) map[string]*T {
	out := make(map[string]*T, len(items))
	for i := range items {
		out[id(&items[i])] = &items[i]
	}
	return out
}

// Image gives the worked-out shapes of the image; its views are empty when
// Problem is set.
func (m Motif) Image() motif.Image { return m.img }
