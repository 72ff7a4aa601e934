package server

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/cut"
	"ochrestone/core/kit"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
)

// cutFor is how long sheets are laid out at most; the best found by then is told. A layout is
// made in so many tries, not in so long a time, so that it is the same wherever it is counted:
// only a sitting of hundreds of pieces comes near this.
const cutFor = 4 * time.Second

// mostCuts is how many layouts are remembered.
const mostCuts = 40

func (s *Server) cutting(r *gin.Engine) {
	huma.Register(s.api, op("cutting", http.MethodGet, "/api/cards/{id}/cutting", "What to cut from which sheet, for as many cards as are made in one sitting"), s.cuttingOf)
	huma.Register(s.api, op("cutDown", http.MethodPost, "/api/cards/{id}/cutting/taken", "The sheets were cut: takes them out of the stores and puts the offcuts there"), s.taken)
	r.GET("/api/cards/:id/waits.ics", s.waits)
	r.GET("/api/cards/:id/cutting.pdf", s.pdf("cut-list", func(c *gin.Context, w io.Writer, opts []sheet.Option) error {
		v, p, err := s.cut(c.Request.Context(), c.Param("id"))
		if err != nil {
			return err
		}
		return sheet.WriteCutting(w, v.Card.Title, p, opts...)
	}))
	r.GET("/api/cards/:id/cutting.csv", func(c *gin.Context) {
		var b bytes.Buffer
		_, p, err := s.cut(c.Request.Context(), c.Param("id"))
		if err == nil {
			err = sheet.WriteCutList(&b, p)
		}
		if err != nil {
			refuse(c, err)
			return
		}
		c.Header("Content-Disposition", `attachment; filename="cut-list.csv"`)
		c.Data(http.StatusOK, "text/csv; charset=utf-8", b.Bytes())
	})
	r.GET("/api/cards/:id/cutting/:stock/:sheet", func(c *gin.Context) {
		var b bytes.Buffer
		_, p, err := s.cut(c.Request.Context(), c.Param("id"))
		if err == nil {
			err = writeSheet(&b, p, c.Param("stock"), c.Param("sheet"))
		}
		if err != nil {
			refuse(c, err)
			return
		}
		c.Header("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-%s.svg"`, c.Param("stock"), c.Param("sheet")))
		c.Data(http.StatusOK, "image/svg+xml", b.Bytes())
	})
}

func writeSheet(w io.Writer, p cut.Plan, stock, number string) error {
	n, err := strconv.Atoi(number)
	for _, st := range p.Stocks {
		if st.Stock == stock && err == nil && n >= 1 && n <= len(st.Sheets) {
			return sheet.WriteCuttingSheet(w, st, st.Sheets[n-1])
		}
	}
	return fmt.Errorf("sheet %s of %q: %w", number, stock, store.ErrNotFound)
}

// cut lays out the sheets of a card and of what is made with it, or remembers how it did for
// the same cards and papers. What was cut for the run under way stays as it was laid out.
func (s *Server) cut(ctx context.Context, id string) (store.Saved, cut.Plan, error) {
	v, k, err := s.cardAndKit(ctx, id)
	if err != nil {
		return v, cut.Plan{}, err
	}
	now, err := s.store.Making(ctx, id, 0)
	if err != nil {
		return v, cut.Plan{}, err
	}
	run, err := s.store.Run(ctx, id)
	if err != nil {
		return v, cut.Plan{}, err
	}
	gone, err := s.store.TakenIn(ctx, run.ID)
	if err != nil {
		return v, cut.Plan{}, err
	}
	assume := s.assume(ctx)
	jobs := jobsOf(now)
	unit, _ := s.writing(ctx)
	turn, err := s.store.Turn(ctx)
	if err != nil {
		return v, cut.Plan{}, err
	}
	doc, err := json.Marshal([]any{jobs, turn, unit.Length(1)})
	if err != nil {
		return v, cut.Plan{}, fmt.Errorf("lay out sheets: %w", err)
	}
	key := sha256.Sum256(doc)
	p, ok := s.cuts.Get(key)
	if !ok {
		leave, err := s.jobs.enter(ctx, nil)
		if err != nil {
			return v, cut.Plan{}, err
		}
		defer leave()
		within, stop := context.WithTimeout(ctx, cutFor)
		defer stop()
		p = s.planner.Cutting(within, jobs, k, nil, assume...)
		if err := ctx.Err(); err != nil {
			return v, cut.Plan{}, err
		}
		s.cuts.Add(key, p)
	}
	p.Stocks = slices.Clone(p.Stocks)
	for i, st := range p.Stocks {
		for _, t := range gone {
			var was cut.Stock
			if t.Stock == st.Stock && json.Unmarshal(t.Doc, &was) == nil {
				was.Taken = t.At
				p.Stocks[i] = was
			}
		}
	}
	return v, p, nil
}

type cuttingOut struct{ Body cut.Plan }

func (s *Server) cuttingOf(ctx context.Context, in *cardIn) (*cuttingOut, error) {
	_, p, err := s.cut(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	return &cuttingOut{p}, nil
}

type takenIn struct {
	ID   string `path:"id"`
	Body struct {
		Stock string `json:"stock" doc:"cardstock whose sheets were cut"`
	}
}

type takenOut struct{ Body kit.Cardstock }

// taken takes the sheets of a layout out of the stores, used offcuts too, and puts what is
// left of them there.
func (s *Server) taken(ctx context.Context, in *takenIn) (*takenOut, error) {
	_, p, err := s.cut(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	paper, ok := k.Paper(in.Body.Stock)
	if !ok {
		return nil, problem(fmt.Errorf("cardstock %q: %w", in.Body.Stock, store.ErrNotFound))
	}
	for _, st := range p.Stocks {
		if st.Stock != paper.ID {
			continue
		}
		if st.Taken == "" {
			paper = cut.Taken(paper, st)
		}
		if err := s.store.TakeOut(ctx, in.ID, paper.ID, paper, st); err != nil {
			return nil, problem(err)
		}
	}
	return &takenOut{paper}, nil
}
