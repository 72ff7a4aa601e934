package together

import (
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestEachIsDoneOnce(t *testing.T) {
	var done [1000]atomic.Int32
	By(len(done), func(i int) { done[i].Add(1) })
	for i := range done {
		assert.EqualValues(t, 1, done[i].Load())
	}
	By(0, func(int) { t.Fatal("there is nothing to do") })
}

func TestAPanicOnTheSideComesBack(t *testing.T) {
	defer func() {
		p, ok := recover().(*Panic)
		assert.True(t, ok)
		assert.Equal(t, "five", p.Value)
		assert.Contains(t, p.Error(), "together_test.go")
	}()
	By(10, func(i int) {
		if i == 5 {
			panic("five")
		}
	})
	t.Fatal("it should not come to this")
}

func TestAheadGivesWhatItMadeAndRaisesItsPanic(t *testing.T) {
	wait := Ahead(func() int { return 7 })
	assert.Equal(t, 7, wait())
	assert.Equal(t, 7, wait(), "asked again")
	bad := Ahead(func() int { panic("no") })
	assert.Panics(t, func() { bad() })
}
