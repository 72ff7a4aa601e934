// Package measure holds the lengths, paper weights and formats of the bench.
//
// Lengths are millimetres in float64 everywhere inside the program; this
// package turns them into what a cardmaker reads (inches to a sixteenth,
// thirty-second or sixty-fourth, or millimetres to a tenth) and back.
package measure

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// MM is a length in millimetres.
type MM = float64

// Inch is one international inch: 25.4 mm exactly, by definition.
const Inch MM = 25.4

// MaxLength is the longest length Parse accepts, in millimetres: ten metres,
// far beyond any sheet, so that a slipped decimal point is caught.
const MaxLength MM = 10_000

// Errors returned by Parse, wrapped with the text that was read.
var (
	ErrEmpty    = errors.New("no length given")
	ErrUnit     = errors.New("unknown unit; use in, \", mm or cm")
	ErrNumber   = errors.New("not a length; write 4 15/16, 4.9375 in or 125.4 mm")
	ErrTooLong  = errors.New("longer than ten metres")
	ErrNegative = errors.New("a length cannot be negative here")
	ErrTwo      = errors.New("two lengths where one goes; write each in its own field")
)

// Unit is the unit in which lengths without one are read, and all are shown.
type Unit string

// The two units a person can choose.
const (
	Inches      Unit = "in"
	Millimetres Unit = "mm"
)

// Fraction is a length written as whole inches and a reduced fraction, with
// what the rounding gave away.
type Fraction struct {
	Negative bool
	Whole    int
	Num, Den int // reduced; Den is 1 when there is no fraction
	Residue  MM  // true length minus the fraction shown, mm
}

// InFraction rounds mm to the nearest 1/den inch (den is 16, 32 or 64; any
// other power of two works) and reduces the fraction. A negative length keeps
// its sign in Negative.
func InFraction(mm MM, den int) Fraction {
	if den < 1 {
		den = 1
	}
	units := nearest(math.Abs(mm) / Inch * float64(den))
	shown := units * Inch / float64(den)
	f := Fraction{Negative: mm < 0 && units > 0, Residue: mm - math.Copysign(shown, mm)}
	n := int(units)
	f.Whole, f.Num, f.Den = n/den, n%den, den
	for f.Num%2 == 0 && f.Den > 1 {
		f.Num, f.Den = f.Num/2, f.Den/2
	}
	if f.Num == 0 {
		f.Den = 1
	}
	return f
}

// String writes the fraction with a true fraction slash: "4 15⁄16".
func (f Fraction) String() string {
	sign := ""
	if f.Negative {
		sign = "−"
	}
	switch {
	case f.Num == 0:
		return sign + strconv.Itoa(f.Whole)
	case f.Whole == 0:
		return fmt.Sprintf("%s%d⁄%d", sign, f.Num, f.Den)
	}
	return fmt.Sprintf("%s%d %d⁄%d", sign, f.Whole, f.Num, f.Den)
}

// Format writes mm for people with its unit: "4 15⁄16 in" to 1/den, or
// "125.4 mm" to a tenth. What is not nothing never reads as nothing: it is "less
// than 1⁄16 in", or less than a tenth of a millimetre.
func Format(mm MM, u Unit, den int) string {
	if den < 1 {
		den = 1
	}
	if a := math.Abs(mm); a > tiny {
		if u == Millimetres && a < 0.05 {
			return "less than 0.1 mm"
		}
		if u != Millimetres && nearest(a/Inch*float64(den)) == 0 {
			return fmt.Sprintf("less than 1⁄%d in", den)
		}
	}
	if u == Millimetres {
		s := strconv.FormatFloat(nearest(mm*10)/10, 'f', 1, 64)
		s = strings.TrimSuffix(s, ".0")
		if s == "-0" {
			s = "0"
		}
		return strings.Replace(s, "-", "−", 1) + " mm"
	}
	return InFraction(mm, den).String() + " in"
}

// nearest rounds to the nearest whole number; what lies just between two, but for what
// computing leaves, goes to the even one (NIST Handbook 44, appendix A, rules for rounding).
func nearest(x float64) float64 {
	if low := math.Floor(x); math.Abs(x-low-0.5) < 1e-6 {
		return low + math.Mod(math.Abs(low), 2)
	}
	return math.Round(x)
}

// tiny is what rounding inside the program may leave of nothing, mm.
const tiny = 1e-6

var unitSize = map[string]MM{
	"in": Inch, "inch": Inch, "inches": Inch, `"`: Inch, "″": Inch, "”": Inch,
	"mm": 1, "cm": 10,
}

// vulgar maps the single-character fractions people paste to their value.
var vulgar = map[rune]string{
	'½': "1/2", '¼': "1/4", '¾': "3/4", '⅛': "1/8", '⅜': "3/8", '⅝': "5/8", '⅞': "7/8",
}

// Parse reads a length as people write it: "4 15/16", "4-15/16\"",
// "4 15⁄16", "4½ in", "125.4 mm", "12.5cm". A bare number takes unit u.
// Zero is allowed, negative lengths are not; use ParseSigned for offsets.
func Parse(s string, u Unit) (MM, error) {
	mm, err := ParseSigned(s, u)
	if err == nil && mm < 0 {
		return 0, fmt.Errorf("read length %q: %w", s, ErrNegative)
	}
	return mm, err
}

// ParseSigned reads a length like Parse and allows a leading minus sign. Lengths may
// be added and taken away: "4 1/4 - 1/8", with spaces round the minus, for "4-1/8" is
// four and an eighth. A term without a unit takes that of the next term with one, or u:
// "4 1/4 - 1/8 in" is inches throughout. The sum is held to MaxLength like its terms.
func ParseSigned(s string, u Unit) (MM, error) {
	t := strings.TrimSpace(strings.ToLower(s))
	if t == "" {
		return 0, fmt.Errorf("read length: %w", ErrEmpty)
	}
	signs := between.FindAllStringIndex(t, -1)
	var sum MM
	end, unit := len(t), ""
	for i := len(signs); i >= 0; i-- {
		start, sign := 0, MM(1)
		if i > 0 {
			start = signs[i-1][1]
			if !strings.Contains(t[signs[i-1][0]:start], "+") {
				sign = -1
			}
		}
		v, own, err := parseTerm(t[start:end], u, unit)
		if err != nil {
			return 0, fmt.Errorf("read length %q%w", s, err)
		}
		if sum += sign * v; own != "" {
			unit = own
		}
		if i > 0 {
			end = signs[i-1][0]
		}
	}
	if math.Abs(sum) > MaxLength {
		return 0, fmt.Errorf("read length %q: %w", s, ErrTooLong)
	}
	return sum, nil
}

// between matches what adds or takes away a term: a plus, or a minus that stands free.
var between = regexp.MustCompile(`\s+[-−–]\s+|\s*\+\s*`)

// parseTerm reads one term in lower case: its own unit, else next, else u. It gives the
// length, the unit the term names itself, and an error that goes on from the text read.
func parseTerm(t string, u Unit, next string) (MM, string, error) {
	neg := false
	if r := strings.TrimLeft(t, "-−"); r != t {
		if len([]rune(t))-len([]rune(r)) > 1 {
			return 0, "", fmt.Errorf(": %w", ErrNumber)
		}
		neg, t = true, strings.TrimSpace(r)
	}
	number, own := splitUnit(t)
	unit := own
	if unit == "" {
		unit = next
	}
	size, known := unitSize[unit]
	if unit == "" {
		size, known = Inch, true
		if u == Millimetres {
			size = 1
		}
	}
	if !known {
		return 0, "", fmt.Errorf(", unit %q: %w", unit, ErrUnit)
	}
	v, err := parseMixed(number)
	if err != nil {
		if twoLengths.MatchString(number) {
			err = ErrTwo
		}
		return 0, "", fmt.Errorf(": %w", err)
	}
	if v *= size; v > MaxLength {
		return 0, "", fmt.Errorf(": %w", ErrTooLong)
	}
	if neg {
		v = -v
	}
	return v, own, nil
}

// twoLengths matches a size where a length was asked for: "5 1/2x4", "5 by 4".
var twoLengths = regexp.MustCompile(`(?:[1-9]|\d0)\s*(?:["″”]|in|mm|cm)?\s*(?:x|×|by)\s*\d`)

// splitUnit parts "12.5cm" into "12.5" and "cm".
func splitUnit(t string) (number, unit string) {
	i := strings.LastIndexAny(t, "0123456789½¼¾⅛⅜⅝⅞")
	if i < 0 {
		return t, ""
	}
	_, size := firstRune(t[i:])
	number, unit = strings.TrimSpace(t[:i+size]), strings.TrimSpace(t[i+size:])
	return number, strings.TrimSuffix(unit, ".")
}

func firstRune(s string) (rune, int) {
	for i, r := range s {
		if i > 0 {
			return []rune(s)[0], i
		}
		_ = r
	}
	return []rune(s)[0], len(s)
}

// parseMixed reads "4.9375", "15/16", "4 15/16" or "4-15/16".
func parseMixed(s string) (float64, error) {
	var b strings.Builder
	for _, r := range s {
		switch {
		case vulgar[r] != "":
			b.WriteString(" " + vulgar[r])
		case r == '⁄' || r == '∕':
			b.WriteRune('/')
		case r == '-' || r == '‑' || r == '–' || r == '\u00a0' || r == '\u202f':
			b.WriteRune(' ')
		default:
			b.WriteRune(r)
		}
	}
	fields := strings.Fields(b.String())
	if len(fields) == 3 && fields[1] == "/" { // "15 / 16"
		fields = []string{fields[0] + "/" + fields[2]}
	}
	switch len(fields) {
	case 1:
		if strings.Contains(fields[0], "/") {
			return parseFraction(fields[0])
		}
		return parseDecimal(fields[0])
	case 2:
		whole, err := strconv.ParseUint(fields[0], 10, 16)
		if err != nil || !strings.Contains(fields[1], "/") {
			return 0, ErrNumber
		}
		f, err := parseFraction(fields[1])
		if err != nil || f >= 1 {
			return 0, ErrNumber
		}
		return float64(whole) + f, nil
	}
	return 0, ErrNumber
}

func parseFraction(s string) (float64, error) {
	a, b, _ := strings.Cut(s, "/")
	n, err1 := strconv.ParseUint(strings.TrimSpace(a), 10, 16)
	d, err2 := strconv.ParseUint(strings.TrimSpace(b), 10, 16)
	if err1 != nil || err2 != nil || d == 0 {
		return 0, ErrNumber
	}
	return float64(n) / float64(d), nil
}

// ErrThousands is returned where a comma may part thousands or decimals.
var ErrThousands = errors.New("a comma before three figures could mean thousands or a decimal; write 1000 or 1.0")

// ParseNumber reads a plain number of nought or more, with a point or a comma
// before its decimals: no signs, exponents, infinities or hexadecimal.
func ParseNumber(s string) (float64, error) { return parseDecimal(strings.TrimSpace(s)) }

// parseDecimal accepts digits with one point or comma, nothing else: no
// exponents, infinities or hexadecimal. A comma that may as well part thousands
// is refused rather than guessed.
func parseDecimal(s string) (float64, error) {
	if whole, rest, ok := strings.Cut(s, ","); ok && whole != "" && whole != "0" && len(rest) == 3 && !strings.Contains(rest, ".") {
		return 0, ErrThousands
	}
	if strings.Count(s, ",")+strings.Count(s, ".") > 1 {
		return 0, ErrNumber
	}
	s = strings.Replace(s, ",", ".", 1)
	if strings.Trim(s, "0123456789.") != "" || s == "." {
		return 0, ErrNumber
	}
	v, err := strconv.ParseFloat(s, 64)
	if err != nil {
		return 0, ErrNumber
	}
	return v, nil
}
