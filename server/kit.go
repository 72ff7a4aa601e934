package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/words"
	"ochrestone/exchange/svgin"
	"ochrestone/store"
)

// State is what the page needs to begin.
type State struct {
	Kit      kit.Kit              `json:"kit"`
	Away     kit.Kit              `json:"away" doc:"what is no longer in the stores and is kept for cards that use it"`
	Inks     []InkLook            `json:"inks" nullable:"false" doc:"every ink dried, in the order of lightness"`
	Formats  []measure.CardFormat `json:"formats" nullable:"false"`
	Backings []string             `json:"backings" nullable:"false" doc:"ids of the foam and adhesive that come as sheets and can be cut with letters"`
	Settings Settings             `json:"settings"`
	Demo     bool                 `json:"demo"`
}

// InkLook is how an ink of the drawer dries on its paper.
type InkLook struct {
	ID     string        `json:"id"`
	Dry    string        `json:"dry" doc:"#rrggbb"`
	Wet    string        `json:"wet" doc:"#rrggbb"`
	L      float64       `json:"l" doc:"lightness of the dried colour, CIE L*"`
	Source colour.Source `json:"source" enum:"measured,typed,estimated"`
}

type stateOut struct{ Body State }

func (s *Server) kit() {
	huma.Register(s.api, op("state", http.MethodGet, "/api/state", "The stores and the settings"), s.state)
	huma.Register(s.api, op("set-settings", http.MethodPut, "/api/settings", "Unit and rounding"), func(ctx context.Context, in *struct{ Body Settings }) (*struct{ Body Settings }, error) {
		if err := s.store.Set(ctx, "unit", string(in.Body.Unit)); err != nil {
			return nil, problem(err)
		}
		if err := s.store.Set(ctx, "den", fmt.Sprint(in.Body.Den)); err != nil {
			return nil, problem(err)
		}
		if err := s.store.Set(ctx, "room", fmt.Sprint(in.Body.Room)); err != nil {
			return nil, problem(err)
		}
		return &struct{ Body Settings }{s.settings(ctx)}, nil
	})
	huma.Register(s.api, op("read-length", http.MethodGet, "/api/length", "Read a length as people write it"), s.length)
	keep(s, store.KindInk, func(v kit.Ink) string { return v.ID })
	keep(s, store.KindPaper, func(v kit.Cardstock) string { return v.ID })
	keep(s, store.KindSpacer, func(v kit.Spacer) string { return v.ID })
	keep(s, store.KindAdhesive, func(v kit.Adhesive) string { return v.ID })
	keep(s, store.KindEnvelope, func(v kit.Envelope) string { return v.ID })
	keep(s, store.KindGem, func(v kit.Gem) string { return v.ID })
	keep(s, store.KindMachine, func(v kit.Machine) string { return v.ID })
	keep(s, store.KindSet, func(v kit.Set) string { return v.ID })
	huma.Register(s.api, op("starter-shelf", http.MethodPost, "/api/starter", "Put usual cardstock, foam, adhesives and envelopes into the stores"), func(ctx context.Context, _ *struct{}) (*struct{}, error) {
		k := kit.Starter()
		var items []store.Item
		for _, v := range k.Papers {
			items = append(items, store.Item{Kind: store.KindPaper, ID: v.ID, Value: v})
		}
		for _, v := range k.Spacers {
			items = append(items, store.Item{Kind: store.KindSpacer, ID: v.ID, Value: v})
		}
		for _, v := range k.Adhesives {
			items = append(items, store.Item{Kind: store.KindAdhesive, ID: v.ID, Value: v})
		}
		for _, v := range k.Envelopes {
			items = append(items, store.Item{Kind: store.KindEnvelope, ID: v.ID, Value: v})
		}
		have, err := s.store.Kit(ctx)
		if err != nil {
			return nil, problem(err)
		}
		// What is there of it, measured by now, stays.
		items = slices.DeleteFunc(items, func(it store.Item) bool {
			_, paper := have.Paper(it.ID)
			_, spacer := have.Spacer(it.ID)
			_, glue := have.Adhesive(it.ID)
			_, envelope := have.Envelope(it.ID)
			return paper || spacer || glue || envelope
		})
		return nil, problem(s.store.PutAll(ctx, items...))
	})
	huma.Register(s.api, op("import-set", http.MethodPost, "/api/import/set", "Read a drawn set (SVG) into the stores"), s.importSet)
}

type lengthIn struct {
	Text string `query:"text" required:"true" maxLength:"60" doc:"a length as people write it"`
}

type lengthOut struct {
	Body struct {
		MM    float64 `json:"mm"`
		Shown string  `json:"shown"`
	}
}

// length reads a length a person typed, in the unit they have chosen.
func (s *Server) length(ctx context.Context, in *lengthIn) (*lengthOut, error) {
	show, set := s.writing(ctx)
	mm, err := measure.ParseSigned(in.Text, set.Unit)
	if err != nil {
		return nil, &huma.ErrorModel{Type: "/problems/length", Title: "Not a length", Status: http.StatusUnprocessableEntity, Detail: words.Capital(err.Error()) + "."}
	}
	out := &lengthOut{}
	out.Body.MM, out.Body.Shown = mm, show.Length(mm)
	return out, nil
}

// Took is an item that was taken out of the stores: it is put back as it was by storing it again.
type Took[T any] struct {
	Item  T        `json:"item" doc:"as it was"`
	Kept  bool     `json:"kept" doc:"cards use it, so it is kept for them as no longer in the stores"`
	Cards []string `json:"cards" nullable:"false" doc:"titles of the cards that use it"`
}

// Used tells which cards use an item.
type Used struct {
	Cards []string `json:"cards" nullable:"false" doc:"titles"`
}

// usesOf are the titles of the cards that use an item, also by an ink that was swatched on it.
func (s *Server) usesOf(ctx context.Context, kind kit.Kind, id string) ([]string, error) {
	all, err := s.store.Cards(ctx)
	if err != nil {
		return nil, err
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, err
	}
	through := map[string]bool{}
	for _, i := range k.Inks {
		if kind == kit.KindPaper && i.Paper == id {
			through[i.ID] = true
		}
	}
	out := []string{}
	for _, v := range all {
		if slices.ContainsFunc(v.Card.Uses(), func(u card.Use) bool {
			return u.Kind == kind && u.ID == id || u.Kind == kit.KindInk && through[u.ID]
		}) {
			out = append(out, v.Card.Title)
		}
	}
	return out, nil
}

// validator is a kit item that can check itself.
type validator interface{ Validate() error }

// keep registers storing and removing of one kind of item.
func keep[T validator](s *Server, kind string, id func(T) string) {
	one := strings.TrimSuffix(kind, "s")
	huma.Register(s.api, op("put-"+one, http.MethodPut, "/api/kit/"+kind+"/{id}", "Store a new or changed item"), func(ctx context.Context, in *struct {
		ID   string `path:"id" maxLength:"80"`
		Body T
	}) (*struct{ Body T }, error) {
		if id(in.Body) != in.ID {
			return nil, problem(kit.Problem{Path: "id", What: "the item's id and its address differ"})
		}
		if err := in.Body.Validate(); err != nil {
			return nil, problem(err)
		}
		if err := s.store.Put(ctx, kind, in.ID, in.Body); err != nil {
			return nil, problem(err)
		}
		return &struct{ Body T }{in.Body}, nil
	})
	huma.Register(s.api, op("take-"+one, http.MethodDelete, "/api/kit/"+kind+"/{id}", "Take an item out of the stores; what cards use is kept for them, as no longer there"), func(ctx context.Context, in *cardIn) (*struct{ Body Took[T] }, error) {
		out := &struct{ Body Took[T] }{}
		doc, err := s.store.Doc(ctx, kind, in.ID)
		if err != nil {
			return nil, problem(err)
		}
		out.Body.Cards, err = s.usesOf(ctx, kit.Kind(kind), in.ID)
		if err != nil {
			return nil, problem(err)
		}
		readable := json.Unmarshal(doc, &out.Body.Item) == nil
		if out.Body.Kept = len(out.Body.Cards) > 0 && readable; out.Body.Kept {
			return out, problem(s.store.PutAway(ctx, kind, in.ID))
		}
		return out, problem(s.store.Take(ctx, kind, in.ID))
	})
	huma.Register(s.api, op("uses-of-"+one, http.MethodGet, "/api/kit/"+kind+"/{id}/uses", "Which cards use an item"), func(ctx context.Context, in *cardIn) (*struct{ Body Used }, error) {
		cards, err := s.usesOf(ctx, kit.Kind(kind), in.ID)
		return &struct{ Body Used }{Used{cards}}, problem(err)
	})
}

func (s *Server) state(ctx context.Context, _ *struct{}) (*stateOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	out := &stateOut{State{Kit: k.Owned(), Away: k.NoLonger(), Inks: []InkLook{}, Formats: measure.Formats(), Backings: k.Owned().Backings(), Settings: s.settings(ctx), Demo: s.demo}}
	if ctx.Value(guestKey{}) != nil {
		out.Body.Kit, out.Body.Away = shownKit(out.Body.Kit), shownKit(out.Body.Away)
	}
	for _, i := range k.Inks {
		hex := kit.PlainWhite
		if p, ok := k.Paper(i.Paper); ok {
			hex = p.Colour
		}
		paper, err := colour.ParseHex(hex)
		if err != nil {
			continue
		}
		film, src, err := i.Film(paper)
		if err != nil {
			continue
		}
		dry := film.Over(paper, 1)
		wet := kit.BehaviourOf(i.Kind).Drying.Wet(dry)
		if w, err := colour.ParseHex(i.Wet); err == nil {
			wet = w
		}
		out.Body.Inks = append(out.Body.Inks, InkLook{i.ID, dry.Hex(), wet.Hex(), dry.Lab().L, src})
	}
	for i := 1; i < len(out.Body.Inks); i++ {
		for j := i; j > 0 && out.Body.Inks[j].L > out.Body.Inks[j-1].L; j-- {
			out.Body.Inks[j], out.Body.Inks[j-1] = out.Body.Inks[j-1], out.Body.Inks[j]
		}
	}
	return out, nil
}

type importIn struct {
	Name    string      `query:"name" maxLength:"80"`
	Kind    kit.SetKind `query:"kind" enum:"die,stamp,stencil"`
	RawBody []byte      `contentType:"image/svg+xml"`
}

type setOut struct{ Body kit.Set }

// ScaleGuess is a size a drawing may be meant to have.
type ScaleGuess struct {
	Why string  `json:"why" doc:"what would have to be so"`
	W   float64 `json:"w" doc:"width of the whole set then, mm"`
	H   float64 `json:"h" doc:"height, mm"`
}

// Imported is a drawn set as it was kept, with other sizes it may be meant to have
// where the drawing does not say; the first is the one it was read at.
type Imported struct {
	kit.Set
	Sizes []ScaleGuess `json:"sizes" nullable:"false" doc:"two or more where a person should say how large it is"`
}

type importOut struct{ Body Imported }

// drawnAs is how the drawing of a kind of set is read.
func drawnAs(k kit.SetKind) []svgin.Option {
	if k == kit.StampSet || k == kit.StencilSet {
		return []svgin.Option{svgin.Inked()}
	}
	return nil
}

func (s *Server) importSet(ctx context.Context, in *importIn) (*importOut, error) {
	d, err := heavy(ctx, &s.jobs, nil, func() (svgin.Drawing, error) { return svgin.ReadContext(ctx, in.RawBody, drawnAs(in.Kind)...) })
	if err != nil {
		return nil, problem(err)
	}
	name := strings.TrimSpace(in.Name)
	if name == "" {
		name = "Drawn set"
	}
	notes := []string{"Read at " + d.Scaled + "."}
	out := &importOut{Imported{Sizes: []ScaleGuess{}}}
	if len(d.Odd) > 0 {
		w, h := d.Extent()
		as := "it was drawn at " + d.Scaled
		if !d.Stated {
			notes = append(notes, "The drawing does not say its size in inches or millimetres: measure a piece and check the width.")
		}
		out.Body.Sizes = append(out.Body.Sizes, ScaleGuess{as, w, h})
		for _, o := range d.Odd {
			out.Body.Sizes = append(out.Body.Sizes, ScaleGuess{o.Why, w * o.Factor, h * o.Factor})
		}
	}
	set := kit.Set{ID: newID(), Name: name, Kind: in.Kind, Parts: d.Parts, Notes: append(notes, d.Notes...)}
	if set.Kind == "" {
		set.Kind = kit.DieSet
	}
	if err := set.Validate(); err != nil {
		return nil, problem(err)
	}
	if err := s.store.Put(ctx, store.KindSet, set.ID, set); err != nil {
		return nil, problem(err)
	}
	out.Body.Set = set
	return out, nil
}
