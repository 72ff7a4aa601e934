package advise

import (
	"cmp"
	"fmt"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/ramp"
	"slices"
)

// Reference is a colour of a picture with the share of it that it takes up.
type Reference struct {
	Colour colour.Linear
	Share  float64
}

// AfterPicture colours an image after the main colours of a picture: every
// layer gets the colour of its place in the order of lightness, the largest
// layers the largest shares where no order holds, and then the nearest ink
// owned, the order of the school kept.
func (a Study) AfterPicture(ask Ask, refs []Reference) (Suggestion, error) {
	way, ok := a.Image.Colourway(ask.Colourway)
	if !ok || len(refs) == 0 {
		return Suggestion{}, fmt.Errorf("colour after a picture: %w", ramp.ErrNoOptions)
	}
	p, finishes := a.problem(way, ask)
	targets := a.targets(ask, refs)
	ws := make([]ramp.Wish, len(a.Image.Shapes.Views))
	for i, v := range a.Image.Shapes.Views {
		s := p.Slots[i]
		under, paper := s.Under, s.Paper
		for on := s.On; on >= 0; on = p.Slots[on].On {
			under, paper = p.Slots[on].Under, p.Slots[on].Paper // judged as on the bare paper beneath all prints
		}
		w := ramp.Wish{Rank: v.Layer.Rank, Accent: v.Layer.Accent || v.Hidden(), Target: targets[i]}
		for _, o := range s.Options {
			w.Colours = append(w.Colours, p.Options[o].On(under, paper).Lab())
		}
		if len(w.Colours) == 0 {
			return Suggestion{}, fmt.Errorf("colour after a picture, layer %q: %w", v.Layer.Label, ramp.ErrNoOptions)
		}
		ws[i] = w
	}
	pick, ok := ramp.Match(ws, p.Order, p.Step)
	if !ok {
		return Suggestion{}, fmt.Errorf("colour %s after a picture: %w", a.Image.Name, ramp.ErrNoAnswer)
	}
	out := Suggestion{Finishes: map[string]card.Finish{}}
	for i, v := range a.Image.Shapes.Views {
		f := finishes[p.Slots[i].Options[pick[i]]]
		f.Paper = way.Layers[v.Layer.ID].Paper
		out.Finishes[v.Layer.ID] = f
	}
	out.Look = a.look(card.Colourway{ID: way.ID, Name: way.Name, Layers: out.Finishes})
	out.Name = "After the picture"
	out.Why = a.whyRanked(out.Look)
	return out, nil
}

// targets gives every layer the colour of the picture it should come near.
func (a Study) targets(ask Ask, refs []Reference) []colour.Lab {
	labs := make([]colour.Lab, len(refs))
	for i, r := range refs {
		labs[i] = r.Colour.Lab()
	}
	out := make([]colour.Lab, len(a.Image.Shapes.Views))
	if !ask.School.Ordered() {
		// The largest layer takes the largest share, and so on.
		bySize := make([]int, len(out))
		byShare := make([]int, len(refs))
		for i := range bySize {
			bySize[i] = i
		}
		for i := range byShare {
			byShare[i] = i
		}
		slices.SortStableFunc(bySize, func(i, j int) int {
			return cmp.Compare(a.Image.Shapes.Views[j].Visible, a.Image.Shapes.Views[i].Visible)
		})
		slices.SortStableFunc(byShare, func(i, j int) int { return cmp.Compare(refs[j].Share, refs[i].Share) })
		for n, i := range bySize {
			out[i] = labs[byShare[n%len(byShare)]]
		}
		return out
	}
	slices.SortStableFunc(labs, func(a, c colour.Lab) int { return cmp.Compare(c.L, a.L) })
	if ask.School == card.DarkGround {
		slices.Reverse(labs)
	}
	var ranks []int
	for _, l := range a.Image.Layers {
		if !slices.Contains(ranks, l.Rank) {
			ranks = append(ranks, l.Rank)
		}
	}
	slices.Sort(ranks)
	for i, v := range a.Image.Shapes.Views {
		n := slices.Index(ranks, v.Layer.Rank)
		at := 0
		if len(ranks) > 1 {
			at = (n*(len(labs)-1)*2 + len(ranks) - 1) / (2 * (len(ranks) - 1))
		}
		out[i] = labs[min(at, len(labs)-1)]
	}
	return out
}
