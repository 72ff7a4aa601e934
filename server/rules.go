package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/foresee"
	"ochrestone/say"
)

// LookedFor is a rule with its words.
type LookedFor struct {
	foresee.Rule
	say.Looks
}

// rules lists what the program looks for on a card.
func (s *Server) rules() {
	huma.Register(s.api, op("rules", http.MethodGet, "/api/rules", "What is looked for on every card"), func(ctx context.Context, _ *struct{}) (*struct{ Body []LookedFor }, error) {
		out := []LookedFor{}
		for _, r := range foresee.Under(s.fitting(ctx).Limits) {
			out = append(out, LookedFor{r, say.Rule(r.ID)})
		}
		return &struct{ Body []LookedFor }{out}, nil
	})
}
