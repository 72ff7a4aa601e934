package sheet

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"image/png"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/demo"
)

func moth(t *testing.T) (card.Card, kit.Kit, plan.Plan) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[0]
	return c, k, plan.Of(c, k)
}

// The size is read back from the PDF by poppler, a program that is not ours,
// where it is installed; the MediaBox itself is always checked.
func TestGuideIsTrueSizeAndNamesEverything(t *testing.T) {
	c, k, pl := moth(t)
	var b bytes.Buffer
	require.NoError(t, Guide(&b, c, k, pl, Page(measure.Letter)))
	require.True(t, bytes.HasPrefix(b.Bytes(), []byte("%PDF-")))
	assert.Regexp(t, regexp.MustCompile(`MediaBox\s*\[0 0 612(\.0*)? 792(\.0*)?\]`), b.String(), "8.5 x 11 in at 72 points")

	tool, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("poppler-utils is not installed: the words of the PDF are not read back")
	}
	file := filepath.Join(t.TempDir(), "guide.pdf")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	out, err := exec.Command(tool, "-layout", file, "-").Output()
	require.NoError(t, err)
	words := string(out)
	for _, l := range pl.Motifs[0].Layers {
		assert.Contains(t, words, l.Label)
	}
	for _, l := range pl.Motifs[0].Colourways[0].Layers {
		if l.InkName != "" {
			assert.Contains(t, words, l.InkName)
		}
	}
	for _, s := range pl.Steps {
		assert.Contains(t, words, fmt.Sprintf("%d", s.Number))
		assert.Contains(t, words, strings.Fields(s.Title)[0])
	}
	assert.Contains(t, words, "Care: ")
	assert.Contains(t, words, "100 mm")
}

func TestFrontPNGHasTheSizeOfTheCard(t *testing.T) {
	c, k, pl := moth(t)
	var b bytes.Buffer
	require.NoError(t, FrontPNG(&b, c, k, pl, 100))
	img, err := png.Decode(&b)
	require.NoError(t, err)
	assert.InDelta(t, 425, img.Bounds().Dx(), 1, "4 1/4 in at 100 dpi")
	assert.InDelta(t, 550, img.Bounds().Dy(), 1)
	// The middle of the fore wing shows the dried ink the plan computed.
	for _, l := range pl.Motifs[0].Colourways[0].Layers {
		if l.InkName == "Bracken, soft" {
			r, g, bl, _ := img.At(int((c.Base.W/2+20)/25.4*100), 189).RGBA()
			assert.Equal(t, l.Dry, fmt.Sprintf("#%02x%02x%02x", r>>8, g>>8, bl>>8))
		}
	}
}

func TestFrontSVGIsWellFormedAndInMillimetres(t *testing.T) {
	c, k, pl := moth(t)
	var b bytes.Buffer
	require.NoError(t, FrontSVG(&b, c, k, pl))
	head := b.String()[:200]
	assert.Contains(t, head, `width="107.95mm"`)
	d := xml.NewDecoder(&b)
	for {
		if _, err := d.Token(); err == io.EOF {
			break
		} else if err != nil {
			t.Fatal(err)
		}
	}
}

// The work sheet of the moth: four pages at the most, none left nearly empty; each caution
// once; the groups in the order people work; what to have at hand before the first step.
// The pages are read back and measured by poppler, a program that is not ours.
func TestTheWorkSheetIsShortAndSaysThingsOnce(t *testing.T) {
	tool, err := exec.LookPath("pdftotext")
	if err != nil {
		t.Skip("poppler-utils is not installed: the words of the PDF are not read back")
	}
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, c := range demo.Cards(k) {
		for _, page := range []measure.Size{measure.Letter, measure.A4} {
			t.Run(fmt.Sprintf("%s %.0f", c.Title, page.H), func(t *testing.T) {
				pl := plan.Of(c, k)
				var b bytes.Buffer
				require.NoError(t, Guide(&b, c, k, pl, Page(page)))
				file := filepath.Join(t.TempDir(), "guide.pdf")
				require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
				info, err := exec.Command("pdfinfo", file).Output()
				require.NoError(t, err)
				var pages int
				_, err = fmt.Sscan(regexp.MustCompile(`Pages:\s+(\d+)`).FindStringSubmatch(string(info))[1], &pages)
				require.NoError(t, err)
				most := 4
				if len(c.Elements) > 8 {
					most = 5 // a dozen things take their steps
				}
				assert.LessOrEqual(t, pages, most)
				out, err := exec.Command(tool, "-raw", file, "-").Output()
				require.NoError(t, err)
				all := strings.Join(strings.Fields(string(out)), " ")
				for _, s := range pl.Steps {
					for _, caution := range s.Cautions {
						assert.Equal(t, 1, strings.Count(all, caution), caution)
					}
					assert.Contains(t, all, fmt.Sprintf("%d %s", s.Number, s.Title))
				}
				at := strings.Index(all, "Have at hand")
				require.Positive(t, at)
				for _, group := range []string{" Cut 1 ", "Stack the images", "Build the front", "Finish"} {
					if group == "Stack the images" && !strings.Contains(all, group) {
						continue // nothing is stacked on a card that is all printed
					}
					next := strings.Index(all, group)
					assert.Greater(t, next, at, "%q comes later than what stands before it", group)
					at = next
				}
				for n := 1; n <= pages; n++ {
					page, err := exec.Command(tool, "-f", fmt.Sprint(n), "-l", fmt.Sprint(n), "-bbox-layout", file, "-").Output()
					require.NoError(t, err)
					lines := strings.Count(string(page), "<line ")
					assert.Greater(t, lines, 8, "page %d has only %d lines", n, lines)
					for _, m := range regexp.MustCompile(`xMax="([\d.]+)" yMax="([\d.]+)"`).FindAllStringSubmatch(string(page), -1) {
						var x, y float64
						_, _ = fmt.Sscan(m[1], &x)
						_, _ = fmt.Sscan(m[2], &y)
						assert.LessOrEqual(t, x, (c0(page, "width"))+0.5, "nothing runs off the page")
						assert.LessOrEqual(t, y, (c0(page, "height"))+0.5)
					}
				}
			})
		}
	}
}

// c0 reads a measure of the page from poppler's answer.
func c0(page []byte, what string) float64 {
	var v float64
	m := regexp.MustCompile(`<page [^>]*` + what + `="([\d.]+)"`).FindSubmatch(page)
	if m != nil {
		_, _ = fmt.Sscan(string(m[1]), &v)
	}
	return v
}
