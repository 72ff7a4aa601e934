package plan

import (
	"errors"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is worked out is worked out once, errors again; the oldest is forgotten.
func TestAMemoForgetsTheOldest(t *testing.T) {
	var m memo[int, int]
	worked := 0
	ask := func(k int) int {
		v, err := m.of(k, 3, func() (int, error) { worked++; return 10 * k, nil })
		require.NoError(t, err)
		return v
	}
	for _, k := range []int{1, 2, 3, 2, 1} {
		assert.Equal(t, 10*k, ask(k))
	}
	assert.Equal(t, 3, worked)
	ask(4)
	ask(3)
	assert.Equal(t, 4, worked)
	ask(1)
	assert.Equal(t, 5, worked, "the oldest was forgotten")

	wrong := errors.New("wrong")
	for range 2 {
		_, err := m.of(9, 3, func() (int, error) { worked++; return 0, wrong })
		require.ErrorIs(t, err, wrong)
	}
	assert.Equal(t, 7, worked, "an error is not kept")
}

func TestAMemoForMany(t *testing.T) {
	var m memo[int, int]
	var n atomic.Int64
	var wg sync.WaitGroup
	for i := range 200 {
		wg.Go(func() {
			v, err := m.of(i%10, 20, func() (int, error) { n.Add(1); return i % 10, nil })
			assert.NoError(t, err)
			assert.Equal(t, i%10, v)
		})
	}
	wg.Wait()
	assert.GreaterOrEqual(t, n.Load(), int64(10))
	assert.Len(t, m.age, 10, "each key once, however many worked at it")
}
