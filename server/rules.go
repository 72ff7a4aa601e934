package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/foresee"
)

// rules lists what the program looks for on a card.
func (s *Server) rules() {
	huma.Register(s.api, op("rules", http.MethodGet, "/api/rules", "What is looked for on every card"), func(ctx context.Context, _ *struct{}) (*struct{ Body []foresee.Rule }, error) {
		return &struct{ Body []foresee.Rule }{foresee.Under(s.fitting(ctx).Limits)}, nil
	})
}
