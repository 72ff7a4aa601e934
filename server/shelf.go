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

	"ochrestone/core/words"
	"ochrestone/exchange/shelf"
	"ochrestone/exchange/table"
	"ochrestone/store"
)

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
