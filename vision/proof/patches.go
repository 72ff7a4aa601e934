package proof

import "ochrestone/core/colour"

// Grid of the patches of a print.
const (
	patch     = 1.0  // mm
	patchHold = 25.0 // pixels' worth of the mean colour mixed in: few pixels tell little
)

// patches are the colours of every set of layers place by place: solids print
// patchy, and an edge is told from what lies beside it, not from the mean.
type patches struct {
	nx, ny, classes int
	v               []colour.Linear
}

// patchUp learns the patches from the places clear of edges, each smoothed with
// those round it.
func (m *model) patchUp(p *Plane) {
	k := len(m.classes)
	q := &patches{nx: int(float64(p.w)/p.perMM/patch) + 1, ny: int(float64(p.h)/p.perMM/patch) + 1, classes: k}
	sum := make([]colour.Linear, q.nx*q.ny*k)
	count := make([]float64, len(sum))
	m.clear(p, 1, func(x, y, mask int) {
		at := (int((float64(y)+0.5)/p.perMM/patch)*q.nx+int((float64(x)+0.5)/p.perMM/patch))*k + mask
		v := p.at(x, y)
		for c := range v {
			sum[at][c] += v[c] - m.classes[mask][c]
		}
		count[at]++
	})
	q.v = make([]colour.Linear, len(sum))
	for y := range q.ny {
		for x := range q.nx {
			for mask := range k {
				var s colour.Linear
				n := patchHold
				for dy := max(0, y-1); dy <= min(q.ny-1, y+1); dy++ {
					for dx := max(0, x-1); dx <= min(q.nx-1, x+1); dx++ {
						at := (dy*q.nx+dx)*k + mask
						w := 1.0
						if dx != x {
							w /= 2
						}
						if dy != y {
							w /= 2
						}
						n += w * count[at]
						for c := range s {
							s[c] += w * sum[at][c]
						}
					}
				}
				at := (y*q.nx+x)*k + mask
				for c := range s {
					q.v[at][c] = m.classes[mask][c] + s[c]/n
				}
			}
		}
	}
	m.patches = q
}

// coloursAt are the colours of every set of layers at a place.
func (m *model) coloursAt(x, y float64) []colour.Linear {
	q := m.patches
	if q == nil {
		return m.classes
	}
	at := (min(q.ny-1, int(y/patch))*q.nx + min(q.nx-1, int(x/patch))) * q.classes
	return q.v[at : at+q.classes]
}
