package server

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/remember"
	"ochrestone/core/work"
	"ochrestone/exchange/calendar"
	"ochrestone/exchange/inkfile"
	"ochrestone/store"
)

func (s *Server) runs() {
	huma.Register(s.api, op("read-run", http.MethodGet, "/api/cards/{id}/run", "What is done of a card at the bench"), func(ctx context.Context, in *cardIn) (*runOut, error) {
		r, err := s.store.Run(ctx, in.ID)
		return &runOut{r}, problem(err)
	})
	huma.Register(s.api, op("tick-steps", http.MethodPost, "/api/cards/{id}/run/done", "Mark steps as done, or as not done after all"), func(ctx context.Context, in *tickIn) (*runOut, error) {
		marks, err := s.asTicked(ctx, in.ID, in.Body.Steps)
		if err != nil {
			return nil, problem(err)
		}
		r, err := s.store.Tick(ctx, in.ID, in.Body.Done, marks...)
		if err == nil && in.Body.Done {
			err = s.whenMade(ctx, in.ID, r)
		}
		return &runOut{r}, problem(err)
	})
	huma.Register(s.api, op("use-ink", http.MethodPost, "/api/cards/{id}/run/used", "Note the ink that was really used"), func(ctx context.Context, in *useIn) (*runOut, error) {
		r, err := s.store.Use(ctx, in.ID, in.Body.Step, in.Body.Ink)
		return &runOut{r}, problem(err)
	})
	huma.Register(s.api, op("count-cards", http.MethodPost, "/api/cards/{id}/run/count", "Note on how many of the cards a step is done"), func(ctx context.Context, in *countIn) (*runOut, error) {
		marks, err := s.asTicked(ctx, in.ID, []card.Step{in.Body.Step})
		if err != nil {
			return nil, problem(err)
		}
		r, err := s.store.Count(ctx, in.ID, marks[0], in.Body.N, marks[0].Cards)
		return &runOut{r}, problem(err)
	})
	huma.Register(s.api, op("leave-out", http.MethodPost, "/api/cards/{id}/run/left", "Note that a step is left out"), func(ctx context.Context, in *leftIn) (*runOut, error) {
		r, err := s.store.Leave(ctx, in.ID, in.Body)
		return &runOut{r}, problem(err)
	})
	huma.Register(s.api, op("time-wait", http.MethodPost, "/api/cards/{id}/run/timers", "Begin the wait of a step, or stop it"), func(ctx context.Context, in *waitIn) (*runOut, error) {
		r, err := s.store.Wait(ctx, in.ID, in.Body.Step, in.Body.Minutes)
		return &runOut{r}, problem(err)
	})
	huma.Register(s.api, op("another-run", http.MethodPost, "/api/cards/{id}/run/another", "End the run under way, to begin another"), func(ctx context.Context, in *cardIn) (*runOut, error) {
		r, err := s.store.Another(ctx, in.ID)
		return &runOut{r}, problem(err)
	})
}

type runOut struct{ Body store.Run }

type tickIn struct {
	ID   string `path:"id"`
	Body struct {
		Steps []card.Step `json:"steps" nullable:"false" minItems:"1" maxItems:"2000"`
		Done  bool        `json:"done"`
	}
}

type countIn struct {
	ID   string `path:"id"`
	Body store.Counted
}

type leftIn struct {
	ID   string `path:"id"`
	Body card.Step
}

type waitIn struct {
	ID   string `path:"id"`
	Body struct {
		Step    card.Step `json:"step"`
		Minutes float64   `json:"minutes" minimum:"0" maximum:"10080" doc:"0 stops it"`
	}
}

type useIn struct {
	ID   string `path:"id"`
	Body store.UsedInk
}

// whenMade notes what is otherwise in the stores once all steps of a card are done: its stamps are new
// no longer.
func (s *Server) whenMade(ctx context.Context, id string, r store.Run) error {
	v, k, err := s.cardAndKit(ctx, id)
	if err != nil {
		return err
	}
	primed := remember.Primed(v.Card, k)
	if len(primed) == 0 {
		return nil
	}
	got, err := s.sitting(ctx, id)
	if err != nil {
		return err
	}
	if done, _ := progress(got.Steps, r); done < len(got.Steps) {
		return nil
	}
	var items []store.Item
	for _, set := range primed {
		items = append(items, store.Item{Kind: string(kit.KindSet), ID: set.ID, Value: set})
	}
	if err := s.store.PutAll(ctx, items...); err != nil {
		return fmt.Errorf("note that stamps are new no longer: %w", err)
	}
	return nil
}

// progress counts the steps of a plan that are done in a run, and names the next.
func progress(acts []work.Act, r store.Run) (done int, next string) {
	ticked := map[card.Step]bool{}
	for _, st := range r.Done {
		ticked[st] = true
	}
	for _, a := range acts {
		switch {
		case ticked[a.ID]:
			done++
		case next == "":
			next = a.Title
		}
	}
	return done, next
}

// usedIn lists the inks used in a run instead of those planned.
func usedIn(r store.Run) inkfile.Used {
	out := inkfile.Used{}
	for _, u := range r.Used {
		out[u.Step] = u.Ink
	}
	return out
}

// waits answers with the waits under way as a calendar file.
func (s *Server) waits(c *gin.Context) {
	ctx := c.Request.Context()
	p, err := s.sitting(ctx, c.Param("id"))
	if err != nil {
		refuse(c, err)
		return
	}
	r := p.Run
	var events []calendar.Event
	for _, t := range r.Timers {
		at, err := time.Parse(time.RFC3339, t.Until)
		if err != nil {
			continue
		}
		e := calendar.Event{ID: fmt.Sprintf("%d-%s-%s-%s-%d", r.ID, t.Step.Verb, t.Step.Element, t.Step.Part, t.Step.N), At: at, What: "A wait is over"}
		for _, a := range p.Steps {
			if a.ID == t.Step {
				e.What, e.Why = a.Title+": the wait is over", a.Detail
			}
		}
		events = append(events, e)
	}
	var b bytes.Buffer
	if err := calendar.Write(&b, s.now(), events); err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="waits.ics"`)
	c.Data(http.StatusOK, "text/calendar; charset=utf-8", b.Bytes())
}
