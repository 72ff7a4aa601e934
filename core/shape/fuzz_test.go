package shape

import (
	"errors"
	"math"
	"testing"
)

// Whatever the text, an outline is read or refused; one that is read can be stored,
// and settling it ends with a region or with words.
func FuzzUnmarshalText(f *testing.F) {
	f.Add("M0 0L10 0L10 10L0 10ZM2 2L2 8L8 8L8 2Z")
	f.Add("M0 0L10 10L10 0L0 10Z")
	f.Add("M-1e4 1e4L1 2L3 4Z")
	f.Fuzz(func(t *testing.T, s string) {
		var g Region
		if g.UnmarshalText([]byte(s)) != nil {
			return
		}
		if err := g.Storable(); err != nil {
			t.Fatal(err)
		}
		if g.Points() > 400 {
			return
		}
		h, err := Settle(true, g.Rings()...)
		if err != nil {
			if !errors.Is(err, ErrTangled) && !errors.Is(err, ErrBoolean) {
				t.Fatal(err)
			}
			return
		}
		if a := h.Area(); math.IsNaN(a) || a < -1 {
			t.Fatalf("an area of %g", a)
		}
	})
}
