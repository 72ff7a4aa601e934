package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"hash/fnv"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/plan"
	"ochrestone/core/work"
	"ochrestone/store"
)

// Changed is what a change made of a card: the document, and those parts of its plan
// that differ from the plan at the version the change was made on.
type Changed struct {
	ID      string            `json:"id"`
	Version int64             `json:"version" doc:"send it back in If-Match"`
	CanUndo bool              `json:"canUndo"`
	CanRedo bool              `json:"canRedo"`
	Card    card.Card         `json:"card"`
	Notes   []string          `json:"notes" nullable:"false" doc:"what had to be passed over on the way"`
	Images  []string          `json:"images" nullable:"false" doc:"ids of the images of the plan, in order"`
	Motifs  []plan.Motif      `json:"motifs" nullable:"false" doc:"images of the plan that changed; the others are as they were"`
	Front   *plan.Front       `json:"front,omitempty"`
	Depth   *plan.Depth       `json:"depth,omitempty"`
	Pattern []build.Pattern   `json:"patterns,omitempty"`
	Steps   []work.Act        `json:"steps,omitempty"`
	Time    *plan.Worktime    `json:"time,omitempty"`
	Found   []foresee.Finding `json:"findings,omitempty"`
	Failed  string            `json:"failed,omitempty" doc:"why the card could not be worked out"`
	Parts   []string          `json:"parts" nullable:"false" doc:"the lists that changed, as an empty one is left out: patterns, steps, findings"`
}

type changedOut struct {
	ETag string `header:"ETag"`
	Body Changed
}

// digests are the parts of a plan in short, so that it can be told what changed.
type digests map[string]uint64

// mostSent is how many plans are remembered as they were sent.
const mostSent = 200

// madeKey names edits that were made, as the page named them when it sent them.
type madeKey struct{ card, batch string }

// sentKey names a plan as it was sent.
type sentKey struct {
	card    string
	version int64
}

func digestsOf(p plan.Plan) digests {
	out := digests{}
	put := func(name string, v any) {
		h := fnv.New64a()
		if err := json.NewEncoder(h).Encode(v); err == nil {
			out[name] = h.Sum64()
		}
	}
	for _, m := range p.Motifs {
		put("motif "+m.ID, m)
	}
	put("front", p.Front)
	put("depth", p.Depth)
	put("patterns", p.Patterns)
	put("steps", p.Steps)
	put("time", p.Time)
	put("findings", p.Findings)
	return out
}

// changed plans a card after a change of it was kept, and leaves out what was sent with the
// version before.
func (s *Server) changed(ctx context.Context, v store.Saved, before int64) (*changedOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(afterwards(err))
	}
	p := s.plan(ctx, v.ID, v.Card, k)
	if err := ctx.Err(); err != nil {
		return nil, problem(afterwards(err))
	}
	was, _ := s.sent.Get(sentKey{v.ID, before})
	now := digestsOf(p)
	s.sent.Add(sentKey{v.ID, v.Version}, now)
	differs := func(name string) bool { old, had := was[name]; return !had || old != now[name] }
	out := &changedOut{ETag: fmt.Sprintf("%q", strconv.FormatInt(v.Version, 10)),
		Body: Changed{ID: v.ID, Version: v.Version, CanUndo: v.CanUndo, CanRedo: v.CanRedo, Card: v.Card, Notes: []string{}, Images: []string{}, Motifs: []plan.Motif{}, Parts: []string{}}}
	b := &out.Body
	for _, n := range v.Passed {
		b.Notes = append(b.Notes, fmt.Sprintf("Change %d of this card cannot be read any more and was passed over. The others are as they were.", n))
	}
	for _, m := range p.Motifs {
		b.Images = append(b.Images, m.ID)
		if differs("motif " + m.ID) {
			b.Motifs = append(b.Motifs, m)
		}
	}
	if differs("front") {
		b.Front = &p.Front
	}
	if differs("depth") {
		b.Depth = &p.Depth
	}
	if differs("patterns") {
		b.Pattern, b.Parts = p.Patterns, append(b.Parts, "patterns")
	}
	if differs("steps") {
		b.Steps, b.Parts = p.Steps, append(b.Parts, "steps")
	}
	if differs("time") {
		b.Time = &p.Time
	}
	b.Failed = p.Failed
	if differs("findings") {
		b.Found, b.Parts = p.Findings, append(b.Parts, "findings")
	}
	return out, nil
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
