package server

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"golang.org/x/sync/semaphore"
)

// The gate is what everything that comes in passes before it is looked at: one limit for what
// a body may have, by what it is for, one budget of memory for the bodies that are held, and
// one queue before it. Whoever waits is not read yet, so that waiting costs nothing.
type gate struct {
	held    *semaphore.Weighted
	waiting chan struct{}
}

// Our own defaults.
const (
	maxUpload    = 64 << 20  // of a picture, a drawing, a table, a card from elsewhere
	maxRestore   = 2 << 30   // of a data file, which is kept on the disk and not held
	maxWords     = 16 << 20  // of a request without a file: a card's document at most
	mostHeld     = 192 << 20 // bytes of memory for bodies that are held at a time
	mostWaiting  = 64        // requests that wait for room
	smallBody    = 256 << 10 // a body that is held without asking
	stalled      = 30 * time.Second
	drainedFor   = 60 * time.Second // of a refused body, so that the refusal can be told
	drainStalled = 5 * time.Second
)

func newGate() *gate {
	return &gate{semaphore.NewWeighted(mostHeld), make(chan struct{}, mostWaiting)}
}

// streamed are the requests whose body goes to the disk as it comes.
func streamed(path string) bool { return path == "/api/data/restore" || path == "/api/data/look" }

// uploads are the requests that bring files.
func uploads(path string) bool {
	for _, end := range []string{"/proof", "/picture", "/photographs", "/read"} {
		if strings.HasSuffix(path, end) {
			return true
		}
	}
	for _, begin := range []string{"/api/scan", "/api/bundles", "/api/shelf/", "/api/scanners", "/api/inks/", "/api/drawer", "/api/swatches"} {
		if strings.HasPrefix(path, begin) {
			return true
		}
	}
	return strings.Contains(path, "/import")
}

// mostOf is how large the body of a request may be.
func mostOf(r *http.Request) int64 {
	switch {
	case streamed(r.URL.Path):
		return maxRestore
	case uploads(r.URL.Path):
		return maxUpload
	}
	return maxWords
}

// let lets requests in. A body that is too large is refused, and so is one past those that may
// wait; what is still coming of it is read and thrown away, so that the refusal arrives.
func (g *gate) let(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Body == nil || r.Body == http.NoBody {
			h.ServeHTTP(w, r)
			return
		}
		body, give := r.Body, http.NewResponseController(w)
		defer drain(body, give)
		most := mostOf(r)
		if r.ContentLength > most {
			answer(w, tooLarge(r.ContentLength, most))
			return
		}
		leave, err := g.enter(r, most)
		if err != nil {
			answer(w, &huma.ErrorModel{Type: "/problems/busy", Title: "Busy", Status: http.StatusServiceUnavailable, Detail: fmt.Sprintf("%d pictures, drawings or tables wait already. Nothing was taken in; try again in a moment.", mostWaiting)})
			return
		}
		defer leave()
		// A body that stops coming in is given up.
		r.Body = &patient{ReadCloser: http.MaxBytesReader(w, body, most), give: give}
		h.ServeHTTP(w, r)
	})
}

// enter waits until there is room for a body.
func (g *gate) enter(r *http.Request, most int64) (leave func(), err error) {
	n := r.ContentLength
	if n < 0 {
		n = most // nobody said
	}
	if n <= smallBody && r.ContentLength >= 0 || streamed(r.URL.Path) {
		return func() {}, nil
	}
	n = min(2*n, mostHeld) // it is read into a buffer that grows by doubling
	if !g.held.TryAcquire(n) {
		select {
		case g.waiting <- struct{}{}:
		default:
			return nil, errBusy
		}
		err := g.held.Acquire(r.Context(), n)
		<-g.waiting
		if err != nil {
			return nil, err
		}
	}
	return func() { g.held.Release(n) }, nil
}

var errBusy = fmt.Errorf("too much waits to come in: %w", context.DeadlineExceeded)

func tooLarge(n, most int64) *huma.ErrorModel {
	return &huma.ErrorModel{Type: "/problems/too-large", Title: "Too large", Status: http.StatusRequestEntityTooLarge, Detail: fmt.Sprintf("It has %d MB; at most %d MB are taken in. Nothing was changed: make it smaller, then try again.", n>>20, most>>20)}
}

// drain throws away what is still coming of a body, for so long, so that whoever sends it hears
// the answer instead of a broken connection.
func drain(body io.Reader, give *http.ResponseController) {
	end := time.Now().Add(drainedFor)
	buf := make([]byte, 4<<10)
	for time.Now().Before(end) {
		_ = give.SetReadDeadline(time.Now().Add(drainStalled)) // not every writer has one
		if _, err := body.Read(buf); err != nil {
			break
		}
	}
	_ = give.SetReadDeadline(time.Time{})
}

// patient moves the deadline of reading on with everything that comes in.
// One that comes in too slowly as a whole is given up as well.
type patient struct {
	io.ReadCloser
	give  *http.ResponseController
	began time.Time
	n     int64
}

// slowest is how few bytes a second a body may come in at, after the first minute.
const slowest = 16 << 10

func (p *patient) Read(b []byte) (int, error) {
	now := time.Now()
	if p.began.IsZero() {
		p.began = now
	}
	if now.Sub(p.began) > time.Minute+time.Duration(p.n/slowest)*time.Second {
		return 0, fmt.Errorf("it comes in too slowly: %w", context.DeadlineExceeded)
	}
	_ = p.give.SetReadDeadline(now.Add(stalled)) // not every writer has one
	n, err := p.ReadCloser.Read(b)
	p.n += int64(n)
	if err != nil {
		_ = p.give.SetReadDeadline(time.Time{})
	}
	return n, err
}
