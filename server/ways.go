package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/plan"
	"ochrestone/core/ramp"
)

type waysIn struct {
	ID   string `path:"id"`
	N    int    `query:"n" minimum:"2" maximum:"12" default:"5" doc:"how many"`
	Body plan.Ask
}

type waysOut struct {
	Body struct {
		Ways  []plan.Suggestion `json:"ways" nullable:"false"`
		Least float64           `json:"least" doc:"mean CIEDE2000, over what shows, between the two that differ least"`
		Say   string            `json:"say" doc:"what came of it, in words"`
	}
}

func (s *Server) setOfWays(ctx context.Context, in *waysIn) (*waysOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	assume := s.assume(ctx)
	ctx, cancel := context.WithTimeout(ctx, 3*suggestFor)
	defer cancel()
	ways, least, err := s.maker.Ways(ctx, v.Card, k, in.Body, in.N, assume...)
	if errors.Is(err, ramp.ErrNoAnswer) {
		return nil, &huma.ErrorModel{Type: "/problems/no-answer", Title: "The drawer cannot do this", Status: http.StatusUnprocessableEntity,
			Detail: "No family of inks, and no two of them, makes every layer of this image read. Suggest inks without a family first, to see which lightness is missing."}
	}
	if err != nil {
		return nil, problem(err)
	}
	out := &waysOut{}
	out.Body.Ways, out.Body.Least = ways, least
	out.Body.Say = fmt.Sprintf("%d colourways; the two most alike are %.0f apart over the whole image.", len(ways), least)
	if len(ways) < in.N {
		out.Body.Say = fmt.Sprintf("The drawer has %d that read; %d were asked for. The two most alike are %.0f apart over the whole image.", len(ways), in.N, least)
	}
	return out, nil
}

type spreadIn struct {
	ID    string `path:"id"`
	Motif string `query:"motif" required:"true"`
}

type spreadOut struct {
	Body struct {
		Elements map[string]string `json:"elements" nullable:"false" doc:"colourway id by element id"`
		Clashes  int               `json:"clashes" doc:"neighbours that have to share one"`
	}
}

func (s *Server) spreadWays(ctx context.Context, in *spreadIn) (*spreadOut, error) {
	v, err := s.store.Card(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	out := &spreadOut{}
	out.Body.Elements, out.Body.Clashes = plan.SpreadWays(v.Card, in.Motif)
	return out, nil
}
