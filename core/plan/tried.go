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

// Try makes the mend of a finding on a plan of its own and compares: nothing of the card is changed.
// The error wraps ErrNoMend, or why the edits are refused.
func (m *Planner) Try(c card.Card, k kit.Kit, finding string, opts ...Option) (Tried, error) {
	was := map[string]foresee.Finding{}
	var mend *foresee.Mend
	for _, f := range m.Of(c, k, opts...).Findings {
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
		delete(was, f.ID)
		switch {
		case f.ID == finding:
			out.Gone = false
		case !had || slices.Index(severities, f.Severity) < slices.Index(severities, before.Severity):
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
