package plan

import (
	"errors"
	"fmt"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
)

// Tried is what becomes of a card when a mend of it is made.
type Tried struct {
	Gone  bool              `json:"gone" doc:"what it is to mend is gone"`
	Costs []foresee.Finding `json:"costs" nullable:"false" doc:"what is found then and was not before, or is graver than it was"`
	// Also are the ids of other findings that are gone with it.
	Also []string `json:"also" nullable:"false" doc:"ids of other notes that are gone with it"`
}

// ErrNoMend is returned where a card has no such finding, or none with a mend.
var ErrNoMend = errors.New("there is none")

// severities are those of findings, the worst first.
var severities = []foresee.Severity{foresee.Spoils, foresee.Shows, foresee.Wastes, foresee.Tip}

// graver reports whether one finding is graver than another; one that is none is graver than nothing.
func graver(f, than foresee.Finding) bool {
	rank := func(f foresee.Finding) int {
		if n := slices.Index(severities, f.Severity); n >= 0 {
			return n
		}
		return len(severities)
	}
	return rank(f) < rank(than)
}

// Try makes the mend of a finding on a plan of its own and compares: nothing of the card is changed.
// The error wraps ErrNoMend, or why the edits are refused.
func (m *Planner) Try(c card.Card, k kit.Kit, finding string, opts ...Option) (Tried, error) {
	was := map[string]foresee.Finding{}
	of := map[[2]string]foresee.Finding{} // by rule and element, of those merged too
	var mend *foresee.Mend
	for _, f := range m.Of(c, k, opts...).Findings {
		for _, e := range append([]string{f.Element}, f.Places...) {
			if at := [2]string{f.Rule, e}; e != "" && !graver(of[at], f) {
				of[at] = f
			}
		}
		was[f.ID] = f
		if f.ID == finding {
			mend = f.Mend
		}
	}
	if mend == nil {
		return Tried{}, fmt.Errorf("try the mend of %q: %w", finding, ErrNoMend)
	}
	mended, err := c.Apply(k, mend.Edits...)
	if err != nil {
		return Tried{}, fmt.Errorf("try a mend: %w", err)
	}
	out := Tried{Gone: true, Costs: []foresee.Finding{}, Also: []string{}}
	for _, f := range m.Of(mended, k, opts...).Findings {
		before, had := was[f.ID]
		if !had { // said before of another thing with this among its places, it is found of this one no more than it was
			before, had = of[[2]string{f.Rule, f.Element}]
		}
		delete(was, f.ID)
		switch {
		case f.ID == finding:
			out.Gone = false
		case !had || graver(f, before):
			f.Mend = nil
			out.Costs = append(out.Costs, f)
		}
	}
	for id := range was {
		if id != finding {
			out.Also = append(out.Also, id)
		}
	}
	slices.Sort(out.Also)
	return out, nil
}
