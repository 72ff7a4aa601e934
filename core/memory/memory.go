// Package memory remembers what was worked out by everything it depends on.
package memory

import (
	"fmt"

	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/singleflight"
)

// Of remembers so many values by their keys; the one not asked for the longest goes
// first. It is safe for use by several goroutines.
type Of[K comparable, V any] struct {
	have *lru.Cache[K, V]
	now  singleflight.Group // what is being worked out
}

// New returns an empty memory of so many values, at least one.
func New[K comparable, V any](most int) *Of[K, V] {
	have, err := lru.New[K, V](max(1, most))
	if err != nil {
		panic(fmt.Sprintf("a memory of %d values: %v", most, err)) // only for sizes below 1
	}
	return &Of[K, V]{have: have}
}

// Get gives what is remembered for a key, or works it out. An error is returned and
// not remembered. Where several goroutines ask for the same at once, one works it out and
// the others wait for it; where it fails they work it out themselves, as it may have been given up.
func (m *Of[K, V]) Get(key K, work func() (V, error)) (V, error) {
	if v, ok := m.have.Get(key); ok {
		return v, nil
	}
	mine := false
	got, err, _ := m.now.Do(fmt.Sprintf("%#v", key), func() (any, error) {
		mine = true
		if v, ok := m.have.Get(key); ok {
			return v, nil // it was ready just now
		}
		v, err := work()
		if err == nil {
			m.have.Add(key, v)
		}
		return v, err
	})
	if err != nil && !mine {
		return work()
	}
	v, _ := got.(V)
	return v, err
}
