package plan

import (
	"context"
	"fmt"
	"reflect"
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/together"
	"ochrestone/core/work"
)

// Job is a design that is made in a sitting, as often as its card says, and in its lots.
type Job struct {
	ID   string // of the card, where it is not the one the sitting is about; else empty
	Card card.Card
}

// Sitting is the work on all cards of a sitting.
type Sitting struct {
	Cards  []Made        `json:"cards" nullable:"false" doc:"what is made, by lots"`
	Steps  []work.Act    `json:"steps" nullable:"false"`
	Time   Worktime      `json:"time"`
	Alone  work.Times    `json:"alone" doc:"doing it card by card"`
	Pace   int           `json:"pace" doc:"from how many steps the person's own times are taken; 0: usual times"`
	Doubt  []work.Doubt  `json:"doubts" nullable:"false" doc:"steps that are done though one they need is not"`
	Notes  []Noted       `json:"notes" nullable:"false" doc:"what will go wrong on some of the cards and not on the one that is shown"`
	AtHand []work.Supply `json:"atHand" nullable:"false" doc:"what to have at hand before it begins"`
	Stuck  string        `json:"stuck,omitempty" doc:"why it cannot be put in order"`

	clock work.Clock
}

// Made is so many cards of a sitting that are alike.
type Made struct {
	Card   string `json:"card,omitempty" doc:"id of the card, where it is another one"`
	Lot    string `json:"lot,omitempty"`
	Title  string `json:"title" doc:"of the card"`
	Name   string `json:"name" doc:"what these are called"`
	Copies int    `json:"copies"`
}

// Noted is a finding about some of the cards of a sitting.
type Noted struct {
	Name    string          `json:"name" doc:"which cards"`
	Finding foresee.Finding `json:"finding"`
}

// lot is one lot of a sitting with its card.
type lot struct {
	Made
	made card.Card
}

// lotsOf are the lots of all jobs, each with its card as it is made.
func lotsOf(jobs []Job) (out []lot) {
	for _, j := range jobs {
		if len(j.Card.Lots) == 0 {
			out = append(out, lot{Made{j.ID, "", j.Card.Title, j.Card.Title, j.Card.Run()}, j.Card})
			continue
		}
		for n, l := range j.Card.Lots {
			name := l.Name
			if name == "" {
				name = fmt.Sprintf("lot %d", n+1)
			}
			if len(jobs) > 1 {
				name = j.Card.Title + ", " + name
			}
			out = append(out, lot{Made{j.ID, l.ID, j.Card.Title, name, l.Copies}, j.Card.Of(l)})
		}
	}
	return out
}

// Prepared is a sitting with the plans of all its cards made: what of it depends on neither
// what is done nor how fast the person is.
type Prepared struct {
	cards []Made
	lots  []work.Lot
	notes []Noted
	hand  []work.Supply
	stock look.Stock
}

// Prepare plans all cards of a sitting: those of the first job, and others made with them.
func (m *Planner) Prepare(jobs []Job, k kit.Kit, opts ...Option) Prepared {
	lots := lotsOf(jobs)
	plans := m.plans(lots, k, append(slices.Clone(opts), Paced(nil, 0), Room(0)))
	out := Prepared{cards: []Made{}, notes: []Noted{}, lots: make([]work.Lot, len(lots)), stock: look.NewStock(k)}
	known := map[string]bool{}
	for i := range plans {
		out.hand = work.Supplies(out.hand, work.AtHand(&plans[i].Build, plans[i].Steps, false))
	}
	for i, l := range lots {
		out.cards = append(out.cards, l.Made)
		out.lots[i] = work.Lot{Card: l.Card, ID: l.Lot, Title: l.Title, Name: l.Name, Copies: l.Copies, Acts: plans[i].acts}
		for _, f := range plans[i].Findings {
			// What is wrong with the card that is shown is noted beside it already.
			if i > 0 && f.Aside == "" && !known[f.ID] && f.Severity != foresee.Tip {
				out.notes = append(out.notes, Noted{l.Name, f})
			}
			known[f.ID] = true
		}
	}
	return out
}

// Did is what is done of a sitting already.
type Did struct {
	Order []card.Step          // the person's own order, as far as it names steps
	Done  []card.Step          // in the order it was done
	Used  map[card.Step]string // inks used instead of those planned
}

// Sitting plans the work on all cards of a sitting, going on from what is done.
func (m *Planner) Sitting(jobs []Job, k kit.Kit, did Did, opts ...Option) Sitting {
	return m.Prepare(jobs, k, opts...).Sitting(did, opts...)
}

// Sitting puts the work in order, going on from what is done.
func (p Prepared) Sitting(did Did, opts ...Option) Sitting {
	o := assumed(opts)
	out := Sitting{Cards: p.cards, Doubt: []work.Doubt{}, Notes: p.notes, AtHand: p.hand, Pace: o.paced, clock: work.Clock{Copies: 1, Room: o.room, Pace: o.pace}}
	out.Alone = work.Alone(p.lots, out.clock)
	done := work.Did{Done: did.Done}
	for step, ink := range did.Used {
		if i, ok := p.stock.Ink(ink); ok {
			tone, _ := i.Shade()
			done.Used = append(done.Used, work.Used{Step: step, Ink: ink, Tone: tone, Minutes: i.Minutes()})
		}
	}
	slices.SortFunc(done.Used, func(a, b work.Used) int { return a.Step.Compare(b.Step) })
	acts, err := work.Sitting(p.lots, did.Order, done, out.clock)
	if err != nil {
		out.Stuck = err.Error() + "."
	}
	ticked := map[card.Step]bool{}
	for _, s := range did.Done {
		ticked[s] = true
	}
	out.Doubt = work.Doubts(acts, ticked)
	out.Steps = work.Told(acts)
	out.Time.Slots, out.Time.Run = work.Timetable(out.Steps, out.clock)
	out.Time.Run.Copies = out.Alone.Copies
	_, out.Time.Least = work.Least(out.Steps, out.clock)
	return out
}

// Minutes is how long each step of the sitting is planned to take, tools fetched and put in
// place with it.
func (s Sitting) Minutes() []float64 {
	out := make([]float64, len(s.Steps))
	for i := range out {
		if i < len(s.Time.Slots) {
			out[i] = s.Time.Slots[i].To - s.Time.Slots[i].From
		}
	}
	return out
}

// State is how the bench stands when a step of the sitting begins; when it names none of
// them, when the first begins that is not done.
func (s Sitting) State(step card.Step, done map[card.Step]bool) work.BenchState {
	at := slices.IndexFunc(s.Steps, func(a work.Act) bool { return a.ID == step })
	if at < 0 {
		at = slices.IndexFunc(s.Steps, func(a work.Act) bool { return !done[a.ID] })
	}
	if at < 0 {
		at = len(s.Steps)
	}
	return work.StateAt(s.Steps, s.Time.Slots, at, s.clock)
}

// plans are the plans of all lots, made side by side.
func (m *Planner) plans(lots []lot, k kit.Kit, opts []Option) []Plan {
	out := make([]Plan, len(lots))
	have := assumed(opts).have
	together.By(len(lots), func(i int) {
		if have != nil && reflect.DeepEqual(lots[i].made, have.card) {
			out[i] = have.plan
			return
		}
		out[i] = m.Of(lots[i].made, k, opts...)
	})
	return out
}

// Sheets lays out what cards take of each cardstock, all of them together, just as Cutting does.
// The plan of each is handed over and let go, so that of many cards few are held at once. Where
// ctx ends what is laid out is of no use.
func (m *Planner) Sheets(ctx context.Context, jobs []Job, k kit.Kit, each func(job int, p Plan), opts ...Option) []cut.Stock {
	var g cut.Gathering
	for from := 0; from < len(jobs) && ctx.Err() == nil; from += fewPlans {
		some := jobs[from:min(from+fewPlans, len(jobs))]
		plans := make([]Plan, len(some))
		together.By(len(some), func(i int) { plans[i] = m.Of(some[i].Card, k, opts...) })
		for i, j := range some {
			each(from+i, plans[i])
			lots, made := lotsOf([]Job{j}), plans[i:i+1]
			if len(j.Card.Lots) > 0 {
				made = m.plans(lots, k, opts)
			}
			for n, l := range lots {
				g.Add(m.taking(l, &made[n], k, opts))
			}
		}
	}
	return g.Stocks(ctx, cut.Write(assumed(opts).write))
}

// fewPlans is how many cards are planned side by side and held at once.
const fewPlans = 4

// taking is what a lot takes, with the spares that Register finds each layer needs.
func (m *Planner) taking(l lot, p *Plan, k kit.Kit, opts []Option) cut.Job {
	b := m.builder(l.made, k, opts)
	b.plan.Motifs = p.Motifs
	return cut.Job{Build: &p.Build, Stood: p.Stood, Copies: l.Copies, Card: l.Card, Title: l.Title, Spares: b.spares}
}

// Cutting lays out what the cards of a sitting take, with the spares that Register finds
// each layer needs. Where ctx ends it gives the best found so far. progress, where there is
// one, is told the share of the work that is done.
func (m *Planner) Cutting(ctx context.Context, jobs []Job, k kit.Kit, progress func(float64), opts ...Option) cut.Plan {
	lots := lotsOf(jobs)
	plans := m.plans(lots, k, opts)
	cuts := make([]cut.Job, len(lots))
	for i, l := range lots {
		cuts[i] = m.taking(l, &plans[i], k, opts)
	}
	cutting := []cut.Option{cut.Write(assumed(opts).write)}
	if len(k.Machines) > 0 {
		cutting = append(cutting, cut.With(k.Machines[0]))
	}
	if progress != nil {
		cutting = append(cutting, cut.Progress(progress))
	}
	return cut.Of(ctx, cuts, cutting...)
}
