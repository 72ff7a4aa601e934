package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
)

type layIn struct {
	ID   string `path:"id"`
	Body struct {
		Away  bool     `json:"away" doc:"put away"`
		Model bool     `json:"model" doc:"others are begun from it"`
		Tags  []string `json:"tags" nullable:"false" maxItems:"20" doc:"words by which cards are kept together"`
	}
}

// lying lets a person put cards away, keep them together by words, and begin others from them.
func (s *Server) lying() {
	huma.Register(s.api, op("lay-card", http.MethodPut, "/api/cards/{id}/lying", "Put a card away or on the bench, and say by which words it is kept"), func(ctx context.Context, in *layIn) (*struct{}, error) {
		return nil, problem(s.store.Lay(ctx, in.ID, in.Body.Away, in.Body.Model, in.Body.Tags))
	})
}
