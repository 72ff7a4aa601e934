package everything

import (
	"strings"
	"unicode"
)

// mostName is the length of a file name in characters.
const mostName = 60

// FileName is a title as a file name that every system takes: letters and figures
// of any script stay, all else becomes a dash. It is never empty.
func FileName(title string) string {
	dash := false
	var b strings.Builder
	n := 0
	for _, r := range title {
		if !unicode.IsLetter(r) && !unicode.IsDigit(r) && !unicode.Is(unicode.Mn, r) {
			dash = n > 0
			continue
		}
		if dash {
			b.WriteByte('-')
			dash = false
			n++
		}
		b.WriteRune(r)
		if n++; n >= mostName {
			break
		}
	}
	if n == 0 {
		return "untitled"
	}
	switch s := b.String(); strings.ToLower(s) {
	case "con", "prn", "aux", "nul":
		return s + "-" // names one system keeps for itself
	default:
		return s
	}
}

// ASCII is a file name with what is not plain letters and figures taken out, for
// programs that know no others.
func ASCII(name string) string {
	s := strings.Trim(strings.Map(func(r rune) rune {
		if r < 128 {
			return r
		}
		return -1
	}, name), "-")
	if s == "" {
		return "ochrestone"
	}
	return s
}
