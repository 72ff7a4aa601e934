package picture

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/image/tiff"
)

// Row by row a PNG is read as Go's own decoder reads it, in every kind it writes.
func TestRowsAreReadAsTheStandardLibraryReadsThem(t *testing.T) {
	rnd := rand.New(rand.NewPCG(5, 6))
	r := image.Rect(0, 0, 37, 23)
	pal := color.Palette{}
	for range 13 {
		pal = append(pal, color.NRGBA{uint8(rnd.Uint32()), uint8(rnd.Uint32()), uint8(rnd.Uint32()), uint8(rnd.Uint32() | 128)})
	}
	for name, img := range map[string]interface {
		image.Image
		Set(x, y int, c color.Color)
	}{
		"grey": image.NewGray(r), "grey 16": image.NewGray16(r), "rgba": image.NewNRGBA(r), "rgba 16": image.NewNRGBA64(r), "opaque": image.NewRGBA(r), "palette": image.NewPaletted(r, pal), "two colours": image.NewPaletted(r, pal[:2]), "sixteen": image.NewPaletted(r, pal[:9]),
	} {
		for y := range r.Dy() {
			for x := range r.Dx() {
				c := color.NRGBA64{uint16(rnd.Uint32()), uint16(rnd.Uint32()), uint16(rnd.Uint32()), uint16(rnd.Uint32())}
				if name == "opaque" || y%3 == 0 {
					c.A = 0xffff
				}
				img.Set(x, y, c)
			}
		}
		var b bytes.Buffer
		require.NoError(t, png.Encode(&b, img))
		got, _, ok, err := decodePNG(b.Bytes(), 1)
		require.NoError(t, err, name)
		require.True(t, ok)
		std, err := png.Decode(bytes.NewReader(b.Bytes()))
		require.NoError(t, err)
		want := pack(std, 1)
		require.Equal(t, want.W, got.W)
		for i := range want.Pix {
			require.InDelta(t, want.Pix[i], got.Pix[i], 2, "%s, byte %d", name, i)
		}
		_, _, _, err = decodePNG(b.Bytes()[:b.Len()/2], 1)
		assert.Error(t, err, "%s broken off", name)
	}
}

// A picture past the limit is reduced to squares whose colour is their mean, and
// its dots to the inch with it.
func TestLargePicturesAreReduced(t *testing.T) {
	assert.Equal(t, 1, reduction(4960, 7016), "A4 at 600 dpi is taken whole")
	assert.Equal(t, 2, reduction(10_000, 10_000))
	s := newSink(5, 3, 2)
	for y := range 3 {
		row := make([]uint8, 15)
		for i := range row {
			row[i] = uint8(10 * (y + i/3))
		}
		s.row(row)
	}
	p := s.done()
	assert.Equal(t, []int{3, 2}, []int{p.W, p.H})
	r, _, _ := p.At(0, 0)
	assert.EqualValues(t, 10, r, "mean of 0, 10, 10, 20")
	r, _, _ = p.At(2, 1)
	assert.EqualValues(t, 60, r, "the corner alone")
}

// Ten thousand dots each way with sixteen bits a channel take less memory than
// their file and the reduced picture, in all.
func TestALargeDeepPictureTakesLittleMemory(t *testing.T) {
	var b bytes.Buffer
	e := png.Encoder{CompressionLevel: png.BestSpeed}
	require.NoError(t, e.Encode(&b, blank64{10_000, 10_000}))
	runtime.GC()
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	p, err := Decode(b.Bytes())
	require.NoError(t, err)
	runtime.ReadMemStats(&after)
	assert.Equal(t, 2, p.Reduced)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(200<<20))
}

// blank64 is a grey picture of 16 bits that takes no memory.
type blank64 struct{ w, h int }

func (b blank64) ColorModel() color.Model { return color.NRGBA64Model }
func (b blank64) Bounds() image.Rectangle { return image.Rect(0, 0, b.w, b.h) }
func (b blank64) At(x, y int) color.Color { return color.NRGBA64{0x8080, 0x4040, 0x2020, 0xffff} }

// 300 dots to the inch across and 600 down: a disc stays a disc.
func TestEachAxisByItsOwn(t *testing.T) {
	img := image.NewGray(image.Rect(0, 0, 300, 600))
	for y := range 600 {
		for x := range 300 {
			if math.Hypot(float64(x)-150, float64(y)/2-150) > 100 {
				img.SetGray(x, y, color.Gray{255})
			}
		}
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	raw := physical(b.Bytes(), 300, 600)
	p, err := Decode(raw)
	require.NoError(t, err)
	assert.InDelta(t, 300, p.DPI, 0.5)
	assert.Equal(t, []int{300, 300}, []int{p.W, p.H})
	dark := 0
	for i := 0; i < len(p.Pix); i += 3 {
		if p.Pix[i] < 128 {
			dark++
		}
	}
	assert.InDelta(t, math.Pi*100*100, dark, 400)
	require.NotEmpty(t, p.Notes)
	assert.Contains(t, p.Notes[0], "300 dots to the inch across and 600 down")
}

// physical adds a pHYs chunk (PNG specification, third edition, 11.3.4.3).
func physical(raw []byte, across, down float64) []byte {
	body := make([]byte, 13)
	copy(body, "pHYs")
	binary.BigEndian.PutUint32(body[4:], uint32(math.Round(across/inchM)))
	binary.BigEndian.PutUint32(body[8:], uint32(math.Round(down/inchM)))
	body[12] = 1
	chunk := binary.BigEndian.AppendUint32(nil, 9)
	chunk = append(chunk, body...)
	chunk = binary.BigEndian.AppendUint32(chunk, crc32.ChecksumIEEE(body))
	return slices.Concat(raw[:33], chunk, raw[33:])
}

// A TIFF file that holds a JPEG is refused for what it is.
func TestJPEGInTIFFIsRefusedForTheTrueReason(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, tiff.Encode(&b, image.NewGray(image.Rect(0, 0, 40, 40)), nil))
	raw := b.Bytes()
	at := int(binary.LittleEndian.Uint32(raw[4:]))
	for i := range int(binary.LittleEndian.Uint16(raw[at:])) {
		if e := at + 2 + 12*i; binary.LittleEndian.Uint16(raw[e:]) == tagCompression {
			binary.LittleEndian.PutUint16(raw[e+8:], 7)
		}
	}
	_, err := Decode(raw)
	p, ok := AsProblem(err)
	require.True(t, ok)
	assert.Contains(t, p.What, "(JPEG)")
	assert.NotContains(t, p.What, "breaks off")
}
