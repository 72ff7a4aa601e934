package server

import (
	"context"
	"crypto/sha256"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"log/slog"
	"strings"
	"sync"

	"ochrestone/core/cut"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/remember"
	"ochrestone/core/work"
	"ochrestone/store"
)

// ShopList is what to buy.
type ShopList struct {
	Buys  []remember.ToBuy `json:"buys" nullable:"false"`
	Cards []string         `json:"cards" nullable:"false" doc:"titles of the cards it is for: those on the bench that are not finished"`
	Stale bool             `json:"stale,omitempty" doc:"it was worked out before the last change, and is being worked out anew"`
}

// fewMakes is for how many cards the list is waited for; for more it is worked out meanwhile.
const fewMakes = 12

// mostTogether is how many cards are laid out together. Of more, those that lie by each other are:
// nobody cuts a hundred cards in one go, and a change of one is worked out for its neighbours alone.
const mostTogether = 60

// shop remembers that a list is being worked out.
type shop struct {
	mu      sync.Mutex
	running bool
}

// batch is what some cards that are laid out together take. What is there of it the list asks
// the stores.
type batch struct {
	Wanted []remember.Wanted
	Needs  map[string]int // sheets by cardstock
}

// makes are cards that are to be made, those that are laid out together.
type makes struct {
	of  string // digest of everything that what they take is worked out from
	ids []string
}

// list is what to buy of some batches.
func list(all []batch, stores kit.Kit) ShopList {
	out := ShopList{Cards: []string{}}
	needs, wanted := map[string]int{}, []remember.Wanted{}
	for _, b := range all {
		for _, w := range b.Wanted {
			out.Cards = append(out.Cards, w.Title)
		}
		wanted = append(wanted, b.Wanted...)
		for id, n := range b.Needs {
			needs[id] += n
		}
	}
	var laid []cut.Stock
	for id, n := range needs {
		laid = append(laid, cut.Stock{Stock: id, Needs: n})
	}
	out.Buys = remember.Shopping(stores, wanted, laid)
	return out
}

// shopping answers with what to buy for all cards that are to be made. What is kept is
// answered at once; where some of it is stale and it is for many cards it says so, and that is
// worked out anew.
func (s *Server) shopping(ctx context.Context, _ *struct{}) (*struct{ Body ShopList }, error) {
	g, rows, briefs, stale, err := s.listed(ctx)
	if err != nil {
		return nil, problem(err)
	}
	if len(rows) <= fewMakes { // how a few stand is known at once
		if _, err = s.exact(ctx); err != nil {
			return nil, problem(err)
		}
		if g, rows, briefs, stale, err = s.listed(ctx); err != nil {
			return nil, problem(err)
		}
	} else {
		for _, at := range stale {
			s.want(nil, rows[at].ID)
		}
	}
	stores, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	all := s.toMake(g, rows, briefs)
	kept := map[string]batch{}
	if raw, err := s.store.List(ctx, shopList); err == nil && json.Unmarshal(raw, &kept) != nil {
		kept = map[string]batch{} // it is worked out anew
	}
	var have []batch
	var lacks []makes
	for _, m := range all {
		if b, ok := kept[m.of]; ok {
			have = append(have, b)
		} else {
			lacks = append(lacks, m)
		}
	}
	if len(lacks) == 0 {
		out := list(have, stores)
		out.Stale = len(stale) > 0 // what those take, or whether they are to be made, is not known yet
		return &struct{ Body ShopList }{out}, nil
	}
	now := map[string]batch{} // what is of no card any more is dropped
	for _, m := range all {
		if b, ok := kept[m.of]; ok {
			now[m.of] = b
		}
	}
	if len(stale) == 0 && len(all) == 1 && len(all[0].ids) <= fewMakes {
		b, err := s.shop(ctx, stores, lacks[0], now)
		if err != nil {
			return nil, problem(err)
		}
		return &struct{ Body ShopList }{list([]batch{b}, stores)}, nil
	}
	s.shops.mu.Lock()
	defer s.shops.mu.Unlock()
	if !s.shops.running {
		s.shops.running = true
		go func() {
			for _, m := range lacks {
				if _, err := s.shop(context.Background(), stores, m, now); err != nil {
					slog.Debug("what to buy is not worked out", "error", err)
					break
				}
			}
			s.shops.mu.Lock()
			s.shops.running = false
			s.shops.mu.Unlock()
		}()
	}
	out := list(have, stores)
	out.Stale = true
	return &struct{ Body ShopList }{out}, nil
}

// shopList is what it is kept under.
const shopList = "shopping"

// toMake are the cards that are neither finished nor put away, those that lie by each other
// together.
func (s *Server) toMake(g goesBy, rows []store.Row, briefs []brief) (out []makes) {
	var of []string
	now := s.now()
	for i, r := range rows {
		if t := briefs[i].tile(r, false, now); briefs[i].W == 0 || t.Stands == work.Finished || t.Stands == work.PutAway {
			continue
		}
		if n := len(out); n == 0 || len(out[n-1].ids) == mostTogether {
			out, of = append(out, makes{}), nil
		}
		m := &out[len(out)-1]
		m.ids, of = append(m.ids, r.ID), append(of, g.of(s.version, r, briefs[i]))
		h := sha256.Sum256([]byte(strings.Join(of, " ")))
		m.of = base64.RawURLEncoding.EncodeToString(h[:15])
	}
	return out
}

// shop works out what some cards take, and keeps it with the others.
func (s *Server) shop(ctx context.Context, k kit.Kit, m makes, others map[string]batch) (batch, error) {
	out := batch{Wanted: make([]remember.Wanted, len(m.ids)), Needs: map[string]int{}}
	jobs := make([]plan.Job, len(m.ids))
	for i, id := range m.ids {
		v, err := s.store.Card(ctx, id)
		if err != nil {
			return out, err
		}
		jobs[i] = plan.Job{ID: id, Card: v.Card}
	}
	jobs[0].ID = "" // the one the sitting is about
	laid, err := heavy(ctx, &s.jobs, nil, func() ([]cut.Stock, error) {
		return s.planner.Sheets(ctx, jobs, k, func(i int, p plan.Plan) {
			out.Wanted[i] = remember.WantedFor(remember.Make{Card: jobs[i].Card, Plan: p}, k)
		}, append(s.assume(ctx), plan.Tally())...), ctx.Err()
	})
	if err != nil {
		return out, err
	}
	for _, l := range laid {
		out.Needs[l.Stock] = l.Needs
	}
	others[m.of] = out
	doc, err := json.Marshal(others)
	if err != nil {
		return out, fmt.Errorf("keep what to buy: %w", err)
	}
	return out, s.store.KeepList(ctx, shopList, doc)
}
