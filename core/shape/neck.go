package shape

// How fine a neck is told, mm, and how large each of the parts is at least that hang together by it, mm²:
// our own defaults.
const (
	neckStep = 0.05
	neckPart = 4.0
)

// Neck is how wide the narrowest place is by which two parts of a region hang together, mm, up to most,
// and where; false where none is so narrow. It is found by drawing the region in until it falls apart
// into parts of some size.
func (g Region) Neck(most float64) (wide float64, at Point, ok bool) {
	apart := func(w float64) (parts []Region) {
		in, err := g.Offset(-w / 2)
		if err != nil {
			return nil
		}
		for _, p := range in.Pieces() {
			if p.Area() >= neckPart {
				parts = append(parts, p)
			}
		}
		return parts
	}
	whole := len(apart(2 * neckStep))
	parts := apart(most)
	if whole == 0 || len(parts) <= whole {
		return 0, at, false
	}
	low, high := 2*neckStep, most
	for high-low > neckStep {
		mid := (low + high) / 2
		if now := apart(mid); len(now) > whole {
			high, parts = mid, now
		} else {
			low = mid
		}
	}
	// The neck lies between the two parts that stand nearest to each other.
	best := most * 4
	for i := range parts {
		for j := range i {
			if gap, on, to := parts[i].Gap(parts[j]); gap < best {
				best, at = gap, on.Add(to).Scale(0.5)
			}
		}
	}
	return (low + high) / 2, at, true
}
