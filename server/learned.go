package server

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/register"
	"ochrestone/core/work"
	"ochrestone/store"
)

// Learned is what the hand and the drawer have learned, over time.
type Learned struct {
	Hand   []HandThen   `json:"hand" nullable:"false" doc:"by what was measured together, the earliest first"`
	Pace   []PaceThen   `json:"pace" nullable:"false" doc:"by runs, the earliest first"`
	Drawer []DrawerThen `json:"drawer" nullable:"false" doc:"by days on which swatches were kept, the earliest first"`
}

// HandThen is how exactly layers were placed at one time.
type HandThen struct {
	At   string  `json:"at" doc:"RFC 3339"`
	Card string  `json:"card" doc:"title"`
	Way  string  `json:"way" doc:"of placing, by its name"`
	N    int     `json:"n" doc:"placements"`
	Off  float64 `json:"off" doc:"spread of the shift along one axis, mm"`
	Low  float64 `json:"low" doc:"9 in 10 sure: at least, mm"`
	High float64 `json:"high" doc:"and at most, mm"`
}

// PaceThen is how quick the hand was in one run.
type PaceThen struct {
	At     string  `json:"at" doc:"RFC 3339"`
	Card   string  `json:"card" doc:"title"`
	Factor float64 `json:"factor" doc:"against usual times: 2 took twice as long"`
	N      int     `json:"n" doc:"steps from which that is known"`
}

// DrawerThen is how well the colours of the drawer were known on a day.
type DrawerThen struct {
	On    string  `json:"on" doc:"yyyy-mm-dd"`
	Inks  int     `json:"inks" doc:"measured by then"`
	Error float64 `json:"error" doc:"mean CIEDE2000 of swatches foretold without them; 0 where none could be"`
}

func (s *Server) learned() {
	huma.Register(s.api, op("learned", http.MethodGet, "/api/learned", "What the hand and the drawer have learned, over time"), func(ctx context.Context, _ *struct{}) (*struct{ Body Learned }, error) {
		entries, err := s.store.Entries(ctx, "")
		if err != nil {
			return nil, problem(err)
		}
		titles, err := s.titles(ctx)
		if err != nil {
			return nil, problem(err)
		}
		out := Learned{}
		if out.Hand, err = s.handThen(ctx, titles); err != nil {
			return nil, problem(err)
		}
		if out.Pace, err = s.paceThen(ctx, entries); err != nil {
			return nil, problem(err)
		}
		k, err := s.store.Kit(ctx)
		if err != nil {
			return nil, problem(err)
		}
		out.Drawer = drawerThen(k)
		return &struct{ Body Learned }{out}, nil
	})
}

// titles are the titles of all cards, by their ids.
func (s *Server) titles(ctx context.Context) (map[string]string, error) {
	all, err := s.store.Cards(ctx)
	out := map[string]string{}
	for _, v := range all {
		out[v.ID] = v.Card.Title
	}
	return out, err
}

func (s *Server) handThen(ctx context.Context, titles map[string]string) ([]HandThen, error) {
	out := []HandThen{}
	ps, err := s.store.Logged(ctx)
	if err != nil {
		return nil, err
	}
	slices.Reverse(ps)
	for from := 0; from < len(ps); {
		to := from
		for to < len(ps) && ps[to].Batch == ps[from].Batch {
			to++
		}
		for _, way := range register.Ways() {
			all := byWay(ps[from:to])[way.ID]
			if len(all) == 0 {
				continue
			}
			h := register.Learn(all)
			out = append(out, HandThen{ps[from].At, titles[ps[from].Card], way.Name, h.N, h.Spread.Shift, h.Low, h.High})
		}
		from = to
	}
	return out, nil
}

func (s *Server) paceThen(ctx context.Context, entries []store.Entry) ([]PaceThen, error) {
	out := []PaceThen{}
	all, err := s.store.Ticks(ctx)
	if err != nil {
		return nil, err
	}
	runs := map[int64][]work.Ticked{}
	for i, t := range asTicks(all) {
		runs[all[i].Run] = append(runs[all[i].Run], t)
	}
	for _, e := range slices.Backward(entries) {
		if f, n := work.Against(runs[e.ID]); n > 0 {
			out = append(out, PaceThen{e.First, e.Title, f, n})
		}
	}
	return out, nil
}

// drawerThen is how well colours were known on each day on which swatches were kept, those of
// unknown day before all.
func drawerThen(k kit.Kit) []DrawerThen {
	out := []DrawerThen{}
	var days []string
	for _, w := range k.Swatches {
		if w.On != "" && !slices.Contains(days, w.On) {
			days = append(days, w.On)
		}
	}
	slices.Sort(days)
	all := k.Swatches
	for _, day := range days {
		k.Swatches = nil
		for _, w := range all {
			if w.On <= day {
				k.Swatches = append(k.Swatches, w)
			}
		}
		known := look.KnowledgeOf(k)
		out = append(out, DrawerThen{day, known.Measured, known.Error})
	}
	return out
}
