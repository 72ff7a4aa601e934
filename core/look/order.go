package look

import "ochrestone/core/card"

// InOrder reports whether a colourway keeps the order of its school.
func InOrder(m card.Motif, w Colourway) bool {
	return len(Crossings(m, w)) == 0
}

// Crossing is a pair of layers whose lightness runs against their ranks.
type Crossing struct {
	Low, High int     // layer indices, Low has the smaller rank
	Drop      float64 // of lightness, L*, against the order; negative
}

// OrderSlack is by how much of lightness, L*, two layers may run against their ranks
// before anybody sees it; our own default.
const OrderSlack = 1.5

// Crossings lists the pairs of layers of an image that dry against the order of its
// school; none where the school has no order.
func Crossings(m card.Motif, w Colourway) []Crossing {
	if !m.School.Ordered() {
		return nil
	}
	var out []Crossing
	for i, a := range m.Layers {
		for j, c := range m.Layers {
			if a.Accent || c.Accent || a.Rank >= c.Rank {
				continue
			}
			d := w.Layers[i].L - w.Layers[j].L
			if m.School == card.DarkGround {
				d = -d
			}
			if d < -OrderSlack {
				out = append(out, Crossing{i, j, d})
			}
		}
	}
	return out
}

// Readable is the CIEDE2000 difference under which touching layers read as one
// at arm's length: our own default.
const Readable = 8.0

// LightStep is the least difference of L* between tone ranks: our own default.
const LightStep = 4.0

// MergesOver is the shared edge, mm, past which a weak pair matters; our own default.
const MergesOver = 2.0
