package measure

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"
)

func TestParseReadsWhatPeopleWrite(t *testing.T) {
	for in, want := range map[string]MM{
		"4 15/16":    125.4125,
		"4-15/16\"":  125.4125,
		"4 15⁄16":    125.4125,
		"4 15⁄16 in": 125.4125,
		"4½":         114.3,
		"½ inch":     12.7,
		"15/16":      23.8125,
		"15 / 16":    23.8125,
		"5.5 IN":     139.7,
		"125.4 mm":   125.4,
		"12.5cm":     125,
		"12,5 cm":    125,
		"0":          0,
		"7 in.":      177.8,
	} {
		got, err := Parse(in, Inches)
		require.NoError(t, err, in)
		assert.InDelta(t, want, got, 1e-9, in)
	}
	mm, err := Parse("125.4", Millimetres)
	require.NoError(t, err)
	assert.Equal(t, 125.4, mm)
}

func TestParseRefusesWithAReason(t *testing.T) {
	for in, want := range map[string]error{
		"": ErrEmpty, "   ": ErrEmpty,
		"four": ErrNumber, "4 5 6": ErrNumber, "1/0": ErrNumber, "4 17/16": ErrNumber,
		"1e3": ErrNumber, "0x10": ErrNumber, "--3": ErrNumber, "..": ErrNumber, "1.2.3": ErrNumber, "4 0.5": ErrNumber,
		"NaN": ErrNumber, "Inf": ErrNumber,
		"3 furlongs": ErrUnit, "3 pt": ErrUnit,
		"-3 mm": ErrNegative, "11000 mm": ErrTooLong,
	} {
		_, err := Parse(in, Inches)
		assert.ErrorIs(t, err, want, in)
	}
	v, err := ParseSigned("−1/2", Inches)
	require.NoError(t, err)
	assert.InDelta(t, -12.7, v, 1e-9)
}

func TestFractionRoundsAndTellsTheResidue(t *testing.T) {
	f := InFraction(125.4, 16)
	assert.Equal(t, "4 15⁄16", f.String())
	assert.InDelta(t, -0.0125, f.Residue, 1e-9) // 125.4 - 125.4125
	assert.Equal(t, "5", InFraction(127.1, 16).String())
	assert.Equal(t, "1⁄4", InFraction(6.35, 64).String())
	assert.Equal(t, "−1⁄8", InFraction(-3.175, 16).String())
	assert.Equal(t, "0", InFraction(-0.1, 16).String())
	assert.Equal(t, "125.4 mm", Format(125.4, Millimetres, 16))
	assert.Equal(t, "less than 0.1 mm", Format(-0.01, Millimetres, 16), "what is not nothing never reads as nothing")
	assert.Equal(t, "less than 1⁄16 in", Format(0.4, Inches, 16))
	assert.Equal(t, "0 in", Format(0, Inches, 16))
	assert.Equal(t, "4 59⁄64 in", Format(125.0, Inches, 64))
}

func TestFractionReadsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mm := rapid.Float64Range(0, 600).Draw(t, "mm")
		den := rapid.SampledFrom([]int{16, 32, 64}).Draw(t, "den")
		f := InFraction(mm, den)
		back, err := Parse(f.String()+" in", Millimetres)
		require.NoError(t, err)
		assert.InDelta(t, mm, back+f.Residue, 1e-9)
		assert.LessOrEqual(t, math.Abs(f.Residue), Inch/float64(den)/2+1e-9)
		assert.True(t, f.Num == 0 || f.Num%2 == 1, "reduced")
	})
}

// Grammages of pound weights: the paper trade's basis sizes (cover 20 x 26 in,
// text 25 x 38 in, 500 sheets) over ISO 536 grammage. The factors 2.704 and
// 1.480 g/m² a pound are those of printers' conversion tables (from memory).
func TestGrammageAgainstConversionTables(t *testing.T) {
	for _, c := range []struct {
		lb    float64
		basis Basis
		gsm   float64
	}{{80, Cover, 216}, {100, Cover, 270}, {110, Cover, 298}, {65, Cover, 176}, {70, Text, 104}, {60, Text, 89}, {20 * 2.5, Text, 74}} {
		got, err := Grammage(c.lb, c.basis)
		require.NoError(t, err)
		assert.InDelta(t, c.gsm, got, 1, "%g lb %s", c.lb, c.basis)
		back, err := Pounds(got, c.basis)
		require.NoError(t, err)
		assert.InDelta(t, c.lb, back, 1e-9)
	}
	one, _ := Grammage(1, Cover)
	assert.InDelta(t, 2.704, one, 5e-4)
	one, _ = Grammage(1, Text)
	assert.InDelta(t, 1.480, one, 5e-4)
	_, err := Grammage(80, "bond")
	assert.ErrorContains(t, err, "bond")
	_, err = Pounds(80, "")
	assert.Error(t, err)
}

// Common practice, no source: the A2 base is 8 1/2 x 5 1/2 scored at 4 1/4, or
// 4 1/4 x 11 scored at 5 1/2; a letter sheet gives two.
func TestA2Bases(t *testing.T) {
	a2 := Formats()[0].Size
	side := BaseFor(a2, FoldSide, Letter)
	assert.Equal(t, Size{8.5 * Inch, 5.5 * Inch}, side.Sheet)
	assert.Equal(t, 4.25*Inch, side.ScoreAt)
	assert.Equal(t, 2, side.PerSheet)
	top := BaseFor(a2, FoldTop, Letter)
	assert.Equal(t, Size{4.25 * Inch, 11 * Inch}, top.Sheet)
	assert.Equal(t, 5.5*Inch, top.ScoreAt)
	assert.Equal(t, 2, top.PerSheet)
	assert.Equal(t, 1, BaseFor(Size{5 * Inch, 5 * Inch}, FoldSide, Letter).PerSheet)
	assert.Equal(t, 0, BaseFor(Size{5 * Inch, 8.5 * Inch}, FoldSide, Size{200, 200}).PerSheet)
}

// Common practice, no source: a front panel trimmed 1/8 in off each side is
// 4 x 5 1/4; mats on a 5 x 5 card at 4 3/4, 4 1/2, 4 1/4, 4; and a seen odd
// nest of sides 1/16, 7/32, 1/4 on A2.
func TestMatsOfTheTrade(t *testing.T) {
	p, err := Formats()[0].Size.Inset(Inch / 8)
	require.NoError(t, err)
	assert.Equal(t, "4 × 5 1⁄4", InFraction(p.W, 16).String()+" × "+InFraction(p.H, 16).String())

	nest, err := Nest(Size{5 * Inch, 5 * Inch}, Inch/8, Inch/8, Inch/8, Inch/8)
	require.NoError(t, err)
	for i, want := range []string{"4 3⁄4", "4 1⁄2", "4 1⁄4", "4"} {
		assert.Equal(t, want, InFraction(nest[i].W, 16).String())
	}
	odd, err := Nest(Size{5.5 * Inch, 4.25 * Inch}, Inch/16, 7*Inch/32, Inch/4)
	require.NoError(t, err)
	for i, want := range [][2]string{{"5 3⁄8", "4 1⁄8"}, {"4 15⁄16", "3 11⁄16"}, {"4 7⁄16", "3 3⁄16"}} {
		assert.Equal(t, want, [2]string{InFraction(odd[i].W, 16).String(), InFraction(odd[i].H, 16).String()})
	}
	_, err = Nest(Size{30, 30}, 10, 6)
	assert.ErrorContains(t, err, "mat 2")
}

// Limits of USPS Domestic Mail Manual 101: 3 1/2 x 5 to 6 1/8 x 11 1/2 in,
// 1/4 in thick, aspect 1.3 to 2.5.
func TestLetterClass(t *testing.T) {
	in := func(w, h float64) Size { return Size{w * Inch, h * Inch} }
	assert.Equal(t, ClassLetter, BasicLetter(in(4.375, 5.75), 1, false))
	assert.Equal(t, ClassLetter, BasicLetter(in(11.5, 6.125), 0.25*Inch, false))
	assert.Equal(t, ClassTooThick, BasicLetter(in(4.375, 5.75), 6.36, false))
	assert.Equal(t, ClassTooLarge, BasicLetter(in(6.2, 9), 1, false))
	assert.Equal(t, ClassTooLarge, BasicLetter(in(6, 11.6), 1, false))
	assert.Equal(t, ClassTooSmall, BasicLetter(in(3.4, 5), 1, false))
	assert.Equal(t, ClassNonMachinable, BasicLetter(in(5.25, 5.25), 1, false), "square")
	assert.Equal(t, ClassNonMachinable, BasicLetter(in(4.375, 5.75), 1, true), "uneven")
	assert.Equal(t, ClassNonMachinable, BasicLetter(in(4, 10.1), 1, false), "aspect over 2.5")
}

func TestEnvelopeTakesThicknessOffTheSize(t *testing.T) {
	e := Envelopes()[0]
	a2 := Formats()[0].Size
	assert.True(t, e.Fits(a2, 3.1))
	assert.False(t, e.Fits(a2, 3.3), "1/8 in to spare in width is 3.175 mm")
	assert.True(t, e.Fits(Size{a2.H, a2.W}, 1), "either way round")
}

// Sums as they are done at the bench; the minus of a mixed number stands close, the
// minus that takes away stands free (common practice, no source). The values are worked
// by hand.
func TestLengthsAreAddedAndTakenAway(t *testing.T) {
	for text, in := range map[string]float64{
		"4 1/4 - 1/8": 4.125, "4 1/4 − 1/8": 4.125, "4-1/4 - 1/8": 4.125, "4¼+⅛": 4.375, "5 1/2 - 1/16 - 1/16": 5.375,
		"1/8 - 1/4": -0.125, "-1/8 + 1/2": 0.375, "4 1/4 - 1/8 in": 4.125, "1 in + 25.4 mm": 2, "25.4 mm + 1": 2,
	} {
		got, err := ParseSigned(text, Inches)
		if assert.NoError(t, err, text) {
			assert.InDelta(t, in*25.4, got, 1e-9, text)
		}
	}
	got, err := ParseSigned("4 1/4 - 1/8 in", Millimetres)
	require.NoError(t, err)
	assert.InDelta(t, 104.775, got, 1e-9, "the unit at the end is meant for both")
	got, err = ParseSigned("125,4 mm", Inches)
	require.NoError(t, err)
	assert.InDelta(t, 125.4, got, 1e-9)
	for text, want := range map[string]error{
		"5 1/2x4": ErrTwo, "5 by 4": ErrTwo, `5" x 4"`: ErrTwo, "4 +": ErrNumber, "+ 4": ErrNumber, "4 + two": ErrNumber, "9000 mm + 9000 mm": ErrTooLong,
	} {
		_, err := ParseSigned(text, Inches)
		assert.ErrorIs(t, err, want, text)
	}
	_, err = Parse("1/8 - 1/4", Inches)
	assert.ErrorIs(t, err, ErrNegative)
}
