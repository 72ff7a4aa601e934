package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/advise"
	"ochrestone/core/ramp"
)

type colourwaysIn struct {
	ID   string `path:"id"`
	N    int    `query:"n" minimum:"2" maximum:"12" default:"5" doc:"how many"`
	Body advise.Ask
}

type colourwaysOut struct {
	Body struct {
		Colourways []advise.Suggestion `json:"colourways" nullable:"false"`
		Least      float64             `json:"least" doc:"mean CIEDE2000, over what shows, between the two that differ least"`
		Say        string              `json:"say" doc:"what came of it, in words"`
	}
}

func (s *Server) setOfColourways(ctx context.Context, in *colourwaysIn) (*colourwaysOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	assume := s.assume(ctx)
	ctx, cancel := context.WithTimeout(ctx, 3*suggestFor)
	defer cancel()
	study, err := s.planner.Advise(v.Card, k, in.Body.Motif, assume...)
	if err != nil {
		return nil, problem(err)
	}
	found, least, err := study.Colourways(ctx, in.Body, in.N)
	if errors.Is(err, ramp.ErrNoAnswer) {
		return nil, &huma.ErrorModel{Type: "/problems/no-answer", Title: "The drawer cannot do this", Status: http.StatusUnprocessableEntity,
			Detail: "No family of inks, and no two of them, makes every layer of this image read. Suggest inks without a family first, to see which lightness is missing."}
	}
	if err != nil {
		return nil, problem(err)
	}
	out := &colourwaysOut{}
	out.Body.Colourways, out.Body.Least = found, least
	out.Body.Say = fmt.Sprintf("%d colourways; the two most alike are %.0f apart over the whole image.", len(found), least)
	if len(found) < in.N {
		out.Body.Say = fmt.Sprintf("The drawer has %d that read; %d were asked for. The two most alike are %.0f apart over the whole image.", len(found), in.N, least)
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

func (s *Server) spreadColourways(ctx context.Context, in *spreadIn) (*spreadOut, error) {
	v, err := s.store.Card(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	out := &spreadOut{}
	out.Body.Elements, out.Body.Clashes = advise.Spread(v.Card, in.Motif)
	return out, nil
}
