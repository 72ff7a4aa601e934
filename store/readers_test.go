package store

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
)

// While something is being written nobody who only looks waits for it: cards, lists, settings and
// the stores are read as they were, and as they are once it is written.
func TestLookingWaitsForNoWrite(t *testing.T) {
	s := open(t, t.TempDir()+"/a.db")
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	require.NoError(t, s.Put(ctx, "inks", "a", kit.Ink{ID: "a", Name: "A", Kind: kit.Dye, Dry: "#808080"}))
	before, err := s.Kit(ctx)
	require.NoError(t, err)
	tx, err := s.db.BeginTx(ctx, nil)
	require.NoError(t, err)
	_, err = tx.ExecContext(ctx, `INSERT INTO settings (name, value) VALUES ('slow', '1')`)
	require.NoError(t, err)
	k, err := s.Kit(ctx)
	require.NoError(t, err, "the stores")
	assert.Equal(t, before.Inks, k.Inks)
	_, err = s.Cards(ctx)
	require.NoError(t, err, "the cards")
	_, err = s.Rows(ctx)
	require.NoError(t, err, "the list")
	all, err := s.Settings(ctx)
	require.NoError(t, err, "the settings")
	assert.NotContains(t, all, "slow", "not yet")
	require.NoError(t, tx.Commit())
	all, err = s.Settings(ctx)
	require.NoError(t, err)
	assert.Contains(t, all, "slow", "what is written is seen at once")
}
