package memory

import (
	"errors"
	"sync"
	"sync/atomic"
	"testing"
	"testing/synctest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is worked out is worked out once, errors again; what was not asked for the longest is
// forgotten.
func TestTheLeastAskedForIsForgotten(t *testing.T) {
	m := New[int, int](3)
	worked := 0
	ask := func(k int) int {
		v, err := m.Get(k, func() (int, error) { worked++; return 10 * k, nil })
		require.NoError(t, err)
		return v
	}
	for _, k := range []int{1, 2, 3, 2, 1} {
		assert.Equal(t, 10*k, ask(k))
	}
	assert.Equal(t, 3, worked)
	ask(4)
	ask(1)
	assert.Equal(t, 4, worked)
	ask(3)
	assert.Equal(t, 5, worked, "it was not asked for the longest")

	wrong := errors.New("wrong")
	for range 2 {
		_, err := m.Get(9, func() (int, error) { worked++; return 0, wrong })
		require.ErrorIs(t, err, wrong)
	}
	assert.Equal(t, 7, worked, "an error is not kept")
}

// Of many who ask for one key at once one works it out, and all get what it found; where it gives
// up, each of the others works it out itself.
func TestManyAskAtOnce(t *testing.T) {
	for _, first := range []error{nil, errors.New("given up")} {
		synctest.Test(t, func(t *testing.T) {
			const many = 8
			m := New[[2]string, *int](20)
			var n atomic.Int64
			on := make(chan struct{})
			var wg sync.WaitGroup
			got, failed := make([]*int, many), make([]error, many)
			for i := range many {
				wg.Go(func() {
					got[i], failed[i] = m.Get([2]string{"a b", "c"}, func() (*int, error) {
						if n.Add(1) == 1 {
							<-on
							return &i, first
						}
						return &i, nil
					})
				})
			}
			synctest.Wait() // all have asked
			assert.EqualValues(t, 1, n.Load(), "one works it out")
			other, err := m.Get([2]string{"a", "b c"}, func() (*int, error) { return new(int), nil })
			require.NoError(t, err, "another key waits for nobody")
			assert.Zero(t, *other)
			close(on)
			wg.Wait()
			wrong := 0
			for i := range many {
				if failed[i] != nil {
					wrong++
					continue
				}
				require.NotNil(t, got[i])
				if first == nil {
					assert.Same(t, got[0], got[i])
				}
			}
			if first == nil {
				assert.EqualValues(t, 1, n.Load())
				assert.Zero(t, wrong)
			} else {
				assert.EqualValues(t, many, n.Load())
				assert.Equal(t, 1, wrong, "only the first was given up")
			}
		})
	}
}
