package server

import (
	"bytes"
	"context"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"

	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/exchange/inkfile"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
)

// printDPI is the resolution of the saved picture.
const printDPI = 300

// files registers what is printed or saved.
func (s *Server) files(r *gin.Engine) {
	r.GET("/api/cards/:id/kept/front.svg", s.kept("front"))
	r.GET("/api/cards/:id/kept/strata.svg", s.kept("strata"))
	r.GET("/api/jig.pdf", s.jigPDF)
	out := func(path, mime, ext string, write func(context.Context, io.Writer, store.Saved, kit.Kit, plan.Plan) error) {
		r.GET("/api/cards/:id/"+path, func(c *gin.Context) {
			ctx := c.Request.Context()
			v, err := s.store.Card(ctx, c.Param("id"))
			var k kit.Kit
			if err == nil {
				k, err = s.store.Kit(ctx)
			}
			var b bytes.Buffer
			if err == nil {
				err = write(ctx, &b, v, k, s.planner.Of(v.Card, k, s.assume(ctx)...))
			}
			if err != nil {
				refuse(c, err)
				return
			}
			how := "inline"
			if ext == ".ochre" {
				how = "attachment"
			}
			named(c, how, v.Card.Title, ext)
			c.Data(http.StatusOK, mime, b.Bytes())
		})
	}
	out("sheet.pdf", "application/pdf", ".pdf", func(ctx context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
		f, _ := s.writing(ctx)
		sat, err := s.sitting(ctx, v.ID)
		if err != nil {
			return err
		}
		return sheet.Guide(w, v.Card, k, p, sheet.Page(s.sheetSize(ctx)), sheet.Writing(f), sheet.Done(sat.Run.Done...), sheet.Sitting(sat.Sitting))
	})
	out("handout.pdf", "application/pdf", "-to-make.pdf", func(ctx context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
		f, _ := s.writing(ctx)
		return sheet.Handout(w, v.Card, k, p, sheet.Page(s.sheetSize(ctx)), sheet.Writing(f))
	})
	out("recipe.csv", "text/csv; charset=utf-8", "-inks.csv", func(ctx context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
		r, err := s.store.Run(ctx, v.ID)
		if err != nil {
			return err
		}
		return inkfile.WriteRecipe(w, inkfile.Recipes(v.Card, k, p, usedIn(r)))
	})
	out("recipe.gpl", "text/plain; charset=utf-8", "-inks.gpl", func(_ context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
		return inkfile.WriteGPL(w, v.Card.Title, inkfile.Palette(inkfile.Recipes(v.Card, k, p, nil)))
	})
	out("card.ochre", "application/octet-stream", ".ochre", s.writeBundle)
	out("front.svg", "image/svg+xml", ".svg", func(_ context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
		return sheet.FrontSVG(w, v.Card, k, p)
	})
	out("front.png", "image/png", ".png", func(_ context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
		return sheet.FrontPNG(w, v.Card, k, p, printDPI)
	})
}
