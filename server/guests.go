package server

import (
	"context"
	"errors"
	"html/template"
	"net/http"
	"net/netip"
	"path"
	"regexp"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// What another screen may ask for: to see cards, the stores' names and the log, and to tick,
// count and time steps and write the log. All else is done where Ochrestone runs.
var (
	guestsSee = regexp.MustCompile(`^/api/(state|cards|cards/[^/]+(/.*)?|rules|log|entries|learned|photographs/[0-9]+\.jpg|fitting|drawer|length|screens)$`)
	guestsDo  = regexp.MustCompile(`^(POST /api/(cards/[^/]+/run/(done|used|count|left|timers)|cards/[^/]+/entries/[0-9]+/photographs|log)|PUT /api/cards/[^/]+/entries/[0-9]+)$`)
)

var public = map[string]bool{"/manifest.webmanifest": true, "/icon.svg": true, "/icon-192.png": true, "/icon-512.png": true}

// forGuests answers the other screens.
func (s *Server) forGuests() http.Handler {
	open := http.NewServeMux()
	open.HandleFunc("/join", s.joinPage)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		// A machine may stand in the internet as well: nobody there is let to the door.
		if from, err := netip.ParseAddrPort(r.RemoteAddr); err != nil || !ofTheHouse(from.Addr()) {
			answer(w, &huma.ErrorModel{Type: "/problems/shut-out", Title: "Not let in", Status: http.StatusForbidden, Detail: "Ochrestone answers to its own house alone."})
			return
		}
		if r.URL.Path == "/join" {
			open.ServeHTTP(w, r)
			return
		}
		if public[r.URL.Path] { // browsers ask for these without a cookie, and they tell nothing
			s.Handler.ServeHTTP(w, r)
			return
		}
		c, err := r.Cookie(cookieName)
		if err != nil || !s.screens.isIn(c.Value, s.now()) {
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
		s.Handler.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), guestKey{}, true)))
	})
}

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
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cache-Control", "no-store")
	page := struct{ Code, Wrong string }{Code: r.URL.Query().Get("code")}
	status := http.StatusOK
	if r.Method == http.MethodPost {
		r.Body = http.MaxBytesReader(w, r.Body, 1<<12)
		token, err := s.screens.join(r.PostFormValue("code"), s.now())
		if err == nil {
			http.SetCookie(w, &http.Cookie{Name: cookieName, Value: token, Path: "/", MaxAge: int(staysIn.Seconds()), HttpOnly: true, SameSite: http.SameSiteStrictMode})
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
