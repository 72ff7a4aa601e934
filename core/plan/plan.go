// Package plan turns a card and a kit into the plan: what shows and what
// hides, how each layer dries, how exactly it must be placed, how high
// everything stands, in what order to work, and what will go wrong.
//
// Of is a pure function: no clock, no database, no network.
package plan

import (
	"errors"
	"fmt"
	"runtime/debug"

	"ochrestone/core/advise"
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/cover"
	"ochrestone/core/cut"
	"ochrestone/core/depth"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/meant"
	"ochrestone/core/memory"
	"ochrestone/core/motif"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
	"ochrestone/core/work"
)

// Plan is everything computed for a card.
type Plan struct {
	Motifs   []Motif           `json:"motifs" nullable:"false"`
	Front    Front             `json:"front"`
	Depth    Depth             `json:"depth"`
	Patterns []build.Pattern   `json:"patterns" nullable:"false" doc:"turned on sheets"`
	Steps    []work.Act        `json:"steps" nullable:"false"`
	Time     Worktime          `json:"time" doc:"how long the steps take"`
	Findings []foresee.Finding `json:"findings" nullable:"false"`
	Failed   string            `json:"failed,omitempty" doc:"why the card could not be worked out; then the plan is that of its bare base"`

	Trace string        `json:"-"` // of a plan that failed: where, for those who mend the program
	acts  []work.Act    // in the proposed order, as they are thought of
	Stood []depth.Stood `json:"-"`
	Build build.Build   `json:"-"`
}

// Worktime is how long the steps take in their order, for one card and for all of a sitting.
type Worktime struct {
	One   work.Times  `json:"one" doc:"for one card; nothing where a sitting makes several"`
	Run   work.Times  `json:"run" doc:"for all cards of the sitting, each step on all before the next"`
	Least float64     `json:"least" doc:"minutes that no order of the steps comes below, for all"`
	Slots []work.Slot `json:"slots" nullable:"false" doc:"when each step is done, for all"`
}

// Motif is the plan of one layered image.
type Motif struct {
	ID         string           `json:"id"`
	Name       string           `json:"name"`
	MinX       float64          `json:"minX" doc:"box of the image, mm"`
	MinY       float64          `json:"minY" doc:"mm"`
	W          float64          `json:"w" doc:"mm"`
	H          float64          `json:"h" doc:"mm"`
	Silhouette string           `json:"silhouette" doc:"path data in mm"`
	Layers     []Layer          `json:"layers" nullable:"false"`
	Touches    []Touch          `json:"touches" nullable:"false"`
	Colourways []look.Colourway `json:"colourways" nullable:"false"`
	Problem    string           `json:"problem,omitempty" doc:"why the image could not be worked out"`

	img look.Image
}

// Layer is the plan of one layer, whatever its colours.
type Layer struct {
	ID      string         `json:"id"`
	Label   string         `json:"label"`
	Outline string         `json:"outline" doc:"path data in mm"`
	Shown   string         `json:"shown" doc:"what shows, path data in mm"`
	Area    float64        `json:"area" doc:"mm²"`
	Visible float64        `json:"visible" doc:"shown area, mm²"`
	Share   float64        `json:"share" doc:"share of the area that shows, 0 to 1"`
	Pieces  int            `json:"pieces" doc:"separate pieces of the outline"`
	W       float64        `json:"w" doc:"mm"`
	H       float64        `json:"h" doc:"mm"`
	Host    string         `json:"host" doc:"layer it sits on; empty for the panel"`
	Play    register.Play  `json:"play"`
	Detail  placing.Detail `json:"detail" doc:"what of a cut layer is too fine"`
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
	// Upward is set where parts cross another thing the other way than the rest.
	Upward    []Laid       `json:"upward" nullable:"false" doc:"what is laid from the lowest up, where that is not the order of the elements; else empty"`
	Crossings []Crossing   `json:"crossings" nullable:"false" doc:"parts that cross another thing the other way than the rest of theirs"`
	Seats     []string     `json:"seats,omitempty" doc:"sheets that have seats or openings for images, by their elements"`
	Base      []Drawn      `json:"base" nullable:"false" doc:"the front leaf with what is done to it, about its middle; empty where nothing is"`
	Leaf      string       `json:"leaf,omitempty" doc:"outline of the front leaf where it is not the plain rectangle, path data in mm"`
	Treated   []Treated    `json:"treated" nullable:"false" doc:"what treatments of sheets come to"`
	Letters   []Lettered   `json:"letters" nullable:"false" doc:"what words cut from card come to"`
	Address   *Field       `json:"address,omitempty" doc:"where the carrier reads the address on the envelope, kept clear"`
	Meant     []meant.Kept `json:"meant,omitempty" doc:"how what things are meant to do stands"`
	Bare      float64      `json:"bare" doc:"share of the front that shows nothing but its ground, without ink, 0 to 1"`
	Others    []Other      `json:"others" nullable:"false" doc:"what lies inside, on the envelope or beside the card"`
}

// Laid is a thing, or some parts of it, in the order things are laid.
type Laid struct {
	Element string   `json:"element"`
	Parts   []string `json:"parts" nullable:"false" doc:"layers of the image, numbers of letters"`
}

// Crossing is a part that crosses another thing the other way than the rest.
type Crossing struct {
	Element string `json:"element"`
	Part    string `json:"part"`
	With    string `json:"with"`
}

// Field is a rectangle on a face.
type Field struct {
	X float64 `json:"x" doc:"mm"`
	Y float64 `json:"y" doc:"mm"`
	W float64 `json:"w" doc:"mm"`
	H float64 `json:"h" doc:"mm"`
}

// Part is a leaf of a thing with its heights.
type Part struct {
	Thick float64 `json:"thick" doc:"mm"`
	Z     float64 `json:"z" doc:"underside, mm above the thing's own"`
	Lift  float64 `json:"lift" doc:"foam or glue beneath, mm"`
	Foam  bool    `json:"foam,omitempty"`
	Body  string  `json:"body" doc:"#rrggbb"`
	Top   string  `json:"top" doc:"#rrggbb"`
}

// Other is a thing that does not lie on the front.
type Other struct {
	ID    string    `json:"id"`
	Label string    `json:"label"`
	Face  card.Face `json:"face"`
	Drawn []Drawn   `json:"drawn" nullable:"false"`
}

// Tinted are the colours a printed layer has where it stands, beside its one colour.
type Tinted struct {
	Layer string      `json:"layer" doc:"layer id"`
	Tints []look.Tint `json:"tints" nullable:"false" doc:"painted over the layer in order"`
}

// Drawn is a leaf of a thing that is no image, about its middle and unturned.
type Drawn struct {
	Part  string  `json:"part,omitempty" doc:"number of a letter or gem, shadow; empty for a sheet"`
	Path  string  `json:"path" doc:"path data in mm"`
	Fill  string  `json:"fill" doc:"#rrggbb"`
	Hides float64 `json:"hides" doc:"how much of what lies behind it hides, 0 to 1"`
	Films []Inked `json:"films" nullable:"false" doc:"what is on it, painted in order"`
}

// Inked is ink on a leaf.
type Inked struct {
	Path string `json:"path" doc:"path data in mm"`
	Fill string `json:"fill" doc:"as it dries, #rrggbb"`
}

// Sheet is a mat or the panel in place.
type Sheet struct {
	ID     string  `json:"id"`
	Panel  bool    `json:"panel"`
	Colour string  `json:"colour"`
	Top    string  `json:"top" doc:"what it looks like from above on the whole, #rrggbb"`
	X      float64 `json:"x" doc:"mm"`
	Y      float64 `json:"y" doc:"mm"`
	W      float64 `json:"w" doc:"mm"`
	H      float64 `json:"h" doc:"mm"`
	Z0     float64 `json:"z0" doc:"underside, mm above the table"`
	Z1     float64 `json:"z1" doc:"top, mm"`
	Lift   float64 `json:"lift" doc:"foam or glue beneath, mm"`
	Foam   bool    `json:"foam" doc:"the lift is foam"`
	Held   string  `json:"held" doc:"how it is held, in words"`
	Drawn  []Drawn `json:"drawn" nullable:"false"`
}

// Placed is an element in place: all that is on the front but the mats.
type Placed struct {
	ID      string      `json:"id"`
	Label   string      `json:"label"`
	Margins layout.Room `json:"margins"`
	Over    bool        `json:"over" doc:"hangs over the edge of the sheet that carries it, or of the card"`
	Printed bool        `json:"printed" doc:"printed straight on what carries it"`
	Body    string      `json:"body,omitempty" doc:"colour of its card, #rrggbb; empty for an image"`
	Top     string      `json:"top,omitempty" doc:"what it looks like from above on the whole, #rrggbb; empty for an image"`
	Z0      float64     `json:"z0" doc:"underside, mm above the table"`
	Z1      float64     `json:"z1" doc:"top, mm"`
	W       float64     `json:"w" doc:"box as turned, mm"`
	H       float64     `json:"h" doc:"mm"`
	Lift    float64     `json:"lift" doc:"foam or glue beneath, mm"`
	Foam    bool        `json:"foam" doc:"the lift is foam"`
	Held    string      `json:"held" doc:"how it is held, in words"`
	Parts   []Part      `json:"parts" nullable:"false" doc:"its leaves with their heights, where they stand at several; empty for an image"`
	Drawn   []Drawn     `json:"drawn" nullable:"false" doc:"its leaves; empty for an image, which is drawn from its layers"`
	Tinted  []Tinted    `json:"tinted,omitempty" doc:"of an image printed on what has colours already: those of its layers there, instead of those by itself"`
	Shaded  card.Side   `json:"shaded,omitempty" enum:"left,right,top,bottom" doc:"of an image: the side of the card it is shaded on, as it is laid"`
	Flush   bool        `json:"flush,omitempty" doc:"what hangs over is trimmed off"`
	On      string      `json:"on,omitempty" doc:"the sheet that carries it; empty for the card front"`
	Problem string      `json:"problem,omitempty" doc:"why it cannot be made as it is described"`
}

// Depth is the height of the card and how it goes by post.
type Depth struct {
	Total  float64        `json:"total" doc:"greatest thickness of the closed card, mm"`
	Base   float64        `json:"base" doc:"thickness of the two leaves of the base, mm"`
	At     string         `json:"at" doc:"what reaches the greatest height"`
	AtY    float64        `json:"atY" doc:"where on the front, mm from the top"`
	Weight float64        `json:"weight" doc:"card without envelope, g"`
	Post   depth.Post     `json:"post"`
	Filled float64        `json:"filled" doc:"weight in its envelope, g, where one is chosen"`
	Mailed []depth.Mailed `json:"mailed" nullable:"false" doc:"how carriers take it in its envelope; none without one"`
}

// ErrMissing is returned inside findings for things a card names that the kit
// does not hold.
var ErrMissing = errors.New("not in the stores")

// Planner makes plans and remembers the shapes it has worked out, so that a card
// that is planned again and again is quick. It is safe for use by several goroutines;
// its plans are the same as those of Of.
type Planner struct {
	shapes  *memory.Of[[32]byte, *shapes]
	placing *placing.Memory
	sheets  *build.Memory
	pads    *depth.Memory
	cuts    *cut.Memory
}

// NewPlanner returns a Planner with an empty memory.
func NewPlanner() *Planner {
	return &Planner{memory.New[[32]byte, *shapes](mostShapes), placing.NewMemory(), build.NewMemory(), depth.NewMemory(), cut.NewMemory()}
}

// Of returns the plan of a card with a kit.
func Of(c card.Card, k kit.Kit, opts ...Option) Plan { return NewPlanner().Of(c, k, opts...) }

// Of returns the plan of a card with a kit, like the function Of. A card that the rooms
// beneath cannot stomach has a plan all the same: that of its bare base, with Failed set and
// one finding that says so.
func (m *Planner) Of(c card.Card, k kit.Kit, opts ...Option) (out Plan) {
	defer func() {
		if v := recover(); v != nil {
			out = m.failed(c, k, opts, v)
		}
	}()
	return m.of(c, k, opts)
}

// failed is the plan of a card that could not be worked out.
func (m *Planner) failed(c card.Card, k kit.Kit, opts []Option, why any) (out Plan) {
	at := string(debug.Stack())
	f := foresee.Unplanned()
	defer func() {
		if recover() != nil { // the bare base can be no help either
			out = m.builder(card.Card{Base: c.Base}, kit.Kit{}, nil).plan
		}
		out.Failed, out.Trace, out.Findings = f.What, fmt.Sprintf("%v\n%s", why, at), []foresee.Finding{f}
	}()
	bare := c
	bare.Elements, bare.Motifs, bare.Order, bare.Locks, bare.Base.Treatments, bare.Base.Leaf = []card.Element{}, []card.Motif{}, nil, nil, nil, nil
	return m.of(bare, k, opts)
}

func (m *Planner) of(c card.Card, k kit.Kit, opts []Option) Plan {
	b := m.builder(c, k, opts)
	b.motifs()
	b.colours()
	b.together()
	seen := together.Ahead(func() *cover.Map { return cover.Seen(&b.plan.Build) })
	// The order of the steps goes by what is put together, not by how it comes to lie.
	steps := together.Ahead(func() bool { b.steps(); return true })
	b.stand()
	steps()
	b.laid()
	b.findings(seen)
	return b.plan
}

// Build puts a card together, without planning more of it.
func (m *Planner) Build(c card.Card, k kit.Kit, opts ...Option) build.Build {
	b := m.builder(c, k, opts)
	b.motifs()
	b.colours()
	b.together()
	return b.plan.Build
}

func (m *Planner) builder(c card.Card, k kit.Kit, opts []Option) *builder {
	b := &builder{Planner: m, kit: look.NewStock(k), o: assumed(opts)}
	return b.like(c)
}

// like carries a plan of another card through its stages, with the same kit and assumptions.
func (b *builder) like(c card.Card) *builder {
	return &builder{Planner: b.Planner, card: c, kit: b.kit, o: b.o,
		plan: Plan{Motifs: []Motif{}, Steps: []work.Act{}, Patterns: []build.Pattern{}, Findings: []foresee.Finding{}, Front: Front{Sheets: []Sheet{}, Elements: []Placed{}, Upward: []Laid{}, Crossings: []Crossing{}, Others: []Other{}, Base: []Drawn{}, Treated: []Treated{}, Letters: []Lettered{}}}}
}

// Placing sets out how the layers of an image are to be placed. It returns
// look.ErrUnknown when the card has no such image.
func (m *Planner) Placing(c card.Card, k kit.Kit, motif string, opts ...Option) (placing.Study, error) {
	b, img, err := m.image(c, k, motif, opts)
	if err != nil {
		return placing.Study{}, fmt.Errorf("place a layer: %w", err)
	}
	return placing.Study{Stock: b.kit, Image: img, Hand: b.o.hand, Memory: m.placing}, nil
}

// Advise sets out how an image may be coloured. It returns look.ErrUnknown when the card
// has no such image.
func (m *Planner) Advise(c card.Card, k kit.Kit, motif string, opts ...Option) (advise.Study, error) {
	b, img, err := m.image(c, k, motif, opts)
	if err != nil {
		return advise.Study{}, fmt.Errorf("suggest inks: %w", err)
	}
	return b.advice(img), nil
}

// image works out one image of a card.
func (m *Planner) image(c card.Card, k kit.Kit, id string, opts []Option) (*builder, look.Image, error) {
	b := m.builder(c, k, opts)
	mo, ok := c.Motif(id)
	if !ok {
		return nil, look.Image{}, fmt.Errorf("the card has no image %q: %w", id, look.ErrUnknown)
	}
	pm := b.motif(mo)
	if pm.Problem != "" {
		return nil, look.Image{}, errors.New(pm.Problem)
	}
	b.carry(&pm)
	return b, pm.img, nil
}

// advice is the study of an image's colours.
func (b *builder) advice(img look.Image) advise.Study {
	return advise.Study{Stock: b.kit, Image: img, Readable: b.o.readable, Step: b.o.hand.Step}
}

// builder carries a plan through its stages.
type builder struct {
	*Planner
	card card.Card
	kit  look.Stock
	o    options
	plan Plan

	breaches []work.Breach
	circle   error         // acts wait for each other
	spared   map[spare]int // pieces to cut, by what is wanted
}

// motifs works out the shapes of every image on the card, side by side.
func (b *builder) motifs() {
	b.plan.Motifs = make([]Motif, len(b.card.Motifs))
	together.By(len(b.card.Motifs), func(i int) { b.plan.Motifs[i] = b.motif(b.card.Motifs[i]) })
	ms := make([]*Motif, len(b.plan.Motifs))
	for i := range ms {
		ms[i] = &b.plan.Motifs[i]
	}
	b.carry(ms...)
}

// carry lays every element on what carries it, and every image on the paper of that.
func (b *builder) carry(ms ...*Motif) {
	silhouettes := map[string]shape.Region{}
	for _, m := range ms {
		if m.Problem == "" {
			silhouettes[m.ID] = m.img.Shapes.Silhouette
		}
	}
	b.card = build.Carry(b.card, b.kit, silhouettes)
	for _, m := range ms {
		m.img.Ground = b.ground(m.img.Motif)
	}
}

func (b *builder) motif(m card.Motif) (out Motif) {
	out = Motif{ID: m.ID, Name: m.Name, Layers: []Layer{}, Touches: []Touch{}, Colourways: []look.Colourway{}}
	defer func() {
		// An outline that geometry cannot stomach costs its image, not the program.
		if v := recover(); v != nil {
			out.Problem = fmt.Sprintf("%s has an outline that cannot be worked out. Draw it again, or take it off the card.", m.Name)
			out.Layers, out.Touches, out.Colourways = []Layer{}, []Touch{}, []look.Colourway{}
		}
	}()
	set, ok := b.kit.Set(m.Set)
	if !ok {
		out.Problem = fmt.Sprintf("The set of %q is not in the stores. Import it again, or take the image off the card.", m.Name)
		return out
	}
	clear := b.seeThrough(m)
	key := shapeKey(m, *set, clear, b.o.hand.Limits)
	s, err := b.shapes.Get(key, func() (*shapes, error) { return newShapes(b.o.ctx, m, *set, clear, b.o.hand.Limits) })
	if err != nil {
		out.Problem = fmt.Sprintf("%s could not be worked out: %v.", m.Name, err)
		return out
	}
	// What is remembered is shapes; copies, joints, ranks and stamps are today's.
	out.img = look.Image{Motif: m, Shapes: s.img.With(m.Layers, *set), Key: key}
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
			if p, ok := b.kit.Paper(w.Layers[l.ID].Paper); ok && l.Make == card.Cut {
				clear[l.ID] = !p.Opaque()
				break
			}
		}
	}
	return clear
}

// Image gives the worked-out shapes of the image; its views are empty when
// Problem is set.
func (m Motif) Image() motif.Image { return m.img.Shapes }

// colours works out every colourway of every image.
func (b *builder) colours() {
	for mi := range b.plan.Motifs {
		pm := &b.plan.Motifs[mi]
		if pm.Problem != "" {
			continue
		}
		for _, w := range b.card.Motifs[mi].Colourways {
			out := b.kit.Look(pm.img, w)
			out.Eyes = out.SeenOtherwise()
			depth.Image(b.kit, pm.img, w, &out)
			for i, films := range build.Tints(b.kit, pm.img, w, out, b.sheets) {
				out.Layers[i].Tints = tinted(films)
			}
			pm.Colourways = append(pm.Colourways, out)
		}
	}
}

func tinted(films []build.Film) (out []look.Tint) {
	for _, f := range films {
		out = append(out, look.Tint{Path: f.Region.Path(), Dry: f.Colour, Region: f.Region})
	}
	return out
}

// ground is the paper an image lies on: what carries the first of it on the front, or
// the panel where there is none.
func (b *builder) ground(m card.Motif) string {
	for _, e := range b.card.Elements {
		if e.Image != nil && e.Image.Motif == m.ID && e.Face == card.Front {
			if e.Image.Cutout != nil {
				return e.Image.Cutout.Paper
			}
			return b.card.Ground(e)
		}
	}
	_, paper := b.card.Panel()
	return paper
}
