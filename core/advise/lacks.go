package advise

import (
	"context"
	"errors"
	"fmt"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/ramp"
)

// adviceStep is how fine, in L*, missing lightnesses are looked for.
const adviceStep = 3.0

// advise says which lightness the drawer lacks when it cannot make every
// touching pair read: a grey ink of every lightness is tried in turn beside
// those owned, and the run of lightnesses that would make it is named. Empty
// when the drawer can, or when no single ink would. was is the weakest pair of
// the best choice found, or -1 for none.
func (a Study) advise(ctx context.Context, p ramp.Problem, was float64) string {
	q := p.Defaults()
	if was >= min(a.Readable, q.Enough) {
		return ""
	}
	white, err := colour.ParseHex(kit.PlainWhite)
	if err != nil {
		return ""
	}
	lo, hi := 0.0, 0.0
	for l := 8.0; l <= 94; l += adviceStep {
		trial := p
		trial.Options = append(append([]ramp.Option{}, p.Options...), ramp.Option{Film: colour.FilmFrom(colour.Lab{L: l}.Linear(), white, 0.2), Impressions: 1})
		trial.Slots = append([]ramp.Slot{}, p.Slots...)
		for i, s := range trial.Slots {
			if len(s.Options) > 1 || len(s.Options) == 1 && len(p.Options) <= 2 && i < len(p.Slots)-1 {
				trial.Slots[i].Options = append(append([]int{}, s.Options...), len(trial.Options)-1)
			}
		}
		found, err := ramp.Solve(ctx, trial, 1)
		if errors.Is(err, context.DeadlineExceeded) || errors.Is(err, context.Canceled) {
			break
		}
		if err != nil || len(found) == 0 || found[0].Diff < a.Readable && was >= 0 {
			if hi > 0 {
				break // the first run is enough to say
			}
			continue
		}
		if hi == 0 {
			lo = l
		}
		hi = l
	}
	if hi == 0 {
		return ""
	}
	below, above := a.neighbours(lo, hi)
	gap := "Nothing in the drawer lies there."
	if below != "" && above != "" {
		gap = fmt.Sprintf("The drawer has nothing between %s and %s that does it.", above, below)
	}
	if hi-lo < adviceStep {
		lo, hi = lo-adviceStep/2, hi+adviceStep/2
	}
	return fmt.Sprintf("%s An ink that dries to a lightness of %.0f to %.0f would make every layer read.", gap, lo, hi)
}

// neighbours are the owned inks just darker and just lighter than a run of
// lightnesses, by name.
func (a Study) neighbours(lo, hi float64) (darker, lighter string) {
	dark, light := -1.0, 101.0
	for i := range a.Stock.Inks {
		ink := &a.Stock.Inks[i]
		film, _, err := a.Stock.Film(ink)
		if err != nil || ink.Gone || ink.Kind == kit.Embossing {
			continue
		}
		l := film.Over(a.Stock.PaperColour(ink.Paper), 1).Lab().L
		if l <= lo && l > dark {
			dark, darker = l, ink.Name
		}
		if l >= hi && l < light {
			light, lighter = l, ink.Name
		}
	}
	return darker, lighter
}
