package demo

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/foresee"
	"ochrestone/core/plan"
)

func TestDemoIsSound(t *testing.T) {
	k, err := Kit()
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(k.Inks), 48)
	assert.GreaterOrEqual(t, len(k.Papers), 16)
	for _, i := range k.Inks {
		require.NoError(t, i.Validate(), i.Name)
	}
	for _, p := range k.Papers {
		require.NoError(t, p.Validate(), p.Name)
	}
	for _, s := range k.Sets {
		require.NoError(t, s.Validate(), s.Name)
	}
	for _, c := range Cards(k) {
		require.NoError(t, c.Validate(), c.Title)
		p := plan.Of(c, k)
		for _, f := range p.Findings {
			t.Logf("%s: [%s] %s. %s %s", c.Title, f.Severity, f.What, f.Why, f.Do)
			assert.NotEqual(t, foresee.Spoils, f.Severity, "%s: %s", c.Title, f.What)
		}
		assert.NotEmpty(t, p.Steps)
		for _, m := range p.Motifs {
			require.Empty(t, m.Problem)
			for _, l := range m.Layers {
				assert.Greater(t, l.Share, 0.05, "%s earns its place", l.Label)
				t.Logf("%-24s on %-4s share %.2f tight %.2f turn %.1f judged %v rim %.2f", l.Label, l.Host, l.Share, l.Play.Tight, l.Play.Clock, l.Play.Judged, l.Play.Rim)
			}
		}
		t.Logf("%s total %.2f mm, %s %.1f g", c.Title, p.Depth.Total, p.Depth.Post.Class, p.Depth.Weight)
	}
}

// No sliver under 1 mm: shrinking and growing again by half a millimetre gives
// the part back, but for its corners.
func TestArtCanBeCut(t *testing.T) {
	k, err := Kit()
	require.NoError(t, err)
	for _, s := range k.Sets {
		for _, p := range s.Parts {
			thin, err := p.Outline.Offset(-0.45)
			require.NoError(t, err)
			back, err := thin.Offset(0.45)
			require.NoError(t, err)
			assert.Greater(t, back.Area(), 0.985*p.Outline.Area(), "%s, %s", s.Name, p.Label)
			assert.Equal(t, len(p.Outline.Pieces()), len(thin.Pieces()), "%s, %s: falls apart where it is under 0.9 mm", s.Name, p.Label)
		}
	}
}
