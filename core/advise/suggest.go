package advise

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/motif"
	"ochrestone/core/ramp"
	"slices"
)

// Suggestion is a colourway proposed from the drawer.
type Suggestion struct {
	Finishes map[string]card.Finish `json:"finishes" doc:"by layer id"`
	Look     look.Colourway         `json:"look"`
	Name     string                 `json:"name"`
	Why      string                 `json:"why"`
}

// Ask says what a suggestion may use.
type Ask struct {
	Motif     string          `json:"motif"`
	Colourway string          `json:"colourway" doc:"its papers are kept"`
	School    card.School     `json:"school" enum:"light ground,dark ground,local colour,every piece"`
	Keep      map[string]bool `json:"keep,omitempty" doc:"layers whose ink is kept"`
	Without   []string        `json:"without,omitempty" doc:"inks not to use"`
	Families  []string        `json:"families,omitempty" doc:"only inks of these families; none takes all"`
	By        By              `json:"by,omitempty" enum:"ink,card,tone" doc:"what colours a cut piece: ink on its paper, coloured card cut plain, or ink a step darker than its own card; none is ink"`
	Lean      Lean            `json:"lean,omitempty" enum:"warmer,cooler,quieter,livelier" doc:"how the inks should differ from those the layers have now"`
	Zone      card.Zone       `json:"zone,omitempty" enum:"all over,rim,foot,tip,left side,right side" doc:"where pieces darken under the school every piece; none takes the rim"`
	Best      int             `json:"best,omitempty" minimum:"0" maximum:"9" doc:"how many; 0 takes 5"`
}

// By is what gives a cut piece its colour.
type By string

// Ways to colour cut pieces.
const (
	ByInk  By = "ink"  // ink on the paper it has
	ByCard By = "card" // coloured card, cut plain
	ByTone By = "tone" // ink a step darker than its card
)

// Lean is a wish in words about the inks.
type Lean string

// Wishes.
const (
	Warmer   Lean = "warmer"
	Cooler   Lean = "cooler"
	Quieter  Lean = "quieter"
	Livelier Lean = "livelier"
)

// Suggest finds the best colourways of an image from the inks owned, and says in words
// what the drawer lacks when it cannot make every layer read. It returns
// ramp.ErrNoAnswer when the drawer cannot keep the order of lightness. When the
// context ends while it is still searching, what was found is returned with the
// context's error.
func (a Study) Suggest(ctx context.Context, ask Ask) ([]Suggestion, string, error) {
	out, p, err := a.suggestPlain(ctx, ask)
	advice := ""
	if err == nil || errors.Is(err, ramp.ErrNoAnswer) {
		diff := -1.0
		if len(out) > 0 {
			diff = 100
			for _, p := range out[0].Look.Pairs {
				if p.Length >= look.MergesOver {
					diff = p.Diff // weakest first
					break
				}
			}
		}
		advice = a.advise(ctx, p, diff)
	}
	return out, advice, err
}

// suggestPlain is suggest without advice.
func (a Study) suggestPlain(ctx context.Context, ask Ask) ([]Suggestion, ramp.Problem, error) {
	way, ok := a.Image.Colourway(ask.Colourway)
	if !ok {
		return nil, ramp.Problem{}, fmt.Errorf("suggest inks: %s has no colourway %q: %w", a.Image.Name, ask.Colourway, look.ErrUnknown)
	}
	p, finishes := a.problem(way, ask)
	best := ask.Best
	if best == 0 {
		best = 5
	}
	if best > 1 {
		p.Spare = best // so that every mixture of families among them is seen
	}
	if ask.School == card.EveryPiece {
		p.Spare = max(p.Spare, sparePieces)
	}
	found, err := ramp.Solve(ctx, p, best)
	p.Spare = 0
	out := make([]Suggestion, 0, len(found))
	for _, found := range found {
		s := Suggestion{Finishes: map[string]card.Finish{}}
		for i, v := range a.Image.Shapes.Views {
			f := finishes[found.Pick[i]]
			f.Edge, f.Back = way.Layers[v.Layer.ID].Edge, way.Layers[v.Layer.ID].Back
			if f.Paper == "" {
				f.Paper = way.Layers[v.Layer.ID].Paper
			}
			s.Finishes[v.Layer.ID] = f
		}
		s.Look = a.look(card.Colourway{ID: way.ID, Name: way.Name, Layers: s.Finishes})
		s.Name = a.nameWay(s.Finishes)
		s.Why = a.whyRanked(s.Look)
		out = append(out, s)
	}
	if ask.School == card.EveryPiece {
		// The search saw each ladder by its middle; now all of it is known.
		slices.SortStableFunc(out, func(p, q Suggestion) int { return cmp.Compare(q.Look.Weakest, p.Look.Weakest) })
	}
	out = unlike(out, best)
	if err != nil {
		return out, p, fmt.Errorf("suggest inks for %s: %w", a.Image.Name, err)
	}
	return out, p, nil
}

// sparePieces is how many more are tried where the search sees each piece by its
// middle tone alone, to be judged whole.
const sparePieces = 16

// unlike keeps n suggestions: first the best of every mixture of families, then
// the best of the rest, each in its order of rank.
func unlike(all []Suggestion, n int) []Suggestion {
	if len(all) <= n {
		return all
	}
	named := map[string]bool{}
	var first, rest []Suggestion
	for _, s := range all {
		if named[s.Name] {
			rest = append(rest, s)
			continue
		}
		named[s.Name] = true
		first = append(first, s)
	}
	return append(first, rest...)[:n]
}

// localEnough is the difference, CIEDE2000, past which parts in local colour
// need no more; our own default, twice that of an ordered image.
const localEnough = 24.0

// problem sets the ramp for an image: slot i is layer i, and the last slot the
// panel round it.
func (a Study) problem(way card.Colourway, ask Ask) (ramp.Problem, []card.Finish) {
	without := map[string]bool{}
	for _, id := range ask.Without {
		without[id] = true
	}
	var p ramp.Problem
	var finishes []card.Finish
	var free []int
	option := func(f card.Finish) int {
		o := ramp.Option{}
		if i, ok := a.Stock.Ink(f.Ink); ok {
			film, _, err := a.Stock.Film(i)
			if err == nil {
				o = ramp.Option{Film: film, Impressions: f.Strikes(), Seen: a.Stock.Seen(f.Ink, f.Strikes())}
			}
		}
		o.Over = len(f.Blends) > 0
		p.Options = append(p.Options, o)
		finishes = append(finishes, f)
		return len(p.Options) - 1
	}
	for i := range a.Stock.Inks {
		ink := a.Stock.Inks[i]
		if _, _, err := a.Stock.Film(&ink); err != nil || without[ink.ID] || ink.Gone || ink.Kind == kit.Embossing || ink.Kind == kit.Waterproof {
			continue
		}
		if len(ask.Families) > 0 && !slices.Contains(ask.Families, ink.Family) {
			continue
		}
		free = append(free, option(card.Finish{Ink: ink.ID, Impressions: 1}))
	}
	cards := a.cardOptions(ask, &p, &finishes)
	plain := free
	if ask.School == card.EveryPiece {
		free = a.ladderOptions(ask, free, &p, &finishes)
	}
	for _, v := range a.Image.Shapes.Views {
		f := way.Layers[v.Layer.ID]
		s := ramp.Slot{Rank: v.Layer.Rank, Accent: v.Layer.Accent, On: -1, Weight: v.Visible, Options: free}
		if v.Layer.Make == card.Cut {
			s.Under, s.Paper = a.Stock.PaperColour(f.Paper), f.Paper
			if cards != nil {
				s.Options = cards
			}
		} else if s.On = v.Host; s.On < 0 {
			s.Under, s.Paper = a.Stock.PaperColour(a.Image.Ground), a.Image.Ground
		}
		if ask.School == card.EveryPiece && v.Layer.Make == card.Cut && cards == nil {
			s.Options = a.climbing(free, plain, finishes, s.Under)
		}
		if ask.Lean != "" {
			s.Options = a.leaning(ask.Lean, f, s, p.Options)
		}
		if ask.Keep[v.Layer.ID] || v.Hidden() {
			if v.Hidden() {
				s.Accent = true
			}
			s.Options = []int{option(f)}
		}
		p.Slots = append(p.Slots, s)
	}
	ground := len(p.Slots)
	p.Slots = append(p.Slots, ramp.Slot{Accent: true, On: -1, Under: a.Stock.PaperColour(a.Image.Ground), Options: []int{option(card.Finish{})}})
	for _, t := range a.Image.Shapes.Touches {
		if t.Length < look.MergesOver {
			continue
		}
		a := t.A
		if a == motif.Ground {
			a = ground
		}
		p.Touch = append(p.Touch, ramp.Pair{A: a, B: t.B})
	}
	p.Order = map[card.School]ramp.Direction{card.LightGround: ramp.LightFirst, card.DarkGround: ramp.DarkFirst}[ask.School]
	p.Step = a.Step
	if ask.School == card.LocalColour {
		// Parts are told apart as far as the drawer goes, and need not be kin.
		p.Enough, p.HueBy = localEnough, math.MaxFloat64
	}
	if ask.School == card.EveryPiece {
		p.Enough = localEnough // the dark of one piece meets the middle of the next
	}
	return p, finishes
}

// nameWay names a colourway after the ink families that show most.
func (a Study) nameWay(f map[string]card.Finish) string {
	area := map[string]float64{}
	for _, v := range a.Image.Shapes.Views {
		if i, ok := a.Stock.Ink(f[v.Layer.ID].Ink); ok {
			n := i.Family
			if n == "" {
				n = i.Name
			}
			area[n] += v.Visible
		}
	}
	first, second := "", ""
	for n, a := range area {
		switch {
		case first == "" || a > area[first] || a == area[first] && n < first:
			first, second = n, first
		case second == "" || a > area[second] || a == area[second] && n < second:
			second = n
		}
	}
	if second == "" {
		return first
	}
	return first + " and " + second
}

func (a Study) whyRanked(w look.Colourway) string {
	if len(w.Pairs) == 0 {
		return "No two layers touch."
	}
	p := w.Pairs[0]
	return fmt.Sprintf("Weakest pair %s and %s, %.1f apart.", a.Image.LabelOf(p.B), a.Image.LabelOf(p.A), p.Diff)
}
