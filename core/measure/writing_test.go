package measure

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Handbook figures: NIST SP 811 appendix B gives 1 in = 25.4 mm exactly and
// 1 in² = 6.4516 cm² exactly; the rest follows by hand.
func TestWritingThicknessesAndAreas(t *testing.T) {
	in := Writing{Unit: Inches, Den: 16}
	assert.Equal(t, "0.250 in", in.Thin(6.35))
	assert.Equal(t, "6.35 mm", Metric.Thin(6.35))
	assert.Equal(t, "0.011 in", in.Thin(0.28))
	assert.Equal(t, "−0.010 in", in.Thin(-0.254))
	assert.Equal(t, "0.000 in", in.Thin(-1e-9), "nothing has no sign")
	assert.Equal(t, "less than 0.001 in", in.Thin(0.01))
	assert.Equal(t, "less than 0.01 mm", Metric.Thin(-0.001))
	assert.Equal(t, "1.00 in²", in.Area(645.16))
	assert.Equal(t, "645 mm²", Metric.Area(645.16))
	assert.Equal(t, "0.0155 in²", in.Area(10))
	assert.Equal(t, "3.4 mm²", Metric.Area(3.42))
	assert.Equal(t, "4 15⁄16 in", in.Length(125.4125))
}

// NIST Handbook 44, appendix A, rules for rounding: what is below half a division is
// dropped, what is above it goes up, and what lies just between two goes to the even one
// (the rules are from memory). A fraction is written in its lowest terms.
func TestFractionsAreRoundedAsTheHandbookSays(t *testing.T) {
	for _, c := range []struct {
		sixtyFourths float64
		den          int
		want         string
	}{
		{1, 64, "1⁄64 in"}, {2, 64, "1⁄32 in"}, {32, 64, "1⁄2 in"}, {64, 64, "1 in"}, {79, 64, "1 15⁄64 in"},
		{1.49, 16, "less than 1⁄16 in"}, {2, 16, "less than 1⁄16 in"}, {2.01, 16, "1⁄16 in"}, {5.99, 16, "1⁄16 in"}, {10, 16, "1⁄8 in"}, {14, 16, "1⁄4 in"}, {6, 16, "1⁄8 in"}, {6.01, 16, "1⁄8 in"},
		{63, 16, "1 in"}, {61.9, 16, "15⁄16 in"}, {62, 16, "1 in"}, {31, 32, "1⁄2 in"}, {30.9, 32, "15⁄32 in"},
	} {
		assert.Equal(t, c.want, Format(c.sixtyFourths*Inch/64, Inches, c.den), "%g/64 to 1/%d", c.sixtyFourths, c.den)
	}
}
