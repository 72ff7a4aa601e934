package table

import (
	"testing"
	"unicode/utf8"
)

func FuzzText(f *testing.F) {
	f.Add([]byte("name,dry\n"))
	f.Add([]byte("\xff\xfea\x00"))
	f.Add([]byte("Gr\xfcn"))
	f.Fuzz(func(t *testing.T, b []byte) {
		out, as, err := Text(b)
		if err == nil && (!utf8.Valid(out) || as == "") {
			t.Fatalf("%q became %q", b, out)
		}
		if err == nil && len(b) < 200 {
			if s := Safe(string(out)); Plain(s) != string(out) && s != string(out) {
				t.Fatalf("%q is written %q and comes back %q", out, s, Plain(s))
			}
		}
	})
}
