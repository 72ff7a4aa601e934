package picture

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"

	"golang.org/x/image/draw"
)

// JPEG writes the picture as a JPEG file whose longer side is at most so many pixels: shrunk
// where it is larger (Catmull and Rom), never enlarged, and with nothing of what the file it was
// read from said besides its pixels. It gives the size of what was written.
func (p *Picture) JPEG(most, quality int) (data []byte, w, h int, err error) {
	from := image.NewRGBA(image.Rect(0, 0, p.W, p.H))
	for i, j := 0, 0; i+2 < len(p.Pix); i, j = i+3, j+4 {
		copy(from.Pix[j:j+3], p.Pix[i:i+3])
		from.Pix[j+3] = 255
	}
	w, h = p.W, p.H
	if long := max(w, h); long > most {
		w, h = max(1, (w*most+long/2)/long), max(1, (h*most+long/2)/long)
		to := image.NewRGBA(image.Rect(0, 0, w, h))
		draw.CatmullRom.Scale(to, to.Bounds(), from, from.Bounds(), draw.Src, nil)
		from = to
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, from, &jpeg.Options{Quality: quality}); err != nil {
		return nil, 0, 0, fmt.Errorf("write a picture of %d × %d: %w", w, h, err)
	}
	return b.Bytes(), w, h, nil
}
