package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/exchange/inkfile"
	"ochrestone/store"
)

// InkWas is one colour of a card: on which layer, in which ink, and in which it really was.
type InkWas struct {
	Image string `json:"image"`
	Way   string `json:"way" doc:"name of the colourway"`
	Layer string `json:"layer"`
	Zone  string `json:"zone" doc:"where on the layer"`
	Paper string `json:"paper"`
	Ink   string `json:"ink" doc:"as planned; empty: left plain"`
	Used  string `json:"used,omitempty" doc:"as noted at the bench, where it was another"`
	Dry   string `json:"dry" doc:"#rrggbb, dried"`
	Wet   string `json:"wet" doc:"#rrggbb, wet"`
	// Of the ink that was used, where it was another.
	UsedDry string `json:"usedDry,omitempty" doc:"#rrggbb, dried"`
	UsedWet string `json:"usedWet,omitempty" doc:"#rrggbb, wet"`
}

// inkWas answers which ink was on which layer of a card.
func (s *Server) inkWas() {
	huma.Register(s.api, op("inks-of-card", http.MethodGet, "/api/cards/{id}/inks", "Which ink is, and really was, on which layer"), func(ctx context.Context, in *cardIn) (*struct{ Body []InkWas }, error) {
		v, k, err := s.cardAndKit(ctx, in.ID)
		if err != nil {
			return nil, problem(err)
		}
		r, err := s.store.Run(ctx, in.ID)
		if err != nil {
			return nil, problem(err)
		}
		return &struct{ Body []InkWas }{inksWere(v.Card, k, s.planner.Of(v.Card, k, s.assume(ctx)...), r)}, nil
	})
}

// inksWere are the inks of a card, and those that a run took instead.
func inksWere(c card.Card, k kit.Kit, p plan.Plan, r store.Run) []InkWas {
	out := []InkWas{}
	for _, c := range inkfile.Recipes(c, k, p, usedIn(r)) {
		out = append(out, InkWas{c.Image, c.Colourway, c.Layer, c.Zone, c.Paper, c.Ink, c.Used, c.Dry, c.Wet, c.UsedDry, c.UsedWet})
	}
	return out
}
