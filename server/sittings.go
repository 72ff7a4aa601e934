package server

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/work"
	"ochrestone/store"
)

// mostSittings is how many planned sittings are remembered.
const mostSittings = 12

// Sitting is the work on a card at the bench, with all that is made with it.
type Sitting struct {
	plan.Sitting
	Run     store.Run       `json:"run"`
	Company []string        `json:"company" nullable:"false" doc:"ids of cards made in the same sitting"`
	Changed work.Differs    `json:"changed" doc:"how the steps would differ if the run went on with the cards as they are now"`
	Now     work.BenchState `json:"now" doc:"how the bench stands before the next step"`
	Past    []store.Past    `json:"past" nullable:"false" doc:"runs of this card, the latest first"`
	Minutes float64         `json:"minutes" doc:"from the first step ticked to the last"`
}

func (s *Server) sittings() {
	huma.Register(s.api, op("read-sitting", http.MethodGet, "/api/cards/{id}/sitting", "The work on a card and on all that is made with it, going on from what is done"), func(ctx context.Context, in *cardIn) (*sittingOut, error) {
		got, err := s.sitting(ctx, in.ID)
		return &sittingOut{got}, problem(err)
	})
	huma.Register(s.api, op("bench-at", http.MethodGet, "/api/cards/{id}/sitting/state", "How the bench stands when a step begins: tools, what is on them, what lies drying"), func(ctx context.Context, in *stateAtIn) (*stateAtOut, error) {
		got, err := s.sitting(ctx, in.ID)
		if err != nil {
			return nil, problem(err)
		}
		var step card.Step
		for _, a := range got.Steps {
			if a.Key == in.Step {
				step = a.ID
			}
		}
		return &stateAtOut{got.State(step, doneIn(got.Run))}, nil
	})
	huma.Register(s.api, op("set-company", http.MethodPut, "/api/cards/{id}/company", "Which other cards are made in the same sitting"), func(ctx context.Context, in *companyIn) (*sittingOut, error) {
		if err := s.store.SetCompany(ctx, in.ID, in.Body.Cards); err != nil {
			return nil, problem(err)
		}
		got, err := s.sitting(ctx, in.ID)
		return &sittingOut{got}, problem(err)
	})
	huma.Register(s.api, op("renew-run", http.MethodPost, "/api/cards/{id}/run/renew", "Go on with the cards as they are now"), func(ctx context.Context, in *cardIn) (*runOut, error) {
		r, err := s.store.Renew(ctx, in.ID)
		return &runOut{r}, problem(err)
	})
}

type sittingOut struct{ Body Sitting }

type stateAtIn struct {
	ID   string `path:"id"`
	Step string `query:"step" doc:"key of the step; none: the next"`
}

type stateAtOut struct{ Body work.BenchState }

type companyIn struct {
	ID   string `path:"id"`
	Body struct {
		Cards []string `json:"cards" nullable:"false" maxItems:"8"`
	}
}

// doneIn tells which steps are done in a run.
func doneIn(r store.Run) map[card.Step]bool {
	out := map[card.Step]bool{}
	for _, st := range r.Done {
		out[st] = true
	}
	return out
}

// jobsOf are the designs of a sitting: the first is the card it is about.
func jobsOf(all []store.Kept) (jobs []plan.Job) {
	for i, k := range all {
		j := plan.Job{ID: k.ID, Card: k.Card}
		if i == 0 {
			j.ID = ""
		}
		jobs = append(jobs, j)
	}
	return jobs
}

// sitting plans the work on a card and what is made with it, as the run under way keeps
// them, and goes on from what is done.
func (s *Server) sitting(ctx context.Context, id string, known ...plan.Option) (Sitting, error) {
	out := Sitting{}
	var err error
	if out.Run, err = s.store.Run(ctx, id); err != nil {
		return out, err
	}
	if out.Company, err = s.store.Company(ctx, id); err != nil {
		return out, err
	}
	if out.Past, err = s.store.Past(ctx, id); err != nil {
		return out, err
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return out, err
	}
	now, err := s.store.Making(ctx, id, 0)
	if err != nil {
		return out, err
	}
	kept, err := s.store.Making(ctx, id, out.Run.ID)
	if err != nil {
		return out, err
	}
	own := now[0].Card.Order
	used := map[card.Step]string{}
	for _, u := range out.Run.Used {
		used[u.Step] = u.Ink
	}
	if out.Sitting, err = s.sat(ctx, kept, k, plan.Did{Order: own, Done: out.Run.Done, Used: used}, known...); err != nil {
		return out, err
	}
	out.Now = out.State(card.Step{}, doneIn(out.Run))
	out.Changed = work.Compare(nil, nil)
	if !slices.EqualFunc(kept, now, func(a, b store.Kept) bool { return a.ID == b.ID && a.Revision == b.Revision }) {
		was, err := s.sat(ctx, kept, k, plan.Did{Order: own})
		if err != nil {
			return out, err
		}
		is, err := s.sat(ctx, now, k, plan.Did{Order: own})
		if err != nil {
			return out, err
		}
		out.Changed = work.Compare(was.Steps, is.Steps)
	}
	for _, p := range out.Past {
		if p.ID == out.Run.ID {
			out.Minutes = between(p.First, p.Last)
		}
	}
	return out, nil
}

// between is how many minutes lie between two times; none where one is missing.
func between(first, last string) float64 {
	a, err1 := time.Parse(time.RFC3339, first)
	b, err2 := time.Parse(time.RFC3339, last)
	if err1 != nil || err2 != nil {
		return 0
	}
	return b.Sub(a).Minutes()
}

// sat plans a sitting; the plans of its cards are remembered for as long as they and the
// stores stay as they are, so that what follows a tick is quick.
func (s *Server) sat(ctx context.Context, all []store.Kept, k kit.Kit, did plan.Did, known ...plan.Option) (plan.Sitting, error) {
	assume := append(s.assume(ctx), known...)
	jobs := jobsOf(all)
	turn, err := s.store.Turn(ctx)
	if err != nil {
		return plan.Sitting{}, err
	}
	doc, err := json.Marshal([]any{jobs, turn, s.settings(ctx), s.fitting(ctx)})
	if err != nil {
		return plan.Sitting{}, fmt.Errorf("plan a sitting: %w", err)
	}
	key := sha256.Sum256(doc)
	p, ok := s.sats.Get(key)
	if !ok {
		p = s.planner.Prepare(jobs, k, assume...)
		if err := ctx.Err(); err != nil {
			return plan.Sitting{}, err
		}
		s.sats.Add(key, p)
	}
	return p.Sitting(did, assume...), nil
}

// asTicked are steps of a sitting as they are ticked: with what sort they are and on how many
// cards they are done.
func (s *Server) asTicked(ctx context.Context, id string, steps []card.Step) ([]store.Mark, error) {
	got, err := s.sitting(ctx, id)
	if err != nil {
		return nil, err
	}
	out := store.Marks(steps...)
	for i := range out {
		for _, a := range got.Steps {
			if a.ID == out[i].Step {
				out[i].Kind, out[i].Cards = string(a.Kind), a.Cards
			}
		}
	}
	return out, nil
}

// pace is how long this person takes for steps, and from how many that is known; it is
// learned anew when something was ticked.
func (s *Server) pace(ctx context.Context) (work.Pace, int) {
	n, err := s.store.Ticking(ctx)
	if err != nil {
		return nil, 0
	}
	s.paces.Lock()
	defer s.paces.Unlock()
	if s.paces.from == n && s.paces.own != nil {
		return s.paces.own, s.paces.steps
	}
	all, err := s.store.Ticks(ctx)
	if err != nil {
		return nil, 0
	}
	s.paces.own, s.paces.steps = work.Learn(byRun(all)...)
	s.paces.from = n
	return s.paces.own, s.paces.steps
}

// byRun are ticks as the core takes them, those of each run together.
func byRun(all []store.Ticked) (runs [][]work.Ticked) {
	for i, t := range asTicks(all) {
		if i == 0 || all[i].Run != all[i-1].Run {
			runs = append(runs, nil)
		}
		last := &runs[len(runs)-1]
		*last = append(*last, t)
	}
	return runs
}
