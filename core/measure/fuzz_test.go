package measure

import (
	"math"
	"testing"
)

// Whatever is typed, a length is a number of mm within bounds, and what is shown of
// it is read back to the same within the rounding.
func FuzzParseSigned(f *testing.F) {
	for _, s := range []string{"4 15/16", "4-15/16\"", "4 15⁄16", "125,4 mm", "½", "-1/8 in", "12.5cm", "1,000"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, u := range []Unit{Inches, Millimetres} {
			mm, err := ParseSigned(s, u)
			if err != nil {
				continue
			}
			if math.IsNaN(mm) || math.Abs(mm) > MaxLength {
				t.Fatalf("%q is %g mm", s, mm)
			}
			if math.Abs(mm) < 1 || math.Abs(mm) > MaxLength-Inch { // rounding up may pass the limit
				continue
			}
			back, err := ParseSigned(Format(mm, u, 64), u)
			if err != nil || math.Abs(back-mm) > Inch/100 {
				t.Fatalf("%q is %g mm, shown %q, read back %g: %v", s, mm, Format(mm, u, 64), back, err)
			}
		}
	})
}
