package proof_test

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/tdewolff/canvas"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
)

// printed is a kind of scene: how a print is drawn, inked, laid down and seen.
type printed struct {
	name    string
	motifs  []motif
	grade   sim.Grade
	spread  float64 // ink that ran past the stamp, mm at most
	wander  bool    // it ran further at some places than at others
	bare    float64 // share of the print without ink, at most
	thin    bool    // inks laid on at half to full strength
	alike   float64 // every ink is that of the layer before, so many CIEDE2000 darker
	unknown bool
}

// motif is a design: its regions, and the inks usual for it.
type motif struct {
	name    string
	regions []shape.Region
}

// others are motifs none of the program's own tests of proofs are drawn from: round things
// with hardly an edge to turn by, ladders of like bars, scattered dots, thin frames.
func others(t testing.TB) []motif {
	beside, err := sim.Sets()
	require.NoError(t, err)
	var out []motif
	for _, s := range beside {
		if !slices.Contains([]string{"sim-flower", "sim-lantern", "sim-snail", "sim-cottage"}, s.ID) {
			continue
		}
		parts := slices.Clone(s.Parts)
		slices.SortStableFunc(parts, func(a, b kit.Part) int { return int(b.Outline.Area() - a.Outline.Area()) })
		m := motif{name: trimSim(s.ID)}
		for _, p := range parts[:min(4, len(parts))] {
			m.regions = append(m.regions, p.Outline)
		}
		out = append(out, m)
	}
	path := func(d string) shape.Region {
		p, err := canvas.ParseSVGPath(d)
		require.NoError(t, err)
		return shape.FromPath(p, true)
	}
	disc := func(x, y, r float64) shape.Region { return shape.Disc(shape.Point{X: x, Y: y}, r) }
	all := func(gs ...shape.Region) shape.Region {
		g, err := shape.UnionAll(gs...)
		require.NoError(t, err)
		return g
	}
	less := func(a, b shape.Region) shape.Region {
		g, err := a.Minus(b)
		require.NoError(t, err)
		return g
	}
	bar := shape.Rect
	var bars, dots []shape.Region
	for i := range 6 {
		bars = append(bars, bar(4, 4+6*float64(i), 22, 2.4))
		dots = append(dots, disc(8+4*math.Cos(float64(i)*2.4)*float64(i)/3, 20+5*math.Sin(float64(i)*2.4)*float64(i)/3, 1.1))
	}
	return append(out,
		motif{"round", []shape.Region{disc(20, 20, 18), less(disc(20, 20, 14), disc(20, 20, 9)), all(disc(20, 20, 6), bar(19, 14, 2, 5))}},
		motif{"bars", []shape.Region{bar(0, 0, 30, 40), all(bars...), all(bar(6, 2, 1.2, 36), bar(22, 2, 1.2, 36))}},
		motif{"dots", []shape.Region{path("M2 4C18-4 34 6 32 20C30 36 6 40 2 26z"), all(dots...)}},
		motif{"frame", []shape.Region{less(bar(0, 0, 44, 32), bar(5, 5, 34, 22)), less(bar(1.5, 1.5, 41, 29), bar(2.5, 2.5, 39, 27)), path("M8 20L22 8L36 20L34 22L22 12L10 22z")}},
	)
}

// inksFor draws inks from the light to the dark, films of dye over white paper; alike, each
// is so many CIEDE2000 from the one before.
func inksFor(rnd *rand.Rand, n int, alike float64, paper colour.Linear) []colour.Film {
	out := make([]colour.Film, n)
	hue := rnd.Float64() * 2 * math.Pi
	at := func(l, chroma, h float64) colour.Film {
		lab := colour.Lab{L: l, A: chroma * math.Cos(h), B: chroma * math.Sin(h)}
		c := lab.Linear()
		for i := range c {
			c[i] = math.Max(0.01, math.Min(0.98, c[i]))
		}
		return colour.FilmFrom(c, paper, 0.04)
	}
	l := 74 + 8*rnd.Float64()
	for i := range out {
		if alike > 0 {
			out[i] = at(l-float64(i)*alike*1.2, 30, hue)
			continue
		}
		out[i] = at(l-float64(i)*(50/float64(n)), 12+30*rnd.Float64(), hue+rnd.NormFloat64()*0.6)
	}
	return out
}

// wandering lets ink run past an edge further at some places than at others, up to most mm:
// as far as that where a blot of 3 to 7 mm took it, a fifth of it elsewhere.
func wandering(t testing.TB, g shape.Region, most float64, rnd *rand.Rand) shape.Region {
	all, err := g.Offset(most)
	require.NoError(t, err)
	out, err := g.Offset(most / 5)
	require.NoError(t, err)
	b := g.Bounds()
	blots := make([]shape.Region, max(3, int(b.W()*b.H()/90)))
	for i := range blots {
		blots[i] = shape.Disc(shape.Point{X: b.Min.X + rnd.Float64()*b.W(), Y: b.Min.Y + rnd.Float64()*b.H()}, 3+4*rnd.Float64())
	}
	took, err := shape.UnionAll(blots...)
	require.NoError(t, err)
	took, err = took.Intersect(all)
	require.NoError(t, err)
	out, err = shape.UnionAll(out, took)
	require.NoError(t, err)
	return out
}

// scene prints a motif as the kind says and reads it back.
func (k printed) scene(t testing.TB, m motif, seed uint64) (*picture.Picture, []register.Motion, []proof.Layer, colour.Linear) {
	white, err := colour.ParseHex(kit.PlainWhite)
	require.NoError(t, err)
	rnd := rand.New(rand.NewPCG(seed, uint64(len(m.name))<<8|uint64(m.name[0])))
	films := inksFor(rnd, len(m.regions), k.alike, white)
	var a []sim.Layer
	var b []proof.Layer
	for i, g := range m.regions {
		b = append(b, proof.Layer{Label: fmt.Sprintf("Layer %d", i+1), Region: g, Film: films[i], Strikes: 1})
		film, ran := films[i], g
		if k.wander {
			ran = wandering(t, g, k.spread, rnd)
		} else if k.spread > 0 {
			ran, err = g.Offset(k.spread * rnd.Float64())
			require.NoError(t, err)
		}
		if k.thin {
			by := 0.5 + 0.5*rnd.Float64()
			for c := range film.T {
				film.T[c] = math.Pow(film.T[c], by)
			}
		}
		a = append(a, sim.Layer{Region: ran, Film: film})
	}
	bench, off := sim.Proof(a, white, 1.5, 2, 3, seed)
	if k.bare > 0 {
		for i := range bench.Items {
			bench.Items[i].Bare = k.bare * rnd.Float64()
		}
	}
	return scanned(t, bench, k.grade, seed), off, b, white
}

// reality are the kinds of scene a maker's own prints bring.
func reality(t testing.TB) []printed {
	ms := others(t)
	dev := func(tone, sharp float64) sim.Grade {
		g := mild()
		g.Tone, g.Sharpen = tone, sharp
		return g
	}
	patchy := mild()
	patchy.Blotch, patchy.Mottle = 0.5, 0.15
	rough := sim.Hard()
	rough.Mottle = 0.1
	return []printed{
		{name: "plain", motifs: ms, grade: mild()},
		{name: "dark curve", motifs: ms, grade: dev(1.3, 0.4)},
		{name: "light curve", motifs: ms, grade: dev(0.8, 0.4)},
		{name: "sharpened", motifs: ms, grade: dev(1, 1.4)},
		{name: "ran 0.2", motifs: ms, grade: mild(), spread: 0.2},
		{name: "ran unevenly", motifs: ms, grade: mild(), spread: 0.2, wander: true},
		{name: "half covered", motifs: ms, grade: mild(), bare: 0.5},
		{name: "thinly inked", motifs: ms, grade: mild(), thin: true},
		{name: "patchy", motifs: ms, grade: patchy},
		{name: "alike 6", motifs: ms, grade: mild(), alike: 6},
		{name: "alike 3", motifs: ms, grade: mild(), alike: 3},
		{name: "alike, patchy", motifs: ms, grade: patchy, alike: 4},
		{name: "no inks", motifs: ms, grade: mild(), unknown: true},
		{name: "no inks, all", motifs: ms, grade: rough, spread: 0.2, bare: 0.3, unknown: true},
		{name: "all", motifs: ms, grade: rough, spread: 0.2, wander: true, bare: 0.4, thin: true},
	}
}

// BenchmarkRealProofs prints, for every kind of scene, how near prints are measured and how
// often the stated uncertainty, twice, covers the truth. Asked for: 95 of 100 in every kind,
// nothing wrong by more than it says and a tenth of a millimetre more. REAL picks kinds by
// a word of their name, EACH=1 prints what is missed.
func BenchmarkRealProofs(b *testing.B) {
	seeds := uint64(4)
	if n, err := strconv.Atoi(os.Getenv("SEEDS")); err == nil {
		seeds = uint64(n)
	}
	for b.Loop() {
		fmt.Printf("\n%-14s %6s %7s %5s %5s %9s %9s %9s %9s %9s %8s %6s\n", "scene", "prints", "refused", "lost", "told", "50% mm", "90% mm", "worst mm", "90% deg", "± 50%", "covered", "wrong")
		for _, k := range reality(b) {
			if want := os.Getenv("REAL"); want != "" && !strings.Contains(k.name, want) {
				continue
			}
			var shift, turn, said []float64
			var prints, refused, lost, told, covered, all, wrong int
			for _, m := range k.motifs {
				for seed := uint64(1); seed <= seeds; seed++ {
					pic, off, ls, paper := k.scene(b, m, seed)
					prints++
					plane, err := proof.Scan(pic, 300)
					require.NoError(b, err)
					var opts []proof.Option
					if k.unknown {
						opts = append(opts, proof.UnknownInks())
					}
					got, err := proof.Measure(b.Context(), plane, paper, ls, opts...)
					var why *picture.Problem
					if err != nil {
						require.True(b, errors.As(err, &why), err)
						refused++
						if os.Getenv("EACH") != "" {
							fmt.Printf("   %s %s %d refused: %s\n", k.name, m.name, seed, why.What)
						}
						continue
					}
					if len(got.Prints) != 1 {
						refused++
						continue
					}
					r := got.Prints[0]
					if len(r.Notes) > 0 {
						told++
					}
					for i := 1; i < len(ls); i++ {
						o := r.Layers[i]
						if o.Lost {
							lost++
							continue
						}
						c := ls[i].Region.Centroid()
						d := o.Shift.Sub(off[i].Point(c).Sub(c))
						e := math.Abs(math.Remainder(o.Turn-off[i].Turn, 360))
						shift, turn, said = append(shift, d.Len()), append(turn, e), append(said, 2*o.SureShift)
						for j, ok := range [3]bool{math.Abs(d.X) <= 2*o.SureShift, math.Abs(d.Y) <= 2*o.SureShift, e <= 2*o.SureTurn} {
							all++
							if ok {
								covered++
							} else if os.Getenv("EACH") != "" {
								fmt.Printf("   %s %s %d layer %d %s: off by %.3f %.3f mm %.3f deg, said %.3f %.3f miss %.3f %q\n", k.name, m.name, seed, i+1, [3]string{"x", "y", "turn"}[j], d.X, d.Y, e, 2*o.SureShift, 2*o.SureTurn, r.Miss, r.Notes)
							}
						}
						if d.Len() > 0.1+2*o.SureShift {
							wrong++
						}
					}
				}
			}
			for _, v := range [][]float64{shift, turn, said} {
				slices.Sort(v)
			}
			q := func(v []float64, per int) float64 {
				if len(v) == 0 {
					return math.NaN()
				}
				return v[min(len(v)-1, len(v)*per/100)]
			}
			fmt.Printf("%-14s %6d %7d %5d %5d %9.3f %9.3f %9.3f %9.3f %9.3f %7.1f%% %6d\n", k.name, prints, refused, lost, told, q(shift, 50), q(shift, 90), q(shift, 100), q(turn, 90), q(said, 50), 100*float64(covered)/float64(max(1, all)), wrong)
		}
	}
}

// BenchmarkWrongProofs prints how many pictures that are no print of the image as it is said to
// be lie are measured all the same: upside down, mirrored, at other dots to the inch, of
// another image. Motifs that look the same that way are named and may.
func BenchmarkWrongProofs(b *testing.B) {
	same := map[string][]string{"upside down": {"round", "bars"}, "mirrored": {"round", "bars", "frame", "flower", "lantern"}}
	for b.Loop() {
		tried, passed, ran := 0, 0, 0
		for _, name := range []string{"plain", "half covered", "alike, patchy", "no inks"} {
			k := kindOf(b, name)
			for j, m := range k.motifs {
				pic, _, ls, paper := k.scene(b, m, 7)
				down := &picture.Picture{W: pic.W, H: pic.H, Pix: make([]uint8, len(pic.Pix))}
				flip := &picture.Picture{W: pic.W, H: pic.H, Pix: make([]uint8, len(pic.Pix))}
				for y := range pic.H {
					for x := range pic.W {
						copy(down.Pix[3*((pic.H-1-y)*pic.W+pic.W-1-x):][:3], pic.Pix[3*(y*pic.W+x):])
						copy(flip.Pix[3*(y*pic.W+pic.W-1-x):][:3], pic.Pix[3*(y*pic.W+x):])
					}
				}
				_, _, other, _ := k.scene(b, k.motifs[(j+3)%len(k.motifs)], 7)
				for _, w := range []struct {
					what string
					pic  *picture.Picture
					dpi  float64
					ls   []proof.Layer
				}{{"upside down", down, 300, ls}, {"mirrored", flip, 300, ls}, {"at 240", pic, 240, ls}, {"at 330", pic, 330, ls}, {"another", pic, 300, other}} {
					ran++
					plane, err := proof.Scan(w.pic, w.dpi)
					require.NoError(b, err)
					var opts []proof.Option
					if k.unknown {
						opts = append(opts, proof.UnknownInks())
					}
					got, err := proof.Measure(b.Context(), plane, paper, w.ls, opts...)
					if slices.Contains(same[w.what], m.name) {
						continue
					}
					tried++
					if err == nil && slices.ContainsFunc(got.Prints[0].Layers[1:], func(o proof.Off) bool { return !o.Lost }) {
						passed++
						fmt.Printf("   measured: %s, %s, %s: %q\n", k.name, m.name, w.what, got.Prints[0].Notes)
					}
				}
			}
		}
		fmt.Printf("%d wrong pictures, %d measured all the same (%d more of motifs that look so)\n", tried, passed, ran-tried)
	}
}

func kindOf(t testing.TB, name string) printed {
	ks := reality(t)
	i := slices.IndexFunc(ks, func(k printed) bool { return k.name == name })
	require.GreaterOrEqual(t, i, 0, name)
	return ks[i]
}

func (k printed) motif(t testing.TB, name string) motif {
	i := slices.IndexFunc(k.motifs, func(m motif) bool { return m.name == name })
	require.GreaterOrEqual(t, i, 0, name)
	return k.motifs[i]
}

// A print whose ink took only half the paper, in grains, is this image all the same: it is
// measured, less surely, and said to be uneven.
func TestAGrainyPrintIsMeasured(t *testing.T) {
	k := kindOf(t, "half covered")
	pic, off, ls, paper := k.scene(t, k.motif(t, "cottage"), 7)
	got, err := one(t, pic, 300, paper, ls)
	require.NoError(t, err)
	shift, _, covered, all := errorsOf(got, off, ls)
	for i, s := range shift {
		assert.Less(t, s, 0.05, ls[i+1].Label)
		assert.Less(t, got.Layers[i+1].SureShift, 0.05)
	}
	assert.GreaterOrEqual(t, covered, all-1)
	assert.Contains(t, strings.Join(got.Notes, " "), "covers unevenly")
}

// Ink that ran 0.2 mm past the stamp here and hardly at all there pushes whole stretches of
// an edge: what is said covers it, where pixels counted one by one would say a tenth of it.
func TestInkThatRanUnevenlyIsLessSure(t *testing.T) {
	plain, ran := kindOf(t, "plain"), kindOf(t, "ran unevenly")
	covered, all := 0, 0
	for seed, name := range map[uint64]string{1: "lantern", 2: "cottage", 3: "bars"} {
		m := plain.motif(t, name)
		pic, _, ls, paper := plain.scene(t, m, seed)
		even, err := one(t, pic, 300, paper, ls)
		require.NoError(t, err)
		pic, off, ls, paper := ran.scene(t, m, seed)
		got, err := one(t, pic, 300, paper, ls)
		require.NoError(t, err)
		_, _, c, a := errorsOf(got, off, ls)
		covered, all = covered+c, all+a
		for i := 1; i < len(ls); i++ {
			assert.Greater(t, got.Layers[i].SureShift, 2*even.Layers[i].SureShift)
		}
	}
	assert.GreaterOrEqual(t, 10*covered, 9*all, "%d of %d", covered, all)
}

// A disc has no turn. What is said of it is the turn of the others and how far a hand may be
// off, not what the corners of its polygon suggest.
func TestARoundLayerHasNoTurn(t *testing.T) {
	k := kindOf(t, "plain")
	pic, _, ls, paper := k.scene(t, k.motif(t, "snail"), 1)
	got, err := one(t, pic, 300, paper, ls)
	require.NoError(t, err)
	round := 0
	for i := 1; i < len(ls); i++ {
		if got.Layers[i].SureTurn > 1 {
			round++
			assert.Less(t, got.Layers[i].SureShift, 0.01, "its place is told as well as any")
		}
	}
	assert.Positive(t, round)
	assert.Contains(t, strings.Join(got.Notes, " "), "as good as round")
}

// A mirrored print in like inks once passed: its outline alone fits, and its parts came to
// rest beside their places.
func TestAMirroredPrintInLikeInksIsRefused(t *testing.T) {
	k := kindOf(t, "alike, patchy")
	pic, _, ls, paper := k.scene(t, k.motif(t, "cottage"), 7)
	flip := &picture.Picture{W: pic.W, H: pic.H, Pix: make([]uint8, len(pic.Pix))}
	for y := range pic.H {
		for x := range pic.W {
			copy(flip.Pix[3*(y*pic.W+pic.W-1-x):][:3], pic.Pix[3*(y*pic.W+x):])
		}
	}
	_, err := one(t, flip, 300, paper, ls)
	var bad *picture.Problem
	require.ErrorAs(t, err, &bad)
	assert.Contains(t, bad.Mend, "mirrored")
}
