package picture

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"

	"golang.org/x/image/draw"
)

// Shrunk is the picture made smaller by a whole number, its longer side still at least twice most
// pixels: each pixel is the mean of a square of those there were. Where it is no larger than four
// times most it is the picture itself.
func (p *Picture) Shrunk(most int) *Picture {
	n := max(p.W, p.H) / (2 * most)
	if n < 2 || p.W < n || p.H < n {
		return p
	}
	out := &Picture{W: p.W / n, H: p.H / n, DPI: p.DPI / float64(n), Reduced: max(1, p.Reduced) * n, Soft: p.Soft, Notes: p.Notes}
	out.Pix = make([]uint8, 3*out.W*out.H)
	row := make([]int, 3*out.W)
	for y := range out.H {
		clear(row)
		for dy := range n {
			from := p.Pix[3*(y*n+dy)*p.W:]
			for x := range out.W {
				for dx := range n {
					i := 3 * (x*n + dx)
					row[3*x] += int(from[i])
					row[3*x+1] += int(from[i+1])
					row[3*x+2] += int(from[i+2])
				}
			}
		}
		to := out.Pix[3*y*out.W:]
		for i, v := range row {
			to[i] = uint8((v + n*n/2) / (n * n))
		}
	}
	return out
}

// JPEG writes the picture as a JPEG file whose longer side is at most so many pixels: shrunk
// where it is larger (by means of squares, then by Catmull and Rom), never enlarged, and with nothing of what the file it was
// read from said besides its pixels. It gives the size of what was written.
func (p *Picture) JPEG(most, quality int) (data []byte, w, h int, err error) {
	w, h = p.W, p.H
	if long := max(w, h); long > most {
		w, h = max(1, (w*most+long/2)/long), max(1, (h*most+long/2)/long)
	}
	p = p.Shrunk(most)
	from := image.NewRGBA(image.Rect(0, 0, p.W, p.H))
	for i, j := 0, 0; i+2 < len(p.Pix); i, j = i+3, j+4 {
		copy(from.Pix[j:j+3], p.Pix[i:i+3])
		from.Pix[j+3] = 255
	}
	if w < p.W || h < p.H {
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
