package advise

import (
	"math"
	"ochrestone/core/card"
	"ochrestone/core/ramp"
)

// twins is how near, mm, two of an image lie when one is raised over the other: they are no
// neighbours.
const twins = 0.5

// How far apart two of an image may stand to be neighbours, in times the distance of the nearest two:
// anyhow, and with none of them between. Our own defaults.
const (
	hardly  = 1.35
	between = 2.0
)

// Neighbours lists the pairs of elements of one image that stand hardly further
// apart than the nearest two of them, or up to twice as far where no third is nearer
// to both (relative neighbours, Toussaint 1980): above one another in a grid whose
// rows stand further apart than its columns.
func Neighbours(es []card.Element, motif string) (out [][2]int) {
	least := math.Inf(1)
	apart := func(i, j int) float64 {
		return math.Hypot(es[i].Place.X-es[j].Place.X, es[i].Place.Y-es[j].Place.Y)
	}
	each := func(f func(i, j int, d float64)) {
		for j := range es {
			for i := range j {
				if d := apart(i, j); of(es[i], motif) && of(es[j], motif) && d > twins {
					f(i, j, d)
				}
			}
		}
	}
	alone := func(i, j int, d float64) bool {
		for k := range es {
			if k != i && k != j && of(es[k], motif) && max(apart(i, k), apart(j, k)) < d-1e-9 {
				return false
			}
		}
		return true
	}
	each(func(_, _ int, d float64) { least = math.Min(least, d) })
	each(func(i, j int, d float64) {
		if d <= hardly*least || d <= between*least && alone(i, j, d) {
			out = append(out, [2]int{i, j})
		}
	})
	return out
}

// Spread shares the colourways of an image out among its places on the card,
// so that neighbours differ. It returns the colourway of each element and how
// many neighbours had to share one.
func Spread(c card.Card, motif string) (map[string]string, int) {
	m, ok := c.Motif(motif)
	if !ok || len(m.Colourways) == 0 {
		return map[string]string{}, 0
	}
	var at []int
	index := map[int]int{}
	for i, e := range c.Elements {
		if of(e, motif) {
			index[i] = len(at)
			at = append(at, i)
		}
	}
	near := make([][]int, len(at))
	for _, p := range Neighbours(c.Elements, motif) {
		i, j := index[p[0]], index[p[1]]
		near[i], near[j] = append(near[i], j), append(near[j], i)
	}
	pick, clashes := ramp.Spread(near, len(m.Colourways))
	out := map[string]string{}
	for k, i := range at {
		out[c.Elements[i].ID] = m.Colourways[pick[k]].ID
	}
	return out, clashes
}

func of(e card.Element, motif string) bool { return e.Image != nil && e.Image.Motif == motif }
