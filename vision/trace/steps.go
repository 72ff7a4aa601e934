package trace

import "math"

// Steps of a profile: places where it changes as sharply as the device's blur allows, which
// an end of card or of print does and the end of a shadow does not.
const (
	stepReach = 5.0  // pixels each way that are looked at
	stepSeen  = 60.0 // gain in explained squares from which a step is told from noise
	stepShare = 0.004
	mostSteps = 5
)

// sharpStep is one of them.
type sharpStep struct{ at, gain float64 }

// wider are the blurs, in pixels more than the device's, of what is no edge.
var wider = [3]float64{0, 1.0, 2.4}

// steps finds the sharp steps of a profile, strongest first, each taken off before the next
// is looked for; soft ones are taken off too and not returned.
func (e *even) steps(blur float64) []sharpStep {
	rest := e.v
	var out []sharpStep
	strongest := 0.0
	for range mostSteps {
		var best sharpStep
		var amp [3]float64
		wide := 0
		for b := e.lo + 6; b < e.hi-5; b++ {
			at := -profileIn + (float64(b)+0.5)*profileBin
			for k, more := range wider {
				if gain, a := e.gain(&rest, at, blur+more); gain > best.gain {
					best, amp, wide = sharpStep{at, gain}, a, k
				}
			}
		}
		if best.gain < max(stepSeen, stepShare*strongest) {
			break
		}
		strongest = max(strongest, best.gain)
		for b := e.lo; b < e.hi; b++ {
			a := step(e.at[b], best.at, blur+wider[wide])
			for c := range e.chans {
				rest[b][c] -= amp[c] * a
			}
		}
		if wide == 0 {
			out = append(out, best)
		}
	}
	return out
}

// gain is how much more of a profile a step at a place explains than a smooth change, and
// how high it is in every channel.
func (e *even) gain(v *[profileLen][3]float64, at, blur float64) (gain float64, amp [3]float64) {
	lo := max(e.lo, int((at-stepReach+profileIn)/profileBin))
	hi := min(e.hi, int((at+stepReach+profileIn)/profileBin)+1)
	if hi-lo < 10 {
		return 0, amp
	}
	var rows [2*int(stepReach/profileBin) + 3][4]float64
	for b := lo; b < hi; b++ {
		t := (e.at[b] - at) / stepReach
		rows[b-lo] = [4]float64{1, t, t * t, step(e.at[b], at, blur)}
	}
	for c := range e.chans {
		var m [4][4]float64
		var y [4]float64
		for b := lo; b < hi; b++ {
			w := e.weight[b][c]
			if w == 0 {
				continue
			}
			r := &rows[b-lo]
			for i := range r {
				wi := w * r[i]
				for j := 0; j <= i; j++ {
					m[i][j] += wi * r[j]
				}
				y[i] += wi * v[b][c]
			}
		}
		// Cholesky's; what the last term adds is the square of its own entry.
		ok := true
		for i := 0; i < 4 && ok; i++ {
			m[i][i] += 1e-6*m[i][i] + 1e-12
			for j := 0; j <= i; j++ {
				s := m[i][j]
				for k := range j {
					s -= m[i][k] * m[j][k]
				}
				if i == j {
					if s <= 0 {
						ok = false
						break
					}
					m[i][i] = math.Sqrt(s)
				} else {
					m[i][j] = s / m[j][j]
				}
			}
			if ok {
				s := y[i]
				for k := range i {
					s -= m[i][k] * y[k]
				}
				y[i] = s / m[i][i]
			}
		}
		if ok {
			gain += y[3] * y[3]
			amp[c] = y[3] / m[3][3]
		}
	}
	return gain, amp
}
