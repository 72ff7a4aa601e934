package server

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/words"
	"ochrestone/exchange/bundle"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
	"ochrestone/vision/picture"
)

// LookedAt is what a bundle holds, before anything is changed.
type LookedAt struct {
	Title string            `json:"title"`
	Items []bundle.Compared `json:"items" nullable:"false"`
}

type bundleIn struct {
	RawBody []byte `contentType:"application/octet-stream"`
}

type carriedIn struct {
	Choices string `query:"choices" maxLength:"100000" doc:"what is done with each thing that differs, by kind and id: a JSON object such as {\"inks plum\": \"both\"}; mine where nothing is said"`
	RawBody []byte `contentType:"application/octet-stream"`
}

// TakenIn is the card a bundle became.
type TakenIn struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	Added int    `json:"added" doc:"things that came into the stores"`
}

func (s *Server) bundles() {
	look := op("look-into-bundle", http.MethodPost, "/api/bundles/look", "What a card from elsewhere brings")
	look.MaxBodyBytes = bundle.MaxBytes
	huma.Register(s.api, look, func(ctx context.Context, in *bundleIn) (*struct{ Body LookedAt }, error) {
		got, err := heavy(ctx, &s.jobs, nil, func() (LookedAt, error) {
			b, k, err := s.bundleOf(ctx, in.RawBody)
			if err != nil {
				return LookedAt{}, err
			}
			all, err := bundle.Compare(b, k)
			return LookedAt{b.Card.Title, all}, err
		})
		return &struct{ Body LookedAt }{got}, problem(err)
	})
	take := op("take-bundle", http.MethodPost, "/api/bundles", "Take a card from elsewhere onto the bench")
	take.MaxBodyBytes = bundle.MaxBytes
	huma.Register(s.api, take, s.takeBundle)
}

func (s *Server) bundleOf(ctx context.Context, data []byte) (bundle.Bundle, kit.Kit, error) {
	b, err := bundle.Read(data)
	if err != nil {
		return b, kit.Kit{}, &picture.Problem{What: words.Capital(err.Error()) + ".", Mend: "Nothing was changed."}
	}
	k, err := s.store.Kit(ctx)
	return b, k, err
}

func (s *Server) takeBundle(ctx context.Context, in *carriedIn) (*struct{ Body TakenIn }, error) {
	got, err := heavy(ctx, &s.jobs, nil, func() (TakenIn, error) { return s.carryIn(ctx, in) })
	return &struct{ Body TakenIn }{got}, problem(err)
}

// carryIn takes a card from elsewhere in, with all it brings or, when anything fails, not at all.
func (s *Server) carryIn(ctx context.Context, in *carriedIn) (out TakenIn, err error) {
	b, k, err := s.bundleOf(ctx, in.RawBody)
	if err != nil {
		return out, err
	}
	choices := map[string]bundle.Choice{}
	if in.Choices != "" {
		if err := json.Unmarshal([]byte(in.Choices), &choices); err != nil {
			return out, kit.Problem{Path: "choices", What: "they are a JSON object of mine, theirs and both"}
		}
	}
	c, put, err := bundle.Take(b, k, choices, newID)
	if err != nil {
		return out, err
	}
	if err := c.Validate(); err != nil {
		return out, err
	}
	var items []store.Item
	for _, it := range put {
		if err := usable(it); err != nil {
			return out, fmt.Errorf("take %.60q in: %w", it.Name, err)
		}
		items = append(items, store.Item{Kind: it.Kind, ID: it.ID, Value: it.Doc})
	}
	v, err := s.store.AddWith(ctx, newID(), c, items...)
	if err != nil {
		return out, err
	}
	return TakenIn{v.ID, c.Title, len(items)}, nil
}

// usable checks a thing as the stores do when it is put in by hand.
func usable(it bundle.Item) error {
	switch it.Kind {
	case store.KindSet:
		return valid[kit.Set](it.Doc)
	case store.KindInk:
		return valid[kit.Ink](it.Doc)
	case store.KindPaper:
		return valid[kit.Cardstock](it.Doc)
	case store.KindSpacer:
		return valid[kit.Spacer](it.Doc)
	case store.KindAdhesive:
		return valid[kit.Adhesive](it.Doc)
	case store.KindEnvelope:
		return valid[kit.Envelope](it.Doc)
	case store.KindGem:
		return valid[kit.Gem](it.Doc)
	case store.KindSwatch:
		return valid[kit.Swatch](it.Doc)
	}
	return kit.Problem{Path: "kind", What: fmt.Sprintf("%q is no kind of thing in the stores", it.Kind)}
}

func valid[T validator](doc []byte) error {
	var v T
	if err := json.Unmarshal(doc, &v); err != nil {
		return err
	}
	return v.Validate()
}

// writeBundle writes a card with all it is made of.
func (s *Server) writeBundle(_ context.Context, w io.Writer, v store.Saved, k kit.Kit, p plan.Plan) error {
	b, err := bundle.Of(v.Card, k)
	if err != nil {
		return err
	}
	var front bytes.Buffer
	if err := sheet.FrontSVG(&front, v.Card, k, p); err != nil {
		return err
	}
	return bundle.Write(w, b, front.Bytes(), s.now())
}
