package main

import (
	"context"
	"io"
	"net"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An answer being given when the program is told to end is given whole before the caller
// goes on to close the data file.
func TestTheEndWaitsForAnswers(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, end := context.WithCancel(context.Background())
	asked, given := make(chan struct{}), make(chan string, 1)
	slow := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		close(asked)
		end()
		time.Sleep(200 * time.Millisecond)
		given <- "given"
		_, _ = io.WriteString(w, "whole")
	})
	got := make(chan string, 1)
	go func() {
		r, err := http.Get("http://" + l.Addr().String())
		if err != nil {
			got <- err.Error()
			return
		}
		defer func() { _ = r.Body.Close() }()
		b, _ := io.ReadAll(r.Body)
		got <- string(b)
	}()
	require.NoError(t, answer(ctx, slow, l))
	<-asked
	require.Len(t, given, 1, "the answer was still being made")
	assert.Equal(t, "whole", <-got)
}
