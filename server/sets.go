package server

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/basic"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/words"
	"ochrestone/exchange/setsvg"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
)

// BasicIn asks for a plain die, or for words.
type BasicIn struct {
	Name string `json:"name,omitempty" maxLength:"80"`
	basic.Measures
}

type wordsIn struct {
	Body struct {
		Text   string  `json:"text" minLength:"1" maxLength:"40"`
		Height float64 `json:"height" minimum:"4" maximum:"120" doc:"of a capital, mm"`
		Shadow float64 `json:"shadow,omitempty" minimum:"0" maximum:"6" doc:"width of a larger shadow beneath, mm; 0 for none"`
	}
}

// Uses tells which cards use a set.
type Uses struct {
	Set   string   `json:"set"`
	Cards []string `json:"cards" nullable:"false" doc:"titles"`
}

func (s *Server) sets(r *gin.Engine) {
	huma.Register(s.api, op("draw-basic", http.MethodPost, "/api/sets/basic", "Draw nested basic dies"), func(ctx context.Context, in *struct{ Body BasicIn }) (*setOut, error) {
		parts, err := basic.Parts(in.Body.Measures)
		if err != nil {
			return nil, problem(err)
		}
		name := strings.TrimSpace(in.Body.Name)
		if name == "" {
			name = words.Capital(string(in.Body.Kind))
		}
		return s.putSet(ctx, kit.Set{Name: name, Kind: kit.DieSet, Parts: parts, Tags: []string{"basic"}})
	})
	huma.Register(s.api, op("draw-words", http.MethodPost, "/api/sets/words", "Draw words as a die"), func(ctx context.Context, in *wordsIn) (*setOut, error) {
		set, err := wordSet(in.Body.Text, in.Body.Height, in.Body.Shadow)
		if err != nil {
			return nil, problem(err)
		}
		return s.putSet(ctx, set)
	})
	huma.Register(s.api, op("scale-set", http.MethodPost, "/api/sets/{id}/scale", "Make a set as wide as it truly is"), s.scaleSet)
	huma.Register(s.api, op("set-uses", http.MethodGet, "/api/sets/uses", "Which cards use which set"), s.uses)
	r.GET("/api/sets/:id/set.svg", s.setSVG)
	r.GET("/api/mat.pdf", func(c *gin.Context) {
		page := measure.Letter
		if c.Query("page") == "a4" {
			page = measure.A4
		}
		var b bytes.Buffer
		if err := sheet.Mat(&b, page, c.Query("field") == "dark"); err != nil {
			refuse(c, err)
			return
		}
		c.Header("Content-Disposition", `inline; filename="measuring-mat.pdf"`)
		c.Data(http.StatusOK, "application/pdf", b.Bytes())
	})
}

// refuse answers a plain request with a problem.
func refuse(c *gin.Context, err error) {
	p := problem(err)
	status := http.StatusInternalServerError
	if st, ok := p.(interface{ GetStatus() int }); ok {
		status = st.GetStatus()
	}
	c.JSON(status, p)
}

func (s *Server) putSet(ctx context.Context, set kit.Set) (*setOut, error) {
	set.ID = newID()
	if err := set.Validate(); err != nil {
		return nil, problem(err)
	}
	if err := s.store.Put(ctx, store.KindSet, set.ID, set); err != nil {
		return nil, problem(err)
	}
	return &setOut{set}, nil
}

func wordSet(text string, height, shadow float64) (kit.Set, error) {
	if lack := sheet.Missing(text); len(lack) > 0 {
		return kit.Set{}, kit.Problem{Path: "text", What: fmt.Sprintf("the typeface has no %s; leave them out, or draw the words yourself and import the drawing", strings.Join(lack, ", "))}
	}
	words, islands, err := sheet.Letters(text, height)
	if err != nil || words.Empty() {
		return kit.Set{}, kit.Problem{Path: "text", What: "nothing in these words can be cut; use letters and figures"}
	}
	return kit.Words(text, words, islands, shadow)
}

type scaleIn struct {
	ID   string `path:"id"`
	Body struct {
		Width float64 `json:"width" minimum:"1" maximum:"2000" doc:"true width of the whole set, mm"`
	}
}

// scaleSet scales every part so that the whole is as wide as asked.
func (s *Server) scaleSet(ctx context.Context, in *scaleIn) (*setOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	set, ok := k.Set(in.ID)
	if !ok {
		return nil, problem(store.ErrNotFound)
	}
	if set, err = set.ScaledTo(in.Body.Width); err != nil {
		return nil, problem(err)
	}
	if err := set.Validate(); err != nil {
		return nil, problem(err)
	}
	if err := s.store.Put(ctx, store.KindSet, set.ID, set); err != nil {
		return nil, problem(err)
	}
	return &setOut{set}, nil
}

type usesOut struct{ Body []Uses }

func (s *Server) uses(ctx context.Context, _ *struct{}) (*usesOut, error) {
	_, rows, briefs, stale, err := s.listed(ctx)
	if err != nil {
		return nil, problem(err)
	}
	for _, i := range stale {
		// One that cannot be read uses nothing that could be told.
		if v, err := s.store.Card(ctx, rows[i].ID); err == nil {
			briefs[i].Uses = usedBy(v.Card)
		}
	}
	at := map[string][]string{}
	for i, r := range rows {
		for _, u := range briefs[i].Uses {
			if id, ok := strings.CutPrefix(u, store.KindSet+"/"); ok && !slices.Contains(at[id], r.Title) {
				at[id] = append(at[id], r.Title)
			}
		}
	}
	out := &usesOut{Body: []Uses{}}
	for id, titles := range at {
		out.Body = append(out.Body, Uses{id, titles})
	}
	slices.SortFunc(out.Body, func(a, b Uses) int { return strings.Compare(a.Set, b.Set) })
	return out, nil
}

func (s *Server) setSVG(c *gin.Context) {
	k, err := s.store.Kit(c.Request.Context())
	if err != nil {
		refuse(c, err)
		return
	}
	set, ok := k.Set(c.Param("id"))
	if !ok {
		refuse(c, store.ErrNotFound)
		return
	}
	var opts []setsvg.Option
	if p := c.Query("part"); p != "" {
		opts = append(opts, setsvg.Only(p))
	}
	if c.Query("as") == "cut" {
		opts = append(opts, setsvg.CutLines(), setsvg.Apart())
	}
	var b bytes.Buffer
	if err := setsvg.Write(&b, set, opts...); err != nil {
		refuse(c, store.ErrNotFound)
		return
	}
	attach(c, set.Name, ".svg")
	c.Data(http.StatusOK, "image/svg+xml", b.Bytes())
}
