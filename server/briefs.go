package server

import (
	"bytes"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"ochrestone/core/card"
	"ochrestone/core/foresee"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/together"
	"ochrestone/core/work"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
)

// briefForm changes with what is in a brief or in its pictures, so that those of before are
// worked out anew.
const briefForm = "1"

// brief is what lists show of a card, as it is kept.
type brief struct {
	W, H, Total         float64
	Notes, Spoils       int
	Done, Steps, Strata int
	Next, Begun         string
	Problem             string
	Waits               []TileWait
	Made                int
	Shown               int64
	Says                []string
	Uses                []string // what of the stores it is made of: kind/id
	Also                []string // what else the work on it is planned with, of cards made with it and of how it was when its run began
	With                []string // ids of the cards made in the same sitting
	Find                string   // what it is found by, beside its title and its words
}

// known is a brief that was read or worked out, with the digest it is kept under.
type known struct {
	of string
	brief
}

// bench remembers the briefs of all cards, and which are wanted anew.
type bench struct {
	mu      sync.Mutex
	known   map[string]known
	wanted  []string // what is looked at first, then oldest asked first
	in      map[string]bool
	running bool

	last *listing
}

// listing is all cards as lists show them, and of which state of everything that is.
type listing struct {
	turns store.Turns
	kit   [2]int64
	g     goesBy
	rows  []store.Row
	all   []brief
	stale []int // places of those that are to be worked out anew
}

// goesBy is what briefs are worked out from, beside the card and its runs.
type goesBy struct {
	marks   map[string]uint64
	shelves string // foam, adhesives, envelopes, machines and swatches: any card may be planned with any of them
	assumed
	rows map[string]store.Row
}

func (s *Server) goesBy(ctx context.Context) (g goesBy, rows []store.Row, err error) {
	if g.marks, err = s.store.Marks(ctx); err != nil {
		return g, nil, err
	}
	if g.assumed, err = s.assumed(ctx); err != nil {
		return g, nil, err
	}
	if rows, err = s.store.Rows(ctx); err != nil {
		return g, nil, err
	}
	g.rows = make(map[string]store.Row, len(rows))
	for _, r := range rows {
		g.rows[r.ID] = r
	}
	var all []string
	for name := range g.marks {
		if kind, _, _ := strings.Cut(name, "/"); kind != store.KindInk && kind != store.KindPaper && kind != store.KindSet {
			all = append(all, name)
		}
	}
	slices.Sort(all)
	h := sha256.New()
	for _, name := range all {
		fmt.Fprintln(h, name, g.marks[name])
	}
	g.shelves = string(h.Sum(nil))
	return g, rows, nil
}

// of is the digest of everything the brief of a card is worked out from. How quick the person
// is counts only while a run is under way: every tick would make all cards stale else, and it
// decides no more than which of two steps that may both come next is named first.
func (g goesBy) of(version string, r store.Row, b brief) string {
	h := sha256.New()
	fmt.Fprintln(h, briefForm, version, g.shelves, g.assumed.of, r.ID, r.Version, r.Head, r.Touched)
	for _, u := range append(slices.Clip(b.Uses), b.Also...) {
		fmt.Fprintln(h, u, g.marks[u])
	}
	for _, id := range b.With {
		w := g.rows[id]
		fmt.Fprintln(h, id, w.Version, w.Head)
	}
	if b.Begun != "" {
		fmt.Fprintln(h, g.assumed.pace)
	}
	return base64.RawURLEncoding.EncodeToString(h.Sum(nil)[:15])
}

// listed are all cards with their briefs as they are kept; those that are stale are said by
// their places, and nothing is worked out for them. The lists are the caller's own.
func (s *Server) listed(ctx context.Context) (g goesBy, rows []store.Row, briefs []brief, stale []int, err error) {
	l, err := s.listing(ctx)
	if err != nil {
		return g, nil, nil, nil, err
	}
	return l.g, slices.Clone(l.rows), slices.Clone(l.all), l.stale, nil
}

// listing is listed, remembered for as long as nothing is changed; it is not to be changed.
func (s *Server) listing(ctx context.Context) (*listing, error) {
	l := &listing{}
	var err error
	if l.turns, err = s.store.Turned(ctx); err != nil {
		return nil, err
	}
	if l.kit, err = s.store.Turn(ctx); err != nil {
		return nil, err
	}
	b := &s.bench
	b.mu.Lock()
	last := b.last
	b.mu.Unlock()
	if last != nil && last.turns == l.turns && last.kit == l.kit {
		return last, nil
	}
	if l.g, l.rows, err = s.goesBy(ctx); err != nil {
		return nil, err
	}
	b.mu.Lock()
	fresh := slices.ContainsFunc(l.rows, func(r store.Row) bool { return r.Of != "" && b.known[r.ID].of != r.Of })
	b.mu.Unlock()
	if fresh {
		docs, err := s.store.Briefs(ctx, func(id, of string) bool {
			b.mu.Lock()
			defer b.mu.Unlock()
			return b.known[id].of == of
		})
		if err != nil {
			return nil, err
		}
		for id, doc := range docs {
			k := known{of: l.g.rows[id].Of}
			if json.Unmarshal(doc, &k.brief) != nil {
				continue // it is worked out anew
			}
			b.mu.Lock()
			b.known[id] = k
			b.mu.Unlock()
		}
	}
	l.all = make([]brief, len(l.rows))
	b.mu.Lock()
	defer b.mu.Unlock()
	for i, r := range l.rows {
		// Only what stands in the data file counts: a restore takes it out, whatever is remembered.
		k := b.known[r.ID]
		if r.Of == "" || k.of != r.Of {
			l.stale = append(l.stale, i)
			continue
		}
		l.all[i] = k.brief
		if k.of != l.g.of(s.version, r, k.brief) {
			l.stale = append(l.stale, i)
		}
	}
	b.last = l
	return l, nil
}

// workOut works the brief of a card out and keeps it.
func (s *Server) workOut(ctx context.Context, g goesBy, r store.Row) (brief, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return brief{}, err
	}
	b, kept := s.brief(ctx, k, r)
	if err := ctx.Err(); err != nil {
		return b, err
	}
	if _, err := s.store.Turned(ctx); b.Problem != "" && err != nil {
		return b, err // not the card is in the way, but the data file: it is shut
	}
	of := g.of(s.version, r, b)
	doc, err := json.Marshal(b)
	if err != nil {
		return b, fmt.Errorf("work out what lists show of card %q: %w", r.ID, err)
	}
	kept.Of, kept.Doc = of, doc
	if err := s.store.PutBrief(ctx, r.ID, kept); err != nil {
		return b, err
	}
	s.bench.mu.Lock()
	s.bench.known[r.ID] = known{of, b}
	s.bench.mu.Unlock()
	return b, nil
}

// brief works out what lists show of a card. One that cannot be shown, for its own sake or for
// what is kept of its runs, says so and takes no other with it.
func (s *Server) brief(ctx context.Context, k kit.Kit, r store.Row) (b brief, pictures store.Brief) {
	b = brief{Waits: []TileWait{}, Says: []string{}}
	plain := b
	defer func() {
		if what := recover(); what != nil {
			slog.Error("a card could not be shown on the bench", "card", r.ID, "what", fmt.Sprint(what))
			b = plain
			b.Problem = "This card could not be worked out. Open it and undo the last change."
		}
	}()
	v, err := s.store.Card(ctx, r.ID)
	if err != nil {
		b.Problem = s.why(ctx, err)
		return b, pictures
	}
	b.W, b.H = v.Card.Base.W, v.Card.Base.H
	b.Uses = usedBy(v.Card)
	plain = b
	assume := append(s.assume(ctx), plan.Paced(nil, 0), plan.Tally())
	p := s.planner.Of(v.Card, k, assume...)
	b.Total, b.Problem = p.Depth.Total, p.Failed
	b.Says = append(b.Says, v.Card.Says()...)
	b.Notes, b.Spoils = foresee.Open(p.Findings)
	var front, strata bytes.Buffer
	if err := sheet.SmallFront(&front, v.Card, k, p); err == nil {
		pictures.Front = zipped(front.Bytes())
	}
	if n, err := sheet.Strata(&strata, v.Card, p); err == nil {
		b.Strata, pictures.Strata = n, zipped(strata.Bytes())
	}
	var known []plan.Option
	if s.settings(ctx).Room == 0 { // then it is the plan a sitting of this card alone makes
		known = append(known, plan.Have(v.Card, p))
	}
	sat, err := s.sitting(ctx, v.ID, known...)
	if err != nil {
		b.Problem = s.why(ctx, err)
		return b, pictures
	}
	b.Steps = len(sat.Steps)
	b.Done, b.Next = progress(sat.Steps, sat.Run)
	b.Begun, b.Made, b.With = sat.Run.Begun, sat.Run.Before, sat.Company
	for _, w := range sat.Run.Timers {
		for _, a := range sat.Steps {
			if a.ID == w.Step {
				b.Waits = append(b.Waits, TileWait{a.Title, w.Until})
			}
		}
	}
	made, err := s.store.Making(ctx, v.ID, sat.Run.ID)
	if err != nil {
		b.Problem = s.why(ctx, err)
		return b, pictures
	}
	for _, m := range made {
		for _, u := range usedBy(m.Card) {
			if !slices.Contains(b.Uses, u) && !slices.Contains(b.Also, u) {
				b.Also = append(b.Also, u)
			}
		}
	}
	entries, err := s.store.Entries(ctx, v.ID)
	if err != nil {
		b.Problem = s.why(ctx, err)
		return b, pictures
	}
	for _, e := range entries {
		if n := len(e.Photographs); n > 0 {
			b.Shown = e.Photographs[n-1].ID
			break
		}
	}
	b.Find = strings.ToLower(strings.Join(append(namesOf(k, v.Card.Uses()), b.Says...), "\n"))
	return b, pictures
}

// why is an error as a list says it.
func (s *Server) why(ctx context.Context, err error) string {
	if _, shut := s.store.Turned(ctx); shut != nil {
		return shut.Error()
	}
	return problem(err).Error()
}

// usedBy is what of the stores a card names: kind/id, each once.
func usedBy(c card.Card) (out []string) {
	for _, u := range c.Uses() {
		out = append(out, u.Key())
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// namesOf are the names of things of the stores, each once.
func namesOf(k kit.Kit, uses []card.Use) []string {
	names := map[string]string{}
	for _, v := range k.Sets {
		names[store.KindSet+"/"+v.ID] = v.Name
	}
	for _, v := range k.Inks {
		names[store.KindInk+"/"+v.ID] = v.Name
	}
	for _, v := range k.Papers {
		names[store.KindPaper+"/"+v.ID] = v.Name
	}
	var out []string
	for _, u := range uses {
		if n := names[u.Key()]; n != "" && !slices.Contains(out, n) {
			out = append(out, n)
		}
	}
	return out
}

func zipped(doc []byte) []byte {
	var b bytes.Buffer
	w := gzip.NewWriter(&b)
	_, _ = w.Write(doc) // into memory
	_ = w.Close()
	return b.Bytes()
}

// tile is a card as a list shows it.
func (b brief) tile(r store.Row, stale bool, now time.Time) Tile {
	t := Tile{ID: r.ID, Title: r.Title, Version: r.Version, W: b.W, H: b.H, Next: b.Next, Done: b.Done, Steps: b.Steps, Notes: b.Notes, Spoils: b.Spoils, Total: b.Total, Strata: b.Strata,
		Waits: []TileWait{}, Begun: b.Begun, Made: b.Made, Shown: b.Shown, Lying: r.Lying, Says: append([]string{}, b.Says...), Problem: b.Problem, Of: r.Of, Stale: stale}
	for _, w := range b.Waits {
		if end, err := time.Parse(time.RFC3339, w.Until); err == nil && end.After(now) {
			t.Waits = append(t.Waits, w)
		}
	}
	t.Stands = work.StandsAt(t.Done, t.Steps, t.Made, len(t.Waits) > 0, t.Lying.Away != "")
	return t
}

// exact are all cards that can be read, with what is stale worked out first.
func (s *Server) exact(ctx context.Context) ([]Tile, error) {
	g, rows, briefs, stale, err := s.listed(ctx)
	if err != nil {
		return nil, err
	}
	together.By(len(stale), func(i int) {
		at := stale[i]
		if b, err := s.workOut(ctx, g, rows[at]); err == nil {
			briefs[at], rows[at].Of = b, g.of(s.version, rows[at], b)
		} else {
			briefs[at] = b
		}
	})
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	out := []Tile{}
	for i, r := range rows {
		if briefs[i].W > 0 { // else it is set apart
			out = append(out, briefs[i].tile(r, false, s.now()))
		}
	}
	return out, nil
}

// want asks for briefs to be worked out: those somebody looks at at once, before all that wait,
// the others after them, oldest asked first.
func (s *Server) want(looked []string, others ...string) {
	b := &s.bench
	b.mu.Lock()
	defer b.mu.Unlock()
	if len(looked) > 0 {
		b.wanted = append(slices.Clone(looked), slices.DeleteFunc(b.wanted, func(id string) bool { return slices.Contains(looked, id) })...)
	}
	for _, id := range looked {
		b.in[id] = true
	}
	for _, id := range others {
		if !b.in[id] {
			b.in[id] = true
			b.wanted = append(b.wanted, id)
		}
	}
	if !b.running && len(b.wanted) > 0 {
		b.running = true
		go s.catchUp()
	}
}

// atOnce is how many briefs are worked out side by side.
const atOnce = 4

// catchUp works briefs out, some side by side, until none is wanted.
func (s *Server) catchUp() {
	b := &s.bench
	ctx := context.Background()
	for {
		b.mu.Lock()
		if len(b.wanted) == 0 {
			b.running = false
			b.mu.Unlock()
			return
		}
		ids := slices.Clone(b.wanted[:min(atOnce, len(b.wanted))])
		b.wanted = b.wanted[len(ids):]
		for _, id := range ids {
			delete(b.in, id) // what happens from here on is asked for again
		}
		b.mu.Unlock()
		g, _, err := s.goesBy(ctx)
		errs := make([]error, len(ids))
		if err == nil {
			together.By(len(ids), func(i int) {
				if r, ok := g.rows[ids[i]]; ok {
					_, errs[i] = s.workOut(ctx, g, r)
				}
			})
		}
		if err = errors.Join(append(errs, err)...); err != nil {
			// The data file is shut, or cannot be written to: the lists say what they know.
			slog.Debug("what lists show is not worked out", "error", err)
			b.mu.Lock()
			b.wanted, b.in, b.running = nil, map[string]bool{}, false
			b.mu.Unlock()
			return
		}
	}
}

// kept answers with a picture as it was kept with a card's brief.
func (s *Server) kept(which string) gin.HandlerFunc {
	return func(c *gin.Context) {
		doc, of, err := s.store.Picture(c.Request.Context(), c.Param("id"), which)
		if errors.Is(err, store.ErrNotFound) {
			s.want([]string{c.Param("id")})
		}
		if err != nil {
			refuse(c, err)
			return
		}
		h := c.Writer.Header()
		h.Set("ETag", `"`+of+`"`)
		h.Set("Cache-Control", "private, no-cache")
		if c.Query("of") == of { // the address changes with the picture
			h.Set("Cache-Control", "private, max-age=31536000, immutable")
		}
		h.Set("Vary", "Accept-Encoding")
		if strings.Contains(c.GetHeader("If-None-Match"), `"`+of+`"`) {
			c.Status(http.StatusNotModified)
			return
		}
		if strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
			h.Set("Content-Encoding", "gzip")
			c.Data(http.StatusOK, "image/svg+xml", doc)
			return
		}
		z, err := gzip.NewReader(bytes.NewReader(doc))
		if err == nil {
			doc, err = io.ReadAll(z)
		}
		if err != nil {
			refuse(c, fmt.Errorf("read a picture: %w", err))
			return
		}
		c.Data(http.StatusOK, "image/svg+xml", doc)
	}
}
