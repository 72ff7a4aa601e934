package measure

import (
	"fmt"
	"math"
	"strings"
)

// Writing is how a person has measures written: their unit, and the finest part of an
// inch they work to.
type Writing struct {
	Unit Unit
	Den  int // 16, 32 or 64; of inches alone
}

// Metric writes in millimetres.
var Metric = Writing{Unit: Millimetres, Den: 16}

// Length writes a length as a ruler reads it: "4 15⁄16 in", "125.4 mm". See Format.
func (w Writing) Length(mm MM) string { return Format(mm, w.Unit, w.Den) }

// Thin writes a thickness, a height or a play as a caliper reads it: hundredths of a
// millimetre, or thousandths of an inch.
func (w Writing) Thin(mm MM) string { return Thin(mm, w.Unit) }

// Weight writes grams, or hundredths of an ounce (28.349523125 g, exactly).
func (w Writing) Weight(grams float64) string {
	if w.Unit == Millimetres {
		return fmt.Sprintf("%.0f g", grams)
	}
	return fmt.Sprintf("%.2f oz", grams/28.349523125)
}

// Area writes an area, mm², in the square of the unit: "126 mm²", "0.20 in²".
func (w Writing) Area(mm2 float64) string {
	if w.Unit == Millimetres {
		if mm2 < 10 {
			return fmt.Sprintf("%.1f mm²", mm2)
		}
		return fmt.Sprintf("%.0f mm²", mm2)
	}
	in := mm2 / (Inch * Inch)
	if in < 0.1 {
		return fmt.Sprintf("%.4f in²", in)
	}
	return fmt.Sprintf("%.2f in²", in)
}

// Thin writes mm to a hundredth, or inches to a thousandth, with the unit. What is not
// nothing never reads as nothing: it is "less than 0.001 in".
func Thin(mm MM, u Unit) string {
	digits, unit := 2, "mm"
	if u != Millimetres {
		mm, digits, unit = mm/Inch, 3, "in"
	}
	s := fmt.Sprintf("%.*f", digits, mm)
	if least := math.Pow(10, -float64(digits)); math.Abs(mm) < least/2 {
		if math.Abs(mm) > tiny {
			return fmt.Sprintf("less than %.*f %s", digits, least, unit)
		}
		s = strings.TrimPrefix(s, "-")
	}
	return strings.Replace(s, "-", "−", 1) + " " + unit
}
