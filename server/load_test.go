package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Many screens at once, each ticking steps of its own, reading, renaming and writing the log: all
// that was answered well is there in the end, and nothing is answered badly.
func TestManyScreensAtOnce(t *testing.T) {
	s := testServer(t)
	sat := read[Sitting](t, call(s, http.MethodGet, "/api/cards/moth/sitting", ""))
	steps := make([]string, len(sat.Steps))
	for i, a := range sat.Steps {
		b, err := json.Marshal(a.ID)
		require.NoError(t, err)
		steps[i] = string(b)
	}
	const screens = 12
	var all sync.WaitGroup
	var mu sync.Mutex
	renamed := 0
	for n := range screens {
		all.Go(func() {
			for i := n; i < len(steps); i += screens {
				w := call(s, http.MethodPost, "/api/cards/moth/run/done", `{"done":true,"steps":[`+steps[i]+`]}`)
				assert.Equal(t, http.StatusOK, w.Code, w.Body.String())
			}
			for _, at := range []string{"/api/cards", "/api/cards/moth", "/api/state", "/api/cards/moth/entries", "/api/cards/moth/front.svg"} {
				assert.Equal(t, http.StatusOK, call(s, http.MethodGet, at, "").Code, at)
			}
			v := read[View](t, call(s, http.MethodGet, "/api/cards/beetles", ""))
			w := call(s, http.MethodPost, "/api/cards/beetles/edits", fmt.Sprintf(`{"edits":[{"rename":{"title":"By screen %d"}}]}`, n), "If-Match", fmt.Sprintf("%q", fmt.Sprint(v.Version)))
			switch w.Code {
			case http.StatusOK:
				mu.Lock()
				renamed++
				mu.Unlock()
			case http.StatusPreconditionFailed: // another was quicker, and it is said
			default:
				t.Errorf("an edit was answered with %d: %s", w.Code, w.Body.String())
			}
		})
	}
	all.Wait()
	assert.Len(t, read[Sitting](t, call(s, http.MethodGet, "/api/cards/moth/sitting", "")).Run.Done, len(steps))
	v := read[View](t, call(s, http.MethodGet, "/api/cards/beetles", ""))
	assert.EqualValues(t, 1+renamed, v.Version, "every edit that was answered well is there, and no other")
	assert.Positive(t, renamed)
}

// BenchmarkManyScreens is how long a tick and a look take while sixteen screens do the same.
func BenchmarkManyScreens(b *testing.B) {
	s := testServer(b)
	var sat Sitting
	require.NoError(b, json.Unmarshal(call(s, http.MethodGet, "/api/cards/moth/sitting", "").Body.Bytes(), &sat))
	step, err := json.Marshal(sat.Steps[0].ID)
	require.NoError(b, err)
	var mu sync.Mutex
	var took []time.Duration
	for b.Loop() {
		var all sync.WaitGroup
		for n := range 16 {
			all.Go(func() {
				for k := range 10 {
					at := time.Now()
					w := call(s, http.MethodPost, "/api/cards/moth/run/done", fmt.Sprintf(`{"done":%v,"steps":[%s]}`, (n+k)%2 == 0, step))
					r := call(s, http.MethodGet, "/api/cards/moth/now", "")
					mu.Lock()
					took = append(took, time.Since(at))
					mu.Unlock()
					if w.Code != http.StatusOK || r.Code != http.StatusOK {
						b.Errorf("answered with %d and %d", w.Code, r.Code)
					}
				}
			})
		}
		all.Wait()
	}
	slices.Sort(took)
	b.ReportMetric(float64(took[len(took)/2].Microseconds())/1000, "ms/half")
	b.ReportMetric(float64(took[len(took)*95/100].Microseconds())/1000, "ms/95%")
}
