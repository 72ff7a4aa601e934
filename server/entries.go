package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/remember"
	"ochrestone/core/work"
	"ochrestone/store"
	"ochrestone/vision/picture"
)

// How large photographs of finished cards are kept: our own defaults.
const (
	largePhotograph = 1600 // pixels, the longer side
	smallPhotograph = 420
	photographAt    = 84 // JPEG quality
)

// Account is an entry of the log in full.
type Account struct {
	Entry   store.Entry       `json:"entry"`
	Went    work.Went         `json:"went"`
	Copies  int               `json:"copies" doc:"cards that were planned"`
	Steps   int               `json:"steps" doc:"steps that were planned"`
	Wall    float64           `json:"wall" doc:"minutes planned from the first step to the last"`
	Left    []string          `json:"left" nullable:"false" doc:"titles of steps left out"`
	Inks    []InkWas          `json:"inks" nullable:"false" doc:"planned and used"`
	Papers  []PaperTook       `json:"papers" nullable:"false" doc:"cardstock that was cut and taken out of the stores"`
	Placed  []store.Placement `json:"placed" nullable:"false" doc:"placements measured for it, the newest first"`
	Takes   []remember.Taking `json:"takes" nullable:"false" doc:"pads and envelopes it takes"`
	Since   []string          `json:"since" nullable:"false" doc:"what was changed of the card since, in words"`
	Differs work.Differs      `json:"differs" doc:"how the steps differ since"`
}

// PaperTook is what a run took of a cardstock.
type PaperTook struct {
	Name   string `json:"name"`
	Sheets int    `json:"sheets" doc:"whole sheets"`
	At     string `json:"at" doc:"RFC 3339"`
}

type entriesOut struct{ Body []store.Entry }

// EntryIn names an entry of the log.
type EntryIn struct {
	ID  string `path:"id"`
	Run int64  `path:"run"`
}

type rememberIn struct {
	EntryIn
	Body struct {
		Well int    `json:"well" minimum:"-1" maximum:"10000" doc:"cards that came out well; -1: not said"`
		Note string `json:"note" maxLength:"4000"`
	}
}

type photographIn struct {
	EntryIn
	Words   string `query:"words" maxLength:"200" doc:"what is seen on it"`
	RawBody []byte `contentType:"application/octet-stream"`
}

func (s *Server) entries(r *gin.Engine) {
	huma.Register(s.api, op("all-entries", http.MethodGet, "/api/entries", "The log of all cards, the latest first"), func(ctx context.Context, _ *struct{}) (*entriesOut, error) {
		got, err := s.store.Entries(ctx, "")
		return &entriesOut{got}, problem(err)
	})
	huma.Register(s.api, op("entries", http.MethodGet, "/api/cards/{id}/entries", "What was made of a card, the latest first"), func(ctx context.Context, in *cardIn) (*entriesOut, error) {
		got, err := s.store.Entries(ctx, in.ID)
		return &entriesOut{got}, problem(err)
	})
	huma.Register(s.api, op("new-entry", http.MethodPost, "/api/cards/{id}/entries", "Note that a card was made, its steps not ticked"), s.newEntry)
	huma.Register(s.api, op("read-entry", http.MethodGet, "/api/cards/{id}/entries/{run}", "A run as it went, beside what was planned"), func(ctx context.Context, in *EntryIn) (*struct{ Body Account }, error) {
		got, err := s.account(ctx, in.ID, in.Run)
		return &struct{ Body Account }{got}, problem(err)
	})
	huma.Register(s.api, op("remember", http.MethodPut, "/api/cards/{id}/entries/{run}", "Say how many came out well, and what to remember"), func(ctx context.Context, in *rememberIn) (*struct{}, error) {
		return nil, problem(s.store.Remember(ctx, in.ID, in.Run, in.Body.Well, strings.TrimSpace(in.Body.Note)))
	})
	keep := op("keep-photograph", http.MethodPost, "/api/cards/{id}/entries/{run}/photographs", "Keep a photograph of a finished card, shrunk")
	keep.MaxBodyBytes = maxUpload
	huma.Register(s.api, keep, func(ctx context.Context, in *photographIn) (*struct{ Body store.Photograph }, error) {
		got, err := heavy(ctx, &s.jobs, nil, func() (store.Photograph, error) { return s.keepPhotograph(ctx, in) })
		return &struct{ Body store.Photograph }{got}, problem(err)
	})
	huma.Register(s.api, op("drop-photograph", http.MethodDelete, "/api/cards/{id}/entries/{run}/photographs/{photograph}", "Take a photograph away"), func(ctx context.Context, in *struct {
		EntryIn
		Photograph int64 `path:"photograph"`
	}) (*struct{}, error) {
		return nil, problem(s.store.DropPhotograph(ctx, in.ID, in.Run, in.Photograph))
	})
	huma.Register(s.api, op("take-levels", http.MethodPost, "/api/cards/{id}/entries/{run}/levels", "Take the pads and envelopes of a run out of the stores"), s.takeLevels)
	huma.Register(s.api, op("make-again", http.MethodPost, "/api/cards/{id}/entries/{run}/again", "Begin a run of what was made then"), func(ctx context.Context, in *EntryIn) (*runOut, error) {
		got, err := s.store.Again(ctx, in.ID, in.Run)
		return &runOut{got}, problem(err)
	})
	r.GET("/api/photographs/:name", func(c *gin.Context) {
		n, err := strconv.ParseInt(strings.TrimSuffix(c.Param("name"), ".jpg"), 10, 64)
		if err != nil {
			refuse(c, store.ErrNotFound)
			return
		}
		data, err := s.store.PhotographOf(c.Request.Context(), n, c.Query("small") != "")
		if err != nil {
			refuse(c, err)
			return
		}
		c.Data(http.StatusOK, "image/jpeg", data)
	})
}

// newEntry notes a card that was made without its steps being ticked: a run that is ended.
func (s *Server) newEntry(ctx context.Context, in *cardIn) (*entriesOut, error) {
	all, err := s.store.Making(ctx, in.ID, 0)
	if err != nil {
		return nil, problem(err)
	}
	if err := s.store.Note(ctx, in.ID, all[0].Card.Run()); err != nil {
		return nil, problem(err)
	}
	got, err := s.store.Entries(ctx, in.ID)
	return &entriesOut{got}, problem(err)
}

func (s *Server) keepPhotograph(ctx context.Context, in *photographIn) (store.Photograph, error) {
	if _, err := s.store.RunOf(ctx, in.ID, in.Run); err != nil {
		return store.Photograph{}, err // before the work, not after it
	}
	p, err := picture.Decode(in.RawBody)
	if err != nil {
		return store.Photograph{}, err
	}
	large, w, h, err := p.JPEG(largePhotograph, photographAt)
	if err != nil {
		return store.Photograph{}, err
	}
	small, _, _, err := p.Shrunk(largePhotograph).JPEG(smallPhotograph, photographAt)
	if err != nil {
		return store.Photograph{}, err
	}
	return s.store.KeepPhotograph(ctx, in.ID, in.Run, store.Photograph{Words: strings.TrimSpace(in.Words), W: w, H: h}, large, small)
}

// account puts a run beside the plan of what it made, and the card as it was beside what it is.
func (s *Server) account(ctx context.Context, id string, run int64) (Account, error) {
	out := Account{Left: []string{}, Inks: []InkWas{}, Papers: []PaperTook{}, Placed: []store.Placement{}, Since: []string{}}
	all, err := s.store.Entries(ctx, id)
	if err != nil {
		return out, err
	}
	at := -1
	for i, e := range all {
		if e.ID == run {
			at = i
		}
	}
	if at < 0 {
		return out, fmt.Errorf("entry %d of the log: %w", run, store.ErrNotFound)
	}
	out.Entry = all[at]
	r, err := s.store.RunOf(ctx, id, run)
	if err != nil {
		return out, err
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return out, err
	}
	kept, err := s.store.Making(ctx, id, run)
	if err != nil {
		return out, err
	}
	planned, err := s.sat(ctx, kept, k, plan.Did{Order: kept[0].Card.Order})
	if err != nil {
		return out, err
	}
	out.Steps, out.Wall = len(planned.Steps), planned.Time.Run.Wall
	for _, m := range planned.Cards {
		out.Copies += m.Copies
	}
	ticks, err := s.store.TicksOf(ctx, run)
	if err != nil {
		return out, err
	}
	out.Went = work.Account(planned.Steps, planned.Minutes(), asTicks(ticks))
	for _, a := range planned.Steps {
		for _, l := range r.Left {
			if a.ID == l {
				out.Left = append(out.Left, a.Title)
			}
		}
	}
	assume := s.assume(ctx)
	before := s.planner.Of(kept[0].Card, k, assume...)
	makes := make([]remember.Make, len(kept))
	for i, c := range kept {
		makes[i] = remember.Make{Card: c.Card, Plan: s.planner.Of(c.Card, k, assume...)}
	}
	out.Takes = remember.Takes(makes, k)
	out.Inks = inksWere(kept[0].Card, k, before, r)
	if out.Papers, err = s.papersTook(ctx, run, k); err != nil {
		return out, err
	}
	if out.Placed, err = s.placedFor(ctx, all, at); err != nil {
		return out, err
	}
	now, err := s.store.Card(ctx, id)
	if err != nil {
		return out, err
	}
	write, _ := s.writing(ctx)
	after := s.planner.Of(now.Card, k, assume...)
	out.Since = remember.Since(kept[0].Card, now.Card, before, after, k, write)
	out.Differs = work.Compare(before.Steps, after.Steps)
	return out, nil
}

// takeLevels takes what a run used of what is counted out of the stores, down to none.
func (s *Server) takeLevels(ctx context.Context, in *EntryIn) (*struct{}, error) {
	got, err := s.account(ctx, in.ID, in.Run)
	if err != nil {
		return nil, problem(err)
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	var after []store.Item
	for _, t := range got.Takes {
		if t.Left == nil {
			continue
		}
		left := max(0, *t.Left-t.N)
		if sp, ok := k.Spacer(t.ID); ok && t.Kind == store.KindSpacer {
			sp.Left = &left
			after = append(after, store.Item{Kind: store.KindSpacer, ID: sp.ID, Value: sp})
		} else if g, ok := k.Gem(t.ID); ok && t.Kind == store.KindGem {
			g.Left = &left
			after = append(after, store.Item{Kind: store.KindGem, ID: g.ID, Value: g})
		} else if e, ok := k.Envelope(t.ID); ok && t.Kind == store.KindEnvelope {
			e.Left = &left
			after = append(after, store.Item{Kind: store.KindEnvelope, ID: e.ID, Value: e})
		}
	}
	return nil, problem(s.store.TakeLevels(ctx, in.ID, in.Run, after...))
}

// asTicks are ticks as the core takes them, minutes from any beginning.
func asTicks(all []store.Ticked) (out []work.Ticked) {
	for _, t := range all {
		out = append(out, work.Ticked{Step: t.Step, Kind: work.Kind(t.Kind), Cards: t.Cards, At: float64(t.At.Unix()) / 60})
	}
	return out
}

func (s *Server) papersTook(ctx context.Context, run int64, k kit.Kit) ([]PaperTook, error) {
	out := []PaperTook{}
	taken, err := s.store.TakenIn(ctx, run)
	if err != nil {
		return nil, err
	}
	for _, t := range taken {
		var st cut.Stock
		if err := json.Unmarshal(t.Doc, &st); err != nil {
			return nil, fmt.Errorf("what was cut of %q: %w: %w", t.Stock, store.ErrTorn, err)
		}
		if p, ok := k.Paper(t.Stock); ok {
			st.Name = p.Name
		}
		out = append(out, PaperTook{st.Name, st.Needs, t.At})
	}
	return out, nil
}

// placedFor are the placements measured between the run before an entry and its end.
func (s *Server) placedFor(ctx context.Context, all []store.Entry, at int) ([]store.Placement, error) {
	out := []store.Placement{}
	ps, err := s.store.Logged(ctx)
	if err != nil {
		return nil, err
	}
	from, to := "", all[at].Ended
	if at+1 < len(all) {
		from = all[at+1].Ended
	}
	for _, p := range ps {
		if p.Card == all[at].Card && p.Source != store.FromPractice && p.At >= from && (to == "" || p.At <= to) {
			out = append(out, p)
		}
	}
	return out, nil
}

type copyCardIn struct {
	ID   string `path:"id"`
	Body struct {
		Title string         `json:"title" minLength:"1" maxLength:"120"`
		Run   int64          `json:"run,omitempty" doc:"as this run made it; 0: as it is now"`
		Swaps []card.Swap    `json:"swaps,omitempty" maxItems:"60" doc:"colourways that are others"`
		Words []card.Wording `json:"words,omitempty" maxItems:"60" doc:"words that are others"`
	}
}

// copyCard begins a card as another one is, but for its name, its colours or its words.
func (s *Server) copyCard(ctx context.Context, in *copyCardIn) (*viewOut, error) {
	if in.Body.Run != 0 {
		if _, err := s.store.RunOf(ctx, in.ID, in.Body.Run); err != nil {
			return nil, problem(err)
		}
	}
	all, err := s.store.Making(ctx, in.ID, in.Body.Run)
	if err != nil {
		return nil, problem(err)
	}
	c := all[0].Card
	if len(in.Body.Swaps)+len(in.Body.Words) > 0 {
		c = c.Of(card.Lot{Copies: c.Copies, Swaps: in.Body.Swaps, Words: in.Body.Words})
	}
	c.Title = strings.TrimSpace(in.Body.Title)
	if err := c.Validate(); err != nil {
		return nil, problem(err)
	}
	v, err := s.store.Add(ctx, newID(), c)
	if err != nil {
		return nil, problem(err)
	}
	return s.view(ctx, v)
}
