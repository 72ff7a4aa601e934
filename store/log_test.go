package store_test

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/store"
)

// What is logged together is read back newest first, outlives a restart, and is
// taken back together.
func TestTheLogOfPlacements(t *testing.T) {
	path := filepath.Join(t.TempDir(), "data.db")
	s, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	first, err := s.Log(t.Context(), []store.Placement{
		{Card: "c", Motif: "m", Layer: "l", Label: "Spots", Way: "corner", Source: store.FromPrint, X: 0.4, Y: -0.2, Turn: 0.5, SureShift: 0.004, SureTurn: 0.02, Good: true},
		{Card: "c", Motif: "m", Layer: "k", Label: "Rim", Way: "corner", Source: store.FromPrint, X: 1.4}})
	require.NoError(t, err)
	second, err := s.Log(t.Context(), []store.Placement{{Card: "c", Motif: "m", Layer: "l", Label: "Spots", Way: "eye", Source: store.FromPractice}})
	require.NoError(t, err)
	assert.NotEqual(t, first, second)
	require.NoError(t, s.Close())
	s, err = store.Open(t.Context(), path)
	require.NoError(t, err)
	defer s.Close()
	all, err := s.Logged(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 3)
	assert.Equal(t, "eye", all[0].Way)
	got := all[2]
	got.ID, got.At = 0, ""
	assert.Equal(t, store.Placement{Batch: first, Card: "c", Motif: "m", Layer: "l", Label: "Spots", Way: "corner", Source: store.FromPrint, X: 0.4, Y: -0.2, Turn: 0.5, SureShift: 0.004, SureTurn: 0.02, Good: true}, got)
	require.NoError(t, s.Unlog(t.Context(), first))
	all, err = s.Logged(t.Context())
	require.NoError(t, err)
	assert.Len(t, all, 1)
	assert.ErrorIs(t, s.Unlog(t.Context(), first), store.ErrNotFound)
}
