package server

import (
	"context"
	"net/http"
	"path/filepath"

	"github.com/danielgtaylor/huma/v2"
)

// Name is what the program calls itself to others.
const Name = "Ochrestone"

// About is what the program says of itself.
type About struct {
	Name    string `json:"name"`
	Version string `json:"version"`
	Data    string `json:"data" doc:"where the data file lies"`
}

// Version sets what the program says it is; "development" unless told.
func Version(v string) Option { return func(s *Server) { s.version = v } }

func (s *Server) about() {
	huma.Register(s.api, op("about", http.MethodGet, "/api/about", "Which program this is"), func(context.Context, *struct{}) (*struct{ Body About }, error) {
		path := s.store.Path()
		if full, err := filepath.Abs(path); err == nil {
			path = full
		}
		return &struct{ Body About }{About{Name, s.version, path}}, nil
	})
}
