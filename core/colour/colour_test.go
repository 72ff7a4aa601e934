package colour

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	_ "ochrestone/tools/seeded"
)

// The 34 pairs of Sharma, Wu and Dalal, Color Research and Application 30
// (2005), table 1: L a b, L a b, ΔE00.
var sharma = [][7]float64{
	{50.0000, 2.6772, -79.7751, 50.0000, 0.0000, -82.7485, 2.0425},
	{50.0000, 3.1571, -77.2803, 50.0000, 0.0000, -82.7485, 2.8615},
	{50.0000, 2.8361, -74.0200, 50.0000, 0.0000, -82.7485, 3.4412},
	{50.0000, -1.3802, -84.2814, 50.0000, 0.0000, -82.7485, 1.0000},
	{50.0000, -1.1848, -84.8006, 50.0000, 0.0000, -82.7485, 1.0000},
	{50.0000, -0.9009, -85.5211, 50.0000, 0.0000, -82.7485, 1.0000},
	{50.0000, 0.0000, 0.0000, 50.0000, -1.0000, 2.0000, 2.3669},
	{50.0000, -1.0000, 2.0000, 50.0000, 0.0000, 0.0000, 2.3669},
	{50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0009, 7.1792},
	{50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0010, 7.1792},
	{50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0011, 7.2195},
	{50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0012, 7.2195},
	{50.0000, -0.0010, 2.4900, 50.0000, 0.0009, -2.4900, 4.8045},
	{50.0000, -0.0010, 2.4900, 50.0000, 0.0010, -2.4900, 4.8045},
	{50.0000, -0.0010, 2.4900, 50.0000, 0.0011, -2.4900, 4.7461},
	{50.0000, 2.5000, 0.0000, 50.0000, 0.0000, -2.5000, 4.3065},
	{50.0000, 2.5000, 0.0000, 73.0000, 25.0000, -18.0000, 27.1492},
	{50.0000, 2.5000, 0.0000, 61.0000, -5.0000, 29.0000, 22.8977},
	{50.0000, 2.5000, 0.0000, 56.0000, -27.0000, -3.0000, 31.9030},
	{50.0000, 2.5000, 0.0000, 58.0000, 24.0000, 15.0000, 19.4535},
	{50.0000, 2.5000, 0.0000, 50.0000, 3.1736, 0.5854, 1.0000},
	{50.0000, 2.5000, 0.0000, 50.0000, 3.2972, 0.0000, 1.0000},
	{50.0000, 2.5000, 0.0000, 50.0000, 1.8634, 0.5757, 1.0000},
	{50.0000, 2.5000, 0.0000, 50.0000, 3.2592, 0.3350, 1.0000},
	{60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644},
	{63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.2630},
	{61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620, 1.8731},
	{35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645},
	{22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619, 2.0373},
	{36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146},
	{90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447, 1.4441},
	{90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381},
	{6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377},
	{2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082},
}

func TestDifferenceAgainstSharma(t *testing.T) {
	require.Len(t, sharma, 34)
	for i, r := range sharma {
		p, q := Lab{r[0], r[1], r[2]}, Lab{r[3], r[4], r[5]}
		assert.InDelta(t, r[6], Difference(p, q), 5e-5, "pair %d", i+1)
		assert.InDelta(t, r[6], Difference(q, p), 5e-5, "pair %d the other way", i+1)
	}
}

// testdata/culori.json is made by web/scripts/colour-fixture.mjs with culori
// 4.0.2 (npm): random sRGB pairs, their Lab (D65) and CIEDE2000.
func TestAgainstCulori(t *testing.T) {
	raw, err := os.ReadFile("testdata/culori.json")
	require.NoError(t, err)
	var rows []struct {
		A, B       string
		LabA, LabB [3]float64
		DE         float64
	}
	require.NoError(t, json.Unmarshal(raw, &rows))
	require.Greater(t, len(rows), 2000)
	for _, r := range rows {
		a, err := ParseHex(r.A)
		require.NoError(t, err)
		b, err := ParseHex(r.B)
		require.NoError(t, err)
		la := a.Lab()
		// The two use white points that differ in the fifth digit.
		assert.InDelta(t, r.LabA[0], la.L, 0.02, r.A)
		assert.InDelta(t, r.LabA[1], la.A, 0.03, r.A)
		assert.InDelta(t, r.LabA[2], la.B, 0.03, r.A)
		assert.InDelta(t, r.DE, Difference(Lab{r.LabA[0], r.LabA[1], r.LabA[2]}, Lab{r.LabB[0], r.LabB[1], r.LabB[2]}), 1e-4, "%s %s", r.A, r.B)
		assert.InDelta(t, r.DE, Difference(la, b.Lab()), 0.05)
		assert.Equal(t, r.A, a.Hex(), "round trip")
	}
}

func TestHexRefusesNonsense(t *testing.T) {
	for _, s := range []string{"", "#12345", "#gggggg", "red", "#12345678", "+12345"} {
		_, err := ParseHex(s)
		assert.ErrorIs(t, err, ErrHex, s)
	}
}

func hexColour(t *rapid.T, name string) Linear {
	return Linear{rapid.Float64Range(0.02, 1).Draw(t, name), rapid.Float64Range(0.02, 1).Draw(t, name), rapid.Float64Range(0.02, 1).Draw(t, name)}
}

// Kubelka and Munk's K/S adds without hiding (Duncan 1940); an opaque film shows its body whatever is beneath; no impression changes
// nothing; and the swatch is reproduced on its own paper.
func TestFilmSpecialCases(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		paper, under := hexColour(t, "paper"), hexColour(t, "under")
		var swatch Linear
		for i := range swatch {
			swatch[i] = paper[i] * rapid.Float64Range(0.5, 1).Draw(t, "share")
		}
		h := rapid.Float64Range(0, 1).Draw(t, "hide")
		f := FilmFrom(swatch, paper, h)
		back := f.Over(paper, 1)
		for i := range back {
			assert.InDelta(t, swatch[i], back[i], 1e-9)
		}
		assert.Equal(t, under, f.Over(under, 0))

		clear := FilmFrom(swatch, paper, 0)
		one := clear.Over(under, 1)
		two := clear.Over(under, 2)
		for i := range one {
			assert.InDelta(t, absorbs(under[i])+absorbs(clear.T[i]), absorbs(one[i]), 1e-6*(1+absorbs(one[i])))
			assert.LessOrEqual(t, one[i], under[i]+1e-12)
			assert.LessOrEqual(t, two[i], one[i]+1e-12, "a second strike never lightens a clear ink")
			assert.GreaterOrEqual(t, clear.Over(under, 3)[i], clear.Over(under, 50)[i])
		}
		solid := FilmFrom(swatch, paper, 1).Over(under, 1)
		for i := range solid {
			assert.InDelta(t, swatch[i], solid[i], 1e-9)
		}
	})
	assert.InDelta(t, 2.5, Impressions(60), 1e-9, "geometric series 1/(1-0.6)")
	assert.Equal(t, 1.0, Impressions(1))
	assert.InDelta(t, 1.96, Impressions(3), 1e-12)
	assert.Zero(t, Impressions(0))
}

// The function of Kubelka and Munk at round reflectances, by hand from their
// formula (Z. techn. Phys. 12, 1931): 0.5 gives 0.25, 0.2 gives 1.6, 0.1 gives 4.05.
func TestKubelkaAndMunk(t *testing.T) {
	for r, ks := range map[float64]float64{1: 0, 0.5: 0.25, 0.2: 1.6, 0.1: 4.05} {
		assert.InDelta(t, ks, absorbs(r), 1e-9)
		assert.InDelta(t, r, reflects(ks), 1e-9)
	}
}

// Common practice, no source: typed red ink all but vanishes on red card, and a
// blue does not; how far the foretold colour may be off is said, and is small on
// the paper the ink was seen on.
func TestTypedInkOnCardOfItsOwnHue(t *testing.T) {
	white, red := lin("#f6f5f1"), lin("#a8373b")
	ink := FilmFrom(lin("#b4524f"), white, 0.04)
	on := ink.Over(red, 1)
	assert.Greater(t, on.Lab().L, red.Lab().L-6)
	assert.Less(t, Difference(on.Lab(), red.Lab()), 7.0)
	blue := FilmFrom(lin("#43849c"), white, 0.04)
	assert.Greater(t, Difference(blue.Over(red, 1).Lab(), red.Lab()), 20.0)
	assert.Greater(t, ink.Doubt(red, white, 1, 1), 6.0)
	assert.InDelta(t, 1, ink.Doubt(white, white, 1, 1), 0.2)
	assert.Less(t, ink.Doubt(lin("#e9dfca"), white, 1, 1), 5.0, "cream is nearly white")
}

// Common practice, no source: inks dry lighter and duller, and reds all but
// vanish on red card where they stand well on white.
func TestDryingAndTheVanishingRed(t *testing.T) {
	wet, _ := ParseHex("#b0303a")
	d := Drying{Lift: 0.08, Keep: 0.9}
	dry := d.Dry(wet)
	assert.Greater(t, dry.Lab().L, wet.Lab().L)
	assert.Less(t, dry.Lab().Chroma(), wet.Lab().Chroma())
	back := d.Wet(dry)
	assert.Less(t, Difference(back.Lab(), wet.Lab()), 0.5)

	white, _ := ParseHex("#f7f6f2")
	red, _ := ParseHex("#b8343c")
	green, _ := ParseHex("#3d7a4a")
	ink := FilmFrom(red, white, 0.05)
	onWhite := Difference(ink.Over(white, 1).Lab(), white.Lab())
	onRed := Difference(ink.Over(red, 1).Lab(), red.Lab())
	onRedGreen := Difference(FilmFrom(green, white, 0.05).Over(red, 1).Lab(), red.Lab())
	assert.Less(t, onRed, onWhite/2)
	assert.Greater(t, onRedGreen, onRed, "green holds where red vanishes")
}

func TestHueVectorForgetsStrengthOnly(t *testing.T) {
	v := Lab{50, 60, 80}.HueVector()
	assert.InDelta(t, 15, v[0], 1e-9)
	assert.InDelta(t, 20, v[1], 1e-9)
	assert.Equal(t, [2]float64{3, 4}, Lab{50, 3, 4}.HueVector())
}

func BenchmarkDifference(b *testing.B) {
	p, q := Lab{60, 10, -20}, Lab{40, -30, 12}
	for b.Loop() {
		Difference(p, q)
	}
}

// WCAG 2.2, "contrast ratio": black on white is 21 to 1; the greys that just pass for text
// (4.5) and for large text (3) on white are #767676 and #949494, as its own techniques and
// the checkers built on them give them.
func TestContrastAsWCAGHasIt(t *testing.T) {
	on := func(hex string) float64 {
		c, err := ParseHex(hex)
		require.NoError(t, err)
		white, _ := ParseHex("#ffffff")
		assert.InDelta(t, Contrast(c, white), Contrast(white, c), 1e-12)
		return Contrast(c, white)
	}
	assert.InDelta(t, 21, on("#000000"), 1e-9)
	assert.InDelta(t, 1, on("#ffffff"), 1e-9)
	assert.InDelta(t, 4.54, on("#767676"), 0.005)
	assert.InDelta(t, 4.48, on("#777777"), 0.005)
	assert.InDelta(t, 3.03, on("#949494"), 0.005)
	assert.InDelta(t, 4.00, on("#ff0000"), 0.005)
}
