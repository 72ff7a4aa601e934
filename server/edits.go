package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/server/delta"
	"ochrestone/store"
)

// Changed is what a change made of a card, its document and its plan, told as what to change of
// them as they were at the version the change was made on.
type Changed struct {
	ID      string         `json:"id"`
	Version int64          `json:"version" doc:"send it back in If-Match"`
	CanUndo bool           `json:"canUndo"`
	CanRedo bool           `json:"canRedo"`
	Notes   []string       `json:"notes" nullable:"false" doc:"what had to be passed over on the way"`
	Changes []delta.Change `json:"changes" nullable:"false" doc:"what to change of the card and its plan, one after another"`
}

// told is what is told of a card change by change.
type told struct {
	Card card.Card `json:"card"`
	Plan plan.Plan `json:"plan"`
}

type changedOut struct {
	ETag string `header:"ETag"`
	Body Changed
}

// mostSent is how many plans are remembered as they were sent.
const mostSent = 200

// madeKey names edits that were made, as the page named them when it sent them.
type madeKey struct{ card, batch string }

// sentKey names a plan as it was sent.
type sentKey struct {
	card    string
	version int64
}

// changed plans a card after a change of it was kept, and tells how it differs from what was sent
// with the version before.
func (s *Server) changed(ctx context.Context, v store.Saved, before int64) (*changedOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(afterwards(err))
	}
	p := s.plan(ctx, v.ID, v.Card, k)
	if err := ctx.Err(); err != nil {
		return nil, problem(afterwards(err))
	}
	now, err := delta.Of(told{v.Card, p})
	if err != nil {
		return nil, problem(afterwards(err))
	}
	was, _ := s.sent.Get(sentKey{v.ID, before})
	s.sent.Add(sentKey{v.ID, v.Version}, now.Digest())
	out := Changed{ID: v.ID, Version: v.Version, CanUndo: v.CanUndo, CanRedo: v.CanRedo, Notes: []string{}, Changes: now.Since(was)}
	for _, n := range v.Passed {
		out.Notes = append(out.Notes, fmt.Sprintf("Change %d of this card cannot be read any more and was passed over. The others are as they were.", n))
	}
	return &changedOut{ETag: fmt.Sprintf("%q", strconv.FormatInt(v.Version, 10)), Body: out}, nil
}

type editsIn struct {
	ChangeIn
	Body struct {
		Edits   []card.Edit `json:"edits" nullable:"false" minItems:"1" maxItems:"1000" doc:"made one after another, all or none"`
		Gesture string      `json:"gesture,omitempty" maxLength:"40" doc:"edits of one gesture, such as a key held down, are one step to undo"`
		Batch   string      `json:"batch,omitempty" maxLength:"40" doc:"a name for these edits that is used once: sent again because the answer was lost, they are not made twice"`
	}
}

func (s *Server) edit(ctx context.Context, in *editsIn) (*changedOut, error) {
	version, err := in.version()
	if err != nil {
		return nil, problem(err)
	}
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	name := madeKey{in.ID, in.Body.Batch}
	if v.Version != version {
		if made, ok := s.made.Get(name); ok && in.Body.Batch != "" && made == v.Version {
			return s.changed(ctx, v, version)
		}
		return nil, s.meanwhile(ctx, v, version)
	}
	c, err := v.Card.Apply(k.Owned(), in.Body.Edits...)
	if err != nil {
		return nil, problem(err)
	}
	if v, err = s.store.Save(ctx, in.ID, version, in.Body.Gesture, c); err != nil {
		if now, err2 := s.store.Card(ctx, in.ID); err2 == nil && errors.Is(err, store.ErrChanged) {
			return nil, s.meanwhile(ctx, now, version)
		}
		return nil, problem(err)
	}
	s.made.Add(name, v.Version)
	return s.changed(ctx, v, version)
}

// meanwhile refuses a change made on an old version, and says what changed since.
func (s *Server) meanwhile(ctx context.Context, now store.Saved, version int64) error {
	detail := "This card was changed in another window after this one had read it. Nothing was overwritten: read it again, then make your change."
	if was, err := s.store.At(ctx, now.ID, version); err == nil {
		if what := card.Changes(was, now.Card, build.Name); len(what) > 0 {
			detail = fmt.Sprintf("This card was changed in another window meanwhile: %s. Nothing was overwritten: read it again, then make your change.", strings.Join(what[:min(6, len(what))], ", "))
		}
	}
	return &huma.ErrorModel{Type: "/problems/changed", Title: http.StatusText(http.StatusPreconditionFailed), Status: http.StatusPreconditionFailed, Detail: detail}
}

// step goes one change back or forth.
func (s *Server) step(walk func(context.Context, string, int64) (store.Saved, error)) func(context.Context, *ChangeIn) (*changedOut, error) {
	return func(ctx context.Context, in *ChangeIn) (*changedOut, error) {
		version, err := in.version()
		if err != nil {
			return nil, problem(err)
		}
		v, err := walk(ctx, in.ID, version)
		if err != nil {
			return nil, problem(err)
		}
		return s.changed(ctx, v, version)
	}
}
