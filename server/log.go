package server

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/register"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
)

// Fitting is what the person has set for judging and placing.
type Fitting struct {
	Limits register.Limits            `json:"limits" doc:"what the eye forgives between colours a plain step apart"`
	Hinge  placing.Hinge              `json:"hinge" doc:"where the hinge of the positioner, or of a taped stencil, lies"`
	Hands  map[string]register.Spread `json:"hands,omitempty" doc:"how the person's ways of placing repeat, typed: by the id of the way, or that and \" round\" for a die laid round a print"`
}

func (s *Server) fitting(ctx context.Context) Fitting {
	f := Fitting{Limits: register.Defaults(), Hinge: placing.Hinge{Side: placing.HingeLeft, Far: 40}}
	if raw, err := s.store.Setting(ctx, "fit", ""); err == nil && raw != "" {
		var kept Fitting
		if json.Unmarshal([]byte(raw), &kept) == nil {
			f = kept
		}
	}
	return f
}

// assumed is what plans go by for this person, with what tells states of it apart.
type assumed struct {
	opts []plan.Option
	of   string // digest of all of it but how quick the person is
	pace string // digest of that
}

// handMemo remembers what plans go by for as long as what feeds it stays as it is.
type handMemo struct {
	sync.Mutex
	from store.Turns
	have *assumed
}

// assumed works out what plans go by: units, limits, hinge, hand and pace.
func (s *Server) assumed(ctx context.Context) (assumed, error) {
	turns, err := s.store.Turned(ctx)
	if err != nil {
		return assumed{}, err
	}
	turns.Lists = 0 // that is nothing plans go by
	m := &s.hand
	m.Lock()
	defer m.Unlock()
	if m.have != nil && m.from == turns {
		return *m.have, nil
	}
	f, set := s.writing(ctx)
	pace, paced := s.pace(ctx)
	fit := s.fitting(ctx)
	ps, err := s.store.Logged(ctx)
	if err != nil {
		return assumed{}, err
	}
	ways, habit := register.Typed(register.Own(register.Ways(), byWay(ps)), fit.Hands), register.Learn(practised(ps))
	a := assumed{opts: []plan.Option{plan.Practised(habit), plan.Writing(f), plan.Limits(fit.Limits), plan.HingeAt(fit.Hinge), plan.Hand(ways), plan.Typeface(sheet.Face{}), plan.Post(s.carriers), plan.Room(set.Room), plan.Paced(pace, paced)}}
	if a.of, err = digest(f, fit, ways, habit, s.carriers, set.Room); err == nil {
		a.pace, err = digest(pace, paced)
	}
	if err == nil {
		m.from, m.have = turns, &a
	}
	return a, err
}

// digest is short for values.
func digest(v ...any) (string, error) {
	doc, err := json.Marshal(v)
	if err != nil {
		return "", fmt.Errorf("tell what plans go by: %w", err)
	}
	h := sha256.Sum256(doc)
	return string(h[:]), nil
}

// assume is what plans go by for this person. Where it cannot be read it is what is usual.
func (s *Server) assume(ctx context.Context) []plan.Option {
	a, err := s.assumed(ctx)
	if err != nil {
		f, _ := s.writing(ctx)
		a.opts = []plan.Option{plan.Writing(f), plan.Typeface(sheet.Face{}), plan.Post(s.carriers)}
	}
	return append(slices.Clone(a.opts), plan.Until(ctx))
}

// byWay gathers real placements, not those practised, by the way they were placed.
func byWay(ps []store.Placement) map[string][]register.Placed {
	out := map[string][]register.Placed{}
	for _, p := range ps {
		if p.Source != store.FromPractice {
			out[p.Way] = append(out[p.Way], register.PlacedAs(p.X, p.Y, p.Turn, p.SureTurn))
		}
	}
	return out
}

// Hand is what the log tells of one way of placing.
type Hand struct {
	Way      string          `json:"way"`
	Name     string          `json:"name"`
	Defaults register.Spread `json:"defaults" doc:"our own default"`
	Own      bool            `json:"own" doc:"enough placements to go by"`
	Habit    register.Habit  `json:"habit"`
}

// Log is the log of placements, and what it tells.
type Log struct {
	Placements []store.Placement `json:"placements" nullable:"false" doc:"newest first"`
	Hands      []Hand            `json:"hands" nullable:"false"`
	Practice   register.Habit    `json:"practice" doc:"from practice on the screen"`
	Fewest     int               `json:"fewest" doc:"placements from which a spread is the person's own"`
}

// mostOff is how far, mm, a placement may be off to be believed.
const mostOff = 500.0

type logOut struct{ Body Log }

func (s *Server) readLog(ctx context.Context) (*logOut, error) {
	ps, err := s.store.Logged(ctx)
	if err != nil {
		return nil, problem(err)
	}
	out := &logOut{Log{Placements: ps, Hands: []Hand{}, Fewest: register.FewestOwn}}
	by := byWay(ps)
	for _, w := range register.Ways() {
		h := register.Learn(by[w.ID])
		out.Body.Hands = append(out.Body.Hands, Hand{w.ID, w.Name, w.Spread, h.N >= register.FewestOwn, h})
	}
	out.Body.Practice = register.Learn(practised(ps))
	return out, nil
}

// practised are the placements made in practice on the screen, the last hundred.
func practised(ps []store.Placement) (out []register.Placed) {
	for _, p := range ps {
		if p.Source == store.FromPractice && len(out) < 100 {
			out = append(out, register.PlacedAs(p.X, p.Y, p.Turn, p.SureTurn))
		}
	}
	return out
}

type logIn struct {
	Body struct {
		Card       string            `json:"card"`
		Motif      string            `json:"motif"`
		Way        string            `json:"way" doc:"way of placing they were printed by"`
		Source     string            `json:"source" enum:"print,points,practice"`
		Placements []register.Logged `json:"placements" nullable:"false" minItems:"1" maxItems:"400"`
	}
}

func (s *Server) addToLog(ctx context.Context, in *logIn) (*logOut, error) {
	if in.Body.Source != store.FromPractice && !slices.ContainsFunc(register.Ways(), func(w register.Way) bool { return w.ID == in.Body.Way }) {
		return nil, problem(kit.Problem{Path: "way", What: "say how the layers were placed, by one of the ways listed"})
	}
	v, err := s.store.Card(ctx, in.Body.Card)
	if err != nil {
		return nil, problem(err)
	}
	labels := labelsOf(v.Card, in.Body.Motif)
	var ps []store.Placement
	for i, p := range in.Body.Placements {
		for name, v := range map[string][2]float64{"x": {p.X, mostOff}, "y": {p.Y, mostOff}, "turn": {p.Turn, 360}, "sureShift": {p.SureShift, mostOff}, "sureTurn": {p.SureTurn, 360}} {
			if !(math.Abs(v[0]) <= v[1]) {
				return nil, problem(kit.Problem{Path: fmt.Sprintf("placements[%d].%s", i, name), What: fmt.Sprintf("a placement is off by at most %.0f", v[1])})
			}
		}
		label, ok := labels[p.Layer]
		if !ok {
			return nil, problem(look.ErrUnknown)
		}
		ps = append(ps, store.Placement{Card: in.Body.Card, Motif: in.Body.Motif, Layer: p.Layer, Label: label, Way: in.Body.Way, Source: in.Body.Source,
			X: p.X, Y: p.Y, Turn: p.Turn, SureShift: p.SureShift, SureTurn: p.SureTurn, Good: p.Good})
	}
	if _, err := s.store.Log(ctx, ps); err != nil {
		return nil, problem(err)
	}
	return s.readLog(ctx)
}

func (s *Server) log() {
	huma.Register(s.api, op("read-log", http.MethodGet, "/api/log", "Placements that were measured, and what they tell of the hand"), func(ctx context.Context, _ *struct{}) (*logOut, error) { return s.readLog(ctx) })
	huma.Register(s.api, op("add-to-log", http.MethodPost, "/api/log", "Keep measured placements"), s.addToLog)
	huma.Register(s.api, op("take-from-log", http.MethodDelete, "/api/log/{batch}", "Take back what was logged together"), func(ctx context.Context, in *struct {
		Batch string `path:"batch"`
	}) (*logOut, error) {
		if err := s.store.Unlog(ctx, in.Batch); err != nil {
			return nil, problem(err)
		}
		return s.readLog(ctx)
	})
	huma.Register(s.api, op("read-fitting", http.MethodGet, "/api/fitting", "What the eye forgives, and the hinge"), func(ctx context.Context, _ *struct{}) (*struct{ Body Fitting }, error) {
		return &struct{ Body Fitting }{s.fitting(ctx)}, nil
	})
	huma.Register(s.api, op("set-fitting", http.MethodPut, "/api/fitting", "Set what the eye forgives, and the hinge"), func(ctx context.Context, in *struct{ Body Fitting }) (*struct{ Body Fitting }, error) {
		raw, err := json.Marshal(in.Body)
		if err != nil {
			return nil, problem(err)
		}
		if err := s.store.Set(ctx, "fit", string(raw)); err != nil {
			return nil, problem(err)
		}
		return &struct{ Body Fitting }{s.fitting(ctx)}, nil
	})
	huma.Register(s.api, op("harm", http.MethodGet, "/api/cards/{id}/harm", "What shows when a layer lies off its place"), s.harm)
}

type harmIn struct {
	ID        string  `path:"id"`
	Motif     string  `query:"motif" required:"true"`
	Colourway string  `query:"colourway" required:"true"`
	Layer     string  `query:"layer" required:"true"`
	X         float64 `query:"x" minimum:"-100" maximum:"100" doc:"to the right, mm"`
	Y         float64 `query:"y" minimum:"-100" maximum:"100" doc:"down, mm"`
	Turn      float64 `query:"turn" minimum:"-180" maximum:"180" doc:"clockwise about its middle, degrees"`
}

func (s *Server) harm(ctx context.Context, in *harmIn) (*struct{ Body register.Harm }, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	study, err := s.planner.Placing(v.Card, k, in.Motif, s.assume(ctx)...)
	if err != nil {
		return nil, problem(err)
	}
	h, err := study.Harm(in.Colourway, in.Layer, register.Placed{X: in.X, Y: in.Y, Turn: in.Turn})
	if err != nil {
		return nil, problem(err)
	}
	return &struct{ Body register.Harm }{h}, nil
}
