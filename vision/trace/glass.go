package trace

import (
	"fmt"
	"math"

	"ochrestone/vision/picture"
)

// glasses are what scanners scan whole, mm: A4, letter, their glass, legal, A3 and
// ledger (ISO 216; ANSI/ASME Y14.1; glass sizes from memory).
var glasses = [][2]float64{{210, 297}, {215.9, 279.4}, {216, 297}, {215.9, 355.6}, {297, 420}, {304.8, 431.8}, {279.4, 431.8}}

// resolutions scanners offer, dots to the inch (common practice, no source).
var resolutions = []float64{75, 100, 150, 200, 240, 300, 400, 600, 800, 1200}

// mostGlass is the length of the largest glass there is, mm, with some to spare.
const mostGlass = 480.0

// Glass tells whether a scan of w by h mm at so many dots to the inch can be. One
// larger than any glass is refused; one that is exactly a whole glass at another
// resolution is asked about in the note that comes back, empty otherwise.
func Glass(w, h, dpi float64) (note string, err error) {
	if r := math.Round(dpi); math.Abs(r-dpi) < 0.1 {
		dpi = r // files count dots to the metre, which rounds
	}
	short, long := math.Min(w, h), math.Max(w, h)
	other := 0.0
	for _, d := range resolutions {
		if k := dpi / d; math.Abs(d-dpi) > 0.02*dpi && whole(short*k, long*k, 0.008) {
			other = d
			break
		}
	}
	if long > mostGlass {
		p := &picture.Problem{What: fmt.Sprintf("At %.4g dots to the inch the sheet would be %.0f × %.0f mm: no scanner has such a glass.", dpi, w, h),
			Mend: "Say what it was scanned at. If it is a photograph, lay the pieces on the printed measuring mat and choose that instead."}
		if other > 0 {
			p.Mend = fmt.Sprintf("At %.0f it would be a whole glass: type that, if it is what it was scanned at.", other)
		}
		return "", p
	}
	if other > 0 && !whole(short, long, 0.015) {
		return fmt.Sprintf("Was it scanned at %.0f dots to the inch? Then the picture is a whole glass, %.0f × %.0f mm; at %.4g it is %.0f × %.0f mm. Measure one piece with a ruler before you keep it.", other, w*dpi/other, h*dpi/other, dpi, w, h), nil
	}
	return "", nil
}

func whole(short, long, within float64) bool {
	for _, g := range glasses {
		if math.Abs(short-g[0]) <= within*g[0] && math.Abs(long-g[1]) <= within*g[1] {
			return true
		}
	}
	return false
}
