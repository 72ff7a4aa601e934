package register

import (
	"math"
	"math/rand/v2"

	"gonum.org/v1/gonum/mathext"

	"ochrestone/core/shape"
)

// Spread is how well a way of placing repeats: the standard deviation of the
// shift along each axis, mm, and of the turn, degrees.
type Spread struct {
	Shift float64 `json:"shift" minimum:"0.01" maximum:"10" doc:"mm, along each axis"`
	Turn  float64 `json:"turn" minimum:"0" maximum:"45" doc:"degrees"`
}

// trials is how many placements Chance tries. They are spread evenly instead of at random, so that
// so few tell as much as forty thousand thrown dice, whose standard error is 0.25 %.
const trials = 6000

// evenly are the steps of a sequence that fills a cube evenly: the additive recurrence by the powers
// of the one real root above 1 of x⁴ = x + 1 (M. Roberts, The Unreasonable Effectiveness of
// Quasirandom Sequences, 2018).
var evenly = func() (a [3]float64) {
	x := 1.0
	for range 60 {
		x = math.Pow(1+x, 0.25)
	}
	for i := range a {
		a[i] = math.Pow(x, -float64(i+1))
	}
	return a
}()

// Chance is the share of placements that come out inside the play, for errors of
// the given spread about a mean of nought, by trying a seeded spread of them against
// the joint region of shift and turn. Without one the turn a layer can stand is
// taken to fall evenly to nothing at the edge of the play, which is on the safe
// side.
func Chance(p Play, s Spread, seed uint64) float64 {
	if !p.Judged {
		return 1
	}
	if p.Outside > 0 || len(p.Reach) == 0 {
		return 0
	}
	r := rand.New(rand.NewPCG(seed, 0x0c4e))
	good := 0
	at := [3]float64{r.Float64(), r.Float64(), r.Float64()}
	for range trials {
		for i := range at {
			if at[i] += evenly[i]; at[i] >= 1 {
				at[i]--
			}
		}
		// A shift by its length and direction, which is how the play is known.
		far := math.Sqrt(-2*math.Log(1-at[0])) * s.Shift
		sin, cos := math.Sincos(2 * math.Pi * at[1])
		if p.Holds(shape.Point{X: far * cos, Y: far * sin}, normal(at[2])*s.Turn) {
			good++
		}
	}
	return float64(good) / trials
}

// normal is the place below which a share of what is spread normally lies, in standard deviations.
func normal(share float64) float64 { return math.Sqrt2 * math.Erfinv(2*share-1) }

// Holds reports whether a layer that is shifted and turned so, degrees clockwise,
// still lies inside its play, as in Chance.
func (p Play) Holds(shift shape.Point, turn float64) bool {
	if p.Outside > 0 || len(p.Reach) == 0 {
		return false
	}
	if len(p.Joint) > 1 {
		return p.holdsJoint(shift, turn)
	}
	d := shift.Len()
	reach := p.at(math.Atan2(shift.Y, shift.X))
	if d > reach {
		return false
	}
	left := 1.0
	if reach > 0 {
		left = 1 - d/reach
	}
	limit := p.Clock
	if turn < 0 {
		limit, turn = p.Anti, -turn
	}
	return limit >= 90 || turn <= limit*left
}

// at is the play in a direction, between two of those it was computed in.
func (p Play) at(rad float64) float64 { return around(p.Reach, rad) }

// Blanks is how many blanks to prepare so that at least want come out with the
// given certainty, each with chance one: the least n for which the binomial
// distribution of n trials has P(X ≥ want) ≥ certainty, by the regularised
// incomplete beta function (NIST Digital Library of Mathematical Functions
// 8.17.5). It returns 0 when the chance is too small for a thousand to do.
func Blanks(want int, one, certainty float64) int {
	if want <= 0 {
		return 0
	}
	if one >= 1 {
		return want
	}
	for n := want; n <= 1000; n++ {
		if one > 0 && mathext.RegIncBeta(float64(want), float64(n-want+1), one) >= certainty {
			return n
		}
	}
	return 0
}
