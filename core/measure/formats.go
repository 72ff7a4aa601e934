package measure

import (
	"fmt"
	"math"
)

// Basis is a grade of paper whose pound weight is quoted for 500 sheets of a
// basis size.
type Basis string

// The two grades cardmakers meet.
const (
	Cover Basis = "cover" // basis size 20 x 26 in
	Text  Basis = "text"  // basis size 25 x 38 in, also called book
)

// poundGrams is one avoirdupois pound in grams, exact by definition.
const poundGrams = 453.59237

// sheetsPerReam is the ream pound weights are quoted for.
const sheetsPerReam = 500

func basisArea(b Basis) (float64, error) {
	switch b {
	case Cover:
		return 20 * 26, nil
	case Text:
		return 25 * 38, nil
	}
	return 0, fmt.Errorf("basis %q: only cover and text are known", b)
}

// Grammage converts a pound weight of the given basis into g/m²: the mass of
// 500 basis sheets over their area. ISO 536 defines grammage as mass over
// area; the basis sizes are the paper trade's.
func Grammage(pounds float64, b Basis) (float64, error) {
	area, err := basisArea(b)
	if err != nil {
		return 0, fmt.Errorf("grammage of %g lb: %w", pounds, err)
	}
	m2 := area * Inch * Inch / 1e6 * sheetsPerReam
	return pounds * poundGrams / m2, nil
}

// Pounds converts g/m² into the pound weight of the given basis.
func Pounds(gsm float64, b Basis) (float64, error) {
	one, err := Grammage(1, b)
	if err != nil {
		return 0, fmt.Errorf("pounds of %g g/m²: %w", gsm, err)
	}
	return gsm / one, nil
}

// Size is a width and height in millimetres.
type Size struct {
	W MM `json:"w" doc:"width, mm"`
	H MM `json:"h" doc:"height, mm"`
}

// Inset returns the size less a border of b on each of four sides, and an
// error when nothing would be left.
func (s Size) Inset(b MM) (Size, error) {
	r := Size{s.W - 2*b, s.H - 2*b}
	if r.W <= 0 || r.H <= 0 {
		return Size{}, fmt.Errorf("a border of %.1f mm leaves nothing of %.1f × %.1f mm", b, s.W, s.H)
	}
	return r, nil
}

// Fold is the edge a card is folded along.
type Fold string

// Folds of a card base.
const (
	FoldSide Fold = "side" // hinge at the left edge
	FoldTop  Fold = "top"  // hinge at the top edge
)

// CardFormat is a card front size known by name in the trade.
type CardFormat struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Size Size   `json:"size" doc:"closed front, portrait, mm"`
}

// Formats returns the closed sizes of card fronts in use, common practice.
// A2 is the trade's name for 4 1/4 x 5 1/2 in, not ISO A2.
func Formats() []CardFormat {
	return []CardFormat{
		{"a2", "A2 card", Size{4.25 * Inch, 5.5 * Inch}},
		{"slimline", "Slimline", Size{3.5 * Inch, 8.5 * Inch}},
		{"square4", "Square, 4 in", Size{4 * Inch, 4 * Inch}},
		{"square5", "Square, 5 in", Size{5 * Inch, 5 * Inch}},
		{"5x7", "5 × 7", Size{5 * Inch, 7 * Inch}},
		{"a6", "ISO A6", Size{105, 148}},
		{"dl", "DL", Size{99, 210}},
	}
}

// Letter and A4 are the sheets bases are cut from, portrait.
var (
	Letter = Size{8.5 * Inch, 11 * Inch}
	A4     = Size{210, 297}
)

// BaseCut says how to cut and score a card base.
type BaseCut struct {
	Sheet    Size `json:"sheet" doc:"flat sheet before folding, mm"`
	ScoreAt  MM   `json:"scoreAt" doc:"distance of the score from the sheet's edge, mm"`
	Fold     Fold `json:"fold"`
	PerSheet int  `json:"perSheet" doc:"bases from one stock sheet"`
}

// BaseFor returns the flat sheet of a folded base with a front of size s, where
// to score it, and how many come from one stock sheet by straight cuts.
func BaseFor(s Size, f Fold, stock Size) BaseCut {
	c := BaseCut{Fold: f, ScoreAt: s.W, Sheet: Size{2 * s.W, s.H}}
	if f == FoldTop {
		c.ScoreAt, c.Sheet = s.H, Size{s.W, 2 * s.H}
	}
	c.PerSheet = max(grid(c.Sheet, stock), grid(c.Sheet, Size{stock.H, stock.W}))
	return c
}

func grid(piece, sheet Size) int {
	const eps = 1e-6
	return int(math.Floor(sheet.W/piece.W+eps)) * int(math.Floor(sheet.H/piece.H+eps))
}

// Nest returns the sizes of n mats and the panel on top, laid one in another
// on a front of size s with the given border of each on the one beneath, from
// the largest down. With an error come the sizes of those that do fit.
func Nest(s Size, borders ...MM) ([]Size, error) {
	out := make([]Size, 0, len(borders))
	for i, b := range borders {
		in, err := s.Inset(b)
		if err != nil {
			return out, fmt.Errorf("mat %d: %w", i+1, err)
		}
		out, s = append(out, in), in
	}
	return out, nil
}

// Envelope is an inside size a card must slide into.
type Envelope struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Size Size   `json:"size" doc:"inside, mm"`
}

// Envelopes returns common envelope sizes (common practice, no source; inch
// sizes from memory).
func Envelopes() []Envelope {
	return []Envelope{
		{"a2", "A2 envelope, 4 3⁄8 × 5 3⁄4 in", Size{4.375 * Inch, 5.75 * Inch}},
		{"slimline", "Slimline envelope, 3 7⁄8 × 8 7⁄8 in", Size{3.875 * Inch, 8.875 * Inch}},
		{"square4", "Square envelope, 4 1⁄4 in", Size{4.25 * Inch, 4.25 * Inch}},
		{"square5", "Square envelope, 5 1⁄4 in", Size{5.25 * Inch, 5.25 * Inch}},
		{"a7", "A7 envelope, 5 1⁄4 × 7 1⁄4 in", Size{5.25 * Inch, 7.25 * Inch}},
		{"c6", "C6 envelope, 114 × 162 mm", Size{114, 162}},
		{"dl", "DL envelope, 110 × 220 mm", Size{110, 220}},
	}
}

// Fits reports whether a closed card of size s and thickness t slides into
// envelope e: a card takes up about its own thickness more in each direction.
// Both ways round are tried.
func (e Envelope) Fits(s Size, t MM) bool {
	in := func(a, b Size) bool { return b.W+t <= a.W+1e-9 && b.H+t <= a.H+1e-9 }
	return in(e.Size, s) || in(e.Size, Size{s.H, s.W})
}

// Class is a postal class of a filled envelope.
type Class string

// Postal classes told apart by BasicLetter.
const (
	ClassLetter        Class = "letter"
	ClassNonMachinable Class = "non-machinable"
	ClassTooThick      Class = "too thick"
	ClassTooLarge      Class = "too large"
	ClassTooSmall      Class = "too small"
)

// The limits of a US letter, USPS Domestic Mail Manual 101, section 1
// (physical standards for letters). The carrier's current rules go first.
const (
	LetterMaxThickness = 0.25 * Inch
	letterMinShort     = 3.5 * Inch
	letterMinLong      = 5 * Inch
	letterMaxShort     = 6.125 * Inch
	letterMaxLong      = 11.5 * Inch
	letterMinAspect    = 1.3
	letterMaxAspect    = 2.5
)

// BasicLetter returns the class of an envelope of size s and thickness t under
// the Domestic Mail Manual's letter limits: size, thickness, and the aspect
// ratio (length over height, 1.3 to 2.5) outside which a letter is
// non-machinable. raised marks a front with raised parts: uneven letters are
// non-machinable too.
func BasicLetter(s Size, t MM, raised bool) Class {
	const eps = 1e-6
	short, long := min(s.W, s.H), max(s.W, s.H)
	switch {
	case t > LetterMaxThickness+eps:
		return ClassTooThick
	case short > letterMaxShort+eps || long > letterMaxLong+eps:
		return ClassTooLarge
	case short < letterMinShort-eps || long < letterMinLong-eps:
		return ClassTooSmall
	}
	if a := long / short; a < letterMinAspect-eps || a > letterMaxAspect+eps || raised {
		return ClassNonMachinable
	}
	return ClassLetter
}
