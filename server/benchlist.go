package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/work"
)

// Bench is some of the cards on the bench, as they are known, with what all of them come to.
// Nothing is worked out for it: what is stale says so, and is worked out meanwhile.
type Bench struct {
	Tiles  []Tile              `json:"tiles" nullable:"false" doc:"those asked for, in order"`
	Found  int                 `json:"found" doc:"how many are so, of which these are some"`
	All    int                 `json:"all" doc:"cards in all"`
	Stands map[work.Stands]int `json:"stands" doc:"how many stand how"`
	Tags   []string            `json:"tags" nullable:"false" doc:"words under which cards are kept, in their order"`
	Waits  []BenchWait         `json:"waits" nullable:"false" doc:"of all cards, the soonest over first"`
	Models []Titled            `json:"models" nullable:"false" doc:"cards that others are begun from"`
	Stale  int                 `json:"stale" doc:"cards that are being worked out anew"`
}

// BenchWait is a wait under way, and of which card.
type BenchWait struct {
	TileWait
	Titled
}

// Titled is a card by name.
type Titled struct {
	ID    string `json:"id"`
	Title string `json:"title"`
}

type benchIn struct {
	From   int    `query:"from" minimum:"0" maximum:"1000000" doc:"how many to pass over"`
	N      int    `query:"n" default:"24" minimum:"0" maximum:"500" doc:"how many tiles"`
	Find   string `query:"find" maxLength:"120" doc:"words that stand in the title, on the card, in the words it is kept under, or in the names of what it is made of; all of them"`
	Stands string `query:"stands" enum:",planned,begun,waiting,finished,put away" doc:"none: all but those put away; with words to find, those too"`
	Tag    string `query:"tag" maxLength:"80"`
	Sort   string `query:"sort" default:"lying" enum:"lying,name,newest,notes" doc:"as they lie, by name, the newest first, those that something would spoil first"`
}

// benchList answers with cards of the bench.
func (s *Server) benchList() {
	huma.Register(s.api, op("bench", http.MethodGet, "/api/bench", "Some of the cards on the bench, found, sorted, and what all of them come to"), func(ctx context.Context, in *benchIn) (*struct{ Body Bench }, error) {
		l, err := s.listing(ctx)
		if err != nil {
			return nil, problem(err)
		}
		rows, briefs, stale := l.rows, l.all, l.stale
		old := make([]bool, len(rows))
		for _, at := range stale {
			old[at] = true
		}
		out := Bench{Tiles: []Tile{}, Stands: map[work.Stands]int{}, Tags: []string{}, Waits: []BenchWait{}, Models: []Titled{}, Stale: len(stale)}
		words := strings.Fields(strings.ToLower(in.Find))
		now := s.now()
		var found []int
		tiles := make([]Tile, len(rows))
		for i, r := range rows {
			if briefs[i].W == 0 && !old[i] {
				continue // it cannot be read, and is set apart
			}
			t := briefs[i].tile(r, old[i], now)
			tiles[i] = t
			out.All++
			out.Stands[t.Stands]++
			for _, tag := range r.Lying.Tags {
				if !slices.Contains(out.Tags, tag) {
					out.Tags = append(out.Tags, tag)
				}
			}
			for _, w := range t.Waits {
				out.Waits = append(out.Waits, BenchWait{w, Titled{r.ID, r.Title}})
			}
			if r.Lying.Model {
				out.Models = append(out.Models, Titled{r.ID, r.Title})
			}
			switch {
			case in.Stands != "" && string(t.Stands) != in.Stands,
				in.Stands == "" && len(words) == 0 && t.Stands == work.PutAway,
				in.Tag != "" && !slices.Contains(r.Lying.Tags, in.Tag),
				!t.has(words, briefs[i].Find):
				continue
			}
			found = append(found, i)
		}
		slices.Sort(out.Tags)
		slices.SortStableFunc(out.Waits, func(a, b BenchWait) int { return strings.Compare(a.Until, b.Until) })
		switch in.Sort {
		case "name":
			slices.SortStableFunc(found, func(a, b int) int {
				return strings.Compare(strings.ToLower(tiles[a].Title), strings.ToLower(tiles[b].Title))
			})
		case "newest":
			slices.Reverse(found)
		case "notes":
			slices.SortStableFunc(found, func(a, b int) int {
				return cmp.Or(tiles[b].Spoils-tiles[a].Spoils, tiles[b].Notes-tiles[a].Notes)
			})
		}
		out.Found = len(found)
		from := min(in.From, len(found))
		var first []string
		for _, at := range found[from:min(from+in.N, len(found))] {
			out.Tiles = append(out.Tiles, tiles[at])
			if old[at] {
				first = append(first, rows[at].ID)
			}
		}
		others := make([]string, len(stale))
		for i, at := range stale {
			others[i] = rows[at].ID
		}
		s.want(first, others...)
		return &struct{ Body Bench }{out}, nil
	})
}

// has reports whether each of some words stands somewhere on a card or about it.
func (t Tile) has(words []string, find string) bool {
	title, tags := strings.ToLower(t.Title), strings.ToLower(strings.Join(t.Lying.Tags, "\n"))
	return !slices.ContainsFunc(words, func(w string) bool {
		return !strings.Contains(title, w) && !strings.Contains(find, w) && !strings.Contains(tags, w)
	})
}
