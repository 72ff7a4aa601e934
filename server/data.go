package server

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"maps"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/exchange/everything"
	"ochrestone/store"
)

// Data is what the page shows of the data file.
type Data struct {
	Path  string        `json:"path" doc:"where it lies"`
	Apart []store.Apart `json:"apart" nullable:"false" doc:"what cannot be read and is set apart"`
	// What the program copies by itself.
	Copies  []store.Copy   `json:"copies" nullable:"false" doc:"made of it by itself, one a day, the latest first"`
	Before  []store.Before `json:"before" nullable:"false" doc:"what was there before a backup was brought back, the latest first; the last three are kept"`
	Beside  string         `json:"beside" doc:"folder in which they lie"`
	Trouble string         `json:"trouble,omitempty" doc:"why today's could not be made"`
}

// Looked is what a backup holds, before anything is changed.
type Looked struct {
	Say   string   `json:"say" doc:"in a sentence"`
	Cards []string `json:"cards" nullable:"false" doc:"titles of the cards in it, some at most"`
	Here  string   `json:"here" doc:"what is here now, in a sentence"`
	Gone  []string `json:"gone" nullable:"false" doc:"titles of cards that are here and not in it, some at most"`
}

// Checked is what a check found, in a sentence too.
type Checked struct {
	store.Report
	Say string `json:"say"`
}

// Restored tells where what was there before is kept.
type Restored struct {
	Before string `json:"before" doc:"file with everything as it was before"`
}

func (s *Server) data(r *gin.Engine) {
	huma.Register(s.api, op("data", http.MethodGet, "/api/data", "The data file, and what of it cannot be read"), func(ctx context.Context, _ *struct{}) (*struct{ Body Data }, error) {
		apart, err := s.store.SetApart(ctx)
		if err != nil {
			return nil, problem(err)
		}
		copies, err := s.store.Copies()
		if err != nil {
			return nil, problem(err)
		}
		d := Data{Path: s.store.Path(), Apart: apart, Copies: copies, Beside: s.store.CopiesDir(), Before: s.store.Befores()}
		if err := s.trouble.Load(); err != nil {
			d.Trouble = (*err).Error()
		}
		return &struct{ Body Data }{d}, nil
	})
	huma.Register(s.api, op("check-data", http.MethodGet, "/api/data/check", "Read the whole data file and say whether it is sound"), func(ctx context.Context, _ *struct{}) (*struct{ Body Checked }, error) {
		rep, err := s.store.Check(ctx)
		if err != nil {
			return nil, problem(err)
		}
		return &struct{ Body Checked }{Checked{rep, rep.Say()}}, nil
	})
	huma.Register(s.api, op("remove-apart", http.MethodDelete, "/api/data/apart", "Remove something that cannot be read"), func(ctx context.Context, in *struct {
		Kind string `query:"kind" required:"true" doc:"as it is listed"`
		ID   string `query:"id" required:"true" doc:"whatever characters it has"`
	}) (*struct{}, error) {
		return nil, problem(s.store.Remove(ctx, in.Kind, in.ID))
	})
	r.GET("/api/data/apart/:kind/*id", func(c *gin.Context) {
		id := c.Param("id")[1:]
		doc, err := s.store.Document(c.Request.Context(), c.Param("kind"), id)
		if err != nil {
			refuse(c, err)
			return
		}
		attach(c, c.Param("kind")+" "+id, ".txt")
		c.Data(http.StatusOK, "text/plain; charset=utf-8", doc)
	})
	r.GET("/api/data/backup.db", s.backup)
	r.GET("/api/data/everything.zip", s.everything)
	r.POST("/api/data/restore", s.restore)
	r.POST("/api/data/look", s.lookInto)
	r.GET("/api/data/copies/:day", func(c *gin.Context) {
		day := strings.TrimSuffix(c.Param("day"), ".db")
		path, err := s.store.CopyFile(day)
		if err != nil {
			refuse(c, err)
			return
		}
		attach(c, "ochrestone "+day, ".db")
		c.File(path)
	})
	huma.Register(s.api, op("look-into-copy", http.MethodGet, "/api/data/copies/{day}/look", "What a day's copy holds"), func(ctx context.Context, in *copyIn) (*struct{ Body Looked }, error) {
		path, err := s.store.CopyFile(in.Day)
		if err != nil {
			return nil, problem(err)
		}
		l, err := s.lookedInto(ctx, path)
		return &struct{ Body Looked }{l}, problem(err)
	})
	huma.Register(s.api, op("restore-copy", http.MethodPost, "/api/data/copies/{day}/restore", "Put a day's copy in the place of everything"), func(ctx context.Context, in *copyIn) (*struct{ Body Restored }, error) {
		path, err := s.store.CopyFile(in.Day)
		if err != nil {
			return nil, problem(err)
		}
		before, err := s.store.Restore(ctx, path)
		return &struct{ Body Restored }{Restored{before}}, problem(err)
	})
}

type copyIn struct {
	Day string `path:"day" maxLength:"10"`
}

// Daily keeps a copy of the data file for every day the program runs, until ctx ends. What
// goes wrong is told by the page of the data, and tried again in an hour.
func (s *Server) Daily(ctx context.Context) {
	for {
		sweep(os.TempDir(), s.now())
		s.store.Sweep(s.now())
		_, err := s.store.Daily(ctx, s.now())
		if err != nil && ctx.Err() == nil {
			s.trouble.Store(&err)
		} else {
			s.trouble.Store(nil)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Hour):
		}
	}
}

// sweep removes copies that a program which was killed left in the folder for passing files, more
// than a day ago.
func sweep(dir string, now time.Time) {
	for _, left := range []string{"ochrestone-restore-*", "ochrestone-backup-*"} {
		all, err := filepath.Glob(filepath.Join(dir, left))
		if err != nil {
			continue
		}
		for _, path := range all {
			if st, err := os.Stat(path); err == nil && now.Sub(st.ModTime()) > 24*time.Hour {
				_ = os.RemoveAll(path)
			}
		}
	}
}

// attach names the file a request answers with, in whatever letters.
func attach(c *gin.Context, title, ext string) { named(c, "attachment", title, ext) }

func named(c *gin.Context, how, title, ext string) {
	name := everything.FileName(title)
	c.Header("Content-Disposition", fmt.Sprintf(`%s; filename="%s%s"; filename*=UTF-8''%s`, how, everything.ASCII(name), ext, escape(name+ext)))
}

// escape writes a name as RFC 8187 wants it.
func escape(s string) string {
	var b bytes.Buffer
	for _, c := range []byte(s) {
		if c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c == '-' || c == '.' || c == '_' {
			b.WriteByte(c)
		} else {
			fmt.Fprintf(&b, "%%%02X", c)
		}
	}
	return b.String()
}

// backup sends the whole data file as it stands at this moment.
func (s *Server) backup(c *gin.Context) {
	dir, err := os.MkdirTemp("", "ochrestone-backup-*")
	if err != nil {
		refuse(c, err)
		return
	}
	defer os.RemoveAll(dir)
	file := filepath.Join(dir, "backup.db")
	if err := s.store.Backup(c.Request.Context(), file); err != nil {
		refuse(c, err)
		return
	}
	attach(c, "ochrestone "+s.now().Format("2006-01-02"), ".db")
	c.File(file)
}

// takeIn keeps a file that comes in until it is done with.
func takeIn(c *gin.Context) (path string, done func(), ok bool) {
	f, err := os.CreateTemp("", "ochrestone-restore-*.db")
	if err != nil {
		refuse(c, err)
		return "", nil, false
	}
	_, err = io.Copy(f, c.Request.Body)
	if end := f.Close(); err == nil {
		err = end
	}
	if err != nil {
		_ = os.Remove(f.Name())
		if full := store.Full(err); full != nil {
			refuse(c, full)
			return "", nil, false
		}
		refuse(c, &store.Trouble{What: "The backup did not come in whole.", Mend: "Nothing was changed; try again."})
		return "", nil, false
	}
	return f.Name(), func() { _ = os.Remove(f.Name()) }, true
}

// lookInto says what a backup holds; nothing is changed.
func (s *Server) lookInto(c *gin.Context) {
	path, done, ok := takeIn(c)
	if !ok {
		return
	}
	defer done()
	l, err := heavy(c.Request.Context(), &s.jobs, nil, func() (Looked, error) { return s.lookedInto(c.Request.Context(), path) })
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, l)
}

// mostTitles are named when a backup is looked into.
const mostTitles = 12

func (s *Server) lookedInto(ctx context.Context, path string) (l Looked, err error) {
	l = Looked{Cards: []string{}, Gone: []string{}}
	its, err := store.CheckFile(ctx, path)
	if err != nil {
		return l, err
	}
	titles, err := store.TitlesIn(ctx, path)
	if err != nil {
		return l, err
	}
	mine, err := s.store.Check(ctx)
	if err != nil {
		return l, err
	}
	cards, err := s.store.Cards(ctx)
	if err != nil {
		return l, err
	}
	l.Say, l.Here = its.Say(), mine.Say()
	for _, c := range cards {
		if _, is := titles[c.ID]; !is && len(l.Gone) < mostTitles {
			l.Gone = append(l.Gone, c.Card.Title)
		}
	}
	for _, id := range slices.Sorted(maps.Keys(titles)) {
		if len(l.Cards) < mostTitles {
			l.Cards = append(l.Cards, titles[id])
		}
	}
	return l, nil
}

// restore takes a backup in the place of everything there is; what was there is
// backed up beside the data file first.
func (s *Server) restore(c *gin.Context) {
	path, done, ok := takeIn(c)
	if !ok {
		return
	}
	defer done()
	before, err := heavy(c.Request.Context(), &s.jobs, nil, func() (string, error) { return s.store.Restore(c.Request.Context(), path) })
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Restored{before})
}

// everything sends all there is as one zip of open formats.
func (s *Server) everything(c *gin.Context) {
	ctx := c.Request.Context()
	all, err := Everything(ctx, s.store)
	if err != nil {
		refuse(c, err)
		return
	}
	opts := s.assume(ctx)
	attach(c, "ochrestone everything "+s.now().Format("2006-01-02"), ".zip")
	c.Header("Content-Type", "application/zip")
	if err := everything.Write(c.Writer, all, func(cd card.Card) plan.Plan { return s.planner.Of(cd, all.Kit, opts...) }); err != nil {
		_ = c.Error(err)
	}
}

// Everything gathers all there is in a data file.
func Everything(ctx context.Context, st *store.Store) (everything.All, error) {
	var a everything.All
	k, err := st.Kit(ctx)
	if err != nil {
		return a, err
	}
	cards, err := st.Cards(ctx)
	if err != nil {
		return a, err
	}
	settings, err := st.Settings(ctx)
	if err != nil {
		return a, err
	}
	logged, err := st.Logged(ctx)
	if err != nil {
		return a, err
	}
	apart, err := st.SetApart(ctx)
	if err != nil {
		return a, err
	}
	a = everything.All{Kit: k, Settings: settings, At: time.Now(), Log: [][]string{{"at", "card", "image", "layer", "way", "source", "right mm", "down mm", "clockwise degrees", "inside its play"}}}
	for _, c := range cards {
		r, err := st.Run(ctx, c.ID)
		if err != nil {
			return a, err
		}
		a.Cards = append(a.Cards, everything.Named{ID: c.ID, Card: c.Card, Run: usedIn(r)})
	}
	num := func(v float64) string { return strconv.FormatFloat(v, 'g', 6, 64) }
	for _, p := range logged {
		a.Log = append(a.Log, []string{p.At, p.Card, p.Motif, p.Label, p.Way, p.Source, num(p.X), num(p.Y), num(p.Turn), strconv.FormatBool(p.Good)})
	}
	if a.More, err = remembered(ctx, st, cards, logged); err != nil {
		return a, err
	}
	for _, t := range apart {
		doc, err := st.Document(ctx, t.Kind, t.ID)
		if err != nil {
			return a, err
		}
		a.Apart = append(a.Apart, everything.Raw{Kind: t.Kind, ID: t.ID, Doc: doc})
	}
	return a, nil
}

// MadeOf is a run in the zip of everything: its entry in the log, and its steps.
type MadeOf struct {
	store.Entry
	Run store.Run `json:"run"`
}

// CardLies is how a card lies on the bench, in the zip of everything.
type CardLies struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	store.Lying
	Company []string `json:"company" doc:"ids of cards made in the same sitting"`
}

// remembered are the files of the zip with all that was made and measured, the photographs, and
// how the cards lie.
func remembered(ctx context.Context, st *store.Store, cards []store.Saved, logged []store.Placement) ([]everything.File, error) {
	entries, err := st.Entries(ctx, "")
	if err != nil {
		return nil, err
	}
	runs, photographs := []MadeOf{}, []everything.File{}
	for _, e := range entries {
		r, err := st.RunOf(ctx, e.Card, e.ID)
		if err != nil {
			return nil, err
		}
		runs = append(runs, MadeOf{e, r})
		for _, p := range e.Photographs {
			read := func() ([]byte, error) { return st.PhotographOf(ctx, p.ID, false) }
			photographs = append(photographs, everything.File{Dir: "log/photographs/", Name: fmt.Sprintf("%s %d", e.Title, p.ID), Ext: ".jpg", Read: read})
		}
	}
	lying, err := st.Lying(ctx)
	if err != nil {
		return nil, err
	}
	lies := []CardLies{}
	for _, c := range cards {
		company, err := st.Company(ctx, c.ID)
		if err != nil {
			return nil, err
		}
		lies = append(lies, CardLies{c.ID, c.Card.Title, lying[c.ID], company})
	}
	return append([]everything.File{{Dir: "log/", Name: "runs", Ext: ".json", Doc: runs}, {Dir: "log/", Name: "placements", Ext: ".json", Doc: logged}, {Dir: "log/", Name: "bench", Ext: ".json", Doc: lies}}, photographs...), nil
}
