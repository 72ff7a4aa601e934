package sheet

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ochrestone/core/plan"
	"ochrestone/core/scene"
	"ochrestone/core/shape"
	"ochrestone/demo"
)

// A hand-out has every step, every ink, every caution once, the finished card at true size; and nothing of
// what its maker has, has left, or where it is kept. The words are read back by poppler, which is not ours.
func TestAHandoutTellsHowAndNothingOfItsMaker(t *testing.T) {
	tool, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("poppler-utils is not installed: the words of the PDF are not read back")
	}
	k, err := demo.Kit()
	require.NoError(t, err)
	for i := range k.Inks {
		k.Inks[i].Where, k.Inks[i].Low = "third drawer", true
	}
	for i := range k.Papers {
		k.Papers[i].Sheets = 7777
	}
	for i := range k.Sets {
		k.Sets[i].Where = "third drawer"
	}
	for _, c := range demo.Cards(k)[:3] {
		pl := plan.Of(c, k, plan.Typeface(Face{}))
		var b bytes.Buffer
		require.NoError(t, Handout(&b, c, k, pl))
		file := filepath.Join(t.TempDir(), "handout.pdf")
		require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
		out, err := exec.Command(tool, "-raw", file, "-").Output()
		require.NoError(t, err)
		words := strings.Join(strings.Fields(string(out)), " ")
		care := map[string]bool{}
		for _, s := range pl.Steps {
			assert.Contains(t, words, strings.Join(strings.Fields(fmt.Sprintf("%d %s", s.Number, s.Title))[:3], " "), c.Title)
			if ink, ok := k.Ink(s.Ink); ok {
				assert.Contains(t, words, ink.Name)
			}
			for _, c := range s.Cautions {
				care["Care: "+c] = true
			}
		}
		assert.Equal(t, len(care), strings.Count(words, "Care: "), "%s: each caution once", c.Title)
		for _, own := range []string{"third drawer", "7777", "running out"} {
			assert.NotContains(t, words, own, c.Title)
		}
	}
}

// What a picture shows of a region is what a general clipper leaves of it within the window.
func TestAPictureEndsAtItsFrame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		at := func(name string) float64 { return rapid.Float64Range(-30, 30).Draw(t, name) }
		g, err := shape.Disc(shape.Point{X: at("x"), Y: at("y")}, 20).Minus(shape.Disc(shape.Point{X: at("hx"), Y: at("hy")}, 8))
		require.NoError(t, err)
		x, y := at("left"), at("top")
		win := shape.Rect(x, y, rapid.Float64Range(5, 50).Draw(t, "wide"), rapid.Float64Range(5, 50).Draw(t, "high"))
		want, err := g.Intersect(win)
		require.NoError(t, err)
		assert.InDelta(t, want.Area(), clipped(g, win.Bounds()).Area(), 0.5)
	})
}

// A picture looks at what is lit with some of what is round it, within the card, in the shape of its frame
// where the card has room for that.
func TestAPictureLooksAtWhatIsLit(t *testing.T) {
	pieces := []miniature{{outline: shape.Rect(80, 100, 10, 10)}, {}}
	see := lookedAt(100, 140, 1.5, pieces, scene.Step{Lit: []int{0, 1}}, shape.Region{})
	assert.InDelta(t, 84, see.W(), 1e-9, "40 of 140 high, and one and a half times as wide")
	assert.InDelta(t, 56, see.H(), 1e-9)
	assert.InDelta(t, 100, see.Max.X, 1e-9, "not past the card")
	assert.True(t, see.Min.X <= 80 && see.Min.Y <= 100 && see.Max.Y >= 110)
	assert.InDelta(t, 100, lookedAt(100, 140, 1.5, pieces, scene.Step{}, shape.Region{}).W(), 1e-9, "all of it where nothing is lit")
	assert.Less(t, lookedAt(100, 140, 1.5, pieces, scene.Step{Lit: []int{0}}, shape.Rect(5, 5, 4, 4)).Min.Y, 1e-9, "the mark, where there is one")
}

// Ink that goes on later is not there yet; after the last step all of it is, and everything lies in its
// place or is lit.
func TestInkThatComesLaterIsNotThereYet(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	unfinished := 0
	for _, c := range demo.Cards(k) {
		pl := plan.Of(c, k, plan.Typeface(Face{}))
		steps := scene.Of(&pl.Build, pl.Steps)
		begun := map[int]int{}
		for n, s := range steps {
			for _, u := range s.Bare {
				assert.GreaterOrEqual(t, u.Begun, begun[u.Piece], "%s, step %d: nothing is undone", c.Title, n+1)
				begun[u.Piece] = u.Begun
				if a := pl.Steps[n]; a.ID.Element == pl.Build.Pieces[pl.Build.Upward()[u.Piece]].ID.Element && a.Treatment() > 0 {
					assert.True(t, s.Shows(u.Piece, a.Treatment()-1), "what goes on now is seen")
				}
				assert.False(t, s.Shows(u.Piece, u.Begun))
				unfinished++
			}
		}
		last := steps[len(steps)-1]
		assert.Empty(t, last.Bare, c.Title)
		for i := range last.States {
			if p := pl.Build.Pieces[pl.Build.Upward()[i]]; p.Thick > 0 {
				assert.Contains(t, "dol", string(last.States[i]), "%s: %v", c.Title, p.ID)
			}
		}
	}
	assert.Positive(t, unfinished)
}
