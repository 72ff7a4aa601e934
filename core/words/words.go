// Package words holds what is done to words wherever sentences are made.
package words

import (
	"fmt"
	"strings"
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

// Count is so many of a thing in words: "1 pass", "3 passes". Without a plural it takes an s.
func Count(n int, one string, many ...string) string {
	if n == 1 || n == -1 {
		return fmt.Sprintf("%d %s", n, one)
	}
	if len(many) > 0 {
		return fmt.Sprintf("%d %s", n, many[0])
	}
	return fmt.Sprintf("%d %ss", n, one)
}

// Of is the form of a word that goes with so many: Of(1, "takes", "take").
func Of(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return many
}

// Either names things of which one is meant.
func Either(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " or " + names[n-1]
	}
	return strings.Join(names, "")
}

// Listed puts names after each other, the last with "and"; nothing of none.
func Listed(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}
