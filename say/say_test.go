package say

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"ochrestone/core/foresee"
)

// Every rule has its words, and all words are of a rule: a title without a full stop, and a reason with one.
func TestEveryRuleIsWorded(t *testing.T) {
	known := map[string]bool{}
	for _, r := range foresee.Rules() {
		known[r.ID] = true
		w, ok := rules()[r.ID]
		assert.True(t, ok, "rule %q has no words", r.ID)
		assert.NotEmpty(t, w.Title, r.ID)
		assert.False(t, strings.HasSuffix(w.Title, "."), r.ID)
		assert.True(t, strings.HasSuffix(w.Explain, "."), "%s: %q", r.ID, w.Explain)
	}
	for id := range rules() {
		assert.True(t, known[id], "%q is no rule", id)
	}
	assert.Equal(t, Looks{Title: "nothing known"}, Rule("nothing known"))
}
