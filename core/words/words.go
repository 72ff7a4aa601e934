// Package words holds what is done to words wherever sentences are made.
package words

import (
	"unicode"
	"unicode/utf8"
)

// Capital is a text with its first letter as a capital, whatever alphabet it is from; an
// empty text, and one that begins with no letter, stays as it is.
func Capital(s string) string { return first(s, unicode.ToTitle) }

// Small is a text with its first letter as a small one, as a name stands within a sentence.
func Small(s string) string { return first(s, unicode.ToLower) }

func first(s string, as func(rune) rune) string {
	r, n := utf8.DecodeRuneInString(s)
	if r == utf8.RuneError {
		return s
	}
	return string(as(r)) + s[n:]
}
