// Package memory remembers what was worked out by everything it depends on.
package memory

import (
	"fmt"

	lru "github.com/hashicorp/golang-lru/v2"
)

// Of remembers so many values by their keys; the one not asked for the longest goes
// first. It is safe for use by several goroutines.
type Of[K comparable, V any] struct{ have *lru.Cache[K, V] }

// New returns an empty memory of so many values, at least one.
func New[K comparable, V any](most int) *Of[K, V] {
	have, err := lru.New[K, V](max(1, most))
	if err != nil {
		panic(fmt.Sprintf("a memory of %d values: %v", most, err)) // only for sizes below 1
	}
	return &Of[K, V]{have}
}

// Get gives what is remembered for a key, or works it out. An error is returned and
// not remembered. Where several goroutines work the same out at once, all get the
// value of the first to finish.
func (m *Of[K, V]) Get(key K, work func() (V, error)) (V, error) {
	if v, ok := m.have.Get(key); ok {
		return v, nil
	}
	v, err := work()
	if err != nil {
		return v, err
	}
	if first, had, _ := m.have.PeekOrAdd(key, v); had {
		return first, nil
	}
	return v, nil
}
