package server

import (
	"context"
	"errors"

	"ochrestone/core/advise"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
)

type layoutIn struct {
	ID        string   `path:"id"`
	Element   string   `query:"element" required:"true"`
	Kind      string   `query:"kind" enum:"ring,two rings,row,grid,frame,scatter,field,twin,middle,weight" required:"true"`
	N         int      `query:"n" minimum:"0" maximum:"60" doc:"of a ring or a row, columns of a grid; 0: as many as close the ring"`
	Rows      int      `query:"rows" minimum:"0" maximum:"30"`
	Radius    float64  `query:"radius" minimum:"0" maximum:"300" doc:"mm"`
	Gap       float64  `query:"gap" minimum:"-100" maximum:"100" doc:"between neighbours, mm; negative: an overlap"`
	Inside    float64  `query:"inside" minimum:"-100" maximum:"100" doc:"of a frame: how far its middles lie inside the edge, mm"`
	With      []string `query:"with" maxItems:"12" doc:"of a field: further elements that fill it"`
	Keep      string   `query:"keep" doc:"of a field: an element that will lie over it"`
	Seed      int      `query:"seed" minimum:"0" maximum:"9999"`
	Alternate bool     `query:"alternate" doc:"take turns in the colourways"`
}

type layoutOut struct{ Body advise.Laid }

// layMany proposes how several of an element are laid.
func (s *Server) layMany(ctx context.Context, in *layoutIn) (*layoutOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	w, _ := s.writing(ctx)
	b := s.planner.Build(v.Card, k, s.assume(ctx)...)
	got, err := advise.LayMany(&b, in.Element, advise.Many{Kind: in.Kind, N: in.N, Rows: in.Rows, Radius: in.Radius, Gap: in.Gap, Inside: in.Inside, With: in.With, Keep: in.Keep, Seed: in.Seed, Alternate: in.Alternate}, w)
	if err != nil {
		return nil, problem(kit.Problem{Path: in.Kind, What: err.Error()})
	}
	return &layoutOut{got}, nil
}

type meetingsIn struct {
	ID      string `path:"id"`
	Element string `query:"element" required:"true"`
}

type meetingsOut struct{ Body []advise.Meeting }

// meetings lists what an element lies over and beneath.
func (s *Server) meetings(ctx context.Context, in *meetingsIn) (*meetingsOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	b := s.planner.Build(v.Card, k, s.assume(ctx)...)
	got, err := advise.Meetings(&b, in.Element)
	if err != nil {
		return nil, problem(err)
	}
	return &meetingsOut{got}, nil
}

type seatsOut struct{ Body []advise.SheetSeat }

// seats lists the seats of a sheet and what fits into them.
func (s *Server) seats(ctx context.Context, in *meetingsIn) (*seatsOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	b := s.planner.Build(v.Card, k, s.assume(ctx)...)
	got, err := advise.SeatsOf(&b, in.Element)
	if err != nil {
		return nil, problem(err)
	}
	return &seatsOut{got}, nil
}

type snapsOut struct{ Body advise.Snaps }

// snaps lists where an element may be drawn to while it is moved.
func (s *Server) snaps(ctx context.Context, in *meetingsIn) (*snapsOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	b := s.planner.Build(v.Card, k, s.assume(ctx)...)
	got, err := advise.SnapsOf(&b, in.Element)
	if err != nil {
		return nil, problem(err)
	}
	return &snapsOut{got}, nil
}

type mendIn struct {
	ID      string `path:"id"`
	Finding string `query:"finding" required:"true" maxLength:"400" doc:"id of the note"`
}

type mendOut struct{ Body plan.Tried }

// tryMend says what the mend of a note would do to the card, without making it.
func (s *Server) tryMend(ctx context.Context, in *mendIn) (*mendOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	got, err := s.planner.Try(v.Card, k, in.Finding, s.assume(ctx)...)
	if errors.Is(err, plan.ErrNoMend) {
		// The card was changed meanwhile: the note is gone already.
		return &mendOut{plan.Tried{Gone: true, Costs: []foresee.Finding{}, Also: []string{}}}, nil
	}
	if err != nil {
		return nil, problem(kit.Problem{Path: "finding", What: err.Error()})
	}
	return &mendOut{got}, nil
}
