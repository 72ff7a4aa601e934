// Package server is the web interface: the API, its OpenAPI document, and the
// embedded page.
package server

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"mime"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	lru "github.com/hashicorp/golang-lru/v2"

	"ochrestone/core/card"
	"ochrestone/core/cut"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/ramp"
	"ochrestone/core/words"
	"ochrestone/core/work"
	"ochrestone/exchange/inkfile"
	"ochrestone/exchange/sheet"
	"ochrestone/exchange/svgin"
	"ochrestone/server/delta"
	"ochrestone/store"
	"ochrestone/vision/picture"
)

// Server answers requests for one data file.
type Server struct {
	store   *store.Store
	planner *plan.Planner
	sent    *lru.Cache[sentKey, delta.Digest]
	made    *lru.Cache[madeKey, int64] // the version that edits made, by their name
	cuts    *lru.Cache[[sha256.Size]byte, cut.Plan]
	sats    *lru.Cache[[sha256.Size]byte, plan.Prepared]
	paces   struct {
		sync.Mutex
		from  [2]int64 // what was ticked when it was learned
		own   work.Pace
		steps int
	}
	bench   bench
	hand    handMemo
	shops   shop
	jobs    queue
	now     func() time.Time
	demo    bool
	screens screens
	version string
	trouble atomic.Pointer[error] // why today's copy could not be made
	page    fs.FS
	api     huma.API
	http.Handler
	carriers []depth.Carrier // nil: those of the file as it comes
}

// Option changes the server.
type Option func(*Server)

// Carriers are who carries cards, with their figures; without it those of the file as it comes.
func Carriers(c []depth.Carrier) Option { return func(s *Server) { s.carriers = c } }

// Demo says that the data file holds the demo.
func Demo() Option { return func(s *Server) { s.demo = true } }

// Page sets the built front end; without one only the API answers.
func Page(f fs.FS) Option { return func(s *Server) { s.page = f } }

// New returns the server for an open data file.
func New(st *store.Store, opts ...Option) *Server {
	sent, err := lru.New[sentKey, delta.Digest](mostSent)
	if err != nil {
		panic(fmt.Sprintf("remember %d plans: %v", mostSent, err)) // only for sizes below 1
	}
	made, err := lru.New[madeKey, int64](mostSent)
	if err != nil {
		panic(fmt.Sprintf("remember %d changes: %v", mostSent, err)) // only for sizes below 1
	}
	cuts, err := lru.New[[sha256.Size]byte, cut.Plan](mostCuts)
	if err != nil {
		panic(fmt.Sprintf("remember %d layouts: %v", mostCuts, err)) // only for sizes below 1
	}
	sats, err := lru.New[[sha256.Size]byte, plan.Prepared](mostSittings)
	if err != nil {
		panic(fmt.Sprintf("remember %d sittings: %v", mostSittings, err)) // only for sizes below 1
	}
	s := &Server{store: st, planner: plan.NewPlanner(), sent: sent, made: made, cuts: cuts, sats: sats, now: time.Now, version: "development"}
	s.bench.known, s.bench.in = map[string]known{}, map[string]bool{}
	for _, o := range opts {
		o(s)
	}
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(gin.CustomRecoveryWithWriter(io.Discard, recovered), headers)
	cfg := huma.DefaultConfig("Ochrestone", "1")
	cfg.OpenAPIPath = "/api/openapi"
	cfg.DocsPath = ""
	cfg.SchemasPath = ""
	cfg.CreateHooks = nil
	cfg.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	cfg.Formats = map[string]huma.Format{"application/json": jsonFormat, "json": jsonFormat}
	s.api = humagin.New(r, cfg)
	s.api.UseMiddleware(s.finite)
	s.cards()
	s.runs()
	s.sittings()
	s.rules()
	s.kit()
	s.scan()
	s.scanners()
	s.proofs()
	s.log()
	s.files(r)
	s.sets(r)
	s.templates(r)
	s.cutting(r)
	s.swatches(r)
	s.drawer(r)
	s.shelves(r)
	s.device(r)
	s.data(r)
	s.about()
	s.bundles()
	s.inkWas()
	s.entries(r)
	s.learned()
	s.lying()
	s.screensRoutes()
	s.static(r)
	s.Handler = guard(http.NewCrossOriginProtection().Handler(newGate().let(r)))
	return s
}

// schemaName names a type in the API's document: those of the plan carry its
// name, since the card has a motif and a layer too.
func schemaName(t reflect.Type, hint string) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	n := huma.DefaultSchemaNamer(t, hint)
	for of, name := range map[string]string{"core/plan": "Plan", "core/look": "Look", "core/standing": "Standing", "core/scene": "Scene", "core/cut": "Cut", "core/foresee": ""} {
		if strings.HasSuffix(t.PkgPath(), of) && t.Kind() == reflect.Struct && n != name {
			return name + n
		}
	}
	return n
}

// OpenAPI returns the API's document as JSON.
func (s *Server) OpenAPI() ([]byte, error) { return s.api.OpenAPI().MarshalJSON() }

// recovered answers when something went wrong beyond words; the program goes on.
func recovered(c *gin.Context, v any) {
	slog.Error("a request went wrong", "path", c.Request.URL.Path, "what", fmt.Sprint(v))
	if !c.Writer.Written() {
		c.JSON(http.StatusInternalServerError, problem(errors.New("panic")))
	}
	c.Abort()
}

// guard answers only to names of this machine, so that a page elsewhere cannot
// reach in by giving this address another name.
func guard(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host := r.Host
		if n, _, err := net.SplitHostPort(host); err == nil {
			host = n
		}
		host = strings.Trim(host, "[]")
		if ip, err := netip.ParseAddr(host); host != "localhost" && (err != nil || !ofTheHouse(ip)) {
			http.Error(w, "Ochrestone answers only to this machine's own address.", http.StatusMisdirectedRequest)
			return
		}
		h.ServeHTTP(w, r)
	})
}

func headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; script-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store")
	}
}

func (s *Server) static(r *gin.Engine) {
	if s.page == nil {
		return
	}
	_ = mime.AddExtensionType(".webmanifest", "application/manifest+json") // fails only for a type that is none
	files := http.FileServerFS(s.page)
	r.NoRoute(func(c *gin.Context) {
		path := strings.TrimPrefix(c.Request.URL.Path, "/")
		if strings.HasPrefix(path, "api/") {
			c.JSON(http.StatusNotFound, gin.H{"type": "/problems/not-found", "title": "There is nothing here.", "status": 404})
			return
		}
		if _, err := fs.Stat(s.page, path); err != nil || path == "" {
			c.Request.URL.Path = "/" // the page finds its own way
			c.Header("Cache-Control", "no-cache")
			for _, l := range ahead(path) {
				c.Writer.Header().Add("Link", l)
			}
		} else if strings.HasPrefix(path, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		}
		files.ServeHTTP(c.Writer, c.Request)
	})
}

// ahead are the Link headers (RFC 8288) of what a place of the page will ask for, so that
// the browser fetches it while the page's script is still read.
func ahead(path string) []string {
	const how = `; rel=preload; as=fetch; crossorigin`
	out := []string{"</api/state>" + how}
	if parts := strings.Split(path, "/"); len(parts) >= 2 && parts[0] == "card" && parts[1] != "" {
		out = append(out, "</api/cards/"+url.PathEscape(parts[1])+">"+how)
	}
	return out
}

// problem turns an error into an RFC 9457 answer with a stable type.
func problem(err error) error {
	model := func(status int, kind, detail string) error {
		return &huma.ErrorModel{Type: "/problems/" + kind, Title: http.StatusText(status), Status: status, Detail: detail}
	}
	var svg *svgin.Problem
	var item kit.Problem
	var pic *picture.Problem
	var jig *sheet.ErrJig
	var trouble *store.Trouble
	var ink *inkfile.Problem
	var far *errOut
	var after *keptError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &after):
		return model(http.StatusInternalServerError, "kept", "The change was kept, but what comes of it could not be answered. Read it again.")
	case errors.Is(err, context.Canceled):
		return model(499, "cancelled", "Stopped. Nothing was kept.")
	case errors.As(err, &far):
		return model(http.StatusUnprocessableEntity, "invalid", words.Capital(far.Error())+". Nothing was changed.")
	case errors.As(err, &trouble):
		status := http.StatusUnprocessableEntity
		if trouble.Disk {
			status = http.StatusInsufficientStorage
		}
		return model(status, "data", trouble.Error())
	case errors.Is(err, store.ErrForeign), errors.Is(err, store.ErrNewer):
		return model(http.StatusUnprocessableEntity, "data", "This is not a backup that can be restored: it is no data file of Ochrestone, or one of a newer version. Nothing was changed.")
	case errors.Is(err, store.ErrTorn):
		return model(http.StatusUnprocessableEntity, "torn", "This card cannot be read as it is stored. It is set apart: look under Stores, Data, where it can be taken out and removed. Everything else works.")
	case errors.As(err, &ink):
		return model(http.StatusUnprocessableEntity, "inks", words.Capital(ink.Error()))
	case errors.As(err, &jig):
		return model(http.StatusUnprocessableEntity, "jig", jig.Error())
	case errors.Is(err, look.ErrUnknown):
		return model(http.StatusNotFound, "not-found", "The card has no such image, colourway or layer any more. Read it again.")
	case errors.Is(err, store.ErrNotFound):
		return model(http.StatusNotFound, "not-found", "It is not here any more. Go back to the bench.")
	case errors.Is(err, store.ErrTaken):
		return model(http.StatusConflict, "taken", "These sheets were taken out of the stores for this run already. Nothing was taken twice; begin another run in Work to cut again.")
	case errors.Is(err, store.ErrChanged):
		return model(http.StatusPreconditionFailed, "changed", "This card was changed in another window after this one had read it. Nothing was overwritten: read it again, then make your change.")
	case errors.Is(err, card.ErrNewer):
		return model(http.StatusUnprocessableEntity, "newer", words.Capital(err.Error())+".")
	case errors.Is(err, card.ErrGone):
		return model(http.StatusConflict, "gone", words.Capital(lastOf(err))+". Nothing was changed: read the card again.")
	case errors.Is(err, card.ErrNoEdit):
		return model(http.StatusUnprocessableEntity, "invalid", words.Capital(err.Error())+". Nothing was changed.")
	case errors.Is(err, store.ErrNothing):
		return model(http.StatusConflict, "nothing", "There is nothing more to undo or redo.")
	case errors.As(err, &svg):
		m := &huma.ErrorModel{Type: "/problems/drawing", Title: "The drawing cannot be read", Status: http.StatusUnprocessableEntity, Detail: svg.Error()}
		m.Errors = []*huma.ErrorDetail{{Message: svg.What + " " + svg.Mend, Location: strings.TrimSpace(fmt.Sprintf("line %d %s", svg.Line, svg.Element))}}
		return m
	case errors.As(err, &pic):
		return model(http.StatusUnprocessableEntity, "picture", pic.Error())
	case errors.As(err, &item):
		m := &huma.ErrorModel{Type: "/problems/invalid", Title: "Something is missing or wrong", Status: http.StatusUnprocessableEntity, Detail: item.What}
		for _, line := range strings.Split(err.Error(), "\n") {
			if path, what, ok := strings.Cut(line, ": "); ok {
				m.Errors = append(m.Errors, &huma.ErrorDetail{Message: what, Location: path})
			}
		}
		return m
	case errors.Is(err, ramp.ErrNoAnswer), errors.Is(err, ramp.ErrNoOptions):
		return model(http.StatusUnprocessableEntity, "no-answer", "Your drawer cannot do this: there are not enough lightnesses between its palest and its deepest ink for so many ranks. Add inks, give some layers the same tone rank, or mark one as an accent.")
	case errors.Is(err, context.DeadlineExceeded):
		return model(http.StatusServiceUnavailable, "slow", "The search took too long. Keep some inks as they are, or mark some layers as accents.")
	}
	slog.Error("request failed", "error", err)
	return model(http.StatusInternalServerError, "internal", "Something went wrong here. What was kept before it is kept: read it again to see, and try once more.")
}

// keptError is what went wrong after a change was on disk, so that no answer says that nothing
// was changed.
type keptError struct{ error }

func (k *keptError) Unwrap() error { return k.error }

// afterwards marks an error, if there is one, as coming after a change was kept.
func afterwards(err error) error {
	if err == nil {
		return nil
	}
	slog.Error("after a change was kept", "error", err)
	return &keptError{err}
}

// plan works a card out, and notes for those who mend the program where one could not be.
func (s *Server) plan(ctx context.Context, id string, c card.Card, k kit.Kit) plan.Plan {
	p := s.planner.Of(c, k, s.assume(ctx)...)
	if p.Failed != "" {
		slog.Error("a card could not be worked out", "card", id, "where", p.Trace)
	}
	return p
}

// lastOf is what an error says of itself, without what was being done.
func lastOf(err error) string {
	text := err.Error()
	if i := strings.LastIndex(text, ": "); i >= 0 {
		return text[i+2:]
	}
	return text
}

// writing is how the person has measures written.
func (s *Server) writing(ctx context.Context) (measure.Writing, Settings) {
	set := s.settings(ctx)
	return measure.Writing{Unit: set.Unit, Den: set.Den}, set
}

// Settings are the person's choices for the whole program.
type Settings struct {
	Unit measure.Unit `json:"unit" enum:"in,mm"`
	Den  int          `json:"den" enum:"16,32,64" doc:"inches are shown to the nearest 1/den"`
	Room int          `json:"room,omitempty" minimum:"0" maximum:"500" doc:"how many pieces may lie drying at once; 0: as many as it takes"`
}

func (s *Server) settings(ctx context.Context) Settings {
	unit, _ := s.store.Setting(ctx, "unit", string(measure.Inches))
	den, _ := s.store.Setting(ctx, "den", "16")
	out := Settings{measure.Unit(unit), 16, 0}
	room, _ := s.store.Setting(ctx, "room", "0")
	if n, err := strconv.Atoi(room); err == nil {
		out.Room = n
	}
	if _, err := fmt.Sscan(den, &out.Den); err != nil {
		out.Den = 16
	}
	return out
}

// suggestFor is how long the search for inks may take.
const suggestFor = 6 * time.Second
