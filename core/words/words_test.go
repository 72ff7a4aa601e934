package words

import (
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// Letters with accents, of other alphabets, of two cases in one sign (Unicode's titlecase), and
// what is no letter at all.
func TestTheFirstLetter(t *testing.T) {
	for of, want := range map[string]string{"élan": "Élan", "öland": "Öland", "ønske": "Ønske", "жук": "Жук", "ǆep": "ǅep", "moth": "Moth", "Moth": "Moth", "4 owls": "4 owls", "": "", "\xffabc": "\xffabc"} {
		assert.Equal(t, want, Capital(of), of)
	}
	assert.Equal(t, "élan", Small("Élan"))
	assert.Equal(t, "öland moth", Small("Öland moth"))
}

// Whatever is typed comes out sound, with all that followed its first letter.
func TestWhatIsTypedStaysSound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.String().Draw(t, "text")
		for _, got := range []string{Capital(s), Small(s)} {
			assert.True(t, utf8.ValidString(got))
			if s != "" {
				_, n := utf8.DecodeRuneInString(s)
				_, m := utf8.DecodeRuneInString(got)
				assert.Equal(t, s[n:], got[m:])
			}
		}
	})
}
