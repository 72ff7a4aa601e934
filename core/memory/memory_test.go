package memory

import (
	"errors"
	"sync"
	"sync/atomic"
	"testing"

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

// Many who ask for one key at once, all before any is done, get what the first to
// finish remembered, and it is remembered once.
func TestManyAskAtOnce(t *testing.T) {
	const many = 8
	m := New[int, *int](20)
	for key := range 10 {
		var n atomic.Int64
		var ready, wg sync.WaitGroup
		ready.Add(many)
		got := make([]*int, many)
		for i := range many {
			wg.Go(func() {
				v, err := m.Get(key, func() (*int, error) {
					ready.Done()
					ready.Wait() // nobody is done before all have begun
					n.Add(1)
					return &i, nil
				})
				assert.NoError(t, err)
				got[i] = v
			})
		}
		wg.Wait()
		assert.EqualValues(t, many, n.Load())
		kept, err := m.Get(key, func() (*int, error) { return nil, errors.New("it is not remembered") })
		require.NoError(t, err)
		for _, v := range got {
			assert.Same(t, kept, v, "all have the one that is kept")
		}
		assert.Equal(t, key+1, m.have.Len(), "each key once, however many worked at it")
	}
}
