package kit

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/shape"
)

// ScaledTo returns the set scaled so that the whole of it is so many mm wide, with a
// note of what was done. A set without any width is a Problem.
func (s Set) ScaledTo(width float64) (Set, error) {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, p := range s.Parts {
		b := p.Outline.Bounds()
		lo, hi = math.Min(lo, b.Min.X), math.Max(hi, b.Max.X)
	}
	if !(hi > lo) {
		return s, Problem{Path: "width", What: "the set has no width to scale by"}
	}
	by := width / (hi - lo)
	s.Parts = slices.Clone(s.Parts)
	for i, p := range s.Parts {
		s.Parts[i].Outline = p.Outline.ScaleBy(by)
		lines, err := shape.ScaleLines(p.Lines, by)
		if err != nil {
			return s, fmt.Errorf("scale %s: %w", p.Label, err)
		}
		s.Parts[i].Lines = lines
	}
	s.Notes = []string{fmt.Sprintf("Scaled by %.4g to %.1f mm wide.", by, width)}
	return s, nil
}

// Words returns a set for words that are cut: the words, their loose islands where they
// have some, and a shadow so many mm larger beneath them where one is wanted.
func Words(text string, words, islands shape.Region, shadow float64) (Set, error) {
	set := Set{Name: text, Kind: WordSet, Tags: []string{"words"}}
	add := func(p Part) {
		p.ID, p.Order, p.Rank, p.Copies = fmt.Sprintf("p%d", len(set.Parts)+1), len(set.Parts)+1, len(set.Parts)+1, 1
		set.Parts = append(set.Parts, p)
	}
	words0 := Part{Label: "Words", Outline: words, Fit: FitFree}
	if shadow > 0 {
		g, err := words.Offset(shadow)
		if err != nil {
			return Set{}, fmt.Errorf("draw the shadow: %w", err)
		}
		add(Part{Label: "Shadow", Outline: g, Fit: FitFree})
		words0.Fit, words0.Host = FitEvenRim, set.Parts[0].ID
	}
	add(words0)
	if !islands.Empty() {
		add(Part{Label: "Islands, loose", Outline: islands, Fit: FitFills, Host: set.Parts[len(set.Parts)-1].ID})
	}
	return set, nil
}

// Stacked gives parts, lowest first, their ids, their places and their tone ranks: one
// more than that of the part each sits on, 1 for those that sit on none. hosts are the
// places of the parts they sit on, from 0; negative, or not beneath, for none.
func Stacked(parts []Part, hosts []int) []Part {
	out := slices.Clone(parts)
	for i := range out {
		p := &out[i]
		p.ID, p.Order, p.Rank, p.Host = fmt.Sprintf("p%d", i+1), i+1, 1, ""
		if h := hosts[i]; h >= 0 && h < i {
			p.Host, p.Rank = out[h].ID, out[h].Rank+1
		}
	}
	return out
}

// TailShare is how much of a letter with a tail hangs below the line; our own default.
const TailShare = 0.28

// Letter finds the die of a letter, standing on the line at y 0, its left edge at x 0. A
// die does not say where its line is: letters stand on it, those with a tail hang below
// it by a part of their height.
func (s Set) Letter(r rune) (shape.Region, bool) {
	for _, p := range s.Parts {
		if p.Label != string(r) {
			continue
		}
		b := p.Outline.Bounds()
		drop := 0.0
		switch r {
		case 'g', 'j', 'p', 'q', 'y':
			drop = TailShare * b.H()
		}
		return p.Outline.Move(shape.Point{X: -b.Min.X, Y: drop - b.Max.Y}), true
	}
	return shape.Region{}, false
}
