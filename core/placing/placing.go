package placing

import (
	"cmp"
	"errors"
	"fmt"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/motif"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/core/together"
	"slices"
)

// Placing is all there is to know about placing one layer.
type Placing struct {
	Layer    string              `json:"layer"`
	Contrast float64             `json:"contrast" doc:"CIEDE2000 between the layer and what it sits on, as dried"`
	Limits   register.Limits     `json:"limits" doc:"what the eye forgives at that contrast"`
	Play     register.Play       `json:"play" doc:"under those limits"`
	Sighting register.Sighting   `json:"sighting"`
	Ways     []register.Prospect `json:"ways" nullable:"false" doc:"simplest first"`
	Pick     int                 `json:"pick" doc:"index of the way proposed; -1 when nothing has to meet"`
	Why      string              `json:"why"`
	Chain    []ChainLink         `json:"chain" nullable:"false" doc:"what it must keep to further down the stack"`
	Stack    float64             `json:"stack" doc:"chance that every layer of the image comes out, each placed by the way proposed for it"`
	Spare    int                 `json:"spare" doc:"images to begin for the run to come out at 95 %; 0 when a thousand would not do"`
	Pivots   []Pivot             `json:"pivots" nullable:"false" doc:"turn allowed about points other than its middle"`
	Left     []Turning           `json:"left" nullable:"false" doc:"turn left after a shift"`
	Printing Printing            `json:"printing" doc:"the order of a run that keeps the stamps in place"`
	// Practised is how the person's practice on the screen would do; nil until there
	// is enough of it.
	Practised *register.Prospect `json:"practised,omitempty"`
	// Plain is how it would do with nothing forgiven; nil where nothing has to meet.
	Plain  *Plain      `json:"plain,omitempty"`
	Each   bool        `json:"each" doc:"its pieces are placed one by one; the sighting is for the largest"`
	Layers []LayerPlay `json:"layers" nullable:"false" doc:"the play of every layer under limits by contrast, lowest first"`
}

// Plain is how a layer would do with nothing forgiven at all: a print that stays within its host, a die
// that leaves a rim all round its print, be it uneven.
type Plain struct {
	Tight float64             `json:"tight" doc:"least drift, mm"`
	Ways  []register.Prospect `json:"ways" nullable:"false" doc:"simplest first"`
	Rim   bool                `json:"rim,omitempty" doc:"of a die round a print: that some rim is left all round"`
}

// LayerPlay is the play of a layer in short.
type LayerPlay struct {
	Judged  bool    `json:"judged"`
	Tight   float64 `json:"tight" doc:"least drift, mm"`
	Turn    float64 `json:"turn" doc:"turn allowed the tighter way, degrees"`
	Outside float64 `json:"outside" doc:"area past the limit as designed, mm²"`
}

// ChainLink is the play of a layer against a layer further down its chain.
type ChainLink struct {
	Layer string  `json:"layer"`
	Label string  `json:"label"`
	Tight float64 `json:"tight" doc:"least drift against it, mm"`
	Left  float64 `json:"left" doc:"what is left of it when all between have drifted as far as they may, mm"`
}

// Turning is the turn left once a layer has been shifted.
type Turning struct {
	Shift float64 `json:"shift" doc:"in the tightest direction, mm"`
	Clock float64 `json:"clock" doc:"degrees"`
	Anti  float64 `json:"anti" doc:"degrees"`
}

// Of works out how to place a layer of an image in a colourway, for a run
// of so many. seed makes the chances repeatable.
func (t Study) Of(colourway, layer string, run int, seed uint64) (Placing, error) {
	w, at, err := t.layerOf(colourway, layer)
	if err != nil {
		return Placing{}, err
	}
	dried := t.dried(w)
	ways := t.Hand.Ways
	out := Placing{Layer: layer, Chain: []ChainLink{}, Pivots: []Pivot{}, Layers: []LayerPlay{}, Left: []Turning{}, Ways: []register.Prospect{}, Pick: -1, Stack: 1}
	// Layers are worked out side by side: each writes only its own place.
	n := len(t.Image.Shapes.Views)
	plays, lims, contrasts, errs := make([]register.Play, n), make([]register.Limits, n), make([]float64, n), make([]error, n)
	together.By(n, func(i int) { plays[i], lims[i], contrasts[i], errs[i] = t.eased(dried, i) })
	if err := errors.Join(errs...); err != nil {
		return Placing{}, err
	}
	for i, p := range plays {
		lim, contrast := lims[i], contrasts[i]
		out.Layers = append(out.Layers, LayerPlay{p.Judged, p.Tight, min(p.Clock, p.Anti), p.Outside})
		if p.Judged && p.Outside == 0 {
			all, pick, _ := register.ProspectsBy(t.chances(i, lim, p, seed), PieceOf(t.Image.Shapes, i), run, ways)
			if pick >= 0 {
				out.Stack *= all[pick].Chance
			}
		}
		if i == at {
			out.Play, out.Limits, out.Contrast = p, lim, contrast
		}
	}
	out.Printing = t.Printing(run)
	if w := t.Hand.Practised; w != nil && out.Play.Judged {
		c := register.Chance(out.Play, w.Spread, seed)
		out.Practised = &register.Prospect{Way: *w, Chance: c, Blanks: register.Blanks(run, c, register.Certainty)}
	}
	out.Spare = register.Blanks(run, out.Stack, register.Certainty)
	v := t.Image.Shapes.Views[at]
	host := shape.Region{}
	if v.Host >= 0 {
		host = t.Image.Shapes.Views[v.Host].Outline
	}
	sighted, each := sighted(v)
	out.Each = each
	// What will lie over it is not there yet when it is placed.
	out.Sighting = register.Sight(sighted, host, sighted, out.Play).Named(t.hostName(v))
	if PieceOf(t.Image.Shapes, at) == register.DieRound {
		out.Sighting, out.Each = register.RoundSighting(out.Play, t.Hand.Write), false
	}
	if !out.Play.Judged {
		out.Why = "Nothing has to meet here: by eye will do."
		if v.Layer.Make != card.Cut && v.Host != motif.Ground && look.MeanWidth(v) <= fineStroke {
			out.Why = "Its fit is free, so nothing of it is judged; yet an outline shows every slip. Sight it by the points, or set its fit to within in Pieces and let it be judged."
		}
		return out, nil
	}
	if out.Play.Outside > 0 {
		out.Why = "As designed it already lies past the limit, whatever way it is placed."
		return out, nil
	}
	out.Ways, out.Pick, out.Why = register.ProspectsBy(t.chances(at, out.Limits, out.Play, seed), PieceOf(t.Image.Shapes, at), run, ways)
	if out.Plain, err = t.plain(at, run, seed); err != nil {
		return out, err
	}
	if PieceOf(t.Image.Shapes, at) == register.DieRound {
		return out, nil
	}
	if err := t.turning(&out, v.Outline, host); err != nil {
		return out, err
	}
	return out, t.chain(&out, at)
}

// hostName is what a layer sits on, in words.
func (t Study) hostName(v motif.View) string {
	if v.Host < 0 {
		return "the panel"
	}
	return t.Image.Shapes.Views[v.Host].Layer.Label
}

// dried is how a colourway of the image dries.
func (t Study) dried(w card.Colourway) look.Colourway {
	for _, l := range t.Looks {
		if l.ID == w.ID {
			return l
		}
	}
	return t.Stock.Look(t.Image, w)
}

// layerOf finds a colourway and a layer of an image.
func (t Study) layerOf(colourway, layer string) (card.Colourway, int, error) {
	w, ok := t.Image.Colourway(colourway)
	if !ok {
		return w, -1, fmt.Errorf("place a layer: %s has no colourway %q: %w", t.Image.Name, colourway, look.ErrUnknown)
	}
	for i, v := range t.Image.Shapes.Views {
		if v.Layer.ID == layer {
			return w, i, nil
		}
	}
	return w, -1, fmt.Errorf("place a layer: %s has no layer %q: %w", t.Image.Name, layer, look.ErrUnknown)
}

// plain is how a layer would do with nothing forgiven.
func (t Study) plain(i, run int, seed uint64) (*Plain, error) {
	lim, host := register.Limits{}, shape.Region{}
	v := t.Image.Shapes.Views[i]
	if v.Host >= 0 {
		host = t.Image.Shapes.Views[v.Host].Outline
	}
	p, err := t.Memory.plays.Get(playKey{t.Image.Key, i, lim}, func() (register.Play, error) { return PlayOf(t.Image.Shapes, i, host, lim) })
	if err != nil {
		return nil, fmt.Errorf("play of %s with nothing forgiven: %w", v.Layer.Label, err)
	}
	if !p.Judged || p.Outside > 0 {
		return nil, nil
	}
	piece := PieceOf(t.Image.Shapes, i)
	all, _, _ := register.ProspectsBy(t.chances(i, lim, p, seed), piece, run, t.Hand.Ways)
	return &Plain{Tight: p.Tight, Ways: all, Rim: piece == register.DieRound}, nil
}

// eased is the play of a layer under limits that go by the contrast of what
// meets.
func (t Study) eased(look look.Colourway, i int) (register.Play, register.Limits, float64, error) {
	v := t.Image.Shapes.Views[i]
	none := register.Play{Reach: []float64{}}
	against, host := v.Host, shape.Region{}
	if PieceOf(t.Image.Shapes, i) == register.DieRound {
		against = topPrint(t.Image.Shapes, i)
	}
	if against < 0 {
		return none, Forgiven(v.Layer, t.Hand.Limits), 0, nil
	}
	if v.Host >= 0 {
		host = t.Image.Shapes.Views[v.Host].Outline
	}
	mine, err1 := colour.ParseHex(look.Layers[i].Dry)
	its, err2 := colour.ParseHex(look.Layers[against].Dry)
	if err1 != nil || err2 != nil {
		return none, Forgiven(v.Layer, t.Hand.Limits), 0, nil
	}
	contrast := colour.Difference(mine.Lab(), its.Lab())
	lim := Forgiven(v.Layer, t.Hand.Limits.Eased(contrast))
	p, err := t.Memory.plays.Get(playKey{t.Image.Key, i, lim}, func() (register.Play, error) {
		p, err := PlayOf(t.Image.Shapes, i, host, lim)
		if err != nil {
			return p, err
		}
		return t.withTurns(i, p, lim)
	})
	if err != nil {
		return p, lim, contrast, fmt.Errorf("play of %s: %w", v.Layer.Label, err)
	}
	return p, lim, contrast, nil
}

// chances gives the chance that a layer comes out for a spread, remembered.
func (t Study) chances(i int, lim register.Limits, p register.Play, seed uint64) func(register.Spread) float64 {
	return func(s register.Spread) float64 {
		c, _ := t.Memory.tried.Get(chanceKey{playKey{t.Image.Key, i, lim}, s, seed}, func() (float64, error) { return register.Chance(p, s, seed), nil })
		return c
	}
}

// chanceKey is everything a chance depends on.
type chanceKey struct {
	play   playKey
	spread register.Spread
	seed   uint64
}

// playKey is everything a play with its turns depends on.
type playKey struct {
	image  [32]byte
	layer  int
	limits register.Limits
}

// How much a Memory holds.
const (
	mostPlays   = 600
	mostChances = 5000
)

// withTurns adds the joint region of shift and turn to a layer's play.
func (t Study) withTurns(i int, p register.Play, lim register.Limits) (register.Play, error) {
	v := t.Image.Shapes.Views[i]
	if v.Host < 0 || PieceOf(t.Image.Shapes, i) == register.DieRound || p.Fit != kit.FitWithin && p.Fit != kit.FitEvenRim {
		return p, nil
	}
	host := t.Image.Shapes.Views[v.Host].Outline
	pieces := []shape.Region{v.Outline}
	if v.Layer.Make == card.Cut {
		pieces = v.Outline.Pieces()
	}
	in := make([]register.Within, len(pieces))
	for j, g := range pieces {
		rim, _, _ := g.Gap(host)
		bound, err := register.BoundOf(g, host, p.Fit, lim, rim)
		if err != nil {
			return p, fmt.Errorf("limit of %s: %w", v.Layer.Label, err)
		}
		in[j] = register.Within{Piece: g, Bound: bound}
	}
	return p.WithTurns(in...)
}

// topPrint is the largest print on a layer, or -1.
func topPrint(img motif.Image, i int) int {
	at := -1
	for j, v := range img.Views {
		if v.Layer.Make != card.Cut && v.Host == i && (at < 0 || v.Area > img.Views[at].Area) {
			at = j
		}
	}
	return at
}

// turning lists how much turn is left as the layer is shifted the tightest way.
func (t Study) turning(out *Placing, layer, host shape.Region) error {
	if out.Each {
		return nil // its pieces are placed one by one
	}
	bound, err := register.BoundOf(layer, host, out.Play.Fit, out.Limits, out.Play.Rim)
	if err != nil {
		return fmt.Errorf("turn left after a shift: %w", err)
	}
	c := layer.Centroid()
	out.Pivots = t.pivots(out, layer, bound)
	for _, share := range [4]float64{0, 0.25, 0.5, 0.75} {
		d := out.Play.Tight * share
		cw, acw, err := register.TurnLeft(layer, bound, shape.Polar(d, out.Play.TightAt), c)
		if err != nil {
			return fmt.Errorf("turn left after a shift: %w", err)
		}
		out.Left = append(out.Left, Turning{d, cw, acw})
	}
	return nil
}

// chain compares a layer with what lies under its host, down to the piece that
// is cut: a print may keep to its host and still leave the die.
func (t Study) chain(out *Placing, at int) error {
	v := t.Image.Shapes.Views[at]
	used := 0.0
	for h := v.Host; h >= 0; {
		hv := t.Image.Shapes.Views[h]
		if p := out.Layers[h]; p.Judged && p.Outside == 0 {
			used += p.Tight
		}
		h = hv.Host
		if h < 0 {
			break
		}
		p, err := register.Of(v.Outline, t.Image.Shapes.Views[h].Outline, kit.FitWithin, out.Limits)
		if err != nil {
			return fmt.Errorf("play against %s: %w", t.Image.Shapes.Views[h].Layer.Label, err)
		}
		if p.Judged && p.Outside == 0 {
			out.Chain = append(out.Chain, ChainLink{t.Image.Shapes.Views[h].Layer.ID, t.Image.Shapes.Views[h].Layer.Label, p.Tight, max(0, p.Tight-used)})
		}
	}
	return nil
}

// fineStroke is the mean width, mm, up to which every slip of a print shows; our own
// default.
const fineStroke = 1.6

// sighted is what of a layer is sighted: of a cut layer in several pieces the largest, as
// they are placed one by one.
func sighted(v motif.View) (g shape.Region, each bool) {
	if ps := v.Outline.Pieces(); v.Layer.Make == card.Cut && len(ps) > 1 {
		return slices.MaxFunc(ps, func(g, h shape.Region) int { return cmp.Compare(g.Area(), h.Area()) }), true
	}
	return v.Outline, false
}

// Sights are the points to bring a layer of an image into place by, whatever its play;
// none for one that lies on the ground.
func Sights(img motif.Image, i int) []register.Feature {
	v := img.Views[i]
	if v.Host == motif.Ground {
		return nil
	}
	g, _ := sighted(v)
	return register.Sight(g, img.Views[v.Host].Outline, g, register.Play{}).Points
}
