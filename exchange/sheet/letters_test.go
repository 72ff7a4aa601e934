package sheet

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/plan"
)

// The shipped faces hold Latin with its accents (their own documents say so), and
// no Han, Cyrillic or pictures.
func TestMissingLettersAreNamed(t *testing.T) {
	assert.Empty(t, Missing("Thank you, señor Müller! ½ ×"))
	assert.Equal(t, []string{"感", "謝"}, Missing("thanks 感謝感"))
	assert.Equal(t, "thanks ", drawable("thanks 感謝"))
	words, _, err := Letters("感謝", 20)
	require.NoError(t, err)
	assert.True(t, words.Empty(), "no boxes are cut")
}

// A strip with letters that cannot be drawn is noted, and drawn without boxes.
func TestAStripWithMissingLetters(t *testing.T) {
	c, k, _ := moth(t)
	var with, without bytes.Buffer
	set := func(text string) plan.Plan {
		for i := range c.Elements {
			if c.Elements[i].Sheet != nil && c.Elements[i].Sheet.Words() != nil {
				c.Elements[i].Sheet.Words().Text = text
			}
		}
		return plan.Of(c, k, plan.Typeface(Face{}))
	}
	p := set("thanks")
	require.NoError(t, FrontSVG(&without, c, k, p))
	for _, f := range p.Findings {
		assert.NotContains(t, f.ID, "letters:")
	}
	p = set("thanks感")
	require.NoError(t, FrontSVG(&with, c, k, p))
	assert.Equal(t, without.Len(), with.Len(), "the same picture")
	found := false
	for _, f := range p.Findings {
		if f.ID == "letters:e2" {
			found = true
			assert.Contains(t, f.Why, "感")
		}
	}
	assert.True(t, found)
}
