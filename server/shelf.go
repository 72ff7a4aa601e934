package server

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/cut"
	"ochrestone/core/plan"
	"ochrestone/core/remember"
	"ochrestone/core/together"
	"ochrestone/core/words"
	"ochrestone/core/work"
	"ochrestone/exchange/shelf"
	"ochrestone/exchange/table"
	"ochrestone/store"
)

// ShopList is what to buy for the cards on the bench.
type ShopList struct {
	Buys  []remember.ToBuy `json:"buys" nullable:"false"`
	Cards []string         `json:"cards" nullable:"false" doc:"titles of the cards it is for: those that are not finished or put away"`
}

// ShelfRead is what came of a table.
type ShelfRead struct {
	Added int      `json:"added"`
	Notes []string `json:"notes" nullable:"false" doc:"what was left out, and why"`
}

type shelfIn struct {
	Kind    string `path:"kind" enum:"papers,spacers,adhesives,envelopes,machines"`
	RawBody []byte `contentType:"text/plain"`
}

// shelves lets the shelves out and in as tables, and says what is to be bought.
func (s *Server) shelves(r *gin.Engine) {
	r.GET("/api/shelf/:file", func(c *gin.Context) {
		kind, csv := strings.CutSuffix(c.Param("file"), ".csv")
		t, ok := shelf.Of(kind)
		if !ok || !csv {
			refuse(c, store.ErrNotFound)
			return
		}
		k, err := s.store.Kit(c.Request.Context())
		var b bytes.Buffer
		if err == nil {
			err = t.Write(&b, k)
		}
		if err != nil {
			refuse(c, err)
			return
		}
		attach(c, kind, ".csv")
		c.Data(http.StatusOK, "text/csv; charset=utf-8", b.Bytes())
	})
	huma.Register(s.api, op("import-shelf", http.MethodPost, "/api/shelf/{kind}", "Take things into the stores from a table"), s.importShelf)
	huma.Register(s.api, op("shopping", http.MethodGet, "/api/shopping", "What to buy for the cards on the bench"), s.shopping)
}

func (s *Server) importShelf(ctx context.Context, in *shelfIn) (*struct{ Body ShelfRead }, error) {
	t, ok := shelf.Of(in.Kind)
	if !ok {
		return nil, problem(store.ErrNotFound)
	}
	_, set := s.writing(ctx)
	type read struct {
		items []shelf.Item
		notes []string
	}
	got, err := heavy(ctx, &s.jobs, nil, func() (read, error) {
		items, notes, err := t.Read(in.RawBody, set.Unit)
		return read{items, notes}, err
	})
	items, notes := got.items, got.notes
	if p := (*table.Problem)(nil); errors.As(err, &p) {
		return nil, &huma.ErrorModel{Type: "/problems/table", Title: "The table cannot be read", Status: http.StatusUnprocessableEntity, Detail: words.Capital(p.Error())}
	} else if err != nil {
		return nil, problem(err)
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	has := t.In(k)
	var fresh []store.Item
	for _, i := range items {
		if slices.ContainsFunc(has, func(n string) bool { return strings.EqualFold(n, i.Name) }) {
			notes = append(notes, fmt.Sprintf("%s is there already and was left as it is", i.Name))
			continue
		}
		has = append(has, i.Name)
		id := newID()
		fresh = append(fresh, store.Item{Kind: in.Kind, ID: id, Value: i.As(id)})
	}
	if err := s.store.PutAll(ctx, fresh...); err != nil {
		return nil, problem(err)
	}
	return &struct{ Body ShelfRead }{ShelfRead{len(fresh), append([]string{}, notes...)}}, nil
}

func (s *Server) shopping(ctx context.Context, _ *struct{}) (*struct{ Body ShopList }, error) {
	tiles, err := s.listCards(ctx, nil)
	if err != nil {
		return nil, err
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	out := ShopList{Cards: []string{}}
	var makes []remember.Make
	var jobs []plan.Job
	for _, t := range tiles.Body {
		if t.Stands == work.Finished || t.Stands == work.PutAway {
			continue
		}
		v, err := s.store.Card(ctx, t.ID)
		if err != nil {
			return nil, problem(err)
		}
		out.Cards = append(out.Cards, v.Card.Title)
		makes, jobs = append(makes, remember.Make{Card: v.Card}), append(jobs, plan.Job{ID: t.ID, Card: v.Card})
	}
	assume := s.assume(ctx)
	together.By(len(makes), func(i int) { makes[i].Plan = s.planner.Of(makes[i].Card, k, assume...) })
	if len(makes) == 0 {
		out.Buys = remember.Shopping(k, nil, cut.Plan{})
		return &struct{ Body ShopList }{out}, nil
	}
	jobs[0].ID = "" // the one the sitting is about
	laid, err := heavy(ctx, &s.jobs, nil, func() (cut.Plan, error) { return s.planner.Cutting(ctx, jobs, k, nil, assume...), ctx.Err() })
	if err != nil {
		return nil, problem(err)
	}
	out.Buys = remember.Shopping(k, makes, laid)
	return &struct{ Body ShopList }{out}, nil
}
