package server

import (
	"context"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/vision/palette"
	"ochrestone/vision/picture"
)

type pictureIn struct {
	ID        string      `path:"id"`
	Motif     string      `query:"motif" required:"true"`
	Colourway string      `query:"colourway" required:"true"`
	School    card.School `query:"school" enum:"light ground,dark ground,local colour,every piece" required:"true"`
	RawBody   []byte      `contentType:"application/octet-stream"`
}

// MainColour is a main colour of a picture.
type MainColour struct {
	Colour string  `json:"colour" doc:"#rrggbb"`
	L      float64 `json:"l" doc:"lightness, CIE L*"`
	Share  float64 `json:"share" doc:"of the picture, 0 to 1"`
}

type pictureOut struct {
	Body struct {
		Colours   []MainColour      `json:"colours" nullable:"false" doc:"lightest first"`
		Colourway advise.Suggestion `json:"colourway"`
	}
}

// mostMain is how many main colours of a picture are looked for.
const mostMain = 8

func (s *Server) afterPicture(ctx context.Context, in *pictureIn) (*pictureOut, error) {
	return heavy(ctx, &s.jobs, nil, func() (*pictureOut, error) { return s.afterPictureNow(ctx, in) })
}

func (s *Server) afterPictureNow(ctx context.Context, in *pictureIn) (*pictureOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	p, err := picture.Decode(in.RawBody)
	if err != nil {
		return nil, problem(err)
	}
	out := &pictureOut{}
	out.Body.Colours = []MainColour{}
	var refs []advise.Reference
	for _, m := range palette.Of(p, mostMain) {
		refs = append(refs, advise.Reference{Colour: m.Colour, Share: m.Share})
		out.Body.Colours = append(out.Body.Colours, MainColour{m.Colour.Hex(), m.Colour.Lab().L, m.Share})
	}
	study, err := s.planner.Advise(v.Card, k, in.Motif, s.assume(ctx)...)
	if err != nil {
		return nil, problem(err)
	}
	out.Body.Colourway, err = study.AfterPicture(advise.Ask{Motif: in.Motif, Colourway: in.Colourway, School: in.School}, refs)
	if err != nil {
		return nil, problem(err)
	}
	return out, nil
}
