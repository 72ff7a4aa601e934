package server

import (
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
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

// shop remembers that a list is being worked out.
type shop struct {
	mu      sync.Mutex
	running bool
}

// keptShop is what cards to be made take, as it is kept, with the digest of what it was worked
// out from. What is there of it the list asks the stores.
type keptShop struct {
	Of     string
	Wanted []remember.Wanted
	Needs  map[string]int // sheets by cardstock
}

// list is what to buy of it.
func (k keptShop) list(stores kit.Kit) ShopList {
	out := ShopList{Cards: []string{}}
	for _, w := range k.Wanted {
		out.Cards = append(out.Cards, w.Title)
	}
	var laid []cut.Stock
	for id, n := range k.Needs {
		laid = append(laid, cut.Stock{Stock: id, Needs: n})
	}
	out.Buys = remember.Shopping(stores, k.Wanted, laid)
	return out
}

// shopping answers with what to buy for all cards that are to be made. What is kept is
// answered at once; where it is stale and for many cards it says so, and is worked out anew.
func (s *Server) shopping(ctx context.Context, _ *struct{}) (*struct{ Body ShopList }, error) {
	g, rows, briefs, stale, err := s.listed(ctx)
	if err != nil {
		return nil, problem(err)
	}
	if len(rows) <= fewMakes { // how a few stand is known at once
		if _, briefs, err = s.exact(ctx); err != nil {
			return nil, problem(err)
		}
		if g, rows, briefs, _, err = s.listed(ctx); err != nil {
			return nil, problem(err)
		}
	} else {
		for _, at := range stale {
			s.want(rows[at].ID)
		}
	}
	var ids []string
	var makes []store.Row
	var of []brief
	for i, r := range rows {
		if t := briefs[i].tile(r, false, s.now()); briefs[i].W > 0 && t.Stands != work.Finished && t.Stands != work.PutAway {
			ids, makes, of = append(ids, r.ID), append(makes, r), append(of, briefs[i])
		}
	}
	key, err := g.shopFor(s.version, makes, of)
	if err != nil {
		return nil, problem(err)
	}
	var had keptShop
	if raw, err := s.store.List(ctx, shopList); err == nil && json.Unmarshal(raw, &had) == nil && had.Of == key {
		return &struct{ Body ShopList }{had.list(g.kit)}, nil
	}
	if len(ids) <= fewMakes {
		now, err := s.shop(ctx, g, ids, key)
		if err != nil {
			return nil, problem(err)
		}
		return &struct{ Body ShopList }{now.list(g.kit)}, nil
	}
	s.shops.mu.Lock()
	defer s.shops.mu.Unlock()
	if !s.shops.running {
		s.shops.running = true
		go func() {
			if _, err := s.shop(context.Background(), g, ids, key); err != nil {
				slog.Debug("what to buy is not worked out", "error", err)
			}
			s.shops.mu.Lock()
			s.shops.running = false
			s.shops.mu.Unlock()
		}()
	}
	out := had.list(g.kit)
	out.Stale = true
	return &struct{ Body ShopList }{out}, nil
}

// shopList is what it is kept under.
const shopList = "shopping"

// shopFor is the digest of everything that what some cards take is worked out from.
func (g goesBy) shopFor(version string, rows []store.Row, briefs []brief) (string, error) {
	doc := []any{version}
	for i, r := range rows {
		doc = append(doc, g.of(version, r, briefs[i]))
	}
	of, err := digest(doc...)
	return fmt.Sprintf("%x", of), err
}

// shop works out what some cards take, and keeps it.
func (s *Server) shop(ctx context.Context, g goesBy, ids []string, of string) (keptShop, error) {
	out := keptShop{Of: of, Needs: map[string]int{}}
	var jobs []plan.Job
	for _, id := range ids {
		v, err := s.store.Card(ctx, id)
		if err != nil {
			return out, err
		}
		jobs = append(jobs, plan.Job{ID: id, Card: v.Card})
	}
	if len(jobs) > 0 {
		out.Wanted = make([]remember.Wanted, len(jobs))
		jobs[0].ID = "" // the one the sitting is about
		laid, err := heavy(ctx, &s.jobs, nil, func() ([]cut.Stock, error) {
			return s.planner.Sheets(ctx, jobs, g.kit, func(i int, p plan.Plan) {
				out.Wanted[i] = remember.WantedFor(remember.Make{Card: jobs[i].Card, Plan: p}, g.kit)
			}, s.assume(ctx)...), ctx.Err()
		})
		if err != nil {
			return out, err
		}
		for _, l := range laid {
			out.Needs[l.Stock] = l.Needs
		}
	}
	doc, err := json.Marshal(out)
	if err != nil {
		return out, fmt.Errorf("keep what to buy: %w", err)
	}
	return out, s.store.KeepList(ctx, shopList, doc)
}
