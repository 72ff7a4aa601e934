package server

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/advise"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/ramp"
	"ochrestone/core/standing"
	"ochrestone/core/work"
	"ochrestone/server/delta"
	"ochrestone/store"
)

// View is a card as the page sees it: the document and its plan.
type View struct {
	ID      string    `json:"id"`
	Version int64     `json:"version" doc:"send it back in If-Match"`
	CanUndo bool      `json:"canUndo"`
	CanRedo bool      `json:"canRedo"`
	Card    card.Card `json:"card"`
	Plan    plan.Plan `json:"plan"`
	Run     store.Run `json:"run"`
}

// Tile is a card on the bench.
type Tile struct {
	ID      string  `json:"id"`
	Title   string  `json:"title"`
	Version int64   `json:"version"`
	W       float64 `json:"w" doc:"mm"`
	H       float64 `json:"h" doc:"mm"`
	Next    string  `json:"next" doc:"the next step to do"`
	Done    int     `json:"done"`
	Steps   int     `json:"steps"`
	Notes   int     `json:"notes" doc:"margin notes not set aside"`
	Spoils  int     `json:"spoils" doc:"notes that would spoil the card"`
	Total   float64 `json:"total" doc:"thickness, mm"`
	Strata  int     `json:"strata" doc:"how many a section through its highest place cuts"`
	// How it stands and lies.
	Stands work.Stands `json:"stands" enum:"planned,begun,waiting,finished,put away"`
	Waits  []TileWait  `json:"waits" nullable:"false" doc:"waits under way, the soonest first"`
	Begun  string      `json:"begun,omitempty" doc:"when the run under way began, RFC 3339"`
	Made   int         `json:"made" doc:"how often it was made before"`
	Shown  int64       `json:"shown,omitempty" doc:"the latest photograph of it finished; 0: none"`
	Lying  store.Lying `json:"lying"`
	Says   []string    `json:"says" nullable:"false" doc:"words on it"`
	Of     string      `json:"of,omitempty" doc:"of what its pictures and all this was worked out: they are kept under it"`
	Stale  bool        `json:"stale,omitempty" doc:"it was worked out before the last change, and is being worked out anew"`
	// Problem is set where the card, or what is kept of its runs, could not be read or worked out.
	Problem string `json:"problem,omitempty" doc:"why not all of it can be shown"`
}

// TileWait is a wait under way.
type TileWait struct {
	For   string `json:"for" doc:"title of the step that began it"`
	Until string `json:"until" doc:"RFC 3339"`
}

type viewOut struct {
	ETag string `header:"ETag"`
	Body View
}

type cardIn struct {
	ID string `path:"id"`
}

// ChangeIn names a card and the version a change was made on.
type ChangeIn struct {
	ID      string `path:"id"`
	IfMatch string `header:"If-Match" required:"true" doc:"the version that was read, in quotes"`
}

func (in ChangeIn) version() (int64, error) {
	v, err := strconv.ParseInt(strings.Trim(strings.TrimPrefix(in.IfMatch, "W/"), `"`), 10, 64)
	if err != nil {
		return 0, store.ErrChanged
	}
	return v, nil
}

func (s *Server) view(ctx context.Context, v store.Saved) (*viewOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	p := s.plan(ctx, v.ID, v.Card, k)
	if err := ctx.Err(); err != nil {
		return nil, problem(err) // the page has gone; half a plan helps nobody
	}
	r, err := s.store.Run(ctx, v.ID)
	if err != nil {
		return nil, problem(err)
	}
	now, err := delta.Of(told{v.Card, p})
	if err != nil {
		return nil, problem(err)
	}
	s.sent.Add(sentKey{v.ID, v.Version}, now.Digest())
	return &viewOut{ETag: fmt.Sprintf("%q", strconv.FormatInt(v.Version, 10)),
		Body: View{v.ID, v.Version, v.CanUndo, v.CanRedo, v.Card, p, r}}, nil
}

func newID() string {
	b := make([]byte, 8)
	_, _ = rand.Read(b) // never fails, by its documentation
	return hex.EncodeToString(b)
}

func op(id, method, path, summary string) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary}
}

func (s *Server) cards() {
	huma.Register(s.api, op("list-cards", http.MethodGet, "/api/cards", "All cards on the bench"), s.listCards)
	s.benchList()
	huma.Register(s.api, op("new-card", http.MethodPost, "/api/cards", "A new card"), s.newCard)
	huma.Register(s.api, op("read-card", http.MethodGet, "/api/cards/{id}", "A card with its plan"), func(ctx context.Context, in *cardIn) (*viewOut, error) {
		v, err := s.store.Card(ctx, in.ID)
		if err != nil {
			return nil, problem(err)
		}
		return s.view(ctx, v)
	})
	huma.Register(s.api, op("save-card", http.MethodPut, "/api/cards/{id}", "Save a whole card; a program that makes changes sends edits"), s.saveCard)
	huma.Register(s.api, op("delete-card", http.MethodDelete, "/api/cards/{id}", "Take a card off the bench"), func(ctx context.Context, in *cardIn) (*struct{}, error) {
		return nil, problem(s.store.Delete(ctx, in.ID))
	})
	huma.Register(s.api, op("copy-card", http.MethodPost, "/api/cards/{id}/copy", "Begin a card as another is, but for its name, colours or words"), s.copyCard)
	huma.Register(s.api, op("edit-card", http.MethodPost, "/api/cards/{id}/edits", "Make changes; answered with what they change of the plan"), s.edit)
	huma.Register(s.api, op("undo-card", http.MethodPost, "/api/cards/{id}/undo", "Step back through the changes"), s.step(s.store.Undo))
	huma.Register(s.api, op("redo-card", http.MethodPost, "/api/cards/{id}/redo", "Step forth through the changes"), s.step(s.store.Redo))
	huma.Register(s.api, op("suggest-inks", http.MethodPost, "/api/cards/{id}/inks", "The best colourways from the drawer"), s.suggest)
	huma.Register(s.api, op("set-of-colourways", http.MethodPost, "/api/cards/{id}/colourways", "A set of colourways of one image that all read and differ"), s.setOfColourways)
	huma.Register(s.api, op("lay-many", http.MethodGet, "/api/cards/{id}/layout", "How several of an element are laid: rings, rows, frames, fields"), s.layMany)
	huma.Register(s.api, op("try-mend", http.MethodGet, "/api/cards/{id}/mend", "What the mend of a note would do, without making it"), s.tryMend)
	huma.Register(s.api, op("meetings", http.MethodGet, "/api/cards/{id}/meetings", "What an element lies over and beneath, and which of its parts may cross the other way"), s.meetings)
	huma.Register(s.api, op("seats", http.MethodGet, "/api/cards/{id}/seats", "The seats of a sheet, and how the images of the card fit into them"), s.seats)
	huma.Register(s.api, op("snaps", http.MethodGet, "/api/cards/{id}/snaps", "Where an element may be drawn to while it is moved"), s.snaps)
	huma.Register(s.api, op("spread-colourways", http.MethodGet, "/api/cards/{id}/spread", "Share the colourways of an image out so that neighbours differ"), s.spreadColourways)
	huma.Register(s.api, op("placing", http.MethodGet, "/api/cards/{id}/placing", "How exactly a layer must be placed, where to look and which way to place it"), s.placing)
	huma.Register(s.api, op("turned-ring", http.MethodGet, "/api/ring", "A ring of images turned about a centre"), s.turnedRing)
	after := op("inks-after-picture", http.MethodPost, "/api/cards/{id}/picture", "Colour an image after a reference picture")
	after.MaxBodyBytes = maxUpload
	huma.Register(s.api, after, s.afterPicture)
	huma.Register(s.api, op("standing", http.MethodGet, "/api/cards/{id}/standing", "How everything on the front stands, and what holds it"), s.standing)
	huma.Register(s.api, op("heights", http.MethodGet, "/api/cards/{id}/heights", "The same height by other means, or level with another element"), s.heights)
}

type newCardIn struct {
	Body struct {
		Title  string       `json:"title" minLength:"1" maxLength:"120"`
		Format string       `json:"format" doc:"id of a format"`
		Fold   measure.Fold `json:"fold" enum:"side,top"`
		Set    string       `json:"set,omitempty" doc:"set to begin with"`
	}
}

func (s *Server) newCard(ctx context.Context, in *newCardIn) (*viewOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	for _, f := range measure.Formats() {
		if f.ID != in.Body.Format {
			continue
		}
		c := card.New(strings.TrimSpace(in.Body.Title), f, in.Body.Fold, k.Owned())
		if set, ok := k.Set(in.Body.Set); ok {
			c = c.AddSet(set, k)
		}
		if err := c.Validate(); err != nil {
			return nil, problem(err)
		}
		v, err := s.store.Add(ctx, newID(), c)
		if err != nil {
			return nil, problem(err)
		}
		return s.view(ctx, v)
	}
	return nil, huma.Error422UnprocessableEntity("There is no such card size.", &huma.ErrorDetail{Location: "body.format", Message: "choose one of the sizes offered"})
}

type saveIn struct {
	ChangeIn
	Body card.Card
}

func (s *Server) saveCard(ctx context.Context, in *saveIn) (*viewOut, error) {
	version, err := in.version()
	if err != nil {
		return nil, problem(err)
	}
	if err := in.Body.Validate(); err != nil {
		return nil, problem(err)
	}
	v, err := s.store.Save(ctx, in.ID, version, "", in.Body)
	if err != nil {
		return nil, problem(err)
	}
	return s.view(ctx, v)
}

// cardAndKit reads a card and what the person owns.
func (s *Server) cardAndKit(ctx context.Context, id string) (store.Saved, kit.Kit, error) {
	v, err := s.store.Card(ctx, id)
	if err != nil {
		return v, kit.Kit{}, err
	}
	k, err := s.store.Kit(ctx)
	return v, k, err
}

type suggestIn struct {
	ID   string `path:"id"`
	Body advise.Ask
}

type suggestOut struct {
	Body struct {
		Colourways []advise.Suggestion `json:"colourways" nullable:"false" doc:"best first"`
		Proven     bool                `json:"proven" doc:"false when the search was stopped before it had tried everything"`
		Advice     string              `json:"advice" doc:"what the drawer lacks, when it cannot make every layer read"`
	}
}

func (s *Server) suggest(ctx context.Context, in *suggestIn) (*suggestOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	assume := s.assume(ctx)
	ctx, cancel := context.WithTimeout(ctx, suggestFor)
	defer cancel()
	study, err := s.planner.Advise(v.Card, k, in.Body.Motif, assume...)
	if err != nil {
		return nil, problem(err)
	}
	best, advice, err := study.Suggest(ctx, in.Body)
	late := errors.Is(err, context.DeadlineExceeded) && len(best) > 0
	if errors.Is(err, ramp.ErrNoAnswer) && advice != "" {
		return nil, &huma.ErrorModel{Type: "/problems/no-answer", Title: "The drawer cannot do this", Status: http.StatusUnprocessableEntity, Detail: advice}
	}
	if err != nil && !late {
		return nil, problem(err)
	}
	out := &suggestOut{}
	out.Body.Colourways, out.Body.Proven, out.Body.Advice = best, !late, advice
	return out, nil
}

type standingOut struct{ Body standing.Card }

func (s *Server) standing(ctx context.Context, in *cardIn) (*standingOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	assume := s.assume(ctx)
	return &standingOut{s.planner.Standing(s.planner.Of(v.Card, k, assume...), assume...)}, nil
}

type heightsIn struct {
	ID      string `path:"id"`
	Element string `query:"element" required:"true"`
	Part    string `query:"part" doc:"a layer of the image; empty: the whole"`
	With    string `query:"with" doc:"element it is to be level with; empty: as high as it is"`
}

type heightsOut struct{ Body advise.Raised }

func (s *Server) heights(ctx context.Context, in *heightsIn) (*heightsOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	assume := s.assume(ctx)
	got, err := s.planner.Heights(s.planner.Of(v.Card, k, assume...), in.Element, in.Part, in.With, assume...)
	if err != nil {
		return nil, problem(err)
	}
	return &heightsOut{got}, nil
}

type listOut struct {
	Body []Tile
}

func (s *Server) listCards(ctx context.Context, _ *struct{}) (*listOut, error) {
	tiles, err := s.exact(ctx)
	if err != nil {
		return nil, problem(err)
	}
	return &listOut{tiles}, nil
}
