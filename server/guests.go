package server

import (
	"context"
	"errors"
	"html/template"
	"net/http"
	"net/netip"
	"path"
	"regexp"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/kit"
)

// What another screen may ask for: what Work, Cut and Log show of the cards, the stores' names,
// and the log; and to tick, count and time steps, begin another run, and write to the run in
// hand. All else is done where Ochrestone runs. What is not listed here is refused.
var (
	guestsSee = regexp.MustCompile(`^/api/(state|bench|cards|cards/[^/]+(/(now|sitting|sitting/state|standing|front\.svg|kept/(front|strata)\.svg|waits\.ics|cutting|cutting\.pdf|cutting\.csv|cutting/[^/]+/[0-9]+|entries|entries/[0-9]+))?|rules|log|entries|learned|photographs/[0-9]+\.jpg|fitting|screens)$`)
	guestsDo  = regexp.MustCompile(`^(POST /api/(cards/[^/]+/run/(done|used|count|left|timers|another)|cards/[^/]+/entries/[0-9]+/photographs)|PUT /api/cards/[^/]+/entries/[0-9]+)$`)
)

var public = map[string]bool{"/manifest.webmanifest": true, "/icon.svg": true, "/icon-192.png": true, "/icon-512.png": true}

// forGuests answers the other screens.
func (s *Server) forGuests() http.Handler {
	door := http.NewCrossOriginProtection().Handler(http.HandlerFunc(s.joinPage))
	return guard(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		// A machine may stand in the internet as well: nobody there is let to the door.
		if from, err := netip.ParseAddrPort(r.RemoteAddr); err != nil || !ofTheHouse(from.Addr()) {
			answer(w, &huma.ErrorModel{Type: "/problems/shut-out", Title: "Not let in", Status: http.StatusForbidden, Detail: "Ochrestone answers to its own house alone."})
			return
		}
		if r.URL.Path == "/join" {
			door.ServeHTTP(w, r)
			return
		}
		if public[r.URL.Path] { // browsers ask for these without a cookie, and they tell nothing
			s.Handler.ServeHTTP(w, r)
			return
		}
		var in context.Context
		is := false
		c, err := r.Cookie(s.screens.cookie())
		if err == nil {
			in, is = s.screens.isIn(c.Value, s.now())
		}
		if !is {
			if r.Method == http.MethodGet && !strings.HasPrefix(r.URL.Path, "/api/") {
				http.Redirect(w, r, "/join", http.StatusSeeOther)
				return
			}
			answer(w, &huma.ErrorModel{Type: "/problems/shut-out", Title: "Not let in", Status: http.StatusUnauthorized, Detail: "This screen is not let in, or was taken back. Open the address again and type the code that Ochrestone shows."})
			return
		}
		if path.Clean(r.URL.Path) != strings.TrimSuffix(r.URL.Path, "/") && r.URL.Path != "/" {
			answer(w, &huma.ErrorModel{Type: "/problems/elsewhere", Title: "Not from here", Status: http.StatusForbidden, Detail: "That is no address of Ochrestone."})
			return
		}
		see := r.Method == http.MethodGet || r.Method == http.MethodHead
		if strings.HasPrefix(r.URL.Path, "/api/") && !(see && guestsSee.MatchString(r.URL.Path)) && !guestsDo.MatchString(r.Method+" "+r.URL.Path) {
			answer(w, &huma.ErrorModel{Type: "/problems/elsewhere", Title: "Not from here", Status: http.StatusForbidden, Detail: "This screen ticks steps and writes the log. Do that on the machine Ochrestone runs on."})
			return
		}
		if m := ofRun.FindStringSubmatch(r.URL.Path); m != nil && !see && !s.inHand(r.Context(), m[1], m[2]) {
			answer(w, &huma.ErrorModel{Type: "/problems/elsewhere", Title: "Not from here", Status: http.StatusForbidden, Detail: "This screen writes to the run in hand. What was made before is written to on the machine Ochrestone runs on."})
			return
		}
		// What it has begun ends when it is taken back.
		ctx, end := context.WithCancel(context.WithValue(r.Context(), guestKey{}, true))
		defer end()
		defer context.AfterFunc(in, end)()
		s.Handler.ServeHTTP(w, r.WithContext(ctx))
	}))
}

// ofRun are the addresses of a run of a card.
var ofRun = regexp.MustCompile(`^/api/cards/([^/]+)/entries/([0-9]+)(?:/photographs)?$`)

// inHand reports whether a run is the one under way of a card.
func (s *Server) inHand(ctx context.Context, id, run string) bool {
	r, err := s.store.Run(ctx, id)
	return err == nil && r.ID != 0 && strconv.FormatInt(r.ID, 10) == run
}

// shownKit is a kit as another screen sees it: what things are called, and their colours.
func shownKit(k kit.Kit) kit.Kit {
	out := kit.Kit{Sets: []kit.Set{}, Inks: []kit.Ink{}, Papers: []kit.Cardstock{}, Spacers: []kit.Spacer{}, Adhesives: []kit.Adhesive{}, Envelopes: []kit.Envelope{}, Gems: []kit.Gem{}, Machines: []kit.Machine{}, Swatches: []kit.Swatch{}}
	for _, v := range k.Sets {
		s := kit.Set{ID: v.ID, Name: v.Name, Kind: v.Kind, Parts: []kit.Part{}}
		for _, p := range v.Parts {
			s.Parts = append(s.Parts, kit.Part{ID: p.ID, Label: p.Label})
		}
		out.Sets = append(out.Sets, s)
	}
	for _, v := range k.Inks {
		out.Inks = append(out.Inks, kit.Ink{ID: v.ID, Name: v.Name, Kind: v.Kind, Family: v.Family, Depth: v.Depth, Dry: v.Dry, Wet: v.Wet})
	}
	for _, v := range k.Papers {
		out.Papers = append(out.Papers, kit.Cardstock{ID: v.ID, Name: v.Name, Kind: v.Kind, Colour: v.Colour})
	}
	for _, v := range k.Spacers {
		out.Spacers = append(out.Spacers, kit.Spacer{ID: v.ID, Name: v.Name, Kind: v.Kind})
	}
	for _, v := range k.Adhesives {
		out.Adhesives = append(out.Adhesives, kit.Adhesive{ID: v.ID, Name: v.Name, Kind: v.Kind})
	}
	for _, v := range k.Envelopes {
		out.Envelopes = append(out.Envelopes, kit.Envelope{ID: v.ID, Name: v.Name})
	}
	for _, v := range k.Gems {
		out.Gems = append(out.Gems, kit.Gem{ID: v.ID, Name: v.Name, Size: v.Size, Height: v.Height, Colour: v.Colour})
	}
	return out
}

// joinWithin is how long the form with the code may take to come in.
const joinWithin = 10 * time.Second

var joinForm = template.Must(template.New("join").Parse(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Ochrestone: another screen</title>
<style>body{font:18px/1.5 sans-serif;background:#cfcfcd;color:#23262b;margin:0;display:grid;place-items:center;min-height:100vh}main{background:#f4f4f2;padding:28px 32px;max-width:26em;border:1px solid #b9b9b6}input{font:600 24px/1.4 monospace;letter-spacing:.15em;width:11em;max-width:100%;padding:8px 10px;border:1px solid #5b626b;text-transform:uppercase;display:block;margin:6px 0 16px}button{font:700 18px sans-serif;background:#7a4a00;color:#fff;border:0;padding:12px 22px}p[role=alert]{color:#8c1f2f}</style></head>
<body><main><h1>Another screen</h1><p>Ochrestone shows a code where it runs, under <b>Show on another screen</b>.</p>{{with .Wrong}}<p role="alert">{{.}}.</p>{{end}}
<form method="post" action="/join"><label>The code <input name="code" value="{{.Code}}" autocomplete="off" autocapitalize="characters" spellcheck="false" required maxlength="20"></label><button>Let this screen in</button></form></main></body></html>`))

// joinPage asks for the code, and lets the device in that knows it.
func (s *Server) joinPage(w http.ResponseWriter, r *http.Request) {
	h := w.Header()
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin") // with none, browsers say of no form where it comes from
	h.Set("Cache-Control", "no-store")
	page := struct{ Code, Wrong string }{Code: r.URL.Query().Get("code")}
	status := http.StatusOK
	if r.Method == http.MethodPost {
		// A form that stays half sent is given up.
		give := http.NewResponseController(w)
		_ = give.SetReadDeadline(time.Now().Add(joinWithin)) // not every writer has one
		r.Body = http.MaxBytesReader(w, r.Body, 1<<12)
		code := r.PostFormValue("code")
		_ = give.SetReadDeadline(time.Time{})
		token, err := s.screens.join(addressOf(r.RemoteAddr), code, s.now())
		if err == nil {
			http.SetCookie(w, &http.Cookie{Name: s.screens.cookie(), Value: token, Path: "/", MaxAge: int(staysIn.Seconds()), HttpOnly: true, SameSite: http.SameSiteStrictMode})
			http.Redirect(w, r, "/", http.StatusSeeOther)
			return
		}
		page.Wrong, status = err.Error(), http.StatusForbidden
		if errors.Is(err, errTries) {
			status = http.StatusTooManyRequests
			h.Set("Retry-After", "60")
		}
	}
	h.Set("Content-Type", "text/html; charset=utf-8")
	w.WriteHeader(status)
	_ = joinForm.Execute(w, page)
}
