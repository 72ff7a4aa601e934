package store

import (
	"context"
	"fmt"
	"math"
	"path/filepath"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/core/shape"
)

func openAt(t testing.TB, path string) *Store {
	s, err := Open(context.Background(), path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func someSet(id string) kit.Set {
	return kit.Set{ID: id, Name: id, Parts: []kit.Part{{ID: "a", Label: "A", Outline: shape.Rect(0, 0, 4, 4), Copies: 1, Rank: 1}}}
}

// What is remembered of the kit is never older than the last change, and what
// callers do to their copy stays theirs.
func TestRememberedKitIsTheKit(t *testing.T) {
	ctx := context.Background()
	s := openAt(t, filepath.Join(t.TempDir(), "a.db"))
	require.NoError(t, s.Put(ctx, KindSet, "one", someSet("one")))
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	k.Sets[0].Name, k.Sets[0].Parts[0].Label = "spoilt", "spoilt"
	k.Sets = append(k.Sets, someSet("stray"))
	again, err := s.Kit(ctx)
	require.NoError(t, err)
	require.Len(t, again.Sets, 1)
	assert.Equal(t, "one", again.Sets[0].Name)
	assert.Equal(t, "A", again.Sets[0].Parts[0].Label)
	require.NoError(t, s.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Gorse"}))
	again, err = s.Kit(ctx)
	require.NoError(t, err)
	assert.Len(t, again.Inks, 1, "a change is seen at once")
	require.NoError(t, s.Take(ctx, KindSet, "one"))
	again, err = s.Kit(ctx)
	require.NoError(t, err)
	assert.Empty(t, again.Sets)
}

// Another program that writes the same file is noticed.
// Of items stored together one that cannot be written takes the others with it.
func TestItemsStoredTogetherAreAllOrNone(t *testing.T) {
	ctx := context.Background()
	s := openAt(t, filepath.Join(t.TempDir(), "a.db"))
	good := Item{KindInk, "i", kit.Ink{ID: "i", Name: "Gorse"}}
	assert.ErrorContains(t, s.PutAll(ctx, good, Item{KindInk, "j", math.NaN()}), `store inks "j"`)
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	assert.Empty(t, k.Inks)
	require.NoError(t, s.PutAll(ctx, good, Item{KindSet, "one", someSet("one")}))
	k, err = s.Kit(ctx)
	require.NoError(t, err)
	assert.Len(t, k.Inks, 1)
	assert.Len(t, k.Sets, 1)
}

func TestChangesByOthersAreSeen(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "a.db")
	one := openAt(t, path)
	two, err := unlocked(ctx, path) // as another program would that knows of no lock
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, two.Close()) })
	_, err = one.Kit(ctx)
	require.NoError(t, err)
	require.NoError(t, two.Put(ctx, KindInk, "i", kit.Ink{ID: "i", Name: "Gorse"}))
	k, err := one.Kit(ctx)
	require.NoError(t, err)
	assert.Len(t, k.Inks, 1)
}

func TestManyAtOnceNeverSeeAnOldKit(t *testing.T) {
	ctx := context.Background()
	s := openAt(t, filepath.Join(t.TempDir(), "a.db"))
	var wg sync.WaitGroup
	for w := range 4 {
		wg.Go(func() {
			for i := range 25 {
				id := fmt.Sprint(w, "-", i)
				if !assert.NoError(t, s.Put(ctx, KindInk, id, kit.Ink{ID: id, Name: id})) {
					return
				}
				k, err := s.Kit(ctx)
				if !assert.NoError(t, err) {
					return
				}
				_, ok := k.Ink(id)
				assert.True(t, ok, "%s is there once it was stored", id)
			}
		})
	}
	wg.Wait()
	k, err := s.Kit(ctx)
	require.NoError(t, err)
	assert.Len(t, k.Inks, 100)
}

func BenchmarkKitOf300Sets(b *testing.B) {
	ctx := context.Background()
	s := openAt(b, filepath.Join(b.TempDir(), "a.db"))
	for i := range 300 {
		set := someSet(fmt.Sprint(i))
		for range 8 {
			set.Parts = append(set.Parts, kit.Part{ID: fmt.Sprint(len(set.Parts)), Outline: shape.Disc(shape.Point{}, 30), Copies: 1, Rank: 1})
		}
		require.NoError(b, s.Put(ctx, KindSet, set.ID, set))
	}
	for b.Loop() {
		if _, err := s.Kit(ctx); err != nil {
			b.Fatal(err)
		}
	}
}
