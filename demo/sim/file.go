package sim

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"image/jpeg"
	"image/png"
	"math"
)

// PNG writes the picture with its resolution in a pHYs chunk. It is not packed: grain hardly packs,
// and packing takes longer than painting.
func PNG(img image.Image, dpi float64) ([]byte, error) {
	var b bytes.Buffer
	enc := png.Encoder{CompressionLevel: png.NoCompression}
	if err := enc.Encode(&b, img); err != nil {
		return nil, fmt.Errorf("write the picture: %w", err)
	}
	raw := b.Bytes()
	const head = 8 + 25 // signature and IHDR
	body := []byte("pHYs")
	per := uint32(math.Round(dpi / 0.0254))
	body = binary.BigEndian.AppendUint32(body, per)
	body = binary.BigEndian.AppendUint32(body, per)
	body = append(body, 1)
	out := append([]byte{}, raw[:head]...)
	out = binary.BigEndian.AppendUint32(out, 9)
	out = append(out, body...)
	out = binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(body))
	return append(out, raw[head:]...), nil
}

// JPEG writes the picture at a quality, with its resolution in a JFIF header.
func JPEG(img image.Image, dpi float64, quality int) ([]byte, error) {
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality}); err != nil {
		return nil, fmt.Errorf("write the picture: %w", err)
	}
	raw := b.Bytes()
	app := []byte{0xff, 0xe0, 0, 16, 'J', 'F', 'I', 'F', 0, 1, 2, 1}
	app = binary.BigEndian.AppendUint16(app, uint16(math.Round(dpi)))
	app = binary.BigEndian.AppendUint16(app, uint16(math.Round(dpi)))
	app = append(app, 0, 0)
	return append(append(raw[:2:2], app...), raw[2:]...), nil
}
