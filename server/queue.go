package server

import (
	"context"
	"fmt"
	"runtime/debug"
	"slices"
	"sync"
)

// queue lets one heavy job run at a time: pictures, drawings and large dies would
// add their memory up otherwise. Who waits knows its place.
type queue struct {
	mu      sync.Mutex
	running bool
	waiting []*ticket
}

// ticket is a place in the queue.
type ticket struct {
	go_   chan struct{} // closed when it is its turn
	moved chan struct{} // has something when the place changed
}

// enter waits for the job's turn, telling its place whenever that changes, and
// returns what ends it. It gives up with the context's error.
func (q *queue) enter(ctx context.Context, tell func(before int)) (leave func(), err error) {
	q.mu.Lock()
	if !q.running {
		q.running = true
		q.mu.Unlock()
		return q.leave, nil
	}
	t := &ticket{go_: make(chan struct{}), moved: make(chan struct{}, 1)}
	q.waiting = append(q.waiting, t)
	t.moved <- struct{}{}
	q.mu.Unlock()
	for {
		select {
		case <-t.go_:
			return q.leave, nil
		case <-t.moved:
			q.mu.Lock()
			at := slices.Index(q.waiting, t)
			q.mu.Unlock()
			if at >= 0 && tell != nil {
				tell(at + 1)
			}
		case <-ctx.Done():
			q.mu.Lock()
			at := slices.Index(q.waiting, t)
			if at >= 0 {
				q.waiting = slices.Delete(q.waiting, at, at+1)
				q.nudge()
			}
			q.mu.Unlock()
			if at < 0 {
				q.leave() // its turn came while it gave up
			}
			return nil, ctx.Err()
		}
	}
}

// leave ends the job that runs: its memory is given back, and the next begins.
func (q *queue) leave() {
	debug.FreeOSMemory()
	q.mu.Lock()
	defer q.mu.Unlock()
	if len(q.waiting) == 0 {
		q.running = false
		return
	}
	next := q.waiting[0]
	q.waiting = q.waiting[1:]
	q.nudge()
	close(next.go_)
}

func (q *queue) nudge() {
	for _, t := range q.waiting {
		select {
		case t.moved <- struct{}{}:
		default:
		}
	}
}

// heavy runs a job in its turn.
func heavy[T any](ctx context.Context, q *queue, tell func(float64, string), job func() (T, error)) (T, error) {
	var none T
	leave, err := q.enter(ctx, func(before int) {
		if tell != nil {
			tell(0, waits(before))
		}
	})
	if err != nil {
		return none, err
	}
	defer leave()
	return job()
}

func waits(before int) string {
	if before == 1 {
		return "Waiting: one job is before this"
	}
	return fmt.Sprintf("Waiting: %d jobs are before this", before)
}
