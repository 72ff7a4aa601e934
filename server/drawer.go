package server

import (
	"bytes"
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/words"
	"ochrestone/exchange/inkfile"
	"ochrestone/store"
)

type inksIn struct {
	As      string `query:"as" enum:"csv,gpl"`
	RawBody []byte `contentType:"text/plain"`
}

// InksRead is what came of a file of inks.
type InksRead struct {
	Added int      `json:"added"`
	Notes []string `json:"notes" nullable:"false" doc:"lines and inks passed over, and why"`
}

type inksOut struct{ Body InksRead }

func (s *Server) drawer(r *gin.Engine) {
	huma.Register(s.api, op("import-inks", http.MethodPost, "/api/inks/import", "Take inks in from a table or a palette"), s.importInks)
	out := func(path, mime, name string, write func(*bytes.Buffer, *gin.Context) error) {
		r.GET(path, func(c *gin.Context) {
			var b bytes.Buffer
			if err := write(&b, c); err != nil {
				refuse(c, err)
				return
			}
			c.Header("Content-Disposition", `attachment; filename="`+name+`"`)
			c.Data(http.StatusOK, mime, b.Bytes())
		})
	}
	out("/api/inks.csv", "text/csv; charset=utf-8", "inks.csv", func(b *bytes.Buffer, c *gin.Context) error {
		k, err := s.store.Kit(c.Request.Context())
		if err != nil {
			return err
		}
		return inkfile.WriteCSV(b, k.Inks)
	})
	out("/api/inks.gpl", "text/plain; charset=utf-8", "inks.gpl", func(b *bytes.Buffer, c *gin.Context) error {
		k, err := s.store.Kit(c.Request.Context())
		if err != nil {
			return err
		}
		return inkfile.WriteGPL(b, "Ink drawer", k.Inks)
	})
}

func (s *Server) importInks(ctx context.Context, in *inksIn) (*inksOut, error) {
	read := inkfile.ReadCSV
	if in.As == "gpl" {
		read = inkfile.ReadGPL
	}
	got, err := read(in.RawBody)
	var p *inkfile.Problem
	if errors.As(err, &p) {
		return nil, &huma.ErrorModel{Type: "/problems/inks", Title: "The inks cannot be read", Status: http.StatusUnprocessableEntity, Detail: words.Capital(p.Error())}
	}
	if err != nil {
		return nil, problem(err)
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	got = inkfile.Fresh(k.Inks, got)
	var items []store.Item
	for _, i := range got.Inks {
		i.ID = newID()
		items = append(items, store.Item{Kind: store.KindInk, ID: i.ID, Value: i})
	}
	if err := s.store.PutAll(ctx, items...); err != nil {
		return nil, problem(err)
	}
	return &inksOut{InksRead{len(got.Inks), append([]string{}, got.Notes...)}}, nil
}
