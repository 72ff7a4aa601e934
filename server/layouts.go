package server

import (
	"context"

	"ochrestone/core/advise"
	"ochrestone/core/kit"
)

type layoutIn struct {
	ID        string  `path:"id"`
	Element   string  `query:"element" required:"true"`
	Kind      string  `query:"kind" enum:"ring,row,grid" required:"true"`
	N         int     `query:"n" minimum:"0" maximum:"60" doc:"of a ring or a row, columns of a grid; 0: as many as close the ring"`
	Rows      int     `query:"rows" minimum:"0" maximum:"30"`
	Radius    float64 `query:"radius" minimum:"0" maximum:"300" doc:"mm"`
	Gap       float64 `query:"gap" minimum:"-100" maximum:"100" doc:"between neighbours, mm; negative: an overlap"`
	Alternate bool    `query:"alternate" doc:"take turns in the colourways"`
}

type layoutOut struct{ Body advise.Laid }

// layMany proposes how several of an element are laid.
func (s *Server) layMany(ctx context.Context, in *layoutIn) (*layoutOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	w, _ := s.writing(ctx)
	p := s.planner.Of(v.Card, k, s.assume(ctx)...)
	got, err := advise.LayMany(&p.Build, in.Element, advise.Many{Kind: in.Kind, N: in.N, Rows: in.Rows, Radius: in.Radius, Gap: in.Gap, Alternate: in.Alternate}, w)
	if err != nil {
		return nil, problem(kit.Problem{Path: in.Kind, What: err.Error()})
	}
	return &layoutOut{got}, nil
}
