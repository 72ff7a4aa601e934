package depth

import "math"

// Stiffness of card, as it is assumed where nobody measured it: a published figure for
// solid board bending across its weaker way is of the order of 2 to 4 GPa (elastic modulus
// from bending stiffness by ISO 2493-1, S = E t³ / 12 a width), and pressed card holds by
// its glue or foam against so much pull. Both are stated defaults, not measurements.
const (
	boardModulus = 3000.0 // N/mm², from memory
	tackPull     = 0.02   // N a mm of edge that a pressed joint holds for good, our own default
)

// Bends is over how long a free span card of a thickness follows a step down or up of so
// many mm and stays stuck there: the length at which a strip clamped at one end and pulled
// by the joint at the other gives by the step, by the beam formula f = F L³ / (3 E I). Card
// without thickness follows at once.
func Bends(step, thick float64) float64 {
	stiff := boardModulus * thick * thick * thick / 12 // N·mm, of a strip 1 mm wide
	return math.Cbrt(3 * stiff * math.Max(0, step) / tackPull)
}
