package measure

// The space an address is read in on a letter: so far from the sides, and from so far to so
// far up from the foot, mm; USPS Domestic Mail Manual 202, from memory; the carrier's
// current rules go first.
const (
	AddressSide = Inch / 2
	AddressLow  = 0.625 * Inch
	AddressHigh = 2.75 * Inch
)

// Field is a rectangle on an envelope or a face, from its top left, mm.
type Field struct{ X, Y, W, H float64 }

// AddressField is where the carrier's machines read the address on an envelope; nothing
// where the envelope is too small for it.
func AddressField(e Size) Field {
	f := Field{AddressSide, max(0, e.H-AddressHigh), e.W - 2*AddressSide, min(e.H, AddressHigh) - AddressLow}
	if f.W <= 0 || f.H <= 0 {
		return Field{}
	}
	return f
}
